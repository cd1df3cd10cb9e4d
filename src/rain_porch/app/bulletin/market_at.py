"""The market of a view as it stood on a day: what the parts of a bulletin read."""

from __future__ import annotations

import datetime as dt
from collections.abc import Sequence
from dataclasses import dataclass
from functools import cached_property

from ...core.facts.dates import month_said
from ...core.market import measures as mk
from ...core.market.bulletin import bulletin
from ...core.market.view_reading import twelve_months
from ...core.memo import Memo
from ...core.phrases import phrase
from ...documents.base import Doc
from ..market.views import PointDoc, ViewDoc, first_places, kind_words, market_of, place_words
from ..snapshot import Snapshot

NOTHING = mk.Value(None, 0)


class MonthDoc(Doc):
    period: str
    finished: bool
    values: dict[str, PointDoc]


@dataclass(frozen=True)
class MarketAt:
    """through: the last day that is seen."""

    records: Snapshot
    view: ViewDoc
    through: dt.date

    @cached_property
    def market(self) -> mk.Market:
        return market_of(self.records, self.view, first_places(self.view), through=self.through)

    def of_places(self, places: Sequence[str]) -> mk.Market:
        """The same kind of home in other places; none for everywhere, without the view's shapes."""
        return self._others.get(tuple(places), lambda: self._of_places(places))

    @cached_property
    def _others(self) -> Memo:
        return Memo(32)

    def _of_places(self, places: Sequence[str]) -> mk.Market:
        view = self.view if places else self.view.model_copy(update={"shapes": [], "drawn": ""})
        return market_of(self.records, view, places, through=self.through)

    @cached_property
    def year(self) -> tuple[mk.Period, mk.Period]:
        """The newest twelve whole months, and the twelve before them."""
        return twelve_months(self.through)

    @cached_property
    def figures(self) -> bulletin.Figures:
        return self.figures_of(self.market)

    def figures_of(self, market: mk.Market) -> bulletin.Figures:
        before, now = (dict(p.values) for p in told(market, bulletin.FIGURES, [*reversed(self.year)]))
        return bulletin.Figures(now, before, self.span, self.records.columns.rules)

    @property
    def span(self) -> str:
        """ "the 12 months to October 2026"."""
        return phrase("the-12-months-to", month=month_said(self.year[0].end))

    @property
    def where(self) -> str:
        """ "detached homes in Lantern Hill"."""
        return f"{kind_words(self.view)} {place_words(self.view)}".strip()

    @property
    def everywhere(self) -> str:
        """What the view's place is set beside: "" where it is everywhere itself."""
        return phrase("view-everywhere") if self.view.places or self.view.shapes else ""


def told(market: mk.Market, names: Sequence[str], spans: Sequence[mk.Period]) -> list[mk.Point]:
    """Measures in spans; of records of closings alone nothing is told of what was for sale."""
    points = mk.series(market, names, spans)
    if not market.closings_only:
        return points
    blank = {name: NOTHING for name in names if name in bulletin.LISTED}
    return [mk.Point(p.period, {**p.values, **blank}) for p in points]


def point_doc(value: mk.Value) -> PointDoc:
    return PointDoc(value=value.value, n=value.n)


def month_doc(point: mk.Point) -> MonthDoc:
    values = {k: point_doc(v) for k, v in point.values.items()}
    return MonthDoc(period=point.period.name, finished=point.period.finished, values=values)
