"""Pages as data: each is a pure function from a frozen workup to what the template lays out."""

from __future__ import annotations

from typing import Any

from ...core.facts.money import dollars, pct_words, priced, rate_words
from ...core.statistics.summary import summarise
from ..model import ReportInput
from ..pictures.maps import map_svg
from ..pictures.rail import rail_svg
from ..wording import amount, day, distance, fact, facts_line, label, range_name

BLOCK = 6
FACT_ROWS = ("living_area", "bedrooms_total", "bathrooms", "garage_spaces", "lot_size_square_feet", "year_built")


def summary_page(given: ReportInput) -> dict[str, Any]:
    """The price, the rail, the map, and how it was found."""
    price = given.price
    value, span = price["indicated_value"], price["range"]
    shown = given.paper.price == "shown"
    missing = []
    if not given.comps:
        missing.append("No comps are kept yet, so there is no indicated value. Keep some sales in Comps.")
    if given.list_price is None:
        missing.append("No list price is set.")
    say = None
    if given.list_price and value:
        pct = 100 * (given.list_price - value) / value
        say = (
            f"{abs(pct):.1f} % {'above' if pct > 0 else 'below'} the indicated value"
            if round(pct, 1)
            else "at the indicated value"
        )
    return {
        "page": "summary",
        "title": given.title,
        "facts": facts_line(given.subject["facts"]),
        "client": given.client,
        "shows": given.paper.price,
        "value": priced(value) if value else None,
        "range": f"{priced(span['low'])} – {priced(span['high'])}" if span else None,
        "range_name": range_name(span),
        "list_price": priced(given.list_price) if given.list_price else None,
        "list_says": say,
        "sentence": price["sentence"],
        "sources": "; ".join(given.sources),
        "counts": [[k.replace("_", " "), n] for k, n in given.counts.items() if n],
        "statistics": _statistics(given),
        "map": map_svg(given.subject, given.around, given.comps, given.base_map, price["search"], height=272),
        "rail": rail_svg(
            price["comps"], given.around, *((value, span, given.list_price) if shown else (None, None, None))
        ),
        "missing": missing if shown else [],
        "notes": price["warnings"],
    }


def _statistics(given: ReportInput) -> list[list[str]]:
    rows = []
    for kind, name in (
        ("sold", "Sold"),
        ("under_contract", "Under contract"),
        ("for_sale", "For sale"),
        ("failed", "Failed"),
    ):
        prices = [c["price"] for c in given.around if c["kind"] == kind and c["price"]]
        s = summarise(prices, 1000)
        if s.count:
            rows.append([name, f"{s.count}", dollars(s.low), dollars(s.median), dollars(s.mean), dollars(s.high)])
    return rows


def comps_page(given: ReportInput) -> dict[str, Any]:
    """Comps beside the subject, six to a block."""
    blocks = []
    mine = given.subject["facts"]
    for first in range(0, len(given.comps), BLOCK):
        part = given.comps[first : first + BLOCK]
        rows = [
            ["Close price", "", *(dollars(c["price"]) for c in part)],
            ["Closed", "", *(day(c["date"]) for c in part)],
            ["Price per sq ft", "", *(f"{c['price_per_sqft']:,.2f}" if c["price_per_sqft"] else "—" for c in part)],
            ["Distance, mi", "", *(distance(c["distance_miles"]) for c in part)],
            ["Days on market", "", *("—" if c["days_on_market"] is None else str(c["days_on_market"]) for c in part)],
            *([label(n), fact(mine, n), *(fact(c["facts"], n) for c in part)] for n in FACT_ROWS),
            ["Likeness", "", *(f"{c['likeness']:.0f}" for c in part)],
        ]
        heads = [[first + i + 1, c["address"] or c["listing_id"]] for i, c in enumerate(part)]
        differs = [", ".join(c["differences"]) or "no difference recorded" for c in part]
        blocks.append(
            {"heads": heads, "rows": rows, "differs": differs, "flags": [", ".join(c["flags"]) for c in part]}
        )
    return {"page": "comps", "subject": given.title, "blocks": blocks}


def grid_page(given: ReportInput) -> dict[str, Any]:
    """Adjustments line by line, six comps to a block, with rates, net, gross and the ways to the number.

    Where the price is not shown, what is adjusted and what it comes to are left empty, to be written in by hand.
    """
    price, shown = given.price, given.paper.price == "shown"
    rates = {r["field"]: r for r in price["rates"]}
    blocks = []
    for first in range(0, len(price["comps"]), BLOCK):
        part = price["comps"][first : first + BLOCK]
        lines = given.grid[first : first + BLOCK]
        # in the grid's own order, and only what moves a price
        names = [n for n in lines[0]["lines"] if any(g["lines"].get(n) for g in lines)]
        rows = []
        for name in names:
            if name == "market_change":
                rate = f"{pct_words(price['market_change']['pct_per_month'], sign=True)} % a month"
            else:
                rate = f"{rate_words(rates[name]['dollars'])} $" if name in rates else ""
            rows.append([label(name), rate, *(amount(g["lines"].get(name)) for g in lines)])
        blocks.append(
            {
                "heads": [[first + i + 1, c["address"] or c["listing_id"]] for i, c in enumerate(part)],
                "prices": [dollars(c["close_price"]) for c in part],
                "rows": rows,
                "net": [f"{c['net_pct']:+.1f} %".replace("-", "−") for c in part],
                "gross": [f"{c['gross_pct']:.1f} %" for c in part],
                "adjusted": [dollars(c["adjusted_price"]) if shown else "" for c in part],
                "weights": [f"{100 * c['weight']:.1f} %" if shown else "" for c in part],
            }
        )
    apart = [f"{a['label']} {amount(a['amount'])}" for a in price["apart"]] if shown else []
    ways = [[name, value, formula] for name, formula, value in given.ways()]
    return {
        "page": "grid",
        "blocks": blocks,
        "ways": ways,
        "apart": f"Added once to the weighted mean of the adjusted prices: {', '.join(apart)}." if apart else None,
        "value": priced(price["indicated_value"]) if shown and price["indicated_value"] else None,
    }
