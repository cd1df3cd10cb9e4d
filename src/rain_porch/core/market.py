"""Market statistics: measures over periods, computed from the columns. Definitions in the table MEASURES.

A market's homes are the rows that the caller has chosen (place, kinds, criteria); the periods are whole months,
quarters or years, or each year to the same day.
"""

from __future__ import annotations

import datetime as dt
from collections.abc import Callable, Mapping, Sequence
from dataclasses import dataclass

import numpy as np

from .columns import FAILED, FOR_SALE, KIND_CODE, SOLD, UNDER_CONTRACT, Bools, Columns, Days, Floats, Ints
from .dates import NO_DAY, add_months, date_of, day_of
from .errors import BadInput

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
    """The dated facts of the chosen rows, sorted by nothing: each measure is a count or a statistic of a period.

    rows: rows of the columns, leases left out. deeds: whether deed sales count among closings.
    through: the last day of the records; nothing after it is read.
    """

    def __init__(self, columns: Columns, rows: Ints, through: int, deeds: bool = False) -> None:
        keep = ~columns.lease[rows] & ~columns.not_arms_length[rows]
        if not deeds:
            keep &= ~columns.deed[rows]
        rows = rows[keep]
        self.through = through
        self.listed = ~columns.deed[rows]
        self.kind = np.where(columns.deed[rows], SOLD, KIND_CODE[columns.status[rows]])

        def until_today(days: Days) -> Days:
            return np.where(days <= through, days, NO_DAY).astype(np.int32)

        self.start = until_today(columns.on_market[rows])
        close = until_today(columns.close[rows])
        self.close = np.where((self.kind == SOLD), close, NO_DAY)
        off = until_today(columns.off_market[rows])
        self.off = np.where(self.kind == FAILED, off, NO_DAY)
        contract = until_today(columns.contract[rows])
        contract = np.where(np.isin(self.kind, (SOLD, UNDER_CONTRACT)), contract, NO_DAY)
        # a closing without a contract date counts as a contract on its close date
        self.contract = np.where((contract == NO_DAY) & (self.close != NO_DAY) & self.listed, self.close, contract)
        self.known_contract = contract
        numbers = columns.numbers
        self.price = numbers["close_price"][rows]
        self.area = numbers["living_area"][rows]
        self.list_price = numbers["list_price"][rows]
        self.original = numbers["original_list_price"][rows]
        self.rows = rows
        self.columns = columns
        self.back = self._back_on_market(columns, rows)

    def _back_on_market(self, columns: Columns, rows: Ints) -> Bools:
        """Listings that began less than 90 days after the same home's last one failed: back, not new."""
        back = np.zeros(len(rows), dtype=np.bool_)
        order = np.lexsort((self.start, columns.home_id[rows]))
        home, start, off = columns.home_id[rows][order], self.start[order], self.off[order]
        same = (home[1:] == home[:-1]) & (off[:-1] != NO_DAY) & (start[1:] != NO_DAY)
        gap = start[1:].astype(np.int64) - off[:-1]
        back[order[1:]] = same & (gap >= 0) & (gap < RELIST_GAP_DAYS)
        return back

    # --- who is where at a day's end

    def on_market_at(self, day: int) -> Bools:
        """On the market at the end of `day`, not yet under contract, off the market or closed."""
        there = (self.start != NO_DAY) & (self.start <= day) & self.listed
        for ended in (self.contract, self.off, self.close):
            there &= ~((ended != NO_DAY) & (ended <= day))
        return np.asarray(there & np.isin(self.kind, (SOLD, UNDER_CONTRACT, FOR_SALE, FAILED)))

    def under_contract_at(self, day: int) -> Bools:
        signed = (self.known_contract != NO_DAY) & (self.known_contract <= day) & self.listed
        return np.asarray(signed & ~((self.close != NO_DAY) & (self.close <= day)))

    @staticmethod
    def between(days: Days, start: int, end: int) -> Bools:
        return np.asarray((days != NO_DAY) & (days >= start) & (days <= end))


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


def _days(m: Market, rows: Bools) -> Floats:
    start, end = m.start[rows].astype(np.float64), m.known_contract[rows].astype(np.float64)
    known = (m.start[rows] != NO_DAY) & (m.known_contract[rows] != NO_DAY) & (end >= start)
    return np.where(known, end - start, np.nan)


Measure = Callable[[Market, int, int], Value]


def _count(mask: Bools) -> Value:
    n = int(mask.sum())
    return Value(float(n), n)


def _closings(m: Market, start: int, end: int) -> Bools:
    return m.between(m.close, start, end)


def _of_closings(values: Callable[[Market, Bools], Floats], statistic: Callable[[Floats], float]) -> Measure:
    def measure(m: Market, start: int, end: int) -> Value:
        rows = _closings(m, start, end)
        return _stat(values(m, rows), statistic)

    return measure


def _failed(m: Market, start: int, end: int) -> Bools:
    return m.between(m.off, start, end)


def _share_that_sells(m: Market, start: int, end: int) -> Value:
    sold, failed = int(_closings(m, start, end).sum()), int(_failed(m, start, end).sum())
    return Value(sold / (sold + failed) if sold + failed else None, sold + failed)


def _months_of_supply(m: Market, start: int, end: int) -> Value:
    """For sale at the end ÷ mean monthly closings of the last 12 months."""
    n = int(m.on_market_at(end).sum())
    year_before = day_of(add_months(date_of(end) + dt.timedelta(days=1), -12))
    sold = int((m.between(m.close, year_before, end) & m.listed).sum())
    return Value(n / (sold / 12) if sold else None, n)


def _absorption(m: Market, start: int, end: int) -> Value:
    """Closings a month over the period."""
    sold = int(_closings(m, start, end).sum())
    return Value(sold / ((end - start + 1) / 30.4375), sold)


def _list_prices(statistic: Callable[[Floats], float]) -> Measure:
    def measure(m: Market, start: int, end: int) -> Value:
        there = m.on_market_at(end)
        return _stat(m.columns.as_of(end).list_price[m.rows[there]], statistic)

    return measure


def _with_cut(m: Market, start: int, end: int) -> Value:
    there = m.on_market_at(end)
    now = m.columns.as_of(end).list_price[m.rows[there]]
    first = m.original[there]
    known = np.isfinite(now) & np.isfinite(first)
    n = int(known.sum())
    return Value(float((now[known] < first[known]).mean()) if n else None, n)


MEASURES: Mapping[str, tuple[str, str, Measure]] = {
    # name: (label, unit, how)
    "new_listings": ("New listings", "", lambda m, s, e: _count(m.between(m.start, s, e) & m.listed & ~m.back)),
    "contracts": ("Contracts", "", lambda m, s, e: _count(m.between(m.contract, s, e) & m.listed)),
    "closings": ("Closings", "", lambda m, s, e: _count(_closings(m, s, e))),
    "volume": ("Volume", "$", lambda m, s, e: Value(float(np.nansum(m.price[_closings(m, s, e)])), int(_closings(m, s, e).sum()))),
    "for_sale": ("Homes for sale", "", lambda m, s, e: _count(m.on_market_at(e))),
    "under_contract": ("Under contract", "", lambda m, s, e: _count(m.under_contract_at(e))),
    "failed": ("Failed", "", lambda m, s, e: _count(_failed(m, s, e))),
    "share_that_sells": ("Share that sells", "share", _share_that_sells),
    "mean_price": ("Mean price", "$", _of_closings(lambda m, r: m.price[r], _mean)),
    "median_price": ("Median price", "$", _of_closings(lambda m, r: m.price[r], _median)),
    "mean_price_per_sqft": ("Mean price per sq ft", "$/sq ft", _of_closings(lambda m, r: _ratio(m.price[r], m.area[r]), _mean)),
    "median_price_per_sqft": ("Median price per sq ft", "$/sq ft", _of_closings(lambda m, r: _ratio(m.price[r], m.area[r]), _median)),
    "mean_days": ("Mean days on market", "days", _of_closings(_days, _mean)),
    "median_days": ("Median days on market", "days", _of_closings(_days, _median)),
    "mean_list_price": ("Mean list price", "$", _list_prices(_mean)),
    "median_list_price": ("Median list price", "$", _list_prices(_median)),
    "share_of_list": ("Mean share of list price", "share", _of_closings(lambda m, r: _ratio(m.price[r], m.list_price[r]), _mean)),
    "median_share_of_list": ("Median share of list price", "share", _of_closings(lambda m, r: _ratio(m.price[r], m.list_price[r]), _median)),
    "share_of_original": ("Mean share of first list price", "share", _of_closings(lambda m, r: _ratio(m.price[r], m.original[r]), _mean)),
    "median_share_of_original": ("Median share of first list price", "share", _of_closings(lambda m, r: _ratio(m.price[r], m.original[r]), _median)),
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
