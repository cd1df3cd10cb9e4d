"""Rewinding against a slow twin that reads one record at a time, and the helpers of the columns."""

from __future__ import annotations

import datetime as dt
from typing import Any

import numpy as np
import pytest
from hypothesis import given
from hypothesis import strategies as st

from rain_porch.core.facts.words import KIND_OF_STATUS, RecordKind, Status
from rain_porch.core.market.bulletin.figure_records import records_behind
from rain_porch.core.market.columns import FOR_SALE, RECORD_KINDS, UNDER_CONTRACT, Words, list_price_at
from rain_porch.core.market.measures import MEASURES, Market
from rain_porch.core.search.matching import run
from rain_porch.core.search.search import Search, Window
from tests.made import DAY, TODAY, market, sale, subject
from tests.made_market import wanderers

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
        row["close_date"] = somewhen(draw)
        row["deed"] = draw(st.booleans())
    if KIND_OF_STATUS[Status(status)] == RecordKind.FAILED:
        row["off_market_date"] = somewhen(draw)
    return row


def slowly(row: dict[str, Any], day: dt.date) -> str | None:
    """The kind of one record at the end of a day, by the words of the rules: the last stage that has begun; one whose
    day is unknown begins on the newest day that is known of the record, and holds on every day where none is."""
    final = KIND_OF_STATUS[Status(row["status"])].value
    if row.get("deed"):
        final = "deed_sale"
    start, contract = row["on_market_date"], row["purchase_contract_date"]
    if final == "deed_sale":
        start = None
    if final not in ("sold", "under_contract"):
        contract = None
    end = {"sold": row.get("close_date"), "deed_sale": row.get("close_date"), "failed": row.get("off_market_date")}.get(
        final
    )
    newest = contract or start or dt.date.min
    stages = {"for_sale": start, "under_contract": contract}
    if final != "for_sale":
        if final == "paused":
            stages.pop("for_sale")
        stages[final] = {"under_contract": contract}.get(final, end) or newest
    else:
        stages["for_sale"] = start or newest
    begun = [kind for kind, since in stages.items() if since is not None and since <= day]
    return begun[-1] if begun else None


@given(st.lists(records(), min_size=1, max_size=12), st.integers(0, 450))
def test_every_record_is_rewound_as_the_slow_twin_says(rows, days_ago):
    view = market(rows).as_of(DAY - days_ago)
    day = TODAY - dt.timedelta(days=days_ago)
    told = [None if k < 0 else RECORD_KINDS[k].value for k in view.kind]
    assert told == [slowly(r, day) for r in rows]


@given(st.lists(records(), min_size=1, max_size=12), st.integers(0, 10_000), st.integers(-20, 450))
def test_searches_and_books_say_the_same_of_every_day(rows, seed, days_ago):
    """What a search over everything finds of each kind is what the market's books hold, whatever is missing or told."""
    rows = [{**r, "key": f"R{i}"} for i, r in enumerate(rows)] + wanderers(seed, 5)
    for r in rows[-5::2]:  # histories whose dates were lost
        r |= {"purchase_contract_date": None, "off_market_date": None}
    columns = market(rows)
    day = DAY - days_ago
    view = columns.as_of(day)
    everything = Search(
        radius_miles=None, windows={k: Window() for k in RECORD_KINDS}, leave_out_new_construction=False,
    )  # fmt: skip
    found = run(everything, columns, view).rows
    books = Market(columns, np.arange(len(columns)), day)
    for kind, name in ((FOR_SALE, "for_sale"), (UNDER_CONTRACT, "under_contract")):
        of_kind = sorted(found[view.kind[found] == kind].tolist())
        value = MEASURES[name][1](books, day, day).value
        assert (value, sorted(records_behind(books, name, day, day).tolist())) == (len(of_kind), of_kind)


def test_today_each_record_is_what_its_status_says_whatever_is_missing():
    rows = [{"status": s, "list_price": 1.0, "close_price": 1.0, "on_market_date": start}
            for s in STATUSES for start in (None, TODAY)]  # fmt: skip
    kinds = [RECORD_KINDS[k] for k in market(rows).as_of(DAY).kind]
    assert kinds == [KIND_OF_STATUS[Status(r["status"])] for r in rows]


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


def test_records_of_a_home_are_found_together():
    columns = market([sale(home=5), sale(home=9), sale(home=5)])
    assert columns.rows_of_home(5).tolist() == [0, 2] and columns.rows_of_home(77).size == 0


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
