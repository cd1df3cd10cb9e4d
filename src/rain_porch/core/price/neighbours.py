"""Which sales lie nearest, and sales seen against their nearest neighbours, so that the worth of the place drops out.

SciPy is read only where it is needed: reading it takes longer than all else that a search on the command line does.
"""

from __future__ import annotations

from dataclasses import dataclass
from functools import cached_property
from typing import Any

import numpy as np

from ..market.columns import Floats, Ints

_BY_HAND = 400_000  # distances that are worked out one by one rather than by a tree


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
        k = min(k, len(self.points))
        if len(points) * len(self.points) > _BY_HAND:
            far, at = self._tree.query(points, k=range(1, k + 1))
            return np.asarray(far, dtype=np.float64), np.asarray(at, dtype=np.int64)
        across, along = (np.subtract.outer(points[:, i], self.points[:, i]) for i in (0, 1))
        squared = np.add(np.square(across, out=across), np.square(along, out=along), out=across)
        at = np.argpartition(squared, k - 1, axis=1)[:, :k]
        at = np.take_along_axis(at, np.argsort(np.take_along_axis(squared, at, axis=1), axis=1, kind="stable"), axis=1)
        return np.sqrt(np.take_along_axis(squared, at, axis=1)), at


def apart(values: Floats, near: Ints) -> Floats:
    """Each row of `values`, (n, k) or (n,), less the mean of its nearest neighbours, whose rows `near` names, (n, m)."""
    from scipy.sparse import csr_array

    n, m = near.shape
    mean = csr_array((np.full(n * m, 1.0 / m), near.ravel(), np.arange(0, n * m + 1, m)), shape=(n, n))
    return np.asarray(values - mean @ values)
