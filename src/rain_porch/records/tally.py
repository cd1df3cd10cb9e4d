"""What an import would do, counted; and what rows say against those that stand there."""

from __future__ import annotations

import json
from collections import Counter
from collections.abc import Iterator, Sequence
from dataclasses import dataclass, field
from typing import Any

from ..core.facts.places import addresses
from ..core.facts.words import Status
from ..core.intake.status_words import FAILED


@dataclass
class Tally:
    """What the rows so far would do; reasons and changes count faults and changed fields."""

    rows: int = 0
    new: int = 0
    changed: int = 0
    same: int = 0
    suspect: int = 0
    rejected: int = 0
    reasons: Counter[str] = field(default_factory=Counter)
    changes: Counter[str] = field(default_factory=Counter)


def other_home(new: tuple[Any, ...], old: tuple[Any, ...]) -> bool:
    """Whether two rows (parcel, address, unit, on-market day) of one listing number are of two homes."""
    if new[0] and old[0]:
        return bool(new[0] != old[0])
    if new[-1] and new[-1] == old[-1]:  # on the market since the same day
        return False
    a, b = addresses.key(new[1], new[2], None, None), addresses.key(old[1], old[2], None, None)
    return a is not None and b is not None and a != b


def without_their_date(held: dict[str, Sequence[object]]) -> Iterator[tuple[int, str]]:
    """Rows whose status goes with a day that is not known: (position, what is said of it). They are kept."""
    days = zip(held["standard_status"], held["close_date"], held["off_market_date"], strict=True)
    for n, (status, closed, off) in enumerate(days):
        if status == Status.CLOSED and closed is None:
            yield n, "Closed without CloseDate: kept, in no window of time"
        elif off is None and status in FAILED:
            yield n, f"{status} without OffMarketDate: kept, in no window of time"


def own_changes(before: Any, after: Any) -> Iterator[str]:
    """Names of the columns of the office's own that differ between two documents of them."""
    was, now = json.loads(before or "{}"), json.loads(after or "{}")
    yield from (name for name in {**was, **now} if was.get(name) != now.get(name))
