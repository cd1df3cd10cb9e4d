"""The last pages: the market around, the words used, what this is and is not."""

from __future__ import annotations

from typing import Any

from ...core.facts.dates import said
from ...core.meanings import of_paper
from ...core.phrases import phrase
from ..blocks import Nothing, heading, page, para, table
from ..model import ReportInput
from ..wording import day, range_meaning
from .bulletin import bulletin_pages


def market_page(given: ReportInput) -> list[dict[str, Any]] | Nothing:
    """The market of the home's own place and kind, with the parts that a bulletin has."""
    parts = [{**part, "width": given.width, "form": given.brand.form, "page_break": False} for part in given.market]
    sold: list[dict[str, Any]] = next((p["answer"]["figures"] for p in parts if p["kind"] == "headline"), [])
    if not any(f["value"]["value"] for f in sold):
        return Nothing(phrase("market-none"))
    return [made | {"name": "market"} for made in bulletin_pages(phrase("market-title"), "", parts)]


def about_page(given: ReportInput) -> dict[str, Any]:
    words = sorted(
        [*(list(row) for row in of_paper()), [phrase("about-likely-range"), range_meaning(given.price["range"])]]
    )
    return page(
        "about", phrase("about-title"),
        para(phrase("about-what")),
        para(phrase("about-when", day=day(given.price["effective_date"]), through=said(given.through))),
        para(phrase("about-sources", sources="; ".join(given.sources))) if given.sources else None,
        para(phrase("about-fairness")),
        heading(phrase("about-words")),
        table(["", ""], words, words=2, widths=(1, 3)),
        flow=True,
    )  # fmt: skip
