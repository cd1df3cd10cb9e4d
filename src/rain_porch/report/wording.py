"""Facts and figures as a report writes them."""

from __future__ import annotations

import datetime as dt
from collections.abc import Mapping, Sequence
from typing import Any

from ..core.facts.dates import said
from ..core.facts.fields import BY_NAME, Kind, line_label
from ..core.facts.local_form import OwnWords, Quantity
from ..core.facts.money import half_up, signed
from ..core.price.backtest import COVERAGE
from ..core.price.worth import share_words

UNKNOWN = "—"


def fact(facts: Mapping[str, Any], name: str) -> str:
    """One fact in words; “—” where it is unknown. Baths are full and half."""
    if name == "bathrooms":
        full, half = facts.get("bathrooms_full"), facts.get("bathrooms_half")
        if full is None:
            return UNKNOWN
        return f"{full:.0f} full" + (f", {half:.0f} half" if half else "")
    value = facts.get(name)
    if value is None:
        return UNKNOWN
    if BY_NAME[name].kind in (Kind.DATE, Kind.TIME):
        return said(value)
    if not isinstance(value, (int, float)):
        return "none" if value == "None" else OwnWords(value)
    if BY_NAME[name].kind == "year":
        return f"{value:.0f}"
    if BY_NAME[name].kind == "yes_no":
        return "yes" if value else "no"
    unit = BY_NAME[name].unit
    return Quantity(value, unit) if unit == "sq ft" and value == int(value) else f"{value:,.10g}"


def blank(value: str) -> str:
    """The same, and nothing where it is unknown."""
    return "" if value == UNKNOWN else value


def label(name: str) -> str:
    """A line's name with its unit: "Living area, sq ft"; a feature of the agent's own by its own name."""
    if name == "bathrooms":
        return "Baths"
    unit = BY_NAME[name].unit if name in BY_NAME else ""
    return f"{line_label(name)}, {unit}" if unit and unit != "$" else line_label(name)


def known_facts(
    facts: Mapping[str, Any], names: Sequence[str], called: Mapping[str, str] | None = None
) -> list[tuple[str, str]]:
    """(label, value) of those facts that are known. called: labels other than the usual."""
    return [((called or {}).get(n, label(n)), v) for n in names if (v := fact(facts, n)) != UNKNOWN]


def many(n: int, one: str, more: str = "") -> str:
    """ "1 home", "1,204 homes"; more: a plural that is not one with an s."""
    return f"{n:,} {one if n == 1 else more or one + 's'}"


def facts_line(facts: Mapping[str, Any]) -> str:
    """ "3 bedrooms · 2 full, 1 half baths · 1,812 sq ft · lot 9,100 sq ft · built 1987"."""
    out = []
    if "bedrooms_total" in facts:
        n = facts["bedrooms_total"]
        out.append(f"{n:.0f} {'bedroom' if n == 1 else 'bedrooms'}")
    if "bathrooms_full" in facts:
        words = fact(facts, "bathrooms")
        out.append(f"{words} {'bath' if words == '1 full' else 'baths'}")
    if "living_area" in facts:
        out.append(f"{facts['living_area']:,.0f} sq ft")
    if "lot_size_square_feet" in facts:
        out.append(f"lot {facts['lot_size_square_feet']:,.0f} sq ft")
    if "year_built" in facts:
        out.append(f"built {facts['year_built']:.0f}")
    return " · ".join(out)


def amount(value: float | None) -> str:
    return "unknown" if value is None else signed(value) if half_up(value) else "0"


def day(given: str | dt.date | None) -> str:
    """2026-10-31 → Oct 31, 2026."""
    return said(given) if given else "—"


def distance(miles: float | None) -> str:
    """Miles with two decimals; a dash where it is not known where one of the two stands."""
    return UNKNOWN if miles is None else Quantity(miles, "mi", 2)


def range_name(span: Mapping[str, Any] | None) -> str:
    """What stands over a range: whether it has been measured never drops away on the way to the paper."""
    pct = 80 if span is None else round(100 * span["coverage"])
    return f"Likely range, {pct} %" + ("" if span is None or span["measured"] else ", not yet measured")


def range_in_a_line(span: Mapping[str, Any]) -> str:
    """How sure the range is, as a seller reads it."""
    share = share_words(span["coverage"]).capitalize()
    if span["measured"]:
        return f"{share} past sales around here fell within such a range."
    return f"{share} such homes are meant to sell within this range; it is not yet tested on past sales here."


def range_meaning(span: Mapping[str, Any] | None) -> str:
    """What a range is, for the page of words: it is said to be tested only where it was."""
    share = share_words(span["coverage"] if span is not None else COVERAGE)
    if span is not None and span["measured"]:
        return f"A band that held {share} past sales around here when the same method was tried on them."
    return (
        f"A band that is meant to hold {share} such homes. It comes from how far the sales around here lie from the "
        "method's own fit, and has not yet been measured on past sales."
    )


def per_sqft_alone(value: float | None, digits: int = 2) -> str:
    """The same in a cell whose head names the unit."""
    return Quantity(value, "$/sq ft", digits) if value else ""


def per_sqft(value: float | None) -> str:
    """Dollars a square foot, "" where the size is not known."""
    return f"${value:,.0f} per sq ft" if value else ""


def sentence_case(words: str) -> str:
    return words[:1].upper() + words[1:]
