"""A home that a search finds, and all that it finds, as documents."""

from __future__ import annotations

import datetime as dt

from .base import Doc, Value, Worded
from .search import SearchDoc


class CandidateDoc(Doc):
    listing_id: str
    kind: str
    distance_miles: float | None  # null where it is not known where one of the two stands
    date: dt.date | None
    price: float | None
    list_price: float | None
    price_per_sqft: float | None
    days_on_market: int | None
    likeness: float
    known_share: float
    address: str = ""
    latitude: float | None = None
    longitude: float | None = None
    status: str = ""
    prices: dict[
        str, float
    ] = {}  # of the listing: see core/market/listing_facts.py, prices_of; paid_before: of its home
    paid_before_on: dt.date | None = None
    facts: dict[str, Value]
    differences: list[Worded]
    flags: list[Worded]


class FindDoc(Doc):
    effective_date: dt.date
    sentence: str
    counts: dict[str, int]
    unknown: dict[str, int]
    loosened: list[str]
    search: SearchDoc
    candidates: list[CandidateDoc]
