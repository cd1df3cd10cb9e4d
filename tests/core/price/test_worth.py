from __future__ import annotations

import numpy as np
import pytest
from hypothesis import given
from hypothesis import strategies as st

from rain_porch.core.facts.money import half_up
from rain_porch.core.price.grid import Adjusted
from rain_porch.core.price.worth import Voice, indicated, methods, multiplied_out, value_range
from tests.made import subject


def comp(price: float, adjusted: float) -> Adjusted:
    return Adjusted("C", price, (), adjusted, adjusted - price, abs(adjusted - price))


def test_indicated_value_is_the_weighted_mean():
    value = indicated([comp(1, 400_000), comp(1, 420_000)], np.array([0.25, 0.75]))
    assert value == pytest.approx(415_000)


def test_the_model_speaks_beside_the_comps_by_its_weight():
    """0.2 × 400,000 + 0.6 × 420,000 + 0.2 × 450,000 = 422,000; what stands apart is added once to all of it."""
    comps, weights, voice = [comp(1, 400_000), comp(1, 420_000)], np.array([0.2, 0.6]), Voice(450_000, 0.2)
    assert indicated(comps, weights, (), voice) == pytest.approx(422_000)
    way = methods(subject(), comps, weights, [], 450_000, 900, (), voice)[0]
    assert way.value == pytest.approx(422_000) and "+ 20.0 % × 450,000 model = 422,000" in way.formula


def test_price_per_square_foot_check_value():
    ways = {m.name: m for m in methods(subject(living_area=1875.0), [], np.zeros(0), [228.40], None, 0)}
    assert ways["mean_price_per_sqft"].value == pytest.approx(428_250)
    assert "228.40 × 1,875 sq ft = 428,250" in ways["mean_price_per_sqft"].formula


def test_every_way_writes_its_formula_with_its_figures():
    adjusted = [comp(400_000, 410_000), comp(420_000, 415_000)]
    ways = methods(subject(tax_assessed_value=377_000.0), adjusted, np.array([0.4, 0.6]), [220.0, 230.0], 405_000.0, 40)
    names = [m.name for m in ways]
    assert names == [
        "adjusted_comps",
        "mean_price_per_sqft",
        "median_price_per_sqft",
        "low_price_per_sqft",
        "high_price_per_sqft",
        "model",
        "assessed_value",
    ]
    assert ways[0].formula == "40.0 % × 410,000 + 60.0 % × 415,000 = 413,000"
    assert all(m.formula for m in ways)


@given(st.floats(50_000, 5e6), st.floats(0.02, 1.0))
def test_the_range_holds_the_value_and_says_that_it_is_unmeasured(value, half):
    band = value_range(value, half)
    assert band.low - 50 <= value <= band.high + 50
    assert band.coverage == 0.8 and not band.measured


@given(st.floats(20, 900), st.integers(300, 20_000))
def test_a_printed_product_multiplies_out(figure, area):
    text = multiplied_out(figure, area)
    assert half_up(float(text.replace(",", "")) * area) == half_up(figure * area)


def test_the_product_that_did_not_multiply_out():
    assert multiplied_out(487_268 / 1920, 1920) == "253.7854"
