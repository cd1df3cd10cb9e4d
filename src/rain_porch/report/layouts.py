"""All pages by name, and the layouts that come with the product."""

from __future__ import annotations

from collections.abc import Callable, Mapping
from typing import Any

from ..core.phrases import phrase
from .blocks import Nothing
from .model import ReportInput
from .pages.appraiser import set_aside_page
from .pages.chosen import beside_page, comp_sheets, comps_page
from .pages.closing import about_page, market_page
from .pages.grid import grid_page, rates_page
from .pages.handouts import housing_page, size_page, tour_page
from .pages.one_page import summary_page
from .pages.opening import cover_page, home_page, letter_page, search_page
from .pages.price import net_page, strategy_page
from .pages.readings import KINDS, reading_page, statistics_page
from .pages.while_for_sale import while_for_sale_page

Page = Callable[[ReportInput], Any]  # a page, several, or Nothing


def no_bulletin_page(given: ReportInput) -> Nothing:
    return Nothing(phrase("no-bulletin"))


PAGES: Mapping[str, Page] = {
    "cover": cover_page, "letter": letter_page, "summary": summary_page, "home": home_page, "search": search_page,
    "comps": comps_page, "beside": beside_page, "sheets": comp_sheets, "grid": grid_page, "rates": rates_page, "strategy": strategy_page,
    **{kind: reading_page(kind) for kind in KINDS}, "statistics": statistics_page, "size": size_page, "net": net_page,
    "market": market_page, "housing": housing_page, "tour": tour_page, "bulletin": no_bulletin_page, "about": about_page,
    "set_aside": set_aside_page, "while_for_sale": while_for_sale_page,
}  # fmt: skip


def page_label(name: str) -> str:
    """What a page is called where the agent chooses among them."""
    return phrase(f"page-{name}")


# pages on which the agent says whether they speak of the chosen or of all found
SPEAKING = ("summary", "comps", "beside", "sheets", "strategy", "sold", "under_contract", "for_sale", "failed")
LAYOUTS: Mapping[str, tuple[str, ...]] = {
    "one_page": ("summary",),
    "short": ("summary", "comps", "grid", "rates", "strategy"),
    "three_pages": ("summary", "comps", "grid"),
    "full": (
        "cover", "letter", "summary", "home", "search",
        "comps", "sheets", "grid", "rates", "strategy", "net", "for_sale", "under_contract", "failed", "market", "about",
    ),
    "statistics": ("search", "statistics", "sold", "for_sale", "market", "about"),
    "appraiser": ("comps", "beside", "grid", "rates", "strategy", "statistics", "search", "set_aside", "about"),
    "while_for_sale": ("while_for_sale", "for_sale", "under_contract", "failed", "market"),
}  # fmt: skip
