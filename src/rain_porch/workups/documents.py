"""The JSON documents of the command line and the interface, and the stored workup, as Pydantic models."""

from __future__ import annotations

import datetime as dt
from decimal import Decimal
from typing import Annotated, Literal

from pydantic import BaseModel, ConfigDict, Field

from ..core import improvements as im
from ..core import proceeds as pr
from ..core import search as sr
from ..core.dates import date_of, day_of
from ..core.shapes import Fence, Point, Shape

Value = float | str
FiniteNumber = Annotated[float, Field(allow_inf_nan=False)]


class Doc(BaseModel):
    model_config = ConfigDict(extra="forbid")


class CriterionDoc(Doc):
    field: str
    low: FiniteNumber | None = None
    high: FiniteNumber | None = None
    words: list[str] = []
    must_be_known: bool = False

    @classmethod
    def of(cls, c: sr.Criterion) -> CriterionDoc:
        return cls(field=c.field, low=c.low, high=c.high, words=list(c.words), must_be_known=c.must_be_known)


class WindowDoc(Doc):
    """days back from the effective date, or dates (both included)."""

    on: bool = True
    days: int | None = None
    since: dt.date | None = None
    until: dt.date | None = None

    @classmethod
    def of(cls, w: sr.Window) -> WindowDoc:
        since, until = (None if day is None else date_of(day) for day in (w.since, w.until))
        return cls(on=w.on, days=w.days, since=since, until=until)

    def window(self) -> sr.Window:
        since, until = (None if day is None else day_of(day) for day in (self.since, self.until))
        return sr.Window(self.on, self.days, since, until)


Place = Annotated[list[FiniteNumber], Field(min_length=2, max_length=2)]


class ShapeDoc(Doc):
    """A drawn polygon, or with radius_miles a circle round its one point; points are [longitude, latitude].

    inside: look within it; else leave out what lies within it.
    """

    points: list[Place] = Field(min_length=1, max_length=5000)
    radius_miles: FiniteNumber | None = None
    inside: bool = True
    name: str = Field("", max_length=100)


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
    parcels: Annotated[list[str], Field(min_length=2, max_length=2)] | None = None
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
            parcels=list(search.parcels) if search.parcels else None,
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
            shapes=tuple(Shape(_points(s.points), s.radius_miles, s.inside, s.name) for s in self.shapes),
            fences=tuple(Fence(tuple(_points(line) for line in f.lines), f.name) for f in self.fences),
            parcels=(self.parcels[0], self.parcels[1]) if self.parcels else None,
            windows={k: w.window() for k, w in self.windows.items()},
            criteria=tuple(
                sr.Criterion(c.field, c.low, c.high, tuple(c.words), c.must_be_known) for c in self.criteria
            ),
            leave_out_new_construction=self.leave_out_new_construction,
            arms_length_only=self.arms_length_only,
            leave_out_distressed=self.leave_out_distressed,
        )
        sr.check(out)
        return out


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


class PriceDoc(Doc):
    effective_date: dt.date
    subject: SubjectDoc
    sentence: str
    search: SearchDoc
    comps: list[CompDoc]
    rates: list[RateDoc]
    market_change: MarketChangeDoc
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


class HomeRefDoc(Doc):
    """A home by its parcel or listing number; `hand`: one that the agent has entered, its key made by `by_hand`."""

    kind: Literal["parcel", "listing", "hand"]
    key: Annotated[str, Field(max_length=300)]


class DecisionDoc(Doc):
    choice: Literal["kept", "set_aside"]
    reason: str = ""


Money = Annotated[Decimal, Field(ge=0, le=10**9, max_digits=15)]
Percent = Annotated[Decimal, Field(ge=0, le=100, max_digits=8)]


class LoanDoc(Doc):
    balance: Money
    rate_pct: Percent = Decimal(0)
    as_of: dt.date | None = None
    label: str = Field("Mortgage", max_length=60)


class TaxesDoc(Doc):
    a_year: Money
    in_arrears: bool = True
    days_in_year: Literal[360, 365] = 365
    seller_owns_closing_day: bool = False


class OtherLineDoc(Doc):
    """amount: minus for a cost."""

    label: str = Field(min_length=1, max_length=60)
    amount: Annotated[Decimal, Field(ge=-(10**9), le=10**9, max_digits=15)]


class ScenarioDoc(Doc):
    """One scenario of net proceeds; compensations have no default, since they are negotiated."""

    price: Money
    closing: dt.date
    loans: list[LoanDoc] = Field([], max_length=6)
    liens: Money = Decimal(0)
    listing_side_pct: Percent | None = None
    buying_side_pct: Percent | None = None
    title_and_closing: Money = Decimal(0)
    transfer_tax_pct: Percent = Decimal(0)
    taxes: TaxesDoc | None = None
    dues: Money = Decimal(0)
    credits_and_repairs: Money = Decimal(0)
    other: list[OtherLineDoc] = Field([], max_length=20)

    def scenario(self) -> pr.Scenario:
        return pr.Scenario(
            **self.model_dump(exclude={"loans", "taxes", "other"}),
            loans=[pr.Loan(**loan.model_dump()) for loan in self.loans],
            taxes=pr.Taxes(**self.taxes.model_dump()) if self.taxes else None,
            other=[(o.label, o.amount) for o in self.other],
        )


class FeatureDoc(Doc):
    """Something of the home that no field holds. amount in dollars; none: left to judgement, line by line."""

    label: str = Field(min_length=1, max_length=60)
    amount: Annotated[float, Field(ge=-1e7, le=1e7, allow_inf_nan=False)] | None = None


class ImprovementDoc(Doc):
    kind: str = Field(max_length=40)
    year: int = Field(ge=1800, le=2200)
    cost: FiniteNumber
    quality: str = Field("good", max_length=20)
    note: str = Field("", max_length=200)

    def improvement(self) -> im.Improvement:
        return im.Improvement(**self.model_dump())


class PhotoDoc(Doc):
    """A picture that the agent added; its file stands in the data folder's photos."""

    file: str = Field(pattern=r"^[0-9a-f]{32}\.(jpg|png|webp)$")
    caption: str = Field("", max_length=120)


class SavedSearchDoc(Doc):
    """A search and the home it was made for."""

    search: SearchDoc
    facts: dict[str, Value] = {}
    home_kind: str = ""


class PaperDoc(Doc):
    """What the agent wants on paper; pages by name, in their order. price: blank leaves a ruled line for the table.
    ways_left_out: names of ways to the number that the client does not see."""

    pages: Annotated[list[str], Field(min_length=1, max_length=40)] = ["summary", "comps", "grid"]
    price: Literal["shown", "hidden", "blank"] = "shown"
    formulas: bool = True
    pictures: bool = True
    ways_left_out: Annotated[list[Annotated[str, Field(max_length=60)]], Field(max_length=20)] = []
    title: Annotated[str, Field(max_length=120)] = ""
    letter: Annotated[str, Field(max_length=4000)] = ""


class WorkupDoc(Doc):
    """Everything that the agent has decided about one home; the rest is computed from the records."""

    home: HomeRefDoc
    address: str
    effective_date: dt.date
    corrections: dict[str, Value | None] = {}
    search: SearchDoc
    decisions: dict[str, DecisionDoc] = {}
    rates: dict[str, FiniteNumber] = {}
    cells: dict[str, dict[str, FiniteNumber]] = {}
    weights: dict[str, FiniteNumber] = {}
    conditions: dict[str, Annotated[int, Field(ge=1, le=6)]] = {}  # of comps, as the agent rates them: 6 new, 1 damaged
    list_price: FiniteNumber | None = None
    features: list[FeatureDoc] = []
    improvements: list[ImprovementDoc] = []
    place: Place | None = None  # [longitude, latitude] where the agent moved the home
    photos: list[PhotoDoc] = []
    scenarios: list[ScenarioDoc] = []
    recommendation: str = ""
    paper: PaperDoc = PaperDoc()
    client: str = ""

    def kept(self) -> list[str]:
        return [key for key, d in self.decisions.items() if d.choice == "kept"]


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


SCHEMAS: dict[str, type[BaseModel]] = {
    "import": ImportDoc,
    "undo": UndoneDoc,
    "find": FindDoc,
    "price": PriceDoc,
    "backtest": BacktestDoc,
    "market": MarketDoc,
    "search": SearchDoc,
    "workup": WorkupDoc,
}
