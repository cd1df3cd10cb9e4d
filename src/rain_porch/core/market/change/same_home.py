"""What one and the same home would bring as the years go by: prices free of the mix of homes that happen to sell."""

from __future__ import annotations

from dataclasses import dataclass

import numpy as np

from ...statistics.regression import robust_fit
from ..columns import HOME_KINDS, Columns, Floats, Ints
from ..features import FEATURES, matrix
from .market_change import TimeBasis, basis_for

ENOUGH, MOST = 30, 20_000
_PLACE_SD = 0.5


@dataclass(frozen=True)
class SameHome:
    """level: log price of the average home without its time; the trend is read at the middle of a period, seasons out."""

    basis: TimeBasis
    trend: Floats
    level: float

    def price(self, start: int, end: int) -> float:
        """What the average home would bring in the middle of [start, end], in dollars."""
        middle = np.array([(start + end) / 2])
        return float(np.exp(self.level + (self.basis.trend(middle) @ self.trend)[0]))


def same_home_index(columns: Columns, rows: Ints, day: int) -> SameHome | None:
    """Log price on features, kind, place (a quadric) and a quarterly trend with seasons; None below 30 usable sales.

    log pᵢ = xᵢβ + trend(tᵢ) + season(tᵢ) + e, robust as the evidence's own fit; the average home stands at the mean of x
    over all sales, so that only the trend moves it.
    """
    price, area = columns.numbers["close_price"], columns.numbers["living_area"]
    rows = rows[(price[rows] > 1000) & (area[rows] > 0)]
    rows = rows[-MOST:]  # in the order of their dates: the latest
    if rows.size < ENOUGH:
        return None
    days = columns.close[rows].astype(np.float64)
    _, x = matrix(columns, rows, FEATURES)
    kinds = np.eye(len(HOME_KINDS))[columns.home_kind[rows]]
    x = np.hstack([x, kinds[:, kinds.any(axis=0)][:, 1:], _place(columns, rows)])
    middle, spread = x.mean(axis=0), np.maximum(x.std(axis=0), 1e-9)
    x = (x - middle) / spread
    basis = basis_for(day, days)
    design = np.hstack([np.ones((rows.size, 1)), x, basis.columns(days)])
    time = basis.knots + basis.season(days[:1]).shape[1]
    precision = np.zeros((design.shape[1],) * 2)
    precision[1 : 1 + x.shape[1], 1 : 1 + x.shape[1]] = np.eye(x.shape[1]) / _PLACE_SD**2
    precision[-time:, -time:] = basis.precision()
    y = np.log(price[rows])
    centre = float(np.median(y))
    fit = robust_fit(design, y - centre, precision=precision, rounds=5, tolerance=1e-5)
    start = 1 + x.shape[1]
    return SameHome(basis, fit.coef[start : start + basis.knots], centre + float(fit.coef[0]))


def _place(columns: Columns, rows: Ints) -> Floats:
    """Where each sale stands, as a quadric of latitude and longitude, (n, 5); unknown places stand in the middle."""
    lat, lon = columns.lats[rows], columns.lons[rows]
    known = np.isfinite(lat) & np.isfinite(lon)
    if not known.any():
        return np.zeros((rows.size, 0))
    north = np.where(known, lat - np.median(lat[known]), 0.0)
    east = np.where(known, lon - np.median(lon[known]), 0.0)
    return np.column_stack([north, east, north**2, east**2, north * east])
