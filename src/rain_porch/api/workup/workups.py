"""Workups: list, make, open, change, undo."""

from __future__ import annotations

import datetime as dt
from contextlib import suppress
from typing import Annotated, Literal
from urllib.parse import quote

from fastapi import BackgroundTasks, Query
from pydantic import BaseModel, Field

from ...app.home import photos
from ...app.home.homes import FACT_FIELDS, HomeRef, by_hand
from ...app.home.story import story_of_home
from ...app.office import sharing
from ...app.pricing.find_document import subject_doc
from ...app.pricing.found_table import found_table
from ...app.pricing.opened import Opened
from ...app.pricing.summaries import own_figures
from ...app.workup import workups as book
from ...app.workup.changes import Change
from ...app.workup.outcomes import OutcomesDoc, outcomes
from ...core.errors import BadInput, NotFound
from ...documents.base import Line, Value, Worded
from ...documents.stored import WorkupDoc
from ...documents.subject import SubjectDoc
from ..routing import api_router
from ..state import Asked, Number, Porch

router = api_router("workups")


class NewWorkup(BaseModel):
    kind: Literal["parcel", "listing"]
    key: str
    as_of: dt.date | None = None


class EnteredHome(BaseModel):
    address: Line = Field(max_length=200)
    latitude: float = Field(ge=-90, le=90)
    longitude: float = Field(ge=-180, le=180)
    home_kind: str = Field(max_length=40)


class Made(BaseModel):
    workup_id: int


class WorkupRow(BaseModel):
    workup_id: int
    title: str
    created_at: str
    changed_at: str
    kept: int
    list_price: float | None
    effective_date: dt.date | None
    client: str
    delivered: Worded | None
    fault: Worded = ""  # why it cannot be opened, where it cannot
    whose: str | None = None  # the colleague's, where it is not one's own
    may_edit: bool = True


class FactDoc(BaseModel):
    """One fact as each source says it; `used` is in force."""

    field: str
    label: str
    unit: str
    kind: str
    tax_roll: Value | None
    last_listing: Value | None
    agent: Value | None
    corrected: bool
    used: Value | None


class PastDoc(BaseModel):
    """Something that happened to this home: a listing, a closing, a deed. per: "month" where the price is a rent."""

    date: dt.date | None
    what: str
    price: float | None
    per: str
    note: Worded


class HistoryRow(BaseModel):
    revision: int
    what: Worded
    at: str
    who: str | None


class OpenDoc(BaseModel):
    workup_id: int
    revision: int
    state: WorkupDoc
    subject: SubjectDoc
    facts: list[FactDoc]
    from_lease: bool
    past: list[PastDoc]
    last_change: Worded
    picture: str | None
    asks: dict[
        str, float
    ]  # its own list price and what hangs on it, where it is for sale or under contract on the effective day
    whose: str | None  # the colleague's, where it is not one's own
    may_edit: bool


class ChangeRequest(BaseModel):
    revision: int = Field(ge=1, le=2**53)
    change: Change


class Changed(BaseModel):
    revision: int
    what: Worded


class UndoRequest(BaseModel):
    revision: int = Field(ge=1, le=2**53)


class UndoDoc(BaseModel):
    revision: int
    what: Worded | None


@router.get("/workups")
def list_workups(
    porch: Porch, every: bool = False, archived: bool = False, words: Annotated[str, Query(max_length=200)] = ""
) -> list[WorkupRow]:
    """One's own workups, then those that colleagues share; `every`: for a manager all of the office; `archived`: those put away;
    `words`: in the title, the address, the client's name."""
    return [WorkupRow(**row) for row in book.list_workups(porch.agent, every, archived, words)]


@router.post("/workups", status_code=201)
def make_workup(porch: Porch, body: NewWorkup) -> Made:
    porch.state.at_work()
    return Made(workup_id=book.begin_workup(porch.agent, HomeRef(body.kind, body.key), body.as_of))


@router.post("/workups/by-hand", status_code=201)
def enter_by_hand(porch: Porch, body: EnteredHome) -> Made:
    """A workup of a home that no record holds: where it is and what kind; its facts come as corrections."""
    porch.state.at_work()
    ref = by_hand(body.address, body.latitude, body.longitude, body.home_kind)
    return Made(workup_id=book.begin_workup(porch.agent, ref))


@router.get("/workups/{workup_id}")
def open_workup(porch: Porch, workup_id: Number) -> OpenDoc:
    opened = book.open_workup(porch.agent, workup_id)
    history = book.history_of(porch.agent, workup_id)
    porch.state.at_work()
    return OpenDoc(
        workup_id=workup_id,
        revision=opened.revision,
        state=opened.state,
        subject=subject_doc(opened.subject),
        facts=_facts(opened),
        from_lease=opened.home.from_lease,
        past=[
            PastDoc(**{k: p[k] for k in PastDoc.model_fields})
            for p in story_of_home(porch.records, opened.home, opened.state.effective_date)
        ],
        last_change=history[0]["what"] if history else "",
        picture=_front(porch, opened),
        asks=own_figures(opened.standpoint, None),
        whose=sharing.whose(porch.agent),
        may_edit=porch.agent.may_edit,
    )


@router.post("/workups/{workup_id}/copy", status_code=201)
def copy_workup(porch: Porch, workup_id: Number) -> Made:
    """A workup of one's own that begins where this one stands."""
    return Made(workup_id=book.copy_workup(porch.agent, workup_id))


class Archived(BaseModel):
    archived: bool


@router.put("/workups/{workup_id}/archived", status_code=204)
def archive_workup(porch: Porch, workup_id: Number, body: Archived) -> None:
    """Put it away, or take it out again."""
    book.archive_workup(porch.agent, workup_id, body.archived)


@router.delete("/workups/{workup_id}", status_code=204)
def delete_workup(porch: Porch, workup_id: Number) -> None:
    book.delete_workup(porch.agent, workup_id)


@router.post("/workups/{workup_id}/changes")
def change_workup(porch: Porch, workup_id: Number, body: ChangeRequest, after: BackgroundTasks) -> Changed:
    revision, what = book.change_workup(porch.agent, workup_id, body.revision, body.change)
    if body.change.change == "set_search":
        after.add_task(_find_ahead, porch, workup_id)
    return Changed(revision=revision, what=what)


def _find_ahead(porch: Asked, workup_id: int) -> None:
    """What the new search finds is asked for next: it is looked for while the page still draws that it was saved."""
    with suppress(BadInput, NotFound):  # whoever asks is told
        found_table(book.open_workup(porch.agent, workup_id))


@router.post("/workups/{workup_id}/undo")
def undo(porch: Porch, workup_id: Number, body: UndoRequest) -> UndoDoc:
    revision, what = book.undo_change(porch.agent, workup_id, body.revision)
    return UndoDoc(revision=revision, what=what)


class RevisionDoc(BaseModel):
    """who: whose hand it was; what: what was done."""

    revision: int
    what: Worded | None
    who: str | None


@router.get("/outcomes")
def outcomes_of_workups(porch: Porch) -> OutcomesDoc:
    """What came of one's workups: on the market since, sold since, and how near the prices came."""
    return outcomes(porch.agent)


@router.get("/workups/{workup_id}/revision")
def revision(porch: Porch, workup_id: Number) -> RevisionDoc:
    """The newest revision: for windows that look whether another has saved."""
    held = book.standing_of(porch.agent, workup_id)
    return RevisionDoc(revision=held["revision"], what=held["what"], who=held["who"])


@router.get("/workups/{workup_id}/history")
def history(porch: Porch, workup_id: Number) -> list[HistoryRow]:
    """What was changed, newest first."""
    return [HistoryRow(**row) for row in book.history_of(porch.agent, workup_id)]


def _front(porch: Asked, opened: Opened) -> str | None:
    """Address of the agent's first picture, else of the newest of the home's front, where there is one."""
    if opened.state.photos:
        return f"/api/workups/{opened.workup_id}/photos/{opened.state.photos[0].file}"
    key = photos.front_listing(porch.records, opened.home.listings)
    return f"/api/listings/{quote(key)}/pictures/1" if key else None


def _facts(opened: Opened) -> list[FactDoc]:
    tax, listing = (opened.home.says.get(k, {}) for k in ("tax_roll", "last_listing"))
    own, year = opened.state.corrections, opened.subject.assessed_year
    out = []
    for f in FACT_FIELDS:
        name = f.name
        used = opened.subject.facts.get(name)
        if f.group != "home" and used is None and name not in tax and name not in listing:
            continue
        out.append(
            FactDoc(
                field=name, label=f"{f.label}, {year}" if name == "tax_assessed_value" and year else f.label,
                unit=f.unit, kind=f.kind.value, tax_roll=tax.get(name),
                last_listing=listing.get(name), agent=own.get(name), corrected=name in own, used=used,
            )
        )  # fmt: skip
    return out
