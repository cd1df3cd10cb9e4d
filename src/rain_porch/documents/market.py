"""Measures of the market by period, as documents."""

from __future__ import annotations

import datetime as dt

from .base import Doc


class ValueDoc(Doc):
    value: float | None
    n: int


class PeriodDoc(Doc):
    period: str
    start: dt.date
    end: dt.date
    finished: bool
    values: dict[str, ValueDoc]


class MarketDoc(Doc):
    measures: list[str]
    periods: list[PeriodDoc]
