"""Homes by size and price: a mark each, the home itself at what it is offered for."""

from __future__ import annotations

from collections.abc import Mapping, Sequence
from typing import Any

from . import ink


def size_svg(
    homes: Sequence[Mapping[str, Any]], area: float | None, price: float | None, width: float = 520, height: float = 230
) -> str:
    """homes: documents of candidates. area, price: the home's own, where it has both. "" for fewer than two homes."""
    dots = [
        (float(h["facts"]["living_area"]), float(h["price"]), h)
        for h in homes
        if h["price"] and h["facts"].get("living_area")
    ]
    if len(dots) < 2:
        return ""
    mine = (area, price) if area and price else None
    xs = [d[0] for d in dots] + ([mine[0]] if mine else [])
    ys = [d[1] for d in dots] + ([mine[1]] if mine else [])
    lo_x, hi_x, lo_y, hi_y = min(xs) * 0.96, max(xs) * 1.04, min(ys) * 0.96, max(ys) * 1.04
    left, right, top, bottom = 56.0, width - 10, 8.0, height - 24

    def at(x: float, y: float) -> tuple[float, float]:
        return left + (right - left) * (x - lo_x) / (hi_x - lo_x), bottom - (bottom - top) * (y - lo_y) / (hi_y - lo_y)

    body = []
    for k in range(5):
        x, y = lo_x + (hi_x - lo_x) * k / 4, lo_y + (hi_y - lo_y) * k / 4
        px, py = at(x, y)
        body.append(f'<path d="M{left} {py:.1f}H{right}" stroke="{ink.LINE}" stroke-width="0.5"/>')
        body.append(ink.text(left - 6, py + 3, f"{y:,.0f}", 8, ink.GREY, "end"))
        anchor = "start" if k == 0 else "end" if k == 4 else "middle"
        body.append(ink.text(px, height - 8, f"{x:,.0f} sq ft", 8, ink.GREY, anchor))
    for n, (x, y, home) in enumerate(dots, 1):
        px, py = at(x, y)
        body.append(ink.mark(home["kind"], px, py, 3.4))
        if len(dots) <= 40:
            body.append(ink.text(px + 6, py - 3, str(n), 7, ink.GREY, "start"))
    if mine:
        body.append(ink.house(*at(*mine), 6))
    return ink.svg(width, height, body)
