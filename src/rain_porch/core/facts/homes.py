"""The home that is priced, and one record read out of the columns."""

from __future__ import annotations

import datetime as dt
from collections.abc import Mapping
from dataclasses import dataclass, field, replace

from .condition import grade_of
from .fields import RANK
from .words import HomeKind

Value = float | str


@dataclass(frozen=True)
class Subject:
    """The subject home. `facts` holds catalogue names → numbers or words; what is unknown is absent.

    home_id      the records that are this same home (None when it stands in no record)
    own_listing  the listing by which the home was named, if it was
    from_lease   facts that are known from a listing for lease alone
    assessed_year  the tax year of its assessed value, where an assessment tells it
    ranks        where its words stand in the order of their fields, by field
    placed       whether it is known where it stands; if not, its place is the middle of its neighbourhood, for a map
    """

    facts: Mapping[str, Value]
    latitude: float
    longitude: float
    home_kind: HomeKind = HomeKind.UNKNOWN
    address: str = ""
    parcel_number: str | None = None
    home_id: int | None = None
    own_listing: str | None = None
    originals: Mapping[str, Value | None] = field(default_factory=dict)
    from_lease: frozenset[str] = frozenset()
    assessed_year: int | None = None
    placed: bool = True
    ranks: Mapping[str, float] = field(default_factory=dict)

    def number(self, name: str) -> float | None:
        """A fact as a number, condition as its grade and all baths as full and half; None where unknown or a word."""
        value = self.facts.get(name)
        if value is None and name == "condition_grade":
            return grade_of(self.word("property_condition"))
        if value is None and name.startswith(RANK):
            return self.ranks.get(name.removeprefix(RANK))
        if value is None and name == "bathrooms_total":
            full = self.number("bathrooms_full")
            return None if full is None else full + (self.number("bathrooms_half") or 0)
        return float(value) if isinstance(value, (int, float)) else None

    def word(self, name: str) -> str | None:
        """A fact as a word; None where unknown or a number."""
        value = self.facts.get(name)
        return value if isinstance(value, str) else None

    def corrected(self, corrections: Mapping[str, Value | None]) -> Subject:
        """The subject with the agent's word in place; what it replaced is kept in `originals`."""
        facts = dict(self.facts)
        originals = dict(self.originals)
        for name, value in corrections.items():
            originals[name] = self.facts.get(name)
            if value is None:
                facts.pop(name, None)
            else:
                facts[name] = value
        year = None if "tax_assessed_value" in corrections else self.assessed_year
        left = self.from_lease - corrections.keys()
        return replace(self, facts=facts, originals=originals, from_lease=left, assessed_year=year)


@dataclass(frozen=True)
class Candidate:
    """One record that a search found, with its facts of listing_facts and its likeness."""

    row: int
    listing_id: str
    kind: str
    distance_miles: float | None
    date: dt.date | None
    price: float | None
    list_price: float | None
    price_per_sqft: float | None
    days_on_market: int | None
    likeness: float
    known_share: float
    facts: Mapping[str, Value]
    differences: tuple[str, ...]
    flags: tuple[str, ...]
    status: str = ""
    prices: Mapping[str, float] = field(default_factory=dict)
    paid_before_on: dt.date | None = None  # the day of prices["paid_before"]
