"""Other kinds of home tell of a market's time, as much as they know and no more."""

from __future__ import annotations

import numpy as np
import pytest
from hypothesis import given
from hypothesis import strategies as st

from rain_porch.core.facts.dates import day_of
from rain_porch.core.facts.homes import Subject
from rain_porch.core.facts.words import HomeKind
from rain_porch.core.market.change.market_change import basis_for
from rain_porch.core.market.change.time_prior import APART, TimeTold, time_prior
from rain_porch.core.price.evidence import fit_sales
from tests.made import DAY, TODAY, market, sale

BASIS = basis_for(DAY, np.array([DAY - 700.0, DAY]))  # nine knots, no seasons
M = BASIS.knots - 1


def told(slope: float, sd: float = 0.01, knots: int = M + 1, n: int = 500, level: float = 0.0) -> TimeTold:
    return TimeTold(level - slope * np.arange(knots), np.eye(knots) * sd**2, np.zeros(0), n)


def test_where_nobody_says_anything_nothing_is_believed():
    assert time_prior([], BASIS) is None and time_prior([told(0.01, knots=1)], BASIS) is None


@given(st.lists(st.tuples(st.floats(-0.05, 0.05), st.floats(0.002, 0.1)), min_size=1, max_size=4))
def test_it_is_what_the_normal_law_says_of_kinds_that_part_from_one_market(kinds):
    """The same by conditioning one large normal vector: (the market's index, what each kind's fit says, this kind's own index)."""
    lags = np.arange(1, M + 1)
    parted = APART**2 * np.minimum.outer(lags, lags)
    wide = np.eye(M) / 1e-4
    against = np.hstack([-np.ones((M, 1)), np.eye(M)])
    says = [(told(slope, sd), against @ (np.eye(M + 1) * sd**2) @ against.T + parted) for slope, sd in kinds]
    heard = np.block([[wide + (cov if i == j else 0) for j in range(len(says))] for i, (_, cov) in enumerate(says)])
    across = np.hstack([wide] * len(says))
    seen = np.concatenate([against @ t.index for t, _ in says])
    mean = across @ np.linalg.solve(heard, seen)
    cov = wide + parted - across @ np.linalg.solve(heard, across.T)
    prior = time_prior([t for t, _ in says], BASIS)
    assert prior.mean[1:] == pytest.approx(mean, abs=1e-4)
    inner = prior.precision[1:, 1:]
    assert np.linalg.inv(inner) == pytest.approx(cov, abs=2e-5)


@given(st.floats(-3, 3))
def test_the_level_of_another_kind_says_nothing(level):
    plain, moved = time_prior([told(0.01)], BASIS), time_prior([told(0.01, level=level)], BASIS)
    assert moved.mean == pytest.approx(plain.mean, abs=1e-9)
    assert plain.precision @ np.ones(M + 1) == pytest.approx(np.zeros(M + 1), abs=1e-5)


def test_beyond_the_others_sales_the_last_known_level_stands_and_is_not_leaned_on():
    prior = time_prior([told(0.01, knots=4)], BASIS)
    assert prior.mean[4:] == pytest.approx(prior.mean[3]) and prior.mean[3] == pytest.approx(-0.03, abs=1e-3)
    sure = np.diag(np.linalg.inv(prior.precision[1:, 1:]))
    assert sure[3] > 100 * sure[2]


def test_seasons_are_the_mean_of_theirs_by_how_many_sold():
    basis = basis_for(DAY, np.array([DAY - 1200.0, DAY]))
    k = basis.knots
    kinds = [TimeTold(np.zeros(k), np.eye(k) * 1e-4, np.full(4, x), n) for x, n in ((0.01, 300), (0.05, 100))]
    prior = time_prior(kinds, basis)
    assert prior.mean[k:] == pytest.approx(np.full(4, 0.02))
    none = time_prior([told(0.01)], basis)
    assert not none.mean[k:].any() and not none.precision[k:, k:].any()


MONTHLY = 0.006


def grown(n: int, seed: int, growth: float = MONTHLY):
    """Sales of two years in a market that grows by so much a month, with a tenth of worth that no record tells."""
    rng = np.random.default_rng(seed)
    rows = []
    for i in range(n):
        back = float(rng.uniform(1, 720))
        price = 300_000 * np.exp(-growth * back / 30.4375 + rng.normal(0, 0.1))
        rows.append(sale(back, price, latitude=41.0 + rng.uniform(0, 0.03), longitude=-83.0, key=f"S{i}", home=i))
    return market(rows)


def change(columns, others=()):
    me = Subject({"living_area": 1800.0}, 41.01, -83.0, HomeKind.DETACHED)
    return fit_sales(columns, np.arange(len(columns)), day_of(TODAY), me, others=others)


def growth_of(fit) -> float:
    """A year's growth as the fit has it, in logarithms."""
    return -float(fit.moved(np.array([DAY - 365.0]), DAY, seasons=False)[0])


def test_few_sales_of_a_kind_lean_on_the_others_and_many_on_themselves():
    market_time = [change(grown(900, seed)).told for seed in (1, 2, 3)]
    alone, leaning = [], []
    for seed in range(20, 32):
        few = grown(40, seed)
        alone.append(growth_of(change(few)) - 12 * MONTHLY)
        leaning.append(growth_of(change(few, market_time)) - 12 * MONTHLY)
    assert np.sqrt(np.mean(np.square(leaning))) < 0.6 * np.sqrt(np.mean(np.square(alone)))
    many = grown(900, 40, growth=0.0)  # a kind that goes its own way, and says so
    assert abs(growth_of(change(many, market_time)) - growth_of(change(many))) < 0.035
    assert growth_of(change(grown(40, 41, growth=0.0), market_time)) > 0.04
