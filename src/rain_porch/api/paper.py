"""The report: its pages as pictures, and the papers it is handed over as."""

from __future__ import annotations

import re
from typing import Annotated, Literal

from fastapi import APIRouter, Query, Response
from pydantic import BaseModel, Field

from ..report.layouts import LABELS, LAYOUTS
from ..report.papers import FORMS, page_picture
from .errors import RESPONSES
from .state import Number, Porch

router = APIRouter(tags=["paper"], responses=RESPONSES)
LayoutName = Annotated[str | None, Query(max_length=60)]
MEDIA = {
    "pdf": "application/pdf",
    "html": "text/html; charset=utf-8",
    "xlsx": "application/vnd.openxmlformats-officedocument.spreadsheetml.sheet",
}


class LayoutsDoc(BaseModel):
    """pages: name → label, all there are; layouts: name → pages."""

    pages: dict[str, str]
    layouts: dict[str, list[str]]


class CardDoc(BaseModel):
    """The agent on paper."""

    name: str = Field("", max_length=100)
    licence: str = Field("", max_length=60)
    contact: str = Field("", max_length=200)


@router.get("/layouts")
def layouts() -> LayoutsDoc:
    return LayoutsDoc(pages=dict(LABELS), layouts={name: list(pages) for name, pages in LAYOUTS.items()})


@router.get("/card")
def card(porch: Porch) -> CardDoc:
    return CardDoc(**porch.workups.card())


@router.put("/card")
def set_card(porch: Porch, body: CardDoc) -> CardDoc:
    porch.workups.set_card(body.model_dump())
    return body


@router.get("/workups/{workup_id}/pages/{number}.png", response_class=Response)
def page(porch: Porch, workup_id: Number, number: Number, layout: LayoutName = None) -> Response:
    """One page as a picture, just as it will print; without a layout of the workup's own pages."""
    given = porch.workups.report_input(workup_id)
    return Response(page_picture(given, layout, number), media_type="image/png")


@router.get("/workups/{workup_id}/report.{form}", response_class=Response)
def report(
    porch: Porch, workup_id: Number, form: Literal["pdf", "html", "xlsx"], layout: LayoutName = None
) -> Response:
    given = porch.workups.report_input(workup_id)
    name = re.sub(r"[^A-Za-z0-9]+", "-", given.title).strip("-") or "report"
    return Response(
        FORMS[f".{form}"](given, layout),
        media_type=MEDIA[form],
        headers={"Content-Disposition": f'attachment; filename="{name}.{form}"'},
    )
