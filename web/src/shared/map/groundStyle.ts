import type { FeatureLike } from 'ol/Feature'
import { LineString } from 'ol/geom'
import { Fill, Stroke, Style, Text } from 'ol/style'
import type { Tokens } from '../style/tokens'

/** How streets, water, parks and the like of the records are drawn; resolution in metres a pixel. */
export function groundStyle(t: Tokens, feature: FeatureLike, resolution: number): Style | Style[] | void {
  const kind = feature.get('kind') as string
  const name = feature.get('name') as string
  const label = (size: number, colour: string, line: boolean, italic = false) =>
    new Text({
      text: name,
      font: `${italic ? 'italic ' : ''}500 ${size}px Figtree, sans-serif`,
      fill: new Fill({ color: colour }),
      stroke: new Stroke({ color: t.land, width: 3 }),
      placement: line && feature.getGeometry() instanceof LineString ? 'line' : 'point',
      overflow: false,
    })
  if (kind === 'river' || kind === 'pond')
    return new Style({
      fill: new Fill({ color: t.water }),
      text: label(12, t.rain, false, true),
      zIndex: 1,
    })
  if (kind === 'park' || kind === 'school')
    return new Style({
      fill: new Fill({ color: kind === 'park' ? t.park : t.school }),
      text: resolution < 9 ? label(11, t.moss, false) : undefined,
    })
  if (kind === 'creek')
    return new Style({
      stroke: new Stroke({ color: t.water, width: Math.max(1.5, 9 / resolution) }),
      zIndex: 1,
    })
  if (kind === 'railway')
    return [
      new Style({ stroke: new Stroke({ color: t.quiet, width: 2.4 }), zIndex: 4 }),
      new Style({ stroke: new Stroke({ color: t.land, width: 1.4, lineDash: [6, 6] }), zIndex: 4 }),
    ]
  if (kind === 'highway')
    return [
      new Style({ stroke: new Stroke({ color: t.line, width: 8 }), zIndex: 5 }),
      new Style({
        stroke: new Stroke({ color: t.highway, width: 6 }),
        text: label(11, t.slate, true),
        zIndex: 6,
      }),
    ]
  if (kind === 'street' || kind === 'main street') {
    const wide = (kind === 'street' ? 7 : 10) / Math.max(0.55, Math.min(resolution, 12) / 1.6)
    const shown = resolution < (kind === 'street' ? 3.4 : 6)
    return [
      new Style({ stroke: new Stroke({ color: t.line, width: Math.max(1, wide + 1.4) }), zIndex: 2 }),
      new Style({
        stroke: new Stroke({ color: t.road, width: Math.max(0.8, wide) }),
        text: shown ? label(10.5, t.quiet, true) : undefined,
        zIndex: 3,
      }),
    ]
  }
  if (kind === 'neighbourhood' && resolution > 3)
    return new Style({ text: label(13, t.slate, false), zIndex: 8 })
}
