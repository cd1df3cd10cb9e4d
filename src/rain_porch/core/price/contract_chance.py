"""The chance of a contract at a list price: time to a contract against how far a home is listed above its worth.

The worth of a home is never seen; the model's log worth W misses the true T by u. A listing shows r = log list price − W =
a + u, where a = log list price − T is what the seller asks above the worth. Homes that the model tells too low ask more, and
rightly: set against r, the effect of price is diluted. Here a is a hidden value of each listing, and what is fitted is

    a ~ N(μ, σa²)      u = r − a ~ N(b + b′ age, σu²)      q = u + κ a + v, v ~ N(0, σv²), for those that sold, q = log price paid − W
    hazard of a contract on day t: λ(t | a) = exp(αₖ + γₛ (a − market t) + season(t)), k the span of days that t lies in, s early or later

market: by how much prices rise a day, which makes a dear price less so,
by maximum likelihood (EM over a grid of a): those still unsold, withdrawn or expired are censored. q, the price that was
paid in the end, tells u apart from a; κ, by how much a high asking price lifts what is paid, has a weak prior. Two questions
are answered from one fit: of listings seen at r, ∫ F(t | a) p(a | r) da; of this home listed at x, ∫ F(t | log x − T) p(T) dT.

Source: structural measurement-error models by likelihood, Carroll, Ruppert, Stefanski and Crainiceanu, Measurement Error in
Nonlinear Models, 2nd ed., 2006, ch. 8 (from memory); the piecewise exponential hazard as a Poisson regression, Holford 1980,
Laird and Olivier 1981 (from memory). Errors by the outer product of scores (Berndt, Hall, Hall and Hausman 1974).
"""

from __future__ import annotations

import itertools
from collections.abc import Sequence
from dataclasses import dataclass, replace

import numpy as np
from numpy.typing import NDArray

from ..facts.money import half_up
from ..statistics.regression import Z80

Floats = NDArray[np.float64]
Bools = NDArray[np.bool_]

EDGES = (0.0, 14.0, 30.0, 60.0, 90.0, 180.0, 400.0)  # days; the hazard is constant between them
SPANS = len(EDGES) - 1
# which slope holds in each span: to 30 days, to 60, after; cuts wear a high price down
SLOPE_OF = np.array([0, 0, 1, 2, 2, 2])
SLOPES = 3
GRID = np.arange(-0.45, 0.6001, 0.015)
ENOUGH_LISTINGS, ENOUGH_CONTRACTS, ENOUGH_SOLD = 80, 30, 25
ODD = 0.45  # listings further than this from their worth are something else: a slip, a wreck, a share of a home
KAPPA_PRIOR, KAPPA_SD, SLOPE_SD, DRIFT_SD = 0.2, 0.15, 20.0, 0.02
_ROUNDS, _TOLERANCE, _SPREAD_ROUNDS = 150, 1e-6, 30
_SIGMA_FLOOR = 0.012
_NODES, _NODE_WEIGHTS = np.polynomial.hermite_e.hermegauss(15)
_NODE_WEIGHTS = _NODE_WEIGHTS / _NODE_WEIGHTS.sum()
_OF_SLOPE = np.eye(SLOPES)[SLOPE_OF]  # (spans, slopes)
_MIDDLE_DAYS = np.array([(a + min(b, a + 60)) / 2 for a, b in itertools.pairwise(EDGES)])
_MIDDLES = 2 * np.pi / 365.25 * _MIDDLE_DAYS


@dataclass(frozen=True)
class Seen:
    """Listings as the fit sees them, each (n,): r, q (NaN where not sold), days on the market, whether those ended in a
    contract, the turn of the year (radians) on which each began, and how many years ago that was: what the worth is off by
    drifts with the market. market: log market change a day while they stood."""

    r: Floats
    q: Floats
    days: Floats
    contract: Bools
    turn: Floats
    age: Floats
    market: Floats

    def where(self, chosen: Bools) -> Seen:
        """Some of the listings."""
        return Seen(*(getattr(self, name)[chosen] for name in ("r", "q", "days", "contract", "turn", "age", "market")))


@dataclass(frozen=True)
class When:
    """The day on which a home is offered: its turn of the year in radians, and how prices move, in logarithms a day."""

    turn: float
    market: float = 0.0


@dataclass(frozen=True)
class Chance:
    """A chance of a contract within so many days, with the interval that holds it four times in five."""

    days: int
    share: float
    low: float
    high: float

    @property
    def pct(self) -> int:
        """The whole percent that rail, sentence and table show alike."""
        return int(half_up(100 * self.share))

    @property
    def low_pct(self) -> int:
        """The interval's low end as a whole percent."""
        return int(half_up(100 * self.low))

    @property
    def high_pct(self) -> int:
        """The interval's high end as a whole percent."""
        return int(half_up(100 * self.high))


@dataclass(frozen=True)
class AsSeen:
    """What serves the first question, of listings as they are seen: how a is spread, (grid,), which no law holds to its shape,
    and the hazards with it. It foretells better what becomes of them; what a price does it tells less well."""

    spread: Floats
    alpha: Floats
    gamma: Floats


@dataclass(frozen=True)
class ChanceModel:
    """The fit. alpha (spans,), gamma (slopes,): log hazard a day; mean_a, sd_a: of what sellers ask above the worth, bias, sd_u: of
    the model's worth today, drift: of the bias, a year back; kappa, sd_v: of what is paid. covariance (spans + slopes,)² of alpha and gamma. weights (n, grid): where each
    listing's a lies, by all that is known of it."""

    alpha: Floats
    gamma: Floats
    season: Floats
    mean_a: float
    sd_a: float
    seen_as: AsSeen
    bias: float
    drift: float
    sd_u: float
    kappa: float
    sd_v: float
    covariance: Floats
    n: int
    contracts: int
    weights: Floats

    def survival(self, above: Floats, day: float, when: When) -> tuple[Floats, Floats]:
        """Share without a contract on `day` for homes listed `above` their worth, (m,); and its slopes by alpha and gamma,
        (m, spans + slopes)."""
        slopes = self.gamma[SLOPE_OF]
        spent = _exposures(np.array([day]))[0] * _season(self.season, np.array([when.turn]))[0]
        spent = spent * _risen(slopes, np.array([when.market]))[0]
        hazard = np.exp(self.alpha[None, :] + slopes[None, :] * above[:, None]) * spent[None, :]  # (m, spans)
        left = np.exp(-hazard.sum(axis=1))
        by_alpha = -left[:, None] * hazard
        by_gamma = by_alpha @ _OF_SLOPE * above[:, None]
        return left, np.column_stack([by_alpha, by_gamma])

    def if_listed_at(self, above: float, sd: float, when: When, within: Sequence[int]) -> list[Chance] | None:
        """What would become of one home listed `above` its worth in logarithms, that worth known to within `sd`.

        None where so few were listed so far from their worth that nothing can be said.
        """
        if abs(above - self.mean_a) > 2.75 * self.sd_a:
            return None
        return self._mixed(above + sd * _NODES, _NODE_WEIGHTS, when, within)

    def at(self, above: float, when: When, within: Sequence[int]) -> list[Chance]:
        """The same for a home whose worth is known for certain."""
        return self._mixed(np.array([above]), np.ones(1), when, within)

    def of_those_seen_at(self, r: float, when: When, within: Sequence[int]) -> list[Chance]:
        """What becomes of listings seen at r: among them those that are dear and those that the model tells too low."""
        given = self.seen_as.spread * _normal(r - GRID, self.bias, self.sd_u)
        as_seen = replace(self, alpha=self.seen_as.alpha, gamma=self.seen_as.gamma)
        return as_seen._mixed(GRID, given / given.sum(), when, within)

    def _mixed(self, above: Floats, shares: Floats, when: When, within: Sequence[int]) -> list[Chance]:
        out = []
        for day in within:
            left, slopes = self.survival(above, float(day), when)
            share = 1 - float(shares @ left)
            slope = shares @ slopes
            error = max(float(slope @ self.covariance @ slope), 0.0) ** 0.5
            room = min(max(share, 0.01), 0.99)
            odds, wide = np.log(room / (1 - room)), Z80 * error / (room * (1 - room))
            low, high = (float(1 / (1 + np.exp(-float(odds + side * wide)))) for side in (-1, 1))
            out.append(Chance(day, share, min(low, share), max(high, share)))
        return out

    def near(self, above: float, reach: float = 0.04) -> Floats:
        """How much each listing, (n,), tells of homes listed about `above` their worth: from 0 to 1."""
        held: Floats = self.weights @ np.exp(-0.5 * ((GRID - above) / reach) ** 2)
        return held


def taken(seen: Seen) -> Bools:
    """Which listings, (n,), the fit takes in."""
    return np.asarray(np.isfinite(seen.r) & (np.abs(seen.r) < ODD) & (seen.days >= 0))


def fit(seen: Seen) -> ChanceModel | None:
    """The model of these listings; None where they are too few to tell."""
    seen = seen.where(taken(seen))
    paid = (
        np.where(np.abs(seen.q - np.nanmedian(seen.q)) < ODD, seen.q, np.nan) if np.isfinite(seen.q).any() else seen.q
    )
    sold = np.isfinite(paid)
    n, contracts = len(seen.r), int(seen.contract.sum())
    if n < ENOUGH_LISTINGS or contracts < ENOUGH_CONTRACTS or sold.sum() < ENOUGH_SOLD:
        return None
    exposure = _exposures(seen.days)
    # a contract on day 14 is within 14
    span = np.clip(np.searchsorted(EDGES, seen.days, side="left") - 1, 0, SPANS - 1)
    happened = np.zeros((n, SPANS))
    happened[np.flatnonzero(seen.contract), span[seen.contract]] = 1.0
    alpha, season = _plain_hazard(happened, exposure, seen.turn)
    exposure = exposure * _season(season, seen.turn)

    r, q, a = seen.r[:, None], np.where(sold, paid, 0.0)[:, None], GRID[None, :]
    u = r - a
    bias = float(np.median(paid[sold]))
    both = max(0.2 * float(np.var(seen.r)), float(np.cov(seen.r[sold], paid[sold])[0, 1]))
    mean_a = float(seen.r.mean()) - bias
    sd_u = float(np.sqrt(min(both, 0.8 * float(np.var(seen.r)))))
    sd_a = float(np.sqrt(max(float(np.var(seen.r)) - sd_u**2, _SIGMA_FLOOR**2)))
    sd_v, kappa, gamma = max(0.03, 0.5 * float(np.std(paid[sold]))), KAPPA_PRIOR, np.full(SLOPES, -4.0)
    drift, age = 0.0, seen.age[:, None]
    before = -np.inf
    for _ in range(_ROUNDS):
        slopes = gamma[SLOPE_OF]
        rate = np.exp(alpha[:, None] + slopes[:, None] * a)  # (spans, grid)
        spent = exposure * _risen(slopes, seen.market)
        log = -spent @ rate + happened @ np.log(rate)
        log += _log_normal(a, mean_a, sd_a) + _log_normal(u - drift * age, bias, sd_u)
        gap = q - u - kappa * a
        log += np.where(sold[:, None], _log_normal(gap, 0.0, sd_v), 0.0)
        top = log.max(axis=1, keepdims=True)
        w = np.exp(log - top)
        each = w.sum(axis=1, keepdims=True)
        w /= each
        whole = float((top + np.log(each)).sum()) - 0.5 * ((kappa - KAPPA_PRIOR) / KAPPA_SD) ** 2
        whole -= 0.5 * (drift / DRIFT_SD) ** 2
        mean_a = float((w @ GRID).mean())
        sd_a = max(_SIGMA_FLOOR, float(np.sqrt((w * (a - mean_a) ** 2).sum() / n)))
        missed = (w * u).sum(axis=1)
        apart = seen.age - seen.age.mean()
        drift = float((apart * missed).sum() / ((apart**2).sum() + (sd_u / DRIFT_SD) ** 2))
        bias = float((missed - drift * seen.age).mean())
        sd_u = max(_SIGMA_FLOOR, float(np.sqrt((w * (u - drift * age - bias) ** 2).sum() / n)))
        ws = w[sold]
        lift = (q - u)[sold]
        kappa = float(
            ((ws * a * lift).sum() / sd_v**2 + KAPPA_PRIOR / KAPPA_SD**2)
            / ((ws * a**2).sum() / sd_v**2 + 1 / KAPPA_SD**2)
        )
        sd_v = max(_SIGMA_FLOOR, float(np.sqrt((ws * (lift - kappa * a) ** 2).sum() / sold.sum())))
        alpha, gamma = _hazard(happened.T @ w, spent.T @ w, alpha, gamma)
        if whole - before < _TOLERANCE * abs(whole):
            break
        before = whole
    told = log - _log_normal(a, mean_a, sd_a) + spent @ rate - happened @ np.log(rate)  # by r and q, time apart
    seen_as = _as_seen(told, happened, exposure, seen.market, alpha, gamma, _normal(GRID, mean_a, sd_a))
    covariance = _covariance(
        w, a, u - drift * age, u, q, sold, happened, spent, alpha, gamma, mean_a, sd_a, bias, sd_u, kappa, sd_v
    )
    return ChanceModel(
        alpha, gamma, season, mean_a, sd_a, seen_as, bias, drift, sd_u, kappa, sd_v, covariance, n, contracts, w
    )  # fmt: skip


def _exposures(days: Floats) -> Floats:
    """Days that each listing, (n,), has stood in each span, (n, spans)."""
    edges = np.array(EDGES)
    return np.asarray(np.clip(days[:, None] - edges[None, :-1], 0.0, np.diff(edges)[None, :]))


def _season(coef: Floats, turn: Floats) -> Floats:
    """Factor of the hazard in each span, (n, spans), for listings that began at a turn of the year: one wave, at the span's
    middle."""
    at = turn[:, None] + _MIDDLES[None, :]
    return np.asarray(np.exp(coef[0] * np.cos(at) + coef[1] * np.sin(at)))


def _risen(slopes: Floats, market: Floats) -> Floats:
    """Factor of the hazard in each span, (n, spans), where prices have moved since: e^(−γ × market × days to its middle)."""
    return np.asarray(np.exp(-slopes[None, :] * market[:, None] * _MIDDLE_DAYS[None, :]))


def _log_normal(x: Floats, mean: float, sd: float) -> Floats:
    return np.asarray(-0.5 * ((x - mean) / sd) ** 2 - np.log(sd))


def _normal(x: Floats, mean: float, sd: float) -> Floats:
    return np.asarray(np.exp(_log_normal(x, mean, sd)))


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
    at = (turn[:, None] + _MIDDLES[None, :]).ravel()
    x = np.column_stack([np.cos(at), np.sin(at)])
    base = np.tile(np.exp(alpha), n)
    coef = _poisson(x, happened.ravel(), exposure.ravel() * base, np.zeros(2), np.full(2, 1 / 0.5**2), 8)
    return alpha, coef


def _as_seen(
    told: Floats, happened: Floats, exposure: Floats, market: Floats, alpha: Floats, gamma: Floats, spread: Floats
) -> AsSeen:
    """The spread of a and the hazards brought nearer to what is seen, from where the fit has them, by some steps of EM with
    smoothing. told: log likelihoods by price alone, (n, grid)."""
    likely = np.exp(told - told.max(axis=1, keepdims=True))
    for _ in range(_SPREAD_ROUNDS):
        slopes = gamma[SLOPE_OF]
        rate = np.exp(alpha[:, None] + slopes[:, None] * GRID[None, :])
        spent = exposure * _risen(slopes, market)
        log = -spent @ rate + happened @ np.log(rate)
        w = likely * np.exp(log - log.max(axis=1, keepdims=True)) * spread
        w /= w.sum(axis=1, keepdims=True)
        spread = _smooth(w.mean(axis=0))
        alpha, gamma = _hazard(happened.T @ w, spent.T @ w, alpha, gamma)
    return AsSeen(spread, alpha, gamma)


def _smooth(shares: Floats) -> Floats:
    """Shares over the grid, smoothed by 2 %, adding up to 1."""
    kernel = np.exp(-0.5 * (np.arange(-4, 5) * (GRID[1] - GRID[0]) / 0.02) ** 2)
    out = np.convolve(shares, kernel / kernel.sum(), mode="same") + 1e-9
    return np.asarray(out / out.sum())


def _hazard(events: Floats, spent: Floats, alpha: Floats, gamma: Floats) -> tuple[Floats, Floats]:
    """Alpha and gamma from the events and the days spent, (spans, grid)."""
    which = np.repeat(np.arange(SPANS), GRID.size)
    above = np.tile(GRID, SPANS)
    x = np.column_stack([np.eye(SPANS)[which], above[:, None] * _OF_SLOPE[which]])
    precision = np.concatenate([np.full(SPANS, 1e-3), np.full(SLOPES, 1 / SLOPE_SD**2)])
    coef = _poisson(x, events.ravel(), spent.ravel(), np.concatenate([alpha, gamma]), precision, 4)
    return coef[:SPANS], coef[SPANS:]


def _covariance(
    w: Floats, a: Floats, undrifted: Floats, u: Floats, q: Floats, sold: Bools, happened: Floats, exposure: Floats, alpha: Floats,
    gamma: Floats, mean_a: float, sd_a: float, bias: float, sd_u: float, kappa: float, sd_v: float,
) -> Floats:  # fmt: skip
    """Of alpha and gamma, the other parameters being unknown too: from the outer product of each listing's scores."""
    rate = np.exp(alpha[:, None] + gamma[SLOPE_OF][:, None] * a)  # (spans, grid)
    more = happened - exposure * (w @ rate.T)  # (n, spans): scores of alpha
    weighted = happened * (w @ GRID)[:, None] - exposure * ((w * a) @ rate.T)
    slope = weighted @ _OF_SLOPE
    gap = q - u - kappa * a
    known = sold[:, None]
    rest = np.column_stack([
        (w * (a - mean_a)).sum(axis=1) / sd_a**2, (w * ((a - mean_a) ** 2 / sd_a**2 - 1)).sum(axis=1),
        (w * (undrifted - bias)).sum(axis=1) / sd_u**2, (w * ((undrifted - bias) ** 2 / sd_u**2 - 1)).sum(axis=1),
        (w * known * a * gap).sum(axis=1) / sd_v**2, (w * known * (gap**2 / sd_v**2 - 1)).sum(axis=1),
    ])  # fmt: skip
    scores = np.column_stack([more, slope, rest])
    information = scores.T @ scores
    information[np.diag_indices_from(information)] += 1e-6
    information[SPANS : SPANS + SLOPES, SPANS : SPANS + SLOPES] += np.eye(SLOPES) / SLOPE_SD**2
    information[:SPANS, :SPANS] += np.eye(SPANS) * 0.05
    at = SPANS + SLOPES + 4
    information[at, at] += 1 / KAPPA_SD**2
    return np.asarray(np.linalg.pinv(information)[: SPANS + SLOPES, : SPANS + SLOPES])
