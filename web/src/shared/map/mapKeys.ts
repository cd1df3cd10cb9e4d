import { Feature, type Map as OlMap } from 'ol'
import { Circle as CircleShape, LineString, Point, Polygon } from 'ol/geom'
import { fromExtent } from 'ol/geom/Polygon'
import VectorLayer from 'ol/layer/Vector'
import VectorSource from 'ol/source/Vector'
import { Circle as Dot, Fill, RegularShape, Stroke, Style } from 'ol/style'
import { WHOLE, type Handle, type Tool } from './mapShapes'
import type { Tokens } from '../style/tokens'

type Place = [number, number]

interface Told {
  /** What the keys have drawn, as the pens would have left it. */
  done(tool: Tool, feature: Feature): void
  /** A corner of a drawn area, or the whole of it, has come to a new place; a corner has gone (null). */
  corner(area: number, corner: number, to: Place | null): void
  /** A corner is wanted between this one and the next. */
  added(area: number, corner: number): void
  /** What stands and what the next key does, for eyes and for screen readers. */
  says(words: string): void
}

const STEP = 10 // pixels; ten times that with Shift

/**
 * Drawing without a mouse: a cross is moved with the arrow keys, Enter sets a corner, Backspace takes the last away.
 * With no pen in hand, N goes from corner to corner of what is drawn and to the whole of it, and the arrows move it.
 */
export class MapKeys {
  private readonly source = new VectorSource()
  private tool: Tool | null = null
  private at: Place | null = null
  private set: Place[] = []
  private handles: Handle[] = []
  private picked: number | null = null
  private awaited: { area: number; corner: number } | null = null

  constructor(
    private readonly map: OlMap,
    private tokens: Tokens,
    private readonly told: Told,
  ) {
    map.addLayer(new VectorLayer({ source: this.source, style: (f) => this.style(f as Feature), zIndex: 9 }))
  }

  recolour(tokens: Tokens) {
    this.tokens = tokens
    this.source.changed()
  }

  /** What N goes through, area by area. A corner that was added is taken up as soon as it stands. */
  known(handles: Handle[]) {
    const before = this.handles.length
    this.handles = handles
    if (this.picked !== null && this.picked >= handles.length) this.leave()
    const { area, corner } = this.awaited ?? {}
    if (area === undefined || handles.length <= before) return
    this.awaited = null
    this.pick(handles.findIndex((h) => h.area === area && h.corner === corner))
    this.show()
    this.told.says(this.words())
  }

  take(tool: Tool | null) {
    this.tool = tool
    this.set = []
    this.picked = null
    this.at = tool ? (this.map.getView().getCenter() as Place) : null
    this.show()
    this.told.says(tool ? this.words() : '')
  }

  /** A key that was pressed on the map; false where it means nothing here. */
  press(event: KeyboardEvent): boolean {
    if (event.ctrlKey || event.metaKey || event.altKey) return false
    const way = { ArrowLeft: [-1, 0], ArrowRight: [1, 0], ArrowUp: [0, 1], ArrowDown: [0, -1] }[event.key]
    if (way && this.at) this.move(way[0]!, way[1]!, event.shiftKey ? 10 * STEP : STEP)
    else if (this.tool && (event.key === 'Enter' || event.key === ' ')) this.enter()
    else if (this.tool && event.key === 'Backspace') this.set.pop()
    else if (!this.tool && event.key.toLowerCase() === 'n' && this.handles.length) this.next()
    else if (this.picked !== null && event.key === 'Enter') this.put()
    else if (this.isCorner() && event.key === 'Delete') this.away()
    else if (this.isCorner() && event.key.toLowerCase() === 'a') this.more()
    else if (this.picked !== null && event.key === 'Escape') this.leave()
    else return false
    this.show()
    this.told.says(this.words())
    return true
  }

  private move(x: number, y: number, pixels: number) {
    const reach = (this.map.getView().getResolution() ?? 1) * pixels
    const [east, north] = this.at as Place
    this.at = [east + x * reach, north + y * reach]
    const [a, b, c, d] = this.map.getView().calculateExtent(this.map.getSize())
    const out = this.at[0] < a! || this.at[0] > c! || this.at[1] < b! || this.at[1] > d!
    if (out) this.map.getView().setCenter(this.at)
  }

  private enter() {
    const at = this.at as Place
    const last = this.set.at(-1)
    const again = last !== undefined && last[0] === at[0] && last[1] === at[1]
    const two = this.tool === 'rectangle' || this.tool === 'circle'
    if (!again) this.set.push(at)
    const needed = this.tool === 'fence' || two ? 2 : 3
    if (this.set.length >= needed && (again || two)) this.finish()
  }

  private finish() {
    const tool = this.tool as Tool
    const shape = this.shape(this.set)
    if (shape) this.told.done(tool === 'freehand' ? 'area' : tool, new Feature(shape))
  }

  private next() {
    this.pick(this.picked === null ? 0 : (this.picked + 1) % this.handles.length)
  }
  private pick(index: number) {
    this.picked = index
    this.at = this.handles[index]!.at
    const [a, b, c, d] = this.map.getView().calculateExtent(this.map.getSize())
    if (this.at[0] < a! || this.at[0] > c! || this.at[1] < b! || this.at[1] > d!)
      this.map.getView().setCenter(this.at)
  }
  private isCorner(): boolean {
    const handle = this.picked === null ? undefined : this.handles[this.picked]
    return handle !== undefined && handle.area >= 0 && handle.corner !== WHOLE
  }
  private more() {
    const { area, corner } = this.handles[this.picked!]!
    this.leave()
    this.awaited = { area, corner: corner + 1 }
    this.told.added(area, corner)
  }
  private put() {
    const { area, corner } = this.handles[this.picked!]!
    const to = this.at as Place
    this.leave()
    this.told.corner(area, corner, to)
  }
  private away() {
    const { area, corner } = this.handles[this.picked!]!
    this.leave()
    this.told.corner(area, corner, null)
  }
  private leave() {
    this.picked = null
    this.at = null
  }

  private words(): string {
    const handle = this.picked === null ? undefined : this.handles[this.picked]
    if (handle && handle.area < 0) return 'The home: arrows move it, Enter leaves it there, Esc back.'
    if (handle?.corner === WHOLE)
      return 'The whole area: arrows move it, Enter leaves it there, N the next, Esc back.'
    if (handle) {
      const corners = this.handles.filter((h) => h.area === handle.area && h.corner !== WHOLE).length
      return `Corner ${handle.corner + 1} of ${corners}: arrows move it, Enter leaves it there, A adds one after it, Delete takes it away, N the next, Esc back.`
    }
    if (!this.tool) return ''
    const n = this.set.length
    const name = { area: 'Area', freehand: 'Area', rectangle: 'Rectangle', circle: 'Circle', fence: 'Fence' }[
      this.tool
    ]
    const start = `click on the map, or move the cross with the arrows and press Enter`
    if (!n)
      return `${name}: ${start} ${this.tool === 'circle' ? 'for its middle' : 'for each corner'}. Esc lays the pen down.`
    if (this.tool === 'circle') return 'Circle: Enter or a click sets its edge. Esc lays the pen down.'
    if (this.tool === 'rectangle')
      return 'Rectangle: Enter or a click sets the corner across. Esc lays the pen down.'
    return `${name}, ${n} set: Enter twice at the last ends it, Backspace takes one back, Esc lays the pen down.`
  }

  /** What would be drawn if these places were all. */
  private shape(places: Place[]) {
    const [first, second] = [places[0], places.at(-1)]
    if (!first || !second || places.length < 2) return null
    if (this.tool === 'circle')
      return new CircleShape(first, Math.hypot(second[0] - first[0], second[1] - first[1]))
    if (this.tool === 'rectangle')
      return fromExtent([
        Math.min(first[0], second[0]),
        Math.min(first[1], second[1]),
        Math.max(first[0], second[0]),
        Math.max(first[1], second[1]),
      ])
    if (this.tool === 'fence' || places.length < 3) return new LineString(places)
    return new Polygon([[...places, first]])
  }

  private show() {
    this.source.clear(true)
    if (!this.at) return
    const drawn = this.tool ? this.shape([...this.set, this.at]) : null
    if (drawn) this.source.addFeature(new Feature(drawn))
    for (const place of this.set)
      this.source.addFeature(new Feature({ geometry: new Point(place), dot: true }))
    this.source.addFeature(new Feature({ geometry: new Point(this.at), cross: true }))
  }

  private style(feature: Feature): Style {
    const t = this.tokens
    if (feature.get('cross'))
      return new Style({
        image: new RegularShape({
          points: 4,
          radius: 13,
          radius2: 0,
          stroke: new Stroke({ color: t.cedar, width: 2.2 }),
        }),
        zIndex: 2,
      })
    if (feature.get('dot'))
      return new Style({ image: new Dot({ radius: 4, fill: new Fill({ color: t.slate }) }), zIndex: 1 })
    return new Style({
      stroke: new Stroke({ color: t.slate, width: 1.8, lineDash: [6, 4] }),
      fill: new Fill({ color: t.slate + '12' }),
    })
  }
}
