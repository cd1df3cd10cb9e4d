"""The report: its pages as pictures, and the PDF."""

from __future__ import annotations

import re

from fastapi import APIRouter, Response
from pydantic import BaseModel

from ..report.pages import LAYOUTS
from ..report.papers import page_picture, pdf
from .errors import RESPONSES
from .state import Number, Porch

router = APIRouter(tags=["paper"], responses=RESPONSES)


class LayoutDoc(BaseModel):
    name: str
    pages: list[str]


@router.get("/layouts")
def layouts() -> list[LayoutDoc]:
    return [LayoutDoc(name=name, pages=list(pages)) for name, pages in LAYOUTS.items()]


@router.get("/workups/{workup_id}/pages/{number}.png", response_class=Response)
def page(porch: Porch, workup_id: Number, number: Number, layout: str = "three_pages") -> Response:
    """One page as a picture, exactly as it will print."""
    given = porch.workups.report_input(workup_id)
    return Response(page_picture(given, layout, number), media_type="image/png")


@router.get("/workups/{workup_id}/report.pdf", response_class=Response)
def report(porch: Porch, workup_id: Number, layout: str = "three_pages") -> Response:
    given = porch.workups.report_input(workup_id)
    name = re.sub(r"[^A-Za-z0-9]+", "-", given.title).strip("-") or "report"
    return Response(
        pdf(given, layout),
        media_type="application/pdf",
        headers={"Content-Disposition": f'attachment; filename="{name}.pdf"'},
    )
