from __future__ import annotations

import numpy as np
import pytest
from hypothesis import given
from hypothesis import strategies as st

from rain_porch.core.market.change.market_change import basis_for, compounded, read_change
from tests.made import DAY


def test_hats_sum_to_one_and_the_first_stands_at_the_effective_day():
    days = np.array([DAY, DAY - 45, DAY - 91.3125, DAY - 400.0])
    hats = basis_for(DAY, days).trend(days)
    assert hats.sum(axis=1) == pytest.approx(1) and hats[0, 0] == 1 and hats[2, 1] == pytest.approx(1)


@pytest.mark.parametrize(("span", "seasons"), [(300, False), (900, True)])
def test_seasons_are_told_only_by_two_full_years(span, seasons):
    days = np.linspace(DAY - span, DAY, 50)
    basis = basis_for(DAY, days)
    assert basis.seasons is seasons
    size = basis.knots + (4 if seasons else 0)
    assert basis.columns(days).shape == (50, size) and basis.precision().shape == (size, size)
    assert np.linalg.eigvalsh(basis.precision()).min() > 0


def test_a_straight_trend_is_read_back_with_its_band_and_index():
    basis = basis_for(DAY, np.array([DAY - 720.0, DAY]))
    monthly = np.log1p(0.006)
    coef = -monthly * 3.0 * np.arange(basis.knots)
    change = read_change(basis, coef, np.eye(basis.knots) * 1e-6, 365, 120, 720)
    assert change.pct_per_month == pytest.approx(0.6, abs=1e-6)
    assert change.low < 0.6 < change.high and change.n == 120 and not change.past_data
    assert change.index[0] == (0, 0.0) and change.index[4][1] == pytest.approx(100 * np.expm1(-12 * monthly))
    assert read_change(basis, coef, np.eye(basis.knots), 900, 120, 720).past_data


@given(st.floats(-5, 5), st.floats(0, 2000), st.floats(0, 2000))
def test_growth_compounds_whatever_the_cut(pct, a, b):
    whole = 1 + compounded(pct, a + b)
    assert whole == pytest.approx((1 + compounded(pct, a)) * (1 + compounded(pct, b)), rel=1e-9)


def test_growth_of_one_home_and_of_many_is_one_rule():
    assert compounded(0.35, 174) == pytest.approx(0.020174, abs=1e-6)
    days = np.array([0.0, 174.0, 365.25])
    assert compounded(0.35, days) == pytest.approx([compounded(0.35, float(d)) for d in days])


def test_what_lies_ahead_or_beyond_the_reach_stands_at_the_ends():
    basis = basis_for(DAY, np.array([DAY - 365.0, DAY]))
    ahead, back = basis.trend(np.array([DAY + 400.0, DAY - 4000.0]))
    assert ahead[0] == 1 and back[-1] == 1
    assert basis_for(DAY, np.zeros(0)).knots == 1
