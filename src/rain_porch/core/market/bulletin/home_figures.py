"""The figures of single homes as arrays: what means, medians and the like are taken of."""

from __future__ import annotations

import numpy as np

from ..columns import AsOf, Columns, Floats, Ints
from ..listing_facts import days_on_market, price_figures

FURTHER = ("list_price_per_sqft", "cumulative_days_on_market", "share_of_list", "share_of_original")


def home_figures(columns: Columns, view: AsOf, rows: Ints) -> dict[str, Floats]:
    """By name, each (n,), NaN where unknown: prices in dollars, price_per_sqft, living_area, days, shares of 1."""
    area, price = columns.numbers["living_area"][rows], view.price[rows]
    days = days_on_market(columns, view, rows)
    told = price_figures(columns, view, rows, days)
    return {
        "list_price": view.list_price[rows],
        "original_list_price": np.asarray(columns.numbers["original_list_price"][rows]),
        "price": price,
        "price_per_sqft": price / np.where(area > 0, area, np.nan),
        "living_area": np.asarray(area),
        "days_on_market": days,
        **{name: told[name] for name in FURTHER},
    }
