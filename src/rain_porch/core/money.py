"""Rounding and writing of money. Lines are shown rounded half up; totals are the rounded sum of exact lines."""

from __future__ import annotations

import math


def half_up(value: float, step: float = 1.0) -> float:
    """Round half away from zero to `step`: 2.5 → 3, −2.5 → −3."""
    return math.copysign(math.floor(abs(value) / step + 0.5 + 1e-9) * step, value) if value else 0.0


def dollars(value: float | None) -> str:
    """412500.4 → "412,500"; unknown → "unknown"."""
    return "unknown" if value is None else f"{half_up(value):,.0f}"


def signed(value: float) -> str:
    """5741.2 → "+5,741"; −6000 → "−6,000" (a true minus sign)."""
    shown = half_up(value)
    return f"{'+' if shown > 0 else '−' if shown < 0 else ''}{abs(shown):,.0f}"
