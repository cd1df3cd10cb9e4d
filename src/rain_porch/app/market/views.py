"""Market views: what is asked as one small document, answered as lines over periods, with a sentence."""

from __future__ import annotations

import datetime as dt
import itertools
from collections.abc import Sequence
from typing import ClassVar, Literal

import numpy as np
from pydantic import Field

from ...core.errors import BadInput, NotFound
from ...core.facts.dates import add_months, day_of, month_name, month_said, period_said
from ...core.facts.words import SELLERS, HomeKind, home_plural
from ...core.market import measures as mk
from ...core.market.bands import bands
from ...core.market.columns import HOME_KINDS, Bools
from ...core.market.conditions import condition_mask, read_condition, values_of
from ...core.market.lacking import lacking
from ...core.market.view_reading import Told, sentence, trailing, twelve_months
from ...core.phrases import joined, listed, phrase
from ...core.search.shapes import check_shapes, in_shapes
from ...documents.base import Doc, StoredDoc, Worded
from ...documents.search import ShapeDoc
from ...store.records import series as store_series
from ..snapshot import Snapshot

MOST_LINES = 6


class ViewDoc(StoredDoc):
    """A market view. It names no dates: it always ends with the newest records, `years` back.

    places: areas to compare, none for all of the records. shapes: drawn areas, or circles round a home, to stay inside,
    named in `drawn`. split: bands of the first place as lines of their own. smooth: mean of so many periods. overlay:
    years as lines of their own, months alike. series: an outside series laid over it. deeds: deed sales count as closings.
    together: the places are one market, not lines to compare. whole: a line of everywhere beside them.
    """

    form: ClassVar[str] = "market view"

    measures: list[str] = Field(default=["median_price"], min_length=1, max_length=2)
    by: Literal["month", "quarter", "year"] = "month"
    years: int = Field(default=5, ge=1, le=30)
    places: list[str] = Field(default=[], max_length=MOST_LINES)
    together: bool = False
    whole: bool = False
    shapes: list[ShapeDoc] = Field(default=[], max_length=20)
    drawn: str = Field(default="", max_length=100)
    home_kind: str = ""
    where: list[str] = Field(default=[], max_length=20)
    split: Literal["", "living_area", "price", "year_built", "lot_size_square_feet", "seller"] = ""
    deeds: bool = False
    smooth: Literal[1, 3, 12] = 1
    overlay: bool = False
    series: str = ""


class PointDoc(Doc):
    value: float | None
    n: int


class ViewLineDoc(Doc):
    """One line of a view; the measure is "series" for an outside one; axis 0 left, 1 right, 2 a scale of its own that is
    not drawn.

    alone: the measure's name without what it is the mean of. part: the line's own name, where there are several; place, where: what of the view's market it shows; whole: everywhere.
    """

    name: str
    measure: str
    label: str
    alone: str
    unit: str
    axis: int
    points: list[PointDoc | None]
    part: str = ""
    place: str = ""
    whole: bool = False
    where: list[str] = Field(default=[])


class ChangeDoc(Doc):
    """A change on the year, in percent, or in points where the measure is a share."""

    size: float
    unit: str
    words: Worded


def change_doc(now: float | None, before: float | None, unit: str) -> ChangeDoc | None:
    change = mk.change_of(now, before, unit)
    return None if change is None else ChangeDoc(size=change.size, unit=change.unit, words=change.words)


class PeriodNameDoc(Doc):
    period: str
    start: dt.date
    end: dt.date
    finished: bool


class NamedFigureDoc(Doc):
    """One of several figures that bear a measure's name. over: of what it is, "the 12 months to October 2026"."""

    over: Worded
    value: PointDoc


class ViewAnswerDoc(Doc):
    """figures: the first measure's figures that this view shows, told apart."""

    periods: list[PeriodNameDoc]
    lines: list[ViewLineDoc]
    through: dt.date
    sentence: Worded
    notes: list[Worded]
    newest: float | None
    newest_over: Worded
    change: ChangeDoc | None
    figures: list[NamedFigureDoc]


class SoFarRow(Doc):
    measure: str
    label: str
    unit: str
    now: PointDoc
    before: PointDoc
    earlier: PointDoc
    change: ChangeDoc | None


class SoFarDoc(Doc):
    """This year to `end`, against the same days of the year before and of the one before that; change: on the year."""

    end: dt.date
    rows: list[SoFarRow]


def first_places(doc: ViewDoc) -> tuple[str, ...]:
    """The places of a view's own market: its first, or all of them where they are one; none for everywhere."""
    return tuple(doc.places if doc.together else doc.places[:1])


def chosen_rows(records: Snapshot, doc: ViewDoc, places: Sequence[str]) -> Bools:
    """Rows in any of some of a view's places (none for everywhere), of its kind, inside its shapes, fitting its conditions."""
    columns = records.columns
    chosen = np.ones(len(columns), dtype=np.bool_)
    if (mask := records.area_mask(tuple(places))) is not None:
        chosen &= mask
    if doc.shapes:
        shapes = [s.shape() for s in doc.shapes]
        check_shapes(shapes, ())
        chosen &= in_shapes(shapes, columns.lats, columns.lons)
    if doc.home_kind:
        if doc.home_kind not in HOME_KINDS:
            raise BadInput("home_kind", f"“{doc.home_kind}” is no kind of home: use one of {', '.join(HOME_KINDS)}.")
        chosen &= columns.home_kind == HOME_KINDS.index(HomeKind(doc.home_kind))
    for text in doc.where:
        chosen &= condition_mask(read_condition(text), columns)
    return chosen


def market_of(
    records: Snapshot, doc: ViewDoc, places: Sequence[str], also: Sequence[str] = (), through: dt.date | None = None
) -> mk.Market:
    """The market of some places of a view, or of the part of it that fits further conditions. through: as it stood then."""
    asked = doc.model_copy(update={"where": [*doc.where, *also]}) if also else doc
    rows = np.flatnonzero(chosen_rows(records, asked, places))
    return mk.Market(records.columns, rows, day_of(through or records.through()), doc.deeds)


def kind_words(doc: ViewDoc) -> str:
    """What a view looks at, in many: "detached homes"."""
    return home_plural(doc.home_kind) if doc.home_kind else phrase("homes-alone")


def place_words(doc: ViewDoc) -> str:
    """Where a view looks, as it follows on "homes": "in Lantern Hill and Quarry Bend", "within 1 mi of 14 Ferry Lane"."""
    inside = (doc.drawn or phrase("search-inside-drawn", n=1)) if doc.shapes else ""
    named = list(first_places(doc))
    return joined(phrase("view-in-places", places=listed(named)) if named else "", inside)


Part = tuple[str, tuple[str, ...], list[str]]  # of a view: its name, its places, further conditions


def _parts(records: Snapshot, doc: ViewDoc) -> list[Part]:
    """The lines: places side by side, or bands of the first; everywhere after them where that is asked for."""
    whole: list[Part] = [(phrase("view-everywhere"), (), [])] if doc.whole and doc.places else []
    if not doc.split:
        if doc.together or not doc.places:
            return [(" and ".join(doc.places), first_places(doc), []), *whole]
        named: list[Part] = [(place, (place,), []) for place in doc.places]
        return [*named, *whole]
    places = first_places(doc)
    if doc.split == "seller":
        return [(who, places, [f"seller = {who}"]) for who in SELLERS]
    columns = records.columns
    inside = chosen_rows(records, doc, places) & ~columns.lease & ~columns.not_arms_length
    made = bands(doc.split, values_of(columns, doc.split)[inside])
    return [(band.label, places, band.conditions(doc.split)) for band in made]


def _spans(doc: ViewDoc, through: dt.date) -> list[mk.Period]:
    if doc.overlay:
        return mk.periods(doc.by, dt.date(through.year - doc.years + 1, 1, 1), through, through)
    return mk.last_years(doc.by, doc.years, through, through)


def _before(doc: ViewDoc, spans: list[mk.Period]) -> list[mk.Period]:
    """The periods before the first that smoothing looks back to."""
    back = {"month": 1, "quarter": 3, "year": 12}[doc.by] * (doc.smooth - 1)
    first = spans[0].start
    return mk.periods(doc.by, add_months(first, -back), first - dt.timedelta(days=1), first) if back else []


def answer(records: Snapshot, doc: ViewDoc, through: dt.date | None = None) -> ViewAnswerDoc:
    """Lines, sentence, newest value and its change on the year. through: as it all stood then, else the newest records."""
    through = through or records.through()
    key = ("view", through, doc.model_dump_json())
    return records.tables.get(key, lambda: _answer(records, doc, through))


def _answer(records: Snapshot, doc: ViewDoc, through: dt.date) -> ViewAnswerDoc:
    spans = _spans(doc, through)
    lead = _before(doc, spans)  # so that smoothing starts with whole windows
    lines: list[ViewLineDoc] = []
    for part, places, also in _parts(records, doc):
        points = mk.series(market_of(records, doc, places, also, through), doc.measures, [*lead, *spans])
        for axis, name in enumerate(doc.measures):
            values = trailing([p.values[name] for p in points], doc.smooth)[len(lead) :]
            alone, unit = label_of(records, name)
            label = phrase(f"view-mean-of-{doc.by}s", label=alone, n=doc.smooth) if doc.smooth > 1 else alone
            shown = [PointDoc(value=v.value, n=v.n) for v in values]
            title = " · ".join(x for x in (part, label if len(doc.measures) > 1 or not part else "") if x)
            lines.append(
                ViewLineDoc(
                    name=title,
                    measure=name,
                    label=label,
                    alone=alone,
                    unit=unit,
                    axis=axis,
                    points=list(shown),
                    part=part,
                    place="" if doc.together or not places else places[0],
                    whole=part == phrase("view-everywhere"),
                    where=also,
                )
            )
    periods = [PeriodNameDoc(period=s.name, start=s.start, end=s.end, finished=s.finished) for s in spans]
    if doc.overlay:
        periods, lines = _overlaid(doc, periods, lines)
    elif doc.series:
        lines.append(_outside(records, doc.series, spans, axis=len(doc.measures)))
    told = _told(records, doc, through)
    end = twelve_months(through)[0].end
    return ViewAnswerDoc(
        periods=periods,
        lines=lines,
        through=through,
        notes=_notes(records, doc, spans, through),
        figures=_figures(doc, told, lines, periods),
        sentence=sentence(told, kind_words(doc), place_words(doc), end, doc.deeds),
        newest=told.now.value,
        newest_over=phrase(
            "view-at-the-end-of" if told.measure in mk.AT_THE_END else "view-12-months-to",
            month=month_name(end.month),
            year=str(end.year),
        ),
        change=change_doc(told.now.value, told.before.value, told.unit),
    )


def _figures(
    doc: ViewDoc, told: Told, lines: Sequence[ViewLineDoc], periods: Sequence[PeriodNameDoc]
) -> list[NamedFigureDoc]:
    """Of a measure that is no count, of one market: the year's figure, the newest whole period's, and the mean of periods."""
    if told.unit == "" or doc.overlay or doc.split or told.measure in mk.AT_THE_END or told.now.value is None:
        return []
    newest = next((i for i in range(len(periods) - 1, -1, -1) if periods[i].finished), None)
    point = None if newest is None else lines[0].points[newest]
    out = [NamedFigureDoc(over=phrase("view-the-12-months"), value=PointDoc(value=told.now.value, n=told.now.n))]
    if newest is None or point is None or point.value is None or doc.by == "year":
        return out
    named = period_said(periods[newest].period) if doc.by == "quarter" else month_said(periods[newest].start)
    over = (
        phrase(f"view-mean-of-{doc.by}s-to", n=doc.smooth, last=named)
        if doc.smooth > 1
        else phrase("view-alone", period=named)
    )
    return [*out, NamedFigureDoc(over=over, value=point)]


def _notes(records: Snapshot, doc: ViewDoc, spans: list[mk.Period], through: dt.date) -> list[str]:
    """How values are smoothed, and what the first place's records lack that the view's measures need."""
    market = market_of(records, doc, first_places(doc), through=through)
    smoothed = [phrase(f"view-note-mean-of-{doc.by}s", n=doc.smooth - 1)] if doc.smooth > 1 else []
    return [*smoothed, *lacking(market, doc.measures, spans[0].start, spans[-1].end)]


def _overlaid(
    doc: ViewDoc, periods: list[PeriodNameDoc], lines: list[ViewLineDoc]
) -> tuple[list[PeriodNameDoc], list[ViewLineDoc]]:
    """The first line's years as lines of their own over the periods of one year."""
    if doc.by == "year":
        raise BadInput("overlay", "Years are laid over each other by month or quarter: choose one of these.")
    by_year = {y: list(g) for y, g in itertools.groupby(range(len(periods)), lambda i: periods[i].start.year)}
    most = max(by_year.values(), key=len)
    names = [periods[i].model_copy(update={"period": periods[i].period[5:]}) for i in most]
    place = {periods[i].period[5:]: k for k, i in enumerate(most)}
    out = []
    for year, rows in list(by_year.items())[-MOST_LINES:]:
        points: list[PointDoc | None] = [None] * len(names)
        for i in rows:
            points[place[periods[i].period[5:]]] = lines[0].points[i]
        out.append(lines[0].model_copy(update={"name": str(year), "part": str(year), "points": points}))
    return [n.model_copy(update={"finished": True}) for n in names], out


def _outside(records: Snapshot, name: str, spans: list[mk.Period], axis: int) -> ViewLineDoc:
    """An outside series, averaged over each period."""
    values = store_series.values(records.db, name)
    if not values:
        known = ", ".join(store_series.names(records.db)) or "none yet"
        raise NotFound(f"There is no series “{name}” in the records: there are {known}.", name=name)
    days = np.array([day_of(dt.date.fromisoformat(d)) for d, _ in values])
    x = np.array([v for _, v in values])
    points: list[PointDoc | None] = []
    for s in spans:
        part = x[(days >= day_of(s.start)) & (days <= day_of(s.end))]
        points.append(PointDoc(value=float(part.mean()), n=int(part.size)) if part.size else None)
    return ViewLineDoc(name=name, measure="series", label=name, alone=name, unit="series", axis=axis, points=points)


def _told(records: Snapshot, doc: ViewDoc, through: dt.date) -> Told:
    name = doc.measures[0]
    wanted = list(dict.fromkeys([name, "closings", "for_sale", "months_of_supply"]))
    market = market_of(records, doc, first_places(doc), through=through)
    now, before = (p.values for p in mk.series(market, wanted, list(twelve_months(through))))
    label, unit = label_of(records, name)
    there = mk.Value(None, 0) if market.closings_only else now["for_sale"]
    return Told(
        name, label, unit, now[name], before[name], now["closings"], before["closings"], there, now["months_of_supply"].value,
        records.columns.rules,
    )  # fmt: skip


def label_of(records: Snapshot, measure: str) -> tuple[str, str]:
    """How a measure is called by the house's rules, and its unit."""
    return mk.measure_label(measure, records.columns.rules), mk.MEASURES[measure][0]


def year_so_far(records: Snapshot, doc: ViewDoc, through: dt.date | None = None) -> SoFarDoc:
    """All measures of this year to the newest day, against the same days of last year."""
    through = through or records.through()
    spans = mk.periods("ytd", dt.date(through.year - 2, 1, 1), through, through)
    names = list(mk.MEASURES)
    earlier, before, now = mk.series(market_of(records, doc, first_places(doc), through=through), names, spans)
    rows = []
    for name in names:
        a, b, c = now.values[name], before.values[name], earlier.values[name]
        label, unit = label_of(records, name)
        rows.append(
            SoFarRow(measure=name, label=label, unit=unit, now=PointDoc(value=a.value, n=a.n),
                     before=PointDoc(value=b.value, n=b.n), earlier=PointDoc(value=c.value, n=c.n), change=change_doc(a.value, b.value, unit))
        )  # fmt: skip
    return SoFarDoc(end=through, rows=rows)
