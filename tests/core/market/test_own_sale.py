"""The home's own last sale is one at arm's length of the same thing."""

from __future__ import annotations

import datetime as dt
from dataclasses import replace

import pytest
from hypothesis import given
from hypothesis import strategies as st

from rain_porch.core.market.listing_facts import resold_from
from rain_porch.core.market.own_sale import last_own_sale
from tests.made import DAY, TODAY, market, sale, subject

ME = replace(subject(), home_id=7)
EARLIER = sale(900, 300_000, home=7, key="house")
LATER = {
    "lease": sale(100, 1_850, home=7, lease=True),
    "family transfer": sale(100, 1_000, home=7, not_arms_length=True),
    "lot": sale(100, 90_000, home=7, home_kind="land"),
    "deed of the lot": sale(100, 90_000, home=7, deed=True, year_built=2026.0),
    "not yet closed": {**sale(-30, 500_000, home=7), "purchase_contract_date": TODAY},
    "without a price": sale(100, None, home=7),
    "another home's": sale(100, 500_000, home=8),
}


@pytest.mark.parametrize("what", LATER)
def test_what_is_no_sale_of_the_same_thing_is_not_its_last_sale(what):
    columns = market([EARLIER, {**LATER[what], "key": "later"}])
    row = last_own_sale(columns, columns.as_of(DAY), ME)
    assert row is not None and columns.keys[row] == "house"
    quick = resold_from(market([{**LATER[what], "key": "before"}, {**sale(-40, home=7), "key": "after"}]))
    assert quick == ({1: 0} if what == "not yet closed" else {}), "nor is it what was paid before a quick resale"


def test_a_deed_of_the_house_is_one_and_the_newest_counts():
    columns = market([EARLIER, sale(100, 350_000, home=7, deed=True, key="deed")])
    assert columns.keys[last_own_sale(columns, columns.as_of(DAY), ME)] == "deed"
    assert columns.keys[last_own_sale(columns, columns.as_of(DAY - 200), ME)] == "house"
    assert last_own_sale(columns, columns.as_of(DAY), replace(ME, own_listing="deed")) == 0
    assert last_own_sale(columns, columns.as_of(DAY), replace(ME, home_id=None)) is None


@given(st.lists(st.sampled_from([*LATER, "house"]), max_size=6), st.integers(0, 2000))
def test_of_any_history_it_is_the_newest_ordinary_sale_or_none(history, days_ago):
    rows = [{**(EARLIER if what == "house" else LATER[what]), "key": f"{what} {i}"} for i, what in enumerate(history)]
    columns = market(rows)
    row = last_own_sale(columns, columns.as_of(DAY - days_ago), ME)
    known = any(what == "house" for what in history) and TODAY - dt.timedelta(days=days_ago) >= EARLIER["close_date"]
    assert (row is not None) == known
    assert row is None or columns.keys[row].startswith("house")
