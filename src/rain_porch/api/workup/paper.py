"""The report: its pages as pictures, and the papers it is handed over as."""

from __future__ import annotations

import datetime as dt
from typing import Annotated, Literal

from fastapi import Path, Query, Request, Response
from fastapi.concurrency import run_in_threadpool
from pydantic import BaseModel, Field

from ...app.handover import branding, saved_layouts
from ...app.handover.branding import CardDoc, OwnPageDoc, WrittenDoc
from ...app.handover.paper_process import Wanted, paper_made
from ...app.handover.report_input import report_input
from ...app.office import choices as chosen
from ...app.office.sharing import own_picture
from ...app.workup.workups import open_workup
from ...core.errors import BadInput, NotFound
from ...documents.base import Line, Worded, as_known
from ...documents.stored import PaperDoc
from ...report.calendar_note import calendar_note
from ...report.layouts import LAYOUTS, PAGES, SPEAKING, page_label
from ...report.pages.opening import HOME_ROWS
from ...report.pages.readings import STATISTICS, statistic_label
from ...report.papers import PICTURE_MEDIA, PictureForm, pages_of, without_words
from ...report.speaking import spoken_of
from ...report.wording import label
from ..attachments import attached
from ..bodies import read_body
from ..routing import api_router
from ..state import AskedNumber, Number, Porch

router = api_router("paper")
LayoutName = Annotated[str | None, Query(max_length=60)]


class LayoutsDoc(BaseModel):
    """pages: name → label, all there are; layouts: name → pages. facts, statistics: name → label, those to choose from. speaking: pages that
    speak of the chosen, or of all found."""

    pages: dict[str, str]
    layouts: dict[str, list[str]]
    facts: dict[str, str]
    statistics: dict[str, str]
    speaking: list[str]


@router.get("/layouts")
def layouts(porch: Porch) -> LayoutsDoc:
    own = {p.page: p.title for p in branding.own_pages(porch.agent)}
    return LayoutsDoc(
        pages={name: page_label(name) for name in PAGES} | own,
        layouts={name: list(pages) for name, pages in LAYOUTS.items()},
        facts={n: label(n) for n in HOME_ROWS},
        statistics={name: statistic_label(name) for name in STATISTICS},
        speaking=list(SPEAKING),
    )


@router.get("/card")
def card(porch: Porch) -> CardDoc:
    return as_known(CardDoc, chosen.agent_card(porch.agent))


@router.put("/card")
def set_card(porch: Porch, body: CardDoc) -> CardDoc:
    branding.set_card(porch.agent, body)
    return body


class KeptPicture(BaseModel):
    file: str


@router.post("/card/pictures", status_code=201)
async def add_picture(porch: Porch, request: Request) -> KeptPicture:
    """Keep a logo or portrait, sent as the body; the card then names it."""
    data = await read_body(request, branding.MOST_BYTES)
    return KeptPicture(file=await run_in_threadpool(branding.keep_picture, porch.agent, data))


@router.get("/card/pictures/{file}", response_class=Response)
def card_picture(porch: Porch, file: Annotated[str, Path(pattern=branding.FileName.pattern)]) -> Response:
    data, media = own_picture(porch.agent, file)
    return Response(data, media_type=media, headers={"Cache-Control": "private, max-age=3600"})


@router.get("/own-pages")
def own_pages(porch: Porch) -> list[OwnPageDoc]:
    return branding.own_pages(porch.agent)


@router.post("/own-pages", status_code=201)
async def add_own_page(
    porch: Porch, request: Request, title: Annotated[Line, Query(max_length=200)] = ""
) -> OwnPageDoc:
    """A PDF or picture, sent as the body, as pages of the agent's own."""
    data = await read_body(request, branding.MOST_BYTES)
    return await run_in_threadpool(branding.add_own_page, porch.agent, title, data)


@router.post("/own-pages/written", status_code=201)
def write_own_page(porch: Porch, body: WrittenDoc) -> OwnPageDoc:
    """A page of words and pictures, written here."""
    return branding.write_own_page(porch.agent, body)


@router.put("/own-pages/{page}")
def rewrite_own_page(porch: Porch, page: Annotated[str, Path(max_length=80)], body: WrittenDoc) -> OwnPageDoc:
    return branding.write_own_page(porch.agent, body, page)


@router.get("/own-pages/{page}/{number}", response_class=Response)
def own_page_picture(porch: Porch, page: Annotated[str, Path(max_length=80)], number: Number) -> Response:
    """One page of a file of the agent's own as a picture."""
    data, media = branding.own_page_picture(porch.agent, page, number)
    return Response(data, media_type=media, headers={"Cache-Control": "private, max-age=3600"})


@router.delete("/own-pages/{page}", status_code=204)
def take_own_page_away(porch: Porch, page: Annotated[str, Path(max_length=80)]) -> None:
    branding.take_own_page_away(porch.agent, page)


class KeptLayout(BaseModel):
    layout_id: int
    name: str
    paper: PaperDoc


class NewLayout(BaseModel):
    name: Line = Field(min_length=1, max_length=80, pattern=r"\S")
    paper: PaperDoc


@router.get("/kept-layouts")
def kept_layouts(porch: Porch) -> list[KeptLayout]:
    """Layouts that the agent has kept by name: pages, their order and options, without what belongs to one home."""
    return [
        KeptLayout(layout_id=n, name=name, paper=paper) for n, name, paper in saved_layouts.saved_layouts(porch.agent)
    ]


@router.post("/kept-layouts", status_code=201)
def keep_layout(porch: Porch, body: NewLayout) -> int:
    """Keep a layout under a name; one of the same name is replaced. Returns its number."""
    return saved_layouts.save_layout(porch.agent, body.name.strip(), body.paper)


@router.delete("/kept-layouts/{layout_id}", status_code=204)
def delete_layout(porch: Porch, layout_id: Number) -> None:
    saved_layouts.delete_layout(porch.agent, layout_id)


class PagesDoc(BaseModel):
    """pages: in their order. silent: those that have nothing to say and are not printed, page → why. whose: of which homes a page
    speaks, in words. notes: what the agent should know of the papers, and the client is not told."""

    pages: list[str]
    silent: dict[str, Worded]
    whose: dict[str, str]
    notes: list[str]


@router.get("/workups/{workup_id}/pages")
def pages(porch: Porch, workup_id: Number, layout: LayoutName = None) -> PagesDoc:
    given = report_input(porch.agent, workup_id, layout)
    names = list(pages_of(given, layout))
    return PagesDoc(
        pages=names,
        silent=without_words(given, layout),
        whose={n: spoken_of(given, n).words for n in names if n in SPEAKING},
        notes=[f"The picture of {name} is damaged: the pages are set without it." for name in given.damaged],
    )


@router.get("/workups/{workup_id}/pages/{number}.{form}", response_class=Response)
def page(
    porch: Porch,
    workup_id: Number,
    number: Number,
    form: PictureForm,
    layout: LayoutName = None,
    sheet: AskedNumber = None,
) -> Response:
    """One page as a picture, just as it will print, the sheet of it that is asked for, else the first; without a layout of the
    workup's own pages. Nothing (204) for a page that has nothing to say."""
    made = _made(porch, workup_id, {"layout": layout, "number": number, "form": form})
    if not made:
        return Response(status_code=204)
    if sheet is not None and sheet > len(made):
        raise NotFound(f"Page {number} has {len(made)} sheets, no sheet {sheet}.", sheet=sheet)
    return Response(made[(sheet or 1) - 1], media_type=PICTURE_MEDIA[form])


class SheetsDoc(BaseModel):
    """sheets: how many sheets of paper a page takes."""

    sheets: int


@router.get("/workups/{workup_id}/pages/{number}")
def sheets(porch: Porch, workup_id: Number, number: Number, layout: LayoutName = None) -> SheetsDoc:
    made = _made(porch, workup_id, {"layout": layout, "number": number, "form": "svg"})
    return SheetsDoc(sheets=len(made))


@router.get("/workups/{workup_id}/report.{form}", response_class=Response)
def report(
    porch: Porch, workup_id: Number, form: Literal["pdf", "html", "xlsx"], layout: LayoutName = None
) -> Response:
    made = _made(porch, workup_id, {"layout": layout, "number": None, "form": form})
    return attached(made[0], open_workup(porch.agent, workup_id).state.address, form)


@router.get("/workups/{workup_id}/appointment.ics", response_class=Response)
def appointment(
    porch: Porch, workup_id: Number, at: dt.datetime, minutes: Annotated[int, Query(ge=5, le=24 * 60)] = 60
) -> Response:
    """A calendar note of the appointment at the home; `at`: on the clock of the place, as 2026-11-04T18:00."""
    state = open_workup(porch.agent, workup_id).state
    if not dt.datetime(1970, 1, 1) <= at.replace(tzinfo=None) < dt.datetime(2100, 1, 1):
        raise BadInput("at", "This is no day for an appointment: give one from 1970 to 2099.")
    who = f" with {state.client}" if state.client else ""
    text = calendar_note(
        f"workup-{workup_id}-{at:%Y%m%dT%H%M}@rain-porch", porch.agent.now().astimezone(dt.UTC), at.replace(tzinfo=None), minutes,
        f"{state.address}: what it is worth{who}", state.address,
    )  # fmt: skip
    return attached(text, f"{state.address} appointment", "ics")


def _made(porch: Porch, workup_id: int, wanted: Wanted) -> list[bytes]:
    """Drawn and typeset beside where that is under way, else here."""
    given, beside = report_input(porch.agent, workup_id, wanted["layout"]), porch.state.papers
    made = None if beside is None else beside.made(given, wanted)
    return paper_made(given, wanted) if made is None else made
