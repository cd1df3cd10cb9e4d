"""The nearest are those that sorting all distances finds, by hand, by strips and by a tree; what stands apart from neighbours is the plain sum."""

from __future__ import annotations

import numpy as np
import pytest

from rain_porch.core.price import neighbours
from rain_porch.core.price.neighbours import Places, apart

WAYS = {"hand": (10**9, 10**9), "strips": (0, 10**9), "tree": (0, 0)}


@pytest.mark.parametrize("way", WAYS)
@pytest.mark.parametrize("spread", ["even", "towns", "on a road", "at one place"])
@pytest.mark.parametrize(("n", "m", "k"), [(1, 3, 5), (40, 1, 7), (500, 60, 61), (30, 30, 30), (900, 700, 9)])
def test_the_nearest_are_those_of_all_distances_sorted(way, spread, n, m, k, monkeypatch):
    monkeypatch.setattr(neighbours, "_BY_HAND", WAYS[way][0])
    monkeypatch.setattr(neighbours, "_BY_STRIPS", WAYS[way][1])
    rng = np.random.default_rng(n + m)
    held, asked = rng.normal(size=(n, 2)), rng.normal(size=(m, 2))
    if spread == "towns":  # dense ones and a few homes far out
        held *= rng.choice([0.01, 0.2, 30.0], (n, 1), p=[0.6, 0.3, 0.1])
    elif spread != "even":  # that strips cannot tell apart along the way
        held[:, 1] = held[:, 0] = 3.0
        held[:, 0] += rng.integers(0, 40, n) if spread == "on a road" else 0.0
    far, at = Places(held).nearest(asked, k)
    every = np.hypot(*(asked[:, None, :] - held[None]).transpose(2, 0, 1))
    assert far.shape == at.shape == (m, min(k, n))
    assert np.allclose(far, np.sort(every, axis=1)[:, :k]) and np.allclose(np.take_along_axis(every, at, axis=1), far)
    assert all(len(set(row)) == len(row) for row in at.tolist())


@pytest.mark.parametrize("way", WAYS)
@pytest.mark.parametrize("places", [1, 3, 60])
def test_the_nearest_others_are_never_the_sale_itself_however_many_stand_at_its_place(way, places, monkeypatch):
    monkeypatch.setattr(neighbours, "_BY_HAND", WAYS[way][0])
    monkeypatch.setattr(neighbours, "_BY_STRIPS", WAYS[way][1])
    rng = np.random.default_rng(places)
    held = rng.normal(size=(places, 2))[rng.integers(0, places, 60)]
    far, at = Places(held).nearest_others(7)
    every = np.hypot(*(held[:, None, :] - held[None]).transpose(2, 0, 1))
    np.fill_diagonal(every, np.inf)
    assert far.shape == (60, 7) and np.allclose(far, np.sort(every, axis=1)[:, :7])
    assert np.allclose(np.take_along_axis(every, at, axis=1), far)  # which is infinite for itself
    assert all(len(set(row)) == 7 for row in at.tolist())


@pytest.mark.parametrize("shape", [(9,), (9, 4)])
def test_apart_is_each_less_the_mean_of_its_neighbours(shape):
    rng = np.random.default_rng(1)
    values, near = rng.normal(size=shape), rng.integers(0, 9, (9, 3))
    assert np.allclose(
        apart(values, near), [values[i] - np.mean([values[j] for j in near[i]], axis=0) for i in range(9)]
    )
