import { Feature, MapBrowserEvent, type Map as OlMap } from 'ol'
import Collection from 'ol/Collection'
import { LineString, MultiLineString, Point, Polygon } from 'ol/geom'
import { circular } from 'ol/geom/Polygon'
import { Draw, Modify, Translate } from 'ol/interaction'
import { createBox } from 'ol/interaction/Draw'
import VectorLayer from 'ol/layer/Vector'
import { fromLonLat, toLonLat } from 'ol/proj'
import VectorSource from 'ol/source/Vector'
import { getDistance } from 'ol/sphere'
import { Circle as Dot, Fill, RegularShape, Stroke, Style } from 'ol/style'
import type { Circle } from 'ol/geom'
import type { Docs } from '../api/client'
import type { Tokens } from '../style/tokens'

export type DrawnShape = Docs['ShapeDoc']
export type DrawnFence = Docs['FenceDoc']
export type Tool = 'area' | 'rectangle' | 'circle' | 'freehand' | 'fence'
/** Something that the keys can take up: a corner of a drawn area, or all of it. */
export interface Handle {
  area: number
  corner: number
  at: [number, number]
}
export const WHOLE = -1 // in a corner's place: the area as a whole

const MILE = 1609.344
const places = (coordinates: number[][]) =>
  coordinates.map((c) => toLonLat(c).map((v) => Math.round(v * 1e6) / 1e6))

interface Told {
  drawn(shape: DrawnShape): void
  fence(fence: DrawnFence): void
  moved(index: number, shape: DrawnShape): void
}

/** What of a shape is drawn: a saved one names more than one that was just drawn, and nothing need be drawn anew for that. */
const outline = (s: DrawnShape) => [s.points, s.radius_miles ?? null, s.inside !== false]
const same = (a: number[], b: number[]) => a[0] === b[0] && a[1] === b[1]
/** A ring as the map has it, its first corner again at its end; without, a dragged corner takes another with it. */
const closed = (ring: number[][]) => [...ring, ring[0]!]
/** The corners of a ring, each once. */
const opened = (ring: number[][]) => (same(ring[0]!, ring[ring.length - 1]!) ? ring.slice(0, -1) : ring)

/** ms within which a second click belongs to the first */
const DOUBLE = 600

/** What is drawn over the map for a search: areas to look in or leave out, and fences; with the pens to draw them. */
export class MapShapes {
  private readonly source = new VectorSource()
  private readonly polygons = new Collection<Feature>()
  /** What each shape is taken up by as a whole, in its middle. */
  private readonly grips = new Collection<Feature>()
  private pen: Draw | null = null
  /** By which areas, and their corners, are taken up and moved. */
  private readonly hands: [Modify, Translate]
  private shapes: DrawnShape[] = []
  private shown = ''
  private dragging = false
  /** Where a mouse or a pen is over the map. */
  private pointer: PointerEvent | null = null
  /** When a pen last closed an area. */
  private ended = -DOUBLE
  /** What was to be shown while a corner was dragged: it waits, so that nothing is taken from under the pointer. */
  private waiting: [DrawnShape[], DrawnFence[], number[][]] | null = null

  constructor(
    private readonly map: OlMap,
    private tokens: Tokens,
    private readonly told: Told,
  ) {
    const layer = new VectorLayer({
      source: this.source,
      style: (f) => this.style(f.get('what')),
      zIndex: 5,
    })
    map.addLayer(layer)
    const modify = new Modify({
      features: this.polygons,
      pixelTolerance: 8,
      style: () => this.style('corner'),
      deleteCondition: (event) => event.type === 'dblclick', // a corner that is double-clicked goes
    })
    modify.on('modifystart', () => (this.dragging = true))
    modify.on('modifyend', (event) => {
      for (const feature of event.features.getArray() as Feature[]) {
        const index = feature.get('index') as number
        const ring = (feature.getGeometry() as Polygon).getCoordinates()[0]!
        const now = places(opened(ring))
        if (JSON.stringify(now) !== JSON.stringify(this.shapes[index]?.points)) this.moved(index, now)
      }
      this.released()
    })
    const translate = new Translate({
      layers: [layer],
      filter: (f) => f.get('what') === 'grip',
      hitTolerance: 4,
    })
    const grip = (event: { features: Collection<Feature> }) => event.features.item(0) as Feature
    translate.on('translatestart', () => (this.dragging = true))
    translate.on('translating', (event) => this.shift(grip(event), event.startCoordinate, event.coordinate))
    translate.on('translateend', (event) => {
      this.shifted(grip(event), event.startCoordinate, event.coordinate)
      this.released()
    })
    // an area that is closed with a double click on its first corner keeps that corner, and the map does not grow
    map.on('dblclick', () => !this.justClosed)
    this.hands = [modify, translate]
    for (const hand of this.hands) map.addInteraction(hand)
    map.on(['pointermove', 'pointerdrag'], (event) => {
      const at = (event as MapBrowserEvent<PointerEvent>).originalEvent
      this.pointer = at.pointerType === 'touch' ? null : at
    })
    // the dot that marks a corner under the pointer goes with the pointer
    map.getViewport()?.addEventListener('pointerleave', (event) => {
      if (event.buttons) return // a corner is being dragged
      this.pointer = null
      if (this.pen) return // nothing can be
      modify.setActive(false)
      modify.setActive(true)
    })
  }

  /** A pen is in use, or was laid down by a click that may be followed by another or be taken for one on a home. */
  get drawing(): boolean {
    return this.pen !== null || this.justClosed
  }
  private get justClosed(): boolean {
    return performance.now() - this.ended < DOUBLE
  }

  /** A change that was dragged is newer than what waited to be shown: it will be shown itself. */
  private moved(index: number, points: number[][]) {
    this.waiting = null
    this.told.moved(index, { ...this.shapes[index]!, points })
  }
  private released() {
    this.dragging = false
    if (this.waiting) this.show(...this.waiting)
    this.waiting = null
  }

  /** crossings: where outlines cross themselves, (longitude, latitude). */
  show(shapes: DrawnShape[], fences: DrawnFence[], crossings: number[][] = []) {
    const now = JSON.stringify([shapes.map(outline), fences.map((f) => f.lines), crossings])
    if (this.dragging) {
      this.waiting = now === this.shown ? null : [shapes, fences, crossings]
      return
    }
    this.shapes = shapes
    if (now === this.shown) return
    this.shown = now
    this.source.clear()
    this.polygons.clear()
    this.grips.clear()
    shapes.forEach((shape, index) => {
      const what = shape.inside === false ? 'not' : 'inside'
      const geometry = shape.radius_miles
        ? (circular(shape.points[0]!, shape.radius_miles * MILE, 96).transform(
            'EPSG:4326',
            'EPSG:3857',
          ) as Polygon)
        : new Polygon([closed(shape.points.map((p) => fromLonLat(p)))])
      const feature = new Feature({ geometry, what, index })
      this.source.addFeature(feature)
      if (!shape.radius_miles) this.polygons.push(feature)
      const grip = new Feature({ geometry: geometry.getInteriorPoint(), what: 'grip', index, shape: feature })
      this.source.addFeature(grip)
      this.grips.push(grip)
    })
    for (const place of crossings)
      this.source.addFeature(new Feature({ geometry: new Point(fromLonLat(place)), what: 'crossing' }))
    for (const fence of fences) {
      const lines = fence.lines.map((line) => line.map((p) => fromLonLat(p)))
      this.source.addFeature(new Feature({ geometry: new MultiLineString(lines), what: 'fence' }))
    }
    this.pointAgain()
  }
  /** What was drawn anew under a pointer that rests is pointed at, so that a press takes it up without a move before. */
  private pointAgain() {
    const [modify] = this.hands
    if (this.pointer && modify.getActive())
      modify.handleEvent(new MapBrowserEvent('pointermove', this.map, this.pointer))
  }

  /** Take up a pen, or lay it down (null). */
  draw(tool: Tool | null) {
    if (this.pen) this.map.removeInteraction(this.pen)
    this.pen = null
    for (const hand of this.hands) hand.setActive(!tool) // a new corner on an old side is none of the old area's
    if (!tool) return
    const type =
      tool === 'fence' ? 'LineString' : tool === 'rectangle' || tool === 'circle' ? 'Circle' : 'Polygon'
    this.pen = new Draw({
      type,
      freehand: tool === 'freehand',
      geometryFunction: tool === 'rectangle' ? createBox() : undefined,
      style: this.style(tool === 'fence' ? 'fence' : 'inside'),
    })
    this.pen.on('drawend', (event) => {
      this.ended = performance.now()
      this.end(tool, event.feature)
    })
    this.map.addInteraction(this.pen)
  }

  /** A shape goes along with its grip while that is dragged. */
  private shift(grip: Feature, from: number[], to: number[]) {
    const feature = grip.get('shape') as Feature
    const start = (grip.get('start') as Polygon | undefined) ?? (feature.getGeometry() as Polygon).clone()
    grip.set('start', start, true)
    const now = start.clone()
    now.translate(to[0]! - from[0]!, to[1]! - from[1]!)
    feature.setGeometry(now)
  }
  private shifted(grip: Feature, from: number[], to: number[]) {
    const index = grip.get('index') as number
    const [x, y] = [to[0]! - from[0]!, to[1]! - from[1]!]
    const shape = this.shapes[index]
    if (!shape || (!x && !y)) return
    const points = places(shape.points.map((p) => fromLonLat(p)).map((p) => [p[0]! + x, p[1]! + y]))
    this.moved(index, points)
  }

  /** What the keys can take up: the corners of the drawn areas, circles apart, and after them each area as a whole. */
  handles(): Handle[] {
    const middles = this.grips.getArray().map((g) => (g.getGeometry() as Point).getCoordinates())
    return this.shapes.flatMap((shape, area) => {
      const corners = shape.radius_miles ? [] : shape.points.map((p) => fromLonLat(p))
      return [...corners, middles[area]!.slice(0, 2)].map((at, i) => ({
        area,
        corner: i < corners.length ? i : WHOLE,
        at: at as [number, number],
      }))
    })
  }

  /** A corner half-way between this one and the next. */
  addCorner(area: number, corner: number) {
    const shape = this.shapes[area]!
    const [a, b] = [shape.points[corner]!, shape.points[(corner + 1) % shape.points.length]!]
    const middle = [(a[0]! + b[0]!) / 2, (a[1]! + b[1]!) / 2]
    const points = [...shape.points.slice(0, corner + 1), middle, ...shape.points.slice(corner + 1)]
    this.told.moved(area, { ...shape, points })
  }

  /** Put one corner elsewhere, or take it away where three are left; the whole area where none is named. */
  setCorner(area: number, corner: number, to: [number, number] | null) {
    const shape = this.shapes[area]!
    if (corner === WHOLE) {
      const grip = this.grips.item(area)
      return this.shifted(grip, (grip.getGeometry() as Point).getCoordinates(), to!)
    }
    const points = shape.points.flatMap((p, n) => (n !== corner ? [p] : to ? places([to]) : []))
    if (points.length >= 3) this.told.moved(area, { ...shape, points })
  }

  /** What a pen, or the keys, have drawn becomes a limit of the search. */
  end(tool: Tool, feature: Feature) {
    const geometry = feature.getGeometry()
    if (geometry instanceof LineString) {
      this.told.fence({ lines: [places(geometry.getCoordinates())], name: '' })
    } else if (tool === 'circle') {
      const circle = geometry as Circle
      const centre = toLonLat(circle.getCenter())
      const edge = toLonLat([circle.getCenter()[0]! + circle.getRadius(), circle.getCenter()[1]!])
      const radius_miles = Math.round((getDistance(centre, edge) / MILE) * 100) / 100
      if (radius_miles > 0)
        this.told.drawn({ points: places([circle.getCenter()]), radius_miles, inside: true, name: '' })
    } else {
      const polygon = geometry as Polygon
      const plain =
        tool === 'freehand'
          ? (polygon.simplify(this.map.getView().getResolution()! * 1.5) as Polygon)
          : polygon
      const ring = places(opened(plain.getCoordinates()[0]!))
      if (ring.length >= 3) this.told.drawn({ points: ring, inside: true, name: '' })
    }
  }

  recolour(tokens: Tokens) {
    this.tokens = tokens
    this.source.changed()
  }

  private style(what: string): Style | Style[] {
    const t = this.tokens
    if (what === 'fence')
      return [
        new Style({ stroke: new Stroke({ color: t.paper, width: 6 }) }),
        new Style({ stroke: new Stroke({ color: t.clay, width: 2.6, lineDash: [2, 5], lineCap: 'square' }) }),
      ]
    if (what === 'crossing')
      return new Style({
        image: new RegularShape({
          points: 4,
          radius: 9,
          radius2: 0,
          angle: Math.PI / 4,
          stroke: new Stroke({ color: t.clay, width: 3 }),
        }),
        zIndex: 3,
      })
    if (what === 'corner')
      return new Style({ image: new Dot({ radius: 6, fill: new Fill({ color: t.cedar }) }) })
    if (what === 'grip')
      return [
        new Style({
          image: new RegularShape({
            points: 4,
            radius: 9,
            fill: new Fill({ color: t.paper }),
            stroke: new Stroke({ color: t.slate, width: 1.6 }),
          }),
          zIndex: 4,
        }),
        new Style({
          image: new RegularShape({
            points: 4,
            radius: 5,
            radius2: 0,
            stroke: new Stroke({ color: t.slate, width: 1.4 }),
          }),
          zIndex: 5,
        }),
      ]
    const colour = what === 'not' ? t.clay : t.slate
    return [
      new Style({ stroke: new Stroke({ color: t.paper + 'B0', width: 4 }) }),
      new Style({
        stroke: new Stroke({ color: colour, width: 1.8, lineDash: what === 'not' ? [3, 4] : undefined }),
        fill: new Fill({ color: colour + (what === 'not' ? '1F' : '12') }),
        image: new Dot({ radius: 4, fill: new Fill({ color: colour }) }),
      }),
    ]
  }
}
