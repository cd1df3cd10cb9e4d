from __future__ import annotations

import numpy as np
import pytest
from hypothesis import given
from hypothesis import strategies as st
from hypothesis.extra.numpy import arrays

from rain_porch.core.facts.money import half_up
from rain_porch.core.price.grid import Adjusted
from rain_porch.core.price.worth import (
    comp_weights,
    in_steps,
    indicated,
    methods,
    multiplied_out,
    value_range,
    why_heaviest,
    with_set_weights,
)
from tests.made import subject


def comp(price: float, adjusted: float) -> Adjusted:
    return Adjusted("C", price, (), adjusted, adjusted - price, abs(adjusted - price))


@given(
    arrays(float, 6, elements=st.floats(0, 100)),
    arrays(float, 6, elements=st.floats(0, 2000)),
    arrays(float, 6, elements=st.floats(0, 200)),
)
def test_weights_sum_to_one_and_are_never_negative(like, days, gross):
    w = comp_weights(like, days, gross)
    assert w.sum() == pytest.approx(1) and (w >= 0).all()


def test_the_more_alike_newer_and_less_adjusted_comp_weighs_more():
    base = comp_weights(np.array([80.0, 90.0]), np.array([90.0, 90.0]), np.array([10.0, 10.0]))
    newer = comp_weights(np.array([80.0, 80.0]), np.array([200.0, 20.0]), np.array([10.0, 10.0]))
    calmer = comp_weights(np.array([80.0, 80.0]), np.array([90.0, 90.0]), np.array([30.0, 3.0]))
    for w in (base, newer, calmer):
        assert w[1] > w[0]


def test_a_weight_set_by_hand_holds_and_the_rest_rescale():
    w = with_set_weights(np.array([0.5, 0.3, 0.2]), {0: 0.2})
    assert w == pytest.approx([0.2, 0.48, 0.32])
    assert with_set_weights(np.array([0.5, 0.5]), {0: 3.0, 1: 1.0}).sum() == pytest.approx(1)


def test_indicated_value_is_the_weighted_mean():
    value = indicated([comp(1, 400_000), comp(1, 420_000)], np.array([0.25, 0.75]))
    assert value == pytest.approx(415_000)


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


@given(st.lists(st.floats(1e-6, 1), min_size=1, max_size=12))
def test_weights_are_tenths_of_a_percent_that_add_up(raw):
    exact = np.array(raw) / sum(raw)
    made = in_steps(exact)
    assert made.sum() == pytest.approx(1, abs=1e-12) and np.abs(made - exact).max() < 0.001
    assert np.allclose(made * 1000, np.round(made * 1000))


@given(st.floats(20, 900), st.integers(300, 20_000))
def test_a_printed_product_multiplies_out(figure, area):
    text = multiplied_out(figure, area)
    assert half_up(float(text.replace(",", "")) * area) == half_up(figure * area)


def test_the_product_that_did_not_multiply_out():
    assert multiplied_out(487_268 / 1920, 1920) == "253.7854"


def test_the_heaviest_comp_says_why():
    likeness, days, gross = np.array([95.0, 80, 78]), np.array([200.0, 60, 90]), np.array([5.0, 22, 24])
    weights = comp_weights(likeness, days, gross)
    said = why_heaviest(["A", "B", "C"], weights, likeness, days, gross)
    assert said.startswith(f"A weighs most, {100 * weights[0]:.1f} %: ")
    assert "95 of 100 alike (the middle one 80)" in said and "5.0 % adjusted in all (the middle one 22.0 %)" in said
    assert said.endswith("; though agreed 200 days ago.")
    assert why_heaviest(["A"], np.array([1.0]), likeness[:1], days[:1], gross[:1]).endswith("it is the only one.")
