"""The first pages: cover, letter, the home with its history, the search and its map."""

from __future__ import annotations

from collections.abc import Mapping
from typing import Any

from ...core.facts.dates import said
from ...core.facts.local_form import OwnWords
from ...core.facts.money import dollars
from ..blocks import card, columns, contents, filling, heading, homes, listed, page, pairs, para, picture, table
from ..model import ReportInput
from ..pictures.maps import map_svg
from ..wording import day, facts_line, known_facts, label, many
from .one_page import price_figures
from .telling import SAID

HOME_ROWS = (
    "living_area", "below_grade_finished_area", "basement", "bedrooms_total", "bathrooms", "stories",
    "architectural_style", "year_built", "property_condition", "garage_spaces", "lot_size_square_feet",
    "fireplaces_total", "heating", "cooling", "pool_private_yn", "waterfront_yn", "subdivision_name",
    "tax_annual_amount", "tax_assessed_value",
)  # fmt: skip
INSIDE, EVENTS = 3, 14
TITLED = {"summary": "All on one page"}

IN_WORDS = {
    "summary": "The price and the reasons, on one page.",
    "home": "What the records say of it, and its story.",
    "search": "Which homes were looked at, and where they stand.",
    "comps": "The homes that were chosen, beside this one.",
    "beside": "The sales line by line.",
    "sheets": "Each of them on a page.",
    "grid": "Each sale brought to this home, line by line.",
    "rates": "The same as a picture, and in words.",
    "strategy": "Ways to the number, and what it means for time.",
    "sold": "Sales nearby: what the market has agreed to.",
    "under_contract": "Homes with a buyer, not yet closed.",
    "for_sale": "Homes that the same buyers will see.",
    "failed": "Homes that were offered and did not sell.",
    "statistics": "Low, middle and high, by kind.",
    "while_for_sale": "Its days, its price, and what came and went around it.",
    "net": "Proceeds line by line.",
    "market": "Prices and closings by month.",
    "size": "Why a small home's figure says little of a large one.",
    "housing": "Kinds, ages, sizes, lots and taxes.",
    "tour": "In a good order, turn by turn.",
    "about": "The words used, and where the figures come from.",
}


def agent_lines(agent: Mapping[str, str]) -> list[str]:
    """The agent's card, a line each."""
    return [OwnWords(v) for k in ("name", "licence", "phone", "email", "contact") if (v := agent.get(k))]


def cover_page(given: ReportInput) -> dict[str, Any]:
    front = given.front_of("")
    drawn = front or map_svg(given.subject, (), given.chosen, given.base_map, given.price["search"], given.width, 340)
    return {
        "page": "cover",
        "name": "cover",
        "title": OwnWords(given.paper.title) or "What this home should be offered at",
        "address": given.title,
        "facts": facts_line(given.subject["facts"]),
        "client": OwnWords(given.client),
        "agent": agent_lines(given.agent),
        "svg": drawn if given.paper.pictures else None,
        "alt": f"Front of {given.title}" if front else f"Map around {given.title}",
        "price": price_figures(given) if given.paper.cover_price else None,
        "logo": given.brand.logo,
        "portrait": given.brand.portrait,
        "date": day(given.price["effective_date"]),
    }


def letter_page(given: ReportInput) -> dict[str, Any]:
    """The agent's letter, else a short one; what follows is added once all pages are known."""
    text = given.paper.letter or (
        f"These pages say what {given.title} is worth to buyers today, and how that was found. They look at homes like "
        f"it that were sold, are about to be sold, are for sale now, or did not sell; they adjust what was paid for what "
        f"differs; and they set a price against all of them. Every figure comes from recorded sales and listings up to "
        f"{said(given.through)}, and can be traced to them."
    )
    greeting = OwnWords(f"Dear {given.client},") if given.client else ""
    own = OwnWords if given.paper.letter else str
    paragraphs = [
        p for p in (greeting, *map(own, text.split("\n")), OwnWords(given.agent.get("name", ""))) if p.strip()
    ]
    return page("letter", "About these pages", *(para(p, large=True) for p in paragraphs))


def with_contents(pages: list[dict[str, Any]]) -> list[dict[str, Any]]:
    """The same pages, the letter with a list of those that follow it, each named as its page is."""
    at = next((i for i, p in enumerate(pages) if p.get("name") == "letter"), None)
    if at is None:
        return pages
    seen: dict[str, tuple[str, str, str]] = {}
    for p in pages[at + 1 :]:
        name = str(p.get("name", ""))
        first, _, _ = name.partition(" ")
        if first in IN_WORDS and first not in {n.partition(" ")[0] for n in seen}:
            title = TITLED.get(first, p["title"])
            seen[name] = (name, title, IN_WORDS[first])
        if first == "sheet" and not any(n.startswith("sheet ") for n in seen):
            seen[name] = (name, "A page for each of them", IN_WORDS["sheets"])
    told = contents(list(seen.values()))
    letter = pages[at] | {"blocks": [*pages[at]["blocks"], heading("What follows"), told]} if told else pages[at]
    return [*pages[:at], letter, *pages[at + 1 :]]


TOLD = (
    "listed", "offered for lease", "sold", "leased", "deed", "expired", "withdrawn", "cancelled", "assessed", "price changed",
    "rent changed",
)  # fmt: skip


def _paid(event: Mapping[str, Any]) -> str:
    """A price of the home's history; a rent says what it is for."""
    return (dollars(event["price"]) + (f" a {event['per']}" if event["per"] else "")) if event["price"] else ""


def home_page(given: ReportInput) -> dict[str, Any]:
    facts = given.subject["facts"]
    year = given.subject.get("assessed_year")
    named = {"tax_assessed_value": f"{label('tax_assessed_value')}, {year}"} if year else {}
    rows = known_facts(facts, given.paper.facts or HOME_ROWS, named)
    past = [
        [day(p["date"]), p["what"].capitalize(), _paid(p)]
        for p in given.past
        if p["what"].removeprefix("lease ") in TOLD
    ][:EVENTS]
    front = given.front_of("")
    inside = (
        [card(svg, OwnWords(caption)) for caption, svg in given.inside.get("", ())][:INSIDE]
        if given.paper.pictures
        else []
    )
    where = given.subject.get("placed")
    top = columns([[picture(front, f"Front of {given.title}")], [pairs(rows[:11])]], (1.35, 1)) if front else None
    return page(
        "home", "The home", top, homes(inside, INSIDE),
        pairs(rows[11:] if front else rows, 2),
        heading("What was done to it") if given.done else None,
        listed(given.done),
        heading("Its story") if past else None,
        table(["Date", "", "Price, $"], past, words=2, widths=(1, 1.6, 1), share=0.7) if past else None,
        heading("Where it stands") if where else None,
        filling(lambda h: map_svg(given.subject, (), (), given.base_map, {}, given.width, h), (80, 120, 170, 230, 300), f"Map around {given.title}", needed=False) if where else None,
        lead=_story(given) or facts_line(facts),
    )  # fmt: skip


def _story(given: ReportInput) -> str:
    """One sentence of the home's past: when it was sold last, and for how much."""
    sold = next((p for p in given.past if p["what"] in ("sold", "deed") and p["price"]), None)
    if sold is None:
        return ""
    return f"It was last sold on {day(sold['date'])}, for ${dollars(sold['price'])}."


def search_page(given: ReportInput) -> dict[str, Any]:
    search = given.price["search"]
    inside, outside = (any(s["inside"] is side for s in search.get("shapes", ())) for side in (True, False))
    also = [
        words
        for there, words in (
            (search.get("radius_miles"), "Dashed circle: the radius"),
            (inside, "dashed outline: looked inside"), (outside, "red outline: left out"),
            (search.get("fences"), "heavy line: a fence that no home crosses"),
        )
        if there
    ]  # fmt: skip
    chosen = {k: sum(c["kind"] == k for c in given.chosen) for k in SAID}
    rows = [
        [SAID[k].capitalize(), f"{given.counts.get(k, 0):,}", f"{chosen[k]:,}"]
        for k in SAID
        if given.counts.get(k) or chosen[k]
    ]
    total = sum(given.counts.values())
    lead = (
        f"{many(total, 'home was', 'homes were')} found; {many(len(given.chosen), 'is', 'are')} chosen for these pages."
    )
    return page(
        "search", "Where it was looked",
        columns(
            [[para(given.price["sentence"]), para(f"Records: {'; '.join(given.sources)}.", small=True) if given.sources else None],
             [table(["", "found", "chosen"], rows, widths=(1.6, 0.8, 0.8)) if rows else None]],
            (1.25, 1),
        ),
        filling(lambda h: map_svg(given.subject, given.around, given.chosen, given.base_map, search, given.width, h, whole=True), (320, 430, 490, 540, 590), "Map of the home, the chosen homes and all that is around",
                "House: this home. Numbered: the chosen, filled where sold. Small discs: other sales; half discs: under contract; "
                "rings: for sale; slashed rings: did not sell." + ("" if not also else f" {'; '.join(also)}.")),
        lead=lead,
    )  # fmt: skip
