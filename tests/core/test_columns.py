"""Rewinding against a slow twin that reads one record at a time, and the helpers of the columns."""

from __future__ import annotations

import datetime as dt
from typing import Any

import numpy as np
import pytest
from hypothesis import given
from hypothesis import strategies as st

from rain_porch.core.columns import RECORD_KINDS, Words, list_price_at
from rain_porch.core.words import KIND_OF_STATUS, RecordKind, Status
from tests.made import DAY, TODAY, market, sale, subject

STATUSES = [s.value for s in Status]


def somewhen(draw: Any, lowest: int = 0, highest: int = 400) -> dt.date | None:
    days = draw(st.one_of(st.none(), st.integers(lowest, highest)))
    return None if days is None else TODAY - dt.timedelta(days=days)


@st.composite
def records(draw):
    status = draw(st.sampled_from(STATUSES))
    row: dict[str, Any] = {
        "status": status,
        "on_market_date": somewhen(draw),
        "purchase_contract_date": somewhen(draw),
        "list_price": 400_000.0,
        "close_price": 390_000.0,
    }
    if status == "Closed":
        row["close_date"] = TODAY - dt.timedelta(days=draw(st.integers(0, 400)))
        row["deed"] = draw(st.booleans())
    if KIND_OF_STATUS[Status(status)] == RecordKind.FAILED:
        row["off_market_date"] = TODAY - dt.timedelta(days=draw(st.integers(0, 400)))
    return row


def slowly(row: dict[str, Any], day: dt.date) -> str | None:
    """The kind of one record at the end of a day, by the words of the rules."""
    status = Status(row["status"])
    start, contract = row["on_market_date"], row["purchase_contract_date"]
    close, off = row.get("close_date"), row.get("off_market_date")
    begun = start is not None and start <= day
    if status == Status.CLOSED:
        if close <= day:
            return "deed_sale" if row.get("deed") else "sold"
        if row.get("deed"):
            return None
        if contract is not None and contract <= day:
            return "under_contract"
        return "for_sale" if begun else None
    final = KIND_OF_STATUS[status]
    if final == RecordKind.FAILED:
        if off <= day:
            return "failed"
        if begun:
            return "for_sale"
        # a contract that fell through shows that it was on the market by then
        return "for_sale" if contract is not None and contract <= day else None
    if not (begun or start is None):
        return None
    if final == RecordKind.UNDER_CONTRACT and contract is not None and contract > day:
        return "for_sale"
    return final.value


@given(st.lists(records(), min_size=1, max_size=12), st.integers(0, 450))
def test_every_record_is_rewound_as_the_slow_twin_says(rows, days_ago):
    view = market(rows).as_of(DAY - days_ago)
    day = TODAY - dt.timedelta(days=days_ago)
    told = [None if k < 0 else RECORD_KINDS[k].value for k in view.kind]
    assert told == [slowly(r, day) for r in rows]


@given(st.lists(records(), min_size=1, max_size=12), st.integers(0, 400))
def test_sold_records_show_what_was_paid_and_the_rest_what_is_asked(rows, days_ago):
    view = market(rows).as_of(DAY - days_ago)
    for kind, price in zip(view.kind, view.price, strict=True):
        assert price == (390_000 if kind in (0, 1) else 400_000)


@given(
    st.lists(
        st.tuples(st.sampled_from("ABC"), st.integers(1, 300), st.integers(100, 900)),
        max_size=12,
        unique_by=lambda c: c[:2],
    ),
    st.integers(0, 320),
)
def test_a_price_is_that_before_the_next_change(changes, days_ago):
    """changes: (listing, days ago, price in thousands before the change)."""
    now = {"A": 350_000.0, "B": 360_000.0, "C": 370_000.0}
    made = [(key, (TODAY - dt.timedelta(days=d)).isoformat(), p * 1000.0) for key, d, p in changes]
    columns = market([{**sale(0), "key": key, "list_price": price} for key, price in now.items()], changes=made)
    wanted = []
    for key, price in now.items():
        later = [(d, p) for k, d, p in changes if k == key and d < days_ago]
        wanted.append(max(later)[1] * 1000 if later else price)
    assert list_price_at(columns, None, DAY - days_ago).tolist() == wanted
    assert list_price_at(columns, np.array([2, 0, 0]), DAY - days_ago).tolist() == [wanted[2], wanted[0], wanted[0]]


def test_rows_since_are_those_of_the_window_and_nothing_after_the_day():
    columns = market([sale(10), sale(200), sale(100), {**sale(-5)}, sale(10, lease=True), sale(10, price=None)])
    view = columns.as_of(DAY)
    assert sorted(view.rows_since(0, DAY - 150)) == [0, 2]
    assert sorted(view.rows_since(0, None)) == [0, 1, 2]
    assert columns.as_of(DAY) is view, "the view of a day is kept"
    for back in range(12):
        columns.as_of(DAY - back)
    assert len(columns._views) <= 9


def test_words_fold_case_and_unknown_is_no_word():
    words = Words(np.array([0, 1, -1], dtype=np.int32), ("Alder", "Birch"))
    assert [words[i] for i in range(3)] == ["Alder", "Birch", None]
    assert words.mask(frozenset({"alder"})).tolist() == [True, False, False]
    assert words.mask(frozenset()).tolist() == [False] * 3


def test_the_newest_day_is_that_of_any_date_and_facts_are_read_or_none():
    columns = market([sale(40, city="Alder"), {**sale(400), "off_market_date": TODAY - dt.timedelta(days=3)}])
    assert columns.last_day() == DAY - 3
    assert columns.fact(0, "city") == "Alder" and columns.fact(1, "city") is None
    assert columns.fact(0, "living_area") == 1800 and columns.fact(0, "view") is None
    assert market([]).last_day() < -(2**30)


def test_records_of_a_home_are_found_together_and_results_are_kept():
    columns = market([sale(home=5), sale(home=9), sale(home=5)])
    assert columns.rows_of_home(5).tolist() == [0, 2] and columns.rows_of_home(77).size == 0
    made = []
    for _ in range(3):
        columns.keep("sum", lambda: made.append(1) or 42)
    assert made == [1]


def test_a_correction_keeps_what_it_replaced():
    me = subject(garage_spaces=3.0).corrected({"garage_spaces": 2.0, "view": "River", "year_built": None})
    assert me.number("garage_spaces") == 2 and me.word("view") == "River" and me.number("year_built") is None
    assert dict(me.originals) == {"garage_spaces": 3.0, "view": None, "year_built": 1985.0}
    assert me.number("view") is None and me.word("garage_spaces") is None


@pytest.mark.parametrize("status", STATUSES)
def test_each_status_has_its_kind_today(status):
    row = {**sale(10), "status": status, "off_market_date": TODAY, "close_date": TODAY if status == "Closed" else None}
    kind = market([row]).as_of(DAY).kind[0]
    assert RECORD_KINDS[kind] == KIND_OF_STATUS[Status(status)]
