"""The price and what it means: ways to the number, recommendation, time against price, net proceeds."""

from __future__ import annotations

from collections.abc import Sequence
from typing import Any

from ...core.facts.local_form import OwnWords
from ...core.facts.money import dollars, priced
from ..blocks import Nothing, heading, listed, page, para, picture, table
from ..model import ReportInput
from ..pictures.asks import asks_svg, asks_words
from ..pictures.chances import chances_svg
from ..speaking import spoken_of
from .one_page import against, price_figures, price_rail

NOT_SHOWN = "The price is not shown on these papers, so this page has nothing to say."


def strategy_page(given: ReportInput) -> dict[str, Any] | Nothing:
    price, shown = given.price, given.paper.price == "shown"
    if not given.comps:
        return Nothing("No sale is kept yet, so there is nothing to price from: keep some in Comps.")
    spoken = spoken_of(given, "strategy")
    ask = given.asking if shown else None
    by_price = [p for p in (ask["prices"] if ask else []) if p["chances"]]
    rivals = [(given.number_of(c["listing_id"]), c) for c in spoken.homes if c["kind"] == "for_sale"]
    ladder = asks_svg(rivals, given.list_price if shown else None, given.width)
    ways, own = given.ways(), OwnWords if given.own_words else str
    value = price["indicated_value"]
    lead = (
        f"{priced(given.list_price)} is {against(given.list_price, value)}."
        if shown and given.list_price and value
        else ""
    )
    return page(
        "strategy", "The price",
        price_figures(given),
        picture(price_rail(given, spoken.homes), "Price rail: sales above the line, homes not sold below it"),
        *(para(own(p)) for p in (given.recommendation.split("\n") if shown and given.recommendation else []) if p.strip()),
        listed(as_sentences(ask["statements"])) if ask else None,
        heading("Ways to the number") if ways else None,
        table(["", "", ""], ways, words=2, widths=(1.3, 3, 0.7)) if ways else None,
        *chances_by_price(given, ask, by_price, given.list_price),
        heading("Beside what is for sale") if ladder else None,
        picture(ladder, "List prices of homes for sale beside this home's",
                f"Of {spoken.words}. {asks_words(len(rivals))}") if ladder else None,
        lead=lead,
    )  # fmt: skip


def as_sentences(statements: Sequence[str]) -> list[str]:
    """What can be said of a list price, each with a capital and a full stop."""
    return [s[:1].upper() + s[1:] + ("" if s.endswith(".") else ".") for s in statements]


def chances_by_price(given: ReportInput, ask: Any, by_price: Any, price: float | None) -> list[Any]:
    """The chance of a contract by list price, as a curve and a table, with `price` marked; nothing where none is known."""
    if len(by_price) < 2:
        return []
    days = ask["within_days"]
    pct = [[float(c.removesuffix(" %")) for c in p["chances"]] for p in by_price]
    curves = [(f"{d} days", [row[i] for row in pct]) for i, d in enumerate(days) if d in (30, 60, 90)]
    rows = [
        [dollars(p["price"]) + (" (this list price)" if p["own"] else ""), *p["chances"], p["likely"]] for p in by_price
    ]
    return [
        heading("What a price means for time"),
        picture(chances_svg([p["price"] for p in by_price], curves, price, given.width), "Chance of a contract by list price"),
        table(["If it were listed at, $", *(f"{d} days" for d in days), "30 days, likely"], rows, widths=(1.8, *[1] * 5)),
        para(f"Chance of a contract within so many days, learnt from {ask['learnt']:,} homes offered around here in three years, "
             "those still unsold counted as such. That their worth is known only roughly is taken into account.", small=True),
    ]  # fmt: skip


def net_page(given: ReportInput) -> dict[str, Any] | Nothing:
    """Net proceeds, scenario beside scenario, with what they stand on."""
    if given.paper.price != "shown":
        return Nothing(NOT_SHOWN)
    if not given.sheets:
        return Nothing("No scenario has been worked out: add one in Worth, under net proceeds.")
    labels = list(dict.fromkeys(name for sheet in given.sheets for name, _ in sheet))
    labels.sort(key=lambda name: name == "Net proceeds")
    by = [dict(sheet) for sheet in given.sheets]
    rows = [[name, *(f"{float(s[name]):,.2f}".replace("-", "−") if name in s else "" for s in by)] for name in labels]
    share = min(1.0, 0.4 + 0.2 * len(by))
    heads = [f"Scenario {i + 1}, $" if len(by) > 1 else "$" for i in range(len(by))]
    net = [float(s["Net proceeds"]) for s in by if "Net proceeds" in s]
    lead = ""
    if net:
        low, high = priced(min(net)), priced(max(net))
        lead = (
            f"About {low} would be left."
            if low == high
            else f"About {low} to {high} would be left, as the case may be."
        )
    return page(
        "net", "What would be left", table(["", *heads], rows, last=True, share=share),
        heading("What these figures stand on") if given.assumed else None,
        table(["", *(h.removesuffix("$").removesuffix(", ") for h in heads)], given.assumed, share=share) if given.assumed else None,
        para("Estimates from the figures given; the closing statement decides.", small=True),
        lead=lead, flow=True,
    )  # fmt: skip
