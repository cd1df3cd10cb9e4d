"""The price and what it means: ways to the number, recommendation, time against price, net proceeds."""

from __future__ import annotations

from typing import Any

from ..core.money import dollars
from .blocks import figures, heading, note, page, para, picture, ruled, table
from .model import ReportInput
from .rail import rail_svg
from .wording import range_name


def strategy_page(given: ReportInput) -> dict[str, Any]:
    price, shown = given.price, given.paper.price == "shown"
    if not given.comps:
        return page("strategy", "The price", note("No comps are kept yet, so there is nothing to price from."))
    value, span = price["indicated_value"], price["range"]
    ways = given.ways()
    rail = rail_svg(price["comps"], given.around, *((value, span, given.list_price) if shown else (None, None, None)))
    ask = given.asking if shown else None
    groups = [
        [
            f"up to {g['high']:.2f}" if g["low"] is None else f"above {g['low']:.2f}" if g["high"] is None
            else f"{g['low']:.2f} – {g['high']:.2f}",
            str(g["n"]), *(f"{100 * c:.0f} %" for c in g["chances"]),
            "—" if g["share_of_list"] is None else f"{100 * g['share_of_list']:.1f} %",
            "—" if g["failed"] is None else f"{100 * g['failed']:.0f} %",
        ]
        for g in (ask["groups"] if ask else [])
        if g["chances"]
    ]  # fmt: skip
    items = []
    if shown and given.list_price:
        items.append(("List price", dollars(given.list_price), "cedar"))
    if shown and value:
        items += [("Indicated value", dollars(value), "moss")]
        items += [(range_name(span), f"{dollars(span['low'])} – {dollars(span['high'])}", "slate")] if span else []
    return page(
        "strategy", "The price",
        ruled("List price") if given.paper.price == "blank" else figures(items) if items else None,
        picture(rail, "Price rail: sales above the line, homes for sale below it"),
        para(given.recommendation) if shown and given.recommendation else None,
        *(para(s, small=True) for s in (ask["statements"] if ask else [])),
        heading("Ways to the number") if ways else None,
        table(["", "", ""], ways, words=2, widths=(1.3, 3, 0.7)) if ways else None,
        heading("How long homes took, by first price against worth") if groups else None,
        table(["First price ÷ worth", "homes", *(f"{d} days" for d in (ask["within_days"] if ask else [])), "share got", "failed"],
              groups, widths=(1.6, *[1] * 7)) if groups else None,
        para("Shares of homes under contract within so many days; those still unsold are counted as such, not left out.",
             small=True) if groups else None,
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
