"""The price and what it means: ways to the number, recommendation, time against price, net proceeds."""

from __future__ import annotations

from typing import Any

from ...core.facts.money import dollars, priced
from ..blocks import figures, heading, note, page, para, picture, ruled, table
from ..model import ReportInput
from ..pictures.rail import rail_svg
from ..wording import range_name


def strategy_page(given: ReportInput) -> dict[str, Any]:
    price, shown = given.price, given.paper.price == "shown"
    if not given.comps:
        return page("strategy", "The price", note("No comps are kept yet, so there is nothing to price from."))
    value, span = price["indicated_value"], price["range"]
    ways = given.ways()
    rail = rail_svg(price["comps"], given.around, *((value, span, given.list_price) if shown else (None, None, None)))
    ask = given.asking if shown else None
    by_price = [
        [dollars(p["price"]) + (" (this list price)" if p["own"] else ""), *p["chances"], p["likely"]]
        for p in (ask["prices"] if ask else [])
        if p["chances"]
    ]
    items = []
    if shown and given.list_price:
        items.append(("List price", priced(given.list_price), "cedar"))
    if shown and value:
        items += [("Indicated value", priced(value), "moss")]
        items += [(range_name(span), f"{priced(span['low'])} – {priced(span['high'])}", "slate")] if span else []
    return page(
        "strategy", "The price",
        ruled("List price") if given.paper.price == "blank" else figures(items) if items else None,
        picture(rail, "Price rail: sales above the line, homes for sale below it"),
        para(given.recommendation) if shown and given.recommendation else None,
        *(para(s, small=True) for s in (ask["statements"] if ask else [])),
        heading("Ways to the number") if ways else None,
        table(["", "", ""], ways, words=2, widths=(1.3, 3, 0.7)) if ways else None,
        heading("If it were listed at") if by_price else None,
        table(["", *(f"{d} days" for d in (ask["within_days"] if ask else [])), "30 days, likely"], by_price,
              widths=(1.8, *[1] * 5)) if by_price else None,
        para(f"Chance of a contract within so many days, learnt from {ask['learnt'] if ask else 0:,} homes offered around here "
             "in three years, those still unsold counted as such. That their worth is known only roughly is taken into account.",
             small=True) if by_price else None,
    )  # fmt: skip


def net_page(given: ReportInput) -> dict[str, Any]:
    """Net proceeds, scenario beside scenario."""
    if not given.sheets or given.paper.price != "shown":
        return page("net", "What would be left", note("No scenario has been worked out."), flow=True)
    labels = list(dict.fromkeys(label for sheet in given.sheets for label, _ in sheet))
    labels.sort(key=lambda name: name == "Net proceeds")
    by = [dict(sheet) for sheet in given.sheets]
    rows = [[name, *(f"{float(s[name]):,.2f}".replace("-", "−") if name in s else "" for s in by)] for name in labels]
    heads = [f"Scenario {i + 1}" for i in range(len(by))]
    return page(
        "net", "What would be left", table(["", *heads], rows, last=True),
        para("Estimates from the figures given; the closing statement decides.", small=True),
        flow=True,
    )  # fmt: skip
