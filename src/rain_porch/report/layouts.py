"""All pages by name, and the layouts that come with the product."""

from __future__ import annotations

from collections.abc import Callable, Mapping
from typing import Any

from .model import ReportInput
from .pages.closing import about_page, market_page, no_letter_page
from .pages.comps import comps_page, grid_page, summary_page
from .pages.handouts import comp_sheets, housing_page, size_page, tour_page
from .pages.opening import cover_page, home_page, letter_page, search_page
from .pages.price import net_page, strategy_page
from .pages.readings import KINDS, reading_page, statistics_page

Page = Callable[[ReportInput], Any]  # a page, or several

PAGES: Mapping[str, Page] = {
    "cover": cover_page, "letter": letter_page, "summary": summary_page, "home": home_page, "search": search_page,
    **{kind: reading_page(kind) for kind in KINDS}, "comps": comps_page, "sheets": comp_sheets, "grid": grid_page,
    "size": size_page, "statistics": statistics_page,
    "strategy": strategy_page, "net": net_page, "market": market_page, "housing": housing_page, "tour": tour_page,
    "market_letter": no_letter_page, "about": about_page,
}  # fmt: skip
LABELS: Mapping[str, str] = {
    "cover": "Cover", "letter": "Letter", "summary": "Summary", "home": "The home", "search": "Search and map",
    "sold": "Sold", "under_contract": "Under contract", "for_sale": "For sale", "failed": "Failed", "comps": "The comps", "sheets": "A sheet a comp", "size": "Price and size",
    "grid": "The grid", "statistics": "Statistics", "strategy": "The price", "net": "Net proceeds",
    "market": "The market", "housing": "The housing around", "tour": "Drive past the comps", "market_letter": "Market letter",
    "about": "What this is",
}  # fmt: skip
LAYOUTS: Mapping[str, tuple[str, ...]] = {
    "three_pages": ("summary", "comps", "grid"),
    "one_page": ("summary",),
    "full": (
        "cover", "letter", "summary", "home", "search", "sold", "under_contract", "for_sale", "failed", "comps", "grid",
        "strategy", "net", "market", "about",
    ),
    "statistics": ("search", "statistics", "sold", "for_sale", "market", "about"),
}  # fmt: skip
