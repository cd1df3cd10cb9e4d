"""Where amounts stand along a line of a picture."""

from __future__ import annotations

import math
from collections.abc import Callable, Sequence


def round_marks(low: float, high: float, most: int = 5) -> list[float]:
    """The round amounts between low and high, at most so many: multiples of 1, 2, 2.5 or 5 of some power of ten.

    >>> round_marks(374_445, 577_455)
    [400000.0, 450000.0, 500000.0, 550000.0]
    """
    rough = (high - low) / most
    size = 10.0 ** math.floor(math.log10(rough))
    for step in (size * m for m in (1, 2, 2.5, 5, 10, 20)):
        first, last = math.ceil(low / step - 1e-9), math.floor(high / step + 1e-9)
        if last - first < most:
            return [k * step for k in range(first, last + 1)]
    raise AssertionError("20 times the power of ten is always enough")


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
