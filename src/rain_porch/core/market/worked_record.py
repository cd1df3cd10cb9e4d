"""How the figures of one listing were worked out, with its own dates and prices filled in."""

from __future__ import annotations

import math

import numpy as np

from ..facts.dates import NO_DAY, date_of, said
from ..facts.money import dollars
from .book import followed
from .columns import DEED_SALE, FAILED, FOR_SALE, PAUSED, SOLD, UNDER_CONTRACT, AsOf, Columns
from .listing_facts import days_on_market, prices_of

_ENDED = {SOLD: "its contract", UNDER_CONTRACT: "its contract", FAILED: "the day it went off", FOR_SALE: "the day looked at",
          PAUSED: "the day looked at"}  # fmt: skip


def worked_record(columns: Columns, view: AsOf, row: int) -> dict[str, str]:
    """figure → its formula in figures, of those that are known as of the view's day; with days also why they are not known."""
    at = np.array([row], dtype=np.int64)
    own = days_on_market(columns, view, at)
    told = prices_of(columns, view, at, own)[0]
    price, last = float(view.price[row]), float(view.list_price[row])
    out = {"days": _days(columns, view, row, float(own[0]))} if view.kind[row] in _ENDED else {}
    if "cumulative_days_on_market" in told and followed(columns)[0][row]:
        out["cumulative_days"] = _cumulative(columns, row, float(own[0]))
    area, first = (float(columns.numbers[n][row]) for n in ("living_area", "original_list_price"))
    if view.kind[row] in (SOLD, DEED_SALE) and price > 0:
        for name, whole, words in (
            ("share_of_list", last, "last list price"),
            ("share_of_original", first, "first list price"),
        ):
            if name in told:
                out[name] = f"paid {dollars(price)} ÷ {words} {dollars(whole)} = {100 * told[name]:.1f} %"
    if price > 0 and area > 0:
        out["price_per_sqft"] = f"{dollars(price)} ÷ {area:,.0f} sq ft = {price / area:,.2f}"
    return out


def _days(columns: Columns, view: AsOf, row: int, days: float) -> str:
    kind, start = int(view.kind[row]), int(columns.on_market[row])
    ends = {SOLD: columns.contract, UNDER_CONTRACT: columns.contract, FAILED: columns.off_market}.get(kind)
    end = view.day if ends is None else int(ends[row])
    if start == NO_DAY:
        return "unknown: no record tells when it came on"
    if end == NO_DAY:
        return f"unknown: no record tells {_ENDED[kind]}; the closing never stands in for it"
    if math.isnan(days):
        return f"unknown: {_ENDED[kind]}, {said(date_of(end))}, lies before it came on, {said(date_of(start))}"
    off = round(end - start - days)
    less = f", less {off} withdrawn or on hold" if off else ""
    return f"from {said(date_of(start))}, when it came on, to {_ENDED[kind]}, {said(date_of(end))}{less} = {days:,.0f}"


def _cumulative(columns: Columns, row: int, own: float) -> str:
    """Its own days and those of each listing that it follows, back to the first."""
    back, before = followed(columns)
    parts, at = [f"{own:,.0f} its own"], row
    total = own
    while back[at]:
        at = int(before[at])
        start, end = int(columns.on_market[at]), int(columns.off_market[at])
        days = end - start - float(columns.statuses.days_off(np.array([at]), np.array([end]))[0])
        total += days
        parts.append(f"{days:,.0f} from {said(date_of(start))} to {said(date_of(end))}")
    return f"{' + '.join(parts)} = {total:,.0f}; listings that follow each other within {columns.rules.back_within}, with no sale between"
