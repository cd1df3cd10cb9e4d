"""Years by months on paper: prices as a line over closings as bars."""

from __future__ import annotations

from collections.abc import Mapping, Sequence
from typing import Any

from ...core.facts.money import dollars
from ...core.market.measures import SMALL
from ...core.phrases import phrase
from . import ink
from .scale import rounded_span


def months_svg(periods: Sequence[Mapping[str, Any]], width: float = ink.WIDE, height: float = 230) -> str:
    """periods: a market answer's months with median_price and closings. A month of fewer than five closings is hollow, months
    without a price leave a gap; behind them their mean over half a year. Bars: closings; one not finished is hollow. "" where
    no month has a price."""
    prices = [(p["values"]["median_price"]["value"], p["values"]["median_price"]["n"]) for p in periods]
    known = [v for v, _ in prices if v is not None]
    if not known:
        return ""
    counts = [float(p["values"]["closings"]["value"] or 0) for p in periods]
    low, high = rounded_span((min(known), max(known)))
    left, right, top, middle, foot = 58.0, width - 6.0, 8.0, height * 0.68, height - 20.0
    step = (right - left) / max(1, len(periods))

    def at(i: int, v: float) -> tuple[float, float]:
        return left + step * (i + 0.5), middle - (middle - top) * (v - low) / (high - low)

    body = []
    lines = 4 if height >= 190 else 2
    for k in range(lines + 1):
        v = low + (high - low) * k / lines
        y = at(0, v)[1]
        body.append(f'<path d="M{left} {y:.1f}H{right}" stroke="{ink.LINE}" stroke-width="0.5"/>')
        body.append(ink.text(left - 5, y + 3, dollars(v), 9, ink.GREY, "end"))
    most = max([*counts, 1.0])
    for i, (p, n) in enumerate(zip(periods, counts, strict=True)):
        tall = (foot - middle - 14) * n / most
        fill = ink.RAIN if p["finished"] else ink.PAPER
        if n:
            body.append(
                f'<rect x="{left + step * i + step * 0.18:.1f}" y="{foot - tall:.1f}" width="{step * 0.64:.1f}" height="{tall:.1f}" fill="{fill}" stroke="{ink.RAIN}" stroke-width="0.6" opacity="0.75"/>'
            )
        if p["period"].endswith("-01"):
            body.append(ink.text(min(left + step * (i + 0.5), right - 12), height - 6, p["period"][:4], 9, ink.GREY))
    if height >= 160:
        body.append(ink.text(left - 5, foot - (foot - middle - 14) + 4, f"{most:,.0f}", 9, ink.GREY, "end"))
    body.append(ink.text(left - 5, foot + 3, phrase("months-closings"), 9, ink.GREY, "end"))
    body += _line([at(i, v) for i, v in enumerate(smooth(prices)) if v is not None], ink.MOSS, 2.2)
    for i, (v, n) in enumerate(prices):
        if v is not None:
            x, y = at(i, v)
            fill = ink.SLATE if n >= SMALL and periods[i]["finished"] else ink.PAPER
            body.append(
                f'<circle cx="{x:.1f}" cy="{y:.1f}" r="2.2" fill="{fill}" stroke="{ink.SLATE}" stroke-width="0.9"/>'
            )
    return ink.svg(width, height, body)


def smooth(values: Sequence[tuple[float | None, int]], span: int = 6, alike: bool = False) -> list[float | None]:
    """Mean of (value, count) over the `span` months to each, by their counts, or each alike; None until three are known."""
    out: list[float | None] = []
    for i in range(len(values)):
        part = [
            (v, 1 if alike else n) for v, n in values[max(0, i - span + 1) : i + 1] if v is not None and (alike or n)
        ]
        out.append(sum(v * n for v, n in part) / sum(n for _, n in part) if len(part) >= 3 else None)
    return out


def _line(points: Sequence[tuple[float, float]], colour: str, wide: float) -> list[str]:
    if len(points) < 2:
        return []
    return [
        f'<path d="M{"L".join(f"{x:.1f} {y:.1f}" for x, y in points)}" fill="none" stroke="{colour}" stroke-width="{wide}"/>'
    ]
