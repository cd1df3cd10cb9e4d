"""The town's areas, lots, buildings and lines, written as GeoJSON."""

from __future__ import annotations

import json
import math
from collections.abc import Iterable, Sequence
from pathlib import Path
from typing import Any

import shapely

from .houses import House
from .plan import CREEK, FT, GREENS, NEIGHBOURHOODS, RAILWAY, Plan, highway_line, in_degrees, river_line, to_degrees
from .trading import LAST_DAY as LAST


def write_areas(path: Path, plan: Plan, footprints: Sequence[tuple[list[tuple[float, float]], str]]) -> Path:
    """Neighbourhoods and subdivisions as polygons; river, highway and streets for the map."""
    features: list[dict[str, Any]] = []

    def add(name: str, kind: str, geometry: Any, number: int = 0) -> None:
        shape = json.loads(shapely.to_geojson(geometry))
        features.append(
            {"type": "Feature", "id": number, "properties": {"name": name, "kind": kind}, "geometry": shape}
        )

    river = shapely.LineString(in_degrees(river_line()))
    add("Brindle River", "river", river.buffer(0.0011))
    for hood in NEIGHBOURHOODS:
        lots = [lot for lot in plan.lots if lot.neighbourhood is hood]
        shapes = shapely.union_all([_lot_shape(lot.corners).buffer(0.00014) for lot in lots])
        add(
            hood.name,
            "neighbourhood",
            shapely.simplify(shapely.unary_union(shapes.buffer(0.0006).buffer(-0.0005)), 0.00002),
        )
        for phase in sorted({lot.subdivision for lot in lots}):
            part = shapely.union_all(
                [_lot_shape(lot.corners).buffer(0.00014) for lot in lots if lot.subdivision == phase]
            )
            add(phase, "subdivision", shapely.simplify(part, 0.00003))
    add("Route 9", "highway", shapely.LineString(in_degrees(highway_line())))
    for i, (name, kind, line) in enumerate(plan.streets):
        add(name, "street" if kind == "local" else "main street", shapely.LineString(in_degrees(line)), i)
    for name, kind, corners in GREENS:
        ring = [to_degrees(x, y) for x, y in corners]
        shape = shapely.Polygon(ring)
        add(name, kind, shape.buffer(0.0006).buffer(-0.0006) if kind != "pond" else shape.buffer(0.0004))
    add("Quarry Creek", "creek", shapely.LineString(in_degrees(CREEK)))
    add("Brindle Valley Railway", "railway", shapely.LineString(in_degrees(RAILWAY)))
    for number, lot in enumerate([*plan.lots, *plan.acres]):
        add(f"{lot.number} {lot.street}", "lot", _lot_shape(lot.corners), number)
    for number, (corners, of) in enumerate(footprints):
        add(of, "building", _lot_shape(corners), number)
    path.write_text(json.dumps({"type": "FeatureCollection", "features": features}), encoding="utf-8")
    return path


def standing(houses: Sequence[House]) -> Iterable[House]:
    """One house a building that stands on the last day."""
    seen: set[str] = set()
    for h in houses:
        if h.kind == "acreage" or (h.built_day or 0) > LAST or h.address in seen:
            continue
        seen.add(h.address)
        yield h


def footprint(h: House) -> tuple[list[tuple[float, float]], str]:
    """The outline of the building, set back from the street on its lot."""
    a, b, c, d = h.lot.corners
    width, depth = math.dist(a, b) / FT, math.dist(b, c) / FT
    if h.kind == "condominium":
        share_w, share_d = 0.8, 0.62
    else:
        area = h.facts["living_area"] / h.facts["stories"] + 200 * h.facts["garage_spaces"]
        share_w = min(0.8, max(0.35, math.sqrt(area * 1.35) / width))
        share_d = min(0.62, area / (share_w * width) / depth)
    odd = h.lot.number % 2 == 1  # odd numbers stand south of the street and face north
    front = 0.86 if odd else 0.14
    v0, v1 = (front - share_d, front) if odd else (front, front + share_d)
    u0, u1 = 0.5 - share_w / 2, 0.5 + share_w / 2

    def at(u: float, v: float) -> tuple[float, float]:
        left = (a[0] + (d[0] - a[0]) * v, a[1] + (d[1] - a[1]) * v)
        right = (b[0] + (c[0] - b[0]) * v, b[1] + (c[1] - b[1]) * v)
        return left[0] + (right[0] - left[0]) * u, left[1] + (right[1] - left[1]) * u

    return [at(u0, v0), at(u1, v0), at(u1, v1), at(u0, v1)], h.address


def _lot_shape(corners: list[tuple[float, float]]) -> Any:
    return shapely.Polygon([to_degrees(x, y) for x, y in corners])
