"""Where amounts stand along a line of a picture."""

from __future__ import annotations

import math
from collections.abc import Callable, Sequence


def rounded_span(span: tuple[float, float]) -> tuple[float, float]:
    """A span that holds the given one, its ends and quarters round numbers.

    >>> rounded_span((310_924.0, 486_350.0)), rounded_span((0.0, 46.0))
    ((300000.0, 500000.0), (0.0, 60.0))
    """
    low, high = span
    least = (high - low) / 4 or abs(high) / 8 or 0.25
    size = 10.0 ** math.floor(math.log10(least))
    for step in (m * size for m in (1, 1.5, 2, 2.5, 5, 10, 15, 20)):
        start = step * math.floor(low / step + 1e-9)
        if start + 4 * step >= high - 1e-9:
            return start, start + 4 * step
    return low, high


def along(amounts: Sequence[float], start: float, end: float, room: float = 0.05) -> Callable[[float], float]:
    """From an amount to its place between start and end, with some room (a share of their span, else of the greatest) before the
    least and after the greatest of the amounts.

    >>> at = along([100, 200], 0, 120, room=0.1)
    >>> at(100), at(200)
    (10.0, 110.0)
    """
    low, high = min(amounts), max(amounts)
    pad = room * (high - low) or room * abs(high) or 1.0

    def at(amount: float) -> float:
        return float(start + (end - start) * (amount - low + pad) / (high - low + 2 * pad))

    return at
