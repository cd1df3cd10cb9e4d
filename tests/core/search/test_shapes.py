"""Drawn areas and fences: membership against a slow twin, mending, and what is refused."""

from __future__ import annotations

import numpy as np
import pytest
from hypothesis import given
from hypothesis import strategies as st

from rain_porch.core.errors import BadInput
from rain_porch.core.facts.places.place import miles
from rain_porch.core.search.search import Search, Window, check
from rain_porch.core.search.sentence import sentence
from rain_porch.core.search.shapes import Fence, Shape, across_any, crossings, in_shapes

SQUARE = Shape(((-90.0, 40.0), (-89.9, 40.0), (-89.9, 40.1), (-90.0, 40.1)))
degrees = st.integers(-60, 60).map(lambda n: n / 1000)
corners = st.lists(st.tuples(degrees, degrees), min_size=3, max_size=9, unique=True)


def crossings_inside(ring: list[tuple[float, float]], x: float, y: float) -> bool:
    """The slow twin: a ray to the east crosses the ring's edges an odd number of times."""
    inside = False
    for (x1, y1), (x2, y2) in zip(ring, ring[1:] + ring[:1], strict=True):
        if (y1 > y) != (y2 > y) and x < (x2 - x1) * (y - y1) / (y2 - y1) + x1:
            inside = not inside
    return inside


def on_an_edge(ring: list[tuple[float, float]], x: float, y: float) -> bool:
    for (x1, y1), (x2, y2) in zip(ring, ring[1:] + ring[:1], strict=True):
        if abs((x2 - x1) * (y - y1) - (y2 - y1) * (x - x1)) < 1e-9:
            return True
    return False


@given(corners, st.lists(st.tuples(degrees, degrees), min_size=1, max_size=20))
def test_a_ring_even_one_that_crosses_itself_holds_what_a_ray_finds_inside(ring, points):
    shape = Shape(tuple(ring))
    try:
        check(Search(shapes=(shape,)))
    except BadInput as error:
        assert "no ground" in error.message  # all corners on one line
        return
    lons, lats = (np.array(v) for v in zip(*points, strict=True))
    found = in_shapes([shape], lats, lons)
    for (x, y), inside in zip(points, found, strict=True):
        if not on_an_edge(ring, x, y):
            assert inside == crossings_inside(ring, x, y)
    assert (in_shapes([Shape(tuple(ring), inside=False)], lats, lons) == ~found).all()


def test_the_places_where_an_outline_crosses_itself_are_told():
    bow_tie = ((0.0, 0.0), (2.0, 2.0), (2.0, 0.0), (0.0, 2.0))
    assert crossings(bow_tie) == ((1.0, 1.0),)
    assert crossings(SQUARE.points) == ()


def test_inside_this_and_not_that_and_circles_with_their_edge():
    hole = Shape(((-89.95, 40.05),), radius_miles=1.0, inside=False)
    lats, lons = np.array([40.05, 40.05, 40.01, 41.0, np.nan]), np.array([-89.95, -89.91, -89.99, -89.95, np.nan])
    assert in_shapes([SQUARE, hole], lats, lons).tolist() == [False, True, True, False, False]
    assert in_shapes([hole], lats, lons).tolist() == [False, True, True, True, True], "an unknown place is in no circle"
    edge = float(miles(40.05, -89.95, 40.05, -89.91)[0])
    circle = Shape(((-89.95, 40.05),), radius_miles=edge)
    assert in_shapes([circle], lats[1:2], lons[1:2]).all()


@given(degrees, degrees, st.booleans())
def test_a_fence_is_crossed_or_not_whichever_way_one_goes(x, y, east):
    fence = Fence((((-90.0, 39.0), (-90.0, 41.0)),), "Route 9")
    home_lon = -89.99 if east else -90.01
    lats, lons = np.array([40 + y]), np.array([-90 + x])
    crossed = across_any([fence], 40.0, home_lon, lats, lons)[0]
    assert crossed == ((x <= 0) if east else (x >= 0))
    assert across_any([fence], float(lats[0]), float(lons[0]), np.array([40.0]), np.array([home_lon]))[0] == crossed


@pytest.mark.parametrize(
    ("search", "field"),
    [
        (Search(shapes=(Shape(((0.0, 0.0), (1.0, 1.0))),)), "shapes.0"),
        (Search(shapes=(Shape(((0.0, 0.0), (1.0, 1.0), (2.0, 2.0))),)), "shapes.0"),
        (Search(shapes=(Shape(((0.0, 0.0),), radius_miles=0.0),)), "shapes.0"),
        (Search(shapes=(SQUARE, Shape(((200.0, 0.0), (1.0, 1.0), (2.0, 0.0))))), "shapes.1"),
        (Search(shapes=(Shape(tuple((i / 1e4, i % 2 / 10) for i in range(2001))),)), "shapes.0"),
        (Search(shapes=(SQUARE,) * 21), "shapes"),
        (Search(fences=(Fence((((0.0, 0.0), (0.0, 0.0)),)),)), "fences.0"),
        (Search(fences=(Fence(()),)), "fences.0"),
        (Search(parcels=(("9", "1"),)), "parcels"),
        (Search(windows={"sold": Window(since=10, until=9)}), "windows.sold"),
        (Search(areas=tuple(str(i) for i in range(61))), "areas"),
    ],
)
def test_limits_without_sense_are_named(search, field):
    with pytest.raises(BadInput) as refused:
        check(search)
    assert refused.value.values["field"] == field


def test_the_sentence_says_where():
    search = Search(
        home_kinds=("detached",),
        areas=("Quarry Bend",),
        not_areas=("Heron*",),
        shapes=(SQUARE, Shape(SQUARE.points, inside=False), Shape(SQUARE.points, inside=False)),
        fences=(Fence((((0.0, 0.0), (1.0, 0.0)),), "Route 9"), Fence((((0.0, 0.0), (1.0, 0.0)),))),
        parcels=(("1", "9"),),
        windows={"sold": Window(since=20089, until=20119), "failed": Window(since=20089)},
        leave_out_new_construction=False,
    )
    assert sentence(search) == (
        "Detached homes within 1 mi in Quarry Bend, not in Heron* inside a drawn area, not in 2 drawn areas, "
        "not across Route 9 and a drawn fence, parcels 1 to 9; sold from Jan 1, 2025 to Jan 31, 2025, "
        "failed since Jan 1, 2025."
    )
