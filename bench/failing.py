"""Where prices come less near: errors along size, age, price, lot, the fifth comp's distance and newness, as a picture, with the floor
under them: what two like homes on one street differ by when they sell within half a year of each other.
"""

from __future__ import annotations

from collections.abc import Sequence
from dataclasses import dataclass
from pathlib import Path
from typing import Any

import numpy as np

from rain_porch.app.pricing.backtesting import BacktestResult
from rain_porch.core.facts.places.place import near_miles, on_a_plane
from rain_porch.core.market.columns import Columns
from rain_porch.core.market.listing_facts import price_days, recent_sale_rows

Values = np.ndarray[Any, Any]
PARTS = 8
TWIN_MILES, TWIN_DAYS = 0.1, 182


@dataclass(frozen=True)
class Along:
    """One thing and the errors along it, in equal parts of the cases: the middle of each part, median error, how many."""

    name: str
    middles: Values
    errors: Values
    n: int


def failing(columns: Columns, result: BacktestResult) -> list[Along]:
    """Median errors, in percent, along each thing that a price may fail at."""
    rows = np.array([columns.row_of[c.listing_id] for c in result.cases])
    days = np.array([c.day for c in result.cases])
    errors = np.array([100 * abs(c.value / c.actual - 1) for c in result.cases])
    things = (
        ("living area, sq ft", columns.numbers["living_area"][rows]),
        ("year built", columns.numbers["year_built"][rows]),
        ("predicted price, $ thousand", np.array([c.value for c in result.cases]) / 1000),
        ("lot, sq ft", columns.numbers["lot_size_square_feet"][rows]),
        ("miles to the fifth sale of the last half year", _fifth(columns, rows, days)),
        ("years since it was built", days / 365.25 + 1970 - columns.numbers["year_built"][rows]),
    )
    return [_along(name, values, errors) for name, values in things]


def _along(name: str, values: Values, errors: Values) -> Along:
    known = np.isfinite(values)
    values, errors = values[known], errors[known]
    parts = [p for p in np.array_split(np.argsort(values, kind="stable"), PARTS) if p.size]
    return Along(
        name,
        np.array([np.median(values[p]) for p in parts]),
        np.array([np.median(errors[p]) for p in parts]),
        values.size,
    )


def _fifth(columns: Columns, rows: Values, days: Values) -> Values:
    sold = recent_sale_rows(columns, columns.as_of(int(days.max())))
    out = np.full(len(rows), np.nan)
    for i, (row, day) in enumerate(zip(rows, days, strict=True)):
        late = sold[(columns.close[sold] < day) & (columns.close[sold] >= day - TWIN_DAYS)]
        far = near_miles(columns.lats[row], columns.lons[row], columns.lats[late], columns.lons[late])
        far = far[np.isfinite(far)]
        out[i] = np.partition(far, 4)[4] if far.size > 4 else np.nan
    return out


def floor(columns: Columns, rows: Values) -> tuple[float, int]:
    """(percent, pairs): the middle difference of two like sales on one street ÷ √2, what one price strays from what such homes bring.

    Like: within 0.1 miles and half a year, size within 5 %, lot within 15 %, year within 5, the same baths.
    """
    from scipy.spatial import cKDTree

    rows = rows[np.isfinite(columns.lats[rows]) & np.isfinite(columns.numbers["living_area"][rows])]
    points = on_a_plane(columns.lats[rows], columns.lons[rows], float(np.median(columns.lats[rows])))
    a, b = cKDTree(points).query_pairs(TWIN_MILES, output_type="ndarray").T
    days, price = price_days(columns, rows), np.log(columns.numbers["close_price"][rows])

    def of(name: str) -> Values:
        return columns.numbers[name][rows]

    good = np.abs(days[a] - days[b]) <= TWIN_DAYS
    for name, most in (("living_area", 0.05), ("lot_size_square_feet", 0.15)):
        good &= np.abs(np.log(of(name)[a] / of(name)[b])) <= most
    good &= np.abs(of("year_built")[a] - of("year_built")[b]) <= 5
    for name in ("bathrooms_full", "bathrooms_half"):
        good &= of(name)[a] == of(name)[b]
    gap = np.abs(price[a] - price[b])[good]
    return 100 * float(np.median(gap)) / np.sqrt(2), int(gap.size)


def drawn(told: Sequence[tuple[str, list[Along], float]], to: Path) -> None:
    """The pictures of several sets of sales, a row each, with its floor as a line."""
    from matplotlib.figure import Figure

    things = len(told[0][1])
    figure = Figure(figsize=(3.1 * things, 2.5 * len(told)), layout="constrained")
    axes = figure.subplots(len(told), things, squeeze=False)
    for row, (name, alongs, low) in zip(axes, told, strict=True):
        top = 1.15 * max(float(a.errors.max()) for a in alongs)
        for ax, along in zip(row, alongs, strict=True):
            ax.plot(range(len(along.middles)), along.errors, color="#3E6A4B", marker="o", markersize=4)
            ax.axhline(low, color="#A85B2A", linestyle="--", linewidth=1)
            ax.set_ylim(0, top)
            ax.set_xticks(
                range(len(along.middles)), [f"{v:,.2f}" if v < 10 else f"{v:.0f}" for v in along.middles], fontsize=7
            )
            ax.set_xlabel(along.name, fontsize=8)
            ax.tick_params(axis="y", labelsize=7)
            for side in ("top", "right"):
                ax.spines[side].set_visible(False)
        row[0].set_ylabel(f"{name}\nmedian error, %", fontsize=8)
    to.parent.mkdir(parents=True, exist_ok=True)
    figure.savefig(to, dpi=110)
