"""The JSON documents of the command line and the interface, as Pydantic models."""

from __future__ import annotations

import datetime as dt
import unicodedata
from typing import Annotated, Any, ClassVar

from pydantic import AfterValidator, BaseModel, ConfigDict, Field, PrivateAttr

from ..core.errors import BadInput
from ..core.facts import parcels as parcel_spans
from ..core.facts.dates import date_of, day_of
from ..core.facts.fields import BY_NAME, Kind
from ..core.search import search as sr
from ..core.search.shapes import Fence, Point, Shape

Value = float | str


def _line(text: str) -> str:
    if any(unicodedata.category(c) in ("Cc", "Cs") for c in text):
        raise ValueError("has signs that no key writes: type it anew")
    return text


Line = Annotated[str, AfterValidator(_line)]
"""One line of text that is sent, such as a name: without control characters. In a document that is kept it stands as text, so
that one of earlier days is read: there `check_line` is asked before it is kept."""
FiniteNumber = Annotated[float, Field(allow_inf_nan=False)]


def check_line(field: str, text: str) -> None:
    """Raises BadInput for a text that is no one line."""
    try:
        _line(text)
    except ValueError as error:
        raise BadInput(field, f"{field}: {error}.") from None


class Doc(BaseModel):
    model_config = ConfigDict(extra="forbid")


class StoredDoc(Doc):
    """A document that is kept in porch.db: see versions.py. form: what it is called where it cannot be read."""

    form: ClassVar[str]
    _carried: list[tuple[tuple[str, ...], Any]] = PrivateAttr(default_factory=list)


class CriterionDoc(Doc):
    """One field's limits. The ends are numbers; of a field of dates they are dates."""

    field: str
    low: FiniteNumber | dt.date | None = None
    high: FiniteNumber | dt.date | None = None
    words: list[str] = []
    must_be_known: bool = False

    @classmethod
    def of(cls, c: sr.Criterion) -> CriterionDoc:
        low, high = ((date_of(int(x)) if _dated(c.field) and x is not None else x) for x in (c.low, c.high))
        return cls(field=c.field, low=low, high=high, words=list(c.words), must_be_known=c.must_be_known)

    def criterion(self) -> sr.Criterion:
        """The criterion as the core has it. Raises BadInput where a date stands for a number, or the other way round."""
        low, high = (self._end(x) for x in (self.low, self.high))
        return sr.Criterion(self.field, low, high, tuple(self.words), self.must_be_known)

    def _end(self, value: float | dt.date | None) -> float | None:
        if value is not None and isinstance(value, dt.date) != _dated(self.field):
            wanted = "a date, such as 2026-03-31" if _dated(self.field) else "a number"
            raise BadInput(f"criteria.{self.field}", f"“{value}” is no end of this field: give {wanted}.")
        return float(day_of(value)) if isinstance(value, dt.date) else value


def _dated(field: str) -> bool:
    return field in BY_NAME and BY_NAME[field].kind == Kind.DATE


class WindowDoc(Doc):
    """days back from the effective date, or dates (both included). only: standard statuses, where not the whole kind."""

    on: bool = True
    days: int | None = None
    since: dt.date | None = None
    until: dt.date | None = None
    only: Annotated[list[str], Field(max_length=9)] = []

    @classmethod
    def of(cls, w: sr.Window) -> WindowDoc:
        since, until = (None if day is None else date_of(day) for day in (w.since, w.until))
        return cls(on=w.on, days=w.days, since=since, until=until, only=list(w.only))

    def window(self) -> sr.Window:
        since, until = (None if day is None else day_of(day) for day in (self.since, self.until))
        return sr.Window(self.on, self.days, since, until, tuple(self.only))


Place = Annotated[list[FiniteNumber], Field(min_length=2, max_length=2)]


class ShapeDoc(Doc):
    """A drawn polygon, or with radius_miles a circle round its one point; points are [longitude, latitude].

    inside: look within it; else leave out what lies within it.
    """

    points: list[Place] = Field(min_length=1, max_length=5000)
    radius_miles: FiniteNumber | None = None
    inside: bool = True
    name: str = Field("", max_length=100)

    def shape(self) -> Shape:
        return Shape(_points(self.points), self.radius_miles, self.inside, self.name)


class FenceDoc(Doc):
    """Lines of [longitude, latitude] that the straight way from the home to a comp must not touch."""

    lines: list[list[Place]] = Field(min_length=1, max_length=500)
    name: str = Field("", max_length=100)


def _points(places: list[Place]) -> tuple[Point, ...]:
    return tuple((lon, lat) for lon, lat in places)


class SearchDoc(Doc):
    """A search; `find --json` gives it back under `search`, and `--search FILE` takes it."""

    home_kinds: list[str] = []
    radius_miles: FiniteNumber | None = 1.0
    areas: list[str] = []
    not_areas: list[str] = []
    shapes: list[ShapeDoc] = []
    fences: list[FenceDoc] = []
    parcels: Annotated[list[str], Field(min_length=2, max_length=2)] | None = None  # first and last
    parcel_numbers: str = Field(default="", max_length=4000)  # numbers, blocks and ranges as people type them
    windows: dict[str, WindowDoc] = {k.value: WindowDoc(on=w.on, days=w.days) for k, w in sr.DEFAULT_WINDOWS.items()}  # type: ignore[attr-defined]
    criteria: list[CriterionDoc] = []
    leave_out_new_construction: bool = True
    arms_length_only: bool = True
    leave_out_distressed: bool = False

    @classmethod
    def of(cls, search: sr.Search) -> SearchDoc:
        return cls(
            home_kinds=list(search.home_kinds),
            radius_miles=search.radius_miles,
            areas=list(search.areas),
            not_areas=list(search.not_areas),
            shapes=[
                ShapeDoc(points=[list(p) for p in s.points], radius_miles=s.radius_miles, inside=s.inside, name=s.name)
                for s in search.shapes
            ],
            fences=[FenceDoc(lines=[[list(p) for p in line] for line in f.lines], name=f.name) for f in search.fences],
            parcels=list(search.parcels[0]) if len(search.parcels) == 1 else None,
            parcel_numbers=parcel_spans.words(search.parcels) if len(search.parcels) > 1 else "",
            windows={str(k): WindowDoc.of(w) for k, w in search.windows.items()},
            criteria=[CriterionDoc.of(c) for c in search.criteria],
            leave_out_new_construction=search.leave_out_new_construction,
            arms_length_only=search.arms_length_only,
            leave_out_distressed=search.leave_out_distressed,
        )

    def search(self) -> sr.Search:
        """The search as the core has it. Raises BadInput for limits that make no sense."""
        out = sr.Search(
            home_kinds=tuple(self.home_kinds),
            radius_miles=self.radius_miles,
            areas=tuple(self.areas),
            not_areas=tuple(self.not_areas),
            shapes=tuple(s.shape() for s in self.shapes),
            fences=tuple(Fence(tuple(_points(line) for line in f.lines), f.name) for f in self.fences),
            parcels=(
                *([(self.parcels[0], self.parcels[1])] if self.parcels else []),
                *parcel_spans.read_spans(self.parcel_numbers),
            ),
            windows={k: w.window() for k, w in self.windows.items()},
            criteria=tuple(c.criterion() for c in self.criteria),
            leave_out_new_construction=self.leave_out_new_construction,
            arms_length_only=self.arms_length_only,
            leave_out_distressed=self.leave_out_distressed,
        )
        sr.check(out)
        return out


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
    swapped: int = 0  # rows whose latitude and longitude look swapped: --places swap puts them right
    far: int = 0  # rows far from everything held: --places new believes them


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
    distance_miles: float
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
    prices: dict[str, float] = {}  # of the listing: see core/market/listing_facts.py, prices_of
    facts: dict[str, Value]
    differences: list[str]
    flags: list[str]


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
    distance_miles: float
    adjustments: list[AdjustmentDoc]
    adjusted_price: float
    net_pct: float
    gross_pct: float
    weight: float
    likeness: float
    flags: list[str]


class SubjectDoc(Doc):
    address: str
    parcel_number: str | None
    home_kind: str
    latitude: float
    longitude: float
    facts: dict[str, Value]
    assessed_year: int | None = None


class RangeDoc(Doc):
    low: float
    high: float
    coverage: float
    measured: bool


class MethodDoc(Doc):
    name: str
    label: str
    value: float
    formula: str


class RateDoc(Doc):
    field: str
    dollars: float
    standard_error: float
    sales: int
    source: str
    weak: bool
    says: str


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
    formula: str


class PriceDoc(Doc):
    effective_date: dt.date
    subject: SubjectDoc
    sentence: str
    search: SearchDoc
    comps: list[CompDoc]
    rates: list[RateDoc]
    market_change: MarketChangeDoc
    apart: list[ApartDoc] = []
    indicated_value: float | None
    range: RangeDoc | None
    methods: list[MethodDoc]
    loosened: list[str]
    warnings: list[str]
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


class BacktestDoc(Doc):
    start: dt.date
    end: dt.date
    subjects: int
    skipped: dict[str, int]
    methods: dict[str, ScoreDoc]
    range: RangeReportDoc
    seconds: float
