"""What the other kinds of home say of a market's time, before the few sales of a kind's own are heard.

Prices of all that is sold in one place move much together. A fit of another kind of home says of each quarter j months back how
prices then stood against the newest, gⱼ, with a covariance V. A kind parts from the others by little, and the more the longer:

    δ ~ N(0, D),   D_ij = d² min(i, j),   d = 0.6 % a quarter

so each kind tells of this one's index with the covariance V + D, and together:

    P = Σ (V_k + D)⁻¹,   ĝ = P⁻¹ Σ (V_k + D)⁻¹ g_k,   index ~ N(ĝ, P⁻¹ + D)

Seasons: the mean of theirs, each within 1 %. A kind with many sales of its own hardly hears it. Source: the normal model with
known variances (Gelman et al., Bayesian Data Analysis, ch. 5), common practice.
"""

from __future__ import annotations

from collections.abc import Sequence
from dataclasses import dataclass

import numpy as np

from ..columns import Floats
from .market_change import TimeBasis

APART, SEASONS_APART = 0.006, 0.01  # a quarter, in logarithms; of each wave of the year
_NOTHING = 1e-4  # precision of what nobody tells


@dataclass(frozen=True)
class TimeTold:
    """What one fit says. index: (m,) log price of each quarter, the newest first; covariance: (m, m); seasons: (4,) or (0,)."""

    index: Floats
    covariance: Floats
    seasons: Floats
    n: int


@dataclass(frozen=True)
class TimePrior:
    """Of a basis' coefficients: mean (m,) and precision (m, m), beside what its own `precision` says of bends and slopes."""

    mean: Floats
    precision: Floats


def time_prior(told: Sequence[TimeTold], basis: TimeBasis) -> TimePrior | None:
    """What fits of other kinds, of the same day, say of a basis' coefficients; None where none says anything."""
    m = basis.knots - 1
    size = m + 1 + (basis.season(np.zeros(1)).shape[1])
    heard = [t for t in told if min(len(t.index) - 1, m) > 0]
    if not heard:
        return None
    lags = np.arange(1, m + 1)
    parted = APART**2 * np.minimum(lags[:, None], lags[None, :])
    total, weighed = np.eye(m) * _NOTHING, np.zeros(m)
    for t in heard:
        k = min(len(t.index) - 1, m)
        against = np.hstack([-np.ones((k, 1)), np.eye(k)])  # each quarter against the newest
        says = against @ t.index[: k + 1]
        sure = np.linalg.inv(against @ t.covariance[: k + 1, : k + 1] @ against.T + parted[:k, :k])
        total[:k, :k] += sure
        weighed[:k] += sure @ says
    reach = max(min(len(t.index) - 1, m) for t in heard)
    index = np.linalg.solve(total, weighed)
    index[reach:] = index[reach - 1]  # before the others' sales nothing is known
    against = np.hstack([-np.ones((m, 1)), np.eye(m)])
    precision = np.zeros((size, size))
    precision[: m + 1, : m + 1] = against.T @ np.linalg.inv(np.linalg.inv(total) + parted) @ against
    mean = np.concatenate([[0.0], index, np.zeros(size - m - 1)])
    waves = [t for t in heard if len(t.seasons) == size - m - 1]
    if waves and size > m + 1:
        mean[m + 1 :] = np.average([t.seasons for t in waves], axis=0, weights=[t.n for t in waves])
        precision[m + 1 :, m + 1 :] = np.eye(size - m - 1) / SEASONS_APART**2
    return TimePrior(mean, precision)
