import type { FeatureLike } from 'ol/Feature'
import MVT from 'ol/format/MVT'
import LayerGroup from 'ol/layer/Group'
import TileLayer from 'ol/layer/Tile'
import VectorTileLayer from 'ol/layer/VectorTile'
import VectorTileSource from 'ol/source/VectorTile'
import XYZ from 'ol/source/XYZ'
import { Fill, Stroke, Style, Text } from 'ol/style'
import type { Docs } from '../api/client'
import { served } from '../servicePath'
import type { Tokens } from '../style/tokens'

type Layer = Docs['ShownLayerDoc']

/** Streets or pictures from the air under the map, from tiles. Where none can be had, the map of the records stays. */
export class TileGround {
  readonly layer = new LayerGroup()
  private shown: Layer | null = null

  constructor(
    private readonly tokens: () => Tokens,
    private readonly covered: (covers: boolean) => void,
  ) {}

  /** Show a layer in place of another; none: the map of the records. `failed` is called where its tiles cannot be had. */
  show(layer: Layer | null, failed: () => void) {
    this.shown = layer
    this.layer.getLayers().clear()
    this.covered(layer !== null)
    if (!layer) return
    const url = layer.path.startsWith('/') ? served(layer.path) : layer.path
    const zooms = { minZoom: layer.least_zoom, maxZoom: layer.most_zoom }
    const source =
      layer.form === 'vector'
        ? new VectorTileSource({ format: new MVT(), url, ...zooms })
        : new XYZ({ url, ...zooms })
    let [asked, came, lost] = [0, 0, 0]
    source.on('tileloadstart', () => (asked += 1))
    source.on('tileloadend', () => (came += 1))
    source.on('tileloaderror', () => {
      lost += 1
      if (came || lost < asked || this.shown !== layer) return
      this.show(null, failed)
      failed()
    })
    this.layer
      .getLayers()
      .push(
        source instanceof XYZ
          ? new TileLayer({ source })
          : new VectorTileLayer({ source, declutter: true, style: (f, r) => this.style(f, r) }),
      )
  }

  /** Vector tiles name what they hold each in their own way: what is drawn goes by the words that open ones share. */
  private style(feature: FeatureLike, resolution: number): Style | void {
    const t = this.tokens()
    const told = feature.getProperties() as Record<string, unknown>
    const what = `${told.layer ?? ''} ${told.class ?? ''} ${told.kind ?? ''}`.toLowerCase()
    const name = typeof told.name === 'string' ? told.name : ''
    const text = (colour: string, line: boolean) =>
      name && resolution < 6
        ? new Text({
            text: name,
            font: '500 11px Figtree, sans-serif',
            fill: new Fill({ color: colour }),
            stroke: new Stroke({ color: t.land, width: 3 }),
            placement: line ? 'line' : 'point',
          })
        : undefined
    const type = feature.getGeometry()?.getType() ?? ''
    if (type.endsWith('Polygon')) {
      const colour = /water|ocean|river|lake/.test(what)
        ? t.water
        : /park|wood|forest|grass|green|landuse|landcover/.test(what)
          ? t.park
          : /build/.test(what)
            ? t.building
            : null
      return colour ? new Style({ fill: new Fill({ color: colour }), zIndex: 1 }) : undefined
    }
    if (type.endsWith('LineString')) {
      if (/water|river|stream/.test(what))
        return new Style({ stroke: new Stroke({ color: t.water, width: 2 }) })
      if (/bound|admin/.test(what)) return undefined
      const wide = /motorway|highway|trunk|primary/.test(what)
      return new Style({
        stroke: new Stroke({ color: wide ? t.highway : t.road, width: wide ? 5 : 3 }),
        text: text(t.quiet, true),
        zIndex: wide ? 3 : 2,
      })
    }
    return name && /place|settle|town/.test(what)
      ? new Style({ text: text(t.slate, false), zIndex: 4 })
      : undefined
  }
}
