"""What became of listings that did not go straight from the market to a closing: back from a contract, on hold, withdrawn."""

from __future__ import annotations

from collections.abc import Iterator, Sequence
from dataclasses import dataclass
from functools import cached_property
from typing import Any

import numpy as np
from numpy.typing import NDArray

from ..facts.words import RecordKind

Ints = NDArray[np.int64]
Days = NDArray[np.int32]

_NEVER = 2**31 - 1
_KINDS = list(RecordKind)
SOLD = _KINDS.index(RecordKind.SOLD)
UNDER_CONTRACT, FOR_SALE = _KINDS.index(RecordKind.UNDER_CONTRACT), _KINDS.index(RecordKind.FOR_SALE)
FAILED, PAUSED = _KINDS.index(RecordKind.FAILED), _KINDS.index(RecordKind.PAUSED)
OFF = (FAILED, PAUSED)
_IS_OFF = np.array([kind in OFF for kind in range(len(_KINDS))])


@dataclass(frozen=True)
class StatusChanges:
    """Changes of status of the listings that came back to the market or paused, sorted by row and day.

    kinds: the kind of record that each change made it. A listing whose dates alone tell its way has none here.
    """

    rows: Ints
    days: Days
    kinds: NDArray[np.int8]

    def __iter__(self) -> Iterator[tuple[int, list[tuple[int, int]]]]:
        """Each listing with its changes, (day, kind), in order."""
        cuts = (np.flatnonzero(np.diff(self.rows)) + 1).tolist()
        for a, b in zip([0, *cuts], [*cuts, self.rows.size], strict=True) if self.rows.size else ():
            yield int(self.rows[a]), list(zip(self.days[a:b].tolist(), self.kinds[a:b].tolist(), strict=True))

    def at(self, day: int) -> tuple[Ints, NDArray[np.int8], Days]:
        """(rows, kind, day since when) by each listing's last change up to the end of `day`; without those that had none yet."""
        seen = np.flatnonzero(self.days <= day)
        if not seen.size:
            return self.rows[:0], self.kinds[:0], self.days[:0]
        last = np.append(np.flatnonzero(np.diff(self.rows[seen])), seen.size - 1)
        pick = seen[last]
        return self.rows[pick], self.kinds[pick], self.days[pick]

    @cached_property
    def _off(self) -> tuple[Ints, Days, Ints]:
        """Spans of days on which a listing was neither for sale nor under contract: (its row, first, first after), by rows."""
        following = np.full(self.days.shape, _NEVER)
        same = self.rows[1:] == self.rows[:-1]
        following[:-1][same] = self.days[1:][same]
        spans = np.flatnonzero(_IS_OFF[self.kinds] & (following > self.days))
        return self.rows[spans], self.days[spans], following[spans]

    def days_off(self, rows: Ints, end: NDArray[Any]) -> NDArray[np.float64]:
        """Days before `end` (n,) on which each of `rows` was withdrawn or on hold, (n,)."""
        out = np.zeros(len(rows))
        of, first, after = self._off
        if not of.size or not len(rows):
            return out
        known = np.zeros(max(int(of[-1]), int(rows.max())) + 1, dtype=np.bool_)
        known[of] = True
        some = np.flatnonzero(known[rows])
        spans = zip(np.searchsorted(of, rows[some]), np.searchsorted(of, rows[some], "right"), strict=True)
        for i, (a, b) in zip(some, spans, strict=True):
            out[i] = np.maximum(0, np.minimum(after[a:b], int(end[i])) - first[a:b]).sum()
        return out


NO_STATUSES = StatusChanges(np.zeros(0, np.int64), np.zeros(0, np.int32), np.zeros(0, np.int8))


def tells_more(kinds: Sequence[int]) -> bool:
    """Whether a listing's changes tell more than its dates do: back, on hold, failed and on again, or under contract first."""
    back = any(k in (FOR_SALE, PAUSED) for k in kinds) or FAILED in kinds[:-1]
    return back or (FAILED in kinds and UNDER_CONTRACT in kinds)
