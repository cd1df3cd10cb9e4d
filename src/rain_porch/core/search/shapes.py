"""Shapes drawn on the map that a search looks inside (or leaves out), and fences that comps must not cross.

Points are (longitude, latitude) in degrees, as in GeoJSON.
"""

from __future__ import annotations

from collections.abc import Sequence
from dataclasses import dataclass
from functools import lru_cache
from typing import Any

import numpy as np
import shapely

from ..errors import BadInput
from ..facts.places.place import Bools, Floats, across_fence, in_area, within_radius

Point = tuple[float, float]
MAX_SHAPES, MAX_POINTS = 20, 2000


@dataclass(frozen=True)
class Shape:
    """A polygon of three or more points (a ring, closed or not), or a circle: one point and a radius.

    inside: look within it; else leave out what lies within it.
    """

    points: tuple[Point, ...]
    radius_miles: float | None = None
    inside: bool = True
    name: str = ""


@dataclass(frozen=True)
class Fence:
    """Lines that the straight way from the subject to a comp must not touch."""

    lines: tuple[tuple[Point, ...], ...]
    name: str = ""


def check_shapes(shapes: Sequence[Shape], fences: Sequence[Fence]) -> None:
    """Raise BadInput, naming the part and the place, for what is no shape or no line, or too much of it."""
    if len(shapes) > MAX_SHAPES or len(fences) > MAX_SHAPES:
        raise BadInput("shapes", f"More than {MAX_SHAPES} shapes or fences: take some away.")
    for n, shape in enumerate(shapes):
        where = f"shapes.{n}"
        _check_points(where, shape.points)
        if shape.radius_miles is not None:
            if len(shape.points) != 1 or not 0 < shape.radius_miles <= 250:
                raise BadInput(where, "A circle has one centre and a radius of more than 0, at most 250 miles.")
        elif len(set(shape.points)) < 3:
            raise BadInput(where, "A drawn area needs at least three corners.")
        elif polygon_of(shape.points).is_empty:
            raise BadInput(where, "The drawn area holds no ground: its corners lie on one line.")
    for n, fence in enumerate(fences):
        where = f"fences.{n}"
        _check_points(where, [p for line in fence.lines for p in line])
        if not fence.lines or any(len(set(line)) < 2 for line in fence.lines):
            raise BadInput(where, "A fence needs a line of at least two different points.")


def _check_points(where: str, points: Sequence[Point]) -> None:
    if len(points) > MAX_POINTS:
        raise BadInput(where, f"{len(points):,} points are more than {MAX_POINTS:,}: draw it more simply.")
    for lon, lat in points:
        if not (-180 <= lon <= 180 and -90 <= lat <= 90):
            raise BadInput(where, f"{lon:g}, {lat:g} is no place: longitude −180 to 180, then latitude −90 to 90.")


@lru_cache(maxsize=64)
def polygon_of(points: tuple[Point, ...]) -> Any:
    """The (multi)polygon of a ring. One that crosses itself is mended: each of its loops is inside."""
    shape = shapely.make_valid(shapely.Polygon(points))
    parts = [p for p in shapely.get_parts(shape) if p.geom_type in ("Polygon", "MultiPolygon")]
    return shapely.union_all(parts) if parts else shapely.Polygon()


@lru_cache(maxsize=64)
def crossings(points: tuple[Point, ...]) -> tuple[Point, ...]:
    """Where a ring crosses or touches itself, apart from its corners: what a drawn outline is to be looked at for."""
    ring = shapely.LinearRing(points)
    if ring.is_simple:
        return ()
    corners = set(points)
    noded = shapely.unary_union(ring)
    ends = {tuple(line.coords[i]) for line in shapely.get_parts(noded) for i in (0, -1)}
    return tuple(sorted((float(x), float(y)) for x, y in ends if (x, y) not in corners))


@lru_cache(maxsize=64)
def line_of(lines: tuple[tuple[Point, ...], ...]) -> Any:
    """The fence's lines as one geometry."""
    return shapely.MultiLineString([list(line) for line in lines])


def _within(shape: Shape, lats: Floats, lons: Floats) -> Bools:
    if shape.radius_miles is not None:
        lon, lat = shape.points[0]
        return within_radius(lat, lon, shape.radius_miles, lats, lons)
    return in_area(polygon_of(shape.points), lats, lons)


def in_shapes(shapes: Sequence[Shape], lats: Floats, lons: Floats) -> Bools:
    """Which points lie in any of the shapes to look inside (all, where there is none) and in none of those left out.

    Edges belong to a shape. Unknown places are let through by shapes that leave out, and not by those to look inside.
    """
    wanted = [s for s in shapes if s.inside]
    out = np.full(len(lats), not wanted, dtype=np.bool_)
    for shape in wanted:
        out |= _within(shape, lats, lons)
    for shape in shapes:
        if not shape.inside:
            out &= ~_within(shape, lats, lons)
    return out


def across_any(fences: Sequence[Fence], lat: float, lon: float, lats: Floats, lons: Floats) -> Bools:
    """Which points lie across any of the fences, seen from (lat, lon)."""
    out = np.zeros(len(lats), dtype=np.bool_)
    for fence in fences:
        out |= across_fence(line_of(fence.lines), lat, lon, lats, lons)
    return out
