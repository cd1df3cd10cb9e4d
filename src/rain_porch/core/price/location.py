"""What a spot is worth of itself: what sales around it brought beyond their features, smoothed over the neighbours."""

from __future__ import annotations

from dataclasses import dataclass, replace

import numpy as np

from ..facts.homes import Subject
from ..facts.places.place import MILES_EAST, MILES_NORTH, near_miles
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


@dataclass(frozen=True)
class PlaceWorth:
    """What spots around a home are worth of themselves, in percent against its own.

    lats, lons: (n,) of the rows, north first, and columns, west first; pct: (n, n). rows, at, left: the sales that it was learnt from,
    (m,), with their place (m, 2) and what each brought beyond its features, against the home's spot.
    """

    lats: Floats
    lons: Floats
    pct: Floats
    rows: Ints
    at: Floats
    left: Floats


MAP_STEPS, MAP_SALES, _LEAST_MILES, _MOST_MILES = 24, 120, 0.25, 3.0


def place_worth(surface: Surface, subject: Subject) -> PlaceWorth | None:
    """A square around the home that holds its 120 nearest sales, ¼ to 3 miles to each side; None without a place or sales."""
    if not subject.placed or not surface.rows.size:
        return None
    far = near_miles(subject.latitude, subject.longitude, surface.lats, surface.lons)
    near = np.argsort(np.where(np.isfinite(far), far, np.inf), kind="stable")[:MAP_SALES]
    near = near[np.isfinite(far[near])]
    if not near.size:
        return None
    reach = float(np.clip(far[near].max(), _LEAST_MILES, _MOST_MILES))
    north = reach / MILES_NORTH
    east = reach / (MILES_EAST * max(0.05, float(np.cos(np.radians(subject.latitude)))))
    lats = subject.latitude + north * np.linspace(1, -1, MAP_STEPS)
    lons = subject.longitude + east * np.linspace(-1, 1, MAP_STEPS)
    grid = np.meshgrid(lats, lons, indexing="ij")
    mine = surface.log_worth(subject.latitude, subject.longitude)
    nobody = np.full(MAP_STEPS**2, -1)
    pct = 100 * np.expm1(surface.log_worths(grid[0].ravel(), grid[1].ravel(), nobody) - mine)
    inside = near[far[near] <= reach]
    left = 100 * np.expm1(surface.left[inside] - surface.level - mine)
    return PlaceWorth(
        lats, lons, pct.reshape(MAP_STEPS, MAP_STEPS), surface.rows[inside],
        np.column_stack([surface.lats[inside], surface.lons[inside]]), left,
    )  # fmt: skip
