"""The wide model of a kind of home, made once a quarter of days and shared by every home of the kind around."""

from __future__ import annotations

import datetime as dt
from collections.abc import Sequence

import numpy as np

from ...core.facts.dates import date_of, day_of
from ...core.facts.homes import Subject
from ...core.facts.places.place import near_miles
from ...core.facts.words import HomeKind
from ...core.market.change.time_prior import TimeTold
from ...core.market.columns import HOME_KINDS, Columns, Ints
from ...core.market.features import size_of
from ...core.market.listing_facts import recent_sale_rows
from ...core.memo import Memo
from ...core.price.evidence import MAX_SALES, REACH_DAYS, WideFit, fit_sales, wide_rows
from ...core.price.wide_model import ENOUGH, MOST, ModelWorth, WideModel, fit_wide_model, placed_rows
from ..snapshot import Snapshot
from .kept_fits import kept_fit
from .standpoint import Standpoint

# kinds whose sales speak for each other where one has too few for a model of its own: houses on lots of their own
_TOGETHER = (HomeKind.DETACHED, HomeKind.ATTACHED, HomeKind.SMALL_MULTI_FAMILY)
_OF_ITS_OWN = 300  # sales
_ASKED = "wide model asked for"
_CELL = (
    0.25  # degrees of latitude and longitude within which homes share a model where there are more sales than it takes
)


def wide_model(records: Snapshot, subject: Subject, day: int, keep: bool = True) -> WideModel | None:
    """The model of the quarter in which a day lies, from sales closed before the quarter began; None without a place, or where
    too few are known. It stands on nothing that is dated later. keep: whether its file is worth keeping beside the records."""
    if not subject.placed:
        return None
    begun = quarter(day)
    lat, lon = cell(subject.latitude, subject.longitude)
    records.fits.get((_ASKED, subject.home_kind, lat, lon), lambda: None)
    key = ("wide model", subject.home_kind.value, begun)
    rows = records.fitted((*key, "rows"), lambda: _sales(records.columns, (subject.home_kind,), begun))
    kinds: tuple[HomeKind, ...] = (subject.home_kind,)
    if rows.size < _OF_ITS_OWN and subject.home_kind in _TOGETHER:
        kinds = _TOGETHER
        key = ("wide model", "several kinds", begun)
        rows = records.fitted((*key, "rows"), lambda: _sales(records.columns, _TOGETHER, begun))
    here: tuple[float, ...] = () if rows.size <= MOST else (lat, lon)
    of = (*key, *here)

    def fitted() -> WideModel | None:
        near = placed_rows(records.columns, _nearest(records.columns, rows, lat, lon, begun) if here else rows)
        others = told_by_others(records, kinds, begun, near, keep)

        def make() -> WideModel | None:
            return fit_wide_model(records.columns, near, begun, subject.home_kind, others)

        return kept_fit(records, of, near, others, make) if keep else make()

    return records.fitted(of, fitted)


def model_worths(
    records: Snapshot, subjects: Sequence[Subject], day: int
) -> list[tuple[WideModel | None, ModelWorth | None]]:
    """The model of each of many homes with a place, and what it says of it: those of one model are asked together."""
    models = [wide_model(records, subject, day, keep=False) for subject in subjects]
    out: list[tuple[WideModel | None, ModelWorth | None]] = [(None, None)] * len(subjects)
    for model in {id(m): m for m in models if m is not None}.values():
        at = [i for i, m in enumerate(models) if m is model]
        for i, worth in zip(at, model.worths([subjects[i] for i in at]), strict=True):
            out[i] = model, worth
    return out


def make_models_ahead(records: Snapshot, before: Memo) -> None:
    """Make the models that were asked of the records before, of the newest day's quarter, from the new records: whoever prices a home
    after an import finds them there. before: the fits of the records before."""
    if not len(records.columns):  # all was taken back
        return
    asked = [key for key in before.kept() if isinstance(key, tuple) and key[0] == _ASKED]
    for _, kind, lat, lon in asked:
        wide_model(records, Subject({}, lat, lon, kind), records.effective_day(None))


def market_fit(standpoint: Standpoint, leave_out_home: bool = False) -> WideFit | None:
    """The fit over the wider market around a home, made once for all homes around which the same sales lie."""
    s, of = standpoint, standpoint.subject
    where = (of.home_kind.value, of.latitude, of.longitude, of.placed, s.view.day)
    home = (of.home_id, of.own_listing) if leave_out_home else ()
    rows = s.records.remember(("wide rows", *where, *home), lambda: wide_rows(s.columns, s.view, of, leave_out_home))
    key = ("market fit", of.home_kind.value, s.view.day, rows.tobytes())

    def fitted() -> WideFit | None:
        others = told_by_others(s.records, (of.home_kind,), s.view.day, rows)
        return _market_fit(s.records, of, s.view.day, rows, others)

    return s.records.fitted(key, fitted)


def _market_fit(
    records: Snapshot, of: Subject, day: int, rows: Ints, others: Sequence[TimeTold], keep: bool = True
) -> WideFit | None:
    def make() -> WideFit | None:
        return fit_sales(records.columns, rows, day, of, others=others)

    return kept_fit(records, ("market fit", of.home_kind.value, day), rows, others, make) if keep else make()


def told_by_others(
    records: Snapshot, kinds: Sequence[HomeKind], day: int, rows: Ints, keep: bool = True
) -> list[TimeTold]:
    """What sales of other kinds around say of the market's time on a day, where there are more of them than of one's own: the
    larger part of a market knows best itself. rows: one's own sales, of these kinds, in whose middle is looked around; keep: whether
    files of the fits are worth keeping."""
    columns = records.columns
    lats, lons = columns.lats[rows], columns.lons[rows]
    if rows.size >= MAX_SALES or not np.isfinite(lats).any():
        return []
    place = cell(float(np.nanmedian(lats)), float(np.nanmedian(lons)))
    others = [Subject({}, *place, kind) for kind in HomeKind if kind not in (*kinds, HomeKind.UNKNOWN)]

    def sales(of: Subject) -> Ints:
        key = ("sales of a kind", of.home_kind.value, day, *place)
        return records.fitted(key, lambda: wide_rows(columns, columns.as_of(day), of, False))

    def told(of: Subject) -> TimeTold | None:
        def fitted() -> TimeTold | None:
            fit = _market_fit(records, of, day, sales(of), (), keep)
            return None if fit is None else fit.told

        return records.fitted(("time of a kind", of.home_kind.value, day, *place), fitted)

    heard = [of for of in others if sales(of).size >= ENOUGH]
    if sum(sales(of).size for of in heard) <= rows.size:
        return []
    return [t for of in heard if (t := told(of)) is not None]


def cell(latitude: float, longitude: float) -> tuple[float, float]:
    """The middle of the cell in which a place lies: latitude, longitude."""
    return round(latitude / _CELL) * _CELL, round(longitude / _CELL) * _CELL


def quarter(day: int) -> int:
    """The first day of the quarter in which a day lies."""
    on = date_of(day)
    return day_of(dt.date(on.year, (on.month - 1) // 3 * 3 + 1, 1))


def _sales(columns: Columns, kinds: Sequence[HomeKind], begun: int) -> Ints:
    """Arm's-length sales of some kinds of one size, with a size and a price, closed in the five years before a day."""
    rows = recent_sale_rows(columns, columns.as_of(begun - 1))
    good = np.isin(columns.home_kind[rows], [HOME_KINDS.index(kind) for kind in kinds])
    good &= columns.close[rows] >= begun - REACH_DAYS
    good &= (columns.numbers[size_of(kinds[0])][rows] > 0) & (columns.numbers["close_price"][rows] > 1000)
    return np.asarray(rows[good])


def _nearest(columns: Columns, rows: Ints, lat: float, lon: float, begun: int) -> Ints:
    """As many sales as a model takes, nearest in place and time."""
    far = near_miles(lat, lon, columns.lats[rows], columns.lons[rows])
    cost = np.where(np.isfinite(far), far, np.inf) + (begun - columns.close[rows]) / 365.0
    return np.sort(rows[np.argpartition(cost, MOST)[:MOST]])
