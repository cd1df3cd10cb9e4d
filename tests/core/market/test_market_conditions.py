"""The arithmetic of lenders' published form: the check of the trade, three windows, and their trend."""

from __future__ import annotations

import datetime as dt
from statistics import median

import numpy as np
import pytest

from rain_porch.core.facts.dates import day_of
from rain_porch.core.market import market_conditions as mc
from rain_porch.core.market import measures as mk
from rain_porch.core.market.measures import Value
from tests.made import TODAY, market
from tests.made_market import crowd


def told(rows):
    columns = market(rows)
    return mc.conditions(mk.Market(columns, np.arange(len(columns)), day_of(TODAY)), TODAY)


def test_windows_follow_on_one_another_to_the_day():
    spans = mc.windows(dt.date(2026, 10, 31))
    assert [(w.start.isoformat(), w.end.isoformat(), w.months) for w in spans] == [
        ("2025-11-01", "2026-04-30", 6), ("2026-05-01", "2026-07-31", 3), ("2026-08-01", "2026-10-31", 3),
    ]  # fmt: skip
    for day in (dt.date(2026, 2, 28), dt.date(2024, 2, 29), dt.date(2026, 3, 15)):
        a, b, c = mc.windows(day)
        assert c.end == day and b.end + dt.timedelta(days=1) == c.start and a.end + dt.timedelta(days=1) == b.start


def test_the_check_of_the_trade():
    """24 sales in 6 months are 4.00 a month; 20 homes for sale are then 5.0 months."""
    first = mc.windows(TODAY)[0]
    sold = [
        {"status": "Closed", "close_date": first.start + dt.timedelta(days=7 * i), "close_price": 300_000.0, "key": f"S{i}", "home": i,
         "on_market_date": first.start - dt.timedelta(days=40), "purchase_contract_date": first.start - dt.timedelta(days=10)}
        for i in range(24)
    ]  # fmt: skip
    there = [
        {
            "status": "Active",
            "on_market_date": first.end - dt.timedelta(days=5),
            "list_price": 300_000.0,
            "key": f"A{i}",
            "home": 100 + i,
        }
        for i in range(20)
    ]
    window = told([*sold, *there])[0]
    assert (window["sales"].value, window["absorption"].value, window["listings"].value, window["supply"].value) == (
        24,
        4.0,
        20,
        5.0,
    )
    assert window["listing_days"].value == 5


@pytest.mark.parametrize("seed", range(6))
def test_each_window_agrees_with_one_home_at_a_time(seed):
    rows = crowd(seed)
    for window, made in zip(mc.windows(TODAY), told(rows), strict=True):
        sold = [r for r in rows if r["status"] == "Closed" and window.start <= r["close_date"] <= window.end]
        ends = [
            min((r[k] for k in ("purchase_contract_date", "off_market_date", "close_date") if r.get(k)), default=None)
            for r in rows
        ]
        there = [
            r
            for r, end in zip(rows, ends, strict=True)
            if r["on_market_date"] <= window.end and (end is None or end > window.end)
        ]
        assert made["sales"].value == len(sold) and made["listings"].value == len(there)
        assert made["price"].value == (pytest.approx(median(r["close_price"] for r in sold)) if sold else None)
        assert made["list_price"].value == (pytest.approx(median(r["list_price"] for r in there)) if there else None)
        assert made["listing_days"].value == (
            median((window.end - r["on_market_date"]).days for r in there) if there else None
        )
        assert made["absorption"].value == len(sold) / window.months


def test_a_trend_is_told_where_both_ends_hold_enough():
    def windows(name, first, last, n=9):
        return [{name: Value(first, n)}, {name: Value(None, 0)}, {name: Value(last, n)}]

    assert mc.trend("price", windows("price", 300_000, 320_000)) == "increasing"
    assert mc.trend("price", windows("price", 300_000, 310_000)) == "stable"
    assert mc.trend("price", windows("price", 300_000, 280_000)) == "declining"
    assert (
        mc.trend("price", windows("price", 300_000, 280_000, n=4)) == ""
        and mc.trend("price", windows("price", None, 1.0)) == ""
    )
    assert mc.trend("sales", windows("sales", 24, 12, n=2)) == "stable", "by the month: six months beside three"
