import { Feature, Map as OlMap, View } from 'ol'
import { defaults as controls, ScaleLine } from 'ol/control'
import type { FeatureLike } from 'ol/Feature'
import GeoJSON from 'ol/format/GeoJSON'
import { Point, type Polygon } from 'ol/geom'
import { circular } from 'ol/geom/Polygon'
import { Translate } from 'ol/interaction'
import VectorLayer from 'ol/layer/Vector'
import { fromLonLat, toLonLat } from 'ol/proj'
import VectorSource from 'ol/source/Vector'
import { unByKey } from 'ol/Observable'
import { getDistance } from 'ol/sphere'
import { Circle, Fill, Icon, Stroke, Style } from 'ol/style'
import type { Docs } from '../api/client'
import { groundStyle } from './groundStyle'
import { MapKeys } from './mapKeys'
import { houseSvg, markSvg, type Choice } from './marks'
import { MapShapes, type DrawnFence, type DrawnShape, type Handle, type Tool } from './mapShapes'
import { TileGround } from './tileGround'
import type { Tokens } from '../style/tokens'
import { isMetric } from '@/shared/localForm'

const MILE = 1609.344

const HOUSE = -1 // among the things that keys move
const FINE_FROM = 2.4 // metres a pixel below which lots and buildings are drawn

/** What a mark on the map needs of a record. */
export type Marked = Pick<
  Docs['CandidateDoc'],
  'listing_id' | 'kind' | 'latitude' | 'longitude' | 'address' | 'date' | 'price'
>

interface Told {
  fine(west: number, south: number, east: number, north: number): void
  /** The marks under the pointer, and where on the map that is; none where there are none. */
  lit(keys: string[], at: number[]): void
  open(key: string): void
  radius(miles: number, done: boolean): void
  drawn(shape: DrawnShape): void
  fence(fence: DrawnFence): void
  moved(index: number, shape: DrawnShape): void
  home(latitude: number, longitude: number): void
  says(words: string): void
}

const layer = (
  source: VectorSource,
  style: (f: FeatureLike, r: number) => Style | Style[] | void,
  declutter = false,
) => new VectorLayer({ source, style, declutter, updateWhileInteracting: true, updateWhileAnimating: true })

/** The map: base map, radius with its handle, marks and the subject. Knows nothing of the workup. */
export class HomeMapDrawing {
  private readonly map: OlMap
  readonly tiles: TileGround
  private readonly ground = new VectorSource()
  private readonly fineGround = new VectorSource()
  private readonly ring = new VectorSource()
  private readonly dots = new VectorSource()
  private readonly home = new VectorSource()
  // what the pointer may be on: of other layers nothing is drawn anew to find out with each of its moves
  private readonly dotLayer = layer(this.dots, (f) => f.get('style') as Style)
  private readonly homeLayer = layer(this.home, (f) => this.homeStyle(f))
  private readonly handle = new Feature(new Point([0, 0]))
  private readonly cache = new Map<string, Style>()
  private centre: [number, number] = [0, 0]
  private miles: number | null = null
  private dragging = false
  private houseMoves = false
  private readonly shapes: MapShapes
  private readonly keys: MapKeys

  constructor(
    box: HTMLElement,
    private tokens: Tokens,
    private readonly told: Told,
  ) {
    const ground = layer(this.ground, (f, r) => groundStyle(this.tokens, f, r), true)
    this.tiles = new TileGround(
      () => this.tokens,
      (covers) => ground.setVisible(!covers),
    )
    this.map = new OlMap({
      target: box,
      controls: controls({ attribution: false, rotate: false }).extend([
        new ScaleLine({ units: isMetric() ? 'metric' : 'us' }),
      ]),
      layers: [
        this.tiles.layer,
        layer(this.fineGround, (f, r) => this.fineStyle(f, r)),
        ground,
        layer(this.ring, () => this.ringStyle()),
        this.dotLayer,
        this.homeLayer,
      ],
      view: new View({ center: [0, 0], zoom: 14, maxZoom: 19 }),
    })
    const translate = this.moving(this.handle, 6)
    translate.on('translating', () => this.drag(false))
    translate.on('translateend', () => this.drag(true))
    this.map.addInteraction(translate)
    this.map.on('pointermove', (event) => {
      if (event.dragging) return
      const keys = this.shapes.drawing ? [] : this.keysAt(event.pixel)
      box.style.cursor = keys.length ? 'pointer' : ''
      this.told.lit(keys, event.pixel)
    })
    this.map.on('moveend', () => this.askFine())
    this.map.on('singleclick', (event) => {
      const [key] = this.keysAt(event.pixel)
      if (key && !this.shapes.drawing) this.told.open(key)
    })
    this.shapes = new MapShapes(this.map, tokens, told)
    this.keys = new MapKeys(this.map, tokens, {
      done: (tool, feature) => this.shapes.end(tool, feature),
      corner: (area, corner, to) => this.put(area, corner, to),
      added: (area, corner) => this.shapes.addCorner(area, corner),
      says: (words) => told.says(words),
    })
    box.addEventListener('keydown', (event) => this.press(event), true)
    box.style.background = tokens.land
  }

  private press(event: KeyboardEvent) {
    if (!this.keys.press(event)) return
    event.preventDefault()
    event.stopImmediatePropagation()
  }

  private moving(one: Feature | undefined, hitTolerance: number): Translate {
    return new Translate({ layers: [this.homeLayer], filter: (f) => f === one, hitTolerance })
  }

  private keysAt(pixel: number[]): string[] {
    const hits = this.map.getFeaturesAtPixel(pixel, {
      hitTolerance: 4,
      layerFilter: (of) => of === this.dotLayer,
    })
    return hits.map((f) => f.get('key') as string | undefined).filter((key) => key !== undefined)
  }

  base(features: Record<string, unknown>) {
    this.ground.clear()
    this.ground.addFeatures(new GeoJSON().readFeatures(features, { featureProjection: 'EPSG:3857' }))
  }

  /** Ask for the lots in view, with a margin, when they are large enough to be seen. */
  private askFine() {
    const view = this.map.getView()
    if ((view.getResolution() ?? 99) > FINE_FROM) return
    const [a, b, c, d] = view.calculateExtent(this.map.getSize())
    const [west, south] = toLonLat([a - (c - a) * 0.3, b - (d - b) * 0.3])
    const [east, north] = toLonLat([c + (c - a) * 0.3, d + (d - b) * 0.3])
    this.told.fine(west, south, east, north)
  }

  fine(features: Record<string, unknown>) {
    this.fineGround.clear(true)
    this.fineGround.addFeatures(new GeoJSON().readFeatures(features, { featureProjection: 'EPSG:3857' }))
  }

  private fineStyle(feature: FeatureLike, resolution: number): Style | void {
    const t = this.tokens
    if (resolution > FINE_FROM) return
    const lot = feature.get('kind') === 'lot'
    const name = `fine ${lot} ${resolution < 0.75}`
    let style = this.cache.get(name)
    if (!style) {
      style = lot
        ? new Style({ stroke: new Stroke({ color: t.line, width: resolution < 0.75 ? 1 : 0.6 }), zIndex: 0 })
        : new Style({ fill: new Fill({ color: t.building }), zIndex: 1 })
      this.cache.set(name, style)
    }
    return style
  }

  recolour(tokens: Tokens) {
    this.tokens = tokens
    this.cache.clear()
    this.shapes.recolour(tokens)
    this.keys.recolour(tokens)
    const box = this.map.getTargetElement()
    if (box) box.style.background = tokens.land
    this.ground.changed()
    this.tiles.layer.changed()
    this.fineGround.changed()
    this.ring.changed()
    this.home.changed()
  }

  /**
   * Put the subject in the middle with its radius, and look at both. `unnamed`: the place is only where to look from, and no home is
   * shown there.
   */
  place(
    subject: { latitude: number; longitude: number },
    miles: number | null,
    zoom?: number,
    unnamed = false,
  ) {
    const centre: [number, number] = [subject.longitude, subject.latitude]
    if (this.dragging && miles) return // the ring is where the pointer has it
    const moved = centre[0] !== this.centre[0] || centre[1] !== this.centre[1]
    const grown = miles !== this.miles
    this.centre = centre
    this.miles = miles
    this.home.clear()
    if (!unnamed)
      this.home.addFeature(new Feature({ geometry: new Point(fromLonLat(centre)), what: 'house' }))
    this.ring.clear()
    if (miles) {
      const circle = this.circle(miles)
      this.ring.addFeature(new Feature(circle))
      this.home.addFeature(this.handle)
      if (!this.dragging) this.handle.setGeometry(new Point(this.east(circle)))
      if ((moved || grown) && !this.dragging) this.fit(circle, moved ? 0 : 250)
    } else if (moved) {
      this.map.getView().setCenter(fromLonLat(centre))
      this.map.getView().setZoom(zoom ?? 15)
    }
  }

  private fit(circle: Polygon, duration: number) {
    this.map.getView().fit(circle.getExtent(), { padding: [14, 14, 14, 14], duration })
  }

  private circle(miles: number): Polygon {
    return circular(this.centre, miles * MILE, 96).transform('EPSG:4326', 'EPSG:3857') as Polygon
  }

  private east(circle: Polygon): number[] {
    const extent = circle.getExtent()
    return [extent[2], fromLonLat(this.centre)[1]]
  }

  private drag(done: boolean) {
    this.dragging = !done
    const at = toLonLat((this.handle.getGeometry() as Point).getCoordinates())
    const steps = done ? 20 : 100 // to the mile: fine while it is dragged, round where it is left
    const miles = Math.min(
      25,
      Math.max(0.05, Math.round((getDistance(this.centre, at) / MILE) * steps) / steps),
    )
    const circle = this.circle(miles)
    this.ring.clear()
    this.ring.addFeature(new Feature(circle))
    if (done) {
      this.miles = miles
      this.handle.setGeometry(new Point(this.east(circle)))
      this.fit(circle, 250)
    }
    this.told.radius(miles, done)
  }

  private lit: string | null = null

  marks(candidates: Marked[], choices: Record<string, Choice>, lit: string | null) {
    this.dots.clear(true)
    const features = candidates
      .filter((c) => c.latitude !== null && c.longitude !== null)
      .map((c) => {
        const choice = choices[c.listing_id] ?? 'undecided'
        const feature = new Feature({
          geometry: new Point(fromLonLat([c.longitude as number, c.latitude as number])),
          key: c.listing_id,
          kind: c.kind,
          choice,
        })
        feature.setId(c.listing_id)
        feature.set('style', this.markStyle(c.kind, choice, c.listing_id === lit))
        return feature
      })
    this.dots.addFeatures(features)
    this.lit = lit
  }

  /** Light one mark in place of another: of thousands, no other is touched. */
  light(lit: string | null) {
    for (const key of [this.lit, lit]) {
      const feature = key === null ? null : (this.dots.getFeatureById(key) as Feature | null)
      feature?.set('style', this.markStyle(feature.get('kind'), feature.get('choice'), key === lit))
    }
    this.lit = lit
  }

  private markStyle(kind: string, choice: Choice, lit: boolean): Style {
    const name = `${kind} ${choice} ${lit}`
    let style = this.cache.get(name)
    if (!style) {
      const src = `data:image/svg+xml;utf8,${encodeURIComponent(markSvg(kind, choice, this.tokens, lit))}`
      style = new Style({
        image: new Icon({ src }),
        zIndex: lit ? 3 : choice === 'kept' ? 2 : choice === 'set_aside' ? 0 : 1,
      })
      this.cache.set(name, style)
    }
    return style
  }

  private homeStyle(feature: FeatureLike): Style {
    if (feature.get('what') === 'house') {
      const src = `data:image/svg+xml;utf8,${encodeURIComponent(houseSvg(this.tokens))}`
      return new Style({ image: new Icon({ src }) })
    }
    return new Style({
      image: new Circle({
        radius: 7,
        fill: new Fill({ color: this.tokens.paper }),
        stroke: new Stroke({ color: this.tokens.slate, width: 2 }),
      }),
    })
  }

  /** The light line under the dashes is seen on pictures from the air alone. */
  private ringStyle(): Style[] {
    return [
      new Style({ stroke: new Stroke({ color: this.tokens.paper + 'B0', width: 3.4 }) }),
      new Style({
        stroke: new Stroke({ color: this.tokens.slate, width: 1.4, lineDash: [6, 5] }),
        fill: new Fill({ color: this.tokens.slate + '0A' }),
      }),
    ]
  }

  limits(shapes: DrawnShape[], fences: DrawnFence[], crossings: number[][]) {
    this.shapes.show(shapes, fences, crossings)
    this.tellKeys()
  }

  /** What the keys can take up: the corners of drawn areas, and the home where it may be moved. */
  private tellKeys() {
    const house: Handle[] = this.houseMoves
      ? [{ area: HOUSE, corner: 0, at: fromLonLat(this.centre) as [number, number] }]
      : []
    this.keys.known([...house, ...this.shapes.handles()])
  }

  private put(area: number, corner: number, to: [number, number] | null) {
    if (area !== HOUSE) this.shapes.setCorner(area, corner, to)
    else if (to) this.told.home(toLonLat(to)[1]!, toLonLat(to)[0]!)
  }

  draw(tool: Tool | null) {
    this.shapes.draw(tool)
    this.keys.take(tool)
  }

  /** Let the subject be dragged to where it really stands. */
  movable() {
    const house = this.home.getFeatures().find((f) => f.get('what') === 'house')
    const move = this.moving(house, 8)
    move.on('translateend', () => {
      const at = (house?.getGeometry() as Point).getCoordinates()
      const [longitude, latitude] = toLonLat(at) as [number, number]
      this.told.home(latitude, longitude)
    })
    const click = this.map.on('singleclick', (event) => {
      const [longitude, latitude] = toLonLat(event.coordinate) as [number, number]
      this.told.home(latitude, longitude)
    })
    this.map.addInteraction(move)
    this.houseMoves = true
    this.tellKeys()
    return () => {
      unByKey(click)
      this.map.removeInteraction(move)
      this.houseMoves = false
      this.tellKeys()
    }
  }

  remove() {
    this.map.setTarget(undefined)
  }
}
