"""A page for the seller while the home is for sale: how long, what came and went around it, what its price gives now."""

from __future__ import annotations

import datetime as dt
from collections.abc import Mapping
from typing import Any

from ...core.facts.dates import said
from ...core.facts.money import dollars, priced, signed_pct
from ...core.phrases import phrase, phrases_of
from ..blocks import Nothing, figures, heading, listed, page, para, table
from ..model import ReportInput
from .price import as_sentences, chances_by_price

_CAME, _WENT = ("new", "back"), ("contract", "closed", "failed", "held")


def while_for_sale_page(given: ReportInput) -> dict[str, Any] | Nothing:
    told = given.while_for_sale
    if told is None:
        return Nothing(phrase("while-not-for-sale"))
    if given.paper.price != "shown":
        return Nothing(phrase("price-not-shown"))
    chance, price = told["chance"], told["list_price"]
    steps = [
        [said(dt.date.fromisoformat(day)), dollars(before), dollars(after), signed_pct(100 * (after / before - 1))]
        for day, before, after in told["steps"]
    ]
    rows = [
        [said(dt.date.fromisoformat(c["date"])), told["labels"][c["what"]], c["record"]["address"] or c["record"]["listing_id"],
         "" if (p := c["new"] or c["price"]) is None else dollars(p), dollars(c["old"]) if c["old"] and c["new"] else ""]
        for c in told["told"]
    ]  # fmt: skip
    proposed = given.list_price if given.list_price and given.list_price != price else None
    return page(
        "while_for_sale", phrase("while-title"),
        figures([
            (phrase("while-asked"), priced(price), "cedar"),
            *([(phrase("while-proposed"), priced(proposed), "cedar")] if proposed else []),
            (phrase("while-days"), f"{told['days']}", "slate"),
            *([(phrase("while-chance"), f"{100 * chance:.0f} %", "moss")] if chance is not None else []),
        ]),
        listed(as_sentences(told["asking"]["statements"])),
        *chances_by_price(given, told["asking"], [p for p in told["asking"]["prices"] if p["chances"]], price),
        para(phrase("while-figure-is", n=told["days"]), small=True) if chance is not None else None,
        heading(phrase("while-price-so-far")) if steps else None,
        table(phrases_of("", "head-before-in-dollars", "while-after", ""), steps, widths=(1.4, 1, 1, 0.8)) if steps else None,
        heading(phrase("while-around")) if rows else None,
        table(phrases_of("", "", "head-home", "net-in-dollars", "head-before-in-dollars"), rows, words=3, widths=(1.1, 1.4, 2, 0.9, 0.9)) if rows else None,
        para(phrase("while-newest", n=len(rows), all=told["happened"]), small=True) if told["happened"] > len(rows) else None,
        lead=_lead(told),
        flow=True,
    )  # fmt: skip


def _lead(told: Mapping[str, Any]) -> str:
    """As “For sale since Sep 20, 2026; 6 homes like it came on the market meanwhile, 4 left it.”"""
    came, went = (sum(told["counts"].get(what, 0) for what in of) for of in (_CAME, _WENT))
    since = said(dt.date.fromisoformat(told["since"]))
    return phrase("while-lead" if came or went else "while-lead-nothing", day=since, came=came, went=went)
