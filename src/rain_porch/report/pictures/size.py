"""Homes by size and price: a mark each, numbered ones with their number, the home itself as a house."""

from __future__ import annotations

from collections.abc import Callable, Mapping, Sequence
from typing import Any

import numpy as np

from ...core.facts.local_form import USUAL, LocalForm
from . import ink
from .plot import Plot
from .spread import NUMBER_RADIUS, leader, numbered, spread

NUMBERED = 40  # more than that would fill the field


def size_svg(
    homes: Sequence[tuple[int | None, Mapping[str, Any]]],
    area: float | None,
    price: float | None,
    width: float = ink.WIDE,
    height: float = 230,
    of: str = "price",
    curve: Callable[[float], float] | None = None,
    form: LocalForm = USUAL,
) -> str:
    """homes: (number, document of a candidate); area, price: the home's own, where it has both. of: what stands upright, price or
    price_per_sqft. curve: that by size. form: in whose units it is drawn. "" for fewer than two homes."""

    def upright(value: float) -> float:
        return form.measured(value, "$/sq ft") if of == "price_per_sqft" else value

    dots = [
        (form.measured(float(h["facts"]["living_area"]), "sq ft"), upright(float(h[of])), h["kind"], n)
        for n, h in homes
        if h[of] and h["facts"].get("living_area")
    ]
    if len(dots) < 2:
        return ""
    mine = [(form.measured(area, "sq ft"), upright(price))] if area and price else []
    plot = Plot(
        [*(d[0] for d in dots), *(x for x, _ in mine)], [*(d[1] for d in dots), *(y for _, y in mine)], width, height
    )
    body = plot.frame(form.unit("sq ft"))
    if curve is not None:
        sizes = [float(h["facts"]["living_area"]) for _, h in homes if h[of] and h["facts"].get("living_area")]
        line = [
            plot.at(form.measured(float(x), "sq ft"), upright(float(curve(x))))
            for x in np.linspace(min(sizes), max(sizes), 40)
        ]
        body.append(
            f'<path d="M{"L".join(f"{x:.1f} {y:.1f}" for x, y in line)}" fill="none" stroke="{ink.MOSS}" stroke-width="1.4"/>'
        )
    told = [d for d in dots if d[3] is not None]
    shown = told if len(told) <= NUMBERED else []
    body += [ink.mark(kind, *plot.at(x, y), 2.8) for x, y, kind, n in dots if n is None or not shown]
    true = [plot.at(x, y) for x, y, _, _ in shown]
    house = [(*plot.at(x, y), 9.0) for x, y in mine]
    drawn = spread(true, [NUMBER_RADIUS + 0.6] * len(true), width - plot.right + 6, height - plot.foot + 4, house)
    drawn = [(max(x, plot.left + NUMBER_RADIUS), y) for x, y in drawn]
    for spot, place in zip(drawn, true, strict=True):
        body += leader(spot, place, NUMBER_RADIUS)
    for (_, _, kind, n), spot in zip(shown, drawn, strict=True):
        body += numbered(kind, *spot, n or 0)
    body += [ink.house(x, y, 7) for x, y, _ in house]
    return ink.svg(width, height, body)
