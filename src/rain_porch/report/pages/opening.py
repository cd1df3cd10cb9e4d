"""The first pages: cover, letter, the home with its history, the search and its map."""

from __future__ import annotations

from collections.abc import Mapping
from typing import Any

from ...core.facts.dates import said
from ...core.facts.local_form import OwnWords
from ...core.facts.money import dollars
from ...core.phrases import joined, phrase, phrases_of, sentence_case
from ..blocks import card, columns, contents, filling, heading, homes, listed, page, pairs, para, picture, table
from ..model import ReportInput
from ..pictures.maps import map_svg
from ..wording import day, facts_line, known_facts, label
from .one_page import price_figures
from .telling import kinds_in_words

HOME_ROWS = (
    "living_area", "below_grade_finished_area", "basement", "bedrooms_total", "bathrooms", "stories",
    "architectural_style", "year_built", "property_condition", "garage_spaces", "lot_size_square_feet",
    "fireplaces_total", "heating", "cooling", "pool_private_yn", "waterfront_yn", "subdivision_name",
    "tax_annual_amount", "tax_assessed_value",
)  # fmt: skip
INSIDE, EVENTS = 3, 14
# pages that a letter's list of contents names
LISTED = frozenset((
    "about", "beside", "comps", "failed", "for_sale", "grid", "home", "housing", "market", "net", "rates", "search", "sheets", "size",
    "sold", "statistics", "strategy", "summary", "tour", "under_contract", "while_for_sale",
))  # fmt: skip


def agent_lines(agent: Mapping[str, str]) -> list[str]:
    """The agent's card, a line each."""
    return [OwnWords(v) for k in ("name", "licence", "phone", "email", "contact") if (v := agent.get(k))]


def cover_page(given: ReportInput) -> dict[str, Any]:
    front = given.front_of("")
    drawn = front or map_svg(given.subject, (), given.chosen, given.base_map, given.price["search"], given.width, 340)
    return {
        "page": "cover",
        "name": "cover",
        "title": OwnWords(given.paper.title) or phrase("cover-title"),
        "address": given.title,
        "facts": facts_line(given.subject["facts"]),
        "client": OwnWords(given.client),
        "agent": agent_lines(given.agent),
        "svg": drawn if given.paper.pictures else None,
        "alt": phrase("front-of" if front else "cover-map-alt", home=given.title),
        "price": price_figures(given) if given.paper.cover_price else None,
        "logo": given.brand.logo,
        "portrait": given.brand.portrait,
        "as-of": phrase("cover-as-of", day=day(given.price["effective_date"])),
        "prepared-for": phrase("cover-prepared-for"),
    }


def letter_page(given: ReportInput) -> dict[str, Any]:
    """The agent's letter, else a short one; what follows is added once all pages are known."""
    text = given.paper.letter or phrase("letter-words", home=given.title, day=said(given.through))
    greeting = OwnWords(phrase("letter-dear", client=given.client)) if given.client else ""
    own = OwnWords if given.paper.letter else str
    paragraphs = [
        p for p in (greeting, *map(own, text.split("\n")), OwnWords(given.agent.get("name", ""))) if p.strip()
    ]
    return page("letter", phrase("letter-title"), *(para(p, large=True) for p in paragraphs))


def with_contents(pages: list[dict[str, Any]]) -> list[dict[str, Any]]:
    """The same pages, the letter with a list of those that follow it, each named as its page is."""
    at = next((i for i, p in enumerate(pages) if p.get("name") == "letter"), None)
    if at is None:
        return pages
    seen: dict[str, tuple[str, str, str]] = {}
    for p in pages[at + 1 :]:
        name = str(p.get("name", ""))
        first, _, _ = name.partition(" ")
        if first in LISTED and first not in {n.partition(" ")[0] for n in seen}:
            title = phrase("contents-summary-title") if first == "summary" else p["title"]
            seen[name] = (name, title, phrase(f"contents-{first}"))
        if first == "sheet" and not any(n.startswith("sheet ") for n in seen):
            seen[name] = (name, phrase("contents-sheets-title"), phrase("contents-sheets"))
    told = contents(list(seen.values()), phrase("contents-title"))
    if told is None:
        return pages
    letter = pages[at] | {"blocks": [*pages[at]["blocks"], heading(phrase("contents-title")), told]}
    return [*pages[:at], letter, *pages[at + 1 :]]


TOLD = (
    "listed", "offered for lease", "sold", "leased", "deed", "expired", "withdrawn", "cancelled", "assessed", "price changed",
    "rent changed",
)  # fmt: skip


def _paid(event: Mapping[str, Any]) -> str:
    """A price of the home's history; a rent says what it is for."""
    if not event["price"]:
        return ""
    price = dollars(event["price"])
    return phrase("rent-per", price=price, per=event["per"]) if event["per"] else price


def home_page(given: ReportInput) -> dict[str, Any]:
    facts = given.subject["facts"]
    year = given.subject.get("assessed_year")
    assessed = phrase("home-label-in-year", label=label("tax_assessed_value"), year=str(year))
    named = {"tax_assessed_value": assessed} if year else {}
    rows = known_facts(facts, given.paper.facts or HOME_ROWS, named)
    past = [
        [day(p["date"]), phrase(f"past-{p['what'].replace(' ', '-')}"), _paid(p)]
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
    top = (
        columns([[picture(front, phrase("front-of", home=given.title))], [pairs(rows[:11])]], (1.35, 1))
        if front
        else None
    )
    return page(
        "home", phrase("home-title"), top, homes(inside, INSIDE),
        pairs(rows[11:] if front else rows, 2),
        heading(phrase("home-done")) if given.done else None,
        listed(given.done),
        heading(phrase("home-story")) if past else None,
        table(phrases_of("home-date", "", "home-price"), past, words=2, widths=(1, 1.6, 1), share=0.7) if past else None,
        filling(lambda h: map_svg(given.subject, (), (), given.base_map, {}, given.width, h), (80, 120, 170, 230, 300), phrase("cover-map-alt", home=given.title), needed=False, title=phrase("home-where")) if where else None,
        lead=_story(given) or facts_line(facts),
    )  # fmt: skip


def _story(given: ReportInput) -> str:
    """One sentence of the home's past: when it was sold last, and for how much."""
    sold = next((p for p in given.past if p["what"] in ("sold", "deed") and p["price"]), None)
    if sold is None:
        return ""
    return phrase("home-last-sold", day=day(sold["date"]), price=dollars(sold["price"]))


def search_page(given: ReportInput) -> dict[str, Any]:
    search = given.price["search"]
    inside, outside = (any(s["inside"] is side for s in search.get("shapes", ())) for side in (True, False))
    drawn = (
        ("radius", search.get("radius_miles")),
        ("inside", inside),
        ("outside", outside),
        ("fence", search.get("fences")),
    )
    also = "; ".join(phrase(f"search-key-{name}") for name, there in drawn if there)
    kinds = kinds_in_words()
    chosen = {k: sum(c["kind"] == k for c in given.chosen) for k in kinds}
    rows = [
        [sentence_case(words), f"{given.counts.get(k, 0):,}", f"{chosen[k]:,}"]
        for k, words in kinds.items()
        if given.counts.get(k) or chosen[k]
    ]
    records = phrase("records-of", sources="; ".join(given.sources))
    return page(
        "search", phrase("search-title"),
        columns(
            [[para(given.price["sentence"]), para(records, small=True) if given.sources else None],
             [table(phrases_of("", "search-found", "search-chosen"), rows, widths=(1.6, 0.8, 0.8)) if rows else None]],
            (1.25, 1),
        ),
        filling(lambda h: map_svg(given.subject, given.around, given.chosen, given.base_map, search, given.width, h, whole=True), (320, 430, 490, 540, 590), phrase("search-map-alt"),
                joined(phrase("search-map-key"), f"{also}." if also else "")),
        lead=phrase("search-lead", found=sum(given.counts.values()), chosen=len(given.chosen)),
    )  # fmt: skip
