"""Places of homes that have no coordinates of their own: from the same address, from between house numbers along their street,
from the middle of their subdivision; each marked with how."""

from __future__ import annotations

import re
from bisect import bisect_left
from collections.abc import Iterable, Mapping
from dataclasses import dataclass
from statistics import fmean, median

from . import addresses

PARCEL, LISTING, ADDRESS, STREET, SUBDIVISION = "parcel", "listing", "address", "street", "subdivision"
SAID: Mapping[str, str] = {
    PARCEL: "the place of its parcel", LISTING: "the place that a listing of it tells", ADDRESS: "the place of another record of this address",
    STREET: "between house numbers on its street", SUBDIVISION: "the middle of its subdivision",
}  # fmt: skip
MOST_BETWEEN = 600  # house numbers between two homes that a third may be placed between
MOST_BESIDE = 40  # house numbers by which one may lie beyond the last known home of its street
MOST_DEGREES = 0.03  # some two miles: farther apart, two homes of one street's name are on two streets
MOST_SPREAD = 0.05  # degrees: the homes of one subdivision lie within it
FEWEST = 3  # homes that tell where a subdivision is

Place = tuple[float, float]
Street = tuple[str, str]
_NUMBER = re.compile(r"^\d+")


@dataclass(frozen=True)
class Located:
    """A record's address, its subdivision, and its place where it has one."""

    row: int
    address: str | None
    city: str | None
    postal_code: str | None
    subdivision: str | None
    place: Place | None = None


@dataclass(frozen=True)
class FoundPlace:
    row: int
    place: Place
    how: str


def _street(record: Located) -> tuple[int, list[Street]] | None:
    """(house number, the street in its postal code and in its city); None without a number."""
    parts = [w for w in addresses.words(record.address or "") if not w.startswith("unit")]
    if len(parts) < 2 or not (number := _NUMBER.match(parts[0])):
        return None
    street = " ".join(parts[1:])
    where = [w for w in ((record.postal_code or "").strip()[:5], (record.city or "").strip().lower()) if w]
    return int(number[0]), [(street, w) for w in where] or [(street, "")]


def _subdivision(record: Located) -> tuple[str, str] | None:
    name = (record.subdivision or "").strip().lower()
    return (name, (record.city or record.postal_code or "").strip().lower()) if name else None


class Neighbourhood:
    """What is known of places: by street and house number, and by subdivision."""

    def __init__(self, known: Iterable[Located]) -> None:
        self._streets: dict[Street, dict[int, Place]] = {}
        self._middles: dict[tuple[str, str], list[Place]] = {}
        for record in known:
            if record.place is None:
                continue
            if told := _street(record):
                number, streets = told
                for street in streets:
                    self._streets.setdefault(street, {})[number] = record.place
            if name := _subdivision(record):
                self._middles.setdefault(name, []).append(record.place)
        self._numbers = {street: sorted(homes) for street, homes in self._streets.items()}

    def find(self, record: Located) -> FoundPlace | None:
        """The best place that can be told for a record, None where nothing tells."""
        if told := _street(record):
            number, streets = told
            for street in streets:
                homes = self._streets.get(street)
                if homes and number in homes:
                    return FoundPlace(record.row, homes[number], ADDRESS)
                if homes and (place := self._along(homes, self._numbers[street], number)):
                    return FoundPlace(record.row, place, STREET)
        if (name := _subdivision(record)) and (place := self._middle(self._middles.get(name, []))):
            return FoundPlace(record.row, place, SUBDIVISION)
        return None

    def _along(self, homes: Mapping[int, Place], numbers: list[int], number: int) -> Place | None:
        """Between the next lower and the next higher house number of the same side where there are such, else of either."""
        for side in ([n for n in numbers if n % 2 == number % 2], numbers):
            at = bisect_left(side, number)
            below, above = (side[at - 1] if at else None), (side[at] if at < len(side) else None)
            if below is not None and above is not None and above - below <= MOST_BETWEEN:
                a, b = homes[below], homes[above]
                if max(abs(a[0] - b[0]), abs(a[1] - b[1])) <= MOST_DEGREES:
                    share = (number - below) / (above - below)
                    return a[0] + share * (b[0] - a[0]), a[1] + share * (b[1] - a[1])
        near = min(numbers, key=lambda n: abs(n - number))
        return homes[near] if abs(near - number) <= MOST_BESIDE else None

    def _middle(self, places: list[Place]) -> Place | None:
        if len(places) < FEWEST:
            return None
        lat, lon = median(p[0] for p in places), median(p[1] for p in places)
        near = [p for p in places if abs(p[0] - lat) <= MOST_SPREAD and abs(p[1] - lon) <= MOST_SPREAD]
        return (fmean(p[0] for p in near), fmean(p[1] for p in near)) if len(near) >= len(places) / 2 else None
