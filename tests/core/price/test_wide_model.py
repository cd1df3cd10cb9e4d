"""The wide model: it finds curves and places that were put in, reads nothing later, and says nothing where too little is known."""

from __future__ import annotations

import numpy as np
import pytest

from rain_porch.core.facts.dates import day_of
from rain_porch.core.facts.homes import Subject
from rain_porch.core.facts.words import HomeKind
from rain_porch.core.price.model_columns import hats
from rain_porch.core.price.wide_model import ENOUGH, fit_wide_model
from tests.made import TODAY, away, market, sale

NOISE = 0.04


def worth(area, year, east, north):
    """Log worth with a bend in size, another in age, and two dear places."""
    bend = 0.7 * np.log(area) - 0.25 * np.maximum(np.log(area / 1800), 0)
    age = np.where(year > 1985, 0.12 + 0.004 * (year - 1985), -0.002 * np.abs(year - 1935))
    dear = 0.30 * np.exp(-((east - 1) ** 2 + north**2) / 0.5) + 0.2 * np.exp(
        -((east + 1.5) ** 2 + (north - 1) ** 2) / 0.3
    )
    return 7.2 + bend + age + dear


def town(n=900, seed=1, twist=None):
    """Sales of two years about the town's middle; twist: changes a sale before it is written."""
    rng = np.random.default_rng(seed)
    area, year = rng.uniform(800, 3400, n), rng.integers(1900, 2020, n).astype(float)
    east, north = rng.uniform(-3, 3, n), rng.uniform(-3, 3, n)
    prices = np.exp(worth(area, year, east, north) + rng.normal(0, NOISE, n))
    rows = []
    for i in range(n):
        facts = {"living_area": float(area[i]), "year_built": float(year[i]), "latitude": 41.0 + away(north[i]) - away(0.0),
                 "longitude": -83.0 + east[i] / 52.2, "key": f"S{i}", "home": i, "bathrooms_full": float(1 + i % 3)}  # fmt: skip
        row = sale(int(1 + i * 700 // n), float(prices[i]), **facts)
        rows.append(row if twist is None else twist(i, row))
    return market(rows), (area, year, east, north, prices)


def subject(area, year, east, north, **more):
    facts = {"living_area": float(area), "year_built": float(year), "bathrooms_full": 2.0}
    return Subject(facts, 41.0 + away(float(north)) - away(0.0), -83.0 + float(east) / 52.2, HomeKind.DETACHED, **more)


def everything(columns):
    return np.arange(len(columns))


def test_it_finds_curves_and_places_that_were_put_in():
    columns, _ = town()
    model = fit_wide_model(columns, everything(columns), day_of(TODAY), HomeKind.DETACHED)
    rng = np.random.default_rng(9)
    errors = []
    for _ in range(120):
        area, year, east, north = (
            rng.uniform(900, 3200),
            rng.integers(1905, 2015),
            rng.uniform(-2.5, 2.5),
            rng.uniform(-2.5, 2.5),
        )
        errors.append(
            model.worth(subject(area, year, east, north)).log_value - float(worth(area, float(year), east, north))
        )
    assert np.median(np.abs(errors)) < 0.035 and abs(np.median(errors)) < 0.02
    assert model.n == 900 and np.median(np.abs(model.left)) < 0.06


def test_nothing_that_is_dated_later_is_read():
    """Sales after the day of the fit are changed out of all knowledge: not a figure moves."""
    cut = day_of(TODAY) - 200

    def later_doubled(i, row):
        return row | {"close_price": row["close_price"] * 5} if i * 700 // 900 < 199 else row

    values = []
    for twist in (None, later_doubled):
        columns, _ = town(twist=twist)
        rows = np.flatnonzero(columns.close < cut)
        model = fit_wide_model(columns, rows, cut, HomeKind.DETACHED)
        values.append(
            [model.worth(subject(a, y, e, n)).log_value for a, y, e, n in ((1500, 1950, 0, 0), (2600, 2001, 1, 0.2))]
        )
    assert values[0] == values[1]


def test_a_homes_own_sale_says_nothing_where_it_is_left_out():
    def odd_one(i, row):
        return row | {"close_price": row["close_price"] * 2.2} if i == 450 else row

    told = {}
    for name, twist in (("plain", None), ("odd", odd_one)):
        columns, (area, year, east, north, _) = town(twist=twist)
        model = fit_wide_model(columns, everything(columns), day_of(TODAY), HomeKind.DETACHED)
        home = subject(area[450], year[450], east[450], north[450], home_id=int(columns.home_id[450]))
        told[name] = model.worth(home, leave_out_home=True).log_value
    assert told["odd"] == pytest.approx(told["plain"], abs=0.01)


def test_what_is_unknown_stands_in_the_middle_and_too_little_gives_none():
    columns, _ = town()
    day = day_of(TODAY)
    model = fit_wide_model(columns, everything(columns), day, HomeKind.DETACHED)
    bare = Subject({}, 41.0, -83.0, HomeKind.DETACHED)
    assert 10 < model.worth(bare).log_value < 14
    assert fit_wide_model(columns, everything(columns)[: ENOUGH - 1], day, HomeKind.DETACHED) is None
    again = fit_wide_model(columns, everything(columns), day, HomeKind.DETACHED)
    home = subject(1500, 1950, 0, 0)
    assert again.worth(home) == model.worth(home), "the same sales give the same figure"


def test_hats_add_up_and_stand_at_their_ends():
    made = hats(np.array([1.0, 2.0, 2.5, 9.0, 0.0]), np.array([1.0, 2.0, 3.0]))
    assert made.sum(axis=1) == pytest.approx(np.ones(5))
    assert made.tolist() == [[1, 0, 0], [0, 1, 0], [0, 0.5, 0.5], [0, 0, 1], [1, 0, 0]]
