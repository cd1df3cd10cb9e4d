"""The fit of the chance of a contract to what became of listings: EM over a grid of what each seller asked above the worth.

In a, each listing's log likelihood is a square, l a + s a² + a constant, from how its price and what was paid lie to the worth, and its
days' part, −spent · λ(a) + happened · log λ(a): so one product of matrices gives it for all listings and the whole grid, and
its means of a and a², e and f, are all that the next guess is made from. Symbols and sources: contract_chance.py.
"""

from __future__ import annotations

from dataclasses import dataclass
from functools import cached_property

import numpy as np

from .contract_chance import (
    GRID,
    MIDDLES,
    OF_SLOPE,
    SLOPE_OF,
    SLOPES,
    SPANS,
    AsSeen,
    Bools,
    ChanceModel,
    Floats,
    Seen,
    exposures,
    normal,
    risen_factor,
    season_factor,
    span_of,
)

ENOUGH_LISTINGS, ENOUGH_CONTRACTS, ENOUGH_SOLD = 80, 30, 25
ODD = 0.45  # listings further than this from their worth are something else: a slip, a wreck, a share of a home
KAPPA_PRIOR, KAPPA_SD, SLOPE_SD, DRIFT_SD = 0.2, 0.15, 20.0, 0.02
_ROUNDS, _TOLERANCE, _SPREAD_ROUNDS = 150, 1e-6, 30
_SIGMA_FLOOR = 0.012
_POWERS = np.column_stack([GRID, GRID**2])


@dataclass(frozen=True)
class _Known:
    """What is known of the listings, (n,) or (n, spans): paid is 0 where not sold; exposure with the season in it."""

    seen: Seen
    paid: Floats
    sold: Bools
    happened: Floats
    exposure: Floats

    @cached_property
    def lift(self) -> Floats:
        """q − r of those that sold, (n,): what was paid against the first list price."""
        return np.asarray(np.where(self.sold, self.paid - self.seen.r, 0.0))


@dataclass(frozen=True)
class _Guess:
    """The parameters, as in ChanceModel."""

    alpha: Floats
    gamma: Floats
    mean_a: float
    sd_a: float
    bias: float
    drift: float
    sd_u: float
    kappa: float
    sd_v: float

    def by_price(self, known: _Known) -> tuple[Floats, Floats, Floats]:
        """(l, s, constant) of each listing's log likelihood in a by its prices alone, (n,) each."""
        m = known.seen.r - self.drift * known.seen.age - self.bias
        d, c, sold = known.lift, 1 - self.kappa, known.sold
        line = m / self.sd_u**2 - d * c / self.sd_v**2
        square = -0.5 / self.sd_u**2 - 0.5 * sold * c**2 / self.sd_v**2
        rest = -0.5 * (m / self.sd_u) ** 2 - np.log(self.sd_u)
        rest += sold * (-0.5 * (d / self.sd_v) ** 2 - np.log(self.sd_v))
        return line, np.asarray(square), rest


def taken(seen: Seen) -> Bools:
    """Which listings, (n,), the fit takes in."""
    return np.asarray(np.isfinite(seen.r) & (np.abs(seen.r) < ODD) & (seen.days >= 0))


def fit(seen: Seen, start: ChanceModel | None = None) -> ChanceModel | None:
    """The model of these listings; None where they are too few to tell. start: of nearly the same listings, to begin from."""
    seen = seen.where(taken(seen))
    paid = (
        np.where(np.abs(seen.q - np.nanmedian(seen.q)) < ODD, seen.q, np.nan) if np.isfinite(seen.q).any() else seen.q
    )
    sold = np.isfinite(paid)
    n, contracts = len(seen.r), int(seen.contract.sum())
    if n < ENOUGH_LISTINGS or contracts < ENOUGH_CONTRACTS or sold.sum() < ENOUGH_SOLD:
        return None
    exposure, happened = exposures(seen.days), np.zeros((n, SPANS))
    happened[np.flatnonzero(seen.contract), span_of(seen.days)[seen.contract]] = 1.0
    alpha, season = _plain_hazard(happened, exposure, seen.turn)
    known = _Known(seen, np.where(sold, paid, 0.0), sold, happened, exposure * season_factor(season, seen.turn))
    guess = _first_guess(known, alpha) if start is None else _guess_of(start)
    before = -np.inf
    for _ in range(_ROUNDS):
        shares, whole = _where_a_lies(known, guess)
        used, guess = guess, _improved(known, guess, shares)
        if whole - before < _TOLERANCE * abs(whole):
            break
        before = whole
    covariance = _covariance(known, used, guess, shares)
    return ChanceModel(
        season=season, seen_as=_as_seen(known, used, guess), covariance=covariance, n=n, contracts=contracts,
        weights=shares, **vars(guess),
    )  # fmt: skip


def _guess_of(m: ChanceModel) -> _Guess:
    return _Guess(m.alpha, m.gamma, m.mean_a, m.sd_a, m.bias, m.drift, m.sd_u, m.kappa, m.sd_v)


def _first_guess(known: _Known, alpha: Floats) -> _Guess:
    r, paid = known.seen.r, known.paid[known.sold]
    spread, bias = float(np.var(r)), float(np.median(paid))
    both = max(0.2 * spread, float(np.cov(r[known.sold], paid)[0, 1]))
    sd_u = float(np.sqrt(min(both, 0.8 * spread)))
    sd_a = float(np.sqrt(max(spread - sd_u**2, _SIGMA_FLOOR**2)))
    sd_v = max(0.03, 0.5 * float(np.std(paid)))
    return _Guess(alpha, np.full(SLOPES, -4.0), float(r.mean()) - bias, sd_a, bias, 0.0, sd_u, KAPPA_PRIOR, sd_v)


def _spent(known: _Known, gamma: Floats) -> Floats:
    return np.asarray(known.exposure * risen_factor(gamma[SLOPE_OF], known.seen.market))


def _log_rates(alpha: Floats, gamma: Floats) -> Floats:
    """Log hazards a day, (spans, grid)."""
    return np.asarray(alpha[:, None] + gamma[SLOPE_OF][:, None] * GRID[None, :])


def _shares_of(log: Floats) -> tuple[Floats, Floats]:
    """(shares over the grid, (n, grid), log of their sum before, (n,))."""
    top = log.max(axis=1, keepdims=True)
    shares = np.exp(log - top)
    each = shares.sum(axis=1, keepdims=True)
    shares /= each
    return shares, (top + np.log(each))[:, 0]


def _weighed(known: _Known, guess: _Guess, alpha: Floats, gamma: Floats, spread: Floats) -> tuple[Floats, Floats]:
    """What `_shares_of` gives for listings by their prices at a guess and by their days at hazards. spread: the logarithm of how a
    is spread, (grid,)."""
    line, square, _ = guess.by_price(known)
    rates = _log_rates(alpha, gamma)
    by = np.column_stack([-_spent(known, gamma), known.happened, line, square, np.ones(len(line))])
    return _shares_of(by @ np.vstack([np.exp(rates), rates, GRID, GRID**2, spread]))


def _where_a_lies(known: _Known, guess: _Guess) -> tuple[Floats, float]:
    """(the chance of each a for each listing, (n, grid), the log likelihood of all with the priors')."""
    spread = -0.5 * ((GRID - guess.mean_a) / guess.sd_a) ** 2 - np.log(guess.sd_a)
    shares, sums = _weighed(known, guess, guess.alpha, guess.gamma, spread)
    whole = float((sums + guess.by_price(known)[2]).sum()) - 0.5 * ((guess.kappa - KAPPA_PRIOR) / KAPPA_SD) ** 2
    return shares, whole - 0.5 * (guess.drift / DRIFT_SD) ** 2


def _improved(known: _Known, guess: _Guess, shares: Floats) -> _Guess:
    """The parameters that are likeliest, were a to lie so."""
    seen, sold = known.seen, known.sold
    e, f = (shares @ _POWERS).T
    mean_a = float(e.mean())
    sd_a = _sd(f - 2 * mean_a * e + mean_a**2)
    missed = seen.r - e
    apart = seen.age - seen.age.mean()
    drift = float((apart * missed).sum() / ((apart**2).sum() + (guess.sd_u / DRIFT_SD) ** 2))
    bias = float((missed - drift * seen.age).mean())
    off = drift * seen.age + bias
    sd_u = _sd(seen.r**2 - 2 * seen.r * e + f - 2 * off * missed + off**2)
    d, e, f = known.lift[sold], e[sold], f[sold]
    told, prior = guess.sd_v**2, KAPPA_SD**2
    kappa = float(((d * e + f).sum() / told + KAPPA_PRIOR / prior) / (f.sum() / told + 1 / prior))
    sd_v = _sd(d**2 + 2 * d * (1 - kappa) * e + (1 - kappa) ** 2 * f)
    alpha, gamma = _hazard(known.happened.T @ shares, _spent(known, guess.gamma).T @ shares, guess.alpha, guess.gamma)
    return _Guess(alpha, gamma, mean_a, sd_a, bias, drift, sd_u, kappa, sd_v)


def _sd(squares: Floats) -> float:
    return max(_SIGMA_FLOOR, float(np.sqrt(max(float(squares.mean()), 0.0))))


def _poisson(x: Floats, events: Floats, exposure: Floats, start: Floats, precision: Floats, rounds: int) -> Floats:
    """Poisson regression of events on x with exposures, by Newton's method; ridge of `precision` towards 0."""
    coef = start.copy()
    for _ in range(rounds):
        mean = exposure * np.exp(np.clip(x @ coef, -30, 5))
        step = np.linalg.solve(x.T @ (x * mean[:, None]) + np.diag(precision), x.T @ (events - mean) - precision * coef)
        coef = coef + np.clip(step, -3, 3)
        if np.abs(step).max() < 1e-8:
            break
    return coef


def _plain_hazard(happened: Floats, exposure: Floats, turn: Floats) -> tuple[Floats, Floats]:
    """Log hazards by span and the season's wave, before price is looked at."""
    totals, spent = happened.sum(axis=0), exposure.sum(axis=0)
    alpha = np.log((totals + 0.5) / (spent + 25.0))
    n = len(turn)
    at = (turn[:, None] + MIDDLES[None, :]).ravel()
    x = np.column_stack([np.cos(at), np.sin(at)])
    base = np.tile(np.exp(alpha), n)
    coef = _poisson(x, happened.ravel(), exposure.ravel() * base, np.zeros(2), np.full(2, 1 / 0.5**2), 8)
    return alpha, coef


def _as_seen(known: _Known, used: _Guess, guess: _Guess) -> AsSeen:
    """The spread of a and the hazards brought nearer to what is seen, from where the fit has them, by some steps of EM with
    smoothing. used: the guess by which prices are weighed, time apart."""
    alpha, gamma, spread = guess.alpha, guess.gamma, normal(GRID, guess.mean_a, guess.sd_a)
    for _ in range(_SPREAD_ROUNDS):
        shares = _weighed(known, used, alpha, gamma, np.log(spread))[0]
        spread = _smooth(shares.mean(axis=0))
        alpha, gamma = _hazard(known.happened.T @ shares, _spent(known, gamma).T @ shares, alpha, gamma)
    return AsSeen(spread, alpha, gamma)


def _smooth(shares: Floats) -> Floats:
    """Shares over the grid, smoothed by 2 %, adding up to 1."""
    kernel = np.exp(-0.5 * (np.arange(-4, 5) * (GRID[1] - GRID[0]) / 0.02) ** 2)
    out = np.convolve(shares, kernel / kernel.sum(), mode="same") + 1e-9
    return np.asarray(out / out.sum())


_WHICH = np.repeat(np.arange(SPANS), GRID.size)
_BY_SPAN_AND_SLOPE = np.column_stack([np.eye(SPANS)[_WHICH], np.tile(GRID, SPANS)[:, None] * OF_SLOPE[_WHICH]])
_HAZARD_PRECISION = np.concatenate([np.full(SPANS, 1e-3), np.full(SLOPES, 1 / SLOPE_SD**2)])


def _hazard(events: Floats, spent: Floats, alpha: Floats, gamma: Floats) -> tuple[Floats, Floats]:
    """Alpha and gamma from the events and the days spent, (spans, grid)."""
    start = np.concatenate([alpha, gamma])
    coef = _poisson(_BY_SPAN_AND_SLOPE, events.ravel(), spent.ravel(), start, _HAZARD_PRECISION, 4)
    return coef[:SPANS], coef[SPANS:]


def _covariance(known: _Known, used: _Guess, guess: _Guess, shares: Floats) -> Floats:
    """Of alpha and gamma, the other parameters being unknown too: from the outer product of each listing's scores.
    used: the guess with whose hazards' market the days were weighed."""
    w, a, g, seen, happened = shares, GRID[None, :], guess, known.seen, known.happened
    rate, exposure = np.exp(_log_rates(g.alpha, g.gamma)), _spent(known, used.gamma)
    more = happened - exposure * (w @ rate.T)  # (n, spans): scores of alpha
    weighted = happened * (w @ GRID)[:, None] - exposure * ((w * a) @ rate.T)
    slope = weighted @ OF_SLOPE
    u = seen.r[:, None] - a
    off = u - g.drift * seen.age[:, None] - g.bias
    gap, sold = known.paid[:, None] - u - g.kappa * a, known.sold[:, None]
    rest = np.column_stack([
        (w * (a - g.mean_a)).sum(axis=1) / g.sd_a**2, (w * ((a - g.mean_a) ** 2 / g.sd_a**2 - 1)).sum(axis=1),
        (w * off).sum(axis=1) / g.sd_u**2, (w * (off**2 / g.sd_u**2 - 1)).sum(axis=1),
        (w * sold * a * gap).sum(axis=1) / g.sd_v**2, (w * sold * (gap**2 / g.sd_v**2 - 1)).sum(axis=1),
    ])  # fmt: skip
    scores = np.column_stack([more, slope, rest])
    information = scores.T @ scores
    information[np.diag_indices_from(information)] += 1e-6
    information[SPANS : SPANS + SLOPES, SPANS : SPANS + SLOPES] += np.eye(SLOPES) / SLOPE_SD**2
    information[:SPANS, :SPANS] += np.eye(SPANS) * 0.05
    at = SPANS + SLOPES + 4
    information[at, at] += 1 / KAPPA_SD**2
    return np.asarray(np.linalg.pinv(information)[: SPANS + SLOPES, : SPANS + SLOPES])
