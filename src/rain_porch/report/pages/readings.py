"""Four readings of the homes around: what the market paid, is about to pay, competes with, and refused."""

from __future__ import annotations

from collections.abc import Callable, Mapping, Sequence
from typing import Any

import numpy as np

from ...core.facts.local_form import OwnWords, Quantity, told_head
from ...core.facts.money import dollars, priced
from ...core.statistics.summary import DISPLAY_STEP, summarise
from ..blocks import Block, Nothing, card, columns, heading, homes, page, para, picture, table
from ..model import ReportInput
from ..pictures.asks import asks_svg, asks_words
from ..pictures.size import size_svg
from ..speaking import SOLD, Home, spoken_of
from ..wording import blank, day, distance, many, per_sqft_alone, sentence_case
from .telling import differs, facts_line_short, home_card, name_of, of_words, prices_of

KINDS = {
    "sold": ("What buyers paid", "Sold", SOLD),
    "under_contract": ("What buyers are about to pay", "Under contract", ("under_contract",)),
    "for_sale": ("What this home competes with", "For sale", ("for_sale",)),
    "failed": ("What buyers refused", "Failed to sell", ("failed",)),
}
LESSON = {
    "sold": "Closed sales are what the market has agreed to; they count most.",
    "under_contract": "A buyer has been found at or near these prices: the newest sign of what the market accepts.",
    "for_sale": "Buyers will see these on the same day. They show what is asked, not what is paid.",
    "failed": "Offered and taken off without a sale: mostly a price above what buyers saw in the home.",
}
ROWS, CARDS, INSIDE, SHORT = 24, 6, 3, 4
STATISTICS = {
    "price": "Price", "price_per_sqft": "Price per sq ft", "living_area": "Living area, sq ft",
    "days_on_market": "Days on market", "list_price": "List price", "share_of_list": "Share of list",
}  # fmt: skip


_MEASURED = {"living_area": "sq ft", "price_per_sqft": "$/sq ft"}


def value_of(home: Mapping[str, Any], name: str) -> float:
    if name == "share_of_list":  # in percent; of what was sold
        sold = home["kind"] == "sold" and home["price"] and home["list_price"]
        return 100 * home["price"] / home["list_price"] if sold else float("nan")
    value = home["facts"].get(name) if name == "living_area" else home[name]
    return float("nan") if value is None else float(value)


def says(given: ReportInput, kind: str, found: Sequence[Home]) -> str:
    """One sentence or two from the figures, careful where they are few."""
    prices = summarise([c["price"] for c in found], 1000)
    days = [c["days_on_market"] for c in found if c["days_on_market"] is not None]
    n = prices.count
    if not n:
        return f"{many(len(found), 'home')}; no price is recorded."
    out = f"{many(n, 'home')}, {priced(prices.low)}"
    out += f" to {priced(prices.high)}, median {priced(prices.median)}." if n > 1 else "."
    if days:
        took = {"sold": "Found a buyer in", "under_contract": "Found a buyer in", "for_sale": "On the market for",
                "failed": "Were offered for" if n > 1 else "Was offered for"}[kind]  # fmt: skip
        middle = int(np.median(days))
        out += f" {took} {many(middle, 'day')}" + (f" (median of {len(days)})." if len(days) > 1 else ".")
    ask = given.list_price if given.paper.price == "shown" else None
    if ask and n >= 3:
        above = sum(bool(c["price"]) and c["price"] > ask for c in found)
        out += (
            f" {above or 'None'} of the {n} {'stands' if above < 2 else 'stand'} above the list price of {priced(ask)}."
        )
    return out


def reading_page(kind: str) -> Any:
    title, short, _ = KINDS[kind]

    def make(given: ReportInput) -> dict[str, Any] | Nothing:
        spoken = spoken_of(given, kind)
        found = [c for c in spoken.homes if c["price"]]
        if not found:
            return Nothing(f"{short}: none is chosen, and the search finds none.")
        rows = max(
            ROWS, sum(given.number_of(c["listing_id"]) is not None for c in found)
        )  # every chosen one stands there
        more = len(found) - rows
        ask = given.list_price if given.paper.price == "shown" else None
        drawn = _picture(given, kind, found, ask)
        return page(
            kind, title,
            para(f"{LESSON[kind]} {of_words(spoken)}"),
            *_cards(given, found),
            *_inside(given, kind, found),
            drawn,
            _table(given, kind, found[:rows]),
            para(f"And {more:,} more, less like this home.", small=True) if more > 0 else None,
            lead=says(given, kind, found),
            flow=kind != "sold" and len(found) <= SHORT,
        )  # fmt: skip

    return make


def _cards(given: ReportInput, found: Sequence[Home]) -> list[Block | None]:
    """The first homes with their pictures, large where they are few; one alone beside its prices."""
    pictured = [c for c in found if given.front_of(c["listing_id"])][:CARDS]
    if len(pictured) == 1 and len(found) == 1:
        return [
            columns(
                [[homes([home_card(given, pictured[0], 1)], 1)], [prices_of(found[0]), para(differs(found[0]))]], (1, 1)
            )
        ]
    return [homes([home_card(given, c) for c in pictured], {2: 2, 4: 4}.get(len(pictured), 3))]


def _picture(given: ReportInput, kind: str, found: Sequence[Home], ask: float | None) -> Block | None:
    numbered = [(given.number_of(c["listing_id"]), c) for c in found]
    if kind == "sold":
        drawn = size_svg(
            numbered,
            given.subject["facts"].get("living_area"),
            ask or (given.price["indicated_value"] if given.paper.price == "shown" else None),
            given.width,
            190,
            form=given.brand.form,
        )
        words = "Each sale by its size and price" + (
            "; the house is your home."
            if given.paper.price == "shown" and given.subject["facts"].get("living_area")
            else "."
        )
        return picture(drawn, "Sales by size and price", words) if drawn else None
    if kind == "under_contract":
        return None
    drawn = asks_svg(numbered, ask, given.width)
    return picture(drawn, "What they ask", asks_words(len(found))) if drawn else None


def _table(given: ReportInput, kind: str, found: Sequence[Home]) -> Block:
    first = {"sold": "sold", "under_contract": "under contract", "for_sale": "listed", "failed": "taken off"}[kind]
    rows = [
        [
            f"{n}. {name_of(c)}" if (n := given.number_of(c["listing_id"])) else name_of(c), facts_line_short(c).split(" · $")[0], blank(day(c["date"])), dollars(c["price"]),
            per_sqft_alone(c["price_per_sqft"], 0),
            "" if c["days_on_market"] is None else f"{c['days_on_market']:,}", blank(distance(c["distance_miles"])),
        ]
        for c in found
    ]  # fmt: skip
    return table(
        ["home", "", first, "price, $", "$/sq ft", "days", "miles"],
        rows,
        words=2,
        widths=(2, 1.7, 1.05, 0.9, 0.75, 0.6, 0.6),
    )


def _inside(given: ReportInput, kind: str, found: Sequence[Home]) -> list[Block | None]:
    """The rooms of the homes that this one competes with, where there are pictures of them."""
    if kind != "for_sale" or not given.paper.pictures:
        return []
    cards = []
    for c in found[:2]:
        cards += [
            card(svg, OwnWords(caption), lines=[name_of(c)])
            for caption, svg in given.inside.get(c["listing_id"], ())[:INSIDE]
        ]
    return [heading("Inside the nearest of them"), homes(cards)] if cards else []


def _shown(name: str) -> Callable[[float | None], str]:
    if name in ("price", "list_price"):
        return dollars
    if unit := _MEASURED.get(name):
        return lambda v: "" if v is None else Quantity(v, unit)
    form = "{:.1f} %" if name == "share_of_list" else "{:,.0f}"
    return lambda v: "" if v is None else form.format(v)


def statistics_page(given: ReportInput) -> dict[str, Any] | Nothing:
    """Count, low, high, mean, median and mode by kind of record: of the chosen, and of all found."""
    found = "found" if len(given.around) == sum(given.counts.values()) else "most alike of those found"
    sets = (("chosen", given.chosen), (found, given.around))
    parts = [(f"of the {len(homes_):,} {word}", homes_) for word, homes_ in sets if homes_]
    if not parts:
        return Nothing("Nothing is chosen and nothing is found: widen the search in Comps.")
    blocks: list[Block | None] = []
    for name in (n for n in given.paper.statistics or STATISTICS if n in STATISTICS):
        rows = []
        for word, told_of in parts:
            for _, short, kinds in KINDS.values():
                s = summarise(
                    [value_of(c, name) for c in told_of if c["price"] and c["kind"] in kinds], DISPLAY_STEP[name]
                )
                if s.count:
                    show = _shown(name)
                    mode = " or ".join(show(v) for v in s.modes[:2]) if s.modes and len(s.modes) <= 2 else ""
                    rows.append(
                        [short, word, str(s.count), show(s.low), show(s.mean), show(s.median), mode, show(s.high)]
                    )
        if rows:
            told = any(r[6] for r in rows)  # a mode, where there is one
            heads, widths = (
                ["", "", "homes", "low", "mean", "median", "mode", "high"],
                [1.3, 1.4, 0.7, 1.0, 1.0, 1.0, 1.0, 1.0],
            )
            kept = [k for k in range(8) if told or k != 6]
            blocks += [
                heading(told_head(STATISTICS[name], given.brand.form, _MEASURED.get(name, ""))),
                table(
                    [heads[k] for k in kept],
                    [[r[k] for k in kept] for r in rows],
                    words=2,
                    widths=[widths[k] for k in kept],
                ),
            ]
    if not blocks:
        return Nothing("No figure is known of these homes.")
    return page("statistics", "The figures by kind", *blocks, para("What was paid and what is asked make no one figure; a mode that more than two values share is left out.", small=True),
                lead=sentence_case(" and ".join(word for word, _ in parts)) + ".")  # fmt: skip
