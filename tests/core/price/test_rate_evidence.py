"""A rate opened: dots and pairs agree with the rates the market was made with, and say nothing where nothing is known."""

from __future__ import annotations

import datetime as dt

import numpy as np
import pytest
import statsmodels.api as sm

from rain_porch.core.price.evidence import evidence
from rain_porch.core.price.rate_evidence import choices, market_index, moved_since, paired_sales, partial_plot
from rain_porch.core.price.worth import brought_forward, size_corrected
from tests.core.price.test_evidence import TRUE, town
from tests.made import DAY, market, subject


@pytest.fixture(scope="module")
def opened():
    columns = market(town())
    return columns, evidence(columns, columns.as_of(DAY), subject())


@pytest.mark.parametrize("name", ["garage_spaces", "year_built", "bathrooms_full", "living_area"])
def test_the_dots_lie_along_the_fitted_line(opened, name):
    _, found = opened
    plot = partial_plot(found, name)
    x = np.array([d.x for d in plot.dots])
    y = np.log1p(np.array([d.y for d in plot.dots]) / 100)
    if plot.in_percent:
        x = np.log1p(x / 100)
    # an outside fit through the dots alone finds the line's slope
    slope = sm.WLS(y, sm.add_constant(x), weights=[d.weight for d in plot.dots]).fit().params[1]
    shown = plot.slope if plot.in_percent else plot.slope / 100
    assert slope == pytest.approx(shown, rel=0.15)
    assert shown == pytest.approx(TRUE[name], rel=0.25)
    assert len(plot.dots) == found.n_local


def test_pairs_bracket_the_true_rate_and_differ_in_nothing_else(opened):
    columns, found = opened
    pairs = paired_sales(found, columns, "garage_spaces", DAY)
    worth = found.model_value
    assert pairs.count >= 10 and pairs.low < TRUE["garage_spaces"] * worth < pairs.high
    assert pairs.low <= pairs.median <= pairs.high
    for p in pairs.shown:
        number = lambda name, row: columns.numbers[name][row]  # noqa: E731
        assert (
            number("garage_spaces", p.more) - number("garage_spaces", p.fewer) == p.difference == 1 or p.difference == 2
        )
        assert number("bathrooms_full", p.more) == number("bathrooms_full", p.fewer)
        assert abs(number("year_built", p.more) - number("year_built", p.fewer)) <= 8
        assert p.per_unit * p.difference == pytest.approx(p.dollars)


@pytest.mark.parametrize("area", [1800.0, None])
def test_figures_are_dollars_a_unit_even_where_the_homes_own_size_is_unknown(opened, area):
    columns, _ = opened
    me = subject(living_area=area)
    found = evidence(columns, columns.as_of(DAY), me)
    pairs = paired_sales(found, columns, "living_area", DAY)
    told = {c.source: c.dollars for c in choices(found, pairs, columns, me, "living_area", found.model_value)}
    assert told["local sales"] == pytest.approx(found.rates["living_area"].dollars)
    assert all(30 < dollars < 400 for dollars in told.values()), told


def test_what_no_sale_knows_has_neither_dots_nor_pairs(opened):
    columns, found = opened
    assert partial_plot(found, "pool_private_yn") is None
    assert paired_sales(found, columns, "pool_private_yn", DAY).count == 0


def test_the_index_moves_as_the_market_was_made_to(opened):
    _, found = opened
    points = market_index(found, DAY)
    assert points[0].pct == points[0].low == points[0].high == 0 and sum(p.sales for p in points) == found.n_wide
    year = min(points, key=lambda p: abs(p.days_back - 365))
    true = 100 * (1.005 ** (-year.days_back / 30.4375) - 1)
    assert year.low < true < year.high
    assert moved_since(found, DAY - 365.0, DAY) == pytest.approx(1.005**12, rel=0.02)
    assert moved_since(found, DAY - 5000.0, DAY) is None, "the sales do not reach so far back"


def test_an_earlier_sale_is_brought_forward_with_its_figures():
    way = brought_forward(340_000, dt.date(2024, 6, 25), 1.0867)
    assert way.value == pytest.approx(369_478) and "340,000 on Jun 25, 2024 × 1.0867" in way.formula


def test_size_correction_lies_between_no_correction_and_the_plain_price_per_foot(opened):
    from rain_porch.core.facts.homes import Candidate
    from rain_porch.core.price.evidence import Rate

    def comp(price, area):
        return Candidate(
            0, "A", "sold", 0.1, None, price, None, price / area, None, 90, 1, {"living_area": area}, (), ()
        )

    def corrected(power):
        rate = Rate("living_area", 100, 1, 400, "local sales", False, power)
        return size_corrected(subject(living_area=2000.0), [comp(300_000, 1500.0), comp(330_000, 1650.0)], rate)

    assert corrected(1.0).value == pytest.approx(200 * 2000) and corrected(0.0).value == pytest.approx(315_000)
    assert 315_000 < corrected(0.6).value < 400_000 and "^0.60" in corrected(0.6).formula
    assert size_corrected(subject(living_area=None), [comp(300_000, 1500.0)], None) is None
