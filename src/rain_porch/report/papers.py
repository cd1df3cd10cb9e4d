"""From pages to paper: the document model goes into the Typst template as JSON, PDF or page pictures come out."""

from __future__ import annotations

import datetime as dt
import json
from collections.abc import Callable, Mapping, Sequence
from importlib.resources import files
from pathlib import Path
from typing import Any, Literal

import typst

from ..core.errors import BadInput
from .layouts import LAYOUTS, PAGES
from .model import ReportInput
from .webpage import web_page
from .workbook import workbook

_HERE = Path(str(files("rain_porch.report")))


def pages_of(given: ReportInput, layout: str | None) -> Sequence[str]:
    """The names of a layout's pages; without a layout those that the workup has chosen. BadInput."""
    if layout is None:
        return given.paper.pages
    if layout not in LAYOUTS:
        raise BadInput("layout", f"There is no layout “{layout}”: use one of {', '.join(LAYOUTS)}.")
    return LAYOUTS[layout]


def document(given: ReportInput, layout: str | None, only: int | None = None) -> dict[str, Any]:
    """The document model of a layout, or of one of its pages, numbered from 1. BadInput for what is not there."""
    names = pages_of(given, layout)
    if only is not None and not 1 <= only <= len(names):
        raise BadInput("page", f"There is no page {only}: the layout has {len(names)}.")
    wanted = names if only is None else names[only - 1 : only]
    return {
        "title": f"{given.title}: market analysis",
        "address": given.title,
        "by": given.agent.get("name", ""),
        "foot": f"A comparative market analysis, not an appraisal. Effective {given.price['effective_date']}; records "
        f"through {given.through.isoformat()}; made {in_words(given.made_on)}.",
        "pages": [page for name in wanted for page in _made(name, given)],
    }


def _made(name: str, given: ReportInput) -> list[dict[str, Any]]:
    """A page of the report; the market letter's may be several."""
    if name != "market_letter":
        return [PAGES[name](given)]
    return list(given.market_letter) or [PAGES["market_letter"](given)]


def in_words(day: dt.date) -> str:
    return f"{day:%B} {day.day}, {day.year}"


def letter_document(
    title: str, by: str, made_on: dt.date, through: dt.date, pages: list[dict[str, Any]]
) -> dict[str, Any]:
    """The document model of a market letter."""
    foot = f"From listing and tax records through {through.isoformat()}; made {in_words(made_on)}."
    return {"title": title, "address": title, "by": by, "foot": foot, "pages": pages}


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


def as_pdf(model: dict[str, Any]) -> bytes:
    return bytes(_compile(model, "pdf"))


def as_pictures(model: dict[str, Any]) -> list[bytes]:
    """Every sheet as PNG."""
    made = _compile(model, "png")
    return [bytes(m) for m in made] if isinstance(made, list) else [bytes(made)]


def pdf(given: ReportInput, layout: str | None = None) -> bytes:
    return as_pdf(document(given, layout))


def page_picture(given: ReportInput, layout: str | None, number: int) -> bytes:
    """One page as PNG, just as it will print, at twice the screen's resolution; of a long one its first sheet."""
    return as_pictures(document(given, layout, number))[0]


def html(given: ReportInput, layout: str | None = None) -> bytes:
    return web_page(document(given, layout)).encode()


def xlsx(given: ReportInput, layout: str | None = None) -> bytes:
    """The workbook; its sheets are the same for every layout."""
    pages_of(given, layout)
    return workbook(given)


FORMS: Mapping[str, Callable[[ReportInput, str | None], bytes]] = {".pdf": pdf, ".html": html, ".xlsx": xlsx}


def write_report(given: ReportInput, layout: str | None, out: Path) -> int:
    """Write the report as a file; its form follows the ending. Returns the number of pages."""
    make = FORMS.get(out.suffix.lower())
    if make is None:
        raise BadInput("out", f"{out.name}: reports are written as {', '.join(FORMS)}.")
    out.write_bytes(make(given, layout))
    return len(pages_of(given, layout))
