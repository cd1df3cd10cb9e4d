"""One rate opened to what it stands on: the local sales as dots of a partial plot, and pairs of sales."""

from __future__ import annotations

from dataclasses import dataclass, replace

import numpy as np

from ..facts.fields import BY_NAME, RANK, Field, Kind, Pairing
from ..facts.homes import Subject
from ..facts.money import rate_rounded
from ..facts.places.place import near_miles
from ..market.columns import Columns, Floats
from ..market.features import features_of
from ..phrases import phrase
from ..statistics.regression import Z80
from .evidence import Evidence, dollars_per

PAIR_MILES, PAIR_DAYS, PAIRS_SHOWN = 1.0, 730, 40


@dataclass(frozen=True)
class Dot:
    """A local sale: its difference from the homes around it in the feature, and from their price in percent."""

    row: int
    x: float
    y: float
    weight: float


@dataclass(frozen=True)
class PartialPlot:
    """y is the price difference left when all other features and time are taken out; the fit's line is slope × x.

    x in the field's units, in percent where the feature enters as a logarithm (`in_percent`); slope in percent a unit.
    """

    dots: tuple[Dot, ...]
    slope: float
    in_percent: bool


@dataclass(frozen=True)
class Pair:
    """Two sales alike but for the feature: `more` has more of it. per_unit: price difference at one date ÷ difference."""

    more: int
    fewer: int
    difference: float
    dollars: float
    per_unit: float


@dataclass(frozen=True)
class Pairs:
    """count: how many there are; the nearest of them in `shown`. Quartiles of the price difference a unit."""

    count: int
    low: float | None
    median: float | None
    high: float | None
    shown: tuple[Pair, ...]


NO_PAIRS = Pairs(0, None, None, None, ())


@dataclass(frozen=True)
class Choice:
    """A rate that may stand in the grid: where it comes from, in dollars a unit, with its standard error and count."""

    source: str
    dollars: float
    se: float | None
    n: int | None
    says: str


def choices(
    found: Evidence | None, pairs: Pairs, columns: Columns, subject: Subject, name: str, worth: float
) -> list[Choice]:
    """Every figure that may be used for a rate, the sales around here first; the house rule is one of them, but for an office's own
    field, of which no rule knows."""
    out: list[Choice] = []
    rows = np.zeros(0, dtype=np.int64)
    j = _place(found, name) if found else None
    f = found.wide.features[j] if found and found.wide and j is not None else features_of(subject.home_kind)[name]
    if found is not None and found.wide is not None and found.local is not None:
        rows = found.wide.rows[found.local]
        if j is not None and found.coef is not None:
            per = dollars_per(f, worth, subject, columns, rows)
            local, wide = found.rates[name], found.wide.fit
            out = [
                Choice("local sales", float(found.coef[j]) * per, None if local.source == "wider market" else local.se,
                       found.n_local, phrase("rate-choice-local")),
                Choice("wider market", float(wide.coef[j]) * per, float(wide.se[j]) * per, found.n_wide,
                       phrase("rate-choice-wide")),
            ]  # fmt: skip
    if pairs.median is not None:
        out.append(Choice("paired sales", pairs.median, None, pairs.count, phrase("rate-choice-pairs")))
    per = dollars_per(f, worth, subject, columns, rows)
    if not f.either:
        out.append(Choice("house rule", f.prior * per, f.prior_sd * per, None, phrase("rate-choice-house")))
    return [replace(c, dollars=rate_rounded(c.dollars)) for c in out]


def partial_plot(found: Evidence, name: str) -> PartialPlot | None:
    """The local sales seen along one feature; None where the fit has no such feature."""
    wide = found.wide
    j = _place(found, name)
    if wide is None or j is None or found.local is None or found.coef is None or found.nearness is None:
        return None
    pick, gamma = found.local, wide.fit.coef[wide.k :]
    left = wide.y_apart[pick] - wide.h_apart[pick] @ gamma - wide.x_apart[pick] @ found.coef
    x = wide.x_apart[pick, j]
    y = left + x * found.coef[j]
    log = wide.features[j].log
    shown = np.expm1(x) * 100 if log else x
    dots = tuple(
        Dot(int(row), float(a), float(np.expm1(b) * 100), float(w))
        for row, a, b, w in zip(wide.rows[pick], shown, y, found.nearness, strict=True)
    )
    return PartialPlot(dots, float(found.coef[j]) if log else float(found.coef[j] * 100), log)


def paired_sales(found: Evidence, columns: Columns, name: str, day: int) -> Pairs:
    """Pairs of the local sales that agree on all features but one, within a mile and two years, at the view's date."""
    wide = found.wide
    j = _place(found, name)
    if wide is None or j is None or found.local is None:
        return NO_PAIRS
    rows = wide.rows[found.local]
    ok = np.ones((len(rows), len(rows)), dtype=np.bool_)
    for f in wide.features:
        if f.name != name:
            ok &= _alike(columns.numbers[f.name][rows], BY_NAME[f.name])
    mine = columns.numbers[name][rows]
    gap = mine[:, None] - mine[None, :]
    field = BY_NAME[name]
    size = gap / mine[None, :] if field.relative else gap
    pairing = _pairing(field, mine)
    with np.errstate(invalid="ignore"):
        ok &= (size >= pairing.least) & (size <= pairing.most)
    days = wide.days[found.local]
    ok &= np.abs(days[:, None] - days[None, :]) <= PAIR_DAYS
    a, b = np.nonzero(ok)
    if not a.size:
        return NO_PAIRS
    near = (
        near_miles(columns.lats[rows[a]], columns.lons[rows[a]], columns.lats[rows[b]], columns.lons[rows[b]])
        <= PAIR_MILES
    )
    a, b = a[near], b[near]
    now = np.exp(wide.y[found.local] - wide.moved(days, day))
    dollars = now[a] - now[b]
    per = dollars / gap[a, b]
    if not per.size:
        return NO_PAIRS
    low, median, high = (float(q) for q in np.percentile(per, [25, 50, 75]))
    first = np.argsort(a + b, kind="stable")[:PAIRS_SHOWN]  # the local sales stand nearest first
    shown = tuple(
        Pair(int(rows[a[i]]), int(rows[b[i]]), float(gap[a[i], b[i]]), float(dollars[i]), float(per[i])) for i in first
    )
    return Pairs(int(per.size), low, median, high, shown)


@dataclass(frozen=True)
class IndexPoint:
    """A quarter back: percent against the effective day with its 80 % band, and the sales of that quarter."""

    days_back: int
    pct: float
    low: float
    high: float
    sales: int


def market_index(found: Evidence, day: int) -> list[IndexPoint]:
    """The fitted index by quarter, newest first; nothing without a fit."""
    wide = found.wide
    if wide is None:
        return []
    coef, cov = wide.fit.coef[wide.k :], wide.cov_time
    quarter = np.clip(np.round((day - wide.days) / 91.3125), 0, wide.basis.knots - 1).astype(int)
    sales = np.bincount(quarter, minlength=wide.basis.knots)
    out = []
    for q, (back, pct) in enumerate(found.market_change.index):
        sd = float(np.sqrt(max(0.0, cov[q, q] + cov[0, 0] - 2 * cov[q, 0]))) if q else 0.0
        log = float(coef[q] - coef[0])
        out.append(
            IndexPoint(
                back,
                pct,
                float(np.expm1(log - Z80 * sd) * 100),
                float(np.expm1(log + Z80 * sd) * 100),
                int(sales[q]),
            )
        )
    return out


def moved_since(found: Evidence, then: float, day: int) -> float | None:
    """Factor by which prices moved from a day in the past to the view's day, seasons aside; None where the sales do
    not reach so far back."""
    if found.wide is None or then < found.wide.days.min():
        return None
    return float(np.exp(-found.wide.moved(np.array([then]), day, seasons=False)[0]))


def _place(found: Evidence, name: str) -> int | None:
    names = [f.name for f in found.wide.features] if found.wide else []
    return names.index(name) if name in names else None


def _pairing(field: Field, values: Floats) -> Pairing:
    """The field's own; of an office's own number, of which nobody has said it, by how it spreads over these sales: a fifth of a
    spread is the same, half a spread to two is a difference."""
    if field.group != "own" or field.kind != Kind.NUMBER or field.name.startswith(RANK):
        return field.pairing
    spread = float(np.nanstd(values))
    return Pairing(0.2 * spread, 0.5 * spread, 2.0 * spread)


def _alike(values: Floats, field: Field) -> np.ndarray[tuple[int, int], np.dtype[np.bool_]]:
    """Which sales agree; two that both do not know a feature agree on it."""
    unknown = np.isnan(values)
    gap = np.abs(values[:, None] - values[None, :])
    if field.relative:
        gap = gap / values[None, :]
    with np.errstate(invalid="ignore"):
        same = gap <= _pairing(field, values).same
    return np.asarray(same | (unknown[:, None] & unknown[None, :]))
