"""Closer looks at a market: the records behind a figure, what changed since a day, size and price bands."""

from __future__ import annotations

import datetime as dt
from collections import Counter
from collections.abc import Sequence
from dataclasses import dataclass

import numpy as np
from pydantic import Field

from ...core.errors import BadInput
from ...core.facts.dates import NO_DAY, date_of, day_of, said
from ...core.market import measures as mk
from ...core.market.bands import bands
from ...core.market.bulletin.figure_records import KINDS, Event, changed_since, event_label, records_behind
from ...core.market.columns import RECORD_KINDS, SOLD, Ints, list_price_at
from ...core.market.conditions import values_of
from ...core.market.listing_facts import days_on_market, price_per_sqft
from ...core.market.view_reading import twelve_months
from ...core.market.worked_measure import worked_measure
from ...core.statistics.summary import known
from ...documents.base import Doc, Worded
from ...store.records.homes import addresses_of
from ..snapshot import Snapshot
from .views import PointDoc, ViewDoc, chosen_rows, first_places, label_of, market_of

SHOWN = 500


class RecordDoc(Doc):
    """A record as it stood on a day: its kind, the day that is its kind's, its price then."""

    listing_id: str
    address: str
    kind: str
    date: dt.date | None
    price: float | None
    list_price: float | None
    price_per_sqft: float | None
    living_area: float | None
    days_on_market: int | None
    latitude: float | None
    longitude: float | None


class BehindAsk(Doc):
    """One figure of a view: its place (or ""), measure and period's days. whole: of everywhere, beside a view's places."""

    view: ViewDoc
    measure: str
    place: str = ""
    whole: bool = False
    start: dt.date
    end: dt.date


class BehindDoc(Doc):
    """count: all there are; records: at most 500 of them, dearest first. worked: the figure's formula with its counts and sums."""

    label: str
    value: PointDoc
    unit: str
    count: int
    records: list[RecordDoc]
    worked: Worded = ""


class ChangeDoc(Doc):
    """price: what was paid at a closing, else what was asked on that day. old, new: of a change of price."""

    date: dt.date
    what: str
    price: float | None
    old: float | None
    new: float | None
    record: RecordDoc


class ChangesAsk(Doc):
    view: ViewDoc
    since: dt.date


class ChangesDoc(Doc):
    """counts: how often each kind of change happened; changes: the newest 500. labels: the kinds in words."""

    since: dt.date
    through: dt.date
    counts: dict[str, int]
    labels: dict[str, str]
    changes: list[ChangeDoc]


class BandsAsk(Doc):
    """living_area, price: the home to be found among the bands, where there is one."""

    view: ViewDoc
    living_area: float | None = Field(default=None, gt=0, lt=1e6)
    price: float | None = Field(default=None, gt=0, lt=1e9)


class BandRow(Doc):
    """values: measure → value and count. mine: the home falls into it. where: the band as conditions of a view."""

    label: Worded
    low: float | None
    high: float | None
    mine: bool
    values: dict[str, PointDoc]
    where: list[str]


class BandsDoc(Doc):
    """The twelve months from `start` to `end`, by size and by price, and what is for sale at their end. labels: measure → label
    and unit."""

    start: dt.date
    end: dt.date
    labels: dict[str, tuple[str, str]]
    size: list[BandRow]
    price: list[BandRow]


@dataclass(frozen=True)
class AskedFigure:
    """A figure that is asked of, with the market that it was taken of; days: of its period, both inside."""

    market: mk.Market
    value: PointDoc
    label: str
    unit: str
    start: int
    end: int


def asked_figure(records: Snapshot, ask: BehindAsk) -> AskedFigure:
    """Of the view's places that are one, of one of them, or of everywhere where none is named. Raises BadInput."""
    if ask.start > ask.end:
        raise BadInput("start", f"{said(ask.start)} lies after {said(ask.end)}: swap the two.")
    together = first_places(ask.view) if ask.view.together and not ask.whole else ()
    market = market_of(records, ask.view, (ask.place,) if ask.place else together)
    (point,) = mk.series(market, [ask.measure], [mk.Period("asked", ask.start, ask.end, True)])
    value = point.values[ask.measure]
    label, unit = label_of(records, ask.measure)
    start, end = day_of(ask.start), min(day_of(ask.end), market.through)
    return AskedFigure(market, PointDoc(value=value.value, n=value.n), label, unit, start, end)


def behind(records: Snapshot, ask: BehindAsk) -> BehindDoc:
    """The records from which one figure of a view was made, as they stood at its period's end."""
    of = asked_figure(records, ask)
    rows = records_behind(of.market, ask.measure, of.start, of.end)
    return BehindDoc(
        label=of.label, unit=of.unit, value=of.value, count=len(rows), records=records_of(records, rows, of.end),
        worked=worked_measure(of.market, ask.measure, of.start, of.end),
    )  # fmt: skip


def changes(records: Snapshot, ask: ChangesAsk, through: dt.date | None = None) -> ChangesDoc:
    """What happened in a view's market since a day."""
    through = through or records.through()
    if ask.since > through:
        raise BadInput("since", f"The records end on {said(through)}: choose that day or an earlier one.")
    market = market_of(records, ask.view, first_places(ask.view), through=through)
    return told_of(records, ask.since, changed_since(market, day_of(ask.since)), through)


def told_of(records: Snapshot, since: dt.date, events: Sequence[Event], through: dt.date | None = None) -> ChangesDoc:
    """Events since a day, newest first, with the records that they happened to as these stand now, or stood then."""
    through = through or records.through()
    counts = Counter(e.what for e in events)
    shown = events[:SHOWN]
    held = {
        r.listing_id: r
        for r in records_of(records, np.array(sorted({e.row for e in shown}), dtype=np.int64), day_of(through))
    }
    keys = records.columns.keys
    return ChangesDoc(
        since=since, through=through, counts={k: counts[k] for k in KINDS if counts[k]}, labels={k: event_label(k) for k in KINDS},
        changes=[
            ChangeDoc(
                date=date_of(e.day), what=e.what, price=_price_then(records, e), old=e.old, new=e.new,
                record=held[str(keys[e.row])],
            )
            for e in shown
            if str(keys[e.row]) in held
        ],
    )  # fmt: skip


def _price_then(records: Snapshot, event: Event) -> float | None:
    columns = records.columns
    if event.what == "closed":
        return known(columns.numbers["close_price"][event.row])
    return known(list_price_at(columns, np.array([event.row], dtype=np.int64), event.day)[0])


SIZE_MEASURES = ("closings", "median_price_per_sqft", "median_price", "for_sale")
PRICE_MEASURES = ("closings", "for_sale", "months_of_supply", "median_days", "median_share_of_list")


def by_bands(records: Snapshot, ask: BandsAsk, through: dt.date | None = None) -> BandsDoc:
    """Price per square foot by size, months of supply by price, over the last twelve whole months."""
    through = through or records.through()
    span, _ = twelve_months(through)
    chosen = chosen_rows(records, ask.view, first_places(ask.view))
    whole = mk.Market(records.columns, np.flatnonzero(chosen), day_of(through), ask.view.deeds)

    def rows(field: str, measures: tuple[str, ...], mine: float | None) -> list[BandRow]:
        values = values_of(records.columns, field)
        recent = whole.within("close", day_of(span.start), day_of(span.end))
        out = []
        for band in bands(field, values[recent]):
            inside = chosen & band.among(values)
            market = mk.Market(records.columns, np.flatnonzero(inside), day_of(through), ask.view.deeds)
            (point,) = mk.series(market, measures, [span])
            told = {m: PointDoc(value=v.value, n=v.n) for m, v in point.values.items()}
            out.append(
                BandRow(
                    label=band.label,
                    low=band.low,
                    high=band.high,
                    mine=mine is not None and band.holds(mine),
                    values=told,
                    where=list(band.conditions(field)),
                )
            )
        return out

    return BandsDoc(
        start=span.start,
        end=span.end,
        labels={m: label_of(records, m) for m in dict.fromkeys((*SIZE_MEASURES, *PRICE_MEASURES))},
        size=rows("living_area", SIZE_MEASURES, ask.living_area),
        price=rows("price", PRICE_MEASURES, ask.price),
    )


def bands_table(told: BandsDoc) -> list[list[object]]:
    """The bands as rows for a file: those of size, then those of price."""
    rows: list[list[object]] = []
    for title, bands_of, measures in (("size", told.size, SIZE_MEASURES), ("price", told.price, PRICE_MEASURES)):
        heads = [", ".join(x for x in told.labels[m] if x) for m in measures]
        rows += (
            [[], [f"by {title}, {told.start} to {told.end}", *heads]]
            if rows
            else [[f"by {title}, {told.start} to {told.end}", *heads]]
        )
        rows += [[r.label, *(r.values[m].value for m in measures)] for r in bands_of]
    return rows


def records_of(records: Snapshot, rows: Ints, day: int, most: int = SHOWN) -> list[RecordDoc]:
    """Records as they stood at the end of `day`, dearest first, so many at most."""
    columns = records.columns
    view = columns.as_of(day)
    price = view.price[rows]
    rows = rows[np.argsort(-np.nan_to_num(price), kind="stable")][:most]
    days = days_on_market(columns, view, rows)
    shown = addresses_of(records.db, [str(columns.keys[r]) for r in rows])

    out = []
    for i, row in enumerate(rows.tolist()):
        key, code = str(columns.keys[row]), int(view.kind[row])
        area = known(columns.numbers["living_area"][row])
        out.append(
            RecordDoc(
                listing_id=key,
                address=shown.get(key, ""),
                kind=RECORD_KINDS[code if code >= 0 else SOLD].value,
                date=None if view.date[row] == NO_DAY else date_of(int(view.date[row])),
                price=known(view.price[row]),
                list_price=known(view.list_price[row]),
                price_per_sqft=None if (p := price_per_sqft(known(view.price[row]), area)) is None else round(p, 2),
                living_area=area,
                days_on_market=None if np.isnan(days[i]) else int(days[i]),
                latitude=known(columns.lats[row]),
                longitude=known(columns.lons[row]),
            )
        )
    return out
