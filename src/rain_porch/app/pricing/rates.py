"""The grid's rates for the comps at hand: evidence first, else the house rule; what the home's own facts leave open."""

from __future__ import annotations

from collections.abc import Mapping, Sequence
from dataclasses import replace

import numpy as np

from ...core.errors import NotEnough
from ...core.facts.fields import ADJUSTED, RANK, line_label, own_field
from ...core.facts.homes import Candidate, Subject
from ...core.facts.house_rules import prior_of
from ...core.facts.money import rate_words
from ...core.facts.words import LAND_KINDS
from ...core.market.change.market_change import MarketChange
from ...core.market.columns import Ints
from ...core.market.features import features_of
from ...core.price.evidence import Evidence, Rate, house_rate, location_rate
from .standpoint import Standpoint


def rates_for(standpoint: Standpoint, found: Evidence, comps: Sequence[Candidate]) -> dict[str, Rate]:
    """A rate for every adjustable field that the kind of home has: evidence first, else the house rule where it matters."""
    rows = np.array([c.row for c in comps], dtype=np.int64)
    return rates_for_rows(standpoint, found, rows)


def rates_for_rows(standpoint: Standpoint, found: Evidence, rows: Ints) -> dict[str, Rate]:
    """The same for the comps in `rows` of the columns."""
    subject, columns = standpoint.subject, standpoint.columns
    prices = columns.numbers["close_price"][rows]
    worth = found.model_value or (float(np.nanmedian(prices)) if np.isfinite(prices).any() else 0.0)
    features = features_of(subject.home_kind)
    out: dict[str, Rate] = {}
    for name in ADJUSTED:
        if name == "location":
            if found.surface is not None:
                out[name] = location_rate(worth, found.n_local)
        elif name in found.rates:
            out[name] = found.rates[name]
        elif name in features and _differs(standpoint, name, rows):
            level = subject.number(name)
            if features[name].only_where_told or (features[name].log and not level):
                continue
            group = "land" if subject.home_kind in LAND_KINDS else "rates"
            out[name] = house_rate(features[name], worth, level, prior_of(group, name, standpoint.rules))
    return out | {name: rate for name, rate in found.rates.items() if name not in out and rate.dollars}


def with_typed(
    rates: Mapping[str, Rate], change: MarketChange, typed: Mapping[str, float]
) -> tuple[dict[str, Rate], MarketChange]:
    """The rates and the market change with those that the agent typed: dollars, percent a month."""
    out = {
        name: replace(rate, dollars=typed[name], se=0.0, source="typed", weak=False, says="") if name in typed else rate
        for name, rate in rates.items()
    }
    out |= {
        name: Rate(name, dollars, 0.0, 0, "typed", False)
        for name, dollars in typed.items()
        if name not in out and own_field(name) is not None
    }
    if "market_change" in typed:
        pct = typed["market_change"]
        change = replace(change, pct_per_month=pct, low=pct, high=pct)
    return out, change


def _differs(standpoint: Standpoint, name: str, rows: Ints) -> bool:
    """Whether a comp differs in a field, or is known in it while the home is not: then the grid asks."""
    if name not in standpoint.columns.numbers:
        return False
    mine, theirs = standpoint.subject.number(name), standpoint.columns.numbers[name][rows]
    return bool((np.isfinite(theirs) & (theirs != (np.nan if mine is None else mine))).any())


def asked_for(subject: Subject, rates: Mapping[str, Rate], facts: Sequence[Mapping[str, float]]) -> list[str]:
    """What the grid leaves out because the home's own fact is unknown, what a step of it is worth here, and the remedy."""
    out = []
    for name, rate in rates.items():
        known = sum(name in f for f in facts)
        if name == "location" or subject.number(name) is not None or not known or not rate.dollars:
            continue
        what, unit = ("not rated", "a step") if name == "condition_grade" else ("not known of this home", "a unit")
        out.append(
            f"{line_label(name)} is {what} and is left out, while {known} of {len(facts)} comps are known: here it is worth "
            f"{rate_words(rate.dollars)} {unit}. Give it in Home."
        )
    return out


def no_evidence(comps: Sequence[Candidate]) -> Evidence:
    prices = [c.price for c in comps if c.price]
    if not prices:
        raise NotEnough("There are not five sales within 25 miles and five years to learn from, and no comps: "
                        "bring in more listings, or loosen the search.")  # fmt: skip
    return Evidence({}, MarketChange(0.0, 0.0, 0.0, 0, 365, (), True), None, 0.25, 0, 0)


def source_of(name: str) -> str:
    """The fact of the records that a line's feature is read from."""
    return "property_condition" if name == "condition_grade" else name.removeprefix(RANK)
