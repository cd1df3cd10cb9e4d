"""What is stored of a workup: the agent's decisions, as one document, and the parts that it is made of."""

from __future__ import annotations

import datetime as dt
from decimal import Decimal
from typing import Annotated, ClassVar, Literal

from pydantic import Field

from ..core.facts import improvements as im
from ..core.price import proceeds as pr
from .base import Doc, FiniteNumber, StoredDoc, Value
from .search import Place, SearchDoc


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


class SavedSearchDoc(StoredDoc):
    """A search and the home or place it was made for. home, place: none in those kept before they were."""

    form: ClassVar[str] = "search"

    search: SearchDoc
    facts: dict[str, Value] = {}
    home_kind: str = ""
    home: HomeRefDoc | None = None
    place: Place | None = None


class PaperDoc(StoredDoc):
    """What the agent wants on paper; pages by name, in their order. price: blank leaves a ruled line for the table.
    ways_left_out: names of ways to the number that the client does not see. bulletin: the letter whose pages go with it.
    speaks_of: page → the homes it speaks of; the chosen where nothing is said."""

    form: ClassVar[str] = "layout"

    pages: Annotated[list[str], Field(min_length=1, max_length=40)] = ["summary", "comps", "grid"]
    price: Literal["shown", "hidden", "blank"] = "shown"
    formulas: bool = True
    pictures: bool = True
    ways_left_out: Annotated[list[Annotated[str, Field(max_length=60)]], Field(max_length=20)] = []
    title: Annotated[str, Field(max_length=120)] = ""
    letter: Annotated[str, Field(max_length=4000)] = ""
    bulletin: int | None = Field(default=None, ge=1, le=2**53)
    cover_price: bool = True
    facts: Annotated[list[Annotated[str, Field(max_length=60)]], Field(max_length=60)] = []
    statistics: Annotated[list[Annotated[str, Field(max_length=60)]], Field(max_length=20)] = []
    notes: dict[Annotated[str, Field(max_length=60)], Annotated[str, Field(max_length=2000)]] = {}
    speaks_of: dict[Annotated[str, Field(max_length=60)], Literal["chosen", "found"]] = {}


class WorkupDoc(StoredDoc):
    """Everything that the agent has decided about one home; the rest is computed from the records."""

    form: ClassVar[str] = "workup"

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
    # of the house, by which it was delivered, those that were not as usual; none: it follows the house
    rules: dict[Annotated[str, Field(max_length=80)], FiniteNumber] | None = None

    def kept(self) -> list[str]:
        return [key for key, d in self.decisions.items() if d.choice == "kept"]
