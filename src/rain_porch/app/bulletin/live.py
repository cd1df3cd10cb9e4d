"""The parts of a bulletin as the market's screen shows them, and what lies behind one of their figures."""

from __future__ import annotations

from pydantic import Field

from ...core.errors import BadInput
from ...core.market import measures as mk
from ...core.market.bulletin.figure_records import values_behind
from ...core.market.value_spread import spread
from ...documents.base import Doc
from ..market.closer_looks import SHOWN, BehindAsk, RecordDoc, asked_figure, records_of
from ..market.views import PointDoc, ViewDoc
from ..snapshot import Snapshot
from .figures import HeadlineDoc, HeatDoc, MonthsDoc, all_months, headline, heat
from .market_at import MarketAt
from .places import PlacesDoc, places


class GlanceDoc(Doc):
    """The market of a view at one look, as its bulletin tells it. places: beside each other, with their outlines."""

    headline: HeadlineDoc
    months: MonthsDoc
    places: PlacesDoc


class HeatAsk(Doc):
    view: ViewDoc
    measure: str
    years: int = Field(default=5, ge=2, le=20)


class BinDoc(Doc):
    low: float
    high: float
    n: int


class ValueSpreadDoc(Doc):
    """values: each record's own, in the order of the records (at most 500, the highest first)."""

    label: str
    unit: str
    value: PointDoc
    bins: list[BinDoc]
    values: list[float]
    records: list[RecordDoc]


def glance(records: Snapshot, view: ViewDoc) -> GlanceDoc:
    at = MarketAt(records, view, records.through())
    key = ("glance", at.through, view.model_dump_json())
    return records.tables.get(key, lambda: GlanceDoc(headline=headline(at), months=all_months(at), places=places(at)))


def month_heat(records: Snapshot, ask: HeatAsk) -> HeatDoc:
    if ask.measure not in mk.MEASURES:
        raise BadInput("measure", f"“{ask.measure}” is no measure: use one of {', '.join(mk.MEASURES)}.")
    return heat(MarketAt(records, ask.view, records.through()), ask.measure, ask.years)


def value_spread(records: Snapshot, ask: BehindAsk) -> ValueSpreadDoc:
    """The values from which a mean or median was made, in bins, with the records. Raises BadInput for a measure that is neither."""
    of = asked_figure(records, ask)
    rows, values = values_behind(of.market, ask.measure, of.start, of.end)
    order = (-values).argsort(kind="stable")[:SHOWN]
    by_key = {r.listing_id: r for r in records_of(records, rows[order], of.end)}
    keys = [str(records.columns.keys[r]) for r in rows[order]]
    return ValueSpreadDoc(
        label=of.label, unit=of.unit, value=of.value,
        bins=[BinDoc(low=b.low, high=b.high, n=b.n) for b in spread(values)],
        values=[float(v) for v in values[order]], records=[by_key[k] for k in keys],
    )  # fmt: skip
