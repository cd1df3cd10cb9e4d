"""The books of a market: what stands at a month's end is what stood before and what happened since."""

from __future__ import annotations

import datetime as dt
import gc
import itertools
import weakref
from typing import Any

import numpy as np
from hypothesis import given, settings
from hypothesis import strategies as st

from rain_porch.core.market import measures as mk
from rain_porch.core.market.bulletin.figure_records import changed_since, records_behind, rows_touched
from rain_porch.core.market.listing_facts import days_on_market
from tests.made import DAY, TODAY, market, sale
from tests.made_market import ON, START, crowd, run, wanderers


@settings(max_examples=25, deadline=None)
@given(st.integers(0, 10_000))
def test_the_book_of_homes_for_sale_balances(seed):
    """For sale at the end = before + all that came on − contracts (or closings without one) − failed."""
    rows = crowd(seed)
    spans = mk.periods("month", START, TODAY, TODAY)
    points = run(rows, spans, ["for_sale", "contracts", "failed"])
    for before, now in itertools.pairwise(points):
        span = now.period
        came = sum(span.start <= r["on_market_date"] <= min(span.end, TODAY) for r in rows)
        left = now.values["contracts"].value + now.values["failed"].value
        assert now.values["for_sale"].value == before.values["for_sale"].value + came - left


@settings(max_examples=25, deadline=None)
@given(st.integers(0, 10_000))
def test_books_follow_the_history_of_statuses_and_balance_every_month(seed):
    rows = wanderers(seed)

    def state(r: dict[str, Any], day: dt.date) -> str:
        told = [to for at, to in [(r["on_market_date"], "Active"), *r["way"]] if at <= day]
        return ON[told[-1]] if told else "nothing"

    names = ["for_sale", "under_contract", "new_listings", "back_on_market", "contracts", "failed", "failed_for_sale",
             "failed_under_contract", "put_on_hold", "closings"]  # fmt: skip
    points = run(rows, mk.periods("month", START, TODAY, TODAY), names)
    columns = market(rows)
    for before, now in itertools.pairwise([None, *points]):
        b = {n: v.value for n, v in before.values.items()} if before else dict.fromkeys(names, 0.0)
        v = {n: x.value for n, x in now.values.items()}
        end = min(now.period.end, TODAY)
        standing = [state(r, end) for r in rows]
        assert v["for_sale"] == standing.count("for sale")
        assert v["under_contract"] == standing.count("under contract")
        assert v["for_sale"] == (
            b["for_sale"]
            + v["new_listings"]
            + v["back_on_market"]
            - v["contracts"]
            - v["failed_for_sale"]
            - v["put_on_hold"]
        )
        view = columns.as_of((end - dt.date(1970, 1, 1)).days)
        assert [int((view.kind == k).sum()) for k in (3, 2)] == [
            standing.count("for sale"),
            standing.count("under contract"),
        ]
    assert sum(p.values["failed"].value for p in points) >= sum(r["status"] == "Expired" for r in rows)


def test_days_on_hold_are_no_days_on_the_market():
    held = {**sale(10), "way": [(TODAY - dt.timedelta(days=70), "Hold"), (TODAY - dt.timedelta(days=60), "Active")]}
    columns = market([sale(10), held])
    assert days_on_market(columns, columns.as_of(DAY), np.arange(2)).tolist() == [35.0, 25.0]
    spans = mk.periods("year", TODAY, TODAY, TODAY)
    one = mk.series(mk.Market(columns, np.array([1]), DAY), ["median_days"], spans)
    assert one[0].values["median_days"].value == 25.0


@settings(max_examples=25, deadline=None)
@given(st.integers(0, 10_000))
def test_a_few_homes_among_many_have_the_figures_that_they_have_alone(seed):
    """A small part of the records keeps lists of its own; a market that is all of them shares those of the book."""
    few = [r for r in crowd(seed, 40) + wanderers(seed, 12) if r["home"] < 6 or r["home"] >= 5006]
    told = wanderers(seed + 2, 40) + crowd(seed + 1, 160)
    others = [{**r, "key": f"other {r['key']}", "home": r["home"] + 9000} for r in told]
    many = others[:90] + few + others[90:]
    rows = np.arange(90, 90 + len(few))
    alone, among = market(few), market(many)
    one = mk.Market(alone, np.arange(len(few)), DAY)
    other = mk.Market(among, rows, DAY)
    spans = mk.periods("month", START, TODAY, TODAY)
    names = [n for n in mk.MEASURES if n != "same_home_price"]
    assert mk.series(one, names, spans) == mk.series(other, names, spans)
    for name in names:
        a, b = (records_behind(m, name, DAY - 200, DAY) for m in (one, other))
        assert sorted(alone.keys[a]) == sorted(among.keys[b]), name
    events = [
        sorted((e.day, e.what, str(m.columns.keys[e.row]), e.old, e.new) for e in changed_since(m, DAY - 100))
        for m in (one, other)
    ]
    assert events[0] == events[1]
    touched = set(rows_touched(among, DAY - 100).tolist())
    assert {e.row for e in changed_since(other, DAY - 100)} <= touched


def test_columns_and_their_book_go_with_the_last_who_reads_them():
    """Where they held each other, those of each earlier import stayed until a collection."""
    columns = market([sale(10), sale(20)])
    read = mk.Market(columns, np.arange(2), DAY)
    mk.series(read, list(mk.MEASURES), mk.periods("year", TODAY, TODAY, TODAY))
    left = weakref.ref(columns)
    gc.disable()
    try:
        del columns, read
        assert left() is None
    finally:
        gc.enable()
