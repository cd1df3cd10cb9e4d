from __future__ import annotations

import numpy as np
import pytest
from hypothesis import given
from hypothesis import strategies as st
from hypothesis.extra.numpy import arrays

from rain_porch.core.price.weights import (
    beside_model,
    comp_weights,
    in_steps,
    model_weight,
    weight_factors,
    why_heaviest,
    with_set_weights,
)


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


@given(st.lists(st.floats(1e-6, 1), min_size=1, max_size=12))
def test_weights_are_tenths_of_a_percent_that_add_up(raw):
    exact = np.array(raw) / sum(raw)
    made = in_steps(exact)
    assert made.sum() == pytest.approx(1, abs=1e-12) and np.abs(made - exact).max() < 0.001
    assert np.allclose(made * 1000, np.round(made * 1000))


def test_the_heaviest_comp_says_why():
    likeness, days, gross = np.array([95.0, 80, 78]), np.array([200.0, 60, 90]), np.array([5.0, 22, 24])
    weights = comp_weights(likeness, days, gross)
    factors = weight_factors(likeness, days, gross)
    said = why_heaviest(["A", "B", "C"], weights, factors)
    assert said.startswith(f"A weighs most, {100 * weights[0]:.1f} %: ")
    assert "95 of 100 alike (the middle one 80)" in said and "5.0 % adjusted in all (the middle one 22.0 %)" in said
    assert said.endswith("; though agreed 200 days ago.")
    assert [f.name for f in factors[0]] == ["likeness", "gross", "days"] and factors[0][0].times > 1 > factors[0][
        -1
    ].times
    assert [weights[0] / weights[1]] == pytest.approx(
        [np.prod([f.times for f in factors[0]]) / np.prod([f.times for f in factors[1]])], rel=0.02
    ), "the factors that are told are those of the weight"
    assert why_heaviest(["A"], np.array([1.0]), factors[:1]).endswith("it is the only one.")


@given(
    arrays(float, 5, elements=st.floats(0.01, 1)),
    st.sampled_from([0.0, 0.2]),
    st.dictionaries(st.integers(0, 5), st.sampled_from([0.0, 0.1, 0.15]), max_size=6),
)
def test_comps_and_the_model_share_the_whole_and_what_is_set_by_hand_stays(raw, model, fixed):
    comps, share = beside_model(raw / raw.sum(), model, fixed)
    every = np.append(comps, share)
    assert every.sum() == pytest.approx(1) and (every >= 0).all() and np.allclose(every * 1000, np.round(every * 1000))
    if len(fixed) < 5:
        assert all(every[i] == pytest.approx(set_) for i, set_ in fixed.items())
    if not fixed:
        assert share == model


def test_the_model_weighs_a_fifth_and_more_the_farther_the_comps_are_from_it():
    """12 % apart: 1 − 0.8 ÷ 2 = 0.6, held at a half; 6 % apart: 1 − 0.8 ÷ 1.25 = 0.36."""
    assert model_weight(300_000, 300_000) == pytest.approx(0.2) and model_weight(300_000, None) == 0
    assert model_weight(318_000, 300_000) == pytest.approx(0.36) and model_weight(336_000, 300_000) == 0.5
