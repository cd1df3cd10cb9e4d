"""The book of a market: the day of everything that happened to every listing, sorted once for a version of the records.

A listing's way is told by its dates; where its history of statuses tells more (back from a contract, on hold, withdrawn
and back), by that history up to the last return, and by its dates from there.
"""

from __future__ import annotations

from functools import cached_property

import numpy as np

from .columns import FAILED, FOR_SALE, KIND_CODE, PAUSED, SOLD, UNDER_CONTRACT, Bools, Columns, Days, Floats, Ints
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


class Book:
    """sorted: name → (rows, days) by day. A listing stands in a list as often as it happened to it.

    came        on the market: first (stay_first), or back
    ended       no longer for sale          returned  back from a contract, a pause or a withdrawal
    held        put on hold                 contract  went under contract; a closing without one, on its close date
    signed      contracts whose day is known           gone    the end of those: closed, failed or back
    off         failed                      off_sale, off_signed  of these, while for sale, while under contract
    close       closed
    stay_end, stay_first, aligned with "came": the day on which that stay for sale ended; whether it was the listing's first.
    """

    def __init__(self, columns: Columns) -> None:
        kind = np.where(columns.deed, SOLD, KIND_CODE[columns.status])
        listed = ~columns.deed
        counted = np.isin(kind, (SOLD, UNDER_CONTRACT, FOR_SALE, FAILED))
        self.start = np.where(listed & counted, columns.on_market, NO_DAY)
        self.close = np.where(kind == SOLD, columns.close, NO_DAY)
        self.off = np.where(kind == FAILED, columns.off_market, NO_DAY)
        self.signed = np.where(listed & np.isin(kind, (SOLD, UNDER_CONTRACT)), columns.contract, NO_DAY)
        contract = np.where((self.signed == NO_DAY) & (self.close != NO_DAY) & listed, self.close, self.signed)
        ended = np.full(len(columns), _NEVER, dtype=np.int32)
        for days in (contract, self.off, self.close):
            ended = np.minimum(ended, np.where(days == NO_DAY, _NEVER, days))
        ended = np.where(self.start == NO_DAY, _NEVER, np.maximum(ended, self.start))
        gone = np.where((self.signed != NO_DAY) & (self.close != NO_DAY), np.maximum(self.close, self.signed), NO_DAY)
        self.back, self.before = back_on_market(columns.home_id, self.start, self.off)
        dated = {
            "came": self.start, "ended": np.where(ended == _NEVER, NO_DAY, ended),
            "contract": contract, "signed": self.signed, "gone": gone, "off": self.off, "off_sale": self.off,
            "close": self.close,
        }  # fmt: skip
        more: Entries = {name: [] for name in _NAMES}
        stays: list[int] = []
        told = np.zeros(len(columns), dtype=np.bool_)
        for row, changes in columns.statuses:
            if listed[row] and (kind[row] in (SOLD, UNDER_CONTRACT, FOR_SALE, FAILED) or kind[row] == PAUSED):
                told[row] = True
                stays += _way(row, changes, columns, int(kind[row]), more)
        nothing = np.full(len(columns), NO_DAY, dtype=np.int32)
        self.sorted: dict[str, tuple[Ints, Days]] = {}
        for name in _NAMES:
            plain = dated.get(name, nothing)
            known = np.flatnonzero((plain != NO_DAY) & ~told)
            extra = np.array(more[name], dtype=np.int64).reshape(-1, 2)
            rows = np.concatenate([known, extra[:, 0]])
            days = np.concatenate([plain[known].astype(np.int32), extra[:, 1].astype(np.int32)])
            order = np.argsort(days, kind="stable")
            self.sorted[name] = (rows[order], days[order])
            if name == "came":
                self.stay_end = np.concatenate([ended[known], np.array(stays, dtype=np.int32)])[order]
                came = [row for row, _ in more["came"]]  # each listing's stays stand together, in order
                first = np.array([i == 0 or came[i - 1] != row for i, row in enumerate(came)], dtype=np.bool_)
                self.stay_first = np.concatenate([np.ones(known.size, dtype=np.bool_), first])[order]

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


def back_on_market(home_id: Ints, start: Days, off: Days) -> tuple[Bools, Ints]:
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
