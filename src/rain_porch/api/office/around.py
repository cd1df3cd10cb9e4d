"""A look with nothing kept: what a workup's Comps room answers, for a home, a place or a search alone."""

from __future__ import annotations

from typing import Annotated, Literal

from fastapi import Path, Query, Response
from pydantic import BaseModel

from ...app import around as looking
from ...app.around import LookAsk, LookDoc
from ...app.handover.look_papers import LookPaper, paper_of_look
from ...app.home.homes import HomeRef
from ...app.office.house_rules import rules_of
from ...app.pricing import finding
from ...app.pricing.standpoint import Standpoint
from ...app.pricing.summaries import SummariesDoc
from ...app.workup.workups import begin_looked
from ...core.search.search import Search
from ...documents.finding import CountsDoc, FieldSpreadDoc, LikenessPartDoc, ProposalsDoc
from ...documents.stored import HomeRefDoc
from ..attachments import attached
from ..routing import api_router
from ..state import Porch

router = api_router("around")


class Begin(BaseModel):
    """home: the one that the workup is of; look: its search, and what was ticked, go along."""

    home: HomeRefDoc
    look: LookAsk


class Begun(BaseModel):
    workup_id: int


def _asked(porch: Porch, body: LookAsk) -> tuple[Standpoint, Search]:
    standpoint = looking.standpoint_of(porch.records, body, rules_of(porch.agent))
    return standpoint, looking.searched(standpoint, body)


@router.post("/around")
def around(porch: Porch, body: LookAsk) -> LookDoc:
    """What a search finds around a record, a place, or anywhere; nothing is saved."""
    return looking.look_around(porch.records, body, rules_of(porch.agent))


@router.post("/around/counts")
def counts_around(porch: Porch, body: LookAsk) -> CountsDoc:
    """What the search would find, without the homes."""
    return finding.counts_of(*_asked(porch, body))


@router.post("/around/spread")
def spread_of_look(porch: Porch, body: LookAsk, field: Annotated[str, Query(max_length=64)]) -> FieldSpreadDoc:
    """One field over the homes that the search would find without its limit on it."""
    return finding.spread_of(*_asked(porch, body), field)


@router.post("/around/proposals")
def proposals_of_look(porch: Porch, body: LookAsk) -> ProposalsDoc:
    """The search that the home suggests, one with every fact of it, and the change that helps most."""
    return finding.proposals_for(*_asked(porch, body))


@router.post("/around/summaries")
def figures_of_look(porch: Porch, body: LookAsk) -> SummariesDoc:
    """Figures of all that is found, by kind, and of the homes ticked."""
    return looking.figures_around(porch.records, body, rules_of(porch.agent))


@router.post("/around/likeness/{listing_id}")
def likeness_in_look(
    porch: Porch, listing_id: Annotated[str, Path(max_length=200)], body: LookAsk
) -> list[LikenessPartDoc]:
    """How alike one home is to the one looked around, part by part."""
    return finding.likeness_of(_asked(porch, body)[0], listing_id)


@router.post("/around/workup", status_code=201)
def workup_of_look(porch: Porch, body: Begin) -> Begun:
    """Begin a workup of a home with the look's search, what was ticked kept."""
    porch.state.at_work()
    home = HomeRef(body.home.kind, body.home.key)
    return Begun(workup_id=begin_looked(porch.agent, home, body.look.search, body.look.ticked))


@router.post("/around/paper.{form}", response_class=Response)
def paper_around(porch: Porch, form: Literal["pdf", "xlsx", "csv"], body: LookPaper) -> Response:
    """The look on one page, or as a packet; as a workbook, or as a plain table of the homes."""
    data, title = paper_of_look(porch.agent, form, body)
    return attached(data, title, form)
