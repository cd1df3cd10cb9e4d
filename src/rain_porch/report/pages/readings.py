"""Four readings of the homes around: what the market paid, is about to pay, competes with, and refused."""

from __future__ import annotations

from collections.abc import Callable, Mapping, Sequence
from typing import Any

import numpy as np

from ...core.facts.money import dollars, priced
from ...core.statistics.summary import DISPLAY_STEP, summarise
from ..blocks import Block, heading, homes, note, page, para, table
from ..model import ReportInput
from ..wording import day, distance, fact, facts_line

KINDS = {
    "sold": ("What buyers paid", "Sold", "Closed sales are what the market has agreed to. They count most."),
    "under_contract": ("What buyers are about to pay", "Under contract",
                       "A buyer has been found at or near these prices; the newest sign of what the market accepts."),
    "for_sale": ("What this home competes with", "For sale",
                 "Buyers will see these on the same day. They show what is asked, not what is paid."),
    "failed": ("What buyers refused", "Failed to sell",
               "Offered and taken off without a sale: mostly a price above what buyers saw in the home."),
}  # fmt: skip
SHORT = 8  # rows of a reading that may stand under another
STATISTICS = {
    "price": "Price", "price_per_sqft": "Price per sq ft", "living_area": "Living area",
    "days_on_market": "Days on market", "list_price": "List price", "share_of_list": "Share of list",
}  # fmt: skip


def of_kind(given: ReportInput, kind: str) -> list[Mapping[str, Any]]:
    return [c for c in given.around if c["kind"] == kind and c["price"]]


def value_of(home: Mapping[str, Any], name: str) -> float:
    if name == "share_of_list":  # in percent; of what was sold
        sold = home["kind"] == "sold" and home["price"] and home["list_price"]
        return 100 * home["price"] / home["list_price"] if sold else float("nan")
    value = home["facts"].get(name) if name == "living_area" else home[name]
    return float("nan") if value is None else float(value)


def says(given: ReportInput, kind: str, found: Sequence[Mapping[str, Any]]) -> str:
    """One sentence from the figures, careful where they are few."""
    prices = summarise([c["price"] for c in found], 1000)
    days = [c["days_on_market"] for c in found if c["days_on_market"] is not None]
    n = prices.count
    out = f"{n} {'home' if n == 1 else 'homes'}, {priced(prices.low)}"
    out += f" to {priced(prices.high)}, median {priced(prices.median)}." if n > 1 else "."
    if days:
        took = {"sold": "Found a buyer in", "under_contract": "Found a buyer in", "for_sale": "On the market for",
                "failed": "Were offered for"}[kind]  # fmt: skip
        out += f" {took} {np.median(days):.0f} days (median of {len(days)})."
    ask = given.list_price if given.paper.price == "shown" else None
    if ask and n >= 3:
        above = sum(c["price"] > ask for c in found)
        out += f" {above} of {n} stand above the list price of {priced(ask)}."
    return out


def reading_page(kind: str) -> Any:
    title, _, lesson = KINDS[kind]

    def make(given: ReportInput) -> dict[str, Any]:
        found = sorted(of_kind(given, kind), key=lambda c: -c["likeness"])
        if not found:
            return page(kind, title, note("The search found none."), lead=lesson, flow=kind != "sold")
        pictured = [c for c in found[:6] if given.paper.pictures and c["listing_id"] in given.pictures]
        cards = [
            {
                "svg": given.pictures[c["listing_id"]], "title": c["address"] or c["listing_id"],
                "price": priced(c["price"]), "lines": [", ".join(c["differences"][:3]) or "much like this home"],
            }
            for c in pictured
        ]  # fmt: skip
        rows = [
            [
                c["address"] or c["listing_id"], facts_line_short(c["facts"]), day(c["date"]), dollars(c["price"]),
                f"{c['price_per_sqft']:,.0f}" if c["price_per_sqft"] else "—",
                "—" if c["days_on_market"] is None else str(c["days_on_market"]), distance(c["distance_miles"]),
            ]
            for c in found[:24]
        ]  # fmt: skip
        more = len(found) - len(rows)
        return page(
            kind, title,
            para(says(given, kind, found)),
            homes(cards) if cards else None,
            *_inside(given, kind, found),
            table(["Home", "", "Date", "Price", "$/sq ft", "Days", "Miles"], rows, words=2,
                  widths=(1.9, 2.3, 0.8, 1, 0.7, 0.6, 0.6)),
            para(f"And {more} more, less like this home.", small=True) if more > 0 else None,
            lead=lesson,
            flow=kind != "sold" and len(rows) <= SHORT,
        )  # fmt: skip

    return make


def _inside(given: ReportInput, kind: str, found: Sequence[Mapping[str, Any]]) -> list[Block]:
    """The rooms of the homes that this one competes with, where there are pictures of them."""
    if kind != "for_sale" or not given.paper.pictures:
        return []
    cards = []
    for c in found:
        start = f"{c['listing_id']} · "
        rooms = [(name.removeprefix(start), svg) for name, svg in given.pictures.items() if name.startswith(start)]
        cards += [
            {"svg": svg, "title": name, "price": "", "lines": [c["address"] or c["listing_id"]]} for name, svg in rooms
        ]
    return [heading("Inside the nearest of them"), homes(cards)] if cards else []


def facts_line_short(facts: Mapping[str, Any]) -> str:
    beds = f"{facts['bedrooms_total']:.0f} bd" if "bedrooms_total" in facts else ""
    baths = fact(facts, "bathrooms") if "bathrooms_full" in facts else ""
    area = f"{facts['living_area']:,.0f} sq ft" if "living_area" in facts else facts_line(facts)
    return " · ".join(x for x in (beds, baths, area) if x)


def _shown(name: str) -> Callable[[float | None], str]:
    if name in ("price", "list_price"):
        return dollars
    form = "{:.1f} %" if name == "share_of_list" else "{:,.0f}"
    return lambda v: "—" if v is None else form.format(v)


def statistics_page(given: ReportInput) -> dict[str, Any]:
    """Count, low, high, mean, median and mode by kind of record, and over all."""
    blocks: list[Any] = []
    for name in (n for n in given.paper.statistics or STATISTICS if n in STATISTICS):
        rows = []
        for kind, (_, short, _) in [*KINDS.items(), ("", ("", "All", ""))]:
            homes_ = [c for c in given.around if c["price"] and (not kind or c["kind"] == kind)]
            s = summarise([value_of(c, name) for c in homes_], DISPLAY_STEP[name])
            if not s.count:
                continue
            show = _shown(name)
            mode = " or ".join(show(v) for v in s.modes[:2]) if s.modes and len(s.modes) <= 2 else "—"
            rows.append([short, str(s.count), show(s.low), show(s.mean), show(s.median), mode, show(s.high)])
        if rows:
            blocks += [heading(STATISTICS[name]), table(["", "homes", "low", "mean", "median", "mode", "high"], rows)]
    return page("statistics", "The figures by kind", *blocks, lead=given.price["sentence"])
