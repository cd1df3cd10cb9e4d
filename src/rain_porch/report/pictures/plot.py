"""A field of points on paper: its lines, its figures at the side and below, and where a point stands."""

from __future__ import annotations

from collections.abc import Sequence
from dataclasses import dataclass

from . import ink
from .scale import rounded_span

STEPS = 4


@dataclass(frozen=True)
class Plot:
    """xs, ys: all that is to have room, in their units."""

    xs: Sequence[float]
    ys: Sequence[float]
    width: float = ink.WIDE
    height: float = 260.0
    left: float = 56.0
    right: float = 10.0
    top: float = 10.0
    foot: float = 28.0

    def at(self, x: float, y: float) -> tuple[float, float]:
        (lo_x, hi_x), (lo_y, hi_y) = _span(self.xs), _span(self.ys)
        wide, tall = self.width - self.left - self.right, self.height - self.foot - self.top
        return self.left + wide * (x - lo_x) / (hi_x - lo_x), self.top + tall * (1 - (y - lo_y) / (hi_y - lo_y))

    def frame(self, unit: str) -> list[str]:
        """The lines at round amounts, with the figures of both sides; unit: of what runs along the foot."""
        body = []
        for k in range(STEPS + 1):
            x, y = (lo + (hi - lo) * k / STEPS for lo, hi in (_span(self.xs), _span(self.ys)))
            px, py = self.at(x, y)
            body.append(
                f'<path d="M{self.left:.1f} {py:.1f}H{self.width - self.right:.1f}" stroke="{ink.LINE}" stroke-width="0.5"/>'
            )
            body.append(ink.text(self.left - 5, py + 3, f"{y:,.10g}", 9, ink.GREY, "end"))
            anchor = "start" if k == 0 else "end" if k == STEPS else "middle"
            body.append(ink.text(px, self.height - 10, f"{x:,.10g} {unit}", 9, ink.GREY, anchor))
        return body


def _span(values: Sequence[float]) -> tuple[float, float]:
    """From a little below the least to a little above the most, at round amounts; never of no width."""
    low, high = min(values), max(values)
    more = 0.05 * (high - low or high or 1.0)
    return rounded_span((low - more, high + more))
