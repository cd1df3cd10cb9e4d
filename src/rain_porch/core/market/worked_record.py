"""How the figures of one listing were worked out, with its own dates and prices filled in."""

from __future__ import annotations

import math

import numpy as np

from ..facts.dates import NO_DAY, date_of, said
from ..facts.money import dollars
from ..phrases import phrase
from .book import followed
from .columns import DEED_SALE, FAILED, FOR_SALE, PAUSED, SOLD, UNDER_CONTRACT, AsOf, Columns
from .listing_facts import days_on_market, prices_of

_ENDED = {SOLD: "contract", UNDER_CONTRACT: "contract", FAILED: "off", FOR_SALE: "looked-at", PAUSED: "looked-at"}


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
        for name, whole in (("share_of_list", last), ("share_of_original", first)):
            if name in told:
                share = f"{100 * told[name]:.1f}"
                out[name] = phrase(f"worked-record-{name}", paid=dollars(price), asked=dollars(whole), share=share)
    if price > 0 and area > 0:
        per = f"{price / area:,.2f}"
        out["price_per_sqft"] = phrase("worked-price-per-foot", paid=dollars(price), area=f"{area:,.0f}", per=per)
    return out


def _days(columns: Columns, view: AsOf, row: int, days: float) -> str:
    kind, start = int(view.kind[row]), int(columns.on_market[row])
    ends = {SOLD: columns.contract, UNDER_CONTRACT: columns.contract, FAILED: columns.off_market}.get(kind)
    end = view.day if ends is None else int(ends[row])
    if start == NO_DAY:
        return phrase("worked-days-no-start")
    what = phrase(f"worked-ended-{_ENDED[kind]}")
    if end == NO_DAY:
        return phrase("worked-days-no-end", what=what)
    first, last = said(date_of(start)), said(date_of(end))
    if math.isnan(days):
        return phrase("worked-days-turned", what=what, first=first, last=last)
    off = round(end - start - days)
    told = {"what": what, "first": first, "last": last, "days": round(days)}
    return phrase("worked-days-less", **told, off=off) if off else phrase("worked-days", **told)


def _cumulative(columns: Columns, row: int, own: float) -> str:
    """Its own days and those of each listing that it follows, back to the first."""
    back, before = followed(columns)
    parts, at = [phrase("worked-own-days", n=round(own))], row
    total = own
    while back[at]:
        at = int(before[at])
        start, end = int(columns.on_market[at]), int(columns.off_market[at])
        days = end - start - float(columns.statuses.days_off(np.array([at]), np.array([end]))[0])
        total += days
        first, last = said(date_of(start)), said(date_of(end))
        parts.append(phrase("worked-days-of-listing", n=round(days), first=first, last=last))
    return phrase("worked-days-in-all", days=" + ".join(parts), total=round(total), gap=columns.rules.back_within)
