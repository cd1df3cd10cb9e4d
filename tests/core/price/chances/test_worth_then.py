"""The worth of listings on the day they came: what happened later never changes it, and it is not too low for those it is
used on."""

from __future__ import annotations

import datetime as dt

import numpy as np
import pytest

from rain_porch.core.facts.dates import date_of
from rain_porch.core.market.columns import Columns
from rain_porch.core.price.chances.worth_then import place_levels, worths_then
from tests.made import CENTRE, DAY, TODAY, away, market, sale, subject


def town(n: int = 700, seed: int = 2, after: dt.date | None = None, times: float = 1.0) -> Columns:
    """Sales of five years whose place, size and day tell their price; those that close after a day cost `times` as much."""
    rng = np.random.default_rng(seed)
    rows = []
    for i in range(n):
        days = int(rng.integers(1, 1800))
        area, north = float(rng.integers(1100, 2600)), float(rng.normal(0, 1.2))
        dear = 0.35 if north > 0.8 else 0.0  # a dearer neighbourhood
        log = 12.6 + 0.6 * np.log(area / 1800) + dear - 0.0001 * days + rng.normal(0, 0.04)
        row = sale(
            days,
            float(np.exp(log)),
            living_area=area,
            latitude=away(north),
            longitude=CENTRE[1] + rng.normal(0, 0.01),
            key=f"S{i}",
        )
        if after is not None and row["close_date"] > after:
            row["close_price"] *= times
        rows.append(row)
    return market(rows)


def worths(columns: Columns) -> tuple[np.ndarray, np.ndarray]:
    rows = np.flatnonzero(columns.on_market >= DAY - 500)
    return rows, worths_then(columns, columns.as_of(DAY), subject(), rows)


def test_it_is_the_worth_then_in_dear_places_and_cheap_ones():
    columns = town()
    rows, log_worth = worths(columns)
    off = np.log(columns.numbers["close_price"][rows]) - log_worth
    dear = columns.lats[rows] > away(0.9)
    assert np.isfinite(log_worth).all()
    assert abs(np.median(off)) < 0.015 and abs(np.median(off[dear])) < 0.03 and np.std(off) < 0.09


def test_nothing_later_is_looked_at():
    """Sales that close in or after a listing's quarter may be anything: its worth stays the same to the digit."""
    quarter = date_of(DAY - 200).replace(day=1)
    quarter = quarter.replace(month=(quarter.month - 1) // 3 * 3 + 1)
    plain, moved = town(), town(after=quarter - dt.timedelta(days=1), times=3.0)
    rows = np.flatnonzero(
        (plain.on_market >= DAY - 500) & (plain.on_market < (quarter - dt.date(1970, 1, 1)).days + 90)
    )
    a, b = (worths_then(c, c.as_of(DAY), subject(), rows) for c in (plain, moved))
    assert (a == b).all() and rows.size > 30


def test_too_few_sales_tell_nothing_and_a_listing_without_a_place_has_no_worth():
    assert np.isnan(worths(town(30))[1]).all()
    columns = town()
    rows, _ = worths(columns)
    columns.numbers["latitude"][rows[0]] = np.nan
    assert np.isnan(worths_then(columns, columns.as_of(DAY), subject(), rows[:1])).all()


def test_a_spots_level_is_that_of_its_neighbours_and_an_odd_sale_does_not_make_it():
    lats = np.array([away(x) for x in np.linspace(-1, 1, 200)])
    lons = np.full(200, CENTRE[1])
    left = np.where(lats > CENTRE[0], 0.3, 0.0)
    spots = np.array([away(-0.7), away(0.7)])
    low, high = place_levels(spots, np.full(2, CENTRE[1]), lats, lons, left)
    assert low == pytest.approx(0.0, abs=0.05) and high == pytest.approx(0.3, abs=0.05)
    odd = left.copy()
    odd[np.argmin(np.abs(lats - away(0.7)))] = 5.0
    assert place_levels(spots, np.full(2, CENTRE[1]), lats, lons, odd)[1] == pytest.approx(high, abs=0.1)
    assert date_of(DAY) == TODAY
