"""Finding a home, the field catalogue, the base map."""

from __future__ import annotations

from typing import Annotated, Any

from fastapi import Query
from pydantic import BaseModel, Field

from ...app.home.homes import HomeRef, read_home
from ...app.lookup import HitsDoc, hit_doc, homes_to_begin_with, looked_up
from ...app.office.house_rules import rules_of
from ...core.errors import BadInput
from ...core.facts.fields import BY_NAME, CATALOGUE
from ...core.facts.words import HomeKind, RecordKind, Status, home_plural, status_words
from ...core.meanings import meanings_by
from ...core.search.search import statuses_of
from ...core.search.spread import words_of
from ...store.records import areas, homes, word_orders
from ..routing import api_router
from ..state import Porch

router = api_router("desk")


class FieldDoc(BaseModel):
    name: str
    label: str
    short: str
    kind: str
    unit: str
    group: str
    step: float
    low: float | None
    high: float | None
    adjusted: bool
    searched: bool
    shown: bool
    words: list[str] = Field([], description="from least to most, where its words have an order")


class MeaningDoc(BaseModel):
    word: str
    says: str


class SpotDoc(BaseModel):
    latitude: float
    longitude: float


@router.get("/lookup")
def lookup(porch: Porch, text: Annotated[str, Query(max_length=300)]) -> HitsDoc:
    """Homes, places and workups that a text may mean."""
    return looked_up(porch.agent, text)


@router.get("/meanings")
def meanings(porch: Porch) -> dict[str, MeaningDoc]:
    """What the words of the interface mean by the house's rules, by the name under which they are pointed at."""
    told = meanings_by(rules_of(porch.agent))
    return {name: MeaningDoc(word=m.word, says=m.says) for name, m in told.items()}


@router.get("/homes-to-begin-with")
def to_begin_with(porch: Porch) -> HitsDoc:
    """Of each of a few kinds the home that came on the market last, or sold last where none is for sale."""
    return HitsDoc(hits=homes_to_begin_with(porch.records))


@router.get("/nearest")
def nearest(
    porch: Porch,
    latitude: Annotated[float, Query(ge=-90, le=90)],
    longitude: Annotated[float, Query(ge=-180, le=180)],
) -> HitsDoc:
    """The home of the records nearest to a point on the map, within 0.15 miles; none where none is."""
    found = homes.nearest_home(porch.records.db, latitude, longitude)
    if found is None:
        return HitsDoc(hits=[])
    hit = homes.Hit(*found, read_home(porch.records, HomeRef(*found)).subject.address or found[1])
    return HitsDoc(hits=[hit_doc(hit)])


@router.get("/map/middle")
def middle(porch: Porch) -> SpotDoc:
    """The middle of the records: where a map opens that has no home."""
    latitude, longitude = porch.records.middle()
    return SpotDoc(latitude=latitude, longitude=longitude)


@router.get("/fields")
def fields(porch: Porch) -> list[FieldDoc]:
    """The field catalogue, without what is private, and after it the fields of the office's own that records have."""
    own = [BY_NAME[name] for name in porch.records.columns.own]
    orders = {
        **porch.records.columns.orders,
        **word_orders.word_orders(porch.live),
    }  # what was said just now counts at once
    same = [k for k in FieldDoc.model_fields if k not in ("kind", "words")]
    return [
        FieldDoc(**{k: getattr(f, k) for k in same}, kind=f.kind.value, words=list(orders.get(f.name, ())))
        for f in (*CATALOGUE, *own)
        if (f.stored or f.searched) and not f.private
    ]


@router.get("/words")
def words_of_a_field(
    porch: Porch,
    field: Annotated[str, Query(max_length=60)],
    text: Annotated[str, Query(max_length=100)] = "",
) -> dict[str, int]:
    """The words that a field has in the records and that hold a text, with their counts."""
    return words_of(porch.records.columns, field, text, 40)


@router.get("/record-statuses")
def record_statuses() -> dict[str, dict[str, str]]:
    """The statuses that can be told apart within a kind of record: kind → status → how it is said."""
    return {k.value: {s: status_words(Status(s)) for s in statuses_of(k)} for k in RecordKind if statuses_of(k)}


@router.get("/home-kinds")
def home_kinds() -> dict[str, str]:
    return {k.value: home_plural(k) for k in HomeKind}


@router.get("/map")
def base_map(porch: Porch) -> dict[str, Any]:
    """The base map as one GeoJSON feature collection."""
    return porch.records.base_map()


Degrees = Annotated[float, Query(ge=-180, le=180, allow_inf_nan=False)]


@router.get("/map/fine")
def fine_map(porch: Porch, west: Degrees, south: Degrees, east: Degrees, north: Degrees) -> dict[str, Any]:
    """Lots and buildings of what is in view."""
    if west > east or south > north:
        raise BadInput("west", "The box is upside down: west must lie below east, south below north.")
    return areas.fine_map(porch.records.db, west, south, east, north)


class BarrierDoc(BaseModel):
    """A named highway, water or railway: lines of [longitude, latitude]."""

    name: str
    kind: str
    lines: list[list[list[float]]]


@router.get("/map/barriers")
def barriers(porch: Porch) -> list[BarrierDoc]:
    """What of the base map may be taken as a fence."""
    return [BarrierDoc(**b) for b in areas.barriers(porch.records.db)]


@router.get("/areas")
def named_areas(porch: Porch) -> list[dict[str, str]]:
    """Polygons, subdivisions, buildings, cities and postal codes by which a search or a market view may name its place."""
    return porch.records.named_places()
