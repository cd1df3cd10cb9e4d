"""The comps of a workup: what its search finds, would find, and how alike each home is."""

from __future__ import annotations

import datetime as dt
from typing import Annotated, Literal

from fastapi import Path, Query

from ...app.home.full_record import FullRecordDoc, full_record
from ...app.home.homes import HomeRef, read_home
from ...app.pricing import finding
from ...app.pricing.candidates import candidates
from ...app.pricing.find_document import candidate_docs
from ...app.pricing.found_table import counts, found_table
from ...app.pricing.opened import Opened
from ...app.pricing.summaries import SummariesDoc, summaries_of_workup
from ...app.workup.workups import open_workup
from ...core.errors import BadInput, NotFound
from ...documents.candidates import CandidateDoc
from ...documents.finding import CandidatesDoc, CountsDoc, FieldSpreadDoc, LikenessPartDoc, ProposalsDoc
from ...documents.search import SearchDoc
from ..routing import api_router
from ..state import Number, Porch

router = api_router("workups")


@router.post("/workups/{workup_id}/counts")
def live_counts(porch: Porch, workup_id: Number, body: SearchDoc) -> CountsDoc:
    """What a search would find, without saving it."""
    return counts(open_workup(porch.agent, workup_id), body)


@router.get("/workups/{workup_id}/proposals")
def proposals(porch: Porch, workup_id: Number) -> ProposalsDoc:
    """The search that the home itself suggests, one with every fact of it, and the change that helps most now."""
    opened = open_workup(porch.agent, workup_id)
    return finding.proposals_for(opened.standpoint, opened.state.search.search())


@router.get("/workups/{workup_id}/spread")
def spread_around(porch: Porch, workup_id: Number, field: Annotated[str, Query(max_length=60)]) -> FieldSpreadDoc:
    """One field over the homes that the search would find without its limit on it."""
    opened = open_workup(porch.agent, workup_id)
    return finding.spread_of(opened.standpoint, opened.state.search.search(), field)


@router.get("/workups/{workup_id}/candidates")
def find_candidates(porch: Porch, workup_id: Number) -> CandidatesDoc:
    opened = open_workup(porch.agent, workup_id)
    try:
        made = found_table(opened)
    except (BadInput, NotFound) as error:  # an area that was named went with its import, say: the search stays in sight
        return finding.faulty(opened.state.search.search(), error, _elsewhere(opened, set()))
    held = {c.listing_id for c in made.candidates}
    return made.model_copy(update={"kept_elsewhere": _elsewhere(opened, held)})


@router.get("/workups/{workup_id}/summaries")
def figures_of_homes(porch: Porch, workup_id: Number) -> SummariesDoc:
    """Mean, median and the like of what the search finds, by kind, with the values that lie far from the rest."""
    return summaries_of_workup(open_workup(porch.agent, workup_id))


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
    return finding.likeness_of(open_workup(porch.agent, workup_id).standpoint, listing_id)


@router.get("/workups/{workup_id}/records/{listing_id:path}")
def record(porch: Porch, workup_id: Number, listing_id: Annotated[str, Path(max_length=200)]) -> FullRecordDoc:
    """A listing or a deed sale as it stood on the workup's day, its days counted by the rules that the workup goes by."""
    opened = open_workup(porch.agent, workup_id)
    return full_record(opened.standpoint.records, listing_id, opened.state.effective_date)


def _elsewhere(opened: Opened, held: set[str]) -> list[CandidateDoc]:
    """The decided homes that the search does not find."""
    return finding.by_key(opened.standpoint, [k for k in opened.state.decisions if k not in held])
