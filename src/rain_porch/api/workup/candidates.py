"""The comps of a workup: what its search finds, would find, and how alike each home is."""

from __future__ import annotations

import datetime as dt
from dataclasses import replace
from typing import Annotated, Any, Literal

import numpy as np
from fastapi import APIRouter, Path, Query
from pydantic import BaseModel

from ...app.homes import HomeRef, read_home
from ...app.pricing.answers import candidate_docs
from ...app.pricing.candidates import candidates, sold_rows
from ...app.pricing.opened import Opened, found, found_candidates, suggested
from ...app.pricing.standpoint import Standpoint
from ...app.pricing.summaries import SummariesDoc, summaries
from ...app.workups import open_workup
from ...core.errors import BadInput, NotFound
from ...core.facts.fields import BY_NAME, CATALOGUE, line_label
from ...core.facts.words import COUNTED
from ...core.market.columns import SOLD
from ...core.search import search as sr
from ...core.search import steps
from ...core.search.proposals import helps_most, match_everything, matching
from ...core.search.sentence import phrases
from ...core.search.shapes import crossings
from ...core.search.spread import spread
from ...documents.search import CriterionDoc, SearchDoc
from ...documents.wire import CandidateDoc
from ..errors import RESPONSES
from ..state import Number, Porch

router = APIRouter(tags=["workups"], responses=RESPONSES)

THIN_DAYS = (90, 120, 180, 365, 730)


class PhraseDoc(BaseModel):
    text: str
    part: str | None


class StepDoc(BaseModel):
    words: str
    counts: dict[str, int]


class WhatIfDoc(BaseModel):
    part: str
    looser: StepDoc | None
    tighter: StepDoc | None
    without: dict[str, int] | None


class SearchFault(BaseModel):
    """Why a search cannot be run, and which part of it is to blame, "" where none can be named."""

    part: str
    message: str


class CountsDoc(BaseModel):
    """crossings: where drawn outlines cross themselves, (longitude, latitude). fault: why nothing could be counted."""

    counts: dict[str, int]
    unknown: dict[str, int]
    sentence: list[PhraseDoc]
    what_if: list[WhatIfDoc]
    crossings: list[list[float]]
    fault: SearchFault | None = None


class SpreadDoc(BaseModel):
    """bins: counts from low to high, the outer ones with all beyond; words: counts of each."""

    low: float | None
    high: float | None
    bins: list[int]
    words: dict[str, int]
    unknown: int


class HelpDoc(BaseModel):
    words: str
    search: SearchDoc
    sold: int


class ProposalsDoc(BaseModel):
    """fields: for each field the criterion that homes like this one meet; helps: where too few or many are found."""

    proposed: SearchDoc
    everything: SearchDoc
    fields: dict[str, CriterionDoc]
    helps: HelpDoc | None


class LikenessPartDoc(BaseModel):
    """likeness: 0 to 1, None where it is unknown on either side. weight: share of the whole."""

    field: str
    label: str
    likeness: float | None
    weight: float


class CandidatesDoc(CountsDoc):
    candidates: list[CandidateDoc]
    kept_elsewhere: list[CandidateDoc]
    suggested: list[str]
    sold_within: dict[int, int]


@router.post("/workups/{workup_id}/counts")
def live_counts(porch: Porch, workup_id: Number, body: SearchDoc) -> CountsDoc:
    """What a search would find, without saving it."""
    return CountsDoc(**_counts(open_workup(porch.agent, workup_id), body.search()))


@router.get("/workups/{workup_id}/proposals")
def proposals(porch: Porch, workup_id: Number) -> ProposalsDoc:
    """The search that the home itself suggests, one with every fact of it, and the change that helps most now."""
    opened = open_workup(porch.agent, workup_id)
    standpoint, search = opened.standpoint, opened.state.search.search()
    best = helps_most(search, lambda s: sold_rows(standpoint, s), lambda rows: standpoint.likeness(rows)[0])
    return ProposalsDoc(
        proposed=SearchDoc.of(standpoint.proposed()),
        everything=SearchDoc.of(match_everything(search, opened.subject)),
        fields={
            f.name: CriterionDoc.of(c)
            for f in (*CATALOGUE, *(BY_NAME[name] for name in opened.standpoint.columns.own))
            if f.searched and (c := matching(f.name, f.kind, opened.subject))
        },
        helps=None if best is None else HelpDoc(words=best[0].words, search=SearchDoc.of(best[0].search), sold=best[1]),
    )


@router.get("/workups/{workup_id}/spread")
def spread_around(porch: Porch, workup_id: Number, field: Annotated[str, Query(max_length=60)]) -> SpreadDoc:
    """One field over the homes that the search would find without its limit on it."""
    opened = open_workup(porch.agent, workup_id)
    search = opened.state.search.search().without_criterion(field)
    told = spread(opened.standpoint.columns, opened.standpoint.run(search).rows, field)
    return SpreadDoc(low=told.low, high=told.high, bins=list(told.bins), words=dict(told.words), unknown=told.unknown)


@router.get("/workups/{workup_id}/candidates")
def find_candidates(porch: Porch, workup_id: Number) -> CandidatesDoc:
    opened = open_workup(porch.agent, workup_id)
    try:
        found(opened)
    except (BadInput, NotFound) as error:  # an area that was named went with its import, say: the search stays in sight
        return _faulty(opened, opened.state.search.search(), error)
    made = porch.records.tables.get((*opened.sought, "table"), lambda: _table(opened))
    held = {c.listing_id for c in made.candidates}
    return made.model_copy(update={"kept_elsewhere": _elsewhere(opened, held)})


def _table(opened: Opened) -> CandidatesDoc:
    """All of the answer that no decision changes."""
    standpoint, search = opened.standpoint, opened.state.search.search()
    return CandidatesDoc(
        **_counts(opened, search),
        candidates=candidate_docs(standpoint, found_candidates(opened)),
        kept_elsewhere=[],
        suggested=suggested(opened),
        sold_within=_sold_within(standpoint, search),
    )


@router.get("/workups/{workup_id}/summaries")
def figures_of_homes(porch: Porch, workup_id: Number) -> SummariesDoc:
    """Mean, median and the like of what the search finds, by kind, with the values that lie far from the rest."""
    return summaries(open_workup(porch.agent, workup_id))


@router.get("/workups/{workup_id}/of-home")
def records_of_home(
    porch: Porch,
    workup_id: Number,
    kind: Literal["parcel", "listing"],
    key: Annotated[str, Query(max_length=200)],
) -> list[CandidateDoc]:
    """The records of one home that may be kept in a workup, whatever its search says, newest first."""
    standpoint = open_workup(porch.agent, workup_id).standpoint
    home = read_home(porch.records, HomeRef(kind, key)).subject.home_id
    if home is None:
        return []
    if home == standpoint.subject.home_id:
        raise BadInput("key", "This is the home itself: it cannot be its own comp.")
    rows = standpoint.columns.rows_of_home(home)
    rows = rows[standpoint.view.open_to_search[rows]]
    found = sorted(candidates(standpoint, rows), key=lambda c: c.date or dt.date.min, reverse=True)
    return candidate_docs(standpoint, sorted(found, key=lambda c: c.listing_id != key))


@router.get("/workups/{workup_id}/likeness/{listing_id}")
def likeness_parts(
    porch: Porch, workup_id: Number, listing_id: Annotated[str, Path(max_length=200)]
) -> list[LikenessPartDoc]:
    """How alike one home is, part by part, the weightiest first."""
    standpoint = open_workup(porch.agent, workup_id).standpoint
    row = standpoint.columns.row_of.get(listing_id)
    if row is None:
        raise NotFound(f"No listing has the number {listing_id}.", listing=listing_id)
    told = {"distance": "Distance", "days_since": "Days since the sale"}
    parts = [
        LikenessPartDoc(field=name, label=told.get(name) or line_label(name), likeness=like, weight=weight)
        for name, (like, weight) in standpoint.likeness_parts(row).items()
    ]
    return sorted(parts, key=lambda p: -p.weight)


def _sold_within(standpoint: Standpoint, search: sr.Search) -> dict[int, int]:
    """How many sales the search would find by how far back it looks: counted in one, the longest look."""
    longest = replace(search, windows={"sold": sr.Window(days=max(THIN_DAYS))})
    rows = standpoint.run(longest).rows
    ages = standpoint.view.day - standpoint.view.date[rows[standpoint.view.kind[rows] == SOLD]]
    return {days: int((ages <= days).sum()) for days in THIN_DAYS}


def _elsewhere(opened: Opened, held: set[str]) -> list[CandidateDoc]:
    """The decided homes that the search does not find."""
    row_of = opened.standpoint.columns.row_of
    rows = [row_of[k] for k in opened.state.decisions if k in row_of and k not in held]
    found = candidates(opened.standpoint, np.array(rows, dtype=np.int64)) if rows else []
    return candidate_docs(opened.standpoint, found)


def _faulty(opened: Opened, search: sr.Search, error: BadInput | NotFound) -> CandidatesDoc:
    """What is shown of a search that cannot be run: its sentence, why it fails, and what has been decided."""
    if isinstance(error, BadInput):
        part = error.field.removeprefix("criteria.")
    else:
        part = "not_areas" if error.values.get("name") in search.not_areas else "areas"
    return CandidatesDoc(
        counts={kind.value: 0 for kind in COUNTED}, unknown={}, what_if=[], crossings=[],
        sentence=[PhraseDoc(text=p.text, part=p.part) for p in phrases(search)],
        fault=SearchFault(part=part, message=error.message),
        candidates=[], kept_elsewhere=_elsewhere(opened, set()), suggested=[], sold_within={},
    )  # fmt: skip


def _counts(opened: Opened, search: sr.Search) -> dict[str, Any]:
    standpoint = opened.standpoint
    found = standpoint.run(search)
    masks = standpoint.records.masks_of(search)
    what_if = steps.what_if(search, standpoint.columns, standpoint.view, standpoint.subject, masks, found)

    def step(given: Any) -> StepDoc | None:
        return None if given is None else StepDoc(words=given[0], counts=dict(given[1]))

    return {
        "counts": dict(found.counts),
        "unknown": dict(found.unknown),
        "sentence": [PhraseDoc(text=p.text, part=p.part) for p in phrases(search)],
        "what_if": [
            WhatIfDoc(
                part=w.part,
                looser=step(w.looser),
                tighter=step(w.tighter),
                without=None if w.without is None else dict(w.without),
            )
            for w in what_if.values()
        ],
        "crossings": [
            list(p) for shape in search.shapes if shape.radius_miles is None for p in crossings(shape.points)
        ],
    }
