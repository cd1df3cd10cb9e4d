"""From pages to paper: the document model goes into the Typst template as JSON, PDF or page pictures come out."""

from __future__ import annotations

import json
from importlib.resources import files
from pathlib import Path
from typing import Any, Literal

import typst

from ..core.errors import BadInput
from .model import ReportInput
from .pages import LAYOUTS, PAGES

_HERE = Path(str(files("rain_porch.report")))


def document(given: ReportInput, layout: str) -> dict[str, Any]:
    """The document model of a layout. Raises BadInput for a layout that is not there."""
    if layout not in LAYOUTS:
        raise BadInput("layout", f"There is no layout “{layout}”: use one of {', '.join(LAYOUTS)}.")
    return {
        "title": f"{given.title}: market analysis",
        "address": given.title,
        "made_on": f"{given.made_on:%B} {given.made_on.day}, {given.made_on.year}",
        "effective": given.price["effective_date"],
        "through": given.through.isoformat(),
        "first": 1,
        "last": len(LAYOUTS[layout]),
        "pages": [PAGES[name](given) for name in LAYOUTS[layout]],
    }


def _compile(model: dict[str, Any], form: Literal["pdf", "png"]) -> Any:
    return typst.compile(
        str(_HERE / "report.typ"),
        root=str(_HERE),
        font_paths=[str(_HERE / "fonts")],
        ignore_system_fonts=True,
        sys_inputs={"data": json.dumps(model, ensure_ascii=False)},
        format=form,
        ppi=150,
    )


def pdf(given: ReportInput, layout: str) -> bytes:
    return bytes(_compile(document(given, layout), "pdf"))


def page_picture(given: ReportInput, layout: str, number: int) -> bytes:
    """One page as PNG, exactly as it will print, at twice the screen's resolution. BadInput for a page that is not there."""
    model = document(given, layout)
    if not 1 <= number <= len(model["pages"]):
        raise BadInput("page", f"There is no page {number}: the layout has {len(model['pages'])}.")
    made = _compile(
        {**model, "pages": [model["pages"][number - 1]], "first": number, "last": len(model["pages"])}, "png"
    )
    return bytes(made[0] if isinstance(made, list) else made)


def write_report(given: ReportInput, layout: str, out: Path) -> int:
    """Write the report as a file; its form follows the ending. Returns the number of pages."""
    if out.suffix.lower() != ".pdf":
        raise BadInput("out", f"{out.name}: reports are written as .pdf.")
    out.write_bytes(pdf(given, layout))
    return len(LAYOUTS[layout])
