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

from ..errors import BadInput
from ..facts.dates import DAYS_PER_MONTH, NO_DAY, add_months, date_of, day_of
from ..phrases import phrase
from .book import Book, Dated, Entered
from .change.same_home import SameHome, same_home_index
from .columns import Bools, Columns, Days, Floats, Ints, list_price_at
from .market_rules import USUAL_MARKET, MarketRules

SMALL = 5
_FEW = 8  # a market with less than an eighth of the records


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
    """The measures of one period, by name."""

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


def last_years(by: str, years: int, end: dt.date, through: dt.date) -> list[Period]:
    """The periods of the last years up to the one that `end` lies in: 5 years are 60 months, 20 quarters or 5 years."""
    months = {"month": 1, "quarter": 3}.get(by)
    if months is None:
        return periods(by, dt.date(end.year - years + 1, 1, 1), end, through)
    first = dt.date(end.year, (end.month - 1) // months * months + 1, 1)
    return periods(by, add_months(first, months - 12 * years), end, through)


class Market:
    """The chosen homes of a market, each list of dates sorted, so that a period is a slice.

    rows: rows of the columns; leases and sales that are none are left out. deeds: whether deed sales count among
    closings. through: the last day of the records; nothing after it is read.
    """

    def __init__(self, columns: Columns, rows: Ints, through: int, deeds: bool = False) -> None:
        self.columns = columns
        self.through = through
        self.book = columns.memo.get("book", lambda: Book(columns))
        chosen = np.zeros(len(columns), dtype=np.bool_)
        chosen[rows] = True
        chosen &= ~columns.lease & ~columns.not_arms_length
        self.chosen = chosen if deeds else chosen & ~columns.deed
        # a town's own lists are sorted anew sooner than picked out of those of a region
        self._few = np.flatnonzero(self.chosen) if len(rows) * _FEW < len(columns) else None
        self._lists: dict[str, Dated] = {}

    def dated(self, name: str) -> Dated:
        """One of the book's lists for the chosen rows; and "start", the entries of "came" that are a listing's first."""
        if name not in self._lists:
            if name == "start":
                self._lists[name] = self.dated("came").only(self._stays_first)
            elif self._few is not None:
                self._lists[name] = (self._came if name == "came" else self.book.entries(name, self._few)).dated()
            else:
                held = self.book.dated(name)
                self._lists[name] = held.only(self.chosen[held.rows])
        return self._lists[name]

    @cached_property
    def _came(self) -> Entered:
        return self.book.entries("came", self._few)

    @cached_property
    def _stays_first(self) -> Bools:
        """For each entry of "came": whether it was the listing's first stay for sale."""
        if self._few is not None:
            return self.book.stay_first(self._came)
        return self.book.stays_first[self.chosen[self.book.dated("came").rows]]

    @cached_property
    def _stays_ended(self) -> Days:
        """For each entry of "came": the day on which that stay for sale ended."""
        if self._few is not None:
            return self.book.stay_ended(self._came)
        return self.book.stays_ended[self.chosen[self.book.dated("came").rows]]

    @cached_property
    def closings_only(self) -> bool:
        """Whether the records of this market are of closings alone: that none is for sale in them says nothing."""
        return not (self.columns.on_market[self.chosen] != NO_DAY).any()

    def within(self, name: str, start: int, end: int) -> Ints:
        """Chosen rows whose date lies in [start, end]."""
        return self.dated(name).within(start, end)

    def until(self, name: str, day: int) -> int:
        """How many of a list have happened by the end of `day`."""
        return self.dated(name).until(day)

    def count_on_market(self, day: int) -> int:
        """On the market at the end of `day`: begun and not yet under contract, off the market or closed."""
        return self.until("came", day) - self.until("ended", day)

    @cached_property
    def same_home(self) -> SameHome | None:
        """The index of what one home would bring, from all closings of this market."""
        return same_home_index(self.columns, self.dated("close").rows.astype(np.int64), self.through)

    def on_market_at(self, day: int) -> Ints:
        """Rows for sale at the end of `day`."""
        came = self.dated("came")
        begun = came.until(day)
        return came.rows[:begun][self._stays_ended[:begun] > day].astype(np.int64)


def _median(x: Floats) -> float:
    n = len(x)
    middle = np.partition(x, [(n - 1) // 2, n // 2])
    return float((middle[(n - 1) // 2] + middle[n // 2]) / 2)


def _mean(x: Floats) -> float:
    return float(x.sum() / len(x))


def _stat(x: Floats, statistic: Callable[[Floats], float]) -> Value:
    x = x[np.isfinite(x)]
    return Value(statistic(x) if x.size else None, int(x.size))


def _ratio(top: Floats, bottom: Floats) -> Floats:
    ok = (bottom > 0) & np.isfinite(top)
    return np.where(ok, top / np.where(ok, bottom, 1.0), np.nan)


def _days(m: Market, rows: Ints) -> Floats:
    start, end = m.book.start[rows].astype(np.float64), m.book.signed[rows].astype(np.float64)
    known = (m.book.start[rows] != NO_DAY) & (m.book.signed[rows] != NO_DAY) & (end >= start)
    return np.where(known, end - start - m.columns.statuses.days_off(rows, end), np.nan)


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


# what the mean and median measures of closings are taken of: (n,), NaN where unknown
CLOSING_VALUES: Mapping[str, Callable[[Market, Ints], Floats]] = {
    "price": _number("close_price"), "price_per_sqft": _per("close_price", "living_area"), "days": _days,
    "cumulative_days": _cumulative_days, "share_of_list": _per("close_price", "list_price"),
    "share_of_original": _per("close_price", "original_list_price"),
}  # fmt: skip


def _of_closings(of: str, statistic: Callable[[Floats], float]) -> Measure:
    def measure(m: Market, start: int, end: int) -> Value:
        return _stat(CLOSING_VALUES[of](m, _closings(m, start, end)), statistic)

    return measure


def _new(m: Market, start: int, end: int) -> Value:
    return _count(int((~m.book.back[m.within("start", start, end)]).sum()))


def _back(m: Market, start: int, end: int) -> Value:
    """Relistings of a home within the house's gap of its last failure, and listings back from a contract or a pause."""
    relisted = int(m.book.back[m.within("start", start, end)].sum())
    return _count(relisted + len(m.within("returned", start, end)))


def _counted(name: str) -> Measure:
    return lambda m, start, end: _count(len(m.within(name, start, end)))


def _volume(m: Market, start: int, end: int) -> Value:
    price = m.columns.numbers["close_price"][_closings(m, start, end)]
    return Value(float(np.nansum(price)), len(price))


def _share_that_sells(m: Market, start: int, end: int) -> Value:
    sold, failed = len(_closings(m, start, end)), len(m.within("off", start, end))
    return Value(sold / (sold + failed) if sold + failed else None, sold + failed)


def _months_of_supply(m: Market, start: int, end: int) -> Value:
    """For sale at the end ÷ mean monthly closings of the last 12 months, or of as many as the house's rule says."""
    n, months = m.count_on_market(end), m.columns.rules.supply_months
    since = day_of(add_months(date_of(end) + dt.timedelta(days=1), -months))
    sold = len(m.within("close", since, end))
    return Value(n / (sold / months) if sold else None, n)


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


MEASURES: Mapping[str, tuple[str, Measure]] = {
    # name: (unit, how)
    "new_listings": ("", _new),
    "back_on_market": ("", _back),
    "contracts": ("", _counted("contract")),
    "closings": ("", lambda m, s, e: _count(len(_closings(m, s, e)))),
    "volume": ("$", _volume),
    "for_sale": ("", lambda m, s, e: _count(m.count_on_market(e))),
    "under_contract": ("", lambda m, s, e: _count(m.until("under", e) - m.until("gone", e))),
    "failed": ("", _counted("off")),
    "failed_for_sale": ("", _counted("off_sale")),
    "failed_under_contract": ("", _counted("off_signed")),
    "put_on_hold": ("", _counted("held")),
    "share_that_sells": ("share", _share_that_sells),
    "mean_price": ("$", _of_closings("price", _mean)),
    "median_price": ("$", _of_closings("price", _median)),
    "mean_price_per_sqft": ("$/sq ft", _of_closings("price_per_sqft", _mean)),
    "median_price_per_sqft": ("$/sq ft", _of_closings("price_per_sqft", _median)),
    "mean_days": ("days", _of_closings("days", _mean)),
    "median_days": ("days", _of_closings("days", _median)),
    "mean_cumulative_days": ("days", _of_closings("cumulative_days", _mean)),
    "median_cumulative_days": ("days", _of_closings("cumulative_days", _median)),
    "same_home_price": ("$", _same_home_price),
    "mean_list_price": ("$", _list_prices(_mean)),
    "median_list_price": ("$", _list_prices(_median)),
    "share_of_list": ("share", _of_closings("share_of_list", _mean)),
    "median_share_of_list": ("share", _of_closings("share_of_list", _median)),
    "share_of_original": ("share", _of_closings("share_of_original", _mean)),
    "median_share_of_original": ("share", _of_closings("share_of_original", _median)),
    "months_of_supply": ("months", _months_of_supply),
    "absorption": ("a month", _absorption),
    "share_with_price_cut": ("share", _with_cut),
}  # fmt: skip


def measure_label(name: str, rules: MarketRules = USUAL_MARKET) -> str:
    """How a measure is called: months of supply carry the months of their pace.

    >>> measure_label("months_of_supply")
    'Months of supply (12-month pace)'
    """
    return phrase(f"measure-{name}", months=str(rules.supply_months))


# measures of the homes that stand on a period's last day
AT_THE_END = frozenset(("for_sale", "under_contract", "months_of_supply", "mean_list_price", "median_list_price",
                        "share_with_price_cut"))  # fmt: skip

# measures made from a value of each closing, which a record may lack
FROM_CLOSINGS = frozenset(
    name for name in MEASURES if name.startswith(("mean_", "median_", "share_of_")) and "list_price" not in name
)


def series(market: Market, measures: Sequence[str], spans: Sequence[Period]) -> list[Point]:
    """Every measure in every period. An unfinished period is read up to the last day of the records."""
    for name in measures:
        if name not in MEASURES:
            raise BadInput("measure", f"“{name}” is no measure: use one of {', '.join(MEASURES)}.")
    out = []
    for span in spans:
        start, end = day_of(span.start), min(day_of(span.end), market.through)
        ahead = day_of(span.start) > market.through
        values = {n: Value(None, 0) if ahead else MEASURES[n][1](market, start, end) for n in measures}
        out.append(Point(span, values))
    return out


@dataclass(frozen=True)
class Change:
    """How a value moved: in percent, or in points where the value is itself a share (98.0 % after 98.2 % is −0.2 points)."""

    size: float
    unit: str  # "%" or "points"

    @property
    def nothing(self) -> bool:
        """Whether it rounds to no change at one digit."""
        return abs(self.size) < 0.05

    @property
    def amount(self) -> str:
        """Its size in its unit, without a sign: "1.2 %", "0.2 points"."""
        size = f"{0.0 if self.nothing else abs(self.size):.1f}"
        return phrase("change-in-points", size=size) if self.unit == "points" else f"{size} %"

    @property
    def words(self) -> str:
        """ "+1.2 %", "−0.2 points"; what rounds to nothing has no sign."""
        return f"{'' if self.nothing else '+' if self.size > 0 else '−'}{self.amount}"


def change_of(now: float | None, before: float | None, unit: str) -> Change | None:
    """The change of a measure in `unit` ("share" for shares), None where it cannot be said. 45 after 50 is −10.0 %."""
    if now is None or before is None:
        return None
    if unit == "share":
        return Change(100 * (now - before), "points")
    return Change(100 * (now - before) / before, "%") if before else None
