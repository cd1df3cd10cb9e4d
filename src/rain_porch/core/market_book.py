"""The book of a market: the day of everything that happened to every listing, sorted once for a version of the records.

A listing's way is told by its dates; where its history of statuses tells more (back from a contract, on hold, withdrawn
and back), by that history up to the last return, and by its dates from there.
"""

from __future__ import annotations

from dataclasses import dataclass
from functools import cached_property
from typing import Any

import numpy as np
from numpy.typing import NDArray

from .columns import FAILED, FOR_SALE, KIND_CODE, PAUSED, SOLD, UNDER_CONTRACT, Bools, Columns, Days, Floats, Ints, Rows
from .dates import NO_DAY

RELIST_GAP_DAYS = 90
_NEVER = np.int32(2**31 - 1)
_NAMES = (
    "came",
    "ended",
    "returned",
    "held",
    "contract",
    "signed",
    "gone",
    "off",
    "off_sale",
    "off_signed",
    "close",
)
Entries = dict[str, list[tuple[int, int]]]


@dataclass(frozen=True)
class Dated:
    """Rows by day: those of day d are rows[starts[d - first] : starts[d - first + 1]]."""

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
        return np.repeat(np.arange(len(self.starts) - 1, dtype=np.int32) + np.int32(self.first), np.diff(self.starts))

    def only(self, which: Bools) -> Dated:
        """The entries for which `which`, (n,), is true; itself where it is for all."""
        if which.all():
            return self
        kept = np.flatnonzero(which)
        return Dated(self.rows[kept], self.first, np.searchsorted(kept, self.starts).astype(np.int32))


def dated(rows: Ints, days: Days) -> Dated:
    """Rows with their days, sorted by day."""
    if not days.size:
        return Dated(rows.astype(np.int32), 0, np.zeros(1, dtype=np.int32))
    starts = np.searchsorted(days, np.arange(days[0], days[-1] + 2, dtype=np.int32))
    return Dated(rows.astype(np.int32), int(days[0]), starts.astype(np.int32))


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
        return dated(self.rows, self.days)

    def laid(self, by_dates: NDArray[Any], by_history: NDArray[Any]) -> NDArray[Any]:
        """Values of the known rows and of the extra entries as one array, in the order of the list."""
        return np.concatenate([by_dates, by_history])[self.order]


class Book:
    """Lists of rows by day, by name. A listing stands in a list as often as it happened to it.

    came        on the market: first (stay_first), or back
    ended       no longer for sale          returned  back from a contract, a pause or a withdrawal
    held        put on hold                 contract  went under contract; a closing without one, on its close date
    signed      contracts whose day is known           gone    the end of those: closed, failed or back
    off         failed                      off_sale, off_signed  of these, while for sale, while under contract
    close       closed
    """

    def __init__(self, columns: Columns) -> None:
        kind = np.where(columns.deed, SOLD, KIND_CODE[columns.status])
        listed = ~columns.deed
        counted = np.isin(kind, (SOLD, UNDER_CONTRACT, FOR_SALE, FAILED))
        self.start = np.where(listed & counted, columns.on_market, NO_DAY)
        self.close = np.where(kind == SOLD, columns.close, NO_DAY)
        self.off = np.where(kind == FAILED, columns.off_market, NO_DAY)
        self.signed = np.where(listed & np.isin(kind, (SOLD, UNDER_CONTRACT)), columns.contract, NO_DAY)
        self.back, self.before = back_on_market(columns.home_id, self.start, self.off)
        self._listed = listed
        more: Entries = {name: [] for name in _NAMES}
        stays: list[int] = []
        self._told = np.zeros(len(columns), dtype=np.bool_)
        for row, changes in columns.statuses:
            if listed[row] and (kind[row] in (SOLD, UNDER_CONTRACT, FOR_SALE, FAILED) or kind[row] == PAUSED):
                self._told[row] = True
                stays += _way(row, changes, columns, int(kind[row]), more)
        self._more = {name: np.array(told, dtype=np.int64).reshape(-1, 2) for name, told in more.items()}
        self._stays = np.array(stays, dtype=np.int32)
        self._dated: dict[str, Dated] = {}

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
        if name == "gone":
            signed, close = self.signed[at], self.close[at]
            return np.where((signed != NO_DAY) & (close != NO_DAY), np.maximum(close, signed), NO_DAY)
        if name == "ended":
            ended = self._ended(at)
            return np.where(ended == _NEVER, NO_DAY, ended)
        held = {"came": self.start, "signed": self.signed, "off": self.off, "off_sale": self.off, "close": self.close}
        return np.asarray(held[name][at] if name in held else np.full_like(self.start[at], NO_DAY))

    def _ended(self, at: Any) -> Days:
        """The day on which a listing was no longer for sale by its dates; _NEVER where it still is or never was."""
        start = self.start[at]
        ended = np.full(len(start), _NEVER, dtype=np.int32)
        for days in (self._by_dates("contract", at), self.off[at], self.close[at]):
            ended = np.minimum(ended, np.where(days == NO_DAY, _NEVER, days))
        return np.where(start == NO_DAY, _NEVER, np.maximum(ended, start))

    def stay_ended(self, came: Entered) -> Days:
        """For each entry of "came": the day on which that stay for sale ended."""
        return came.laid(self._ended(came.known), self._stays[came.extra])

    def stay_first(self, came: Entered) -> Bools:
        """For each entry of "came": whether it was the listing's first stay for sale."""
        told = self._more["came"][:, 0]  # each listing's stays stand together, in order
        first = np.append(True, told[1:] != told[:-1])[: told.size]
        return came.laid(np.ones(came.known.size, dtype=np.bool_), first[came.extra])

    @cached_property
    def stays_ended(self) -> Days:
        return self.stay_ended(self.entries("came"))

    @cached_property
    def stays_first(self) -> Bools:
        return self.stay_first(self.entries("came"))

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


def _stand_in(rows: Ints, among: Ints) -> Bools:
    """Which of `rows` are among others, which are sorted."""
    if not among.size:
        return np.zeros(len(rows), dtype=np.bool_)
    return np.asarray(among[np.minimum(np.searchsorted(among, rows), among.size - 1)] == rows)


def _way(row: int, changes: list[tuple[int, int]], columns: Columns, kind: int, more: Entries) -> list[int]:
    """Enter one listing's way by its changes and dates; returns the end of each of its stays for sale."""
    ends: list[int] = []
    start = int(columns.on_market[row])
    state, since = FOR_SALE, changes[0][0] if start == NO_DAY else start
    more["came"].append((row, since))

    def leave(day: int) -> None:
        if state == FOR_SALE:
            more["ended"].append((row, day))
            ends.append(day)
        elif state == UNDER_CONTRACT:
            more["gone"].append((row, day))

    def turn(to: int, day: int) -> None:
        nonlocal state, since
        day = max(day, since)
        if to == state:
            return
        if to == UNDER_CONTRACT and state in (PAUSED, FAILED):
            turn(FOR_SALE, day)  # back for a moment
        leave(day)
        if to == FOR_SALE:
            more["came"].append((row, day))
            more["returned"].append((row, day))
        elif to == UNDER_CONTRACT:
            more["contract"].append((row, day))
            more["signed"].append((row, day))
        elif to == PAUSED:
            more["held"].append((row, day))
        elif to == FAILED:
            more["off"].append((row, day))
            if state in (FOR_SALE, UNDER_CONTRACT):
                more["off_sale" if state == FOR_SALE else "off_signed"].append((row, day))
        state, since = to, day

    last = max((i for i, (_, k) in enumerate(changes) if k in (FOR_SALE, PAUSED)), default=-1)
    for day, to in changes[: last + 1]:
        if to != SOLD and day >= since:
            turn(to, day)
    contract, close, off = (int(d[row]) for d in (columns.contract, columns.close, columns.off_market))
    if kind in (SOLD, UNDER_CONTRACT) and contract != NO_DAY and contract >= since:
        turn(UNDER_CONTRACT, contract)
    if kind == SOLD and close != NO_DAY:
        day = max(close, since)
        if state in (PAUSED, FAILED):
            turn(FOR_SALE, day)
        if state == FOR_SALE:
            more["contract"].append((row, day))
        leave(day)
        more["close"].append((row, close))
        return ends
    if kind == FAILED and off != NO_DAY:
        under = [(d, k) for d, k in changes[last + 1 :] if k == UNDER_CONTRACT and since <= d <= off]
        if under:
            turn(UNDER_CONTRACT, under[0][0])
        turn(FAILED, off)
        return ends
    if kind == PAUSED:
        turn(PAUSED, since)
    if state == FOR_SALE:
        ends.append(int(_NEVER))
    return ends


def back_on_market(home_id: Rows, start: Days, off: Days) -> tuple[Bools, Rows]:
    """Listings that began less than 90 days after the same home's last one failed: back, not new; and that last one.

    The second array holds the row of the listing before, −1 where there is none to follow.
    """
    back = np.zeros(len(start), dtype=np.bool_)
    before = np.full(len(start), -1, dtype=np.int32)
    order = np.lexsort((start, home_id))
    home, began, ended = home_id[order], start[order], off[order]
    same = (home[1:] == home[:-1]) & (ended[:-1] != NO_DAY) & (began[1:] != NO_DAY)
    gap = began[1:].astype(np.int64) - ended[:-1]
    follows = same & (gap >= 0) & (gap < RELIST_GAP_DAYS)
    back[order[1:]] = follows
    before[order[1:][follows]] = order[:-1][follows]
    return back, before
