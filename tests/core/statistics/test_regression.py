from __future__ import annotations

import numpy as np
import pytest
from hypothesis import given, settings
from hypothesis import strategies as st

from rain_porch.core.statistics.regression import mad_scale, robust_fit, weighted_quantile


def made(seed: int, n: int = 200, odd: float = 0.0):
    rng = np.random.default_rng(seed)
    X = np.column_stack([np.ones(n), rng.normal(size=n), rng.normal(size=n)])
    beta = np.array([2.0, -1.0, 0.5])
    y = X @ beta + rng.normal(0, 0.1, n)
    y[rng.random(n) < odd] += 8
    return X, y, beta


@settings(max_examples=25)
@given(st.integers(0, 10_000))
def test_odd_values_hardly_move_the_robust_fit(seed):
    X, y, beta = made(seed, odd=0.08)
    assert robust_fit(X, y, rounds=50).coef == pytest.approx(beta, abs=0.08)
    plain = np.linalg.lstsq(X, y, rcond=None)[0]
    assert abs(plain[0] - beta[0]) > 0.2


def test_a_strong_prior_wins_and_a_weak_one_does_not():
    X, y, beta = made(1)
    prior = np.array([0.0, 3.0, 0.0])
    assert robust_fit(X, y, prior=prior, precision=np.full(3, 1e9)).coef == pytest.approx(prior, abs=1e-2)
    assert robust_fit(X, y, prior=prior, precision=np.full(3, 1e-9)).coef == pytest.approx(beta, abs=0.05)


def test_weights_choose_whom_to_listen_to():
    X, y, _ = made(2)
    there = np.column_stack([X, np.zeros(len(y))])
    y2 = y + 5
    both = robust_fit(np.vstack([there, there]), np.concatenate([y, y2]), np.repeat([1.0, 1e-9], len(y)))
    assert both.coef[0] == pytest.approx(2.0, abs=0.05)


def test_collinear_and_constant_columns_give_finite_answers():
    X, y, _ = made(3)
    X = np.column_stack([X, X[:, 1], np.zeros(len(y))])
    out = robust_fit(X, y, precision=np.full(5, 1.0))
    assert np.isfinite(out.coef).all() and np.isfinite(out.se).all()
    assert out.coef[4] == pytest.approx(0)


def test_a_perfect_fit_ends_without_a_division_by_zero():
    X = np.column_stack([np.ones(5), np.arange(5.0)])
    out = robust_fit(X, X @ np.array([1.0, 2.0]))
    assert out.coef == pytest.approx([1, 2], abs=1e-6) and np.isfinite(out.se).all()


@given(st.lists(st.floats(-1e3, 1e3), min_size=3, max_size=50))
def test_equal_weights_give_the_plain_median(x):
    values = np.array(x)
    assert weighted_quantile(values, np.ones(len(x)), 0.5) == pytest.approx(np.median(values), abs=1e-6)
    assert mad_scale(values) == pytest.approx(np.median(np.abs(values)) / 0.6744897501960817)
