from __future__ import annotations

from dataclasses import replace

import numpy as np
import pytest
from hypothesis import given
from hypothesis import strategies as st

from rain_porch.core.facts.fields import BY_NAME, Kind
from rain_porch.core.facts.house_rules import USUAL
from rain_porch.core.search.matching import run
from rain_porch.core.search.proposals import helps_most, match_everything, matching
from rain_porch.core.search.proposed import proposed_search
from rain_porch.core.search.sales import MarketSales
from rain_porch.core.search.search import Criterion
from tests.made import DAY, market, sale, subject

HOME = subject(city="Alder")


@given(st.floats(500, 6000), st.floats(1900, 2020), st.floats(2000, 60_000))
def test_a_home_meets_every_limit_that_is_made_from_it(area, year, lot):
    home = subject(living_area=round(area), year_built=round(year), lot_size_square_feet=round(lot))
    for name, value in home.facts.items():
        limit = matching(name, BY_NAME[name].kind, home)
        assert limit.low <= value <= limit.high


@given(
    st.sampled_from(("below_grade_finished_area", "tax_annual_amount", "association_fee", "own_number_screen_porch")),
    st.integers(11, 9000),
)
def test_what_is_measured_or_paid_has_room_on_both_sides_and_counts_have_none(name, value):
    """A limit at the home's own amount alone found no other home."""
    limit = matching(name, BY_NAME[name].kind, subject(**{name: value}))
    assert limit.low <= 0.75 * value < value < 1.25 * value <= limit.high
    for none in (name, "own_number_porches", "garage_spaces"):
        assert matching(none, BY_NAME[none].kind, subject(**{none: 0})) == Criterion(none, 0, 0)
    assert matching("own_number_porches", Kind.NUMBER, subject(own_number_porches=2)) == Criterion(
        "own_number_porches", 2, 2
    )


def test_words_match_as_words_and_what_is_unknown_limits_nothing():
    assert matching("city", Kind.WORD, HOME) == Criterion("city", words=("Alder",))
    assert matching("fireplaces_total", Kind.NUMBER, HOME) is None


def test_with_every_fact_the_search_keeps_what_it_had_and_finds_the_home_again():
    search = proposed_search(HOME, 2025, 0.0)
    whole = match_everything(search, HOME)
    assert {c.field for c in search.criteria} <= {c.field for c in whole.criteria}
    assert all(whole.criterion(c.field) == c for c in search.criteria)
    columns = market([sale(**{k: v for k, v in HOME.facts.items() if k != "city"})])
    assert run(whole, columns, columns.as_of(DAY), HOME).rows.tolist() == [0]


def _sold(n_near: int, n_far: int):
    rows = [sale(5 + 5 * i) for i in range(n_near)] + [sale(20 + i, latitude=41.2 + 1.4 / 69) for i in range(n_far)]
    columns = market(rows)
    view = columns.as_of(DAY)
    search = replace(proposed_search(HOME, 2025, 0.0), radius_miles=1.0, criteria=())
    return search, MarketSales(columns, view, HOME, lambda s: {}), lambda rows: np.full(len(rows), 80.0)


def test_enough_sales_need_no_help():
    search, sales, likeness = _sold(USUAL.whole("search.fewest"), 5)
    assert helps_most(search, sales, likeness) is None


def test_too_few_are_helped_by_the_limit_that_lets_more_in():
    search, sales, likeness = _sold(3, 9)
    step, sold = helps_most(search, sales, likeness)
    assert step.part == "radius_miles" and step.search.radius_miles > 1.0
    assert sold == sales.found(step.search).size > sales.found(search).size


def test_too_many_are_helped_by_a_limit_that_leaves_six():
    search, sales, likeness = _sold(USUAL.whole("search.most") + 15, 0)
    step, sold = helps_most(search, sales, likeness)
    assert USUAL.whole("search.fewest") <= sold == sales.found(step.search).size < sales.found(search).size


@pytest.mark.parametrize("part", ["radius_miles"])
def test_where_nothing_helps_nothing_is_proposed(part):
    search, sales, likeness = _sold(0, 0)
    assert helps_most(search, sales, likeness) is None, part
