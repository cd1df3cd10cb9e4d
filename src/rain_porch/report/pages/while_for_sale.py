"""A page for the seller while the home is for sale: how long, what came and went around it, what its price gives now."""

from __future__ import annotations

import datetime as dt
from collections.abc import Mapping
from typing import Any

from ...core.facts.dates import said
from ...core.facts.money import dollars, priced, signed_pct
from ..blocks import Nothing, figures, heading, listed, page, para, table
from ..model import ReportInput
from ..wording import many
from .price import NOT_SHOWN, as_sentences, chances_by_price

_CAME, _WENT = ("new", "back"), ("contract", "closed", "failed", "held")


def while_for_sale_page(given: ReportInput) -> dict[str, Any] | Nothing:
    told = given.while_for_sale
    if told is None:
        return Nothing("The home is not for sale on this date: this page speaks of its listing while it is.")
    if given.paper.price != "shown":
        return Nothing(NOT_SHOWN)
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
        "while_for_sale", "While it is for sale",
        figures([
            ("Asked now", priced(price), "cedar"), *([("Proposed", priced(proposed), "cedar")] if proposed else []),
            ("Days for sale", f"{told['days']}", "slate"),
            *([("A contract in the next 30 days", f"{100 * chance:.0f} %", "moss")] if chance is not None else []),
        ]),
        listed(as_sentences(told["asking"]["statements"])),
        *chances_by_price(given, told["asking"], [p for p in told["asking"]["prices"] if p["chances"]], price),
        para(f"The figure above is of a home that has been for sale {told['days']} days without a contract; curve and table are of one that comes on today.", small=True)
        if chance is not None else None,
        heading("Its price so far") if steps else None,
        table(["", "before, $", "after, $", ""], steps, widths=(1.4, 1, 1, 0.8)) if steps else None,
        heading("What came and went around it") if rows else None,
        table(["", "", "home", "$", "before, $"], rows, words=3, widths=(1.1, 1.4, 2, 0.9, 0.9)) if rows else None,
        para(f"The newest {len(rows)} of {told['happened']}.", small=True) if told["happened"] > len(rows) else None,
        lead=_lead(told),
        flow=True,
    )  # fmt: skip


def _lead(told: Mapping[str, Any]) -> str:
    """As “For sale since Sep 20, 2026; 6 homes like it came on the market meanwhile, 4 left it.”"""
    came, went = (sum(told["counts"].get(what, 0) for what in of) for of in (_CAME, _WENT))
    since = said(dt.date.fromisoformat(told["since"]))
    around = f"{many(came, 'home')} like it came on the market meanwhile, {went} went" if came or went else "nothing happened around it meanwhile"  # fmt: skip
    return f"For sale since {since}; {around}."
