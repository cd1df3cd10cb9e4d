"""The nearest are those that sorting all distances finds, by hand and by a tree; what stands apart from neighbours is the plain sum."""

from __future__ import annotations

import numpy as np
import pytest

from rain_porch.core.price import neighbours
from rain_porch.core.price.neighbours import Places, apart


@pytest.mark.parametrize("by_hand", [0, 10**9])
@pytest.mark.parametrize(("n", "m", "k"), [(1, 3, 5), (40, 1, 7), (500, 60, 61), (30, 30, 30)])
def test_the_nearest_are_those_of_all_distances_sorted(by_hand, n, m, k, monkeypatch):
    monkeypatch.setattr(neighbours, "_BY_HAND", by_hand)
    rng = np.random.default_rng(n + m)
    held, asked = rng.normal(size=(n, 2)), rng.normal(size=(m, 2))
    far, at = Places(held).nearest(asked, k)
    every = np.hypot(*(asked[:, None, :] - held[None]).transpose(2, 0, 1))
    assert far.shape == at.shape == (m, min(k, n))
    assert np.allclose(far, np.sort(every, axis=1)[:, :k]) and np.allclose(np.take_along_axis(every, at, axis=1), far)
    assert all(len(set(row)) == len(row) for row in at.tolist())


@pytest.mark.parametrize("shape", [(9,), (9, 4)])
def test_apart_is_each_less_the_mean_of_its_neighbours(shape):
    rng = np.random.default_rng(1)
    values, near = rng.normal(size=shape), rng.integers(0, 9, (9, 3))
    assert np.allclose(
        apart(values, near), [values[i] - np.mean([values[j] for j in near[i]], axis=0) for i in range(9)]
    )
