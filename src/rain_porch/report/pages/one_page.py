"""The page that must do alone: the home, its price, why in three sentences, the rail and the map."""

from __future__ import annotations

from typing import Any

from ...core.facts.local_form import OwnWords
from ...core.facts.money import priced
from ...core.phrases import joined, phrase
from ...core.statistics.summary import summarise
from ..blocks import Block, columns, figures, filling, page, para, picture, ruled
from ..model import ReportInput
from ..pictures import ink
from ..pictures.maps import map_svg
from ..pictures.rail import rail_svg
from ..speaking import SOLD, spoken_of
from ..wording import day, facts_line, range_in_a_line, range_name

MAP_HEIGHTS = (110, 130, 150, 170, 190, 215, 250, 290, 340)
WITHIN = 30  # days, for which the chance of a contract is told
LONGEST = 240  # signs of the agent's own words that are one of the three sentences


def price_figures(given: ReportInput, stacked: bool = False) -> Block | None:
    """The list price (else the indicated value) large, a ruled line where it is left blank, nothing where hidden."""
    if given.paper.price == "hidden":
        return None
    if given.paper.price == "blank":
        return ruled(phrase("line-list-price"))
    items = []
    if given.list_price:
        items.append((phrase("line-list-price"), priced(given.list_price), "cedar"))
    value, span = given.price["indicated_value"], given.price["range"]
    if value:
        items.append((phrase("line-indicated-value"), priced(value), "moss"))
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
                    [picture(front, phrase("front-of", home=given.title))],
                    [price or (told.pop(0) if told else None), _how_sure(given)],
                ],
                (1.15, 1),
            ),
            *told,
        ]
    caption = joined(
        phrase("one-page-map-key"),
        given.price["sentence"],
        _found(given),
        phrase("records-of", sources="; ".join(given.sources)) if given.sources else "",
    )

    def drawn(height: float) -> str:
        return map_svg(
            given.subject, given.around, given.chosen, given.base_map, {}, given.width, height * given.width / ink.WIDE
        )

    lead = facts_line(given.subject["facts"])
    client = para(OwnWords(phrase("prepared-for-client", client=given.client)), small=True) if given.client else None
    rail = _rail(given, others)
    return page(
        "summary", given.title, client, *top,
        picture(rail, phrase("rail-alt")) if rail else None,
        filling(drawn, MAP_HEIGHTS, phrase("one-page-map-alt"), caption),
        lead=lead,
    )  # fmt: skip


def _found(given: ReportInput) -> str:
    """How many of each kind the search finds."""
    counts = [phrase(f"found-{k}", n=n) for k, n in given.counts.items() if n]
    return phrase("one-page-found", found=", ".join(counts)) if counts else phrase("one-page-found-nothing")


def _how_sure(given: ReportInput) -> Block | None:
    """What the range means, in a line."""
    span = given.price["range"]
    if not span or given.paper.price != "shown":
        return None
    return para(joined(phrase("one-page-value-meaning"), range_in_a_line(span)), small=True)


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
        return phrase("one-page-none-sold")
    s = summarise([c["price"] for c in sold], 1000)
    days = [c["date"] for c in sold if c["date"]]
    value = given.price["indicated_value"] if given.paper.price == "shown" else None
    return phrase(
        "one-page-sold-and-says" if value else "one-page-sold-alone",
        n=s.count, low=priced(s.low), high=priced(s.high), value=priced(value) if value else "",
        like="chosen" if given.comps else "found", since=day(min(days)) if days else "none",
    )  # fmt: skip


def _what_competes(given: ReportInput, others: Any) -> str:
    asks = [c["price"] for c in others if c["kind"] == "for_sale" and c["price"]]
    if not asks:
        silent = not given.knows_listings or given.counts.get("for_sale")
        return "" if silent else phrase("one-page-nothing-for-sale")
    ask = given.list_price if given.paper.price == "shown" else None
    if len(asks) == 1:
        beside = "-alone" if not ask else "-less" if asks[0] < ask else "-no-less"
        return phrase(f"one-page-one-for-sale{beside}", price=priced(asks[0]))
    less = sum(price < ask for price in asks) if ask else 0
    beside = "-alone" if not ask else "-all-less" if less == len(asks) else "-less"
    return phrase(f"one-page-for-sale{beside}", n=len(asks), low=priced(min(asks)), high=priced(max(asks)), less=less)


def _what_it_means(given: ReportInput) -> str:
    if given.paper.price != "shown":
        return ""
    own = given.own_words.strip().split("\n")[0]
    if own and len(own) <= LONGEST:
        return OwnWords(own)
    value = given.price["indicated_value"]
    if not (given.list_price and value):
        return ""
    told = {"price": priced(given.list_price), "against": against(given.list_price, value)}
    here = next((p for p in (given.asking or {}).get("prices", ()) if p["own"] and p["chances"]), None)
    if given.asking is None or here is None:
        return phrase("one-page-price-is", **told)
    chance = here["chances"][given.asking["within_days"].index(WITHIN)].removesuffix(" %")
    return phrase("one-page-price-is-with-chance", **told, chance=chance, days=WITHIN)


def against(price: float, value: float) -> str:
    """ "12.7 % below the indicated value"."""
    pct = 100 * (price - value) / value
    if not round(pct, 1):
        return phrase("against-the-value")
    return phrase("against-above" if pct > 0 else "against-below", pct=f"{abs(pct):.1f}")
