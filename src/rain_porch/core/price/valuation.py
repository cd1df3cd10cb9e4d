"""The indicated value of many homes quickly: the grid's own arithmetic, over arrays.

What `grid.adjust` and `worth.indicated` do line by line for people, done for the twelve most alike sales at once. A
test holds the two to the same figures.
"""

from __future__ import annotations

from collections.abc import Mapping
from dataclasses import dataclass

import numpy as np

from ..facts.dates import DAYS_PER_MONTH
from ..facts.homes import Subject
from ..market.columns import AsOf, Columns, Floats, Ints
from ..market.listing_facts import price_days
from .evidence import Evidence, Rate
from .worth import comp_weights, from_model


@dataclass(frozen=True)
class Valued:
    """value: the indicated value; adjusted prices, weights and gross adjustment (percent) of the comps, (n,)."""

    value: float
    adjusted: Floats
    weights: Floats
    gross_pct: Floats


def location_pct(found: Evidence, columns: Columns, subject: Subject, rows: Ints) -> Floats:
    """By how many percent each comp's spot is worth more than the subject's, rounded as the grid shows it, (n,)."""
    assert found.surface is not None
    spots = found.surface.log_worths(columns.lats[rows], columns.lons[rows], rows)
    mine = found.surface.log_worth(subject.latitude, subject.longitude)
    return np.round(100 * np.expm1(spots - mine), 2)


def value_by_comps(
    columns: Columns,
    view: AsOf,
    subject: Subject,
    rows: Ints,
    likeness: Floats,
    found: Evidence,
    rates: Mapping[str, Rate],
) -> Valued:
    """Adjust the sales in `rows` (n ≥ 1) to the subject and weigh them."""
    price = columns.numbers["close_price"][rows]
    concessions = np.nan_to_num(columns.numbers["concessions_amount"][rows])
    ages = (view.day - price_days(columns, rows)).astype(np.float64)
    base = price - concessions
    moved = base * ((1 + found.market_change.pct_per_month / 100) ** (ages / DAYS_PER_MONTH) - 1)
    net, gross = moved - concessions, np.abs(moved) + concessions
    for name, rate in rates.items():
        if name == "location":
            line = -rate.dollars * location_pct(found, columns, subject, rows)
        else:
            mine = subject.number(name)
            if mine is None or name not in columns.numbers:
                continue
            line = np.nan_to_num(rate.dollars * (mine - columns.numbers[name][rows]))
        net, gross = net + line, gross + np.abs(line)
    gross_pct = 100 * gross / price
    adjusted = price + net
    weights = comp_weights(likeness, np.maximum(ages, 0), gross_pct, from_model(adjusted, found.model_value))
    return Valued(float(adjusted @ weights), adjusted, weights, gross_pct)
