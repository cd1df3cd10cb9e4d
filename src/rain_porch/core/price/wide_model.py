"""What a home is worth by all sales of its kind around: the wide model, which says how far each comp's price can be believed.

Two fits of log prices net of concessions. The first is differenced, each sale against its nearest neighbours, so that the worth
of places drops out: log p = x β + trend(t) + season(t). What it leaves, averaged over the nearest sales at a short and a longer
reach, leaving each sale's own out, gives two levels of every place. The second fit is not differenced: log p − trend = f(x, levels,
levels × features, pairs of features, radial bumps of place alone and × size, year, lot), all shrunk by their kind. The value of
a home is the second fit at the home, plus the weighted mean of what it leaves of the nearest like sales:

    v = m(home) + Σ wᵢ eᵢ ÷ (Σ wᵢ + w₀),   eᵢ = log pᵢ − trend(tᵢ) − m(saleᵢ)
    wᵢ = (0.7 e^(−d÷a) + 0.3 e^(−d÷b)) · e^(−|Δx|) · ½^(days ÷ 900) · 1 ÷ (1 + (oᵢ ÷ 2)²)

d: distance; a, b: reaches that follow the density of sales; oᵢ: by how much a sale's eᵢ parts from its neighbours', against what
is usual for such a home. Nothing dated after the day of the fit is read. Tuned on one half of the sales of 1995 and 1996 in the
early county (docs/accuracy.md), confirmed on the other.
"""

from __future__ import annotations

from collections.abc import Sequence
from dataclasses import dataclass
from functools import cached_property

import numpy as np

from ..facts.homes import Subject
from ..facts.places.place import on_a_plane
from ..facts.words import HomeKind
from ..market.change.market_change import TimeBasis, basis_for
from ..market.change.time_prior import TimePrior, TimeTold, time_prior
from ..market.columns import Columns, Floats, Ints
from ..market.listing_facts import price_days
from .model_columns import Described, ModelColumns, hats, numbers_of, numbers_of_homes, texts_of, texts_of_homes
from .neighbours import Places, apart
from .net_price import net_price

ENOUGH, MOST = 150, 16_000  # sales
NEIGHBOURS, BUMPS, ASKED, SPEAKING = 15, 60, 80, 12
NO_HOME = -1
_TENTH = 0.164  # miles to the tenth sale where reaches were tuned: they follow the density of sales
_NEAR, _FAR, _SHORT, _LONG, _AROUND = 0.15, 0.8, 0.05, 0.35, 0.3  # miles there
_LEVEL_QUANTILES = (0.03, 0.15, 0.35, 0.6, 0.85, 0.97)
_HALF_YEARS, _HALF_COMPS = 3 * 365.0, 900.0  # days after which a sale speaks half as loud
_APART = np.array([0.8, 1.2, 0.7, 1.5])  # spreads of size, lot, year and year² that count as one step of unlikeness
_REACH, _NOBODY = 1.2, 0.05
_ROUNDS, _CUT = 4, 4.7
# how much each kind of column of the second fit is shrunk
_SHRUNK = {"columns": 1.0, "levels": 1.0, "level × core": 20.0, "pairs": 20.0, "bumps": 3.0, "bumps × core": 8.0}


@dataclass(frozen=True)
class Usual:
    """What is usually left of a sale of such a price, size, lot, year and place: exp(x · coef)."""

    coef: Floats
    middle: float
    spread: float
    typical: float  # of the sales learnt from, the middle one

    @classmethod
    def learnt(cls, left: Floats, fitted: Floats, core: Floats, level: Floats) -> Usual:
        """By a regression of log |left|, scaled so that its middle is the middle of what is left."""
        size = np.minimum(np.abs(left), 1.0)
        bare = cls(np.zeros(0), float(fitted.mean()), max(float(fitted.std()), 1e-6), 0.0)
        x = bare._columns(fitted, core, level)
        coef = np.linalg.lstsq(x, np.log(np.maximum(size, 0.01)), rcond=None)[0]
        typical = max(float(np.median(size)), 1e-3)
        coef[0] += np.log(typical) - float(np.median(x @ coef))
        return cls(np.asarray(coef, dtype=np.float64), bare.middle, bare.spread, typical)

    def of(self, fitted: Floats, core: Floats, level: Floats) -> Floats:
        """|log price − fit|, (n,), the middle one of homes like these."""
        return np.asarray(np.exp(self._columns(fitted, core, level) @ self.coef))

    def _columns(self, fitted: Floats, core: Floats, level: Floats) -> Floats:
        z = np.clip((fitted - self.middle) / self.spread, -3, 3)
        return np.column_stack([np.ones(len(z)), z, z**2, np.clip(core[:, :4], -4, 4), level])


@dataclass(frozen=True)
class ModelWorth:
    """What the model says of a home. log_value: at the prices of its day. usual: |log price − what it says| of homes like this, the
    middle one; typical: of all its sales. heard: the weights of the sales around that spoke, in like sales next door."""

    log_value: float
    usual: float
    typical: float
    heard: float
    day: int = 0  # of the fit


@dataclass(frozen=True)
class WideModel:
    """rows, days: of the sales it was fitted to; day: what is dated after it was not read. left: (n,) what the second fit leaves of
    each; odd: (n,) how odd that is. n: how many sales."""

    day: int
    rows: Ints
    days: Floats
    home_ids: Ints
    told: ModelColumns
    points: Floats
    origin: float
    first_left: Floats
    louder: Floats
    unit: float
    level_knots: tuple[Floats, Floats]
    level_middle: tuple[float, float]
    level_spread: tuple[float, float]
    centres: Floats
    widths: Floats
    coef: Floats
    middle: Floats
    base: float
    now: float
    core: Floats
    left: Floats
    odd: Floats
    usual: Usual

    @cached_property
    def places(self) -> Places:
        """Where the sales lie."""
        return Places(self.points)

    @property
    def n(self) -> int:
        return len(self.rows)

    def worth(self, subject: Subject, leave_out_home: bool = False) -> ModelWorth:
        """Of a home with a place, at the prices of the model's day. leave_out_home: its own earlier sales say nothing."""
        return self.worths([subject], leave_out_home)[0]

    def worths(self, subjects: Sequence[Subject], leave_out_home: bool = False) -> list[ModelWorth]:
        """The same of many homes at once."""
        seen = self.told.of(numbers_of_homes(subjects), texts_of_homes(subjects))
        points = self.points_of(np.array([s.latitude for s in subjects]), np.array([s.longitude for s in subjects]))
        named = [s.home_id if leave_out_home and s.home_id is not None else NO_HOME for s in subjects]
        own = np.array(named, dtype=np.int64)
        levels = self.levels(points, own)
        fitted = self.fitted(seen, points, own, levels)
        usual = self.usual.of(fitted, seen.core, (levels[1] - self.level_middle[1]) / self.level_spread[1])
        far, at = self.places.nearest(points, ASKED)
        step = np.sqrt((((self.core[at, :4] - seen.core[:, None, :4]) / _APART) ** 2).sum(axis=2))
        near = 0.7 * np.exp(-far / (_SHORT * self.unit)) + 0.3 * np.exp(-far / (_LONG * self.unit))
        w = (
            near
            * np.exp(-step / _REACH)
            * 0.5 ** ((self.day - self.days[at]) / _HALF_COMPS)
            / (1 + (self.odd[at] / 2.0) ** 2)
        )
        w = np.where(self.home_ids[at] == own[:, None], 0.0, w)
        heard = w.sum(axis=1)
        least = np.sort(w, axis=1)[:, -min(SPEAKING, w.shape[1])]
        w = np.where(w >= least[:, None], w, 0.0)
        left = (w * np.clip(self.left[at], -0.7, 0.7)).sum(axis=1) / (w.sum(axis=1) + _NOBODY)
        return [
            ModelWorth(float(f) + self.now + float(x), float(u), self.usual.typical, float(h), self.day)
            for f, x, u, h in zip(fitted, left, usual, heard, strict=True)
        ]

    def points_of(self, lats: Floats, lons: Floats) -> Floats:
        """Places on the model's plane, in miles, (n, 2)."""
        return on_a_plane(lats, lons, self.origin)

    def fitted(self, seen: Described, points: Floats, own: Ints, levels: tuple[Floats, Floats] | None = None) -> Floats:
        """The second fit at homes so described at these places, (n,): log price less trend. own: the homes whose sales do not speak
        for their place, NO_HOME for none. levels: of the places, where they are known already."""
        short, long = levels or self.levels(points, own)
        return np.asarray(
            (_second(seen.columns, seen.core, short, long, points, self) - self.middle) @ self.coef + self.base
        )

    def levels(self, points: Floats, own: Ints) -> tuple[Floats, Floats]:
        """The short level and the long of places, each (n,)."""
        far, at = self.places.nearest(points, max(k for _, k, _ in _levels(self.unit)))
        out = []
        for reach, k, prior in _levels(self.unit):
            w = np.exp(-far[:, :k] / reach) * self.louder[at[:, :k]]
            w = np.where(self.home_ids[at[:, :k]] == own[:, None], 0.0, w)
            out.append(np.asarray((w * self.first_left[at[:, :k]]).sum(axis=1) / (w.sum(axis=1) + prior)))
        return out[0], out[1]


def _levels(unit: float) -> tuple[tuple[float, int, float], ...]:
    """(reach in miles, sales asked, weight of knowing nothing) of the short level and the long."""
    return (_NEAR * unit, 40, 1.0), (_FAR * unit, 60, 1.5)


def placed_rows(columns: Columns, rows: Ints) -> Ints:
    """Those of some rows that have a place."""
    return rows[np.isfinite(columns.lats[rows]) & np.isfinite(columns.lons[rows])]


def fit_wide_model(
    columns: Columns, rows: Ints, day: int, kind: HomeKind, others: Sequence[TimeTold] = ()
) -> WideModel | None:
    """The model over sales of one kind, all dated before `day`; None where fewer than 150 of them have a place. others: what fits
    of other kinds of home, of the same day, say of time."""
    rows = placed_rows(columns, rows)
    if rows.size < ENOUGH:
        return None
    days = price_days(columns, rows).astype(np.float64)
    numbers, texts = numbers_of(columns, rows), texts_of(columns, rows)
    told = ModelColumns.learnt(numbers, texts, columns.numbers, columns.words, kind)
    if not told.features:
        return None
    seen = told.of(numbers, texts)
    y = np.log(net_price(columns, rows))
    origin = float(np.median(columns.lats[rows]))
    points = on_a_plane(columns.lats[rows], columns.lons[rows], origin)
    far, near = Places(points).nearest_others(60)
    unit = float(np.clip(np.median(far[:, 9]) / _TENTH, 0.5, 6.0))
    louder = 0.5 ** ((day - days) / _HALF_YEARS)
    time, now, first = _first_fit(seen.columns, y, days, basis_for(day, days), near[:, :NEIGHBOURS], others)
    first = np.clip(first - np.median(first), -0.8, 0.8)
    levels = [_left_out_level(first, far, near, louder, reach, k, prior) for reach, k, prior in _levels(unit)]
    knots = tuple(np.unique(np.quantile(level, _LEVEL_QUANTILES)) for level in levels)
    if any(k.size < 2 for k in knots):
        return None
    count = int(min(BUMPS, rows.size // 60))
    from scipy.cluster.vq import kmeans2

    centres = kmeans2(points, count, minit="++", seed=1, iter=15)[0]
    between = Places(centres).nearest_others(1)[0][:, 0]
    bare = WideModel(
        day, rows, days, columns.home_id[rows].astype(np.int64), told, points, origin, first, louder, unit, (knots[0], knots[1]),
        (float(levels[0].mean()), float(levels[1].mean())), (max(float(levels[0].std()), 1e-6), max(float(levels[1].std()), 1e-6)), centres,
        np.clip(1.2 * between, 0.35 * unit, 4.0 * unit), np.zeros(0), np.zeros(0), 0.0, now, seen.core, np.zeros(0), np.zeros(0), Usual(np.zeros(0), 0.0, 1.0, 1.0),
    )  # fmt: skip
    x = _second(seen.columns, seen.core, levels[0], levels[1], points, bare)
    middle = x.mean(axis=0)
    target = y - time
    base = float(np.median(target))
    coef, left = _robust(
        x - middle, target - base, np.sqrt(louder), _penalties(seen.columns.shape[1], seen.core.shape[1], count, knots)
    )
    fitted = (x - middle) @ coef + base
    far_level = (levels[1] - bare.level_middle[1]) / bare.level_spread[1]
    around = _left_out_level(np.clip(left, -0.6, 0.6), far, near, louder, _AROUND * unit, 12, 0.5)
    usual = Usual.learnt(left - around, fitted, seen.core, far_level)
    return WideModel(
        day, rows, days, bare.home_ids, told, points, origin, first, louder, unit, bare.level_knots, bare.level_middle, bare.level_spread,
        centres, bare.widths, coef, middle, base, now, seen.core, left, np.abs(left - around) / usual.of(fitted, seen.core, far_level), usual,
    )  # fmt: skip


def _first_fit(
    x: Floats, y: Floats, days: Floats, basis: TimeBasis, near: Ints, others: Sequence[TimeTold] = ()
) -> tuple[Floats, float, Floats]:
    """Trend and season of each sale's day, those of the model's own day, and what features and time leave of each price."""
    h = basis.columns(days)
    design = np.hstack([x, h])

    k, m = x.shape[1], h.shape[1]
    penalty = np.zeros((k + m, k + m))
    penalty[:k, :k] = 2.0 * np.eye(k)
    believed = time_prior(others, basis) or TimePrior(np.zeros(m), np.zeros((m, m)))
    penalty[k:, k:] = (basis.precision() + believed.precision) * 0.02  # in units of what a sale leaves, squared
    coef, _ = _robust(apart(design, near), apart(y - h @ believed.mean, near), np.ones(len(y)), penalty)
    of_time = coef[k:] + believed.mean
    time = h @ of_time
    now = float((basis.columns(np.array([float(basis.day)])) @ of_time)[0])
    return np.asarray(time), now, np.asarray(y - x @ coef[:k] - time)


def _left_out_level(
    left: Floats, far: Floats, near: Ints, louder: Floats, reach: float, k: int, prior: float
) -> Floats:
    """Mean of what is left of the k nearest others, near ones first, drawn towards 0, (n,)."""
    far, near = far[:, :k], near[:, :k]
    w = np.exp(-far / reach) * louder[near]
    return np.asarray((w * left[near]).sum(axis=1) / (w.sum(axis=1) + prior))


def _second(x: Floats, core: Floats, short: Floats, long: Floats, points: Floats, of: WideModel) -> Floats:
    """The columns of the second fit, in the order of `_penalties`, (n, k)."""
    a, b = ((level - m) / s for level, m, s in zip((short, long), of.level_middle, of.level_spread, strict=True))
    bumps = np.exp(-0.5 * ((points[:, None, :] - of.centres[None]) ** 2).sum(axis=2) / of.widths**2)
    c = core.shape[1]
    pairs = [core[:, i] * core[:, j] for i in range(c) for j in range(i + 1, c)]
    return np.hstack([
        x, hats(short, of.level_knots[0]), hats(long, of.level_knots[1]), core * a[:, None], core * b[:, None], np.column_stack(pairs),
        bumps, bumps * core[:, [0]], bumps * core[:, [2]], bumps * core[:, [1]],
    ])  # fmt: skip


def _penalties(k: int, c: int, bumps: int, knots: tuple[Floats, ...]) -> Floats:
    """The ridge of the second fit's columns as a diagonal matrix."""
    sizes = (
        ("columns", k), ("levels", sum(len(x) for x in knots)), ("level × core", 2 * c), ("pairs", c * (c - 1) // 2), ("bumps", bumps),
        ("bumps × core", 3 * bumps),
    )  # fmt: skip
    return np.diag(np.concatenate([np.full(n, _SHRUNK[name]) for name, n in sizes]))


def _robust(x: Floats, y: Floats, weights: Floats, penalty: Floats) -> tuple[Floats, Floats]:
    """Ridge by weighted least squares with Tukey's redescending weights, (coefficients, what is left)."""
    robust = np.ones(len(y))
    coef: Floats = np.zeros(x.shape[1])
    left: Floats = y
    for _ in range(_ROUNDS):
        root = np.sqrt(weights * robust)
        a = x * root[:, None]  # times its own transpose: the half of the products that is needed is worked out
        coef = np.asarray(np.linalg.solve(a.T @ a + penalty, a.T @ (root * y)))
        left = y - x @ coef
        u = left / (_CUT * max(1.4826 * float(np.median(np.abs(left))), 1e-6))
        robust = np.where(np.abs(u) < 1, (1 - u * u) ** 2, 0.0)
    return coef, np.asarray(left)
