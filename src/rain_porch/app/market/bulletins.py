"""Parts of a bulletin beyond views: headline and key figures, prices over the years, pace, places beside each other, years, what sold."""

from __future__ import annotations

import datetime as dt
from collections.abc import Sequence
from typing import Any, Literal

import numpy as np

from ...core.facts.dates import add_months, day_of
from ...core.market import bulletin
from ...core.market import measures as mk
from ...core.market.view_reading import twelve_months
from ...documents.base import Doc
from ..snapshot import Snapshot
from .closer_looks import RecordDoc, records_of
from .views import ChangeDoc, PointDoc, ViewDoc, change_doc, kind_words, market_of, place_words

YEARS, SPARK, PLACES, SOLD = 4, 24, 24, 6
KEY_FIGURES = ("median_price", "closings", "median_days", "months_of_supply")
PLACE_FIGURES = ("closings", "median_price", "same_home_price", "median_days", "months_of_supply")
YEAR_FIGURES = ("closings", "median_price", "same_home_price", "median_price_per_sqft", "median_days", "median_share_of_list",
                "median_share_of_original", "new_listings")  # fmt: skip


class KeyFigureDoc(Doc):
    """recent: the value of each of the last months, for a small chart."""

    measure: str
    label: str
    unit: str
    value: PointDoc
    before: PointDoc
    change: ChangeDoc | None
    recent: list[float | None]


class HeadlineDoc(Doc):
    """span: as it follows on "in". where: "detached homes in Lantern Hill"."""

    span: str
    where: str
    headline: str
    why: str
    pace: str
    seller: str
    buyer: str
    figures: list[KeyFigureDoc]


class MonthDoc(Doc):
    period: str
    finished: bool
    values: dict[str, PointDoc]


class MonthsDoc(Doc):
    """where: as HeadlineDoc. months: oldest first."""

    where: str
    pace: str
    months: list[MonthDoc]


class PlaceDoc(Doc):
    """change: of the median price on the year; None where too few sold to say. rings: its outline, (longitude, latitude)."""

    place: str
    values: dict[str, PointDoc]
    change: ChangeDoc | None
    rings: list[list[list[float]]]


class PlacesDoc(Doc):
    span: str
    places: list[PlaceDoc]
    whole: PlaceDoc


class YearsDoc(Doc):
    """years: by calendar year, the last as far as the records go. months: closings by month of each year."""

    years: list[MonthDoc]
    labels: dict[str, tuple[str, str]]
    closings: dict[int, list[int | None]]


class SoldDoc(Doc):
    """The newest whole month: how many sold and came on, and the newest that sold."""

    month: str
    sold: int
    listed: int
    homes: list[RecordDoc]


def where_of(view: ViewDoc) -> str:
    """ "detached homes in Lantern Hill"."""
    return f"{kind_words(view)} {place_words(view)}".strip()


def _market(records: Snapshot, view: ViewDoc, place: str | None = None) -> mk.Market:
    return market_of(records, view, (view.places[0] if view.places else "") if place is None else place)


def figures_of(market: mk.Market, through: dt.date) -> bulletin.Figures:
    now, before = twelve_months(through)
    a, b = (dict(p.values) for p in mk.series(market, bulletin.FIGURES, [now, before]))
    if market.closings_only:
        for values in (a, b):
            for name in bulletin.LISTED:
                values.pop(name, None)
    return bulletin.Figures(a, b, _span_words(now))


def _span_words(span: mk.Period) -> str:
    """ "the 12 months to October 2026"."""
    return f"the 12 months to {span.end:%B %Y}"


def headline(records: Snapshot, view: ViewDoc) -> HeadlineDoc:
    through = records.through()
    market = _market(records, view)
    f = figures_of(market, through)
    told = bulletin.sentences(f, kind_words(view), place_words(view))
    end = twelve_months(through)[0].end
    spans = mk.periods("month", add_months(end.replace(day=1), 1 - SPARK), end, through)
    recent = mk.series(market, KEY_FIGURES, spans)
    return HeadlineDoc(
        span=f.span, where=where_of(view), **{k: getattr(told, k) for k in ("headline", "why", "pace", "seller", "buyer")},
        figures=[
            KeyFigureDoc(
                measure=name, label=mk.MEASURES[name][0], unit=mk.MEASURES[name][1], value=_point(f.of(name)), before=_point(f.was(name)),
                change=None if f.thin else change_doc(f.of(name).value, f.was(name).value, mk.MEASURES[name][1]),
                recent=[p.values[name].value for p in recent],
            )
            for name in KEY_FIGURES
        ],
    )  # fmt: skip


def months(records: Snapshot, view: ViewDoc) -> MonthsDoc:
    """Prices, closings, supply and days by month over the last years."""
    through = records.through()
    start = add_months(through.replace(day=1), 1 - 12 * YEARS)
    market = _market(records, view)
    names = ("median_price", "closings", "months_of_supply", "median_days", "for_sale", "new_listings")
    points = mk.series(market, names, mk.periods("month", start, through, through))
    told = bulletin.sentences(figures_of(market, through), "homes", "")
    made = [_month(p) for p in points]
    if market.closings_only:
        made = [
            m.model_copy(update={"values": m.values | dict.fromkeys(bulletin.LISTED, PointDoc(value=None, n=0))})
            for m in made
        ]
    return MonthsDoc(where=where_of(view), pace=told.pace, months=made)


def places(records: Snapshot, view: ViewDoc) -> PlacesDoc:
    """The view's places beside each other, else the neighbourhoods of the map; with the whole of them."""
    names = view.places if len(view.places) > 1 else _neighbourhoods(records)
    through = records.through()
    now, before = twelve_months(through)
    out = [p for name in names[:PLACES] if (p := _place(records, view, name, now, before)).values["closings"].value]
    return PlacesDoc(span=_span_words(now), places=out, whole=_place(records, view, "", now, before))


def _neighbourhoods(records: Snapshot) -> list[str]:
    features = records.base_map()["features"]
    return sorted(
        {
            f["properties"]["name"]
            for f in features
            if f["properties"]["kind"] == "neighbourhood" and f["properties"]["name"]
        }
    )


def _place(records: Snapshot, view: ViewDoc, name: str, now: mk.Period, before: mk.Period) -> PlaceDoc:
    a, b = (p.values for p in mk.series(market_of(records, view, name), PLACE_FIGURES, [now, before]))
    few = min(a["closings"].value or 0, b["closings"].value or 0) < mk.SMALL
    change = None if few else change_doc(a["median_price"].value, b["median_price"].value, "$")
    return PlaceDoc(place=name, values={k: _point(v) for k, v in a.items()}, change=change, rings=_rings(records, name))


def _rings(records: Snapshot, name: str) -> list[list[list[float]]]:
    for f in records.base_map()["features"] if name else ():
        if f["properties"]["name"] == name and f["geometry"]["type"] in ("Polygon", "MultiPolygon"):
            parts = f["geometry"]["coordinates"]
            outer = [parts[0]] if f["geometry"]["type"] == "Polygon" else [polygon[0] for polygon in parts]
            return [[[float(x), float(y)] for x, y, *_ in ring] for ring in outer]
    return []


def years(records: Snapshot, view: ViewDoc) -> YearsDoc:
    """Three calendar years beside each other, and closings month by month."""
    through = records.through()
    market = _market(records, view)
    first = dt.date(through.year - 2, 1, 1)
    by_year = mk.series(market, YEAR_FIGURES, mk.periods("year", first, through, through))
    by_month = mk.series(market, ("closings",), mk.periods("month", first, through, through))
    closings: dict[int, list[int | None]] = {first.year + i: [None] * 12 for i in range(3)}
    for p in by_month:
        if p.period.finished:
            closings[p.period.start.year][p.period.start.month - 1] = int(p.values["closings"].value or 0)
    labels = {name: (mk.MEASURES[name][0], mk.MEASURES[name][1]) for name in YEAR_FIGURES}
    return YearsDoc(years=[_month(p) for p in by_year], labels=labels, closings=closings)


def sold_lately(records: Snapshot, view: ViewDoc) -> SoldDoc:
    """What sold in the newest whole month, the newest first, and how many came on."""
    end = twelve_months(records.through())[0].end
    start = end.replace(day=1)
    market = _market(records, view)
    (point,) = mk.series(market, ("closings", "new_listings"), [mk.Period("month", start, end, True)])
    rows = market.within("close", day_of(start), day_of(end))
    newest = rows[np.argsort(-records.columns.close[rows], kind="stable")][:SOLD]
    return SoldDoc(
        month=f"{end:%B %Y}", sold=int(point.values["closings"].value or 0), listed=int(point.values["new_listings"].value or 0),
        homes=records_of(records, newest, day_of(end)),
    )  # fmt: skip


def _point(value: mk.Value) -> PointDoc:
    return PointDoc(value=value.value, n=value.n)


def _month(point: mk.Point) -> MonthDoc:
    return MonthDoc(
        period=point.period.name, finished=point.period.finished, values={k: _point(v) for k, v in point.values.items()}
    )


Ready = Literal["one_page", "four_pages", "year_in_review"]
# layout → its parts: (kind, begins a page)
READY: dict[str, Sequence[tuple[str, bool]]] = {
    "one_page": (("headline", False), ("prices", False), ("sold", False)),
    "four_pages": (("headline", False), ("places", False), ("prices", True), ("bands", False), ("pace", True), ("so_far", False),
                   ("sold", True), ("changed", False)),
    "year_in_review": (("headline", False), ("years", False), ("prices", True), ("bands", False)),
}  # fmt: skip


def ready_parts(layout: Ready, view: ViewDoc) -> list[dict[str, Any]]:
    """The parts of a ready layout for a view, as a bulletin's items."""
    return [{"kind": kind, "view": view, "page_break": begins} for kind, begins in READY[layout]]
