from __future__ import annotations

import datetime as dt

import pytest
from hypothesis import given
from hypothesis import strategies as st

from rain_porch.core.facts.dates import add_months, date_of, day_of, said


@given(st.dates(dt.date(1900, 1, 1), dt.date(2100, 1, 1)), st.integers(-600, 600))
def test_days_and_months_go_there_and_back(date, months):
    assert date_of(day_of(date)) == date
    moved = add_months(date, months)
    assert (moved.year * 12 + moved.month) - (date.year * 12 + date.month) == months
    assert moved.day == date.day or (moved + dt.timedelta(days=1)).day == 1


@given(st.dates(dt.date(1900, 1, 1), dt.date(2100, 1, 1)))
def test_a_day_is_said_in_one_form_and_read_back_from_iso(date):
    words = said(date)
    assert words == said(date.isoformat()) == said(date.isoformat() + "T08:30:00")
    assert dt.datetime.strptime(words, "%b %d, %Y").date() == date


@pytest.mark.parametrize(
    ("start", "months", "then"),
    [
        ("2024-01-31", 1, "2024-02-29"),
        ("2023-01-31", 1, "2023-02-28"),
        ("2023-12-15", 1, "2024-01-15"),
        ("2024-03-31", -1, "2024-02-29"),
    ],
)
def test_months_end_where_the_month_does(start, months, then):
    assert add_months(dt.date.fromisoformat(start), months) == dt.date.fromisoformat(then)
