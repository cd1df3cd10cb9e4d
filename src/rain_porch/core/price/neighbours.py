"""Which sales lie nearest, and sales seen against their nearest neighbours, so that the worth of the place drops out.

SciPy's tree is read only where sales are many: reading it takes longer than all else that a price on the command line does.
"""

from __future__ import annotations

from dataclasses import dataclass
from functools import cached_property
from typing import Any

import numpy as np

from ..market.columns import Floats, Ints

# pairs of points up to which each distance is worked out, and up to which those of a strip are: beyond, a tree is asked
_BY_HAND, _BY_STRIPS = 400_000, 12_000_000
_AT_ONCE, _WIDE = 128, 1.5  # points asked of together; how much wider than an evenly filled square needs a strip is


@dataclass(frozen=True)
class Places:
    """points: (n, 2), on a plane."""

    points: Floats

    @cached_property
    def _tree(self) -> Any:
        from scipy.spatial import cKDTree

        return cKDTree(self.points)

    def nearest(self, points: Floats, k: int) -> tuple[Floats, Ints]:
        """The k nearest of these to each of some points, the nearest first: their distances and rows, (m, k)."""
        k, pairs = min(k, len(self.points)), len(points) * len(self.points)
        if pairs > _BY_STRIPS:
            far, at = self._tree.query(points, k=range(1, k + 1))
            return np.asarray(far, dtype=np.float64), np.asarray(at, dtype=np.int64)
        squared, at = (_of_all if pairs <= _BY_HAND else _of_strips)(self.points, points, k)
        return np.sqrt(squared), at

    def nearest_others(self, k: int) -> tuple[Floats, Ints]:
        """The k nearest to each of these, without itself, the nearest first: their distances and rows, (n, k). Others may stand at its
        very place, so that it is known by its row."""
        far, at = self.nearest(self.points, k + 1)
        itself = at == np.arange(len(at))[:, None]
        itself[~itself.any(axis=1), -1] = True  # so many others stand there that it is not among the nearest
        others = (len(at), at.shape[1] - 1)
        return far[~itself].reshape(others), at[~itself].reshape(others)


def _of_strips(of: Floats, points: Floats, k: int) -> tuple[Floats, Ints]:
    """The same by distances to those alone that lie in a strip across; to all where something nearer may lie outside of it."""
    axis = int(np.ptp(of[:, 1]) > np.ptp(of[:, 0]))
    order = np.argsort(of[:, axis], kind="stable")
    along, wide = of[order, axis], int(_WIDE * np.sqrt(len(of) * k)) + k
    squared, rows = np.empty((len(points), k)), np.empty((len(points), k), dtype=np.int64)
    asked = np.argsort(points[:, axis], kind="stable")
    unsure = []
    for some in np.split(asked, range(_AT_ONCE, len(asked), _AT_ONCE)):
        at = points[some, axis]
        first, end = (int(i) for i in np.searchsorted(along, at[[0, -1]]))
        first, end = max(first - wide, 0), min(end + wide, len(of))
        squared[some], within = _of_all(of[order[first:end]], points[some], k)
        rows[some] = order[first + within]
        left = at - along[first - 1] if first else np.inf
        right = along[end] - at if end < len(of) else np.inf
        unsure.append(some[squared[some, -1] >= np.minimum(left, right) ** 2])
    others = np.concatenate(unsure)
    for some in np.split(others, range(_AT_ONCE, len(others), _AT_ONCE)):
        squared[some], rows[some] = _of_all(of, points[some], k)
    return squared, rows


def _of_all(of: Floats, points: Floats, k: int) -> tuple[Floats, Ints]:
    """The k nearest, by the distance of each to each: squared distances and rows."""
    across, along = (np.subtract.outer(points[:, i], of[:, i]) for i in (0, 1))
    squared = np.add(np.square(across, out=across), np.square(along, out=along), out=across)
    at = np.argpartition(squared, k - 1, axis=1)[:, :k]
    near = np.take_along_axis(squared, at, axis=1)
    order = np.argsort(near, axis=1, kind="stable")
    return np.take_along_axis(near, order, axis=1), np.take_along_axis(at, order, axis=1)


def apart(values: Floats, near: Ints) -> Floats:
    """Each row of `values`, (n, k) or (n,), less the mean of its nearest neighbours, whose rows `near` names, (n, m)."""
    share = values * (1.0 / near.shape[1])
    mean = np.zeros(values.shape)
    for neighbour in near.T:
        mean += share[neighbour]
    return np.asarray(values - mean)
