"""What a home is worth, and by what, as documents."""

from __future__ import annotations

import datetime as dt

from .base import Doc, Worded
from .search import SearchDoc
from .subject import SubjectDoc


class AdjustmentDoc(Doc):
    field: str
    amount: float


class CompDoc(Doc):
    listing_id: str
    address: str = ""
    close_price: float
    close_date: dt.date
    distance_miles: float | None  # null where it is not known where one of the two stands
    adjustments: list[AdjustmentDoc]
    adjusted_price: float
    net_pct: float
    gross_pct: float
    weight: float
    likeness: float
    flags: list[Worded]


class RangeDoc(Doc):
    low: float
    high: float
    coverage: float
    measured: bool


class MethodDoc(Doc):
    name: str
    label: str
    value: float
    shown: float
    formula: Worded


class RateDoc(Doc):
    field: str
    dollars: float
    standard_error: float
    sales: int
    source: str
    weak: bool
    says: Worded


class MarketChangeDoc(Doc):
    pct_per_month: float
    low: float
    high: float
    sales: int
    window_days: int


class ApartDoc(Doc):
    """A line that is equal for all comps: added once to the mean of their adjusted prices."""

    field: str
    label: str
    amount: float
    formula: Worded


class VoiceDoc(Doc):
    """The model beside the comps: its value, and its weight, which with the comps' adds up to 1."""

    value: float
    weight: float


class CauseDoc(Doc):
    """What makes the range wider than usual here. factor: by how many times; do: what would narrow it."""

    name: str
    factor: float
    says: Worded
    do: Worded


class PriceDoc(Doc):
    effective_date: dt.date
    subject: SubjectDoc
    sentence: Worded
    search: SearchDoc
    comps: list[CompDoc]
    rates: list[RateDoc]
    market_change: MarketChangeDoc
    apart: list[ApartDoc] = []
    model: VoiceDoc | None = None
    indicated_value: float | None
    range: RangeDoc | None
    range_causes: list[CauseDoc] = []
    methods: list[MethodDoc]
    loosened: list[Worded]
    warnings: list[Worded]
    workup_id: int | None = None
