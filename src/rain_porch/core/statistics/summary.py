"""Count, low, high, mean, median, quartiles, mode, and each value's pull on the mean."""

from __future__ import annotations

from dataclasses import dataclass
from typing import Any

import numpy as np
from numpy.typing import NDArray


def known(value: float) -> float | None:
    """A figure of an array, None where it is unknown (NaN)."""
    return float(value) if np.isfinite(value) else None


@dataclass(frozen=True)
class Summary:
    """Low, quartiles, mean, median, mode and high of known values; None where there are none."""

    count: int
    low: float | None = None
    high: float | None = None
    mean: float | None = None
    median: float | None = None
    lower_quartile: float | None = None
    upper_quartile: float | None = None
    modes: tuple[float, ...] = ()


DISPLAY_STEP = {
    "price": 1000.0,
    "price_per_sqft": 1.0,
    "list_price_per_sqft": 1.0,
    "living_area": 10.0,
    "days_on_market": 1.0,
    "list_price": 1000.0,
    "original_list_price": 1000.0,
    "cumulative_days_on_market": 1.0,
    "share_of_list": 0.5,
    "share_of_original": 0.5,
}
"""What a figure is rounded to before its most frequent value is looked for."""


def summarise(values: Any, step: float = 1.0) -> Summary:
    """Summary of the known values; `step` is the field's display step, to which the mode is rounded.

    Median of an even count = mean of the two middle values; quartiles by linear interpolation (NumPy's
    default). Modes: all that tie for the most frequent after rounding; none when nothing repeats.

    >>> summarise([1, 2, 2, 7]).median
    2.0
    """
    x = np.asarray(values, dtype=np.float64)
    x = x[np.isfinite(x)]
    if not x.size:
        return Summary(0)
    q1, median, q3 = np.percentile(x, [25, 50, 75])
    return Summary(
        count=int(x.size),
        low=float(x.min()),
        high=float(x.max()),
        mean=float(x.mean()),
        median=float(median),
        lower_quartile=float(q1),
        upper_quartile=float(q3),
        modes=modes(x, step),
    )


def modes(values: NDArray[np.float64], step: float) -> tuple[float, ...]:
    """The most frequent values after rounding half up to `step`; empty when nothing repeats."""
    found, counts = np.unique(np.floor(values / step + 0.5), return_counts=True)
    most = counts.max(initial=0)
    if most < 2:
        return ()
    return tuple(float(v * step) for v in found[counts == most])


def pulls(values: Any) -> NDArray[np.float64]:
    """The mean without each value, shape (n,); NaN for a single value."""
    x = np.asarray(values, dtype=np.float64)
    if x.size < 2:
        return np.full(x.size, np.nan)
    return np.asarray((x.sum() - x) / (x.size - 1))


FEW = 4  # of fewer values none can be called far from the rest


def far_from_rest(values: Any, most: int) -> NDArray[np.int64]:
    """Where the known values beyond Tukey's fences stand, the farthest from the middle first, at most so many."""
    x = np.asarray(values, dtype=np.float64)
    known = np.flatnonzero(np.isfinite(x))
    if len(known) < FEW:
        return np.zeros(0, dtype=np.int64)
    beyond = known[outside_fences(x[known])]
    return np.asarray(beyond[np.argsort(-np.abs(x[beyond] - np.median(x[known])), kind="stable")][:most])


def outside_fences(values: Any) -> NDArray[np.bool_]:
    """Values beyond 1.5 interquartile ranges of the quartiles (Tukey's fences)."""
    x = np.asarray(values, dtype=np.float64)
    if not x.size:
        return np.zeros(0, dtype=np.bool_)
    q1, q3 = np.percentile(x, [25, 75])
    reach = 1.5 * (q3 - q1)
    return np.asarray((x < q1 - reach) | (x > q3 + reach))
