"""What each comp says of this home: its adjusted price around the indicated value."""

from __future__ import annotations

from collections.abc import Mapping, Sequence
from typing import Any

from ...core.facts.money import dollars
from ...core.phrases import phrase
from . import ink
from .scale import along
from .spread import numbered

FULL, NAMED = 17.0, 20  # height of a row; so many comps have a row of that height


def dots_svg(
    comps: Sequence[Mapping[str, Any]], value: float, span: Mapping[str, Any] | None, width: float = ink.WIDE
) -> str:
    """comps: documents of priced comps in the order of their numbers; a row each: what was paid, a small dot, and what it comes to
    for this home. value, span: the indicated value and its range."""
    rows = [(n, c) for n, c in enumerate(comps, 1)]
    tall = FULL if len(rows) <= NAMED else max(5.0, FULL * NAMED / len(rows))
    left, right, top = 26.0, width - 66.0, 8.0
    foot = top + tall * len(rows)
    ends = [c["adjusted_price"] for _, c in rows] + [c["close_price"] for _, c in rows] + [value]
    ends += [span["low"], span["high"]] if span else []
    at = along(ends, left, right, 0.04)
    body = []
    if span:
        a, b = at(span["low"]), at(span["high"])
        body.append(
            f'<rect x="{a:.1f}" y="{top}" width="{b - a:.1f}" height="{foot - top:.1f}" fill="{ink.MOSS}" opacity="0.12"/>'
        )
    body.append(f'<path d="M{at(value):.1f} {top}V{foot:.1f}" stroke="{ink.MOSS}" stroke-width="1.8"/>')
    for i, (n, c) in enumerate(rows):
        y = top + tall * (i + 0.5)
        x0, x1 = at(c["close_price"]), at(c["adjusted_price"])
        body.append(f'<path d="M{left} {y:.1f}H{right}" stroke="{ink.LINE}" stroke-width="0.4"/>')
        body.append(
            f'<path d="M{x0:.1f} {y:.1f}H{x1:.1f}" stroke="{ink.GREY}" stroke-width="1"/><circle cx="{x0:.1f}" cy="{y:.1f}" r="1.8" fill="{ink.GREY}"/>'
        )
        if tall == FULL:
            body += numbered("sold", x1, y, n)
            body.append(ink.text(width, y + 3, dollars(c["adjusted_price"]), 9, ink.SLATE, "end"))
        else:
            body.append(ink.mark("sold", x1, y, 2.2, ink.SLATE))
    words = [(value, phrase("dots-indicated", price=dollars(value)))]
    body += [ink.text(min(max(at(v), 60), width - 60), foot + 12, w, 9, ink.MOSS, weight=600) for v, w in words]
    return ink.svg(width, foot + 18, body)
