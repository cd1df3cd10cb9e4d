"""What became of the listings around a home: each against its worth as it could be known on the day it came."""

from __future__ import annotations

import math
from dataclasses import dataclass, replace

import numpy as np

from ...core.facts.dates import NO_DAY
from ...core.facts.homes import Subject
from ...core.facts.places.place import near_miles
from ...core.market.columns import HOME_KINDS, SOLD, Bools, Floats, Ints
from ...core.price.chances import contract_chance as cc
from ...core.price.chances import list_price as lp
from ...core.price.chances.contract_fit import fit, taken
from ...core.price.chances.worth_then import QuarterFit, quarterly_fits, quarters_of, worths_by
from ...core.price.evidence import WideFit, wide_fit
from ...core.price.net_price import net_price
from .standpoint import Standpoint

REACH_MILES, REACH_DAYS, LISTINGS = 6.0, 3 * 365, 1200
# homes whose places fall into one cell of such a width look at the same listings; those of a wider one at the same fits
CELL_DEGREES, WIDE_CELL_DEGREES = 0.01, 0.05


@dataclass(frozen=True)
class PastListings:
    """outcomes: by first list price ÷ worth then, without what that worth is off by in the middle. model: None where too few."""

    outcomes: lp.Outcomes
    model: cc.ChanceModel | None
    seen: lp.Outcomes  # the listings that the model was fitted to, in its order
    groups: list[lp.Group]  # what became of them, by position


@dataclass(frozen=True)
class Around:
    """Listings around a place that can be learnt from, (n,): what they were worth on their first day in logarithms, and as the
    model of chances sees them; with that model."""

    rows: Ints
    worth: Floats
    seen: cc.Seen
    model: cc.ChanceModel | None


def past_listings(standpoint: Standpoint) -> PastListings:
    """Of the subject's kind, of the last three years, the nearest; the home's own left out.

    Kept for a version of the records, a cell of the map and a day; a home that was itself listed meanwhile has its own.
    """
    records, day, centre = standpoint.records, standpoint.view.day, _middle_of_cell(standpoint.subject, CELL_DEGREES)
    cell = (centre.home_kind, centre.latitude, centre.longitude, day)
    here = replace(standpoint, subject=centre)
    around = records.fitted(("listings around", *cell), lambda: _around(here), "chances")
    own = _of_the_home(standpoint, around.rows)
    key = ("past listings", *cell, tuple(around.rows[own].tolist()))
    return records.fitted(key, lambda: _without(standpoint, around, own), "chances")


def _middle_of_cell(s: Subject, width: float) -> Subject:
    """A home of the subject's kind in the middle of its cell of the map, of which nothing else is known."""
    lat, lon = ((math.floor(at / width) + 0.5) * width for at in (s.latitude, s.longitude))
    return Subject({}, lat, lon, s.home_kind)


def _of_the_home(standpoint: Standpoint, rows: Ints) -> Bools:
    """Which of some listings, (n,), are of the subject's own home."""
    s, columns = standpoint.subject, standpoint.columns
    own = np.zeros(len(rows), dtype=np.bool_) if s.home_id is None else columns.home_id[rows] == s.home_id
    return own if (row := columns.row(s.own_listing)) is None else own | (rows == row)


def _around(standpoint: Standpoint) -> Around:
    columns, view, centre = standpoint.columns, standpoint.view, standpoint.subject
    rows = listings_around(standpoint)
    worth = worths_by(columns, _fits(standpoint), rows)
    told = np.isfinite(worth)
    told[told] = lp.usable(columns, view, rows[told])
    seen = seen_of(standpoint, wide_fit(columns, view, centre), rows[told], worth[told])
    return Around(rows[told], worth[told], seen, fit(seen))


def _fits(standpoint: Standpoint) -> list[QuarterFit]:
    """The fits of each quarter from which listings are looked at, for a wide cell."""
    columns, view = standpoint.columns, standpoint.view
    middle = _middle_of_cell(standpoint.subject, WIDE_CELL_DEGREES)
    key = ("fits then", middle.home_kind, middle.latitude, middle.longitude, view.day)
    firsts = quarters_of(np.arange(view.day - REACH_DAYS, view.day + 1))
    return standpoint.records.fitted(key, lambda: quarterly_fits(columns, view, middle, firsts), "chances")


def _without(standpoint: Standpoint, around: Around, own: Bools) -> PastListings:
    """What became of those listings but the home's own."""
    rows, worth, seen, model = around.rows, around.worth, around.seen, around.model
    if own.any():
        rows, worth, seen = rows[~own], worth[~own], seen.where(~own)
        model = fit(seen, start=model)
    off = np.zeros(len(rows)) if model is None else model.bias + model.drift * seen.age
    held = lp.outcomes(standpoint.columns, standpoint.view, rows, np.exp(worth + off))
    return PastListings(held, model, held.where(taken(seen)), lp.by_position(held))


def listings_around(standpoint: Standpoint) -> Ints:
    """Listings of the subject's kind of the last three years within 6 miles, the nearest 1,200."""
    columns, view, subject = standpoint.columns, standpoint.view, standpoint.subject
    good = (columns.home_kind == HOME_KINDS.index(subject.home_kind)) & ~columns.lease & ~columns.deed
    good &= ~columns.not_arms_length & ~columns.distressed & (columns.on_market != NO_DAY)
    good &= (columns.on_market <= view.day) & (columns.on_market >= view.day - REACH_DAYS)
    rows = np.flatnonzero(good)
    far = near_miles(subject.latitude, subject.longitude, columns.lats[rows], columns.lons[rows])
    near = np.flatnonzero(far <= REACH_MILES)
    return np.asarray(rows[near[np.argsort(far[near], kind="stable")[:LISTINGS]]])


def seen_of(standpoint: Standpoint, wide: WideFit | None, rows: Ints, worth: Floats) -> cc.Seen:
    """The listings as the model sees them; worth: their log worth on their first day, (n,)."""
    columns, view = standpoint.columns, standpoint.view
    first, start, end, contract, _ = lp.courses(columns, view, rows)
    paid = np.log(
        net_price(columns, rows), where=columns.numbers["close_price"][rows] > 0, out=np.full(len(rows), np.nan)
    )
    moved = np.zeros(len(rows))
    if wide is not None:  # the price was agreed later than the worth was looked at
        moved = wide.moved(end.astype(np.float64), view.day) - wide.moved(start.astype(np.float64), view.day)
    q = np.where((view.kind[rows] == SOLD) & contract, paid - moved - worth, np.nan)
    turn = np.asarray(2 * np.pi * start / 365.25, dtype=np.float64)
    with np.errstate(divide="ignore", invalid="ignore"):
        r = np.log(np.where(first > 0, first, np.nan)) - worth
    age = np.asarray((view.day - start) / 365.25, dtype=np.float64)
    market = np.zeros(len(rows)) if wide is None else market_of(wide, start, view.day)
    return cc.Seen(r, q, (end - start).astype(np.float64), contract, turn, age, market)


def market_of(wide: WideFit, start: Ints, day: int) -> Floats:
    """How prices moved while listings stood, in logarithms a day, (n,): over their first 60 days, or the last 180 known."""
    until = np.minimum(start + 60, day)
    begin = np.where(until - start < 30, day - 180, start)
    moved = wide.moved(until.astype(np.float64), day, seasons=False) - wide.moved(
        begin.astype(np.float64), day, seasons=False
    )
    return np.asarray(moved / (until - begin), dtype=np.float64)
