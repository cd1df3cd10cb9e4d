"""The book of a market: the day of everything that happened to every listing, sorted once for a version of the records.

What a listing is on a day is told in stages.py; the lists here hold when its stages began and ended.
"""

from __future__ import annotations

import weakref
from dataclasses import dataclass
from functools import cached_property
from typing import Any

import numpy as np
from numpy.typing import NDArray

from ..facts.dates import NO_DAY
from .columns import FAILED, FOR_SALE, KIND_CODE, PAUSED, SOLD, UNDER_CONTRACT, Bools, Columns, Days, Floats, Ints, Rows
from .stages import EVER, NEVER, Told, stages_by_dates

_NAMES = (
    "came",
    "ended",
    "returned",
    "held",
    "contract",
    "signed",
    "under",
    "gone",
    "off",
    "off_sale",
    "off_signed",
    "close",
)
Entries = dict[str, list[tuple[int, int]]]


@dataclass(frozen=True)
class Dated:
    """Rows by day: those of day d are rows[starts[d - first] : starts[d - first + 1]]; before them those of EVER."""

    rows: Rows
    first: int
    starts: NDArray[np.int32]

    def until(self, day: int) -> int:
        """How many up to the end of a day."""
        return int(self.starts[min(max(day + 1 - self.first, 0), len(self.starts) - 1)])

    def within(self, start: int, end: int) -> Ints:
        """Rows of the days start to end, both included."""
        return self.rows[self.until(start - 1) : self.until(end)].astype(np.int64)

    def days(self) -> Days:
        """The day of each row."""
        days = np.repeat(np.arange(len(self.starts) - 1, dtype=np.int32) + np.int32(self.first), np.diff(self.starts))
        return np.concatenate([np.full(int(self.starts[0]), EVER, dtype=np.int32), days])

    def only(self, which: Bools) -> Dated:
        """The entries for which `which`, (n,), is true; itself where it is for all."""
        if which.all():
            return self
        kept = np.flatnonzero(which)
        return Dated(self.rows[kept], self.first, np.searchsorted(kept, self.starts).astype(np.int32))


def dated(rows: Ints, days: Days) -> Dated:
    """Rows with their days, sorted by day."""
    ever = int(np.searchsorted(days, EVER, side="right"))
    if ever == days.size:
        return Dated(rows.astype(np.int32), 0, np.array([ever], dtype=np.int32))
    first = int(days[ever])
    starts = np.searchsorted(days, np.arange(first, days[-1] + 2, dtype=np.int32))
    return Dated(rows.astype(np.int32), first, starts.astype(np.int32))


@dataclass(frozen=True)
class Entered:
    """A list before it is laid out by day.

    known   rows told by their dates            extra  which of the entries told by a history
    rows, days  of both, by day                 order  their places before that
    """

    known: Ints
    extra: Ints
    rows: Ints
    days: Days
    order: Ints

    def dated(self) -> Dated:
        """The same by day."""
        return dated(self.rows, self.days)

    def laid(self, by_dates: NDArray[Any], by_history: NDArray[Any]) -> NDArray[Any]:
        """Values of the known rows and of the extra entries as one array, in the order of the list."""
        return np.concatenate([by_dates, by_history])[self.order]


class Book:
    """Lists of rows by day, by name. A listing stands in a list as often as it happened to it.

    came        on the market: first (stay_first), or back
    ended       no longer for sale          returned  back from a contract, a pause or a withdrawal
    held        put on hold                 contract  went under contract; a closing without one, on its close date
    signed      contracts whose day is known
    under       stood under contract from here, by the dates or by the rule of stages.py; gone: the end of that
    off         failed                      off_sale, off_signed  of these, while for sale, while under contract
    close       closed
    """

    def __init__(self, columns: Columns) -> None:
        self._of = weakref.ref(columns)  # which keep their book: so both go at once with the last who reads them
        kind = np.where(columns.deed, np.int8(SOLD), columns.kinds_today)
        listed = ~columns.deed
        self.start = _starts(columns, slice(None))
        self.close = np.where(kind == SOLD, columns.close, NO_DAY)
        self.off = _failures(columns, slice(None))
        self.signed = np.where(listed & np.isin(kind, (SOLD, UNDER_CONTRACT)), columns.contract, NO_DAY)
        self.back, self.before = followed(columns)
        self._listed = listed
        told = columns.told
        self._told = np.zeros(len(columns), dtype=np.bool_)
        self._told[told.rows] = True
        self._more = _entries(told, columns)
        self._stays = told.ended[told.kinds == FOR_SALE]
        self._dated: dict[str, Dated] = {}

    @property
    def _columns(self) -> Columns:
        columns = self._of()
        assert columns is not None  # whoever reads a book holds its columns
        return columns

    def dated(self, name: str) -> Dated:
        """One of the lists. Made when first asked for: most markets ask for a few of them."""
        if name not in self._dated:
            self._dated[name] = self.entries(name).dated()
        return self._dated[name]

    def entries(self, name: str, among: Ints | None = None) -> Entered:
        """What one of the lists is made of, for all rows or for some, in their order (then sorted anew for these)."""
        at: Any = slice(None) if among is None else among
        plain = self._by_dates(name, at)
        good = np.flatnonzero((plain != NO_DAY) & ~self._told[at])
        known = good if among is None else among[good]
        told = self._more[name]
        extra = np.arange(len(told)) if among is None else np.flatnonzero(_stand_in(told[:, 0], among))
        rows = np.concatenate([known, told[extra, 0]])
        days = np.concatenate([plain[good].astype(np.int32), told[extra, 1].astype(np.int32)])
        order = np.argsort(days, kind="stable")
        return Entered(known, extra, rows[order], days[order], order)

    def _by_dates(self, name: str, at: Any) -> Days:
        """The day by the listing's dates alone, (n,); NO_DAY where it never happened."""
        if name == "contract":
            unsigned = (self.signed[at] == NO_DAY) & self._listed[at]
            return np.asarray(np.where(unsigned, self.close[at], self.signed[at]))
        if name in ("came", "ended", "under", "gone"):
            stages = stages_by_dates(self._columns, at)
            days = {
                "came": lambda: stages.for_sale, "ended": stages.sale_ended,
                "under": lambda: stages.under_contract, "gone": stages.contract_ended,
            }[name]()  # fmt: skip
            return np.where(days == NEVER, np.int32(NO_DAY), days)
        held = {"signed": self.signed, "off": self.off, "off_sale": self.off, "close": self.close}
        return np.asarray(held[name][at] if name in held else np.full_like(self.start[at], NO_DAY))

    def stay_ended(self, came: Entered) -> Days:
        """For each entry of "came": the day on which that stay for sale ended."""
        return came.laid(stages_by_dates(self._columns, came.known).sale_ended(), self._stays[came.extra])

    def stay_first(self, came: Entered) -> Bools:
        """For each entry of "came": whether it was the listing's first stay for sale."""
        told = self._more["came"][:, 0]  # each listing's stays stand together, in order
        first = np.append(True, told[1:] != told[:-1])[: told.size]
        return came.laid(np.ones(came.known.size, dtype=np.bool_), first[came.extra])

    @cached_property
    def stays_ended(self) -> Days:
        """`stay_ended` of all entries of "came"."""
        return self.stay_ended(self.entries("came"))

    @cached_property
    def stays_first(self) -> Bools:
        """`stay_first` of all entries of "came"."""
        return self.stay_first(self.entries("came"))

    @cached_property
    def cumulative(self) -> Floats:
        """Cumulative days of each listing, (n,); NaN where unknown: to the day it went off the market, or to its contract."""
        end = np.where(self.off != NO_DAY, self.off, self.signed).astype(np.int64)
        known = (self.start != NO_DAY) & (end != NO_DAY) & (end >= self.start)
        rows = np.arange(len(end))
        days = end - self.start - self._columns.statuses.days_off(rows, end)
        return with_earlier(self._columns, rows, np.where(known, days, np.nan))


def _starts(columns: Columns, rows: Ints | slice) -> Days:
    """The day each listing came on the market, (n,); NO_DAY for deeds and for what is on hold."""
    counted = np.isin(KIND_CODE[columns.status[rows]], (SOLD, UNDER_CONTRACT, FOR_SALE, FAILED))
    return np.asarray(np.where(~columns.deed[rows] & counted, columns.on_market[rows], NO_DAY))


def _failures(columns: Columns, rows: Ints | slice) -> Days:
    """The day each failed listing went off the market, (n,); NO_DAY for all others."""
    failed = KIND_CODE[columns.status[rows]] == FAILED
    return np.asarray(np.where(~columns.deed[rows] & failed, columns.off_market[rows], NO_DAY))


def followed_in(columns: Columns, rows: Ints | slice = slice(None)) -> tuple[Bools, Rows]:
    """`back_on_market` of all listings of some homes, (n,) each; the places that it tells are those among `rows`."""
    return back_on_market(
        columns.home_id[rows], _starts(columns, rows), _failures(columns, rows), columns.rules.gap_days
    )


def followed(columns: Columns) -> tuple[Bools, Rows]:
    """`back_on_market` of all listings, worked out once."""
    return columns.memo.get("followed", lambda: followed_in(columns))


def with_earlier(columns: Columns, rows: Ints, own: Floats) -> Floats:
    """Cumulative days: the listings' own days on market, (n,), and those of the same home's listings that they follow.

    Each one's days run to the day it failed, less those withdrawn or on hold. NaN where any of them is unknown.
    """
    back, before = followed(columns)
    total, at = own.copy(), rows.copy()
    while (still := back[at]).any():
        earlier = np.where(still, before[at], 0).astype(np.int64)
        start, end = columns.on_market[earlier].astype(np.int64), columns.off_market[earlier].astype(np.int64)
        total += np.where(still, end - start - columns.statuses.days_off(earlier, end), 0.0)
        at = np.where(still, earlier, at)
    return total


def _stand_in(rows: Ints, among: Ints) -> Bools:
    """Which of `rows` are among others, which are sorted."""
    if not among.size:
        return np.zeros(len(rows), dtype=np.bool_)
    return np.asarray(among[np.minimum(np.searchsorted(among, rows), among.size - 1)] == rows)


def _entries(told: Told, columns: Columns) -> dict[str, NDArray[np.int64]]:
    """What happened to the listings whose history tells their way, (row, day) by name of the list, in their order."""
    more: Entries = {name: [] for name in _NAMES}
    rows, days, kinds, dated = (x.tolist() for x in (told.rows, told.days, told.kinds, told.dated))
    for i, (first, row, day, kind) in enumerate(zip(told.first.tolist(), rows, days, kinds, strict=True)):
        before = None if first else kinds[i - 1]
        if before == FOR_SALE:
            more["ended"].append((row, day))
        elif before == UNDER_CONTRACT:
            more["gone"].append((row, day))
        if kind == FOR_SALE:
            more["came"].append((row, day))
            if not first:
                more["returned"].append((row, day))
        elif kind == UNDER_CONTRACT:
            more["under"].append((row, day))
            if dated[i]:
                more["contract"].append((row, day))
                more["signed"].append((row, day))
        elif kind == PAUSED:
            more["held"].append((row, day))
        elif kind == FAILED:
            more["off"].append((row, day))
            if before in (FOR_SALE, UNDER_CONTRACT):
                more["off_sale" if before == FOR_SALE else "off_signed"].append((row, day))
        elif kind == SOLD:
            if before == FOR_SALE:
                more["contract"].append((row, day))
            if dated[i]:
                more["close"].append((row, int(columns.close[row])))
    return {name: np.array(entries, dtype=np.int64).reshape(-1, 2) for name, entries in more.items()}


def back_on_market(home_id: Rows, start: Days, off: Days, gap_days: int) -> tuple[Bools, Rows]:
    """Listings that began less than `gap_days` after the same home's last one failed: back, not new; and that last one.

    The second array holds the row of the listing before, −1 where there is none to follow.
    """
    back = np.zeros(len(start), dtype=np.bool_)
    before = np.full(len(start), -1, dtype=np.int32)
    order = np.lexsort((start, home_id))
    home, began, ended = home_id[order], start[order], off[order]
    same = (home[1:] == home[:-1]) & (ended[:-1] != NO_DAY) & (began[1:] != NO_DAY)
    gap = began[1:].astype(np.int64) - ended[:-1]
    follows = same & (gap >= 0) & (gap < gap_days)
    back[order[1:]] = follows
    before[order[1:][follows]] = order[:-1][follows]
    return back, before
