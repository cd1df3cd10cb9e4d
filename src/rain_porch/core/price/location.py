"""What a spot is worth of itself: what sales around it brought beyond their features, smoothed over the neighbours."""

from __future__ import annotations

from dataclasses import dataclass, replace

import numpy as np

from ..facts.homes import Subject
from ..facts.place import near_miles
from ..market.columns import Floats, Ints

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
        out = np.array([-1 if leave_out is None else leave_out])
        return float(self.log_worths(np.array([lat]), np.array([lon]), out)[0])

    def log_worths(self, lats: Floats, lons: Floats, leave_out: Ints) -> Floats:
        """The same for many spots, (m,), each leaving out the row of its own."""
        if not self.rows.size:
            return np.zeros(len(lats))
        far = near_miles(lats[:, None], lons[:, None], self.lats[None, :], self.lons[None, :])
        far = np.where(np.isfinite(far) & (self.rows[None, :] != leave_out[:, None]), far, np.inf)
        k = min(NEIGHBOURS, far.shape[1]) - 1
        nearest = np.partition(far, k, axis=1)[:, k]
        h = np.clip(np.where(np.isfinite(nearest), nearest, _FAR), _NEAR, _FAR)
        w = np.exp(-0.5 * (far / h[:, None]) ** 2) * self.weights[None, :]
        return np.asarray(w @ np.clip(self.left - self.level, -0.5, 0.5) / (w.sum(axis=1) + PRIOR_SALES))


def location_pct(surface: Surface, subject: Subject, lats: Floats, lons: Floats, rows: Ints) -> Floats:
    """By how many percent each comp's spot is worth more than the subject's, rounded as the grid shows it, (n,)."""
    spots = surface.log_worths(lats, lons, rows)
    mine = surface.log_worth(subject.latitude, subject.longitude)
    return np.round(100 * np.expm1(spots - mine), 2)


def at_its_own_spot(subject: Subject) -> Subject:
    """The subject as the grid's line of location sees it: 0 % from its own spot."""
    return replace(subject, facts={**subject.facts, "location": 0.0})
