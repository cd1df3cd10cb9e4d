"""How close the method came on past sales, and what that says of its range.

Each case is a sale that was predicted from what was known the day before its price was agreed. The range is split
conformal: of the past cases priced like this one, what share of the range's own width did the errors take?
"""

from __future__ import annotations

from collections.abc import Mapping, Sequence
from dataclasses import dataclass
from functools import cached_property

import numpy as np

from ..market.columns import Floats, Ints
from ..statistics.regression import quantile_of_ascending

COVERAGE = 0.8
ENOUGH = 50  # cases from which a range counts as measured
_RANK_SD = 0.12  # cases whose predicted price stands within this share of all cases' speak most
_RECENT_DAYS = 540.0
_REACH_DEGREES, _MOST_NEAR = 0.25, 3000  # cases from further away say nothing of a range here


def normal_factor(coverage: float) -> float:
    """How much wider than one of 80 % a band is that holds this share of normal errors.

    >>> round(normal_factor(0.9), 3), normal_factor(0.8)
    (1.283, 1.0)
    """
    if coverage == COVERAGE:
        return 1.0
    from statistics import NormalDist  # some 20 ms to read, and seldom asked for

    reach = NormalDist().inv_cdf
    return reach((1 + coverage) / 2) / reach((1 + COVERAGE) / 2)


@dataclass(frozen=True)
class Case:
    """day: the day of the prediction; close_day: when the price became known. width: the fit's half width, in logs.

    predicted: value by method, the indicated value under "adjusted_comps". home_kind: what was priced.
    """

    listing_id: str
    day: int
    close_day: int
    actual: float
    predicted: Mapping[str, float]
    width: float
    latitude: float = 0.0
    longitude: float = 0.0
    home_kind: str = ""

    @property
    def value(self) -> float:
        """The indicated value, in dollars."""
        return self.predicted["adjusted_comps"]


@dataclass(frozen=True)
class Score:
    """mdape: median of |predicted ÷ actual − 1|; pe10, pe20: share within 10 and 20 %; bias: median of predicted ÷ actual − 1."""

    n: int
    mdape: float
    pe10: float
    pe20: float
    bias: float


def score(cases: Sequence[Case], method: str) -> Score | None:
    """How close one method came, over the cases that it has a value for."""
    errors = np.array([c.predicted[method] / c.actual - 1 for c in cases if method in c.predicted])
    if not errors.size:
        return None
    size = np.abs(errors)
    return Score(
        errors.size, float(np.median(size)), float((size <= 0.10).mean()), float((size <= 0.20).mean()),
        float(np.median(errors)),
    )  # fmt: skip


@dataclass(frozen=True)
class Calibration:
    """Past errors as shares of the fit's half width: log |actual ÷ value| ÷ width, with value and close day, each (n,)."""

    log_values: Floats
    shares: Floats
    close_days: Floats

    @classmethod
    def of(cls, cases: Sequence[Case]) -> Calibration:
        """From cases of one backtest."""
        return cls.from_rows([(c.actual, c.value, c.width, c.close_day) for c in cases])

    @classmethod
    def from_rows(cls, rows: Sequence[tuple[float, float, float, int]]) -> Calibration:
        """rows: (actual, value, width, close_day)."""
        table = np.array(rows, dtype=np.float64).reshape(-1, 4)
        actual, value, width = table[:, 0], table[:, 1], table[:, 2]
        return cls(np.log(value), np.abs(np.log(actual / value)) / width, table[:, 3])

    @cached_property
    def _orders(self) -> tuple[Ints, Ints]:
        """The cases by their shares, and by their values: sorted once for all that is asked."""
        return np.argsort(self.shares, kind="stable"), np.argsort(self.log_values, kind="stable")

    def factor(self, value: float, day: int, coverage: float = COVERAGE) -> tuple[float, bool]:
        """(what to multiply the fit's half width by, whether enough cases stood behind it) for a value on a day.

        The quantile at `coverage` of the shares of cases closed before the day, those of like value and of late weighing most,
        raised for their number as split conformal asks: (n + 1) × coverage ÷ n. Few cases are drawn towards what a normal error
        would give: 1 for 80 %, which is what the fit's half width stands for.
        """
        past = self.close_days < day
        n = int(past.sum())
        usual = normal_factor(coverage)
        if n == 0:
            return usual, False
        by_share, by_value = self._orders
        at = by_share[past[by_share]]
        values, shares = self.log_values[at], self.shares[at]  # the smallest share first
        ascending = self.log_values[by_value[past[by_value]]]
        rank = np.searchsorted(ascending, values) / n
        mine = np.searchsorted(ascending, np.log(value)) / n
        # at the ends the neighbours stand on one side only, and are all less dear (or dearer): nearer ones speak there
        from_end = min(mine, 1 - mine) / (2 * _RANK_SD)
        reach = _RANK_SD * (0.5 + 0.5 * min(1.0, from_end))
        weights = np.exp(-0.5 * ((rank - mine) / reach) ** 2) * 0.5 ** ((day - self.close_days[at]) / _RECENT_DAYS)
        behind = float(weights.sum() ** 2 / (weights**2).sum())
        level = min(max(0.98, coverage), coverage * (1 + 1 / behind))
        measured = quantile_of_ascending(shares, weights, level)
        trust = behind / (behind + 10.0)
        return float(trust * measured + (1 - trust) * usual), n >= ENOUGH


@dataclass(frozen=True)
class Fifth:
    """Cases of one fifth by predicted price: from and to, how many, share of prices inside their range."""

    low: float
    high: float
    n: int
    hits: float
    median_width: float


@dataclass(frozen=True)
class RangeReport:
    """hits: share of prices inside; median_width: of (high − low) ÷ value; None where there is no case."""

    nominal: float
    hits: float | None
    median_width: float | None
    by_fifth: tuple[Fifth, ...]


@dataclass(frozen=True)
class PastCases:
    """All cases of a kind of home, the latest first, each (n,): what ranges anywhere in the records are measured by."""

    cases: Calibration
    lats: Floats
    lons: Floats

    @classmethod
    def from_rows(cls, rows: Sequence[tuple[float, float, float, int, float, float]]) -> PastCases:
        """rows: (actual, value, width, close_day, latitude, longitude), the latest first."""
        places = np.array([r[4:] for r in rows], dtype=np.float64).reshape(-1, 2)
        return cls(Calibration.from_rows([r[:4] for r in rows]), places[:, 0], places[:, 1])

    def near(self, lat: float, lon: float) -> Calibration:
        """From those within about 15 miles, at most the 3,000 latest."""
        inside = (np.abs(self.lats - lat) <= _REACH_DEGREES) & (np.abs(self.lons - lon) <= _REACH_DEGREES * 1.4)
        at = np.flatnonzero(inside)[:_MOST_NEAR]
        return Calibration(self.cases.log_values[at], self.cases.shares[at], self.cases.close_days[at])


def check_ranges(cases: Sequence[Case], before: Sequence[Case], coverage: float = COVERAGE) -> RangeReport:
    """Each case's range from the cases closed before its day (`before` and earlier ones of `cases`), held to its price."""
    if not cases:
        return RangeReport(coverage, None, None, ())
    past = Calibration.of([*before, *cases])
    half = np.array([c.width * past.factor(c.value, c.day, coverage)[0] for c in cases])
    values = np.array([c.value for c in cases])
    inside = np.abs(np.log(np.array([c.actual for c in cases]) / values)) <= half
    width = np.exp(half) - np.exp(-half)
    order = np.argsort(values)
    fifths = [part for part in np.array_split(order, 5) if part.size]
    return RangeReport(
        coverage,
        float(inside.mean()),
        float(np.median(width)),
        tuple(
            Fifth(float(values[p].min()), float(values[p].max()), int(p.size), float(inside[p].mean()), float(np.median(width[p])))
            for p in fifths
        ),
    )  # fmt: skip


FEW = 30  # sales of a kind below which its figures are told as too few


@dataclass(frozen=True)
class KindScore:
    """How close the indicated value came for one kind of home. hits: share of prices inside the range that past errors of this kind
    gave; None where there are fewer than 30 sales: then `few` says so, and no figure is to be leaned on."""

    kind: str
    n: int
    mdape: float
    pe10: float
    bias: float
    hits: float | None
    median_width: float | None
    few: bool


def by_kind(cases: Sequence[Case], before: Sequence[Case], whole: RangeReport | None = None) -> list[KindScore]:
    """Each kind of home by itself, the commonest first. whole: the report on all cases, which is that of the only kind."""
    alone = whole if len({c.home_kind for c in (*cases, *before)}) == 1 else None
    kinds = sorted({c.home_kind for c in cases}, key=lambda k: (-sum(c.home_kind == k for c in cases), k))
    out = []
    for kind in kinds:
        mine = [c for c in cases if c.home_kind == kind]
        scored = score(mine, "adjusted_comps")
        assert scored is not None
        few = scored.n < FEW
        held = None if few else alone or check_ranges(mine, [c for c in before if c.home_kind == kind])
        out.append(
            KindScore(
                kind,
                scored.n,
                scored.mdape,
                scored.pe10,
                scored.bias,
                held.hits if held else None,
                held.median_width if held else None,
                few,
            )
        )
    return out
