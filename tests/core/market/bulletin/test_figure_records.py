"""The records behind a figure are as many as the figure says, and what happened is told once, on its day."""

from __future__ import annotations

import datetime as dt
from typing import Any

import numpy as np
import pytest
from hypothesis import given, settings
from hypothesis import strategies as st

from rain_porch.core.errors import BadInput
from rain_porch.core.facts.dates import day_of
from rain_porch.core.market import measures as mk
from rain_porch.core.market.bulletin.figure_records import KINDS, changed_since, records_behind, rows_touched
from tests.made import DAY, TODAY, market, sale
from tests.made_market import START, crowd, run, wanderers

COUNTED = ["closings", "new_listings", "contracts", "failed", "for_sale", "under_contract"]


def whole(rows: list[dict[str, Any]]) -> mk.Market:
    columns = market(rows)
    return mk.Market(columns, np.arange(len(columns)), DAY)


def test_a_measure_that_is_none_is_refused_with_those_that_are():
    with pytest.raises(BadInput) as told:
        records_behind(whole([sale()]), "happiness", DAY - 30, DAY)
    assert told.value.field == "measure" and "closings" in told.value.message


def test_all_that_happened_to_one_home_is_told_newest_first():
    row = {**sale(30), "list_price": 390_000.0}
    columns = market([row], [("L0", str(TODAY - dt.timedelta(days=80)), 410_000.0)])
    events = changed_since(mk.Market(columns, np.arange(1), DAY), DAY - 400)
    assert [e.what for e in events] == ["closed", "contract", "price_down", "new"]
    assert [e.day for e in events] == sorted((e.day for e in events), reverse=True)
    cut = next(e for e in events if e.what == "price_down")
    assert (cut.old, cut.new) == (410_000, 390_000)
    assert {e.what for e in events} <= set(KINDS)


@settings(max_examples=20)
@given(st.integers(0, 10_000), st.integers(1, 400))
def test_events_since_a_later_day_are_those_of_the_longer_span_that_are_newer(seed, days):
    m = whole(wanderers(seed))
    since = DAY - days
    longer = changed_since(m, since - 60)
    assert changed_since(m, since) == [e for e in longer if e.day >= since]
    assert {e.row for e in longer} <= set(rows_touched(m.columns, since - 60).tolist())


@settings(max_examples=20)
@given(st.integers(0, 10_000), st.sampled_from(COUNTED))
def test_as_many_records_stand_behind_a_count_as_it_says(seed, measure):
    """In a market where nothing happens twice to a listing."""
    rows = crowd(seed)
    m = whole(rows)
    for point in run(rows, mk.periods("quarter", START, TODAY, TODAY), [measure]):
        start, end = day_of(point.period.start), day_of(point.period.end)
        assert len(records_behind(m, measure, start, end)) == point.values[measure].value
