"""The chance of a contract by list price, a curve for each span of days, with this home's price marked."""

from __future__ import annotations

from collections.abc import Sequence

from ...core.facts.money import dollars
from . import ink

TICK = 48  # points that a price under the curve takes
SHADES = (ink.RAIN, ink.SLATE, ink.GREY)


def chances_svg(
    prices: Sequence[float], curves: Sequence[tuple[str, Sequence[float]]], list_price: float | None, width: float = ink.WIDE,
    height: float = 150,
) -> str:  # fmt: skip
    """curves: (name, chance in percent at each price). The list price is marked where it lies among the prices."""
    left, right, top, foot = 34.0, width - 62.0, 16.0, height - 20
    low, high = min(prices), max(prices)
    high += low == high

    def at(price: float, pct: float) -> tuple[float, float]:
        return left + (right - left) * (price - low) / (high - low), foot - (foot - top) * pct / 100

    body = []
    for pct in (0, 25, 50, 75, 100):
        y = at(low, pct)[1]
        body.append(f'<path d="M{left} {y:.1f}H{right}" stroke="{ink.LINE}" stroke-width="0.5"/>')
        body.append(ink.text(left - 5, y + 3, f"{pct} %", 9, ink.GREY, "end"))
    named: list[float] = []
    for p in sorted(prices, key=lambda v: v != list_price):  # this home's own is named whatever stands beside it
        x = min(max(at(p, 0)[0], 24), right)
        if all(abs(x - other) > TICK for other in named):
            named.append(x)
            body.append(ink.text(x, foot + 14, dollars(p), 9, ink.GREY))
    if list_price and low <= list_price <= high:
        x = at(list_price, 0)[0]
        body.append(f'<path d="M{x:.1f} {top}V{foot}" stroke="{ink.CEDAR}" stroke-width="1.6" stroke-dasharray="4 2"/>')
    ends: list[float] = []
    for k, (name, values) in enumerate(curves):
        points = [at(p, v) for p, v in zip(prices, values, strict=True)]
        path = "M" + "L".join(f"{x:.1f} {y:.1f}" for x, y in points)
        dash = ("", "6 3", "2 3")[k % 3]
        body.append(
            f'<path d="{path}" fill="none" stroke="{SHADES[k % 3]}" stroke-width="1.8" stroke-dasharray="{dash}"/>'
        )
        y = points[-1][1]
        while any(abs(y - e) < 11 for e in ends):
            y -= 1
        ends.append(y)
        body.append(ink.text(right + 6, y + 3, name, 9, SHADES[k % 3], "start", 600))
    return ink.svg(width, height, body)
