"""How close prices came on past sales, as documents."""

from __future__ import annotations

import datetime as dt

from .base import Doc


class ScoreDoc(Doc):
    """mdape, pe10, pe20, bias are fractions; n: the cases that the method had a value for."""

    n: int
    mdape: float
    pe10: float
    pe20: float
    bias: float


class FifthDoc(Doc):
    """low, high: predicted values of this fifth of the cases."""

    low: float
    high: float
    n: int
    hits: float
    median_width: float


class RangeReportDoc(Doc):
    nominal: float
    hits: float | None
    median_width: float | None
    by_fifth: list[FifthDoc]


class KindScoreDoc(Doc):
    """How close adjusted comps came for one kind of home; hits and median_width: of its own range, none where there are too few."""

    kind: str
    n: int
    mdape: float
    pe10: float
    bias: float
    hits: float | None
    median_width: float | None
    few: bool


class BacktestDoc(Doc):
    start: dt.date
    end: dt.date
    subjects: int
    skipped: dict[str, int]
    methods: dict[str, ScoreDoc]
    range: RangeReportDoc
    kinds: list[KindScoreDoc] = []
    seconds: float
