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
    def _off(self) -> dict[int, list[tuple[int, int]]]:
        """Spans of days, (first, first after), on which a listing was neither for sale nor under contract."""
        out: dict[int, list[tuple[int, int]]] = {}
        for row, changes in self:
            for (day, kind), following in zip(changes, [*changes[1:], (_NEVER, 0)], strict=True):
                if kind in OFF and following[0] > day:
                    out.setdefault(row, []).append((day, following[0]))
        return out

    def days_off(self, rows: Ints, end: NDArray[Any]) -> NDArray[np.float64]:
        """Days before `end` (n,) on which each of `rows` was withdrawn or on hold, (n,)."""
        out = np.zeros(len(rows))
        if self._off:
            for i in np.flatnonzero(np.isin(rows, np.fromiter(self._off, dtype=np.int64, count=len(self._off)))):
                out[i] = sum(max(0, min(b, int(end[i])) - a) for a, b in self._off[int(rows[i])] if a < end[i])
        return out


NO_STATUSES = StatusChanges(np.zeros(0, np.int64), np.zeros(0, np.int32), np.zeros(0, np.int8))


def tells_more(kinds: Sequence[int]) -> bool:
    """Whether a listing's changes tell more than its dates do: back, on hold, failed and on again, or under contract first."""
    back = any(k in (FOR_SALE, PAUSED) for k in kinds) or FAILED in kinds[:-1]
    return back or (FAILED in kinds and UNDER_CONTRACT in kinds)
