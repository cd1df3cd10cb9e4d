"""What a spot is worth of itself: what sales around it brought beyond their features, smoothed over the neighbours."""

from __future__ import annotations

from dataclasses import dataclass

import numpy as np

from .columns import Floats, Ints
from .place import near_miles

NEIGHBOURS = 10
PRIOR_SALES = 3.0
_NEAR, _FAR = 0.08, 0.6


@dataclass(frozen=True)
class Surface:
    """left: log price beyond features and time, (n,), of sales at lats, lons; level: its middle around the subject."""

    rows: Ints
    lats: Floats
    lons: Floats
    left: Floats
    weights: Floats
    level: float

    def log_worth(self, lat: float, lon: float, leave_out: int | None = None) -> float:
        """Log worth of a spot against the level: a mean of its neighbours' `left`, near ones first, drawn towards 0.

        s = Σ wᵢ (leftᵢ − level) ÷ (Σ wᵢ + 3), wᵢ = e^(−½ (dᵢ ÷ h)²), h the distance of the tenth nearest sale (0.08 to
        0.6 miles). leave_out: a row that must not speak for its own spot.
        """
        far = near_miles(lat, lon, self.lats, self.lons)
        there = np.isfinite(far) & (self.rows != (-1 if leave_out is None else leave_out))
        far, left, weights = far[there], self.left[there], self.weights[there]
        if not far.size:
            return 0.0
        k = min(NEIGHBOURS, far.size) - 1
        h = float(np.clip(np.partition(far, k)[k], _NEAR, _FAR))
        w = np.exp(-0.5 * (far / h) ** 2) * weights
        return float((w * np.clip(left - self.level, -0.5, 0.5)).sum() / (w.sum() + PRIOR_SALES))
