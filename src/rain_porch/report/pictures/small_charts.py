"""Small charts of a bulletin: a line behind a key figure, a measure by month, a heat of months by year, places by their change."""

from __future__ import annotations

import math
from collections.abc import Mapping, Sequence
from typing import Any

from ...core.facts.local_form import USUAL, LocalForm
from ...core.phrases import phrase
from . import ink
from .base_lines import BaseLine, drawn_lines
from .months import smooth
from .scale import rounded_span
from .spread import spread

WARM, COLD = ink.CEDAR, ink.RAIN
WORDS = 23.0  # points that half a number with its change in words takes


def _axis(value: float, unit: str, high: float, low: float) -> str:
    """A number beside an axis: prices in thousands, shares in percent, small ones with a digit."""
    if unit == "$":
        return f"{value / 1000:,.0f}k"
    if unit == "share":
        return f"{100 * value:.{0 if high - low >= 0.04 else 1}f}%"
    whole = not ((high - low) / 4) % 1 and not low % 1
    return f"{value:,.0f}" if whole or high - low >= 40 else f"{value:,.1f}"


def spark_svg(values: Sequence[float | None], width: float = 120, height: float = 28) -> str:
    """A line through the known values, the newest as a dot; "" for fewer than three."""
    known = [(i, v) for i, v in enumerate(values) if v is not None]
    if len(known) < 3:
        return ""
    low, high = min(v for _, v in known), max(v for _, v in known)
    last = max(1, len(values) - 1)
    points = [
        (3 + (width - 8) * i / last, height - 4 - (height - 8) * (v - low) / ((high - low) or 1)) for i, v in known
    ]
    path = "M" + "L".join(f"{x:.1f} {y:.1f}" for x, y in points)
    x, y = points[-1]
    return ink.svg(width, height, [
        f'<path d="{path}" fill="none" stroke="{ink.RAIN}" stroke-width="1.4"/>',
        f'<circle cx="{x:.1f}" cy="{y:.1f}" r="2.6" fill="{ink.RAIN}"/>',
    ])  # fmt: skip


BEHIND = 6  # months of which the line is the mean


def months_line_svg(
    months: Sequence[Mapping[str, Any]],
    name: str,
    unit: str,
    width: float = 255,
    height: float = 150,
    least: int = 0,
    form: LocalForm = USUAL,
) -> str:
    """One measure by month: a dot a month, hollow for one of fewer than `least` homes or not over; the line is the mean of the half
    year to each month, by their counts where they are means or medians. form: in whose units. "" where none is known."""
    values = [
        (v and form.measured(v, unit), n)
        for v, n in ((m["values"][name]["value"], m["values"][name]["n"]) for m in months)
    ]
    known = [(i, v) for i, (v, _) in enumerate(values) if v is not None]
    if not known:
        return ""
    low, high = rounded_span(
        (
            min(0.0, *(v for _, v in known)) if unit in ("months", "") else min(v for _, v in known),
            max(v for _, v in known),
        )
    )
    left, right, top, foot = 34.0, width - 6.0, 8.0, height - 18.0
    step = (right - left) / max(1, len(months))

    def at(i: int, v: float) -> tuple[float, float]:
        return left + step * (i + 0.5), foot - (foot - top) * (v - low) / ((high - low) or 1)

    body = []
    for k in range(5):
        v = low + (high - low) * k / 4
        y = at(0, v)[1]
        body.append(f'<path d="M{left} {y:.1f}H{right}" stroke="{ink.LINE}" stroke-width="0.5"/>')
        body.append(ink.text(left - 4, y + 3, _axis(v, unit, high, low), 9, ink.GREY, "end"))
    for i, m in enumerate(months):
        if m["period"].endswith("-01"):
            body.append(ink.text(min(at(i, low)[0], right - 11), height - 4, m["period"][:4], 9, ink.GREY))
    for i, v in known if name != "same_home_price" else ():  # a trend by itself
        few = months[i]["values"][name]["n"] < least or not months[i]["finished"]
        x, y = at(i, v)
        body.append(
            f'<circle cx="{x:.1f}" cy="{y:.1f}" r="1.5" fill="{ink.PAPER if few else ink.GREY}" stroke="{ink.GREY}" stroke-width="0.6"/>'
        )
    whole = [v if m["finished"] else (None, 0) for v, m in zip(values, months, strict=True)]
    path = [at(i, v) for i, v in enumerate(smooth(whole, BEHIND, alike=unit == "")) if v is not None]
    if len(path) > 1:
        line = "L".join(f"{x:.1f} {y:.1f}" for x, y in path)
        body.append(f'<path d="M{line}" fill="none" stroke="{ink.RAIN}" stroke-width="1.8"/>')
    return ink.svg(width, height, body)


Cell = tuple[float, str, int]  # a value, how it is written, how many homes it is made from


def heat_svg(rows: Sequence[tuple[str, Sequence[Cell | None]]], width: float = ink.WIDE, few: int = 0) -> str:
    """Years down, months across: the more, the darker; each with its number. A month that is not known is empty, one of fewer than
    `few` homes outlined. "" where no month is known."""
    values = [c[0] for _, cells in rows for c in cells if c is not None and c[2] >= few] or [
        c[0] for _, cells in rows for c in cells if c is not None
    ]
    if not values:
        return ""
    low, most = (min(values), max(values)) if few else (0.0, max([*values, 1.0]))
    left, tall = 40.0, 24.0
    cell = (width - left) / 12
    body = [
        ink.text(left + cell * (i + 0.5), 11, m if width > 400 else m[:1], 9, ink.GREY)
        for i, m in enumerate(phrase("heat-months").split())
    ]
    for r, (name, cells) in enumerate(rows):
        y = 17 + r * (tall + 3)
        body.append(ink.text(left - 8, y + tall / 2 + 3, name, 9, ink.SLATE, "end", 600))
        for i, made in enumerate(cells):
            box = f'<rect x="{left + cell * i + 1:.1f}" y="{y:.1f}" width="{cell - 2:.1f}" height="{tall}"'
            if made is None:
                body.append(f'{box} fill="none" stroke="{ink.LINE}" stroke-width="0.6"/>')
                continue
            thin = made[2] < few
            share = min(1.0, max(0.0, (made[0] - low) / ((most - low) or 1)))
            body.append(
                f'{box} fill="none" stroke="{ink.RAIN}" stroke-width="0.8" stroke-dasharray="2 2"/>'
                if thin
                else f'{box} fill="{ink.RAIN}" opacity="{0.10 + 0.85 * share:.2f}"/>'
            )
            colour = ink.PAPER if share > 0.45 and not thin else ink.SLATE
            body.append(
                ink.text(left + cell * (i + 0.5), y + tall / 2 + 3, made[1], 9, colour, weight=400 if thin else 600)
            )
    return ink.svg(width, 17 + len(rows) * (tall + 3), body)


def outside_svg(values: Sequence[float | None], width: float = ink.WIDE, height: float = 54) -> str:
    """An outside series under a chart of months, on a scale of its own: its highest, its lowest and its newest are written. "" for
    fewer than three."""
    known = [(i, v) for i, v in enumerate(values) if v is not None]
    if len(known) < 3:
        return ""
    left, right = 58.0, width - 6.0
    step = (right - left) / max(1, len(values))
    low, high = min(v for _, v in known), max(v for _, v in known)

    def at(i: int, v: float) -> tuple[float, float]:
        return left + step * (i + 0.5), height - 8 - (height - 16) * (v - low) / ((high - low) or 1)

    path = "M" + "L".join(f"{x:.1f} {y:.1f}" for x, y in (at(i, v) for i, v in known))
    x, y = at(*known[-1])
    return ink.svg(width, height, [
        f'<path d="{path}" fill="none" stroke="{ink.CEDAR}" stroke-width="1.4"/>',
        f'<circle cx="{x:.1f}" cy="{y:.1f}" r="2.4" fill="{ink.CEDAR}"/>',
        ink.text(left - 5, 11, f"{high:.2f}", 9, ink.GREY, "end"), ink.text(left - 5, height - 5, f"{low:.2f}", 9, ink.GREY, "end"),
        ink.text(x - 5, y - 5 if y > 18 else y + 12, f"{known[-1][1]:.2f}", 9, ink.CEDAR, "end", 600),
    ])  # fmt: skip


def places_svg(
    places: Sequence[Mapping[str, Any]], lines: Sequence[BaseLine], width: float = ink.WIDE, height: float = 230
) -> str:
    """Places by the change of their price on the year: the more it rose, the warmer; fell, the colder; hatched where too few sold.
    places: with number, rings and change. "" where none has an outline."""
    drawn = [p for p in places if p["rings"]]
    if not drawn:
        return ""
    points = [q for p in drawn for ring in p["rings"] for q in ring]
    west, east, south, north = (f(q[k] for q in points) for k, f in ((0, min), (0, max), (1, min), (1, max)))
    tall = (north - south) or 1e-6
    shrink = math.cos(math.radians((south + north) / 2))
    scale = min((width - 16) / (((east - west) or 1e-6) * shrink), (height - 16) / tall)
    x0, y0 = (width - (east - west) * shrink * scale) / 2, (height - tall * scale) / 2

    def at(lon: Any, lat: Any) -> tuple[Any, Any]:
        return x0 + (lon - west) * shrink * scale, y0 + (north - lat) * scale

    more = 0.2 * tall
    body = [f'<rect width="{width}" height="{height}" fill="{ink.LAND}"/>']
    body += drawn_lines(lines, at, (west - more * 3, south - more, east + more * 3, north + more))
    for p in drawn:
        size = None if p["change"] is None else p["change"]["size"]
        fill = ink.GREY if size is None else WARM if size > 0 else COLD
        strength = 0.12 if size is None else 0.18 + 0.5 * min(1.0, abs(size) / 10)
        for ring in p["rings"]:
            path = "M" + "L".join(f"{x:.1f} {y:.1f}" for x, y in (at(*q) for q in ring)) + "z"
            body.append(
                f'<path d="{path}" fill="{fill}" fill-opacity="{strength:.2f}" stroke="{ink.SLATE}" stroke-width="0.7"/>'
            )
    middles = [
        at(*(sum(q[k] for q in ring) / len(ring) for k in (0, 1))) for ring in (max(p["rings"], key=len) for p in drawn)
    ]
    for p, (x, y) in zip(drawn, spread(middles, [WORDS] * len(drawn), width, height), strict=True):
        change = phrase("places-too-few") if p["change"] is None else p["change"]["words"]
        words = phrase("places-change", number=str(p["number"]), change=change)
        body.append(ink.text(x, y + 3, words, 9, ink.SLATE, weight=600))
    return ink.svg(width, height, body)
