"""Four readings of the homes around: what the market paid, is about to pay, competes with, and refused."""

from __future__ import annotations

from collections.abc import Callable, Mapping, Sequence
from typing import Any

import numpy as np

from ...core.facts.local_form import USUAL, LocalForm, OwnWords, Quantity, told, told_head
from ...core.facts.money import dollars, priced
from ...core.phrases import joined, phrase, phrases_of, sentence_case
from ...core.statistics.summary import DISPLAY_STEP, summarise
from ..blocks import Block, Nothing, card, columns, heading, homes, page, para, picture, table
from ..model import ReportInput
from ..pictures.asks import asks_svg, asks_words
from ..pictures.size import size_svg
from ..speaking import SOLD, Home, spoken_of
from ..wording import blank, day, distance, per_sqft_alone
from .telling import differs, facts_line_short, home_card, name_of, of_words, prices_of

# reading → the kinds of record that it is of
KINDS = {"sold": SOLD, "under_contract": ("under_contract",), "for_sale": ("for_sale",), "failed": ("failed",)}
ROWS, CARDS, INSIDE, SHORT = 24, 6, 3, 4
LEAST = 3  # homes of which it is said how many stand above the list price
STATISTICS = ("price", "price_per_sqft", "living_area", "days_on_market", "list_price", "share_of_list")
_MEASURED = {"living_area": "sq ft", "price_per_sqft": "$/sq ft"}


def reading(what: str, kind: str, **values: str | int) -> str:
    """What a reading says in its place, as its title or its lesson."""
    return phrase(f"reading-{what}{kind}", **values)


def statistic_label(name: str) -> str:
    return phrase(f"statistics-{name}")


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
        return phrase("reading-no-price", n=len(found))
    told = {"low": priced(prices.low), "high": priced(prices.high), "median": priced(prices.median)}
    return joined(
        phrase("reading-prices" if n > 1 else "reading-one-price", n=n, **told),
        _took(kind, days, n) if days else "",
        _above(given, found, n),
    )


def _took(kind: str, days: Sequence[int], homes: int) -> str:
    """How long they took, the median where there are several."""
    took = reading("took-", kind, n=int(np.median(days)), homes=homes)
    return phrase("reading-took-median" if len(days) > 1 else "reading-took-alone", took=took, n=len(days))


def _above(given: ReportInput, found: Sequence[Home], n: int) -> str:
    """How many of them stand above the list price; "" for few."""
    ask = given.list_price if given.paper.price == "shown" else None
    if not ask or n < LEAST:
        return ""
    above = sum(bool(c["price"]) and c["price"] > ask for c in found)
    return phrase("reading-above-the-list-price", above=above, n=n, price=priced(ask))


def reading_page(kind: str) -> Any:
    def make(given: ReportInput) -> dict[str, Any] | Nothing:
        spoken = spoken_of(given, kind)
        found = [c for c in spoken.homes if c["price"]]
        if not found:
            return Nothing(reading("none-", kind))
        rows = max(
            ROWS, sum(given.number_of(c["listing_id"]) is not None for c in found)
        )  # every chosen one stands there
        more = len(found) - rows
        ask = given.list_price if given.paper.price == "shown" else None
        drawn = _picture(given, kind, found, ask)
        return page(
            kind, reading("", kind),
            para(joined(reading("lesson-", kind), of_words(spoken))),
            *_cards(given, found),
            *_inside(given, kind, found),
            drawn,
            _table(given, kind, found[:rows]),
            para(phrase("reading-more", n=more), small=True) if more > 0 else None,
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
        with_home = given.paper.price == "shown" and given.subject["facts"].get("living_area")
        key = phrase("reading-sold-key-with-home" if with_home else "reading-sold-key")
        return picture(drawn, phrase("reading-sold-alt"), key) if drawn else None
    if kind == "under_contract":
        return None
    drawn = asks_svg(numbered, ask, given.width)
    return picture(drawn, phrase("reading-asks-alt"), asks_words(len(found))) if drawn else None


def _table(given: ReportInput, kind: str, found: Sequence[Home]) -> Block:
    rows = [
        [
            phrase("numbered-home", number=str(n), home=name_of(c)) if (n := given.number_of(c["listing_id"])) else name_of(c), facts_line_short(c).split(" · $")[0], blank(day(c["date"])), dollars(c["price"]),
            per_sqft_alone(c["price_per_sqft"], 0),
            "" if c["days_on_market"] is None else f"{c['days_on_market']:,}", blank(distance(c["distance_miles"])),
        ]
        for c in found
    ]  # fmt: skip
    homes_, price = (
        phrases_of("head-home", ""),
        phrases_of("head-price-in-dollars", "head-per-square-foot", "head-days", "head-miles"),
    )
    return table(
        [*homes_, reading("day-", kind), *price],
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
    return [heading(phrase("reading-inside")), homes(cards)] if cards else []


def _shown(name: str) -> Callable[[float | None], str]:
    if name in ("price", "list_price"):
        return dollars
    if unit := _MEASURED.get(name):
        return lambda v: "" if v is None else Quantity(v, unit)
    form = "{:.1f} %" if name == "share_of_list" else "{:,.0f}"
    return lambda v: "" if v is None else form.format(v)


def statistics_page(given: ReportInput) -> dict[str, Any] | Nothing:
    """Count, low, high, mean, median and mode by kind of record: of the chosen, and of all found."""
    of_found = "found" if len(given.around) == sum(given.counts.values()) else "most-alike"
    sets = (("chosen", given.chosen), (of_found, given.around))
    parts = [(phrase(f"statistics-{word}", n=len(homes_)), homes_) for word, homes_ in sets if homes_]
    if not parts:
        return Nothing(phrase("statistics-none"))
    blocks: list[Block | None] = []
    for name in (n for n in given.paper.statistics or STATISTICS if n in STATISTICS):
        rows = []
        for word, told_of in parts:
            for kind, kinds in KINDS.items():
                s = summarise(
                    [value_of(c, name) for c in told_of if c["price"] and c["kind"] in kinds], DISPLAY_STEP[name]
                )
                if s.count:
                    show = _shown(name)
                    mode = one_or_two([show(v) for v in s.modes], given.brand.form)
                    rows.append(
                        [
                            reading("short-", kind),
                            word,
                            str(s.count),
                            show(s.low),
                            show(s.mean),
                            show(s.median),
                            mode,
                            show(s.high),
                        ]
                    )
        if rows:
            with_mode = any(r[6] for r in rows)
            told_heads = phrases_of(
                "", "", "head-homes", "head-low", "head-mean", "head-median", "head-mode", "head-high"
            )
            widths = [1.3, 1.4, 0.7, 1.0, 1.0, 1.0, 1.0, 1.0]
            kept = [k for k in range(8) if with_mode or k != 6]
            blocks += [
                heading(told_head(statistic_label(name), given.brand.form, _MEASURED.get(name, ""))),
                table(
                    [told_heads[k] for k in kept],
                    [[r[k] for k in kept] for r in rows],
                    words=2,
                    widths=[widths[k] for k in kept],
                ),
            ]
    if not blocks:
        return Nothing(phrase("statistics-unknown"))
    words = [word for word, _ in parts]
    lead = phrase("statistics-both", first=words[0], second=words[1]) if len(words) == 2 else words[0]
    note = para(phrase("statistics-note"), small=True)
    return page("statistics", phrase("statistics-title"), *blocks, note, lead=sentence_case(lead) + ".")


def one_or_two(modes: Sequence[str], form: LocalForm = USUAL) -> str:
    """One mode, or two that tie; "" where there is none, or more tie than tell anything. form: in which the two are told, since
    what holds two quantities is none itself."""
    if len(modes) == 2:
        first, second = (told(m, form) for m in modes)
        return OwnWords(phrase("two-modes", first=first, second=second))
    return modes[0] if len(modes) == 1 else ""
