"""The last pages: the market around, the words used, what this is and is not."""

from __future__ import annotations

from typing import Any

from ...core.facts.dates import said
from ...core.market.measure_words import WORDS
from ..blocks import Nothing, heading, page, para, table
from ..model import ReportInput
from ..wording import day, range_meaning
from .bulletin import bulletin_pages

GLOSSARY = (
    ("Adjusted price", "What a comp would have brought had it been this home: minus where it is better, plus where it is less."),
    ("Comp", "A sold home like this one, near in place and time, used to find its value."),
    ("Concession", "Something of the price that the seller gave back to the buyer at closing."),
    ("Indicated value", "The weighted mean of the comps' adjusted prices and, beside them, of the model's value."),
    ("Model", "One formula for the prices of all sales of homes of this kind around here, refitted each quarter."),
    ("Market change", "How much prices of like homes moved between a comp's contract and today."),
    ("Median", "The middle value: half lie below it, half above. One odd sale does not move it."),
    ("Net and gross adjustment", "The sum of a comp's adjustments with, and without, regard to their signs."),
    *((word, f"{text[0].upper()}{text[1:]}.") for word, text in (WORDS["median_days"], WORDS["median_share_of_list"])),
)  # fmt: skip


def market_page(given: ReportInput) -> list[dict[str, Any]] | Nothing:
    """The market of the home's own place and kind, with the parts that a bulletin has."""
    parts = [{**part, "width": given.width, "page_break": False} for part in given.market]
    sold: list[dict[str, Any]] = next((p["answer"]["figures"] for p in parts if p["kind"] == "headline"), [])
    if not any(f["value"]["value"] for f in sold):
        return Nothing("The records tell nothing of the market here: no home of this kind closed in twelve months.")
    return [made | {"name": "market"} for made in bulletin_pages("The market here", "", parts)]


def about_page(given: ReportInput) -> dict[str, Any]:
    words = sorted([*(list(row) for row in GLOSSARY), ["Likely range", range_meaning(given.price["range"])]])
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
