"""The page that must do alone: the home, its price, why in three sentences, the rail and the map."""

from __future__ import annotations

from typing import Any

from ...core.facts.local_form import OwnWords
from ...core.facts.money import priced
from ...core.statistics.summary import summarise
from ..blocks import Block, columns, figures, filling, page, para, picture, ruled
from ..model import ReportInput
from ..pictures import ink
from ..pictures.maps import map_svg
from ..pictures.rail import rail_svg
from ..speaking import SOLD, spoken_of
from ..wording import day, facts_line, many, range_in_a_line, range_name, sentence_case

MAP_HEIGHTS = (110, 130, 150, 170, 190, 215, 250, 290, 340)
LONGEST = 240  # signs of the agent's own words that are one of the three sentences
MAP_KEY = (
    "House: this home. Numbered as on all pages: filled, sold; ring, for sale; ring with a heavy foot, under contract; "
    "ring with two strokes, did not sell. Small marks: the others found."
)


def price_figures(given: ReportInput, stacked: bool = False) -> Block | None:
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
    return figures(items, stacked) if items else None


def summary_page(given: ReportInput) -> dict[str, Any]:
    """The home, the price, three sentences, the rail, the map."""
    front = given.front_of("")
    others = spoken_of(given, "summary", ("for_sale", "under_contract", "failed")).homes
    told = [para(s, large=True) for s in sentences(given, others)]
    price = price_figures(given, stacked=bool(front))
    top: list[Block | None] = [price, *told]
    if front:
        top = [
            columns(
                [
                    [picture(front, f"Front of {given.title}")],
                    [price or (told.pop(0) if told else None), _how_sure(given)],
                ],
                (1.15, 1),
            ),
            *told,
        ]
    found = ", ".join(f"{n:,} {k.replace('_', ' ')}" for k, n in given.counts.items() if n) or "nothing"
    sources = f" Records: {'; '.join(given.sources)}." if given.sources else ""

    def drawn(height: float) -> str:
        return map_svg(
            given.subject, given.around, given.chosen, given.base_map, {}, given.width, height * given.width / ink.WIDE
        )

    lead = facts_line(given.subject["facts"])
    client = para(OwnWords(f"Prepared for {given.client}"), small=True) if given.client else None
    rail = _rail(given, others)
    return page(
        "summary", given.title, client, *top,
        picture(rail, "Price rail: sales above the line, homes not sold below it") if rail else None,
        filling(drawn, MAP_HEIGHTS, "Map of this home, the chosen homes and the others found", f"{MAP_KEY} {given.price['sentence']} Found: {found}.{sources}"),
        lead=lead,
    )  # fmt: skip


def _how_sure(given: ReportInput) -> Block | None:
    """What the range means, in a line."""
    span = given.price["range"]
    if not span or given.paper.price != "shown":
        return None
    meaning = "The indicated value is what these sales come to for this home, the most alike counting most."
    return para(f"{meaning} {range_in_a_line(span)}", small=True)


def _rail(given: ReportInput, others: Any) -> str:
    return price_rail(given, others) if given.price["comps"] or any(c["price"] for c in others) else ""


def price_rail(given: ReportInput, others: Any) -> str:
    """The rail of the chosen sales and of other homes; without value, range and list price where the price is not shown."""
    shown = given.paper.price == "shown"
    value, span, ask = (
        (given.price["indicated_value"], given.price["range"], given.list_price) if shown else (None, None, None)
    )
    return rail_svg(given.price["comps"], others, value, span, ask, given.width, given.numbers)


def sentences(given: ReportInput, others: Any) -> list[str]:
    """What sold, what competes, what that means: as many as the figures carry."""
    return [s for s in (_what_sold(given), _what_competes(given, others), _what_it_means(given)) if s]


def _what_sold(given: ReportInput) -> str:
    sold = [c for c in spoken_of(given, "summary", SOLD).homes if c["price"]]
    if not sold:
        return "No home like this one was found that has sold lately."
    s = summarise([c["price"] for c in sold], 1000)
    since = min(c["date"] for c in sold if c["date"]) if any(c["date"] for c in sold) else None
    span = f"{priced(s.low)} to {priced(s.high)}" if s.count > 1 else priced(s.low)
    when = f" since {day(since)}" if since else ""
    like = "like this one" if given.comps else "found here"
    out = f"{sentence_case(many(s.count, 'home'))} {like} sold{when}, for {span}"
    value = given.price["indicated_value"]
    if value and given.paper.price == "shown":
        return f"{out}; adjusted for what differs, {'they say' if s.count > 1 else 'it says'} {priced(value)}."
    return out + "."


def _what_competes(given: ReportInput, others: Any) -> str:
    asks = [c for c in others if c["kind"] == "for_sale" and c["price"]]
    if not asks:
        return (
            "Nothing like it is for sale here now." if given.knows_listings and not given.counts.get("for_sale") else ""
        )
    ask = given.list_price if given.paper.price == "shown" else None
    if len(asks) == 1:
        out = f"Buyers can also choose one home for sale, at {priced(asks[0]['price'])}"
        return out + (f", {'less' if asks[0]['price'] < ask else 'no less'} than this home asks." if ask else ".")
    s = summarise([c["price"] for c in asks], 1000)
    out = f"Buyers can also choose among {s.count:,} homes for sale from {priced(s.low)} to {priced(s.high)}"
    if not ask:
        return out + "."
    less = sum(c["price"] < ask for c in asks)
    ask_less = {0: "none of them asks", 1: "1 of them asks"}.get(less, f"{less} of them ask")
    if less == s.count:
        ask_less = "both ask" if less == 2 else "all of them ask"
    return f"{out}; {ask_less} less than this home."


def _what_it_means(given: ReportInput) -> str:
    if given.paper.price != "shown":
        return ""
    own = given.own_words.strip().split("\n")[0]
    if own and len(own) <= LONGEST:
        return OwnWords(own)
    value = given.price["indicated_value"]
    if not (given.list_price and value):
        return ""
    out = f"{priced(given.list_price)} is {against(given.list_price, value)}"
    here = next((p for p in (given.asking or {}).get("prices", ()) if p["own"] and p["chances"]), None)
    if given.asking is None or here is None:
        return out + "."
    chance = here["chances"][given.asking["within_days"].index(30)].removesuffix(" %")
    return f"{out}; about {chance} of 100 homes asked so find a buyer within 30 days."


def against(price: float, value: float) -> str:
    """ "12.7 % below the indicated value"."""
    pct = 100 * (price - value) / value
    if not round(pct, 1):
        return "the indicated value"
    return f"{abs(pct):.1f} % {'above' if pct > 0 else 'below'} the indicated value"
