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

from ...facts.money import half_up
from ...statistics.regression import Z80

Floats = NDArray[np.float64]
Bools = NDArray[np.bool_]
Ints = NDArray[np.int64]

EDGES = (0.0, 14.0, 30.0, 60.0, 90.0, 180.0, 400.0)  # days; the hazard is constant between them
SPANS = len(EDGES) - 1
# which slope holds in each span: to 30 days, to 60, after; cuts wear a high price down
SLOPE_OF = np.array([0, 0, 1, 2, 2, 2])
SLOPES = 3
GRID = np.arange(-0.45, 0.6001, 0.015)
_NODES, _NODE_WEIGHTS = np.polynomial.hermite_e.hermegauss(15)
_NODE_WEIGHTS = _NODE_WEIGHTS / _NODE_WEIGHTS.sum()
OF_SLOPE = np.eye(SLOPES)[SLOPE_OF]  # (spans, slopes)
MIDDLE_DAYS = np.array([(a + min(b, a + 60)) / 2 for a, b in itertools.pairwise(EDGES)])
MIDDLES = 2 * np.pi / 365.25 * MIDDLE_DAYS


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
        spent = exposures(np.array([day]))[0] * season_factor(self.season, np.array([when.turn]))[0]
        spent = spent * risen_factor(slopes, np.array([when.market]))[0]
        hazard = np.exp(self.alpha[None, :] + slopes[None, :] * above[:, None]) * spent[None, :]  # (m, spans)
        left = np.exp(-hazard.sum(axis=1))
        by_alpha = -left[:, None] * hazard
        by_gamma = by_alpha @ OF_SLOPE * above[:, None]
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
        given = self.seen_as.spread * normal(r - GRID, self.bias, self.sd_u)
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


def exposures(days: Floats) -> Floats:
    """Days that each listing, (n,), has stood in each span, (n, spans)."""
    edges = np.array(EDGES)
    return np.asarray(np.clip(days[:, None] - edges[None, :-1], 0.0, np.diff(edges)[None, :]))


def span_of(days: Floats) -> Ints:
    """The span in which each day lies, (n,): a contract on day 14 is within 14."""
    return np.asarray(np.clip(np.searchsorted(EDGES, days, side="left") - 1, 0, SPANS - 1))


def season_factor(coef: Floats, turn: Floats) -> Floats:
    """Factor of the hazard in each span, (n, spans), for listings that began at a turn of the year: one wave, at the span's
    middle."""
    at = turn[:, None] + MIDDLES[None, :]
    return np.asarray(np.exp(coef[0] * np.cos(at) + coef[1] * np.sin(at)))


def risen_factor(slopes: Floats, market: Floats) -> Floats:
    """Factor of the hazard in each span, (n, spans), where prices have moved since: e^(−γ × market × days to its middle)."""
    return np.asarray(np.exp(-slopes[None, :] * market[:, None] * MIDDLE_DAYS[None, :]))


def normal(x: Floats, mean: float, sd: float) -> Floats:
    """The height of a normal curve at x, but for a factor."""
    return np.asarray(np.exp(-0.5 * ((x - mean) / sd) ** 2 - np.log(sd)))
