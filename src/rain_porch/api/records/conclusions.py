"""What was concluded from the records, how complete they are, and the agent's word on either."""

from __future__ import annotations

from typing import Annotated, Any, Literal

from fastapi import Query
from pydantic import BaseModel, Field

from ...app.incoming import conclusions as rulings
from ...app.market import outliers
from ...core.facts.fields import BY_NAME, FIELDS
from ...core.facts.words import HomeKind
from ...store import health
from ...store.records import conclusions
from ..routing import api_router
from ..state import Porch

router = api_router("records")
Limit = Annotated[int, Query(ge=1, le=1000)]
What = Literal[
    "matched", "deed_sale", "not_sale", "lease", "distressed", "not_arms_length", "relisted", "suspect",
    "new_construction", "quick_resale",
]  # fmt: skip
_SHOWN = tuple(
    f.name
    for f in FIELDS
    if f.searched and not f.private and f.name not in ("listing_id", "standard_status", "local_status")
)


class HealthRow(BaseModel):
    name: str
    rows: int
    known: dict[str, int]


class HealthDoc(BaseModel):
    """fields: name → label, in the order to show them; known counts rows that have each."""

    fields: dict[str, str]
    by_source: list[HealthRow]
    by_place: list[HealthRow]


class FarDoc(BaseModel):
    key: str
    shown: str
    value: float


class SpreadDoc(BaseModel):
    """One field's spread: bins of equal width from low to high, the values beyond Tukey's fences apart."""

    field: str
    label: str
    kind: str
    n: int
    low: float
    high: float
    median: float
    bins: list[int]
    beyond: int
    farthest: list[FarDoc]


class RulingRequest(BaseModel):
    """says: None leaves the matter to Rain Porch again."""

    kind: Literal["listings", "transfers"]
    key: str = Field(min_length=1, max_length=300)
    about: str = Field(min_length=1, max_length=80)
    says: str | None = Field(None, max_length=80)


@router.get("/records/health")
def health_of(porch: Porch) -> HealthDoc:
    db = porch.live
    return HealthDoc(
        fields={name: BY_NAME[name].label for name in _SHOWN},
        by_source=[HealthRow(**r) for r in health.known_by(db, "source", _SHOWN)],
        by_place=[HealthRow(**r) for r in health.known_by(db, "place", _SHOWN)],
    )


@router.get("/records/spreads")
def spreads_of(porch: Porch, home_kind: HomeKind = HomeKind.DETACHED) -> list[SpreadDoc]:
    """How the values of one kind of home are spread, and what lies far from all others."""
    return [SpreadDoc(**s) for s in outliers.spreads(porch.records, home_kind.value)]


@router.get("/records/conclusions")
def how_many(porch: Porch) -> dict[str, int]:
    return rulings.counts(porch.records)


@router.get("/records/conclusions/{what}")
def records_of(porch: Porch, what: What, limit: Limit = 200) -> list[dict[str, Any]]:
    """The records for which one conclusion holds, newest first."""
    db = porch.live
    if what == "suspect":
        return health.suspects(db, "listings", "listing_id", "unparsed_address", limit)
    if what in ("new_construction", "quick_resale"):
        found = rulings.new_construction if what == "new_construction" else rulings.quick_resales
        return rulings.with_addresses(db, found(porch.records, limit))
    if what == "relisted":
        return conclusions.relisted(db, limit)
    if what in ("matched", "deed_sale", "not_sale"):
        return conclusions.transfers(db, what, limit)
    return conclusions.listings(db, what, limit)


@router.get("/records/rulings")
def all_rulings(porch: Porch) -> list[dict[str, Any]]:
    return conclusions.all_rulings(porch.live)


@router.post("/records/rulings")
def rule(porch: Porch, asked: RulingRequest) -> list[dict[str, Any]]:
    """Confirm or overrule a conclusion; it stands through later imports."""
    rulings.rule(porch.live, asked.kind, asked.key, asked.about, asked.says, porch.agent.now())
    return conclusions.all_rulings(porch.live)
