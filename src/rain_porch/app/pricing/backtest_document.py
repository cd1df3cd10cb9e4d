"""How well past sales were priced, as the document that the command line prints."""

from __future__ import annotations

import dataclasses

from ...documents import backtests as d
from .backtesting import BacktestResult


def backtest_doc(result: BacktestResult) -> d.BacktestDoc:
    return d.BacktestDoc(
        start=result.start,
        end=result.end,
        subjects=len(result.cases),
        skipped=result.skipped,
        methods={name: d.ScoreDoc(**dataclasses.asdict(s)) for name, s in result.methods.items()},
        range=d.RangeReportDoc(**dataclasses.asdict(result.range)),
        kinds=[d.KindScoreDoc(**dataclasses.asdict(k)) for k in result.kinds],
        seconds=round(result.seconds, 2),
    )
