"""Facts and figures as a report writes them."""

from __future__ import annotations

import datetime as dt
from collections.abc import Mapping, Sequence
from typing import Any

from ..core.facts.dates import said
from ..core.facts.fields import BY_NAME, Kind, line_label
from ..core.facts.local_form import OwnWords, Quantity
from ..core.facts.money import half_up, signed
from ..core.phrases import phrase
from ..core.price.backtest import COVERAGE
from ..core.price.worth import share_words

UNKNOWN = "—"


def fact(facts: Mapping[str, Any], name: str) -> str:
    """One fact in words; “—” where it is unknown. Baths are full and half."""
    if name == "bathrooms":
        full, half = facts.get("bathrooms_full"), facts.get("bathrooms_half")
        if full is None:
            return UNKNOWN
        if not half:
            return phrase("fact-full-baths", full=f"{full:.0f}")
        return phrase("fact-full-and-half-baths", full=f"{full:.0f}", half=f"{half:.0f}")
    value = facts.get(name)
    if value is None:
        return UNKNOWN
    if BY_NAME[name].kind in (Kind.DATE, Kind.TIME):
        return said(value)
    if not isinstance(value, (int, float)):
        return phrase("fact-none") if value == "None" else OwnWords(value)
    if BY_NAME[name].kind == "year":
        return f"{value:.0f}"
    if BY_NAME[name].kind == "yes_no":
        return phrase("fact-yes" if value else "fact-no")
    unit = BY_NAME[name].unit
    return Quantity(value, unit) if unit == "sq ft" and value == int(value) else f"{value:,.10g}"


def blank(value: str) -> str:
    """The same, and nothing where it is unknown."""
    return "" if value == UNKNOWN else value


def label(name: str) -> str:
    """A line's name with its unit: "Living area, sq ft"; a feature of the agent's own by its own name."""
    if name == "bathrooms":
        return phrase("fact-baths")
    unit = BY_NAME[name].unit if name in BY_NAME else ""
    return phrase("label-with-unit", label=line_label(name), unit=unit) if unit and unit != "$" else line_label(name)


def known_facts(
    facts: Mapping[str, Any], names: Sequence[str], called: Mapping[str, str] | None = None
) -> list[tuple[str, str]]:
    """(label, value) of those facts that are known. called: labels other than the usual."""
    return [((called or {}).get(n, label(n)), v) for n in names if (v := fact(facts, n)) != UNKNOWN]


def facts_line(facts: Mapping[str, Any]) -> str:
    """ "3 bedrooms · 2 full, 1 half baths · 1,812 sq ft · lot 9,100 sq ft · built 1987"."""
    out = []
    if "bedrooms_total" in facts:
        out.append(phrase("facts-bedrooms", n=round(facts["bedrooms_total"])))
    if "bathrooms_full" in facts:
        full, half = facts["bathrooms_full"] or 0, facts.get("bathrooms_half") or 0
        out.append(phrase("facts-baths", baths=fact(facts, "bathrooms"), n=round(full + half)))
    if "living_area" in facts:
        out.append(phrase("facts-size", size=f"{facts['living_area']:,.0f}"))
    if "lot_size_square_feet" in facts:
        out.append(phrase("facts-lot", size=f"{facts['lot_size_square_feet']:,.0f}"))
    if "year_built" in facts:
        out.append(phrase("facts-built", year=f"{facts['year_built']:.0f}"))
    return " · ".join(out)


def amount(value: float | None) -> str:
    return phrase("amount-unknown") if value is None else signed(value) if half_up(value) else "0"


def day(given: str | dt.date | None) -> str:
    """2026-10-31 → Oct 31, 2026."""
    return said(given) if given else "—"


def distance(miles: float | None) -> str:
    """Miles with two decimals; a dash where it is not known where one of the two stands."""
    return UNKNOWN if miles is None else Quantity(miles, "mi", 2)


def range_name(span: Mapping[str, Any] | None) -> str:
    """What stands over a range: whether it has been measured never drops away on the way to the paper."""
    if span is None:
        return phrase("range-name", pct=80)
    return phrase("range-name" if span["measured"] else "range-name-not-measured", pct=round(100 * span["coverage"]))


def range_in_a_line(span: Mapping[str, Any]) -> str:
    """How sure the range is, as a seller reads it."""
    share = share_words(span["coverage"])
    return phrase("range-tested" if span["measured"] else "range-not-tested", share=share)


def range_meaning(span: Mapping[str, Any] | None) -> str:
    """What a range is, for the page of words: it is said to be tested only where it was."""
    share = share_words(span["coverage"] if span is not None else COVERAGE)
    tested = span is not None and span["measured"]
    return phrase("range-meaning-tested" if tested else "range-meaning-not-tested", share=share)


def per_sqft_alone(value: float | None, digits: int = 2) -> str:
    """The same in a cell whose head names the unit."""
    return Quantity(value, "$/sq ft", digits) if value else ""


def per_sqft(value: float | None) -> str:
    """Dollars a square foot, "" where the size is not known."""
    return phrase("price-per-square-foot", amount=f"{value:,.0f}") if value else ""
