"""The chosen homes: one row each, beside this home line by line, and a sheet each."""

from __future__ import annotations

import math
from collections.abc import Mapping, Sequence
from typing import Any

from ...core.facts.fields import line_label
from ...core.facts.local_form import OwnWords
from ...core.facts.money import adding_up, dollars, half_up, priced
from ...core.phrases import continued, joined, phrase, phrases_of, sentence_case
from ..blocks import (
    Block,
    Nothing,
    card,
    columns,
    glance,
    head_of_column,
    heading,
    homes,
    line_of,
    matrix,
    page,
    para,
    picture,
    table,
)
from ..model import ReportInput
from ..pictures.bars import bars_svg
from ..pictures.maps import map_svg
from ..pictures.size import size_svg
from ..speaking import SOLD, Home, spoken_of
from ..wording import UNKNOWN, blank, day, distance, fact, facts_line, label, per_sqft_alone
from .telling import asked_or_paid, differs, front_alt, name_of, pace_of, prices_of, status_of

PER_BLOCK = 6
FACT_ROWS = ("living_area", "bedrooms_total", "bathrooms", "garage_spaces", "lot_size_square_feet", "year_built")
SHEET_FACTS = ("living_area", "below_grade_finished_area", "bedrooms_total", "bathrooms", "garage_spaces", "lot_size_square_feet",
               "year_built", "stories", "architectural_style", "property_condition", "fireplaces_total", "heating", "cooling")  # fmt: skip
GLANCE_MOST, SHEETS_MOST, INSIDE = 200, 100, 4
ROWS_A_PAGE, ROOM, FEW = 13, 590.0, 4  # rows that a page holds; points for them; so few that a picture fits beneath


def comps_page(given: ReportInput) -> dict[str, Any] | Nothing:
    """One row a home: its picture, what it brought or asks, when, and what differs in words."""
    spoken = spoken_of(given, "comps")
    if not spoken.homes:
        return Nothing(phrase("chosen-none"))
    rows = [
        {
            "number": given.number_of(c["listing_id"]), "svg": given.front_of(c["listing_id"]), "title": name_of(c),
            "facts": facts_line(c["facts"]), "price": asked_or_paid(c), "status": sentence_case(status_of(c)),
            "pace": pace_of(c), "differs": differs(c), "alt": front_alt(c),
        }
        for c in spoken.homes[:GLANCE_MOST]
    ]  # fmt: skip
    prices = [c["price"] for c in spoken.homes if c["kind"] in SOLD and c["price"]]
    more = len(spoken.homes) - len(rows)
    sheets = math.ceil(len(rows) / ROWS_A_PAGE)
    each = math.ceil(len(rows) / sheets)  # pages that are equally full, their pictures as large as that allows
    thumb = max(64.0, min(150.0, 1.5 * (ROOM / each - 8)))
    over = phrases_of("", "glance-home", "glance-price", "glance-differs")
    parts = [glance(rows[i : i + each], over, thumb, first=i == 0) for i in range(0, len(rows), each)]
    told: list[Block | None] = [
        *parts,
        para(phrase("and-more", n=more), small=True) if more else None,
        *_by_size(given, spoken.homes, each),
    ]
    lead = f"{sentence_case(spoken.words)}."
    if len(prices) > 1:
        lead = joined(lead, phrase("comps-sales-brought", low=priced(min(prices)), high=priced(max(prices))))
    return page("comps", phrase("comps-title"), *told, lead=lead)


def _by_size(given: ReportInput, found: Sequence[Home], each: int) -> list[Block | None]:
    """Where few homes leave room: each by its size and price, this home among them."""
    shown = given.paper.price == "shown"
    price = (given.list_price or given.price["indicated_value"]) if shown else None
    area = given.subject["facts"].get("living_area")
    drawn = (
        size_svg(
            [(given.number_of(c["listing_id"]), c) for c in found], area, price, given.width, 190, form=given.brand.form
        )
        if each <= FEW
        else ""
    )
    if not drawn:
        return []
    return [
        heading(phrase("by-size-title")),
        picture(drawn, phrase("by-size-alt"), phrase("by-size-key") if area and price else ""),
    ]


def beside_page(given: ReportInput) -> dict[str, Any] | Nothing:
    """The sales line by line beside this home, six to a block."""
    sold = spoken_of(given, "beside").homes[:GLANCE_MOST]
    if not sold:
        return Nothing(phrase("beside-none"))
    mine = given.subject["facts"]
    blocks = []
    for first in range(0, len(sold), PER_BLOCK):
        part = sold[first : first + PER_BLOCK]
        rows = [
            [phrase("line-sold-for"), "", *(dollars(c["price"]) for c in part)],
            [phrase("beside-on"), "", *(blank(day(c["date"])) for c in part)],
            [phrase("beside-per-square-foot"), "", *(per_sqft_alone(c["price_per_sqft"]) for c in part)],
            [phrase("beside-miles-away"), "", *(blank(distance(c["distance_miles"])) for c in part)],
            [phrase("line-days-on-market"), "", *("" if c["days_on_market"] is None else f"{c['days_on_market']:,}" for c in part)],
            *([label(n), *(blank(v) for v in (fact(mine, n), *(fact(c["facts"], n) for c in part)))] for n in FACT_ROWS),
            [phrase("line-likeness"), "", *(f"{c['likeness']:.0f}" for c in part)],
        ]  # fmt: skip
        flags = [", ".join(c["flags"]) for c in part]
        rows += [[phrase("beside-note"), "", *flags]] if any(flags) else []
        heads = [
            head_of_column(given.number_of(c["listing_id"]), name_of(c), given.front_of(c["listing_id"])) for c in part
        ]
        blocks.append(
            matrix(
                heads,
                [line_of(r, strong=i == 0) for i, r in enumerate(rows) if any(r[1:])],
                PER_BLOCK,
                mine=phrase("beside-mine"),
            )
        )
    return page("beside", phrase("beside-title"), *blocks, lead=_likest(sold))


def _likest(sold: Sequence[Home]) -> str:
    best = max(sold, key=lambda c: c["likeness"])
    told = differs(best, 3)
    return phrase("beside-likest", home=name_of(best), differs=continued(told))


def comp_sheets(given: ReportInput) -> list[dict[str, Any]] | Nothing:
    """A sheet for each home: pictures, it beside this home, what differs in dollars, where it stands."""
    spoken = spoken_of(given, "sheets")
    if not spoken.homes:
        return Nothing(phrase("chosen-none"))
    worth = {c["listing_id"]: c for c in given.price["comps"]}
    return [
        _sheet(given, given.number_of(c["listing_id"]), c, worth.get(c["listing_id"]))
        for c in spoken.homes[:SHEETS_MOST]
    ]


def _sheet(given: ReportInput, number: int | None, home: Home, worth: Mapping[str, Any] | None) -> dict[str, Any]:
    front = given.front_of(home["listing_id"])
    inside = given.inside.get(home["listing_id"], ())[:INSIDE] if given.paper.pictures else ()
    shown = given.paper.price == "shown" and worth is not None
    small_map = None
    if home["latitude"] is not None:
        tall = 140 if front else 92
        drawn = (
            map_svg(given.subject, [home], (), given.base_map, {}, 166, tall, whole=True)
            if number is None
            else map_svg(given.subject, (), [home], given.base_map, {}, 166, tall, numbers=[number])
        )
        small_map = picture(drawn, phrase("sheet-map-alt", home=name_of(home)))
    rooms = homes([card(svg, "", alt=OwnWords(caption)) for caption, svg in inside], INSIDE)
    top = (
        columns([[picture(front, front_alt(home)), rooms], [prices_of(home), small_map]], (350, 166))
        if front
        else columns([[prices_of(home)], [small_map]], (350, 166))
    )
    below: list[Block | None] = [_beside(given, home)]
    if shown and worth is not None:
        steps, adjusted = steps_of(worth)
        bars = picture(bars_svg(half_up(worth["close_price"]), steps, adjusted, 254), phrase("sheet-bars-alt"))
        below = [columns([below, [heading(phrase("sheet-brought")), bars]], (255, 255))]
    return page(
        f"sheet {home['listing_id']}",
        name_of(home) if number is None else phrase("numbered-home", number=str(number), home=name_of(home)),
        para(differs(home)),
        top,
        *below,
        lead=_sheet_lead(home, worth if shown else None),
        flow=not front,
    )


def steps_of(worth: Mapping[str, Any]) -> tuple[list[tuple[str, float]], float]:
    """(name, whole dollars) of each line that moves the price, so that with the close price they add up to the adjusted price."""
    lines = [(line_label(a["field"]), a["amount"]) for a in worth["adjustments"] if a["amount"]]
    paid, adjusted = half_up(worth["close_price"]), half_up(worth["adjusted_price"])
    shown = adding_up([v for _, v in lines], adjusted - paid)
    return [(n, v) for (n, _), v in zip(lines, shown, strict=True) if v], adjusted


def _beside(given: ReportInput, home: Home) -> Block:
    mine, theirs = given.subject["facts"], home["facts"]
    both = [(label(n), fact(theirs, n), fact(mine, n)) for n in SHEET_FACTS]
    rows = [
        [n, blank(a), blank(b), "≠" if UNKNOWN not in (a, b) and a != b else ""]
        for n, a, b in both
        if (a, b) != (UNKNOWN, UNKNOWN)
    ]
    return table(phrases_of("", "sheet-this-one", "sheet-your-home", ""), rows, widths=(1.5, 1.2, 1.2, 0.2))


def _sheet_lead(home: Home, worth: Mapping[str, Any] | None) -> str:
    told: dict[str, str | int] = {"price": asked_or_paid(home), "status": status_of(home)}
    if home["kind"] in SOLD:
        told["status"] = sentence_case(status_of(home))
        if worth is None:
            return phrase("sheet-paid", **told)
        return phrase("sheet-paid-and-worth", **told, worth=priced(worth["adjusted_price"]))
    asks = "asked" if home["kind"] == "failed" else "asks"
    days = home["days_on_market"]
    return phrase(f"sheet-{asks}", **told) if days is None else phrase(f"sheet-{asks}-for-days", **told, n=days)
