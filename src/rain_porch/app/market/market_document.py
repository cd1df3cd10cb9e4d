"""Measures over periods, as the document that the command line prints and the interface reads."""

from __future__ import annotations

import datetime as dt
from collections.abc import Sequence

import numpy as np

from ...core.errors import BadInput
from ...core.facts.dates import day_of
from ...core.facts.places.place import miles
from ...core.market import measures as mk
from ...core.market.conditions import condition_mask, read_condition
from ...documents import market as d
from ..snapshot import Snapshot


def market_doc(
    records: Snapshot,
    measures: Sequence[str],
    by: str,
    start: dt.date | None,
    end: dt.date | None,
    area: str | None = None,
    where: Sequence[str] = (),
    years: int = 5,
    deeds: bool = False,
    near: tuple[float, float, float] | None = None,
) -> d.MarketDoc:
    """Measures over periods; without dates the last `years` up to the records' newest day, rolling. near: latitude, longitude and
    miles around it."""
    through = records.through()
    end = end or through
    spans = mk.periods(by, start, end, through) if start else mk.last_years(by, years, end, through)
    if len(spans) > 1200:
        raise BadInput("from", f"{len(spans):,} periods are more than 1,200: choose a later start or longer periods.")
    columns = records.columns
    chosen = np.ones(len(columns), dtype=np.bool_)
    mask = records.area_mask((area,) if area else ())
    if mask is not None:
        chosen &= mask
    if near is not None:
        chosen &= miles(near[0], near[1], columns.lats, columns.lons) <= near[2]
    for text in where:
        chosen &= condition_mask(read_condition(text), columns)
    rows = np.flatnonzero(chosen)
    points = mk.series(mk.Market(columns, rows, day_of(through), deeds), measures, spans)
    return d.MarketDoc(
        measures=list(measures),
        periods=[
            d.PeriodDoc(
                period=p.period.name,
                start=p.period.start,
                end=p.period.end,
                finished=p.period.finished,
                values={k: d.ValueDoc(value=v.value, n=v.n) for k, v in p.values.items()},
            )
            for p in points
        ],
    )
