"""What a spot is worth of itself, and how prices moved: on made surfaces and made trends."""

from __future__ import annotations

from dataclasses import replace

import numpy as np
import pytest
from hypothesis import given
from hypothesis import strategies as st

from rain_porch.core.price.evidence import evidence, location_rate
from rain_porch.core.price.location import Surface, place_worth
from tests.core.price.test_evidence import town
from tests.made import CENTRE, DAY, away, market, subject


def surface(left: list[float], north_miles: list[float], weights: list[float] | None = None) -> Surface:
    n = len(left)
    return Surface(
        np.arange(n),
        np.array([away(m) for m in north_miles]),
        np.full(n, CENTRE[1]),
        np.array(left),
        np.ones(n) if weights is None else np.array(weights),
        float(np.median(left)) if left else 0.0,
    )


def test_a_spot_among_dear_sales_is_dear_and_drawn_towards_the_middle():
    s = surface([0.0] * 20 + [0.2] * 10, [0.0] * 20 + [2.0] * 10)
    here, there = s.log_worth(*CENTRE), s.log_worth(away(2.0), CENTRE[1])
    assert here == pytest.approx(0, abs=1e-9)
    assert 0.1 < there < 0.2, "ten sales are not wholly believed"


def test_a_sale_does_not_speak_for_its_own_spot():
    s = surface([0.0] * 9 + [0.4], [0.0] * 9 + [1.0])
    assert s.log_worth(away(1.0), CENTRE[1]) > s.log_worth(away(1.0), CENTRE[1], leave_out=9)
    assert s.log_worth(away(1.0), CENTRE[1], leave_out=9) == pytest.approx(0, abs=1e-6)


def test_one_odd_sale_moves_a_spot_by_no_more_than_its_share():
    calm, wild = surface([0.0] * 10, [0.0] * 10), surface([0.0] * 9 + [9.0], [0.0] * 10)
    assert wild.log_worth(*CENTRE) - calm.log_worth(*CENTRE) <= 0.5 / 10


def test_no_sales_and_unknown_places_give_nothing():
    assert surface([], []).log_worth(*CENTRE) == 0
    s = surface([0.3], [0.0])
    assert Surface(s.rows, np.array([np.nan]), s.lons, s.left, s.weights, 0.0).log_worth(*CENTRE) == 0


@given(st.lists(st.floats(-0.4, 0.4), min_size=1, max_size=30), st.floats(-1, 1))
def test_a_spot_is_never_worth_more_than_its_dearest_neighbour(left, at):
    s = surface(left, [0.0] * len(left))
    value = s.log_worth(away(at), CENTRE[1])
    assert min(0.0, min(left) - s.level) - 1e-9 <= value <= max(0.0, max(left) - s.level) + 1e-9


def test_the_towns_slope_of_place_is_found():
    """In the made town prices rise by 15 % a mile northwards."""
    columns = market(town(noise=0.03))
    found = evidence(columns, columns.as_of(DAY), subject()).surface
    north = found.log_worth(away(0.7), CENTRE[1]) - found.log_worth(away(-0.7), CENTRE[1])
    assert north == pytest.approx(0.15 * 1.4, rel=0.4)


def test_the_rate_of_location_is_a_hundredth_of_the_worth():
    rate = location_rate(380_000, 400)
    assert (rate.field, rate.dollars, rate.n, rate.weak) == ("location", 3800, 400, False)


def test_the_map_of_spots_is_nought_at_the_home_and_dearer_to_the_north():
    rng = np.random.default_rng(2)
    north, east = rng.uniform(-0.6, 0.6, 200), rng.uniform(-0.6, 0.6, 200)
    lats, lons = CENTRE[0] + north / 69, CENTRE[1] + east / 52
    s = Surface(np.arange(200), lats, lons, 0.2 * north, np.ones(200), 0.0)
    told = place_worth(s, subject())
    assert told.lats[0] > told.lats[-1] and told.lons[0] < told.lons[-1] and told.pct.shape == (24, 24)
    assert abs(told.pct[11:13, 11:13].mean()) < 1.0 and told.pct[0].mean() > 4 and told.pct[-1].mean() < -4
    assert len(told.rows) <= 120 and np.corrcoef(told.left, told.at[:, 0])[0, 1] > 0.99
    assert place_worth(s, replace(subject(), placed=False)) is None
