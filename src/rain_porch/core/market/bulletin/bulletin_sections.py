"""The one sentence over each section of a bulletin: prices, pace, what comes and goes, shares, places, years, months.

The rules of bulletin.py: a change is told only where both spans hold enough, in the order who, what, how much, against when.
"""

from __future__ import annotations

import datetime as dt
from collections.abc import Callable, Mapping, Sequence
from dataclasses import dataclass

from ..measures import SMALL, Value
from ..view_reading import figure, shown
from .bulletin import SAME, Figures, pct

DAYS_APART, POINTS_APART = 2.0, 0.5  # what a change of days, and of shares in points, must reach to be told
MANY = 3  # places without which none is said to be the first or the last of them


def prices(f: Figures) -> str:
    """The same home and the square foot against the year before."""
    if f.thin:
        return ""
    same, foot = f.moved("same_home_price"), f.moved("median_price_per_sqft")
    told = [
        f"{what} {_moved(moved)}"
        for what, moved in (("the same home", same), ("a square foot", foot))
        if moved is not None
    ]
    return f"Against the year before, {' and '.join(told)}." if told else ""


def _moved(pct_moved: float) -> str:
    if abs(pct_moved) < SAME:
        return "brought as much"
    return f"brought {pct(pct_moved)} {'more' if pct_moved > 0 else 'less'}"


def days(f: Figures) -> str:
    """Days to a buyer."""
    taken = f.of("median_days")
    if taken.value is None or taken.n < SMALL:
        return ""
    words = f"Half of those that sold found a buyer within {_days(taken.value)}"
    return words + _against(taken, f.was("median_days"), DAYS_APART, _faster) + "."


def pace(f: Figures) -> str:
    """Days to a buyer, and how long those for sale would last."""
    out = [days(f)] if days(f) else []
    supply, was = f.of("months_of_supply"), f.was("months_of_supply")
    if supply.value is not None and f.sold >= SMALL:
        before = (
            f", after {figure(was.value, 1)} a year ago" if was.value is not None and f.sold_before >= SMALL else ""
        )
        out.append(f"What is for sale would last {figure(supply.value, 1)} months{before}.")
    return " ".join(out)


def flow(f: Figures) -> str:
    """How many came on, found a buyer and closed, beside the year before."""
    named = (("new_listings", "came on"), ("contracts", "found a buyer"), ("closings", "closed"))
    told = []
    for name, verb in named:
        now, was = f.of(name).value, f.was(name).value
        if now is not None:
            told.append(f"{now:,.0f} {verb}" + (f" (after {was:,.0f})" if was else ""))
    if not told:
        return ""
    listed = ", ".join(told[:-1]) + (" and " if len(told) > 1 else "") + told[-1]
    return f"In {f.span} {listed}."


def shares(f: Figures) -> str:
    """Shares of the last and the first list price, and of those for sale that have been cut."""
    out = []
    last, first, cut = f.of("median_share_of_list"), f.of("median_share_of_original"), f.of("share_with_price_cut")
    if last.value is not None and last.n >= SMALL:
        words = f"Half of the sellers got {figure(100 * last.value, 1)} % of their last list price or more"
        words += _against(_points(last), _points(f.was("median_share_of_list")), POINTS_APART, _points_words)
        if first.value is not None and first.n >= SMALL and abs(first.value - last.value) >= 0.002:
            words += f"; of their first, {figure(100 * first.value, 1)} %"
        out.append(words)
    if cut.value is not None and cut.n >= SMALL:
        out.append(f"Of the {cut.n:,} for sale {figure(100 * cut.value)} % ask less than at first")
    return " ".join(f"{s}." for s in out)


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
    out = []
    if (rose.change or 0) >= SAME:
        out.append(f"The median rose most in {rose.place} ({_signed(rose)})")
    if (fell.change or 0) <= -SAME:
        out.append(f"{'fell most' if out else 'The median fell most'} in {fell.place} ({_signed(fell)})")
    silent = len(told) - len(known)
    few = f" In {silent} of {len(told)} too few sold to say." if silent else ""
    return (f"{' and '.join(out)}." if out else "No place parts from the year before by a percent.") + few


def _signed(p: Moved) -> str:
    sign = "+" if (p.change or 0) > 0 else "−"
    return f"{sign}{abs(p.change or 0):.0f} %, {p.sold:,} sales after {p.sold_before:,}"


def years(whole: Sequence[tuple[int, Mapping[str, Value]]]) -> str:
    """From the first whole year to the last: the median beside the price of the same home. whole: oldest first."""
    if len(whole) < 2:
        return ""
    (a, before), (b, now) = whole[0], whole[-1]
    f = Figures(now, before, str(b))
    median, same = f.moved("median_price"), f.moved("same_home_price")
    if f.thin or median is None:
        return ""
    words = f"From {a} to {b} the median price {_went(median)}"
    if same is not None:
        words += f" and the price of the same home {_went(same)}"
        if abs(median - same) >= 2:
            words += f": the rest is that {'larger or dearer' if median > same else 'smaller or cheaper'} homes sold"
    return f"{words} ({f.sold_before:,} sales, then {f.sold:,})."


def _went(moved: float) -> str:
    return "stayed as it was" if abs(moved) < SAME else f"{'rose' if moved > 0 else 'fell'} {pct(moved)}"


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
    return f"Highest in {high[1]:%B %Y} ({high[2]}), lowest in {low[1]:%B %Y} ({low[2]})."


def _against(now: Value, before: Value, least: float, words: Callable[[float], str]) -> str:
    """How a value stands against the year before, where that is known from enough homes and differs enough."""
    if before.value is None or now.value is None or before.n < SMALL:
        return ""
    change = now.value - before.value
    if abs(change) < least:
        return ", as a year ago"
    return f", {words(change)} than a year ago"


def _faster(change: float) -> str:
    return f"{_days(abs(change))} {'slower' if change > 0 else 'faster'}"


def _points_words(change: float) -> str:
    return f"{abs(change):.1f} points {'more' if change > 0 else 'less'}"


def _days(value: float) -> str:
    return shown(value, "days")
