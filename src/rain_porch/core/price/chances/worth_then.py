"""What listings were worth on the day they came on the market, as it could be known then.

For each quarter the wide fit is made anew from sales that had closed before it began. A listing's worth is its features at
that fit's rates, the worth of its place from the residuals of the sales nearest to it, and the trend carried on from the
quarter's first day. Nothing later is looked at: a home that sold well for reasons no record tells does not look back.
"""

from __future__ import annotations

from collections.abc import Sequence
from dataclasses import dataclass, replace

import numpy as np

from ...facts.dates import date_of, day_of
from ...facts.homes import Subject
from ...facts.places.place import near_miles, on_a_plane
from ...market.columns import AsOf, Columns, Floats, Ints
from ...market.features import Feature, matrix_like
from ..evidence import REACH_DAYS, WideFit, fit_sales, wide_rows
from ..neighbours import Places

FIT_SALES = 2000  # of each quarter's fit
ENOUGH_SALES = 40
NEAR, AROUND = 10, 40  # sales that tell a spot's worth, and those that tell its neighbourhood's
NEAR_PRIOR, AROUND_PRIOR = 3.0, 2.0  # sales' worth of belief in the wider level
_NEAREST_MILES = 0.05


@dataclass(frozen=True)
class QuarterFit:
    """What is kept of a quarter's fit: `first` its first day, beta and usual, (k,), its features' rates and means; rows, (n,), its
    sales and what is left of each log price besides features and time. time: the fit without its sales, for its trend."""

    first: int
    features: tuple[Feature, ...]
    beta: Floats
    usual: Floats
    rows: Ints
    left: Floats
    time: WideFit

    @classmethod
    def of(cls, wide: WideFit, first: int) -> QuarterFit:
        """What is needed later, and not the sales' features, which take most of the room."""
        beta = wide.fit.coef[: wide.k]
        left = wide.y - wide.x @ beta - wide.moved(wide.days, first)
        none, usual = wide.x[:0], wide.x.mean(axis=0)
        fit = replace(wide.fit, residuals=left[:0], robust_weights=left[:0])
        time = replace(
            wide,
            rows=wide.rows[:0],
            days=left[:0],
            x=none,
            y=left[:0],
            fit=fit,
            x_apart=none,
            y_apart=left[:0],
            h_apart=none,
        )
        return cls(first, wide.features, beta, usual, wide.rows, left, time)


def worths_then(columns: Columns, view: AsOf, subject: Subject, rows: Ints) -> Floats:
    """Log worth of the listings in `rows`, (n,), each on its on-market day; NaN where too few sales were known by then, or
    where it has no place.

    subject: the home around which sales are looked for, and whose kind it is; its own sales are left out.
    """
    starts = columns.on_market[rows].astype(np.int64)
    return worths_by(columns, quarterly_fits(columns, view, subject, quarters_of(starts)), rows)


def quarters_of(days: Ints) -> Ints:
    """The first days of the quarters in which days lie, in order."""
    return np.unique([_quarter(int(d)) for d in np.unique(days)]).astype(np.int64)


def quarterly_fits(columns: Columns, view: AsOf, subject: Subject, firsts: Ints) -> list[QuarterFit]:
    """For each quarter, by its first day, the fit of what had closed before it; none where that was too little. subject: as
    above."""
    out = []
    sales = wide_rows(columns, view, subject, leave_out_home=True, most=len(columns), reach_days=2 * REACH_DAYS)
    closed = columns.close[sales]
    for first in firsts.tolist():
        known = sales[(closed < first) & (closed >= first - REACH_DAYS)]
        if known.size < ENOUGH_SALES:
            continue
        if known.size > FIT_SALES:
            far = near_miles(subject.latitude, subject.longitude, columns.lats[known], columns.lons[known])
            cost = far + (first - columns.close[known]) / 365.0
            known = np.sort(known[np.argpartition(cost, FIT_SALES)[:FIT_SALES]])
        if (wide := fit_sales(columns, known, first, subject, errors=False)) is not None:
            out.append(QuarterFit.of(wide, first))
    return out


def worths_by(columns: Columns, fits: Sequence[QuarterFit], rows: Ints) -> Floats:
    """Log worth of listings by the fits of the quarters in which they came, (n,), as from `worths_then`."""
    out = np.full(len(rows), np.nan)
    starts = columns.on_market[rows].astype(np.int64)
    placed = np.isfinite(columns.lats[rows]) & np.isfinite(columns.lons[rows])
    quarters = np.array([_quarter(int(d)) for d in starts], dtype=np.int64)
    for fit in fits:
        these = np.flatnonzero((quarters == fit.first) & placed)
        if these.size:
            out[these] = _log_worths(columns, fit, rows[these], starts[these])
    return out


def _quarter(day: int) -> int:
    """The first day of a day's quarter."""
    date = date_of(day)
    return day_of(date.replace(month=(date.month - 1) // 3 * 3 + 1, day=1))


def _log_worths(columns: Columns, fit: QuarterFit, rows: Ints, days: Ints) -> Floats:
    lats, lons = columns.lats, columns.lons
    place = place_levels(lats[rows], lons[rows], lats[fit.rows], lons[fit.rows], fit.left)
    x = matrix_like(columns, rows, fit.features, fit.usual)
    return np.asarray(x @ fit.beta + place + carried_on(fit.time, fit.first, days))


def place_levels(lats: Floats, lons: Floats, sale_lats: Floats, sale_lons: Floats, left: Floats) -> Floats:
    """What spots, (m,), are worth in logarithms: the mean of `left`, (n,), over the ten nearest sales, drawn towards the mean
    over the forty nearest, and that towards the middle of all. Near sales weigh more; odd ones are held in.
    """
    middle = float(np.median(left))
    spread = max(0.05, 1.4826 * float(np.median(np.abs(left - middle))))
    about = float(np.mean(sale_lats))
    most = min(AROUND, left.size)
    miles, near = Places(on_a_plane(sale_lats, sale_lons, about)).nearest(on_a_plane(lats, lons, about), most)

    def mean_of(k: int, level: Floats, prior: float, clip: float) -> Floats:
        weights = 1 / np.maximum(miles[:, :k], _NEAREST_MILES)
        weights *= weights.shape[1] / weights.sum(axis=1, keepdims=True)
        apart = np.clip(left[near[:, :k]] - level[:, None], -clip, clip)
        return np.asarray(level + (weights * apart).sum(axis=1) / (weights.shape[1] + prior))

    around = mean_of(AROUND, np.full(len(lats), middle), AROUND_PRIOR, 4 * spread)
    return mean_of(NEAR, around, NEAR_PRIOR, 3 * spread)


def carried_on(wide: WideFit, first: int, days: Ints) -> Floats:
    """Log price that the trend puts on days against the fit's day, (n,); after it, as over the year before."""
    year = float(-wide.moved(np.array([first - 365.0]), first, seasons=False)[0])
    trend = wide.moved(np.minimum(days, first).astype(np.float64), first, seasons=False)
    ahead = np.maximum(days - first, 0) / 365.0 * year
    season = wide.moved(days.astype(np.float64), first) - wide.moved(days.astype(np.float64), first, seasons=False)
    return np.asarray(trend + ahead + season)
