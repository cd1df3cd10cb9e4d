"""What lenders' published market-conditions form works out of a market: three windows back from a day, and their trend.

Absorption = sales ÷ months of the window; months of supply = homes for sale at the window's end ÷ absorption. Windows and
arithmetic as in Fannie Mae form 1004MC (from memory; it is no longer asked for, and still used).
"""

from __future__ import annotations

import datetime as dt
from collections.abc import Mapping, Sequence
from dataclasses import dataclass

import numpy as np

from ..facts.dates import NO_DAY, add_months, day_of
from .columns import list_price_at
from .measures import CLOSING_VALUES, SMALL, Market, Value

WINDOWS = ((12, 6), (6, 3), (3, 0))  # months back from the day: from, to
STEADY = 5.0  # percent within which the first window and the last count as the same
LINES: Mapping[str, str] = {
    "sales": "", "absorption": "a month",
    "listings": "", "supply": "months",
    "price": "$", "days": "days", "list_price": "$",
    "listing_days": "days", "share": "share",
    "conceded": "share",
}  # fmt: skip


@dataclass(frozen=True)
class Window:
    """start, end: both inside; months: how long it is."""

    start: dt.date
    end: dt.date
    months: int


def windows(through: dt.date) -> list[Window]:
    """Months 7 to 12, 4 to 6 and 0 to 3 back from a day, oldest first."""
    after = through + dt.timedelta(days=1)
    return [
        Window(add_months(after, -first), add_months(after, -last) - dt.timedelta(days=1), first - last)
        for first, last in WINDOWS
    ]


def conditions(market: Market, through: dt.date) -> list[dict[str, Value]]:
    """LINES of each window."""
    return [_of(market, window) for window in windows(through)]


def _of(m: Market, window: Window) -> dict[str, Value]:
    end = day_of(window.end)
    sold = m.within("close", day_of(window.start), end)
    absorption = len(sold) / window.months
    there = m.on_market_at(end)
    n = m.count_on_market(end)
    begun = m.book.start[there]
    waited = np.where(
        begun != NO_DAY, end - begun - m.columns.statuses.days_off(there, np.full(len(there), float(end))), np.nan
    )
    conceded = m.columns.numbers["concessions_amount"][sold]
    told = np.isfinite(conceded)
    return {
        "sales": Value(float(len(sold)), len(sold)),
        "absorption": Value(absorption, len(sold)),
        "listings": Value(float(n), n),
        "supply": Value(n / absorption if len(sold) else None, n),
        "price": _median(CLOSING_VALUES["price"](m, sold)),
        "days": _median(CLOSING_VALUES["days"](m, sold)),
        "list_price": _median(list_price_at(m.columns, there, end)),
        "listing_days": _median(waited),
        "share": _median(CLOSING_VALUES["share_of_list"](m, sold)),
        "conceded": Value(float((conceded[told] > 0).mean()) if told.any() else None, int(told.sum())),
    }


def _median(x: np.ndarray[tuple[int], np.dtype[np.float64]]) -> Value:
    x = x[np.isfinite(x)]
    return Value(float(np.median(x)) if x.size else None, int(x.size))


COUNTED = frozenset(("sales", "absorption", "listings", "supply"))


def trend(name: str, told: Sequence[Mapping[str, Value]]) -> str:
    """ "increasing", "stable" or "declining", from the first window to the last; "" where one of them is unknown or says little."""
    first, last = told[0][name], told[-1][name]
    if first.value is None or last.value is None or (name not in COUNTED and min(first.n, last.n) < SMALL):
        return ""
    a, b = (first.value / 6, last.value / 3) if name == "sales" else (first.value, last.value)
    if not a:
        return "" if not b else "increasing"
    moved = 100 * (b - a) / a
    return "stable" if abs(moved) < STEADY else "increasing" if moved > 0 else "declining"
