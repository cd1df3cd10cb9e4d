"""The price rail as a picture for paper: sales above the line, what competes below, the range, the value, the list price."""

from __future__ import annotations

from collections.abc import Mapping, Sequence
from typing import Any

from ...core.facts.money import dollars, priced
from ...core.phrases import phrase
from . import ink
from .spread import NUMBER_RADIUS, leader, numbered, spread

LABEL, ROOM = 9, 5.1  # size of the words; about how wide a sign of it is


def rail_svg(
    comps: Sequence[Mapping[str, Any]],
    others: Sequence[Mapping[str, Any]],
    value: float | None,
    span: Mapping[str, Any] | None,
    list_price: float | None,
    width: float = ink.WIDE,
    numbers: Mapping[str, int] | None = None,
) -> str:
    """comps: with close_price, adjusted_price and listing_id. others: homes with kind and price that are not sold. numbers: those
    of the homes by listing; a mark without one is small. The rail reaches to all that have a number; how many of the others lie
    beyond its ends is told there."""
    numbers = numbers or {}
    left, right = 20.0, width - 20.0
    others = [c for c in others if c["kind"] in ("for_sale", "under_contract", "failed") and c["price"]]
    anchors = [x for x in (value, list_price) if x] + ([span["low"], span["high"]] if span else [])
    anchors += [c["adjusted_price"] for c in comps] + [c["close_price"] for c in comps]
    anchors += [c["price"] for c in others if c.get("listing_id") in numbers]
    anchors = anchors or [c["price"] for c in others] or [0.0, 1.0]
    low, high = min(anchors), max(anchors)
    pad = max((high - low) * 0.06, 1000)
    low, high = low - pad, high + pad

    def at(price: float) -> float:
        return float(left + (right - left) * (price - low) / (high - low))

    below = [c for c in others if low < c["price"] < high]
    deep = 14.0 + (17.0 if len(below) > 8 else 0.0)
    line = 78.0
    height = line + deep + 30
    body = []
    if span:
        a, b = at(span["low"]), at(span["high"])
        body.append(
            f'<rect x="{a:.1f}" y="28" width="{b - a:.1f}" height="{line + 6 + deep - 16:.1f}" fill="{ink.MOSS}" opacity="0.13" rx="3"/>'
        )
    body.append(f'<path d="M{left} {line}H{right}" stroke="{ink.SLATE}" stroke-width="1.2"/>')
    step = next((s for s in (5e3, 1e4, 2.5e4, 5e4, 1e5, 2.5e5, 5e5, 1e6, 5e6, 1e8) if (high - low) / s <= 8), 1e9)
    tick = step * (low // step + 1)
    while tick < high:
        wide = len(dollars(tick)) * ROOM / 2
        body.append(f'<path d="M{at(tick):.1f} {line - 3}v6" stroke="{ink.SLATE}" stroke-width="0.8"/>')
        if wide < at(tick) < width - wide:
            body.append(ink.text(at(tick), height - 4, dollars(tick), LABEL, ink.GREY))
        tick += step
    if value:
        body.append(f'<path d="M{at(value):.1f} 28V{line + 10}" stroke="{ink.MOSS}" stroke-width="2.4"/>')
    body += _sales(comps, numbers, at, line, width)
    true = [(at(c["price"]), line + 18) for c in below]
    radii = [NUMBER_RADIUS + 0.6 if c.get("listing_id") in numbers else 4.0 for c in below]
    for c, (x, y) in zip(below, spread(true, radii, width, line + 12 + deep + 8, top=line + 6), strict=True):
        number = numbers.get(c.get("listing_id", ""))
        body += [ink.mark(c["kind"], x, y, 3.2)] if number is None else numbered(c["kind"], x, y, number)
    if list_price:  # over the marks: it is what the page is about
        x = at(list_price)
        body.append(
            f'<path d="M{x:.1f} {line - 1}l6 -10h-12z" fill="{ink.CEDAR}"/><path d="M{x:.1f} 28V{line + 10}" stroke="{ink.CEDAR}" stroke-width="1.6" stroke-dasharray="4 2"/>'
        )
    beyond = (sum(c["price"] <= low for c in others), sum(c["price"] >= high for c in others))
    ends = (("start", 2.0, f"‹ {beyond[0]}"), ("end", width - 2, f"{beyond[1]} ›"))
    body += [
        ink.text(x, line - 6, words, LABEL, ink.GREY, side)
        for n, (side, x, words) in zip(beyond, ends, strict=True)
        if n
    ]
    body += _words(value, list_price, at, width)
    return ink.svg(width, height, body)


def _sales(
    comps: Sequence[Mapping[str, Any]], numbers: Mapping[str, int], at: Any, line: float, width: float
) -> list[str]:
    """What each sale brought, a dot, and what it comes to for this home, its mark above the line."""
    body: list[str] = []
    true = [(at(c["adjusted_price"]), line - 18.0) for c in comps]
    drawn = spread(true, [NUMBER_RADIUS + 0.4] * len(comps), width, line - 4, top=27)
    for c, spot, place in zip(comps, drawn, true, strict=True):
        body += leader(spot, (place[0], line), NUMBER_RADIUS)
        paid = at(c["close_price"])
        body.append(f'<circle cx="{paid:.1f}" cy="{line}" r="1.8" fill="{ink.GREY}"/>')
    for n, (c, spot) in enumerate(zip(comps, drawn, strict=True), 1):
        body += numbered("sold", *spot, numbers.get(c.get("listing_id", ""), n))
    return body


def _words(value: float | None, list_price: float | None, at: Any, width: float) -> list[str]:
    """The names of both prices over the rail, beside each other where they are near."""
    told = [(at(v), phrase(key, price=priced(v)), colour) for v, key, colour in (
        (value, "rail-indicated", ink.MOSS), (list_price, "rail-list-price", ink.CEDAR)) if v]  # fmt: skip
    told.sort()
    places = []
    for x, words, _ in told:
        half = len(words) * ROOM / 2 + 2
        places.append([min(max(x, half), width - half), half])
    if len(places) == 2 and (over := places[0][0] + places[0][1] + 6 + places[1][1] - places[1][0]) > 0:
        places[0][0] -= over / 2
        places[1][0] += over / 2
        short = max(0.0, places[0][1] - places[0][0], places[1][0] + places[1][1] - width)
        move = short if places[0][0] < places[0][1] else -short
        for p in places:
            p[0] += move
    return [
        ink.text(p[0], 20, words, LABEL, colour, weight=600) for p, (_, words, colour) in zip(places, told, strict=True)
    ]
