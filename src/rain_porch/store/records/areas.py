"""Areas and base map features as they are asked for."""

from __future__ import annotations

import json
import math
import sqlite3
from collections.abc import Iterable, Sequence
from typing import Any

import numpy as np
import shapely

from ...core.facts.places.place import across_fence, feet_to
from ..db import Db

FINE_KINDS = ("lot", "building")
FINE_LIMIT = 4000
FELT = ("highway", "main street", "railway", "river", "creek", "pond", "park", "school")
BARRIERS = ("highway", "river", "railway", "creek")
AREA_KINDS = ("neighbourhood", "subdivision", "district", "city", "area", "plat")


def named_areas(db: Db) -> list[dict[str, str]]:
    """Polygons that name a place, by kind and name."""
    marks = ", ".join("?" * len(AREA_KINDS))
    rows = db.execute(f"SELECT area_key, name, kind FROM areas WHERE kind IN ({marks}) ORDER BY kind, name", AREA_KINDS)
    return [dict(r) for r in rows]


def pattern(name: str) -> str:
    """A name as a pattern for fnmatch, without case: `*` stands for any letters, the rest for itself."""
    return "".join("*" if ch == "*" else f"[{ch}]" if ch in "?[" else ch for ch in name.casefold())


def area_shape(db: Db, name: str) -> Any | None:
    """The union of the polygons with this name (without case; `*` stands for any letters), or None."""
    rows = db.execute(
        f"SELECT geometry FROM areas WHERE lower(name) GLOB :name AND kind IN ({', '.join(repr(k) for k in AREA_KINDS)})",
        {"name": pattern(name)},
    ).fetchall()
    shapes = [shapely.from_geojson(r["geometry"]) for r in rows]
    polygons = [s for s in shapes if s.geom_type in ("Polygon", "MultiPolygon")]
    return shapely.union_all(polygons) if polygons else None


def barriers(db: Db) -> list[dict[str, Any]]:
    """Highways, waters and railways of the base map by name, each with its lines: what may be taken as a fence."""
    marks = ", ".join("?" * len(BARRIERS))
    held: dict[tuple[str, str], list[Any]] = {}
    for r in db.execute(f"SELECT name, kind, geometry FROM areas WHERE kind IN ({marks}) AND name <> ''", BARRIERS):
        held.setdefault((r["name"], r["kind"]), []).append(shapely.from_geojson(r["geometry"]))
    out = []
    for (name, kind), parts in sorted(held.items(), key=lambda x: (BARRIERS.index(x[0][1]), x[0][0])):
        edges = [shapely.boundary(p) if "Polygon" in p.geom_type else p for p in parts]
        line = shapely.line_merge(shapely.union_all(edges)) if len(edges) > 1 else edges[0]
        fine = next(
            s for t in (2e-5, 5e-5, 2e-4, 1e-3) if shapely.get_num_coordinates(s := shapely.simplify(line, t)) < 1500
        )
        lines = [[list(map(float, p)) for p in part.coords] for part in shapely.get_parts(fine)]
        out.append({"name": name, "kind": kind, "lines": lines})
    return out


def _touching(
    db: Db, west: float, south: float, east: float, north: float, kinds: Sequence[str]
) -> list[tuple[str, str, Any]]:
    """(name, kind, shape) of the base map's features of some kinds whose bounds touch a box."""
    marks = ", ".join("?" * len(kinds))
    rows = db.execute(
        "SELECT a.name, a.kind, a.geometry FROM area_places p JOIN areas a USING (row_id) "
        f"WHERE p.north >= ? AND p.south <= ? AND p.east >= ? AND p.west <= ? AND a.kind IN ({marks})",
        (south, north, west, east, *kinds),
    )
    return [(r["name"], r["kind"], shapely.from_geojson(r["geometry"])) for r in rows]


def near_features(db: Db, lat: float, lon: float, miles: float = 0.5) -> list[dict[str, Any]]:
    """What of the base map bears on a home's price nearby (roads, rails, water, parks, schools), nearest first, in feet."""
    reach_lat, reach_lon = miles / 69, miles / 69 / max(0.05, math.cos(math.radians(lat)))
    held: dict[tuple[str, str], float] = {}
    for name, kind, shape in _touching(db, lon - reach_lon, lat - reach_lat, lon + reach_lon, lat + reach_lat, FELT):
        feet = feet_to(shape, lat, lon)
        key = (name, kind)
        held[key] = min(feet, held.get(key, math.inf))
    found = [{"name": n, "kind": k, "feet": round(feet)} for (n, k), feet in held.items() if feet <= miles * 5280]
    return sorted(found, key=lambda x: x["feet"])


STREETS = ("street", "main street", "highway")
BESIDE_FEET = 40.0  # from a lot's edge to the middle of the street that it lies on


def streets_beside(db: Db, lat: float, lon: float) -> list[str]:
    """Names of the streets that the lot under a spot lies on, as the base map has lots and streets: two at a corner."""
    here = shapely.Point(lon, lat)
    lot = next((shape for _, _, shape in _touching(db, lon, lat, lon, lat, ("lot",)) if shape.intersects(here)), None)
    if lot is None:
        return []
    west, south, east, north = lot.bounds
    reach = BESIDE_FEET / 364_000 * 1.5
    corners = [(float(x), float(y)) for x, y in shapely.get_coordinates(lot)]
    found: dict[str, float] = {}
    for name, _, line in _touching(db, west - 2 * reach, south - reach, east + 2 * reach, north + reach, STREETS):
        feet = min(feet_to(line, y, x) for x, y in corners)
        if feet <= BESIDE_FEET:
            found[name] = min(feet, found.get(name, math.inf))
    return sorted(found, key=lambda name: found[name])


def base_map(db: Db) -> dict[str, Any]:
    """What is drawn under the marks at any scale, as one GeoJSON feature collection; lots and buildings apart."""
    marks = ", ".join("?" * len(FINE_KINDS))
    return _collection(
        db.execute(f"SELECT row_id, name, kind, geometry FROM areas WHERE kind NOT IN ({marks})", FINE_KINDS)
    )


def fine_map(db: Db, west: float, south: float, east: float, north: float) -> dict[str, Any]:
    """Lots and buildings that touch a box, at most FINE_LIMIT of them."""
    rows = db.execute(
        "SELECT a.row_id, a.name, a.kind, a.geometry FROM area_places p JOIN areas a USING (row_id) "
        "WHERE p.north >= :s AND p.south <= :n AND p.east >= :w AND p.west <= :e AND a.kind IN ('lot', 'building') "
        "ORDER BY a.row_id LIMIT :limit",
        {"w": west, "s": south, "e": east, "n": north, "limit": FINE_LIMIT},
    )
    return _collection(rows)


def _collection(rows: Iterable[sqlite3.Row]) -> dict[str, Any]:
    return {
        "type": "FeatureCollection",
        "features": [
            {
                "type": "Feature",
                "id": r["row_id"],
                "properties": {"name": r["name"], "kind": r["kind"]},
                "geometry": json.loads(r["geometry"]),
            }
            for r in rows
        ],
    }


def between(db: Db, here: tuple[float, float], there: dict[str, tuple[float, float]]) -> dict[str, str]:
    """What of the base map's highways, railways and waters lies between a spot and others, both (longitude, latitude).

    Key of a spot → the name of the first that the straight way to it touches; spots with a free way are left out.
    """
    if not there:
        return {}
    lons, lats = (np.array(x) for x in zip(*there.values(), strict=True))
    (west, east), (south, north) = (
        (float(min(h, x.min())), float(max(h, x.max()))) for h, x in zip(here, (lons, lats), strict=True)
    )
    out: dict[str, str] = {}
    met = _touching(db, west, south, east, north, BARRIERS)
    for name, _, shape in sorted(met, key=lambda x: BARRIERS.index(x[1])):
        for key, hit in zip(there, across_fence(shape, here[1], here[0], lats, lons), strict=True):
            if hit:
                out.setdefault(key, name)
    return out
