"""The last pages: the market around, the words used, what this is and is not."""

from __future__ import annotations

from typing import Any

from ...core.facts.dates import said
from ...core.meanings import of_paper
from ..blocks import Nothing, heading, page, para, table
from ..model import ReportInput
from ..wording import day, range_meaning
from .bulletin import bulletin_pages


def market_page(given: ReportInput) -> list[dict[str, Any]] | Nothing:
    """The market of the home's own place and kind, with the parts that a bulletin has."""
    parts = [{**part, "width": given.width, "form": given.brand.form, "page_break": False} for part in given.market]
    sold: list[dict[str, Any]] = next((p["answer"]["figures"] for p in parts if p["kind"] == "headline"), [])
    if not any(f["value"]["value"] for f in sold):
        return Nothing("The records tell nothing of the market here: no home of this kind closed in twelve months.")
    return [made | {"name": "market"} for made in bulletin_pages("The market here", "", parts)]


def about_page(given: ReportInput) -> dict[str, Any]:
    words = sorted([*(list(row) for row in of_paper()), ["Likely range", range_meaning(given.price["range"])]])
    return page(
        "about", "What this is, and is not",
        para("This is a comparative market analysis by a real estate agent: an opinion of price, from recorded sales and "
             "listings, for deciding on an asking price. It is not an appraisal, and was not made by a licensed appraiser."),
        para(f"It stands as of {day(given.price['effective_date'])}, on records that run through {said(given.through)}. "
             f"Measurements and features are as recorded and were not verified."),
        para(f"Where the records came from: {'; '.join(given.sources)}.") if given.sources else None,
        para("Homes are compared by what they are and where they stand, never by who lives there."),
        heading("The words used"),
        table(["", ""], words, words=2, widths=(1, 3)),
        flow=True,
    )  # fmt: skip
