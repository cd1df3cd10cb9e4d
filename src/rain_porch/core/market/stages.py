"""What a record is on a day: the one rule that searches, the market's books, the desk and the papers go by.

A listing passes through stages: for sale, under contract, ended (sold, failed) or on hold. The stage of a day is the last
one that has begun by then. Where its history of statuses tells more than its dates, that tells its way.

What the records cannot tell: a stage whose day is missing is taken to have begun on the newest day that is known of the
record (a home under contract whose contract date is unknown was so since it came on the market); where no day at all is
known, the record is on every day what its status says. A missing date never changes the kind on the newest day.
"""

from __future__ import annotations

from dataclasses import dataclass
from typing import Any, Protocol

import numpy as np
from numpy.typing import NDArray

from ..facts.dates import NO_DAY
from ..facts.words import RecordKind
from .status_history import FAILED, FOR_SALE, PAUSED, SOLD, UNDER_CONTRACT, StatusChanges

Bools = NDArray[np.bool_]
Ints = NDArray[np.int64]
Days = NDArray[np.int32]
Kinds = NDArray[np.int8]

DEED_SALE = list(RecordKind).index(RecordKind.DEED_SALE)
NOTHING = -1  # on that day the record was not there yet
EVER, NEVER = NO_DAY + 1, 2**31 - 1


class Records(Protocol):
    """What is read of records: their kind by today's status, their dates, (n,), and their changes of status."""

    @property
    def kinds_today(self) -> Kinds: ...
    @property
    def deed(self) -> Bools: ...
    @property
    def on_market(self) -> Days: ...
    @property
    def contract(self) -> Days: ...
    @property
    def close(self) -> Days: ...
    @property
    def off_market(self) -> Days: ...
    @property
    def statuses(self) -> StatusChanges: ...


@dataclass(frozen=True)
class Stages:
    """By the dates of records alone: the day from which each stage holds, (n,); EVER before all days, NEVER not at all.

    last: the kind that `ended` begins (SOLD, DEED_SALE, FAILED or PAUSED).
    """

    for_sale: Days
    under_contract: Days
    ended: Days
    last: Kinds

    def on(self, day: int) -> Kinds:
        """The kind of each record at the end of a day, (n,)."""
        kind = np.where(self.for_sale <= day, np.int8(FOR_SALE), np.int8(NOTHING))
        kind = np.where(self.under_contract <= day, np.int8(UNDER_CONTRACT), kind)
        return np.where(self.ended <= day, self.last, kind).astype(np.int8)

    def sale_ended(self) -> Days:
        """The day from which each is no longer for sale, (n,): never before it came; NEVER where it still is or never was."""
        over = np.minimum(self.under_contract, self.ended)
        return np.where(self.for_sale == NEVER, np.int32(NEVER), np.maximum(over, self.for_sale))

    def contract_ended(self) -> Days:
        """The day from which each is no longer under contract, (n,); NEVER where it still is or never was."""
        return np.where(self.under_contract == NEVER, np.int32(NEVER), np.maximum(self.ended, self.under_contract))


def stages_by_dates(columns: Records, at: Any = slice(None)) -> Stages:
    """The stages of all records, or of those at some rows."""
    deed = columns.deed[at]
    final = np.where(deed, np.int8(DEED_SALE), columns.kinds_today[at])
    start = np.where(deed, NO_DAY, columns.on_market[at])
    listed = np.where(final == PAUSED, NO_DAY, start)  # on hold today: whether it was for sale before, nothing tells
    signable = (final == SOLD) | (final == UNDER_CONTRACT)  # elsewhere a contract fell through
    contract = np.where(signable, columns.contract[at], NO_DAY)
    sold, failed = (final == SOLD) | deed, final == FAILED
    end = np.where(sold, columns.close[at], np.where(failed, columns.off_market[at], NO_DAY))
    newest = np.where(contract != NO_DAY, contract, start)
    stands_since = np.where(newest != NO_DAY, newest, EVER)

    def begun(days: NDArray[Any], otherwise: NDArray[Any] | int) -> Days:
        return np.where(days != NO_DAY, days, otherwise).astype(np.int32)

    over = sold | failed | (final == PAUSED)
    return Stages(
        for_sale=begun(listed, np.where(final == FOR_SALE, EVER, NEVER)),
        under_contract=begun(contract, np.where(final == UNDER_CONTRACT, stands_since, NEVER)),
        ended=np.where(over, begun(end, stands_since), NEVER).astype(np.int32),
        last=final,
    )


@dataclass(frozen=True)
class Stage:
    """One stage of a listing whose history tells its way: the kind, its first day, and whether that day is known."""

    day: int
    kind: int
    dated: bool = True


@dataclass(frozen=True)
class Dates:
    """One listing's kind by today's status and its dates, NO_DAY where unknown."""

    kind: int
    on_market: int
    contract: int
    close: int
    off_market: int


def way_by_history(listing: Dates, changes: list[tuple[int, int]]) -> list[Stage]:
    """A listing's stages in order: by its changes of status, (day, kind), up to the last return to the market, and by
    its dates from there, its changes where those are missing. It began for sale, and is today what its status says."""
    kind = listing.kind
    way = [Stage(changes[0][0] if listing.on_market == NO_DAY else listing.on_market, FOR_SALE)]

    def turn(to: int, day: int | None) -> None:
        since = way[-1].day
        if to == way[-1].kind:
            return
        dated = day is not None
        day = since if day is None else max(day, since)
        if to in (UNDER_CONTRACT, SOLD) and way[-1].kind in (PAUSED, FAILED):
            way.append(Stage(day, FOR_SALE, dated))  # back for a moment
        way.append(Stage(day, to, dated))

    last = max((i for i, (_, k) in enumerate(changes) if k in (FOR_SALE, PAUSED)), default=-1)
    for day, to in changes[: last + 1]:
        if to != SOLD and day >= way[-1].day:
            turn(to, day)
    rest = [(day, to) for day, to in changes[last + 1 :] if day >= way[-1].day]
    if kind in (SOLD, UNDER_CONTRACT) and listing.contract != NO_DAY and listing.contract >= way[-1].day:
        turn(UNDER_CONTRACT, listing.contract)
    elif kind == UNDER_CONTRACT:
        turn(UNDER_CONTRACT, next((day for day, to in rest if to == UNDER_CONTRACT), None))
    if kind == SOLD:
        turn(SOLD, None if listing.close == NO_DAY else listing.close)
    if kind == FAILED:
        end = next((day for day, to in reversed(rest) if to == FAILED), None)
        end = end if listing.off_market == NO_DAY else listing.off_market
        under = [day for day, to in rest if to == UNDER_CONTRACT and (end is None or day <= end)]
        if under:
            turn(UNDER_CONTRACT, under[0])
        turn(FAILED, end)
    if kind in (FOR_SALE, PAUSED):
        turn(kind, None)
    return way


@dataclass(frozen=True)
class Told:
    """The stages of all listings whose history tells their way, by row and in order."""

    rows: Ints
    days: Days
    kinds: Kinds
    dated: Bools

    def on(self, day: int) -> tuple[Ints, Kinds, Days]:
        """(rows, kind, day since when, NO_DAY where unknown) at the end of a day; NOTHING before the first stage."""
        every = self.rows[self.first]
        seen = np.flatnonzero(self.days <= day)
        last = np.append(np.diff(self.rows[seen]) != 0, True)[: seen.size]
        pick = seen[last]
        kinds = np.full(every.size, NOTHING, dtype=np.int8)
        since = np.full(every.size, NO_DAY, dtype=np.int32)
        at = np.searchsorted(every, self.rows[pick])
        kinds[at] = self.kinds[pick]
        since[at] = np.where(self.dated[pick], self.days[pick], NO_DAY)
        return every, kinds, since

    @property
    def first(self) -> Bools:
        """Which stages are their listing's first."""
        return np.append(True, np.diff(self.rows) != 0)[: self.rows.size]

    @property
    def ended(self) -> Days:
        """The day on which each stage ended; NEVER where it lasts."""
        following = np.append(self.days[1:], np.int32(NEVER))[: self.days.size]
        last = np.append(self.first[1:], True)[: self.days.size]
        return np.where(last, np.int32(NEVER), following)


def told_by_history(columns: Records) -> Told:
    """The ways of all listings whose changes of status tell more than their dates."""
    kinds = columns.kinds_today
    stages: list[tuple[int, int, int, bool]] = []
    for row, changes in columns.statuses:
        if columns.deed[row]:
            continue
        dates = (int(d[row]) for d in (columns.on_market, columns.contract, columns.close, columns.off_market))
        stages += [(row, s.day, s.kind, s.dated) for s in way_by_history(Dates(int(kinds[row]), *dates), changes)]
    table = np.array(stages, dtype=np.int64).reshape(-1, 4)
    return Told(table[:, 0], table[:, 1].astype(np.int32), table[:, 2].astype(np.int8), table[:, 3].astype(np.bool_))
