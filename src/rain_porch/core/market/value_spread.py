"""How the values behind a mean or median lie: bins of round width, with the middle of them."""

from __future__ import annotations

from dataclasses import dataclass

import numpy as np

from .columns import Floats

MOST = 14  # bins
_STEPS = (1.0, 2.0, 2.5, 5.0)


@dataclass(frozen=True)
class Bin:
    """low ≤ value < high; the last holds its high end too. n: how many."""

    low: float
    high: float
    n: int


def spread(values: Floats) -> list[Bin]:
    """Bins (at most 16) that hold all known values, their edges round. The fences of far values are not cut off: they are told by
    empty bins up to the 99th percentile, and the last bin takes what lies beyond.

    >>> [(b.low, b.high, b.n) for b in spread(np.array([1.0, 2.0, 2.0, 9.0]))]
    [(1.0, 2.0, 1), (2.0, 3.0, 2), (3.0, 4.0, 0), (4.0, 5.0, 0), (5.0, 6.0, 0), (6.0, 7.0, 0), (7.0, 8.0, 0), (8.0, 9.0, 1)]
    """
    x = values[np.isfinite(values)]
    if not x.size:
        return []
    low, high = float(x.min()), float(x.max())
    top = float(np.percentile(x, 99)) if x.size >= 100 else high
    width = _round_width((top - low) / MOST)
    first = np.floor(low / width) * width
    count = max(1, int(np.ceil((top - first) / width)))
    edges = first + width * np.arange(count + 1)
    at = np.clip(np.floor((x - first) / width).astype(np.int64), 0, count - 1)
    counts = np.bincount(at, minlength=count)
    ends = edges[1:].copy()
    ends[-1] = max(ends[-1], high)
    return [
        Bin(round(float(a), 9), round(float(b), 9), int(n)) for a, b, n in zip(edges[:-1], ends, counts, strict=True)
    ]


def _round_width(least: float) -> float:
    """The least of 1, 2, 2.5 and 5 times a power of ten that is not below `least`; 1 where nothing differs."""
    if least <= 0:
        return 1.0
    power = 10.0 ** np.floor(np.log10(least))
    return float(next(s * power for s in (*_STEPS, 10.0) if s * power >= least - 1e-12))
