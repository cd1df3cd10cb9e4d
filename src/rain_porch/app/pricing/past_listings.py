"""What became of the listings around a home: each against its worth as it could be known on the day it came."""

from __future__ import annotations

from dataclasses import dataclass

import numpy as np

from ...core.facts.dates import NO_DAY
from ...core.facts.place import near_miles
from ...core.market.columns import HOME_KINDS, SOLD, Floats, Ints
from ...core.price import contract_chance as cc
from ...core.price import list_price as lp
from ...core.price.evidence import Evidence, WideFit
from ...core.price.net_price import net_price
from ...core.price.worth_then import worths_then
from .standpoint import Standpoint

REACH_MILES, REACH_DAYS, LISTINGS = 6.0, 3 * 365, 1200


@dataclass(frozen=True)
class PastListings:
    """outcomes: by first list price ÷ worth then, without what that worth is off by in the middle. model: None where too few."""

    outcomes: lp.Outcomes
    model: cc.ChanceModel | None
    seen: lp.Outcomes  # the listings that the model was fitted to, in its order


def past_listings(standpoint: Standpoint, found: Evidence) -> PastListings:
    """Of the subject's kind, of the last three years, the nearest. Kept for a version of the records, a home and a day."""
    s = standpoint.subject
    key = (
        "past listings",
        s.home_kind,
        s.home_id,
        s.own_listing,
        round(s.latitude, 4),
        round(s.longitude, 4),
        standpoint.view.day,
    )
    return standpoint.records.fitted(key, lambda: _past_listings(standpoint, found))


def _past_listings(standpoint: Standpoint, found: Evidence) -> PastListings:
    columns, view = standpoint.columns, standpoint.view
    rows = listings_around(standpoint)
    worth = worths_then(columns, view, standpoint.subject, rows)
    rows, worth = rows[np.isfinite(worth)], worth[np.isfinite(worth)]
    usable = lp.usable(columns, view, rows)
    rows, worth = rows[usable], worth[usable]
    seen = seen_of(standpoint, found.wide, rows, worth)
    model = cc.fit(seen)
    off = np.zeros(len(rows)) if model is None else model.bias + model.drift * seen.age
    held = lp.outcomes(columns, view, rows, np.exp(worth + off))
    return PastListings(held, model, held.where(cc.taken(seen)))


def listings_around(standpoint: Standpoint) -> Ints:
    """Listings of the subject's kind of the last three years within 6 miles, the nearest 1,200; the home's own left out."""
    columns, view, subject = standpoint.columns, standpoint.view, standpoint.subject
    good = (columns.home_kind == HOME_KINDS.index(subject.home_kind)) & ~columns.lease & ~columns.deed
    good &= ~columns.not_arms_length & ~columns.distressed & (columns.on_market != NO_DAY)
    good &= (columns.on_market <= view.day) & (columns.on_market >= view.day - REACH_DAYS)
    if subject.home_id is not None:
        good &= columns.home_id != subject.home_id
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
