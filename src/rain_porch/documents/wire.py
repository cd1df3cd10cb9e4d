"""The JSON documents of the command line and the interface, as Pydantic models."""

from __future__ import annotations

import datetime as dt
from typing import Literal

from .base import Doc, Value, Worded
from .search import SearchDoc


class SampleReadDoc(Doc):
    text: str
    value: str


class FormReadDoc(Doc):
    """How a column's numbers or dates were read: in which form, why, and some cells with what became of them. form ""
    where it can be read both ways and is still to be said."""

    field: str
    label: str
    columns: list[str]
    form: str
    words: str
    why: str
    samples: list[SampleReadDoc]
    choices: list[str]


class ColumnTakenDoc(Doc):
    """sure: from 0 to 1; why in a few words."""

    field: str
    label: str
    columns: list[str]
    sure: float
    why: str
    samples: list[str]


class ColumnLeftDoc(Doc):
    """perhaps: the field that it may be; say so in a mapping to have it taken. why: where it may never be kept."""

    column: str
    samples: list[str]
    perhaps: str | None
    sure: float
    why: str = ""


class WordReadDoc(Doc):
    """means: the standard's word; None where nobody can tell what the source means."""

    field: str
    word: str
    rows: int
    means: str | None


class ImportDoc(Doc):
    import_id: int | None
    kind: str
    rows: int
    new: int
    changed: int
    same: int
    suspect: int
    rejected: int
    reasons: dict[str, int]
    changes: dict[str, int]
    seconds: float
    forms: list[FormReadDoc] = []
    columns: list[ColumnTakenDoc] = []  # what was taken for what, the least sure first
    left_out: list[ColumnLeftDoc] = []
    words: list[WordReadDoc] = []  # of statuses and kinds of home, those that nobody can tell first
    notes: list[Worded] = []  # what else came of it: pictures of a feed, what is no longer at the source
    swapped: int = 0  # rows whose latitude and longitude look swapped: --places swap puts them right
    far: int = 0  # rows far from everything held: --places new believes them


class AccountDoc(Doc):
    """may_import: may bring records in, take imports back, say what is wrong with a record. signs_in: has a password."""

    account_id: int
    name: str
    role: Literal["agent", "manager"]
    may_import: bool
    disabled: bool
    signs_in: bool


class KeptDoc(Doc):
    key: str
    changed_by: int


class UndoneDoc(Doc):
    """kept: records that a later import changed too; they stay as they are until that one is undone."""

    import_id: int
    removed: int
    restored: int
    kept: list[KeptDoc]


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


class SubjectDoc(Doc):
    address: str
    parcel_number: str | None
    home_kind: str
    latitude: float
    longitude: float
    facts: dict[str, Value]
    assessed_year: int | None = None
    placed: bool = True  # false: it is not known where the home stands; its place is the middle of its neighbourhood


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


class ValueDoc(Doc):
    value: float | None
    n: int


class PeriodDoc(Doc):
    period: str
    start: dt.date
    end: dt.date
    finished: bool
    values: dict[str, ValueDoc]


class MarketDoc(Doc):
    measures: list[str]
    periods: list[PeriodDoc]


# --- the stored workup


class ScoreDoc(Doc):
    """mdape, pe10, pe20, bias are fractions; n: the cases that the method had a value for."""

    n: int
    mdape: float
    pe10: float
    pe20: float
    bias: float


class FifthDoc(Doc):
    """low, high: predicted values of this fifth of the cases."""

    low: float
    high: float
    n: int
    hits: float
    median_width: float


class RangeReportDoc(Doc):
    nominal: float
    hits: float | None
    median_width: float | None
    by_fifth: list[FifthDoc]


class KindScoreDoc(Doc):
    """How close adjusted comps came for one kind of home; hits and median_width: of its own range, none where there are too few."""

    kind: str
    n: int
    mdape: float
    pe10: float
    bias: float
    hits: float | None
    median_width: float | None
    few: bool


class BacktestDoc(Doc):
    start: dt.date
    end: dt.date
    subjects: int
    skipped: dict[str, int]
    methods: dict[str, ScoreDoc]
    range: RangeReportDoc
    kinds: list[KindScoreDoc] = []
    seconds: float
