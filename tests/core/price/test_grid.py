from __future__ import annotations

from dataclasses import replace

import numpy as np
import pytest
from hypothesis import given
from hypothesis import strategies as st

from rain_porch.core.facts.money import half_up, signed
from rain_porch.core.market.change.market_change import compounded
from rain_porch.core.price.evidence import Rate
from rain_porch.core.price.grid import Comp, Own, adjust, adjusted_prices, apart, over_limits
from rain_porch.core.price.weights import comp_weights
from rain_porch.core.price.worth import indicated
from tests.made import subject

money = st.floats(50_000, 2_000_000)
rates = st.dictionaries(
    st.sampled_from(["living_area", "bathrooms_full", "bathrooms_half", "garage_spaces", "year_built"]),
    st.floats(-500, 20_000),
)


def made(given: dict[str, float]) -> dict[str, Rate]:
    return {name: Rate(name, dollars, 0, 10, "typed", False) for name, dollars in given.items()}


FACTS = {
    "living_area": 1800.0,
    "bathrooms_full": 2.0,
    "bathrooms_half": 1.0,
    "garage_spaces": 2.0,
    "year_built": 1985.0,
}


def test_the_worked_example():
    """Ours: 412,000 with 6,000 concessions, 174 days, +0.35 % a month, 170 sq ft larger, half bath, garage space."""
    facts = {**FACTS, "living_area": 1970.0, "bathrooms_half": 0.0, "garage_spaces": 1.0}
    comp = Comp("C", 412_000, 174, facts, concessions=6000)
    out = adjust(subject(), comp, made({"living_area": 85, "bathrooms_half": 6000, "garage_spaces": 12_000}), 0.35)
    lines = {line.field: line.amount for line in out.lines}
    assert lines["concessions"] == -6000
    assert lines["market_change"] == pytest.approx(8190.68, abs=0.01)
    assert (lines["living_area"], lines["bathrooms_half"], lines["garage_spaces"]) == (-14_450, 6000, 12_000)
    assert half_up(out.adjusted_price) == 417_741
    assert half_up(out.net) == 5741 and round(out.net_pct, 2) == 1.39
    assert half_up(out.gross) == 46_641 and round(out.gross_pct, 2) == 11.32
    assert out.over_limits == ()
    assert signed(lines["market_change"]) == "+8,191"


@given(money, rates, st.floats(-3, 3))
def test_a_comp_equal_to_the_subject_sold_today_needs_nothing(price, dollars, pct):
    out = adjust(subject(), Comp("C", price, 0, FACTS, 0.0), made(dollars), pct)
    assert out.adjusted_price == pytest.approx(price) and out.gross == pytest.approx(0, abs=1e-6)


@given(rates, st.floats(800, 4000), st.integers(0, 4), st.integers(0, 4))
def test_lines_of_a_to_b_and_b_to_a_are_opposite(dollars, area, baths, garage):
    other = {**FACTS, "living_area": area, "bathrooms_full": float(baths), "garage_spaces": float(garage)}
    there = adjust(subject(), Comp("C", 4e5, 0, other, 0.0), made(dollars), 0.0)
    back = adjust(subject(**other), Comp("C", 4e5, 0, FACTS, 0.0), made(dollars), 0.0)
    for a, b in zip(there.lines, back.lines, strict=True):
        assert (a.amount or 0) == pytest.approx(-(b.amount or 0))


@given(money, rates, st.floats(0, 900), st.floats(0, 20_000), st.floats(-2, 2))
def test_gross_is_at_least_net_and_the_order_of_features_does_not_matter(price, dollars, days, given_back, pct):
    other = {**FACTS, "living_area": 2100.0, "bathrooms_half": 0.0, "year_built": 1960.0}
    comp = Comp("C", price, days, other, given_back)
    one = adjust(subject(), comp, made(dollars), pct)
    two = adjust(subject(), comp, made(dict(reversed(dollars.items()))), pct)
    assert one.gross >= abs(one.net) - 1e-6
    assert one.adjusted_price == pytest.approx(two.adjusted_price)
    assert one.adjusted_price == pytest.approx(price + sum(x.amount for x in one.lines if x.amount is not None))


@given(
    st.lists(
        st.tuples(
            money, st.floats(-30, 900), st.none() | st.floats(0, 20_000),
            st.dictionaries(st.sampled_from(sorted(FACTS)), st.floats(0, 3000)),
        ), min_size=1, max_size=12,
    ),
    rates, st.floats(-2, 2),
)  # fmt: skip
def test_many_comps_at_once_are_adjusted_as_each_of_them_is(sales, dollars, pct):
    one_by_one = [adjust(subject(), Comp("C", p, d, f, c), made(dollars), pct) for p, d, c, f in sales]
    price, days = (np.array([s[i] for s in sales]) for i in (0, 1))
    given_back = np.array([np.nan if s[2] is None else s[2] for s in sales])
    facts = {name: np.array([s[3].get(name, np.nan) for s in sales]) for name in FACTS}
    at_once = adjusted_prices(subject(), price, days, given_back, facts, made(dollars), pct)
    assert at_once.prices == pytest.approx([a.adjusted_price for a in one_by_one])
    assert at_once.gross_pct == pytest.approx([a.gross_pct for a in one_by_one])


def test_a_rate_of_zero_makes_its_line_vanish():
    out = adjust(subject(), Comp("C", 4e5, 0, {**FACTS, "living_area": 999.0}, 0.0), made({"living_area": 0.0}), 0.0)
    assert out.lines[-1].amount == 0 and out.adjusted_price == 4e5


def test_unknown_on_either_side_adjusts_nothing_and_says_so():
    no_garage = {k: v for k, v in FACTS.items() if k != "garage_spaces"}
    out = adjust(subject(), Comp("C", 4e5, 30, no_garage, None), made({"garage_spaces": 12_000}), 0.0)
    lines = {line.field: line for line in out.lines}
    assert lines["garage_spaces"].amount is None and "unknown" in lines["garage_spaces"].formula
    assert lines["concessions"].amount is None, "unknown concessions are not zero"
    assert out.adjusted_price == 4e5
    mine = adjust(subject(garage_spaces=None), Comp("C", 4e5, 0, FACTS, 0.0), made({"garage_spaces": 12_000}), 0.0)
    assert mine.lines[-1].amount is None


def test_a_typed_cell_stands_and_keeps_the_computed_amount_beside_it():
    comp = Comp("C", 4e5, 0, {**FACTS, "living_area": 2000.0}, 0.0, {"living_area": -5000.0})
    line = adjust(subject(), comp, made({"living_area": 85}), 0.0).lines[-1]
    assert (line.amount, line.computed, line.overridden) == (-5000, -17_000, True)


@pytest.mark.parametrize(
    ("amounts", "words"),
    [
        ((30_001,), ["Living area: 10.0 % is above 10 % for one line"]),
        ((29_000, 29_000), ["net"]),
        ((26_000, -26_000, 26_000, -26_000), ["gross"]),
        ((10_000,), []),
    ],
)
def test_review_limits_are_marked_never_refused(amounts, words):
    from rain_porch.core.price.grid import Line

    lines = [Line("living_area", a, a) for a in amounts]
    told = over_limits(300_000 if words != ["gross"] else 400_000, lines, sum(amounts), sum(map(abs, amounts)))
    assert len(told) == len(words)
    for text, word in zip(told, words, strict=True):
        assert word in text


def test_market_change_compounds_by_the_month():
    assert 406_000 * compounded(0.35, 174) == pytest.approx(8190.68, abs=0.01)
    assert compounded(0.0, 500) == 0
    assert (1 + compounded(1.0, 100)) * (1 + compounded(1.0, 200)) == pytest.approx(1 + compounded(1.0, 300))


def test_a_line_equal_for_all_comps_is_added_once_and_moves_neither_gross_nor_limits_nor_weights():
    """25,000 spent, 11,625 returned: the value rises by exactly that (docs: rules of the grid)."""
    comps = [Comp(f"C{i}", 400_000.0 + 9_000 * i, 30.0 * i, {"living_area": 1800.0 + 40 * i}) for i in range(6)]
    rates = made({"living_area": 85.0})
    own = [Own("improvements", 11_625.0, "25,000 × …"), Own("own: view", None, "left to judgement")]

    def priced(own: list[Own]) -> tuple[float, list, list[Own]]:
        once = apart(own, comps)
        grid = [adjust(subject(), c, rates, 0.3, own=own, apart=frozenset(x.field for x in once)) for c in comps]
        weights = comp_weights(np.full(6, 80.0), np.arange(6) * 30.0, np.array([a.gross_pct for a in grid]))
        return indicated(grid, weights, once), grid, once

    plain, without_it, none = priced([])
    value, with_it, once = priced(own)
    assert (
        value - plain == pytest.approx(11_625, abs=1e-6) and none == [] and [x.field for x in once] == ["improvements"]
    )
    for a, b in zip(without_it, with_it, strict=True):
        assert (a.adjusted_price, a.net, a.gross, a.over_limits) == (b.adjusted_price, b.net, b.gross, b.over_limits)
    typed = [replace(comps[0], overrides={"improvements": 0.0}), *comps[1:]]
    assert apart(own, typed) == [], "typed for one comp, it is a line like any other"
