"""What a market view says beyond its bare series: smoothing, years laid over each other, change, and a sentence."""

from __future__ import annotations

import datetime as dt
from collections.abc import Sequence
from dataclasses import dataclass

import numpy as np

from ..facts.dates import add_months, month_said
from ..facts.local_form import Quantity
from ..facts.money import dollars, half_up
from ..phrases import continued, phrase
from .market_rules import USUAL_MARKET, MarketRules
from .measures import SMALL, Period, Value, change_of


def trailing(values: Sequence[Value], months: int) -> list[Value]:
    """Each value as the mean of itself and the known ones of the periods before it, `months` in all; the counts add up.

    >>> [v.value for v in trailing([Value(1.0, 1), Value(None, 0), Value(4.0, 2)], 3)]
    [1.0, 1.0, 2.5]
    """
    out = []
    for i in range(len(values)):
        part = [v for v in values[max(0, i - months + 1) : i + 1] if v.value is not None]
        known = [v.value for v in part if v.value is not None]
        out.append(Value(float(np.mean(known)) if known else None, sum(v.n for v in part)))
    return out


def twelve_months(through: dt.date) -> tuple[Period, Period]:
    """The twelve whole months up to `through`, and the twelve before them."""
    end = through if add_one(through).day == 1 else through.replace(day=1) - dt.timedelta(days=1)
    start = add_months(end.replace(day=1), -11)
    before = start - dt.timedelta(days=1)
    return (
        Period(f"{start:%Y-%m}..{end:%Y-%m}", start, end, True),
        Period(f"{add_months(start, -12):%Y-%m}..{before:%Y-%m}", add_months(start, -12), before, True),
    )


def add_one(day: dt.date) -> dt.date:
    """The day after."""
    return day + dt.timedelta(days=1)


@dataclass(frozen=True)
class Told:
    """Figures of twelve months and of the twelve before: of the measure, of closings, and homes for sale at the end. supply: the
    months for which these would last, by the house's rules."""

    measure: str
    label: str
    unit: str
    now: Value
    before: Value
    closings: Value
    closings_before: Value
    for_sale: Value
    supply: float | None
    rules: MarketRules = USUAL_MARKET


def figure(value: float, digits: int = 0) -> str:
    """A number written with so many digits, a half rounded up as people and browsers do.

    >>> figure(44.5), figure(98.25, 1)
    ('45', '98.3')
    """
    return f"{half_up(value, 10.0**-digits):,.{digits}f}"


def shown(value: float, unit: str) -> str:
    """A value as a sentence has it: "362,000", "98.4 %", "3.9 months", "41 days"."""
    if unit == "share":
        return f"{figure(100 * value, 1)} %"
    if unit in ("months", "a month"):
        return phrase("value-months" if unit == "months" else "value-a-month", n=figure(value, 1))
    if unit == "days":
        return phrase("count-days", n=int(half_up(value)))
    if unit == "$/sq ft":
        return Quantity(half_up(value, 0.01), unit, 2, signed=True)
    return f"${dollars(value)}" if unit == "$" else figure(value)


def bare(value: float, unit: str) -> str:
    """A value beside which its unit is told, in the head of a column or on an axis: 41.0, "days" → "41"."""
    if unit in ("months", "a month"):
        return figure(value, 1)
    return figure(value) if unit == "days" else shown(value, unit)


STANDING = ("for_sale", "under_contract")


def sentence(t: Told, kind_words: str, place: str, end: dt.date, deeds: bool = False) -> str:
    """One plain sentence; careful where the counts are small, and silent about what is not known.

    place: as it follows on the kind, "in Lantern Hill" or "within 1 mi of 14 Ferry Lane"; deeds: deed sales count.
    """
    homes = f"{kind_words} {place}" if place else kind_words
    month = month_said(end)
    label = continued(t.label)
    if t.now.value is None:
        return phrase("view-none", label=label, homes=homes, month=month)
    closings = int(t.closings.value or 0)
    few = t.unit != "" and (t.now.n < SMALL or t.before.n < SMALL)
    out = [_begun(t, label, kind_words, place, homes, month)]
    change = change_of(t.now.value, t.before.value, t.unit)
    if change is not None and not few:
        way = "same" if change.nothing else "up" if change.size > 0 else "down"
        out.append(phrase(f"view-{way}", change=change.amount))
    if t.measure not in ("closings", *STANDING):
        before = int(t.closings_before.value or 0)
        told = phrase("view-closings", n=closings, closings=str(closings))
        out.append(
            phrase("view-closings-after", now=told, before=str(before))
            if before
            else phrase("view-in-brackets", now=told)
        )
    if few:
        out.append(phrase("view-few"))
    there = t.for_sale.value
    if there is not None and closings >= SMALL and t.measure not in ("months_of_supply", "for_sale"):
        left = int(there)
        if not left:
            out.append(phrase("view-none-for-sale"))
        elif t.supply is not None:
            out.append(phrase("view-would-last", n=left, left=str(left), months=figure(t.supply, 1)))
    return "".join(out) + (phrase("view-deeds-counted") if deeds else ".")


def _begun(t: Told, label: str, kind_words: str, place: str, homes: str, month: str) -> str:
    """How the sentence begins: the figure, of what, when."""
    n = t.now.value or 0.0
    if t.measure in STANDING:
        bare = kind_words == phrase("homes-alone")
        among = phrase("view-among", homes=homes) if not bare else f" {place}" if place else ""
        return phrase(f"view-standing-{t.measure}", month=month, n=int(n), among=among)
    if t.measure == "months_of_supply":
        return phrase("view-supply", month=month, homes=homes, months=figure(n, 1), pace=t.rules.pace_of)
    if t.unit == "":
        return phrase("view-counted", n=int(n), what=phrase(f"noun-{t.measure}", n=int(n)), homes=homes, month=month)
    return phrase("view-was", label=label, homes=homes, value=shown(n, t.unit), month=month)
