"""Figures of a bulletin's parts: headline and key figures, months, years, homes, what lenders' form works out."""

from __future__ import annotations

import datetime as dt
from collections.abc import Sequence

import numpy as np

from ...core.facts.dates import add_months, day_of
from ...core.market import market_conditions
from ...core.market import measures as mk
from ...core.market.bulletin import bulletin
from ...core.market.bulletin import bulletin_sections as sections
from ...core.market.view_reading import shown
from ...core.phrases import phrase
from ...documents.base import Doc, Worded
from ...store.records import series as store_series
from ..market.closer_looks import RecordDoc, records_of
from ..market.views import ChangeDoc, PointDoc, change_doc, kind_words, label_of, place_words
from .market_at import MarketAt, MonthDoc, month_doc, point_doc, told

YEARS, SPARK, HOMES = 4, 24, 6
KEY_FIGURES = ("median_price", "closings", "median_days", "months_of_supply", "same_home_price", "median_share_of_list")
MONTHS_OF = {
    "prices": ("median_price", "closings"),
    "price_ways": ("median_price", "median_price_per_sqft", "same_home_price"),
    "pace": ("months_of_supply", "median_days"),
    "flow": ("new_listings", "contracts", "closings"),
    "shares": ("median_share_of_list", "median_share_of_original", "share_with_price_cut"),
}  # kind of part → the measures it shows by month
YEAR_FIGURES = ("closings", "median_price", "same_home_price", "median_price_per_sqft", "median_days", "median_share_of_list",
                "median_share_of_original", "new_listings")  # fmt: skip


class KeyFigureDoc(Doc):
    """recent: the value of each of the last months, for a small chart. whole: the same of everywhere, where the view is a part."""

    measure: str
    label: str
    unit: str
    value: PointDoc
    before: PointDoc
    change: ChangeDoc | None
    whole: PointDoc | None
    recent: list[float | None]


class HeadlineDoc(Doc):
    """span: as it follows on "in". where: "detached homes in Lantern Hill". everywhere: what `whole` is of."""

    span: Worded
    where: Worded
    everywhere: Worded
    start: dt.date
    end: dt.date
    headline: Worded
    why: Worded
    pace: Worded
    seller: Worded
    buyer: Worded
    figures: list[KeyFigureDoc]


class OutsideDoc(Doc):
    """An outside series by the months of a chart."""

    name: str
    values: list[float | None]


class MonthsDoc(Doc):
    """where: as HeadlineDoc. labels: measure → label and unit. months: oldest first. rates: an outside series under them.
    supply_months: whose pace months of supply stand on."""

    where: Worded
    sentence: Worded
    labels: dict[str, tuple[str, str]]
    months: list[MonthDoc]
    rates: OutsideDoc | None
    supply_months: int


class YearsDoc(Doc):
    """years: by calendar year, the last as far as the records go."""

    sentence: Worded
    years: list[MonthDoc]
    labels: dict[str, tuple[str, str]]


class HeatDoc(Doc):
    """A measure by year and month: None for a month that is not over, or lies before the records."""

    measure: str
    label: str
    unit: str
    sentence: Worded
    years: dict[int, list[PointDoc | None]]


class HomesDoc(Doc):
    """The newest whole month: how many, and the newest of them. said: how they got here."""

    month: str
    count: int
    homes: list[RecordDoc]


class LineDoc(Doc):
    """A line of lenders' form: its value in each window."""

    label: str
    unit: str
    values: list[PointDoc]
    trend: str


class ConditionsDoc(Doc):
    """windows: first and last day of each, oldest first."""

    where: str
    windows: list[tuple[dt.date, dt.date, int]]
    lines: list[LineDoc]


def headline(at: MarketAt) -> HeadlineDoc:
    f = at.figures
    said = bulletin.sentences(f, kind_words(at.view), place_words(at.view))
    now = at.year[0]
    spans = mk.periods("month", add_months(now.end.replace(day=1), 1 - SPARK), now.end, at.through)
    recent = told(at.market, KEY_FIGURES, spans)
    whole = told(at.of_places(()), KEY_FIGURES, [now])[0] if at.everywhere else None
    return HeadlineDoc(
        span=f.span, where=at.where, everywhere=at.everywhere, start=now.start, end=now.end,
        pace=" ".join(x for x in (sections.days(f), sections.shares(f)) if x),
        **{k: getattr(said, k) for k in ("headline", "why", "seller", "buyer")},
        figures=[
            KeyFigureDoc(
                measure=name, label=label_of(at.records, name)[0], unit=mk.MEASURES[name][0], value=point_doc(f.of(name)), before=point_doc(f.was(name)),
                change=None if f.thin else change_doc(f.of(name).value, f.was(name).value, mk.MEASURES[name][0]),
                whole=None if whole is None else point_doc(whole.values[name]),
                recent=[p.values[name].value for p in recent],
            )
            for name in KEY_FIGURES
        ],
    )  # fmt: skip


def months(at: MarketAt, kind: str) -> MonthsDoc:
    """The measures of a kind of part by month over the last years, with its sentence."""
    say = {
        "prices": sections.prices,
        "pace": sections.pace,
        "flow": sections.flow,
        "shares": sections.shares,
    }
    rates = _rates(at) if kind == "prices" else None
    return _months(at, MONTHS_OF[kind], say[kind](at.figures) if kind in say else "", rates)


def all_months(at: MarketAt) -> MonthsDoc:
    """Every measure that a part shows by month."""
    names = tuple(dict.fromkeys(name for names in MONTHS_OF.values() for name in names))
    return _months(at, (*names, "for_sale"), "", _rates(at))


def _spans(at: MarketAt) -> list[mk.Period]:
    return mk.periods("month", add_months(at.through.replace(day=1), 1 - 12 * YEARS), at.through, at.through)


def _months(at: MarketAt, names: Sequence[str], sentence: str, rates: OutsideDoc | None) -> MonthsDoc:
    points = told(at.market, names, _spans(at))
    labels = {name: label_of(at.records, name) for name in names}
    return MonthsDoc(
        where=at.where, sentence=sentence, labels=labels, months=[month_doc(p) for p in points], rates=rates,
        supply_months=at.records.columns.rules.supply_months,
    )  # fmt: skip


def _rates(at: MarketAt) -> OutsideDoc | None:
    """The view's own outside series, else the records' series of interest rates, by month; None where there is none."""
    known = store_series.names(at.records.db)
    name = at.view.series or next((n for n in known if "mortgage" in n.lower() or "interest" in n.lower()), "")
    if name not in known:
        return None
    held = [(day_of(dt.date.fromisoformat(d)), v) for d, v in store_series.values(at.records.db, name)]
    days, x = np.array([d for d, _ in held]), np.array([v for _, v in held])
    values: list[float | None] = []
    for s in _spans(at):
        part = x[(days >= day_of(s.start)) & (days <= day_of(min(s.end, at.through)))]
        values.append(float(part.mean()) if part.size else None)
    return OutsideDoc(name=name, values=values) if any(v is not None for v in values) else None


def years(at: MarketAt) -> YearsDoc:
    """Three calendar years beside each other; the median told apart from the price of the same home."""
    first = dt.date(at.through.year - 2, 1, 1)
    by_year = told(at.market, YEAR_FIGURES, mk.periods("year", first, at.through, at.through))
    whole = [(p.period.start.year, p.values) for p in by_year if p.period.finished]
    labels = {name: label_of(at.records, name) for name in YEAR_FIGURES}
    return YearsDoc(sentence=sections.years(whole), years=[month_doc(p) for p in by_year], labels=labels)


def heat(at: MarketAt, measure: str, back: int = 3) -> HeatDoc:
    """A measure by month over so many calendar years."""
    first = dt.date(at.through.year + 1 - back, 1, 1)
    points = told(at.market, (measure,), mk.periods("month", first, at.through, at.through))
    grid: dict[int, list[PointDoc | None]] = {first.year + i: [None] * 12 for i in range(back)}
    done = [p for p in points if p.period.finished]
    for p in done:
        grid[p.period.start.year][p.period.start.month - 1] = point_doc(p.values[measure])
    label, unit = label_of(at.records, measure)
    values = [(p.period.start, p.values[measure]) for p in done]
    words = ["" if v.value is None else shown(v.value, unit) for _, v in values]
    return HeatDoc(
        measure=measure, label=label, unit=unit, sentence=sections.months(values, words, not unit), years=grid
    )


def sold_lately(at: MarketAt) -> HomesDoc:
    """What closed in the newest whole month, the newest first."""
    return _homes(at, "closings", "close")


def came_on_lately(at: MarketAt) -> HomesDoc:
    """What came on for the first time in the newest whole month, the newest first."""
    return _homes(at, "new_listings", "start")


def _homes(at: MarketAt, measure: str, dates: str) -> HomesDoc:
    end = at.year[0].end
    start = end.replace(day=1)
    (point,) = told(at.market, (measure,), [mk.Period("month", start, end, True)])
    rows = at.market.within(dates, day_of(start), day_of(end))
    if dates == "start":
        rows = rows[~at.market.book.back[rows]]
    days = (at.records.columns.close if dates == "close" else at.market.book.start)[rows]
    newest = rows[np.argsort(-days.astype(np.int64), kind="stable")][:HOMES]
    return HomesDoc(
        month=f"{end:%B %Y}",
        count=int(point.values[measure].value or 0),
        homes=records_of(at.records, newest, day_of(end)),
    )


def conditions(at: MarketAt) -> ConditionsDoc:
    """The arithmetic of lenders' published form over three windows back from the last day."""
    of = market_conditions.conditions(at.market, at.through)
    only = at.market.closings_only
    lines = [
        LineDoc(
            label=phrase(f"conditions-line-{name}"),
            unit=unit,
            values=[point_doc(w[name]) for w in of],
            trend=market_conditions.trend(name, of),
        )
        for name, unit in market_conditions.LINES.items()
        if not (only and name in ("listings", "supply", "list_price", "listing_days"))
    ]
    spans = [(w.start, w.end, w.months) for w in market_conditions.windows(at.through)]
    return ConditionsDoc(where=at.where, windows=spans, lines=lines)
