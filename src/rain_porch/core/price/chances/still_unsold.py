"""The chance of a contract for a home that has been for sale a while, from the chances of one that comes on today."""

from __future__ import annotations

import math
from collections.abc import Sequence


def chance_after(within: Sequence[tuple[float, float]], unsold: float, more: float) -> float | None:
    """1 − S(u + m) ÷ S(u): the chance of a contract in the next `more` days m of a home unsold after `unsold` days u.

    within: (days, chance of a contract within them), the days ascending; S = 1 − chance, which falls evenly in its logarithm
    between the days that are told. None where they do not reach so far, or nothing would be left unsold.

    >>> round(chance_after([(30, 0.5), (60, 0.75)], 30, 30), 6)
    0.5
    """
    days, left = [0.0, *(float(d) for d, _ in within)], [1.0, *(1 - c for _, c in within)]
    if unsold < 0 or unsold + more > days[-1] or min(left) <= 0:
        return None

    def logarithm(at: float) -> float:
        k = next(i for i in range(1, len(days)) if at <= days[i])
        share = (at - days[k - 1]) / (days[k] - days[k - 1])
        return math.log(left[k - 1]) * (1 - share) + math.log(left[k]) * share

    return 1 - math.exp(logarithm(unsold + more) - logarithm(unsold))
