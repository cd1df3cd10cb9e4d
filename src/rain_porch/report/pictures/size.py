"""Homes by size and price: a mark each, the home itself at what it is offered for."""

from __future__ import annotations

from collections.abc import Mapping, Sequence
from typing import Any

from . import ink
from .plot import Plot

NUMBERED = 40  # more than that would lie on one another


def size_svg(
    homes: Sequence[Mapping[str, Any]], area: float | None, price: float | None, width: float = 520, height: float = 230
) -> str:
    """homes: documents of candidates. area, price: the home's own, where it has both. Marks bear the homes' numbers. "" for fewer than two homes."""
    dots = [
        (float(h["facts"]["living_area"]), float(h["price"]), h["kind"], n)
        for n, h in enumerate(homes, 1)
        if h["price"] and h["facts"].get("living_area")
    ]
    if len(dots) < 2:
        return ""
    mine = [(area, price)] if area and price else []
    plot = Plot(
        [*(d[0] for d in dots), *(x for x, _ in mine)], [*(d[1] for d in dots), *(y for _, y in mine)], width, height
    )
    body = plot.frame("sq ft")
    for x, y, kind, n in dots:
        px, py = plot.at(x, y)
        body.append(ink.mark(kind, px, py, 3.4))
        if len(dots) <= NUMBERED:
            body.append(ink.text(px + 6, py - 3, str(n), 7, ink.GREY, "start"))
    body += [ink.house(*plot.at(x, y), 6) for x, y in mine]
    return ink.svg(width, height, body)
