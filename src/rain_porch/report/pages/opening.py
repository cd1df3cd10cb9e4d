"""The first pages: cover, letter, the home with its history, the search and its map."""

from __future__ import annotations

from collections.abc import Mapping
from typing import Any

from ...core.facts.dates import said
from ...core.facts.money import dollars, priced
from ..blocks import Block, figures, heading, page, para, picture, ruled, table
from ..model import ReportInput
from ..pictures.maps import map_svg
from ..wording import day, fact, facts_line, label, range_name

HOME_ROWS = (
    "living_area", "below_grade_finished_area", "basement", "bedrooms_total", "bathrooms", "stories",
    "architectural_style", "year_built", "property_condition", "garage_spaces", "lot_size_square_feet",
    "fireplaces_total", "heating", "cooling", "pool_private_yn", "waterfront_yn", "subdivision_name",
    "tax_annual_amount", "tax_assessed_value",
)  # fmt: skip

IN_WORDS = {
    "summary": ("Summary", "The price and the map, on one page."),
    "home": ("The home", "What the records say of it, and its history."),
    "search": ("Where it was looked", "Which homes were looked at, and where they stand."),
    "sold": ("What buyers paid", "Sales nearby: what the market has agreed to."),
    "under_contract": ("What buyers are about to pay", "Homes with a buyer, not yet closed."),
    "for_sale": ("What this home competes with", "Homes that the same buyers will see."),
    "failed": ("What buyers refused", "Homes that were offered and did not sell."),
    "comps": ("The comps", "The sales most like this home, beside it."),
    "grid": ("The adjustments", "Each sale brought to this home, line by line."),
    "statistics": ("The figures by kind", "Low, middle and high of what was found."),
    "strategy": ("The price", "Ways to the number, and what it means for time."),
    "net": ("What would be left", "Proceeds line by line."),
    "market": ("The market around", "Prices, closings and homes for sale by month."),
    "size": ("Price and size", "Why a small home's price per square foot says little of a large one."),
    "housing": ("The housing around", "Kinds, ages, sizes, lots and taxes."),
    "tour": ("A drive past the comps", "In a good order, turn by turn."),
}


def price_block(given: ReportInput) -> Block | None:
    """The list price (else the indicated value) large, a ruled line where it is left blank, nothing where hidden."""
    if given.paper.price == "hidden":
        return None
    if given.paper.price == "blank":
        return ruled("List price")
    items = []
    if given.list_price:
        items.append(("List price", priced(given.list_price), "cedar"))
    value, span = given.price["indicated_value"], given.price["range"]
    if value:
        items.append(("Indicated value", priced(value), "moss"))
    if span:
        items.append((range_name(span), f"{priced(span['low'])} – {priced(span['high'])}", "slate"))
    return figures(items) if items else None


def cover_page(given: ReportInput) -> dict[str, Any]:
    by = " · ".join(v for k in ("name", "licence", "contact") if (v := given.agent.get(k)))
    front = given.pictures.get("") or map_svg(
        given.subject, (), given.comps, given.base_map, given.price["search"], 520, 300
    )
    return {
        "page": "cover",
        "title": given.paper.title or "What this home should be offered at",
        "address": given.title,
        "facts": facts_line(given.subject["facts"]),
        "client": given.client,
        "agent": by,
        "svg": front if given.paper.pictures else None,
        "price": price_block(given) if given.paper.cover_price else None,
        "logo": given.brand.logo,
        "portrait": given.brand.portrait,
        "date": day(given.price["effective_date"]),
    }


def letter_page(given: ReportInput) -> dict[str, Any]:
    """The agent's letter, else a short one that says what follows."""
    text = given.paper.letter or (
        f"These pages say what {given.title} is worth to buyers today, and how that was found. They look at homes like "
        f"it that were sold, are about to be sold, are for sale now, or did not sell; they adjust what was paid for what "
        f"differs; and they set a price against all of them. Every figure comes from recorded sales and listings up to "
        f"{said(given.through)}, and can be traced to them."
    )
    greeting = f"Dear {given.client}," if given.client else ""
    name = given.agent.get("name", "")
    paragraphs = [p for p in (greeting, *text.split("\n"), name) if p.strip()]
    follows = [[IN_WORDS[n][0], IN_WORDS[n][1]] for n in given.paper.pages if n in IN_WORDS]
    return page(
        "letter", "About these pages", *(para(p) for p in paragraphs),
        heading("What follows") if follows else None,
        table(["", ""], follows, words=2, widths=(1, 3)) if follows else None,
    )  # fmt: skip


TOLD = (
    "listed", "offered for lease", "sold", "leased", "deed", "expired", "withdrawn", "canceled", "assessed", "price changed",
    "rent changed",
)  # fmt: skip


def _paid(event: Mapping[str, Any]) -> str:
    """A price of the home's history; a rent says what it is for."""
    return (dollars(event["price"]) + (f" a {event['per']}" if event["per"] else "")) if event["price"] else "—"


def home_page(given: ReportInput) -> dict[str, Any]:
    facts = given.subject["facts"]
    year = given.subject.get("assessed_year")
    named = {"tax_assessed_value": f"{label('tax_assessed_value')}, {year}"} if year else {}
    rows = [[named.get(n, label(n)), v] for n in given.paper.facts or HOME_ROWS if (v := fact(facts, n)) != "—"]
    half = (len(rows) + 1) // 2
    right = [*rows[half:], *[["", ""]] * (half - len(rows[half:]))]
    past = [
        [day(p["date"]), p["what"].capitalize(), _paid(p)]
        for p in given.past
        if p["what"].removeprefix("lease ") in TOLD
    ][:16]
    front = given.pictures.get("") if given.paper.pictures else None
    return page(
        "home", "The home",
        picture(front, f"Front of {given.title}", width=0.62) if front else None,
        heading("Its facts"),
        table(["", "", "", ""], [[*a, *b] for a, b in zip(rows[:half], right, strict=True)], words=4, widths=(1.2, 1, 1.2, 1)),
        heading("Its history") if past else None,
        table(["Date", "", "Price"], past, words=2, widths=(1, 2, 1)) if past else None,
        lead=facts_line(facts),
    )  # fmt: skip


def search_page(given: ReportInput) -> dict[str, Any]:
    counts = ", ".join(f"{n} {k.replace('_', ' ')}" for k, n in given.counts.items() if n) or "nothing"
    search = given.price["search"]
    drawn = map_svg(given.subject, given.around, given.comps, given.base_map, search, 520, 430)
    inside, outside = (any(s["inside"] is side for s in search.get("shapes", ())) for side in (True, False))
    also = [
        words
        for there, words in (
            (inside, "dashed outline: looked inside"), (outside, "red outline: left out"),
            (search.get("fences"), "heavy line: a fence that no comp crosses"),
        )
        if there
    ]  # fmt: skip
    return page(
        "search", "Where it was looked",
        para(given.price["sentence"]),
        para(f"Records: {'; '.join(given.sources)}.", small=True) if given.sources else None,
        para(f"Found: {counts}. Of the sales, {len(given.comps)} are used as comps."),
        picture(drawn, "Map of the home, its comps and what is around",
                "House: the home. Numbered: comps. Discs: other sales; half discs: under contract; rings: for sale; "
                "slashed rings: failed to sell" + "".join(f"; {words}" for words in also) + "."),
    )  # fmt: skip
