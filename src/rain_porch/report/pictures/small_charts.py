"""Small charts of a bulletin: a line behind a key figure, a measure by month, a heat of months by year, places by their change."""

from __future__ import annotations

import math
from collections.abc import Mapping, Sequence
from typing import Any

from . import ink
from .base_lines import BaseLine, drawn_lines
from .market_chart import rounded_span
from .spread import spread

WARM, COLD = ink.CEDAR, ink.RAIN
WORDS = 17.0  # points that half a change in words takes


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


def months_line_svg(
    months: Sequence[Mapping[str, Any]], name: str, unit: str, width: float = 255, height: float = 150, least: int = 0
) -> str:
    """One measure by month as a line; a month of fewer than `least` homes, or not over, is hollow. "" where none is known."""
    known = [(i, m["values"][name]["value"]) for i, m in enumerate(months) if m["values"][name]["value"] is not None]
    if not known:
        return ""
    low, high = rounded_span(
        (min(0.0, *(v for _, v in known)) if unit == "months" else min(v for _, v in known), max(v for _, v in known))
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
        body.append(ink.text(left - 4, y + 3, f"{v:,.0f}" if high >= 8 else f"{v:,.1f}", 9, ink.GREY, "end"))
    for i, m in enumerate(months):
        if m["period"].endswith("-01"):
            body.append(ink.text(min(at(i, low)[0], right - 11), height - 4, m["period"][:4], 9, ink.GREY))
    body.append(
        f'<path d="M{"L".join(f"{x:.1f} {y:.1f}" for x, y in (at(i, v) for i, v in known))}" fill="none" stroke="{ink.RAIN}" stroke-width="1.4"/>'
    )
    for i, v in known:
        few = months[i]["values"][name]["n"] < least or not months[i]["finished"]
        if few or i == known[-1][0]:
            x, y = at(i, v)
            body.append(
                f'<circle cx="{x:.1f}" cy="{y:.1f}" r="2.1" fill="{ink.PAPER if few else ink.RAIN}" stroke="{ink.RAIN}" stroke-width="0.9"/>'
            )
    return ink.svg(width, height, body)


def heat_svg(rows: Sequence[tuple[str, Sequence[int | None]]], width: float = ink.WIDE) -> str:
    """Years down, months across: the more, the darker; each with its number. A month that is not over is empty."""
    most = max([v for _, values in rows for v in values if v is not None] or [1]) or 1
    left, tall = 40.0, 24.0
    cell = (width - left) / 12
    body = [
        ink.text(left + cell * (i + 0.5), 11, m, 9, ink.GREY)
        for i, m in enumerate(["Jan", "Feb", "Mar", "Apr", "May", "Jun", "Jul", "Aug", "Sep", "Oct", "Nov", "Dec"])
    ]
    for r, (name, values) in enumerate(rows):
        y = 17 + r * (tall + 3)
        body.append(ink.text(left - 8, y + tall / 2 + 3, name, 9, ink.SLATE, "end", 600))
        for i, v in enumerate(values):
            x = left + cell * i
            if v is None:
                body.append(
                    f'<rect x="{x + 1:.1f}" y="{y:.1f}" width="{cell - 2:.1f}" height="{tall}" fill="none" stroke="{ink.LINE}" stroke-width="0.6"/>'
                )
                continue
            share = v / most
            body.append(
                f'<rect x="{x + 1:.1f}" y="{y:.1f}" width="{cell - 2:.1f}" height="{tall}" fill="{ink.RAIN}" opacity="{0.10 + 0.85 * share:.2f}"/>'
            )
            body.append(
                ink.text(
                    x + cell / 2, y + tall / 2 + 3, f"{v:,}", 9, ink.PAPER if share > 0.45 else ink.SLATE, weight=600
                )
            )
    return ink.svg(width, 17 + len(rows) * (tall + 3), body)


def places_svg(
    places: Sequence[Mapping[str, Any]], lines: Sequence[BaseLine], width: float = ink.WIDE, height: float = 230
) -> str:
    """Places by the change of their price on the year: the more it rose, the warmer; fell, the colder; hatched where too few sold.
    places: with place, rings and change. "" where none has an outline."""
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
        words = "too few" if p["change"] is None else p["change"]["words"]
        body.append(ink.text(x, y + 3, words, 9, ink.SLATE, weight=600))
    return ink.svg(width, height, body)
