"""The one sentence over each section of a bulletin: prices, pace, what comes and goes, shares, places, years, months.

The rules of bulletin.py: a change is told only where both spans hold enough, in the order who, what, how much, against when.
"""

from __future__ import annotations

import datetime as dt
from collections.abc import Mapping, Sequence
from dataclasses import dataclass

from ...facts.dates import month_said
from ...phrases import joined, listed, phrase
from ..measures import SMALL, Value
from ..view_reading import figure, shown
from .bulletin import SAME, Figures, mix, pct

DAYS_APART, POINTS_APART = 2.0, 0.5  # what a change of days, and of shares in points, must reach to be told
MANY = 3  # places without which none is said to be the first or the last of them


def prices(f: Figures) -> str:
    """The same home and the square foot against the year before."""
    if f.thin:
        return ""
    same, foot = f.moved("same_home_price"), f.moved("median_price_per_sqft")
    told = [_brought(what, moved) for what, moved in (("home", same), ("foot", foot)) if moved is not None]
    return phrase("against-year-before", told=listed(told)) if told else ""


def _brought(what: str, moved: float) -> str:
    way = "as-much" if abs(moved) < SAME else "more" if moved > 0 else "less"
    return phrase(f"brought-{way}-{what}", pct=pct(moved))


def days(f: Figures) -> str:
    """Days to a buyer."""
    taken = f.of("median_days")
    if taken.value is None or taken.n < SMALL:
        return ""
    change = _against(taken, f.was("median_days"), DAYS_APART)
    way = "" if change is None else "-slower" if change > 0 else "-faster" if change else "-as-before"
    return phrase(f"half-found-buyer{way}", days=_days(taken.value), change=_days(abs(change or 0.0)))


def pace(f: Figures) -> str:
    """Days to a buyer, and how long those for sale would last."""
    out = [days(f)] if days(f) else []
    supply, was = f.of("months_of_supply"), f.was("months_of_supply")
    if supply.value is not None and f.sold >= SMALL:
        months = figure(supply.value, 1)
        out.append(
            phrase("what-is-for-sale-after", months=months, before=figure(was.value, 1))
            if was.value is not None and f.sold_before >= SMALL
            else phrase("what-is-for-sale", months=months)
        )
    return joined(*out)


def flow(f: Figures) -> str:
    """How many came on, found a buyer and closed, beside the year before."""
    told = []
    for name in ("new_listings", "contracts", "closings"):
        now, was = f.of(name).value, f.was(name).value
        if now is not None:
            words = phrase(f"flow-{name}", n=int(now))
            told.append(phrase("flow-after", told=words, before=int(was)) if was else words)
    return phrase("flow-in", span=f.span, told=listed(told)) if told else ""


def shares(f: Figures) -> str:
    """Shares of the last and the first list price, and of those for sale that have been cut."""
    out = []
    last, first, cut = f.of("median_share_of_list"), f.of("median_share_of_original"), f.of("share_with_price_cut")
    if last.value is not None and last.n >= SMALL:
        change = _against(_points(last), _points(f.was("median_share_of_list")), POINTS_APART)
        way = "" if change is None else "-more" if change > 0 else "-less" if change else "-as-before"
        differs = first.value is not None and first.n >= SMALL and abs(first.value - last.value) >= 0.002
        of_first = phrase("of-their-first", pct=figure(100 * (first.value or 0.0), 1)) if differs else ""
        size = f"{abs(change or 0.0):.1f}"
        out.append(phrase(f"half-got{way}", pct=figure(100 * last.value, 1), change=size, first=of_first))
    if cut.value is not None and cut.n >= SMALL:
        out.append(phrase("of-those-cut", n=cut.n, pct=figure(100 * cut.value)))
    return joined(*out)


def _points(v: Value) -> Value:
    return Value(None if v.value is None else 100 * v.value, v.n)


@dataclass(frozen=True)
class Moved:
    """A place with the change of its median price in percent, None where too few sold, and its closings in both spans."""

    place: str
    change: float | None
    sold: int
    sold_before: int


def places(told: Sequence[Moved]) -> str:
    """Where prices rose most and fell most; silent where too few places have enough sales."""
    known = sorted((p for p in told if p.change is not None), key=lambda p: p.change or 0.0)
    if len(known) < MANY:
        return ""
    rose, fell = known[-1], known[0]
    up, down = (rose.change or 0) >= SAME, (fell.change or 0) <= -SAME
    if up and down:
        other = {"other": fell.place, "other_moved": _signed(fell)}
        words = phrase("places-that-rose-and-fell", place=rose.place, moved=_signed(rose), **other)
    elif up or down:
        one = rose if up else fell
        words = phrase("places-that-rose" if up else "places-that-fell", place=one.place, moved=_signed(one))
    else:
        words = phrase("places-that-none")
    silent = len(told) - len(known)
    return joined(words, phrase("places-that-silent", n=silent, places=str(len(told))) if silent else "")


def _signed(p: Moved) -> str:
    change = f"{'+' if (p.change or 0) > 0 else '−'}{abs(p.change or 0):.0f} %"
    return phrase("place-moved", change=change, now=p.sold, before=p.sold_before)


def years(whole: Sequence[tuple[int, Mapping[str, Value]]]) -> str:
    """From the first whole year to the last: the median beside the price of the same home. whole: oldest first."""
    if len(whole) < 2:
        return ""
    (a, before), (b, now) = whole[0], whole[-1]
    f = Figures(now, before, str(b))
    median, same = f.moved("median_price"), f.moved("same_home_price")
    if f.thin or median is None:
        return ""
    spans = {"first": str(a), "last": str(b), "median": _went(median), "before": f.sold_before, "now": f.sold}
    if same is None:
        return phrase("years-went", **spans)
    parted = abs(median - same) >= 2
    return phrase("years-went-apart" if parted else "years-went-both", **spans, same=_went(same), mix=mix(median, same))


def _went(moved: float) -> str:
    return phrase("went-nowhere" if abs(moved) < SAME else "went-up" if moved > 0 else "went-down", pct=pct(moved))


def months(values: Sequence[tuple[dt.date, Value]], shown: Sequence[str], counted: bool) -> str:
    """The highest and the lowest of the finished months, by name; of means and medians those made from enough homes alone."""
    known = [
        (v.value, start, text)
        for (start, v), text in zip(values, shown, strict=True)
        if v.value is not None and (counted or v.n >= SMALL)
    ]
    if len(known) < 12:
        return ""
    high, low = max(known), min(known)
    if high[0] == low[0]:
        return ""
    return phrase(
        "highest-and-lowest", high_month=month_said(high[1]), high=high[2], low_month=month_said(low[1]), low=low[2]
    )


def _against(now: Value, before: Value, least: float) -> float | None:
    """By how much a value parts from the year before: 0 where by less than `least`, None where that year is not known from enough."""
    if before.value is None or now.value is None or before.n < SMALL:
        return None
    change = now.value - before.value
    return 0.0 if abs(change) < least else change


def _days(value: float) -> str:
    return shown(value, "days")
