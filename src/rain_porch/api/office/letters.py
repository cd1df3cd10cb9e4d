"""Bulletins: kept by name, made anew from the newest records, as PDF, web page and pictures."""

from __future__ import annotations

from typing import Literal

from fastapi import APIRouter, Response
from pydantic import Field

from ...app.handover.bulletin_papers import letter_html, letter_model
from ...app.market import letters as kept
from ...app.market.bulletins import Ready
from ...app.market.letters import KeptLetterDoc, LetterDoc
from ...app.market.views import ViewDoc
from ...core.errors import BadInput
from ...documents.base import Doc, Line
from ...report.papers import PICTURE_MEDIA, PictureForm, as_pdf, as_pictures
from ..attachments import attached
from ..errors import RESPONSES
from ..state import Number, Porch

router = APIRouter(tags=["letters"], responses=RESPONSES)


@router.get("/letters")
def letters(porch: Porch) -> list[KeptLetterDoc]:
    return kept.letters(porch.agent)


@router.post("/letters", status_code=201)
def add_letter(porch: Porch, body: LetterDoc) -> KeptLetterDoc:
    return KeptLetterDoc(letter_id=kept.add_letter(porch.agent, body), letter=body)


class ReadyAsk(Doc):
    """A ready layout of parts for a view; title: the bulletin's."""

    layout: Ready
    view: ViewDoc
    title: Line = Field(min_length=1, max_length=120, pattern=r"\S")


@router.post("/letters/ready", status_code=201)
def add_ready(porch: Porch, body: ReadyAsk) -> KeptLetterDoc:
    """A new bulletin with the parts of a ready layout, to be changed like any other."""
    made = kept.ready(body.layout, body.view, body.title)
    return KeptLetterDoc(letter_id=kept.add_letter(porch.agent, made), letter=made)


@router.put("/letters/{letter_id}")
def change_letter(porch: Porch, letter_id: Number, body: LetterDoc) -> KeptLetterDoc:
    kept.change_letter(porch.agent, letter_id, body)
    return KeptLetterDoc(letter_id=letter_id, letter=body)


@router.delete("/letters/{letter_id}", status_code=204)
def delete_letter(porch: Porch, letter_id: Number) -> None:
    kept.delete_letter(porch.agent, letter_id)


@router.get("/letters/{letter_id}/letter.{form}", response_class=Response)
def letter(porch: Porch, letter_id: Number, form: Literal["pdf", "html"]) -> Response:
    """The letter with the figures of today."""
    held = kept.read_letter(porch.agent, letter_id)
    data = as_pdf(letter_model(porch.agent, held)) if form == "pdf" else letter_html(porch.agent, held)
    return attached(data, held.title, form)


@router.get("/letters/{letter_id}/sheets")
def sheets(porch: Porch, letter_id: Number) -> int:
    """How many sheets the letter has today."""
    return len(as_pictures(letter_model(porch.agent, kept.read_letter(porch.agent, letter_id)), "svg"))


@router.get("/letters/{letter_id}/sheets/{number}.{form}", response_class=Response)
def sheet(porch: Porch, letter_id: Number, number: Number, form: PictureForm) -> Response:
    """One sheet as a picture."""
    made = as_pictures(letter_model(porch.agent, kept.read_letter(porch.agent, letter_id)), form)
    if number > len(made):
        raise BadInput("sheet", f"There is no sheet {number}: the letter has {len(made)}.")
    return Response(made[number - 1], media_type=PICTURE_MEDIA[form])
