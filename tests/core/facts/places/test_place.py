from __future__ import annotations

import itertools

import numpy as np
import pytest
import shapely
from hypothesis import given
from hypothesis import strategies as st

from rain_porch.core.facts.places.place import across_fence, in_area, miles, near_miles, within_radius

lats = st.floats(-70, 70)
lons = st.floats(-179, 179)
steps = st.floats(-0.4, 0.4)


@given(lats, lons, steps, steps)
def test_distance_is_symmetric_and_zero_at_home(lat, lon, up, right):
    there = miles(lat, lon, lat + up, lon + right)[0]
    back = miles(lat + up, lon + right, lat, lon)[0]
    assert there == pytest.approx(back, abs=1e-9)
    assert miles(lat, lon, lat, lon)[0] == 0


@given(lats, lons, steps, steps)
def test_the_quick_distance_stays_close_to_the_exact_one(lat, lon, up, right):
    exact = miles(lat, lon, lat + up, lon + right)[0]
    quick = near_miles(lat, lon, np.array([lat + up]), np.array([lon + right]))[0]
    assert quick == pytest.approx(exact, rel=1e-3, abs=1e-6)


@given(lats, lons, st.floats(0.05, 25), st.integers(0, 2**32 - 1))
def test_a_radius_holds_just_the_points_within_it(lat, lon, radius, seed):
    rng = np.random.default_rng(seed)
    spread = radius / 60
    la = lat + rng.uniform(-spread, spread, 60)
    lo = lon + rng.uniform(-spread, spread, 60) / np.cos(np.radians(lat))
    exact = miles(lat, lon, la, lo)
    assert (within_radius(lat, lon, radius, la, lo) == (exact <= radius)).all()


def test_a_radius_includes_its_edge_and_leaves_unknown_places_out():
    edge = miles(41.2, -38.4, 41.21, -38.4)[0]
    found = within_radius(41.2, -38.4, edge, np.array([41.21, np.nan]), np.array([-38.4, -38.4]))
    assert found.tolist() == [True, False]


def test_a_radius_reaches_across_the_date_line():
    assert within_radius(0.0, 179.99, 5, np.array([0.0]), np.array([-179.99]))[0]


def slowly_inside(x: float, y: float, rings: list[list[tuple[float, float]]]) -> bool:
    """Ray casting over all rings, one edge at a time; a point on an edge is inside."""
    inside = False
    for ring in rings:
        for (x1, y1), (x2, y2) in itertools.pairwise(ring):
            cross = (x2 - x1) * (y - y1) - (y2 - y1) * (x - x1)
            if cross == 0 and min(x1, x2) <= x <= max(x1, x2) and min(y1, y2) <= y <= max(y1, y2):
                return True
            if (y1 > y) != (y2 > y) and x < x1 + (y - y1) * (x2 - x1) / (y2 - y1):
                inside = not inside
    return inside


@given(st.integers(0, 2**32 - 1))
def test_membership_agrees_with_slow_ray_casting(seed):
    rng = np.random.default_rng(seed)
    turn = np.sort(rng.uniform(0, 2 * np.pi, 9))
    reach = rng.uniform(2, 5, 9)
    outer = [(float(r * np.cos(t)), float(r * np.sin(t))) for r, t in zip(reach, turn, strict=True)]
    hole = [(0.4 * x, 0.4 * y) for x, y in outer]
    area = shapely.Polygon(outer, [hole])
    if not area.is_valid:
        return
    rings = [[*outer, outer[0]], [*hole, hole[0]]]
    x, y = rng.uniform(-5, 5, 80), rng.uniform(-5, 5, 80)
    quick = in_area(area, y, x)
    assert quick.tolist() == [slowly_inside(a, b, rings) for a, b in zip(x, y, strict=True)]


def test_edges_are_in_holes_are_out_and_parts_count():
    square = shapely.box(0, 0, 4, 4).difference(shapely.box(1, 1, 3, 3))
    both = shapely.MultiPolygon([*getattr(square, "geoms", [square]), shapely.box(10, 10, 11, 11)])
    x = np.array([0.0, 2.0, 0.5, 10.5, 20.0, np.nan])
    y = np.array([2.0, 2.0, 0.5, 10.5, 20.0, 1.0])
    assert in_area(both, y, x).tolist() == [True, False, True, True, False, False]


def test_a_fence_parts_the_homes_on_its_other_side():
    fence = shapely.LineString([(0, -1), (0, 1)])
    found = across_fence(fence, 0.0, -0.5, np.array([0.0, 0.0, 3.0, np.nan]), np.array([0.5, -0.1, 0.5, 0.5]))
    assert found.tolist() == [True, False, False, False]
