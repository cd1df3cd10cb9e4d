"""The report: its pages as pictures, and the PDF."""

from __future__ import annotations

import re

from fastapi import APIRouter, Response
from pydantic import BaseModel

from ..report.pages import LAYOUTS
from ..report.papers import page_pictures, pdf
from .errors import RESPONSES
from .state import Porch

router = APIRouter(tags=["paper"], responses=RESPONSES)


class PagesDoc(BaseModel):
    layout: str
    layouts: list[str]
    pages: list[str]


@router.get("/workups/{workup_id}/pages")
def pages(porch: Porch, workup_id: int, layout: str = "three_pages") -> PagesDoc:
    """Every page as SVG, exactly as it will print."""
    given = porch.workups.report_input(workup_id)
    return PagesDoc(layout=layout, layouts=list(LAYOUTS), pages=page_pictures(given, layout))


@router.get("/workups/{workup_id}/report.pdf", response_class=Response)
def report(porch: Porch, workup_id: int, layout: str = "three_pages") -> Response:
    given = porch.workups.report_input(workup_id)
    name = re.sub(r"[^A-Za-z0-9]+", "-", given.title).strip("-") or "report"
    return Response(
        pdf(given, layout),
        media_type="application/pdf",
        headers={"Content-Disposition": f'attachment; filename="{name}.pdf"'},
    )
