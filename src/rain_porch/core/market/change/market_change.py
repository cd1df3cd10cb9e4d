"""How prices moved: a smooth monthly index with seasons apart, as columns of the hedonic fit."""

from __future__ import annotations

from dataclasses import dataclass
from typing import TypeVar

import numpy as np

from ...facts.dates import DAYS_PER_MONTH
from ...facts.money import half_up
from ...statistics.regression import Z80
from ..columns import Floats

OneOrMany = TypeVar("OneOrMany", float, Floats)

KNOT_MONTHS = 3.0
SEASON_COLUMNS = 4
# a bend of 1 % in a quarter's growth is usual, seasons of 3 % are usual, growth of 5 % a quarter is possible
_BEND_SD, _SEASON_SD, _SLOPE_SD = 0.01, 0.03, 0.05


@dataclass(frozen=True)
class TimeBasis:
    """Piecewise-linear trend with knots every quarter back from the effective day, and two waves of the year."""

    day: int
    knots: int
    seasons: bool

    def trend(self, days: Floats) -> Floats:
        """Hat functions, shape (n, knots); column 0 is the effective day, later columns are earlier quarters."""
        at = np.clip((self.day - days) / DAYS_PER_MONTH / KNOT_MONTHS, 0, self.knots - 1)
        return np.asarray(np.clip(1 - np.abs(at[:, None] - np.arange(self.knots)[None, :]), 0, None))

    def season(self, days: Floats) -> Floats:
        """Two waves a year, shape (n, 4): what repeats every twelve months and is no trend."""
        if not self.seasons:
            return np.zeros((len(days), 0))
        turn = 2 * np.pi * days / 365.25
        return np.column_stack([np.sin(turn), np.cos(turn), np.sin(2 * turn), np.cos(2 * turn)])

    def columns(self, days: Floats) -> Floats:
        """Trend and seasons beside each other, (n, knots + 4 or + 0)."""
        return np.hstack([self.trend(days), self.season(days)])

    def precision(self) -> Floats:
        """Penalty matrix: bends and slopes of the trend, height of the seasons; the level itself is free."""
        m = self.knots
        size = m + (SEASON_COLUMNS if self.seasons else 0)
        out = np.zeros((size, size))
        if m > 1:
            slope = np.diff(np.eye(m), axis=0)
            out[:m, :m] += slope.T @ slope / _SLOPE_SD**2
        if m > 2:
            bend = np.diff(np.eye(m), n=2, axis=0)
            out[:m, :m] += bend.T @ bend / _BEND_SD**2
        out[:m, :m] += np.eye(m) * 1e-6
        if self.seasons:
            out[m:, m:] = np.eye(SEASON_COLUMNS) / _SEASON_SD**2
        return out


def basis_for(day: int, days: Floats) -> TimeBasis:
    """A basis that reaches back as far as the sales do; seasons only where two full years can tell them."""
    months = float((day - days.min()) / DAYS_PER_MONTH) if len(days) else 0.0
    return TimeBasis(day, max(1, int(np.ceil(months / KNOT_MONTHS)) + 1), months >= 24)


@dataclass(frozen=True)
class MarketChange:
    """Market change in percent a month, to the hundredth that is shown, over `window_days` before the effective day.

    low, high: an 80 % band. index: (days back, percent against the effective day) by quarter, newest first.
    past_data: the window reaches further back than the sales do.
    """

    pct_per_month: float
    low: float
    high: float
    n: int
    window_days: int
    index: tuple[tuple[int, float], ...] = ()
    past_data: bool = False


def compounded(pct_per_month: float, days: OneOrMany) -> OneOrMany:
    """Growth factor − 1 over `days`, one number or an array, at a monthly rate. 0.35 % over 174 days → 0.020174."""
    factor: OneOrMany = (1 + pct_per_month / 100) ** (days / DAYS_PER_MONTH)
    return factor - 1


def read_change(
    basis: TimeBasis, coef: Floats, cov: Floats, window_days: int, n: int, reach_days: float
) -> MarketChange:
    """The change a month from the fitted trend (its coefficients and their covariance), over the window."""
    ends = basis.trend(np.array([basis.day, basis.day - window_days], dtype=np.float64))
    months = window_days / DAYS_PER_MONTH
    contrast = (ends[0] - ends[1]) / months
    rate = float(contrast @ coef)
    sd = float(np.sqrt(max(contrast @ cov @ contrast, 0.0)))

    def pct(log_rate: float) -> float:
        return float(np.expm1(log_rate) * 100)

    index = tuple(
        (round(q * KNOT_MONTHS * DAYS_PER_MONTH), float(np.expm1(coef[q] - coef[0]) * 100)) for q in range(basis.knots)
    )
    low, used, high = (round(half_up(pct(rate + z * sd), 0.01), 2) for z in (-Z80, 0.0, Z80))
    return MarketChange(used, low, high, n, window_days, index,
                        reach_days < window_days)  # fmt: skip
