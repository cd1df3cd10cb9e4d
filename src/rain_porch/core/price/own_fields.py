"""Which of the office's own fields tell of the price beyond all others: few do, and a fit with all of them would chase noise."""

from __future__ import annotations

import numpy as np

from ..market.columns import Floats

MOST, LEAST_T = 6, 4.0


def telling(x: Floats, left: Floats, weights: Floats) -> list[int]:
    """The columns of x, (n, k), that explain most of `left`, (n,): one after the other, each by what the ones before it leave, while
    it stands at least four standard errors from nothing. weights: of the rows, (n,).

    t = x·(w left) ÷ (s √(x·(w x))), s² = Σ w left² ÷ Σ w.
    """
    chosen: list[int] = []
    x = x - np.average(x, axis=0, weights=weights)
    for _ in range(min(MOST, x.shape[1])):
        spread = np.sqrt(np.maximum((x * x * weights[:, None]).sum(axis=0), 1e-12))
        s = max(float(np.sqrt(np.average(left**2, weights=weights))), 1e-9)
        t = np.abs((x * (weights * left)[:, None]).sum(axis=0)) / (s * spread)
        t[chosen] = 0.0
        best = int(np.argmax(t))
        if t[best] < LEAST_T:
            break
        chosen.append(best)
        mine = x[:, best] / spread[best]
        left = left - mine * float((mine * weights) @ left)
        x = x - mine[:, None] * ((mine * weights) @ x)[None, :]
        x[:, chosen] = 0.0
    return chosen
