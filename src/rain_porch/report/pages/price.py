"""The price and what it means: ways to the number, recommendation, time against price, net proceeds."""

from __future__ import annotations

from collections.abc import Sequence
from typing import Any

from ...core.facts.local_form import OwnWords
from ...core.facts.money import dollars, priced
from ...core.phrases import joined, phrase
from ..blocks import Nothing, heading, listed, page, para, picture, table
from ..model import ReportInput
from ..pictures.asks import asks_svg, asks_words
from ..pictures.chances import chances_svg
from ..speaking import spoken_of
from .one_page import WITHIN, against, price_figures, price_rail
from .telling import of_words


def strategy_page(given: ReportInput) -> dict[str, Any] | Nothing:
    price, shown = given.price, given.paper.price == "shown"
    if not given.comps:
        return Nothing(phrase("strategy-none"))
    spoken = spoken_of(given, "strategy")
    ask = given.asking if shown else None
    by_price = [p for p in (ask["prices"] if ask else []) if p["chances"]]
    rivals = [(given.number_of(c["listing_id"]), c) for c in spoken.homes if c["kind"] == "for_sale"]
    ladder = asks_svg(rivals, given.list_price if shown else None, given.width)
    ways, own = given.ways(), OwnWords if given.own_words else str
    value = price["indicated_value"]
    lead = ""
    if shown and given.list_price and value:
        lead = phrase("one-page-price-is", price=priced(given.list_price), against=against(given.list_price, value))
    return page(
        "strategy", phrase("strategy-title"),
        price_figures(given),
        picture(price_rail(given, spoken.homes), phrase("rail-alt")),
        *(para(own(p)) for p in (given.recommendation.split("\n") if shown and given.recommendation else []) if p.strip()),
        listed(as_sentences(ask["statements"])) if ask else None,
        heading(phrase("strategy-ways")) if ways else None,
        table(["", "", ""], ways, words=2, widths=(1.3, 3, 0.7)) if ways else None,
        *chances_by_price(given, ask, by_price, given.list_price),
        heading(phrase("strategy-beside")) if ladder else None,
        picture(ladder, phrase("strategy-beside-alt"), joined(of_words(spoken), asks_words(len(rivals)))) if ladder else None,
        lead=lead,
    )  # fmt: skip


def as_sentences(statements: Sequence[str]) -> list[str]:
    """What can be said of a list price, each with a capital and a full stop."""
    return [phrase("sentence", words=s.removesuffix(".")) for s in statements]


def chances_by_price(given: ReportInput, ask: Any, by_price: Any, price: float | None) -> list[Any]:
    """The chance of a contract by list price, as a curve and a table, with `price` marked; nothing where none is known."""
    if len(by_price) < 2:
        return []
    days = ask["within_days"]
    pct = [[float(c.removesuffix(" %")) for c in p["chances"]] for p in by_price]
    curves = [(phrase("chances-days", n=d), [row[i] for row in pct]) for i, d in enumerate(days) if d in (30, 60, 90)]
    rows = [
        [phrase("chances-this-price", price=dollars(p["price"])) if p["own"] else dollars(p["price"]), *p["chances"], p["likely"]]
        for p in by_price
    ]  # fmt: skip
    heads = [phrase("chances-head"), *(phrase("chances-days", n=d) for d in days), phrase("chances-likely", n=WITHIN)]
    return [
        heading(phrase("chances-title")),
        picture(chances_svg([p["price"] for p in by_price], curves, price, given.width), phrase("chances-alt")),
        table(heads, rows, widths=(1.8, *[1] * 5)),
        para(phrase("chances-learnt", n=ask["learnt"]), small=True),
    ]


def net_page(given: ReportInput) -> dict[str, Any] | Nothing:
    """Net proceeds, scenario beside scenario, with what they stand on."""
    if given.paper.price != "shown":
        return Nothing(phrase("price-not-shown"))
    if not given.sheets:
        return Nothing(phrase("net-none"))
    labels = list(dict.fromkeys(name for sheet in given.sheets for name, _ in sheet))
    labels.sort(key=lambda name: name == "Net proceeds")
    by = [dict(sheet) for sheet in given.sheets]
    rows = [[name, *(f"{float(s[name]):,.2f}".replace("-", "−") if name in s else "" for s in by)] for name in labels]
    share = min(1.0, 0.4 + 0.2 * len(by))
    several = range(1, len(by) + 1) if len(by) > 1 else ()
    heads = [phrase("net-scenario-in-dollars", n=n) for n in several] or [phrase("net-in-dollars")]
    plain = [phrase("net-scenario", n=n) for n in several] or [""]
    net = [float(s["Net proceeds"]) for s in by if "Net proceeds" in s]
    lead = ""
    if net:
        low, high = priced(min(net)), priced(max(net))
        lead = phrase("net-lead" if low == high else "net-lead-from-to", low=low, high=high)
    return page(
        "net", phrase("net-title"), table(["", *heads], rows, last=True, share=share),
        heading(phrase("net-stand-on")) if given.assumed else None,
        table(["", *plain], given.assumed, share=share) if given.assumed else None,
        para(phrase("net-estimates"), small=True),
        lead=lead, flow=True,
    )  # fmt: skip
