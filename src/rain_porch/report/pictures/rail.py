"""The price rail as a picture for paper: sales above the line, what competes below, the range, the value, the list price."""

from __future__ import annotations

from collections.abc import Mapping, Sequence
from typing import Any

from ...core.facts.money import dollars, priced
from . import ink


def rail_svg(
    comps: Sequence[Mapping[str, Any]],
    around: Sequence[Mapping[str, Any]],
    value: float | None,
    span: Mapping[str, Any] | None,
    list_price: float | None,
    width: float = 540,
) -> str:
    """comps: with close_price and adjusted_price. around: candidates with kind and price."""
    height, line, left, right = 104.0, 58.0, 24.0, width - 24.0
    others = [c for c in around if c["kind"] in ("for_sale", "under_contract", "failed") and c["price"]]
    anchors = [c["adjusted_price"] for c in comps] + [c["close_price"] for c in comps]
    anchors += [x for x in (value, list_price) if x] + ([span["low"], span["high"]] if span else [])
    if not anchors:
        anchors = [c["price"] for c in others] or [0.0, 1.0]
    low, high = min(anchors), max(anchors)
    pad = max((high - low) * 0.06, 1000)
    low, high = low - pad, high + pad

    def at(price: float) -> float:
        return float(left + (right - left) * (price - low) / (high - low))

    body = []
    if span:
        a, b = at(span["low"]), at(span["high"])
        body.append(
            f'<rect x="{a:.1f}" y="{line - 30}" width="{b - a:.1f}" height="60" fill="{ink.MOSS}" opacity="0.14" rx="3"/>'
        )
    body.append(f'<path d="M{left} {line}H{right}" stroke="{ink.SLATE}" stroke-width="1.2"/>')
    step = next(s for s in (5e3, 1e4, 2.5e4, 5e4, 1e5, 2.5e5, 5e5, 1e6, 5e6, 1e8) if (high - low) / s <= 9)
    tick = step * (low // step + 1)
    while tick < high:
        body.append(f'<path d="M{at(tick):.1f} {line - 3}v6" stroke="{ink.SLATE}" stroke-width="0.8"/>')
        body.append(ink.text(at(tick), height - 4, dollars(tick), 7.5, ink.GREY))
        tick += step
    for i, c in enumerate(comps):
        y = line - 13 - 7 * (i % 3)
        x0, x1 = at(c["close_price"]), at(c["adjusted_price"])
        body.append(f'<path d="M{x0:.1f} {y}H{x1:.1f}" stroke="{ink.SLATE}" stroke-width="0.8" opacity="0.5"/>')
        body.append(f'<circle cx="{x0:.1f}" cy="{y}" r="1.6" fill="{ink.GREY}"/>')
        body.append(ink.mark("sold", x1, y, 3.6, ink.SLATE))
    for i, c in enumerate(others):
        if low < c["price"] < high:
            body.append(ink.mark(c["kind"], at(c["price"]), line + 12 + 9 * (i % 2), 3.4))
    if value:
        x = at(value)
        body.append(f'<path d="M{x:.1f} {line - 34}v68" stroke="{ink.MOSS}" stroke-width="2.4"/>')
        body.append(ink.text(x, line - 40, f"Indicated {priced(value)}", 9, ink.MOSS, weight=600))
    if list_price:
        x = at(list_price)
        near = value is not None and abs(at(value) - x) < 96
        body.append(
            f'<path d="M{x:.1f} {line - 8}l5 -7h-10z M{x:.1f} {line - 8}v16" fill="{ink.CEDAR}" stroke="{ink.CEDAR}" stroke-width="2"/>'
        )
        body.append(
            ink.text(
                x, line - 40 + (12 if near else 0) * -1 + 0, f"List {priced(list_price)}", 9, ink.CEDAR, weight=600
            )
        )
    return ink.svg(width, height, body)
