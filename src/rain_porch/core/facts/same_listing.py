"""Listings of two sources that tell of the same one: the same home, and a closing or a start on the market that agree.

Each source has its own numbers, so the number tells nothing. Candidates agree in house number, price (to the hundred) and day
(within ten); whether it is the same home is then judged by parcel number or address.
"""

from __future__ import annotations

from collections.abc import Sequence
from dataclasses import dataclass

import numpy as np
from numpy.typing import NDArray

from .places import addresses

DAYS = 10
Ints = NDArray[np.int64]
UNKNOWN = np.iinfo(np.int64).min
_ORDER = {"Closed": 5, "Pending": 4, "Active Under Contract": 4, "Expired": 3, "Withdrawn": 3, "Canceled": 3, "Hold": 2, "Active": 1, "Coming Soon": 0}  # fmt: skip


@dataclass(frozen=True)
class Told:
    """What a source tells of a listing, as far as it names the home."""

    row: int
    key: str
    source: int
    status: str
    parcel: str | None
    address: str | None
    unit: str | None
    city: str | None
    postal_code: str | None
    known: int = 0  # how many facts it tells

    @property
    def place(self) -> str | None:
        return addresses.key(self.address, self.unit, None, None)


def pairs(sources: Ints, days: Ints, prices: Ints, numbers: Ints) -> list[tuple[int, int]]:
    """Positions of rows of different sources that agree in price, house number and, within ten days, in day. Prices in
    hundreds; UNKNOWN where a day or price is not known."""
    known = np.flatnonzero((days != UNKNOWN) & (prices != UNKNOWN) & (prices > 0))
    order = known[np.lexsort((days[known], numbers[known], prices[known]))]
    out: list[tuple[int, int]] = []
    for step in range(1, min(9, len(order))):
        a, b = order[:-step], order[step:]
        close = (prices[a] == prices[b]) & (numbers[a] == numbers[b]) & (days[b] - days[a] <= DAYS)
        if not close.any():
            break
        found = close & (sources[a] != sources[b])
        out += zip(a[found].tolist(), b[found].tolist(), strict=True)
    return out


def same_home(a: Told, b: Told) -> bool:
    """Whether two records name one home: by parcel number where both do, else by address within a city or postal code."""
    if a.parcel and b.parcel:
        return addresses_free(a.parcel) == addresses_free(b.parcel)
    if a.place is None or a.place != b.place:
        return False
    if a.postal_code and b.postal_code:
        return a.postal_code[:5] == b.postal_code[:5]
    return not (a.city and b.city) or a.city.strip().lower() == b.city.strip().lower()


def addresses_free(number: str) -> str:
    """A parcel number without its signs."""
    return "".join(c for c in number.lower() if c.isalnum())


def standing(group: Sequence[Told]) -> Told:
    """Which of them stands for all: the one furthest along, with a parcel number, with most facts, the first that came."""
    return min(group, key=lambda t: (-_ORDER.get(t.status, 0), t.parcel is None, -t.known, t.row))
