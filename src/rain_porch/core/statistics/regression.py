"""Least squares, plain and robust, with shrinkage towards a prior. Arrays: X (n, k), y and weights (n,), prior (k,)."""

from __future__ import annotations

from dataclasses import dataclass
from typing import Any

import numpy as np
from numpy.typing import NDArray

Floats = NDArray[np.float64]
HUBER = 1.345
Z80 = 1.2816  # standard errors on either side that hold the truth four times in five
MAD_TO_SD = 0.6744897501960817


@dataclass(frozen=True)
class Fit:
    """coef (k,), standard errors se (k,), residuals (n,), scale (robust or plain residual s.d.), n used."""

    coef: Floats
    se: Floats
    residuals: Floats
    scale: float
    n: int
    robust_weights: Floats


def mad_scale(residuals: Floats, weights: Floats | None = None) -> float:
    """Median absolute residual ÷ 0.6745: the s.d. of a normal, unmoved by odd values."""
    size = np.abs(residuals)
    if weights is None:
        return float(np.median(size)) / MAD_TO_SD
    return weighted_quantile(size, weights, 0.5) / MAD_TO_SD


def weighted_quantile(values: Floats, weights: Floats, q: float) -> float:
    """The value below which the share q of the weight lies (midpoint rule, linear between)."""
    order = np.argsort(values)
    return quantile_of_ascending(values[order], weights[order], q)


def quantile_of_ascending(values: Floats, weights: Floats, q: float) -> float:
    """The same of values that stand in order already."""
    return float(np.interp(q, (np.cumsum(weights) - weights / 2) / weights.sum(), values))


def _solve(a: Floats, b: Floats) -> Floats:
    """a⁻¹b; the shortest of many answers where a is singular."""
    try:
        out = np.asarray(np.linalg.solve(a, b), dtype=np.float64)
        if np.isfinite(out).all() and np.linalg.norm(out) < 1e8:
            return out
    except np.linalg.LinAlgError:
        pass
    return np.asarray(np.linalg.lstsq(a, b, rcond=1e-12)[0])


def robust_fit(
    X: Any,
    y: Any,
    weights: Any = None,
    prior: Any = None,
    precision: Any = None,
    rounds: int = 8,
    tolerance: float = 1e-8,
    errors: bool = True,
) -> Fit:
    """Huber's M-estimate by reweighting, shrunk towards a prior.

    Minimises Σ wᵢ ρ((yᵢ − xᵢβ)/s) s² + s² (β − b)'Λ(β − b), ρ Huber's with k = 1.345, s the weighted MAD scale.
    weights: nearness, (n,). prior b: (k,). precision Λ: (k, k) or (k,), in units of 1/coef². errors: whether standard
    errors are worked out (they cost as much as two rounds), else NaN.
    Without weights and prior the first round is R's `lm`, and run to convergence it is statsmodels' RLM with HuberT.
    """
    X, y = np.asarray(X, dtype=np.float64), np.asarray(y, dtype=np.float64)
    n, k = X.shape
    w = np.ones(n) if weights is None else np.asarray(weights, dtype=np.float64)
    b = np.zeros(k) if prior is None else np.asarray(prior, dtype=np.float64)
    lam = np.zeros((k, k)) if precision is None else np.asarray(precision, dtype=np.float64)
    if lam.ndim == 1:
        lam = np.diag(lam)
    robust = np.ones(n)
    coef = b.copy()
    scale = mad_scale(y - X @ coef, w)
    first = True
    for _ in range(rounds):
        Xw = X * (w * robust)[:, None]
        s2 = max(scale**2, 1e-12)
        a = Xw.T @ X + s2 * lam
        new = _solve(a, Xw.T @ y + s2 * lam @ b)
        moved = float(np.max(np.abs(new - coef), initial=0.0))
        coef = new
        residuals = y - X @ coef
        scale = mad_scale(residuals, w)
        if scale <= 1e-12 or (moved < tolerance and not first):
            break
        robust = np.minimum(1.0, HUBER / np.maximum(np.abs(residuals) / scale, 1e-12))
        first = False
    residuals = y - X @ coef
    if not errors:
        return Fit(coef, np.full(k, np.nan), residuals, scale, n, robust)
    s2 = max(scale**2, 1e-12)
    wr = w * robust
    bread = np.linalg.pinv(X.T @ (X * wr[:, None]) + s2 * lam)
    # weights of nearness are no counts: the middle of the sandwich holds them squared
    meat = X.T @ (X * (wr**2)[:, None]) * s2 + s2 * s2 * lam
    cov = bread @ meat @ bread
    return Fit(coef, np.sqrt(np.maximum(np.diag(cov), 0)), residuals, scale, n, robust)
