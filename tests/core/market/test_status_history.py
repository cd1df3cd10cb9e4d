from __future__ import annotations

import numpy as np
import pytest
from hypothesis import given
from hypothesis import strategies as st

from rain_porch.core.market.status_history import (
    FAILED,
    FOR_SALE,
    NO_STATUSES,
    OFF,
    PAUSED,
    SOLD,
    UNDER_CONTRACT,
    StatusChanges,
    tells_more,
)

KINDS = [SOLD, UNDER_CONTRACT, FOR_SALE, FAILED, PAUSED]
histories = st.dictionaries(
    st.integers(0, 8), st.dictionaries(st.integers(0, 60), st.sampled_from(KINDS), min_size=1, max_size=6), max_size=5
)


def made(history: dict[int, dict[int, int]]) -> StatusChanges:
    table = sorted((row, day, kind) for row, days in history.items() for day, kind in days.items())
    rows, days, kinds = (np.array([x[i] for x in table]) for i in range(3)) if table else (np.zeros(0),) * 3
    return StatusChanges(rows.astype(np.int64), days.astype(np.int32), kinds.astype(np.int8))


@given(histories, st.integers(-1, 70))
def test_on_a_day_a_listing_is_what_its_last_change_by_then_made_it(history, day):
    rows, kinds, since = made(history).at(day)
    want = {r: max(d for d in days if d <= day) for r, days in history.items() if min(days) <= day}
    assert dict(zip(rows.tolist(), since.tolist(), strict=True)) == want
    assert kinds.tolist() == [history[r][want[r]] for r in sorted(want)]


@given(histories, st.lists(st.integers(0, 9), max_size=6), st.integers(0, 70))
def test_days_off_the_market_are_counted_day_by_day(history, rows, end):
    """The slow twin walks the calendar; a change that nothing follows within the days goes on to the end."""
    changes = made(history)

    def slow(row: int) -> int:
        return sum(
            history[row][max(d for d in history[row] if d <= day)] in OFF
            for day in range(end)
            if row in history and min(history[row]) <= day
        )

    got = changes.days_off(np.array(rows, dtype=np.int64), np.full(len(rows), end))
    assert got.tolist() == [slow(r) for r in rows]


@given(histories)
def test_each_listing_comes_once_with_its_changes_in_order(history):
    assert dict(made(history)) == {r: sorted(d.items()) for r, d in history.items()}
    assert list(NO_STATUSES) == []


@pytest.mark.parametrize(
    ("kinds", "more"),
    [
        ([UNDER_CONTRACT, SOLD], False),
        ([FAILED], False),
        ([UNDER_CONTRACT, FAILED], True),
        ([PAUSED, FOR_SALE], True),
        ([FAILED, UNDER_CONTRACT], True),
        ([], False),
    ],
)
def test_a_history_tells_more_where_dates_alone_could_not(kinds, more):
    assert tells_more(kinds) is more
