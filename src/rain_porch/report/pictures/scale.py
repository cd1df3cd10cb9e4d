"""Where amounts stand along a line of a picture."""

from __future__ import annotations

from collections.abc import Callable, Sequence


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
