"""Market statistics: measures over periods, computed from the columns. Definitions in the table MEASURES.

A market's homes are the rows that the caller has chosen (place, kinds, criteria); the periods are whole months,
quarters or years, or each year to the same day.
"""

from __future__ import annotations

import datetime as dt
from collections.abc import Callable, Mapping, Sequence
from dataclasses import dataclass
from functools import cached_property

import numpy as np

from .columns import (
    FAILED,
    FOR_SALE,
    KIND_CODE,
    SOLD,
    UNDER_CONTRACT,
    Bools,
    Columns,
    Days,
    Floats,
    Ints,
    list_price_at,
)
from .dates import DAYS_PER_MONTH, NO_DAY, add_months, date_of, day_of
from .errors import BadInput
from .same_home import SameHome, same_home_index

SMALL = 5
RELIST_GAP_DAYS = 90


@dataclass(frozen=True)
class Period:
    """start and end are both inside. finished: the records run to its end."""

    name: str
    start: dt.date
    end: dt.date
    finished: bool


@dataclass(frozen=True)
class Value:
    """value None where nothing can be said; n is the number of homes behind it."""

    value: float | None
    n: int


@dataclass(frozen=True)
class Point:
    period: Period
    values: Mapping[str, Value]


def periods(by: str, start: dt.date, end: dt.date, through: dt.date) -> list[Period]:
    """Whole periods that touch [start, end]; `through` is the day to which the records run.

    by: month, quarter, year, or ytd (each year from 1 January to the month and day of `end`; 29 February counts
    with the 28th in other years).
    """
    if start > end:
        raise BadInput("from", f"{start} lies after {end}: swap the two.")
    if by == "ytd":
        out = []
        for year in range(start.year, end.year + 1):
            last = (
                end if year == end.year else end.replace(year=year, day=min(end.day, 28) if end.month == 2 else end.day)
            )
            out.append(Period(f"{year} to {last:%m-%d}", dt.date(year, 1, 1), last, last <= through))
        return out
    months = {"month": 1, "quarter": 3, "year": 12}.get(by)
    if months is None:
        raise BadInput("by", f"“{by}” is no period: use month, quarter, year or ytd.")
    first = dt.date(start.year, (start.month - 1) // months * months + 1, 1)
    out = []
    while first <= end:
        after = add_months(first, months)
        last = after - dt.timedelta(days=1)
        if by == "month":
            name = f"{first:%Y-%m}"
        elif by == "quarter":
            name = f"{first.year}-Q{(first.month + 2) // 3}"
        else:
            name = str(first.year)
        out.append(Period(name, first, last, last <= through))
        first = after
    return out


class Market:
    """The chosen homes of a market, each list of dates sorted, so that a period is a slice.

    rows: rows of the columns; leases and sales that are none are left out. deeds: whether deed sales count among
    closings. through: the last day of the records; nothing after it is read.
    """

    def __init__(self, columns: Columns, rows: Ints, through: int, deeds: bool = False) -> None:
        self.columns = columns
        self.through = through
        self.book = columns.keep("book", lambda: Book(columns))
        chosen = np.zeros(len(columns), dtype=np.bool_)
        chosen[rows] = True
        chosen &= ~columns.lease & ~columns.not_arms_length
        self.chosen = chosen if deeds else chosen & ~columns.deed
        self._lists: dict[str, tuple[Ints, Days]] = {}

    def list_of(self, name: str) -> tuple[Ints, Days]:
        """Chosen rows that have the date, sorted by it, and the dates."""
        if name not in self._lists:
            rows, days = self.book.sorted[name]
            ours = self.chosen[rows]
            self._lists[name] = (rows[ours], days[ours])
        return self._lists[name]

    def within(self, name: str, start: int, end: int) -> Ints:
        """Chosen rows whose date lies in [start, end]."""
        rows, days = self.list_of(name)
        a, b = np.searchsorted(days, np.array([start, end + 1], dtype=days.dtype))
        return rows[a:b]

    def until(self, name: str, day: int) -> int:
        days = self.list_of(name)[1]
        return int(np.searchsorted(days, days.dtype.type(day + 1)))

    def count_on_market(self, day: int) -> int:
        """On the market at the end of `day`: begun and not yet under contract, off the market or closed."""
        return self.until("start", day) - self.until("ended", day)

    @cached_property
    def same_home(self) -> SameHome | None:
        """The index of what one home would bring, from all closings of this market."""
        return same_home_index(self.columns, self.list_of("close")[0], self.through)

    def on_market_at(self, day: int) -> Ints:
        begun = self.within("start", -(2**31) + 1, day)
        return begun[self.book.ended_day[begun] > day]


class Book:
    """All dated facts of a market, sorted once for a version of the records.

    start, contract (a closing without one counts on its close date), signed (contracts that are known), close, off,
    ended (the first of contract, off and close, never before the start), gone (closings of signed contracts).
    """

    def __init__(self, columns: Columns) -> None:
        kind = np.where(columns.deed, SOLD, KIND_CODE[columns.status])
        listed = ~columns.deed
        counted = np.isin(kind, (SOLD, UNDER_CONTRACT, FOR_SALE, FAILED))
        start = np.where(listed & counted, columns.on_market, NO_DAY)
        close = np.where(kind == SOLD, columns.close, NO_DAY)
        off = np.where(kind == FAILED, columns.off_market, NO_DAY)
        signed = np.where(listed & np.isin(kind, (SOLD, UNDER_CONTRACT)), columns.contract, NO_DAY)
        contract = np.where((signed == NO_DAY) & (close != NO_DAY) & listed, close, signed)
        never = np.int32(2**31 - 1)
        ended = np.full(len(columns), never, dtype=np.int32)
        for days in (contract, off, close):
            ended = np.minimum(ended, np.where(days == NO_DAY, never, days))
        self.signed = signed
        self.start = start
        self.close = close
        self.ended_day = np.where(start == NO_DAY, never, np.maximum(ended, start))
        self.off = off
        self.back, self.before = self._back_on_market(columns.home_id, start, off)
        gone = np.where((signed != NO_DAY) & (close != NO_DAY), np.maximum(close, signed), NO_DAY)
        dated = {
            "start": start, "contract": contract, "signed": signed, "close": close, "off": off,
            "ended": np.where(self.ended_day == never, NO_DAY, self.ended_day), "gone": gone,
        }  # fmt: skip
        self.sorted = {name: _sorted(days.astype(np.int32)) for name, days in dated.items()}

    @staticmethod
    def _back_on_market(home_id: Ints, start: Days, off: Days) -> tuple[Bools, Ints]:
        """Listings that began less than 90 days after the same home's last one failed: back, not new; and that last one.

        The second array holds the row of the listing before, −1 where there is none to follow.
        """
        back = np.zeros(len(start), dtype=np.bool_)
        before = np.full(len(start), -1, dtype=np.int64)
        order = np.lexsort((start, home_id))
        home, began, ended = home_id[order], start[order], off[order]
        same = (home[1:] == home[:-1]) & (ended[:-1] != NO_DAY) & (began[1:] != NO_DAY)
        gap = began[1:].astype(np.int64) - ended[:-1]
        follows = same & (gap >= 0) & (gap < RELIST_GAP_DAYS)
        back[order[1:]] = follows
        before[order[1:][follows]] = order[:-1][follows]
        return back, before

    @cached_property
    def cumulative(self) -> Floats:
        """Days on market of each listing and of those of the same home that it follows, (n,); NaN where unknown.

        A failed listing's days run to the day it went off the market, a sold one's to its contract.
        """
        end = np.where(self.off != NO_DAY, self.off, self.signed).astype(np.float64)
        known = (self.start != NO_DAY) & (end != NO_DAY) & (end >= self.start)
        days = np.where(known, end - self.start, np.nan)
        back = np.flatnonzero(self.back)
        for row in back[np.argsort(self.start[back], kind="stable")]:
            days[row] += days[self.before[row]]
        return np.asarray(days)


def _sorted(days: Days) -> tuple[Ints, Days]:
    known = np.flatnonzero(days != NO_DAY)
    order = known[np.argsort(days[known], kind="stable")]
    return order, days[order]


def _median(x: Floats) -> float:
    return float(np.median(x))


def _mean(x: Floats) -> float:
    return float(np.mean(x))


def _stat(x: Floats, statistic: Callable[[Floats], float]) -> Value:
    x = x[np.isfinite(x)]
    return Value(statistic(x) if x.size else None, int(x.size))


def _ratio(top: Floats, bottom: Floats) -> Floats:
    ok = (bottom > 0) & np.isfinite(top)
    return np.where(ok, top / np.where(ok, bottom, 1.0), np.nan)


def _days(m: Market, rows: Ints) -> Floats:
    start, end = m.book.start[rows].astype(np.float64), m.book.signed[rows].astype(np.float64)
    known = (m.book.start[rows] != NO_DAY) & (m.book.signed[rows] != NO_DAY) & (end >= start)
    return np.where(known, end - start, np.nan)


def _cumulative_days(m: Market, rows: Ints) -> Floats:
    return np.asarray(m.book.cumulative[rows])


Measure = Callable[[Market, int, int], Value]


def _count(n: int) -> Value:
    return Value(float(n), n)


def _closings(m: Market, start: int, end: int) -> Ints:
    return m.within("close", start, end)


def _number(name: str) -> Callable[[Market, Ints], Floats]:
    return lambda m, rows: m.columns.numbers[name][rows]


def _per(top: str, bottom: str) -> Callable[[Market, Ints], Floats]:
    return lambda m, rows: _ratio(m.columns.numbers[top][rows], m.columns.numbers[bottom][rows])


def _of_closings(values: Callable[[Market, Ints], Floats], statistic: Callable[[Floats], float]) -> Measure:
    def measure(m: Market, start: int, end: int) -> Value:
        return _stat(values(m, _closings(m, start, end)), statistic)

    return measure


def _new(m: Market, start: int, end: int) -> Value:
    return _count(int((~m.book.back[m.within("start", start, end)]).sum()))


def _volume(m: Market, start: int, end: int) -> Value:
    price = m.columns.numbers["close_price"][_closings(m, start, end)]
    return Value(float(np.nansum(price)), len(price))


def _share_that_sells(m: Market, start: int, end: int) -> Value:
    sold, failed = len(_closings(m, start, end)), len(m.within("off", start, end))
    return Value(sold / (sold + failed) if sold + failed else None, sold + failed)


def _months_of_supply(m: Market, start: int, end: int) -> Value:
    """For sale at the end ÷ mean monthly closings of the last 12 months."""
    n = m.count_on_market(end)
    year_before = day_of(add_months(date_of(end) + dt.timedelta(days=1), -12))
    sold = len(m.within("close", year_before, end))
    return Value(n / (sold / 12) if sold else None, n)


def _absorption(m: Market, start: int, end: int) -> Value:
    """Closings a month over the period."""
    sold = len(_closings(m, start, end))
    return Value(sold / ((end - start + 1) / DAYS_PER_MONTH), sold)


def _list_prices(statistic: Callable[[Floats], float]) -> Measure:
    def measure(m: Market, start: int, end: int) -> Value:
        return _stat(list_price_at(m.columns, m.on_market_at(end), end), statistic)

    return measure


def _with_cut(m: Market, start: int, end: int) -> Value:
    there = m.on_market_at(end)
    now = list_price_at(m.columns, there, end)
    first = m.columns.numbers["original_list_price"][there]
    known = np.isfinite(now) & np.isfinite(first)
    n = int(known.sum())
    return Value(float((now[known] < first[known]).mean()) if n else None, n)


def _same_home_price(m: Market, start: int, end: int) -> Value:
    n = len(_closings(m, start, end))
    index = m.same_home
    return Value(index.price(start, end) if n and index else None, n)


MEASURES: Mapping[str, tuple[str, str, Measure]] = {
    # name: (label, unit, how)
    "new_listings": ("New listings", "", _new),
    "contracts": ("Contracts", "", lambda m, s, e: _count(len(m.within("contract", s, e)))),
    "closings": ("Closings", "", lambda m, s, e: _count(len(_closings(m, s, e)))),
    "volume": ("Volume", "$", _volume),
    "for_sale": ("Homes for sale", "", lambda m, s, e: _count(m.count_on_market(e))),
    "under_contract": ("Under contract", "", lambda m, s, e: _count(m.until("signed", e) - m.until("gone", e))),
    "failed": ("Failed", "", lambda m, s, e: _count(len(m.within("off", s, e)))),
    "share_that_sells": ("Share that sells", "share", _share_that_sells),
    "mean_price": ("Mean price", "$", _of_closings(_number("close_price"), _mean)),
    "median_price": ("Median price", "$", _of_closings(_number("close_price"), _median)),
    "mean_price_per_sqft": ("Mean price per sq ft", "$/sq ft", _of_closings(_per("close_price", "living_area"), _mean)),
    "median_price_per_sqft": ("Median price per sq ft", "$/sq ft", _of_closings(_per("close_price", "living_area"), _median)),
    "mean_days": ("Mean days on market", "days", _of_closings(_days, _mean)),
    "median_days": ("Median days on market", "days", _of_closings(_days, _median)),
    "mean_cumulative_days": ("Mean cumulative days", "days", _of_closings(_cumulative_days, _mean)),
    "median_cumulative_days": ("Median cumulative days", "days", _of_closings(_cumulative_days, _median)),
    "same_home_price": ("Price of the same home", "$", _same_home_price),
    "mean_list_price": ("Mean list price", "$", _list_prices(_mean)),
    "median_list_price": ("Median list price", "$", _list_prices(_median)),
    "share_of_list": ("Mean share of list price", "share", _of_closings(_per("close_price", "list_price"), _mean)),
    "median_share_of_list": ("Median share of list price", "share", _of_closings(_per("close_price", "list_price"), _median)),
    "share_of_original": ("Mean share of first list price", "share", _of_closings(_per("close_price", "original_list_price"), _mean)),
    "median_share_of_original": ("Median share of first list price", "share", _of_closings(_per("close_price", "original_list_price"), _median)),
    "months_of_supply": ("Months of supply (12-month pace)", "months", _months_of_supply),
    "absorption": ("Closings a month", "a month", _absorption),
    "share_with_price_cut": ("Share with a price cut", "share", _with_cut),
}  # fmt: skip


def series(market: Market, measures: Sequence[str], spans: Sequence[Period]) -> list[Point]:
    """Every measure in every period. An unfinished period is read up to the last day of the records."""
    for name in measures:
        if name not in MEASURES:
            raise BadInput("measure", f"“{name}” is no measure: use one of {', '.join(MEASURES)}.")
    out = []
    for span in spans:
        start, end = day_of(span.start), min(day_of(span.end), market.through)
        ahead = day_of(span.start) > market.through
        values = {n: Value(None, 0) if ahead else MEASURES[n][2](market, start, end) for n in measures}
        out.append(Point(span, values))
    return out


def change_pct(now: float | None, before: float | None) -> float | None:
    """Change in percent: 45 after 50 is −10.0."""
    return None if now is None or not before else 100 * (now - before) / before
