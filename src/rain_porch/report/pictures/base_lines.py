"""The lines of the base map, made ready once for all maps of a report."""

from __future__ import annotations

from collections.abc import Iterator, Mapping, Sequence
from dataclasses import dataclass
from typing import Any

import numpy as np

from . import ink

_ORDER = (
    "park",
    "school",
    "river",
    "creek",
    "pond",
    "railway",
    "street",
    "main street",
    "highway",
)  # from the ground up
_STYLE = {
    "river": ("fill", ink.WATER, 0),
    "pond": ("fill", ink.WATER, 0),
    "creek": ("line", ink.WATER, 2.2),
    "park": ("fill", ink.PARK, 0),
    "school": ("fill", "#E9E3D3", 0),
    "street": ("line", ink.ROAD, 1.4),
    "main street": ("line", ink.ROAD, 3.0),
    "highway": ("line", "#E3C9A0", 4.5),
    "railway": ("line", "#B9C2C6", 1.2),
}


@dataclass(frozen=True)
class BaseLine:
    """One line or outline; lons, lats: (n,) in degrees; box: west, south, east, north."""

    kind: str
    lons: Any
    lats: Any
    box: tuple[float, float, float, float]


def base_lines(base: Mapping[str, Any] | Sequence[BaseLine]) -> Sequence[BaseLine]:
    """The lines of a GeoJSON base map that are drawn, in the order in which they lie on each other; lines as they are."""
    if not isinstance(base, Mapping):
        return base
    out = []
    features = [f for f in base.get("features", ()) if f["properties"]["kind"] in _STYLE]
    for feature in sorted(features, key=lambda f: _ORDER.index(f["properties"]["kind"])):
        for line in _lines(feature["geometry"]):
            points = np.array([p[:2] for p in line], dtype=float).reshape(-1, 2)
            if len(points):
                (west, south), (east, north) = points.min(axis=0), points.max(axis=0)
                box = (float(west), float(south), float(east), float(north))
                out.append(BaseLine(feature["properties"]["kind"], points[:, 0], points[:, 1], box))
    return tuple(out)


def drawn_lines(lines: Sequence[BaseLine], at: Any, window: tuple[float, float, float, float]) -> Iterator[str]:
    """Those in sight as SVG. at: from degrees, also arrays of them, to points on the map. window: west, south, east, north."""
    west, south, east, north = window
    seen = [x for x in lines if x.box[2] >= west and x.box[0] <= east and x.box[3] >= south and x.box[1] <= north]
    if not seen:
        return
    xs, ys = (z.tolist() for z in at(np.concatenate([x.lons for x in seen]), np.concatenate([x.lats for x in seen])))
    end = 0
    for line in seen:
        start, end = end, end + len(line.lons)
        path = "M" + "L".join([f"{x:.1f} {y:.1f}" for x, y in zip(xs[start:end], ys[start:end], strict=True)])
        how, colour, stroke = _STYLE[line.kind]
        if how == "fill":
            yield f'<path d="{path}z" fill="{colour}"/>'
        else:
            yield f'<path d="{path}" fill="none" stroke="{colour}" stroke-width="{stroke}" stroke-linejoin="round"/>'


def _lines(geometry: Mapping[str, Any]) -> list[Any]:
    kind, parts = geometry["type"], geometry["coordinates"]
    if kind == "LineString":
        return [parts]
    if kind in ("MultiLineString", "Polygon"):
        return list(parts)
    if kind == "MultiPolygon":
        return [ring for polygon in parts for ring in polygon]
    return []
