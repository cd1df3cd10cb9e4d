"""Rounding and writing of money. Lines are shown rounded half up; totals are the rounded sum of exact lines."""

from __future__ import annotations

import math
from collections.abc import Sequence
from functools import lru_cache

from ..phrases import phrase


def half_up(value: float, step: float = 1.0) -> float:
    """Round half away from zero to `step`: 2.5 → 3, −2.5 → −3."""
    return math.copysign(math.floor(abs(value) / step + 0.5 + 1e-9) * step, value) if value else 0.0


def adding_up(values: Sequence[float], total: float, step: float = 1.0) -> list[float]:
    """The values rounded to `step` so that what is printed adds up: where their rounded sum misses the rounded total, those
    nearest to the other side of their own rounding give way by one step. What is nothing stays nothing; values that do not make
    up the total even so are rounded each for itself.

    >>> adding_up([0.4, 0.4, 0.4], 1.2)
    [1.0, 0.0, 0.0]
    """
    shown = [half_up(v, step) for v in values]
    missing = round((half_up(total, step) - sum(shown)) / step)
    way = 1 if missing > 0 else -1
    by = sorted((i for i, v in enumerate(values) if v), key=lambda i: way * (shown[i] - values[i]))
    if abs(missing) > len(by):
        return shown
    for i in by[: abs(missing)]:
        shown[i] += way * step
    return shown


def dollars(value: float | None) -> str:
    """412500.4 → "412,500"; unknown → "unknown"."""
    return phrase("amount-unknown") if value is None else f"{half_up(value):,.0f}"


def priced(value: float | None) -> str:
    """Money that stands alone, with its sign: 412500.4 → "$412,500"; unknown → "unknown"."""
    if value is None:
        return phrase("amount-unknown")
    shown = half_up(value)
    return f"{'−' if shown < 0 else ''}${abs(shown):,.0f}"


def signed(value: float) -> str:
    """5741.2 → "+5,741"; −6000 → "−6,000" (a true minus sign)."""
    shown = half_up(value)
    return f"{'+' if shown > 0 else '−' if shown < 0 else ''}{abs(shown):,.0f}"


def signed_pct(pct: float) -> str:
    """Percent with a true minus sign, and with none where it rounds to nothing.

    >>> signed_pct(-2.46), signed_pct(0.04), signed_pct(5.7)
    ('−2.5 %', '0.0 %', '+5.7 %')
    """
    size = f"{abs(pct):.1f} %"
    return size if size == "0.0 %" else f"{'−' if pct < 0 else '+'}{size}"


def rate_digits(value: float) -> int:
    """Digits after the point of a rate in dollars a unit: none from 100 on, two from 1 on, else four."""
    size = abs(value)
    return 0 if size >= 100 else 2 if size >= 1 else 4


def rate_rounded(value: float) -> float:
    """A rate in dollars a unit as it is shown and reckoned with alike, so that printed sums multiply out: whole dollars
    from 100 on, cents from 1 on, else hundredths of a cent. 8123.45 → 8123; 85.374 → 85.37; 0.17346 → 0.1735."""
    digits = rate_digits(value)
    return round(half_up(value, 10.0**-digits), digits)


@lru_cache(4096)
def rate_words(value: float) -> str:
    """A rate as the screen and the paper write it; a typed one keeps the digits it was given. 8123.0 → "8,123"."""
    digits = rate_digits(value) if value else 0
    while digits < 4 and abs(value - round(value, digits)) > 1e-9:
        digits += 1
    return f"{value:,.{digits}f}".replace("-", "−")


def pct_words(value: float, sign: bool = False) -> str:
    """Percent a month with two digits, or with those that were typed: 0.29 → "0.29"; 0.125 → "0.125"."""
    digits = next((d for d in (2, 3) if abs(value - round(value, d)) < 1e-9), 4)
    return f"{value:{'+' if sign else ''}.{digits}f}".replace("-", "−")
