"""What local sales say a feature is worth: the hedonic fit, local and shrunk towards the wider market.

Log price net of concessions on the features, each sale seen against its nearest neighbours so that the worth of
the place drops out; weighted to nearness in place, size and time; robust to odd sales.
"""

from __future__ import annotations

from collections.abc import Mapping, Sequence
from dataclasses import dataclass
from functools import cached_property

import numpy as np

from ..facts.fields import RANK
from ..facts.homes import Subject
from ..facts.money import rate_rounded, rate_words
from ..facts.places.place import in_box, near_miles, on_a_plane
from ..market.change.market_change import MarketChange, TimeBasis, basis_for, read_change
from ..market.change.time_prior import TimePrior, TimeTold, time_prior
from ..market.columns import HOME_KINDS, AsOf, Columns, Floats, Ints
from ..market.features import Feature, features_of, matrix, own_features, size_of, transformed
from ..market.listing_facts import price_days, recent_sale_rows
from ..phrases import phrase
from ..statistics.regression import Z80, Fit, robust_fit, weighted_quantile
from .location import Surface
from .neighbours import Places, apart
from .net_price import net_price
from .own_fields import telling
from .wide_model import ModelWorth, WideModel

MAX_SALES, LOCAL_SALES, NEIGHBOURS = 3000, 400, 12
REACH_MILES, REACH_DAYS = 25.0, 5 * 365
# how far local rates stray from the wider market's: one s.d. of a feature may be worth 3 % more or less here
_LOCAL_SD = 0.03


@dataclass(frozen=True)
class Rate:
    """Dollars for one unit of a field at the subject's level.

    se: its standard error in dollars. n: sales that knew the field. source: "local sales", "wider market",
    "house rule", "typed" or "none". weak: sign implausible or interval too wide to lean on.
    """

    field: str
    dollars: float
    se: float
    n: int
    source: str
    weak: bool
    elasticity: float | None = None  # for fields that enter as logarithms
    says: str = ""
    words: tuple[str, ...] = ()  # of a rank: the words from least to most


@dataclass(frozen=True)
class Evidence:
    """What sales around a home tell: rates by field, market change, the model's value (dollars), and how far it errs (logarithms)."""

    rates: Mapping[str, Rate]
    market_change: MarketChange
    model_value: float | None
    half_width: float
    n_local: int
    n_wide: int
    surface: Surface | None = None
    wide: WideFit | None = None
    coef: Floats | None = None  # of the local fit, by the wide fit's features
    local: Ints | None = None  # places of the local sales among the wide fit's
    nearness: Floats | None = None  # their weights, 1 the nearest
    n_model: int = 0  # sales on which the model's value stands
    model: ModelWorth | None = None  # what the wide model says, where there is one


@dataclass(frozen=True)
class WideFit:
    """The fit over the wider market, shared by every subject of one kind at one date."""

    rows: Ints
    days: Floats
    features: tuple[Feature, ...]
    x: Floats
    y: Floats
    basis: TimeBasis
    fit: Fit
    cov_time: Floats
    x_apart: Floats
    y_apart: Floats
    h_apart: Floats

    @property
    def k(self) -> int:
        """How many features the fit has."""
        return len(self.features)

    @cached_property
    def spreads(self) -> Floats:
        """Standard deviation of each feature against its neighbours, (k,)."""
        return np.asarray(np.maximum(self.x_apart.std(axis=0), 1e-9))

    @cached_property
    def covariance(self) -> Floats:
        """Of the features against their neighbours, (k, k)."""
        return np.asarray(np.atleast_2d(np.cov(self.x_apart, rowvar=False)))

    @property
    def told(self) -> TimeTold:
        """What these sales say of time, for kinds of home that have few of their own."""
        gamma, knots = self.fit.coef[self.k :], self.basis.knots
        return TimeTold(gamma[:knots], self.cov_time, gamma[knots:], len(self.rows))

    def moved(self, days: Floats, day: float, seasons: bool = True) -> Floats:
        """Log price that time alone puts on days against one day, (n,): the trend, and the season of each where asked."""
        gamma, knots = self.fit.coef[self.k :], self.basis.knots
        trend = (self.basis.trend(days) - self.basis.trend(np.array([float(day)]))) @ gamma[:knots]
        return np.asarray(trend + self.basis.season(days) @ gamma[knots:] if seasons else trend)


def wide_rows(
    columns: Columns,
    view: AsOf,
    subject: Subject,
    leave_out_home: bool,
    most: int = MAX_SALES,
    reach_days: int = REACH_DAYS,
) -> Ints:
    """Arm's-length sales of the subject's kind within 25 miles and 5 years, at most `most`, nearest in place and time."""
    among = (columns.home_kind == HOME_KINDS.index(subject.home_kind)) & (columns.close >= view.day - reach_days)
    if subject.placed:
        among &= in_box(subject.latitude, subject.longitude, REACH_MILES, columns.lats, columns.lons)
    rows = recent_sale_rows(columns, view, among)
    good = (columns.numbers[size_of(subject.home_kind)][rows] > 0) & (columns.numbers["close_price"][rows] > 1000)
    if leave_out_home and subject.home_id is not None:
        good &= columns.home_id[rows] != subject.home_id
    if leave_out_home and (own := columns.row(subject.own_listing)) is not None:
        good &= rows != own
    rows = rows[good]
    far = near_miles(subject.latitude, subject.longitude, columns.lats[rows], columns.lons[rows])
    if not subject.placed:  # in its neighbourhood, none is nearer than another
        far = np.nan_to_num(far, nan=0.0)
    inside = far <= REACH_MILES
    rows, far = rows[inside], far[inside]
    if rows.size > most:
        cost = far + (view.day - columns.close[rows]) / 365.0
        rows = np.sort(rows[np.argpartition(cost, most)[:most]])
    return rows


def wide_fit(
    columns: Columns,
    view: AsOf,
    subject: Subject,
    leave_out_home: bool = False,
    most: int = MAX_SALES,
) -> WideFit | None:
    """The fit over the wider market; None where there are fewer than 5 sales."""
    return fit_sales(columns, wide_rows(columns, view, subject, leave_out_home, most), view.day, subject)


def fit_sales(
    columns: Columns, rows: Ints, day: int, subject: Subject, errors: bool = True, others: Sequence[TimeTold] = ()
) -> WideFit | None:
    """The fit over some sales of the subject's kind, its prices those of `day`; None where there are fewer than 5.

    errors: whether it is to be told how sure it is: else its errors are NaN. others: what fits of other kinds of home, of
    the same day, say of time.
    """
    if rows.size < 5:
        return None
    days = price_days(columns, rows).astype(np.float64)
    known = tuple(features_of(subject.home_kind).values())
    features, x = matrix(columns, rows, known)
    y = np.log(net_price(columns, rows))
    basis = basis_for(day, days)
    believed = time_prior(others, basis)
    h = basis.columns(days)
    k = min(NEIGHBOURS, rows.size - 1)
    lats = columns.lats[rows]
    about = (
        float(np.nanmedian(lats)) if np.isfinite(lats).any() else 0.0
    )  # of the sales: the fit is theirs, whoever asks
    places = np.nan_to_num(on_a_plane(lats, columns.lons[rows], about))
    near = Places(places).nearest_others(k)[1]
    seen = apart(np.column_stack([x, h, y]), near)
    fit = _fitted(seen, features, basis, believed, errors)
    own, more = matrix(columns, rows, own_features(columns, rows))
    if own and (tell := telling(apart(more, near), fit.residuals, fit.robust_weights)):
        features, x = (*features, *(own[j] for j in tell)), np.hstack([x, more[:, tell]])
        seen = apart(np.column_stack([x, h, y]), near)
        fit = _fitted(seen, features, basis, believed, errors)
    nx = len(features)
    xa, ha, ya = seen[:, :nx], seen[:, nx:-1], seen[:, -1]
    precision, design = _precision(features, basis, believed), seen[:, :-1]
    trend = slice(nx, nx + basis.knots)
    if not errors:
        unknown = np.full((basis.knots, basis.knots), np.nan)
        return WideFit(rows, days, features, x, y, basis, fit, unknown, xa, ya, ha)
    s2 = max(fit.scale**2, 1e-12)
    cov = np.asarray(s2) * np.linalg.pinv(design.T @ (design * fit.robust_weights[:, None]) + s2 * precision)
    return WideFit(rows, days, features, x, y, basis, fit, cov[trend, trend], xa, ya, ha)


def _precision(features: Sequence[Feature], basis: TimeBasis, believed: TimePrior | None) -> Floats:
    n = len(features)
    time = basis.precision() + (0.0 if believed is None else believed.precision)
    out = np.zeros((n + len(time),) * 2)
    out[:n, :n] = np.diag([1 / f.prior_sd**2 for f in features])
    out[n:, n:] = time
    return out


def _fitted(
    apart: Floats, features: Sequence[Feature], basis: TimeBasis, believed: TimePrior | None, errors: bool
) -> Fit:
    """apart: the features, the columns of time and last the log price, (n, k + 1), each against its neighbours."""
    design = np.ascontiguousarray(apart[:, :-1])
    of_time = np.zeros(design.shape[1] - len(features)) if believed is None else believed.mean
    prior = np.concatenate([[f.prior for f in features], of_time])
    precision = _precision(features, basis, believed)
    return robust_fit(design, apart[:, -1], prior=prior, precision=precision, rounds=5, tolerance=1e-5, errors=errors)


def nearness(wide: WideFit, columns: Columns, subject: Subject, day: int) -> Floats:
    """Weight of each sale for this subject: near in place (to the 150th sale), in size and in time, (n,)."""
    rows = wide.rows
    far = near_miles(subject.latitude, subject.longitude, columns.lats[rows], columns.lons[rows])
    if not subject.placed:
        far = np.nan_to_num(far, nan=0.0)
    reach = max(0.25, float(np.partition(far, min(150, far.size - 1))[min(150, far.size - 1)]))
    w = np.exp(-0.5 * (far / (0.7 * reach)) ** 2) * 0.5 ** ((day - wide.days) / (3 * 365))
    size = size_of(subject.home_kind)
    mine = subject.number(size)
    if mine:
        w = w * np.exp(-0.5 * (np.log(columns.numbers[size][rows] / mine) / 0.45) ** 2)
    return np.asarray(w)


def subject_vector(wide: WideFit, subject: Subject) -> Floats:
    """The subject's features as the fit sees them; what is unknown stands at the sales' mean."""
    out: Floats = np.asarray(wide.x.mean(axis=0))
    for j, feature in enumerate(wide.features):
        value = subject.number(feature.name)
        if value is not None and (not feature.log or value > 0):
            out[j] = transformed(feature, np.array([value]))[0]
    return out


def evidence(
    columns: Columns,
    view: AsOf,
    subject: Subject,
    window_days: int = 365,
    leave_out_home: bool = False,
    shared: WideFit | None = None,
    model: WideModel | None = None,
    worth: ModelWorth | None = None,
) -> Evidence | None:
    """Rates, market change, the model's value and the spread of past errors, all before the view's day.

    window_days: the span over which market change is stated. shared: a wide fit already made for this kind and
    day. model: the wide model, where there is one, which then gives the model's value; else the local fit does. worth: what
    the model says of the subject, where that is known already.
    None where the records hold fewer than 5 usable sales.
    """
    wide = shared or wide_fit(columns, view, subject, leave_out_home)
    if wide is None:
        return None
    w = nearness(wide, columns, subject, view.day)
    pick = np.argpartition(-w, min(LOCAL_SALES, w.size) - 1)[:LOCAL_SALES]
    pick = pick[np.lexsort((pick, -w[pick]))]
    pick = pick[w[pick] > w[pick[0]] * 1e-4]
    w = w[pick] / w[pick].max()
    k = wide.k
    beta_wide, gamma = wide.fit.coef[:k], wide.fit.coef[k:]
    y_local = wide.y_apart[pick] - wide.h_apart[pick] @ gamma
    local = robust_fit(
        wide.x_apart[pick], y_local, w, beta_wide, (wide.spreads / _LOCAL_SD) ** 2, rounds=5, tolerance=1e-5
    )
    se = np.sqrt(local.se**2 + 0.25 * wide.fit.se[:k] ** 2)
    # the worth of this very place: what the nearest sales brought beyond their features, at today's prices
    left = wide.y[pick] - wide.x[pick] @ local.coef - wide.moved(wide.days[pick], view.day)
    closest = w**2
    level = weighted_quantile(left, closest, 0.5)
    near = np.abs(left - level) < 3 * max(local.scale, 0.02)
    level = float(np.average(left[near], weights=closest[near]))
    n_model, value = len(pick), float(np.exp(level + subject_vector(wide, subject) @ local.coef))
    told = worth
    if told is None and model is not None and subject.placed:
        told = model.worth(subject, leave_out_home)
    if model is not None and told is not None:
        since = wide.moved(np.array([float(model.day)]), view.day, seasons=False)[0]
        n_model, value = model.n, float(np.exp(told.log_value - since))
    spread = weighted_quantile(np.abs(local.residuals), w, 0.8)
    # comps carry their own noise on top of the fit's: seen on past sales, about a fifth more
    thin = 1.2 + 3.0 / max(1.0, float(w.sum() ** 2 / (w**2).sum()))
    change = read_change(
        wide.basis, gamma[: wide.basis.knots], wide.cov_time, window_days, len(wide.rows),
        float(view.day - wide.days.min()),
    )  # fmt: skip
    rates = {
        f.name: _rate(
            f,
            local.coef[j],
            se[j],
            wide.fit.coef[j],
            wide.fit.se[j],
            value,
            subject,
            columns,
            wide.rows[pick],
        )
        for j, f in enumerate(wide.features)
    }
    recent = 0.5 ** ((view.day - wide.days[pick]) / (2 * 365))
    rows = wide.rows[pick]
    surface = Surface(rows, columns.lats[rows], columns.lons[rows], left, recent, float(np.median(left)))
    return Evidence(
        rates,
        change,
        value,
        max(spread, 0.02) * thin,
        len(pick),
        len(wide.rows),
        surface,
        wide,
        local.coef,
        pick,
        w,
        n_model,
        told,
    )


def location_rate(worth: float, n: int) -> Rate:
    """Dollars for one percent by which a spot is worth more or less."""
    return Rate("location", rate_rounded(worth / 100), 0.0, n, "local sales", False, None,
                phrase("rate-says-location"))  # fmt: skip


def dollars_per(f: Feature, worth: float, subject: Subject, columns: Columns, rows: Ints) -> float:
    """What turns a coefficient into dollars for one unit: at the subject's level, else at the middle of these sales."""
    if not f.log:
        return worth
    known = columns.numbers[f.name][rows]
    level = subject.number(f.name) or (float(np.nanmedian(known)) if np.isfinite(known).any() else 1.0)
    return worth / level if level else worth


def _rate(
    f: Feature, coef: float, se: float, wide: float, wide_se: float, worth: float,
    subject: Subject, columns: Columns, rows: Ints,
) -> Rate:  # fmt: skip
    """A feature's dollars at the subject's level, and whether they can be leaned on."""
    n = int(np.isfinite(columns.numbers[f.name][rows]).sum())
    per = dollars_per(f, worth, subject, columns, rows)
    source, says = "local sales", ""
    words = columns.orders.get(f.name.removeprefix(RANK), ()) if f.name.startswith(RANK) else ()
    way = -1.0 if f.either and wide < 0 else 1.0  # whether more of it lowers prices: then its opposite is looked at
    coef, wide, per = way * coef, way * wide, way * per
    if coef <= 0 and wide > 1.5 * wide_se:
        coef, se, source = wide, wide_se, "wider market"
    weak = coef <= 0 or coef < Z80 * se
    if weak and f.only_where_told:
        low, high = (rate_words(rate_rounded(x)) for x in sorted((coef + z * se) * per for z in (-Z80, Z80)))
        says = phrase("rate-says-no-line", n=n, low=low, high=high)
        return Rate(f.name, 0.0, se * abs(per), n, "none", True, None, says, words)
    if coef <= 0:
        says = phrase("rate-says-no-worth", n=n)
        coef, source = 0.0, "none"
    elif weak:
        says = phrase("rate-says-uncertain", n=n)
    return Rate(f.name, rate_rounded(coef * per), se * abs(per), n, source, weak, coef if f.log else None, says, words)


def house_rate(f: Feature, worth: float, level: float | None, prior: float | None = None) -> Rate:
    """The house rule's rate for a feature, at a given worth; used where no sale speaks. prior: the effect on log price of one
    unit, where the house has another than what is usually believed.

    A lot of 9,000 sq ft worth 117,000, elasticity 0.6: 0.6 × 117,000 ÷ 9,000 = 7.80 $ a sq ft.
    """
    per = worth / level if f.log and level else worth
    prior = f.prior if prior is None else prior
    return Rate(f.name, rate_rounded(prior * per), f.prior_sd * per, 0, "house rule", True, prior if f.log else None,
                phrase("rate-says-house-rule"))  # fmt: skip
