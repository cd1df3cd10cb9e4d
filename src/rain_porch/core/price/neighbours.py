"""Sales seen against their nearest neighbours, so that the worth of the place drops out."""

from __future__ import annotations

import numpy as np
from scipy.sparse import csr_array

from ..market.columns import Floats, Ints


def apart(values: Floats, near: Ints) -> Floats:
    """Each row of `values`, (n, k) or (n,), less the mean of its nearest neighbours, whose rows `near` names, (n, m)."""
    n, m = near.shape
    mean = csr_array((np.full(n * m, 1.0 / m), near.ravel(), np.arange(0, n * m + 1, m)), shape=(n, n))
    return np.asarray(values - mean @ values)
