from __future__ import annotations

import datetime as dt
import itertools

import numpy as np
import pytest

from rain_porch.core.market import measures as mk
from rain_porch.core.market.change.same_home import ENOUGH, same_home_index
from rain_porch.core.market.columns import Columns
from tests.made import DAY, TODAY, market
from tests.made_market import run


def test_the_price_of_the_same_home_follows_the_trend_and_not_the_mix():
    """Prices rise 6 % a year while the homes that sell get smaller: the median falls, the same home's price rises."""
    rng = np.random.default_rng(2)
    rows = []
    for i in range(900):
        day = TODAY - dt.timedelta(days=int(rng.integers(0, 4 * 365)))
        years = (TODAY - day).days / 365.25
        area = float(np.exp(np.log(1200 + 350 * years) + rng.normal(0, 0.15)))
        price = 400 * area**0.9 * np.exp(-0.06 * years + rng.normal(0, 0.04))
        rows.append(
            {
                "key": f"L{i}",
                "home": i,
                "status": "Closed",
                "close_date": day,
                "close_price": price,
                "living_area": area,
            }
        )
    spans = mk.periods("year", dt.date(2022, 1, 1), dt.date(2024, 12, 31), TODAY)
    points = run(rows, spans, ["same_home_price", "median_price"])
    for before, now in itertools.pairwise(points):
        assert now.values["median_price"].value < before.values["median_price"].value
        rise = now.values["same_home_price"].value / before.values["same_home_price"].value
        assert 1.045 < rise < 1.08
        assert now.values["same_home_price"].n == now.values["median_price"].n
    assert run(rows[:20], spans, ["same_home_price"])[0].values["same_home_price"].value is None


def _town(n: int, rise: float, seed: int) -> Columns:
    rng = np.random.default_rng(seed)
    rows = []
    for i in range(n):
        ago = int(rng.integers(0, 3 * 365))
        area = float(np.exp(rng.normal(7.4, 0.25)))
        price = 500 * area**0.85 * np.exp(-rise * ago / 365.25 + rng.normal(0, 0.03))
        rows.append({"key": f"L{i}", "home": i, "status": "Closed", "close_date": TODAY - dt.timedelta(days=ago),
                     "close_price": price, "living_area": area})  # fmt: skip
    return market(rows)


@pytest.mark.parametrize("rise", [-0.05, 0.0, 0.08])
def test_the_made_trend_is_read_back(rise):
    columns = _town(700, rise, 5)
    rows = np.argsort(columns.close, kind="stable")
    index = same_home_index(columns, rows, DAY)
    then, now = index.price(DAY - 740, DAY - 720), index.price(DAY - 20, DAY)
    assert now / then == pytest.approx(np.exp(rise * 720 / 365.25), rel=0.015)


def test_too_few_sales_tell_nothing_and_free_transfers_are_no_sales():
    columns = _town(ENOUGH, 0.02, 1)
    rows = np.arange(ENOUGH)
    assert same_home_index(columns, rows, DAY) is not None
    assert same_home_index(columns, rows[1:], DAY) is None
    columns.numbers["close_price"][3] = 10.0
    assert same_home_index(columns, rows, DAY) is None
