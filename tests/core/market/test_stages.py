"""The one rule of what a record is on a day, against plain readings of its dates and of its history."""

from __future__ import annotations

import itertools

import numpy as np
import pytest
from hypothesis import given
from hypothesis import strategies as st

from rain_porch.core.facts.dates import NO_DAY
from rain_porch.core.market.columns import RECORD_KINDS
from rain_porch.core.market.stages import EVER, NEVER, NOTHING, Dates, stages_by_dates, told_by_history, way_by_history
from rain_porch.core.market.status_history import FAILED, FOR_SALE, PAUSED, SOLD, UNDER_CONTRACT
from tests.made import market
from tests.made_market import crowd, wanderers

KINDS = [SOLD, UNDER_CONTRACT, FOR_SALE, FAILED, PAUSED]
some_day = st.integers(0, 40) | st.just(NO_DAY)


@given(st.integers(0, 10_000), st.integers(-30, 600))
def test_by_its_dates_a_record_goes_through_its_stages_and_never_back(seed, ago):
    columns = market(crowd(seed, 40))
    stages = stages_by_dates(columns)
    day = int(columns.on_market.max()) - ago
    order = {NOTHING: 0, FOR_SALE: 1, UNDER_CONTRACT: 2}
    before, now = stages.on(day - 1), stages.on(day)
    assert all(order.get(int(b), 3) <= order.get(int(n), 3) for b, n in zip(before, now, strict=True))
    assert stages.on(NEVER - 1).tolist() == columns.kinds_today.tolist(), "at last each is what its status says"
    assert (stages.on(EVER - 1) == NOTHING).all()


@given(
    st.sampled_from(KINDS),
    some_day,
    some_day,
    some_day,
    some_day,
    st.lists(st.tuples(st.integers(0, 40), st.sampled_from(KINDS)), min_size=1, max_size=5),
)
def test_a_way_by_history_begins_for_sale_ends_as_today_and_its_days_rise(kind, on, contract, close, off, changes):
    changes = sorted(changes)
    way = way_by_history(Dates(kind, on, contract, close, off), changes)
    assert way[0].kind == FOR_SALE
    assert way[-1].kind == kind
    assert [s.day for s in way] == sorted(s.day for s in way)
    assert all(a.kind != b.kind for a, b in itertools.pairwise(way)), "a stage that begins is another one"


def test_back_from_a_contract_that_failed_and_sold_after_all():
    """On day 0, under contract 10, back 20, under contract 30, closed 50."""
    changes = [(10, UNDER_CONTRACT), (20, FOR_SALE), (30, UNDER_CONTRACT), (50, SOLD)]
    way = way_by_history(Dates(SOLD, 0, 30, 50, NO_DAY), changes)
    assert [(s.day, s.kind) for s in way] == [
        (0, FOR_SALE),
        (10, UNDER_CONTRACT),
        (20, FOR_SALE),
        (30, UNDER_CONTRACT),
        (50, SOLD),
    ]


def test_a_closing_whose_day_is_missing_began_on_the_newest_day_that_is_known():
    way = way_by_history(Dates(SOLD, 0, 30, NO_DAY, NO_DAY), [(10, PAUSED), (20, FOR_SALE)])
    assert (way[-1].kind, way[-1].day, way[-1].dated) == (SOLD, 30, False)


@given(st.integers(0, 10_000), st.integers(0, 500))
def test_what_history_tells_of_a_day_is_the_last_stage_that_had_begun(seed, ago):
    columns = market(wanderers(seed))
    told = told_by_history(columns)
    day = int(columns.on_market.max()) + 60 - ago
    rows, kinds, since = told.on(day)
    for row, kind, start in zip(rows, kinds, since, strict=True):
        mine = np.flatnonzero((told.rows == row) & (told.days <= day))
        assert kind == (told.kinds[mine[-1]] if mine.size else NOTHING)
        assert start in (NO_DAY, *(int(d) for d in told.days[mine]))
    assert (told.ended >= told.days).all()


@pytest.mark.parametrize("kind", range(len(RECORD_KINDS)))
def test_stages_name_kinds_that_there_are(kind):
    assert RECORD_KINDS[kind].value and kind != NOTHING
