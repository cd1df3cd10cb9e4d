"""What a market view says beyond its bare series: smoothing, years laid over each other, change, and a sentence."""

from __future__ import annotations

import datetime as dt
from collections.abc import Sequence
from dataclasses import dataclass

import numpy as np

from ..facts.dates import add_months
from ..facts.local_form import Quantity
from ..facts.money import dollars, half_up
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
        Period(f"12 months to {end:%Y-%m}", start, end, True),
        Period(f"12 months to {before:%Y-%m}", add_months(start, -12), before, True),
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
        return f"{figure(value, 1)}{' months' if unit == 'months' else ' a month'}"
    if unit == "days":
        n = figure(value)
        return f"{n} {'day' if n == '1' else 'days'}"
    if unit == "$/sq ft":
        return Quantity(half_up(value, 0.01), unit, 2, signed=True)
    return f"${dollars(value)}" if unit == "$" else figure(value)


STANDING = {"for_sale": "for sale", "under_contract": "under contract"}
COUNTED_NOUNS = {
    "closings": ("closing", "closings"), "new_listings": ("new listing", "new listings"),
    "contracts": ("contract", "contracts"), "failed": ("failed listing", "failed listings"),
    "back_on_market": ("return to the market", "returns to the market"), "put_on_hold": ("pause", "pauses"),
    "failed_for_sale": ("failure while for sale", "failures while for sale"),
    "failed_under_contract": ("failure while under contract", "failures while under contract"),
}  # fmt: skip


def sentence(t: Told, kind_words: str, place: str, end: dt.date, deeds: bool = False) -> str:
    """One plain sentence; careful where the counts are small, and silent about what is not known.

    place: as it follows on the kind, "in Lantern Hill" or "within 1 mi of 14 Ferry Lane"; deeds: deed sales count.
    """
    where = f" of {kind_words}" + (f" {place}" if place else "")
    if t.measure in STANDING:
        where = (f" among {kind_words}" if kind_words != "homes" else "") + (f" {place}" if place else "")
    month = f"{end:%B} {end.year}"
    closings = int(t.closings.value or 0)
    before = int(t.closings_before.value or 0)
    if t.now.value is None:
        return f"The records hold no {t.label[0].lower()}{t.label[1:]}{where} in the 12 months to {month}."
    counted = t.unit == ""
    n = t.now.value
    name = t.label[0].lower() + t.label[1:]
    if t.measure in STANDING:
        out = f"At the end of {month} {n:,.0f} {'home' if n == 1 else 'homes'}{where} {'was' if n == 1 else 'were'} {STANDING[t.measure]}"
    elif t.measure == "months_of_supply":
        out = f"At the end of {month} the homes for sale{where} would last {figure(n, 1)} months at the pace of {t.rules.pace_of}"
    elif counted:
        one, many = COUNTED_NOUNS[t.measure]
        out = (
            f"There {'was' if n == 1 else 'were'} {n:,.0f} {one if n == 1 else many}{where} in the 12 months to {month}"
        )
    else:
        out = f"The {name}{where} was {shown(n, t.unit)} in the 12 months to {month}"
    change = change_of(t.now.value, t.before.value, t.unit)
    few = not counted and (t.now.n < SMALL or t.before.n < SMALL)
    if change is not None and not few:
        move = f"{'up' if change.size > 0 else 'down'} {abs(change.size):.1f} {change.unit} on the year before"
        out += ", the same as the year before" if change.nothing else f", {move}"
    if t.measure not in ("closings", "for_sale", "under_contract"):
        out += f" ({closings} {'closing' if closings == 1 else 'closings'}" + (f" after {before})" if before else ")")
    if few:
        out += "; so few homes say little"
    there = t.for_sale.value
    if there is not None and closings >= SMALL and t.measure not in ("months_of_supply", "for_sale"):
        left = int(there)
        if not left:
            out += "; none is for sale now"
        elif t.supply is not None:
            out += f"; at the present pace the {left} {'home' if left == 1 else 'homes'} for sale would last {figure(t.supply, 1)} months"
    return out + (", deed sales counted among the closings." if deeds else ".")
