"""The map for paper: base map, radius, candidates and comps around the subject, in a flat local projection."""

from __future__ import annotations

import math
from collections.abc import Iterator, Mapping, Sequence
from typing import Any

from ...core.facts.places.place import MILES_EAST, MILES_NORTH
from ...core.phrases import phrase
from . import ink
from .base_lines import BaseLine, base_lines, drawn_lines
from .spread import NUMBER_RADIUS, leader, numbered, spread


def map_svg(
    subject: Mapping[str, Any],
    around: Sequence[Mapping[str, Any]],
    numbered_homes: Sequence[Mapping[str, Any]],
    base: Mapping[str, Any] | Sequence[BaseLine],
    search: Mapping[str, Any],
    width: float = ink.WIDE,
    height: float = 290,
    ways: Sequence[Sequence[Sequence[float]]] = (),
    numbers: Sequence[int] = (),
    whole: bool = False,
) -> str:
    """Map centred on the subject, wide enough for the numbered homes and the search's radius and shapes, with its fences.

    numbered_homes: with their numbers as they stand, else in their order; those that would lie on one another are moved apart.
    around: the others, as marks; whole: the map reaches to all of them too. search: the JSON document of a search. ways: lines to follow, (longitude, latitude). A home of
    which it is not known where it stands is not drawn (placed: false; None where there is no home)."""
    radius_miles = search.get("radius_miles")
    shapes, fences = search.get("shapes", ()), search.get("fences", ())
    lat0, lon0 = subject["latitude"], subject["longitude"]
    shrink = math.cos(math.radians(lat0))

    def miles(lon: Any, lat: Any) -> tuple[Any, Any]:
        return (lon - lon0) * MILES_EAST * shrink, (lat - lat0) * MILES_NORTH

    given = list(zip(numbers or range(1, len(numbered_homes) + 1), numbered_homes, strict=True))
    placed = [(n, c) for n, c in given if c["latitude"] is not None]
    shown = [*(c for _, c in placed), *(c for c in around if whole and c["latitude"] is not None)]
    reach = max(0.15, *_reaches([miles(c["longitude"], c["latitude"]) for c in shown], width, height))
    if radius_miles is not None and radius_miles <= 2 * reach + 0.3:
        reach = max(reach, radius_miles)
    far = max(
        (abs(v) + (s["radius_miles"] or 0) for s in shapes if s["inside"] for p in s["points"] for v in miles(*p)),
        default=0.0,
    )
    if far <= 3 * reach + 0.3:
        reach = max(reach, far)
    scale = (height / 2 - 14) / reach

    def at(lon: Any, lat: Any) -> tuple[Any, Any]:
        x, y = miles(lon, lat)
        return width / 2 + x * scale, height / 2 - y * scale

    body = [f'<rect width="{width}" height="{height}" fill="{ink.LAND}"/>']
    east, north = width / 2 / scale / (MILES_EAST * shrink), height / 2 / scale / MILES_NORTH
    body += drawn_lines(base_lines(base), at, (lon0 - east, lat0 - north, lon0 + east, lat0 + north))
    if radius_miles is not None:
        body.append(
            f'<circle cx="{width / 2}" cy="{height / 2}" r="{radius_miles * scale:.1f}" fill="none" stroke="{ink.SLATE}" '
            f'stroke-width="1" stroke-dasharray="4 4" opacity="0.55"/>'
        )
    body += _drawn(shapes, fences, at, scale)
    for way in ways:
        path = "M" + "L".join(f"{x:.1f} {y:.1f}" for x, y in (at(p[0], p[1]) for p in way))
        body.append(f'<path d="{path}" fill="none" stroke="{ink.CEDAR}" stroke-width="2.2" opacity="0.75"/>')
    known = {c["listing_id"] for c in numbered_homes}
    for c in around:
        if c["listing_id"] not in known and c["latitude"] is not None:
            x, y = at(c["longitude"], c["latitude"])
            if 4 < x < width - 4 and 4 < y < height - 4:
                body.append(ink.mark(c["kind"], x, y, 2.8))
    true = [at(c["longitude"], c["latitude"]) for _, c in placed]
    corner = _free_corner(true, width, height)
    here = [(width / 2, height / 2, 9.0)] if subject.get("placed", True) else []
    fixed = [
        *here,
        *((corner[0] + x, corner[1] + 8, 12.0) for x in (10, 34, 58, 82)),
    ]  # the house and the scale keep their places
    drawn = spread(true, [NUMBER_RADIUS + 0.6] * len(true), width, height, fixed)
    for spot, place in zip(drawn, true, strict=True):
        body += leader(spot, place, NUMBER_RADIUS)
    for (n, c), spot in zip(placed, drawn, strict=True):
        body += numbered(c["kind"], *spot, n)
    if subject.get("placed", True):
        body.append(ink.house(width / 2, height / 2, 7))
    elif subject["placed"] is False:
        body.append(ink.text(width / 2, 16, phrase("map-not-placed"), 10, ink.SLATE))
    body.append(_scale_bar(scale, corner))
    return ink.svg(width, height, body)


def _reaches(places: Sequence[tuple[float, float]], width: float, height: float) -> list[float]:
    """How far the map must reach north and south for each place to stand on it."""
    return [max(abs(y), abs(x) * (height / 2 - 14) / (width / 2 - 14)) for x, y in places] or [0.0]


def _drawn(
    shapes: Sequence[Mapping[str, Any]], fences: Sequence[Mapping[str, Any]], at: Any, scale: float
) -> Iterator[str]:
    """What was drawn on the map: areas looked inside, dashed; areas left out, tinted clay; fences as thick lines."""
    for s in shapes:
        look = (
            f'fill="{ink.SLATE}" fill-opacity="0.05" stroke="{ink.SLATE}" stroke-width="1.1" stroke-dasharray="4 4"'
            if s["inside"]
            else f'fill="{ink.CLAY}" fill-opacity="0.10" stroke="{ink.CLAY}" stroke-width="1.1" stroke-dasharray="2 3"'
        )
        points = [at(*p) for p in s["points"]]
        if s["radius_miles"] is not None:
            (x, y), r = points[0], s["radius_miles"] * scale
            yield f'<circle cx="{x:.1f}" cy="{y:.1f}" r="{r:.1f}" {look}/>'
        else:
            yield f'<path d="M{"L".join(f"{x:.1f} {y:.1f}" for x, y in points)}z" {look}/>'
    for f in fences:
        for line in f["lines"]:
            path = "M" + "L".join(f"{x:.1f} {y:.1f}" for x, y in (at(*p) for p in line))
            yield f'<path d="{path}" fill="none" stroke="{ink.SLATE}" stroke-width="2.6" opacity="0.7"/>'


def _free_corner(points: Sequence[tuple[float, float]], width: float, height: float) -> tuple[float, float]:
    """Upper left of the room for the scale: the corner that the numbered homes leave most free."""
    corners = [(12.0, height - 24), (width - 108.0, height - 24), (12.0, 8.0), (width - 108.0, 8.0)]

    def room(corner: tuple[float, float]) -> float:
        return min((math.hypot(x - corner[0] - 45, y - corner[1] - 8) for x, y in points), default=999.0)

    return max(corners, key=lambda c: min(room(c), 90.0))


def _scale_bar(scale: float, corner: tuple[float, float]) -> str:
    length = next((m for m in (2, 1, 0.5, 0.25, 0.1) if m * scale <= 90), 0.1)
    x, y = corner[0], corner[1] + 14
    return (
        f'<path d="M{x:.1f} {y - 4:.1f}v4h{length * scale:.1f}v-4" fill="none" stroke="{ink.SLATE}" stroke-width="1"/>'
        + ink.text(x + 4, y - 5, phrase("distance-away", miles=f"{length:g}"), 9, anchor="start")
    )
