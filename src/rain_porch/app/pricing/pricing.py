"""The price of one home from its comps on one day: load → adjust → weigh → worth."""

from __future__ import annotations

import datetime as dt
from collections.abc import Callable, Mapping, Sequence
from dataclasses import dataclass, field

import numpy as np

from ...core.facts.dates import date_of
from ...core.facts.fields import RANK, line_label
from ...core.facts.homes import Candidate, Subject
from ...core.facts.house_rules import HouseRules
from ...core.facts.money import half_up
from ...core.market.change.market_change import MarketChange
from ...core.market.columns import Floats
from ...core.market.listing_facts import (
    price_days,
)
from ...core.market.own_sale import last_own_sale
from ...core.price import evidence as ev
from ...core.price.backtest import COVERAGE, Calibration, PastCases, normal_factor
from ...core.price.checks import cautions
from ...core.price.evidence import Evidence, Rate, evidence
from ...core.price.grid import Adjusted, Comp, Own, adjust, apart
from ...core.price.location import at_its_own_spot, location_pct
from ...core.price.range_width import Cause, half_width, why_wide
from ...core.price.rate_evidence import moved_since
from ...core.price.weights import MODEL, beside_model, model_weight, weigh
from ...core.price.worth import (
    ROUNDING,
    Method,
    Range,
    Voice,
    brought_forward,
    indicated,
    methods,
    size_corrected,
    value_range,
    without,
)
from ...core.statistics.summary import known
from ...store.records.backtests import cases_of
from .rates import asked_for, no_evidence, rates_for, source_of, with_typed
from .standpoint import Standpoint
from .wide_models import market_fit, wide_model


@dataclass(frozen=True)
class Decided:
    """What the agent has decided that bears on the numbers. Rates in dollars; market change in percent a month."""

    rates: Mapping[str, float] = field(default_factory=dict)
    cells: Mapping[str, Mapping[str, float]] = field(default_factory=dict)
    weights: Mapping[str, float] = field(default_factory=dict)  # shares set by hand
    conditions: Mapping[str, int] = field(default_factory=dict)  # of comps, rated by the agent: 6 new to 1 damaged
    own: Sequence[Own] = ()  # lines for what no field of the records holds


@dataclass(frozen=True)
class Width:
    """Half of a range, in logarithms. fit: by the fit alone; times: times that, so that it holds what the house asks of it; usual:
    half of one that holds four of five, whatever the house asks: what the value may be off by."""

    fit: float
    times: float
    usual: float


@dataclass(frozen=True)
class Pricing:
    comps: list[Candidate]
    adjusted: list[Adjusted]
    weights: list[float]
    rates: Mapping[str, Rate]
    market_change: MarketChange
    value: float | None
    range: Range | None
    methods: list[Method]
    warnings: list[str]
    n_local: int
    found: Evidence | None = None
    voice: Voice | None = None  # the model's; its weight and the comps' add up to 1
    range_causes: Sequence[Cause] = ()  # what makes the range wider than usual
    apart: Sequence[Own] = ()  # lines equal for all comps, added once after their mean
    notes: Sequence[str] = ()  # those of the warnings that are about the evidence
    ages: Sequence[float] = ()  # days since each comp's price was agreed
    width: Width | None = None  # of the range
    rounding: int = ROUNDING  # dollars to which the indicated value and its range are shown

    @property
    def shown(self) -> float | None:
        """The indicated value as it stands on every screen and page."""
        return None if self.value is None else half_up(self.value, self.rounding)


def price(
    standpoint: Standpoint,
    comps: Sequence[Candidate],
    *,
    decided: Decided | None = None,
    leave_out_home: bool = False,
    shared: ev.WideFit | None = None,
    evidence_of: Callable[[int], Evidence | None] | None = None,
) -> Pricing:
    """Rates, grid, weights, indicated value and range for these comps, in the given order.

    evidence_of: the evidence of so many days where it is kept; else it is found, around `shared` where a wide fit is given.

    Raises NotEnough where the records hold no sale to learn from at all. Without comps there is no value and
    the warnings say so.
    """
    here = standpoint.subject
    past = _past_cases(standpoint)
    decided = decided or Decided()
    sold = [c for c in comps if c.kind in ("sold", "deed_sale") and c.price and c.date]
    columns, day = standpoint.columns, standpoint.view.day
    ages = (day - price_days(columns, np.array([c.row for c in sold], dtype=np.int64))).astype(np.float64)
    window = int(max(180, *ages)) if sold else 180
    if evidence_of is None:
        model = wide_model(standpoint.records, here, day)
        wide = shared or market_fit(standpoint, leave_out_home)
        told = None
        if wide is not None:
            told = evidence(columns, standpoint.view, here, window, leave_out_home, wide, model)
    else:
        told = evidence_of(window)
    found = told or no_evidence(sold)
    rates, change = with_typed(rates_for(standpoint, found, sold), found.market_change, decided.rates)
    facts = _comps_facts(standpoint, found, sold, decided.conditions)
    notes = [*_about_evidence(told, here, rates), *asked_for(here, rates, facts)]
    if not sold:
        notes.append("No comps are kept yet: keep some sales to see an indicated value.")
        ways = methods(here, [], np.zeros(0), [], found.model_value, found.n_model, (), None, _fitted(found))
        return Pricing(
            [], [], [], rates, change, None, None, ways, notes, found.n_local, found,
            rounding=standpoint.rules.whole("price.rounding"),
        )  # fmt: skip
    adjusted, once = _grid(standpoint, sold, ages, facts, rates, change, decided)
    gross = np.array([a.gross_pct for a in adjusted])
    among = weigh(
        np.array([a.adjusted_price for a in adjusted]), gross,
        np.array([c.likeness for c in sold]), ages, found.model_value,
    )  # fmt: skip
    fixed = {i: decided.weights[c.listing_id] for i, c in enumerate(sold) if c.listing_id in decided.weights}
    if MODEL in decided.weights:
        fixed[len(sold)] = decided.weights[MODEL]
    comps_say, heavily = indicated(adjusted, among), float(gross @ among)
    said = _model_says(found, decided.own, once)
    weights, share = beside_model(among, model_weight(comps_say, said), fixed)
    voice = Voice(said, share) if said is not None else None
    value = indicated(adjusted, weights, once, voice)
    span, width = _range(past, value, half_width(found, here, comps_say, heavily), day, standpoint.rules)
    return Pricing(
        sold, adjusted, [float(w) for w in weights], rates, change, value,
        span,
        _ways(standpoint, sold, adjusted, weights, found, rates, once, voice),
        [*notes, *cautions(here, sold, adjusted, indicated(adjusted, weights, (), voice), standpoint.rules)],
        found.n_local, found, voice, why_wide(found, here, comps_say, heavily), once, tuple(notes), [float(a) for a in ages],
        width, standpoint.rules.whole("price.rounding"),
    )  # fmt: skip


def _fitted(found: Evidence) -> dt.date | None:
    return date_of(found.model.day) if found.model else None


def _model_says(found: Evidence, own: Sequence[Own], once: Sequence[Own]) -> float | None:
    """What the wide model says of the home, with those of its own lines that are in each comp's price; None without the model."""
    if found.model is None or not found.model_value:
        return None
    return found.model_value + sum(x.amount or 0.0 for x in own if x not in once)


def _about_evidence(told: Evidence | None, subject: Subject, rates: Mapping[str, Rate]) -> list[str]:
    """What an agent must know of the evidence; told None: there was none, house rules stand for it."""
    out = []
    if told is None:
        out.append("Fewer than five sales around here: the rates are house rules and no market change is used.")
    elif told.market_change.past_data:
        out.append("Some comps are older than the sales from which market change is read.")
    if not subject.placed:
        out.append(
            "It is not known where the home stands: distances cannot be told, and sales of its neighbourhood count alike. "
            "Set its place on the map in Home."
        )
    if taken := [line_label(name) for name in rates if source_of(name) in subject.from_lease]:
        them = "it" if len(taken) == 1 else "them"
        out.append(f"{', '.join(taken)}: known only from a listing for lease. Check {them} in Home.")
    return out


def _grid(
    standpoint: Standpoint,
    sold: Sequence[Candidate],
    ages: Floats,
    facts: Sequence[Mapping[str, float]],
    rates: Mapping[str, Rate],
    change: MarketChange,
    decided: Decided,
) -> tuple[list[Adjusted], list[Own]]:
    """Each comp adjusted, with the lines that are equal for all of them, which are added once."""
    given_back = standpoint.columns.numbers["concessions_amount"]
    comps = [
        Comp(c.listing_id, float(c.price or 0), float(age), its, known(given_back[c.row]), decided.cells.get(c.listing_id, {}))
        for c, age, its in zip(sold, ages, facts, strict=True)
    ]  # fmt: skip
    once = apart(decided.own, comps)
    names = frozenset(x.field for x in once)
    at_home = at_its_own_spot(standpoint.subject)
    rules = standpoint.rules
    return [adjust(at_home, comp, rates, change.pct_per_month, decided.own, names, rules) for comp in comps], once


def _ways(
    standpoint: Standpoint,
    sold: Sequence[Candidate],
    adjusted: Sequence[Adjusted],
    weights: Floats,
    found: Evidence,
    rates: Mapping[str, Rate],
    once: Sequence[Own],
    voice: Voice | None,
) -> list[Method]:
    """The ways to a number beside each other."""
    subject = standpoint.subject
    per_sqft = [c.price_per_sqft for c in sold if c.price_per_sqft]
    ways = methods(subject, adjusted, weights, per_sqft, found.model_value, found.n_model, once, voice, _fitted(found))
    more = (size_corrected(subject, sold, rates.get("living_area")), _brought_forward(standpoint, found))
    return without([*ways, *(way for way in more if way is not None)], once)


def _past_cases(standpoint: Standpoint) -> Calibration:
    """The cases of the kept backtests around the home."""
    records, here = standpoint.records, standpoint.subject
    kind = here.home_kind.value
    held = records.remember(("past cases", kind), lambda: PastCases.from_rows(cases_of(records.db, kind)))
    return held.near(here.latitude, here.longitude)


def _range(past: Calibration, value: float, half_width: float, day: int, rules: HouseRules) -> tuple[Range, Width]:
    """As wide as past sales around here have shown it must be; where none was tested, as the fit has it."""

    def times(coverage: float) -> tuple[float, bool]:
        factor, measured = past.factor(value, day, coverage)
        return (factor if measured else normal_factor(coverage)), measured

    coverage = rules["price.range_pct"] / 100
    asked, measured = times(coverage)
    usual = asked if coverage == COVERAGE else times(COVERAGE)[0]
    span = value_range(value, half_width * asked, measured, coverage, rules.whole("price.rounding"))
    return span, Width(half_width, asked, half_width * usual)


def _brought_forward(standpoint: Standpoint, found: Evidence) -> Method | None:
    """The home's own last sale, where the index reaches back to it."""
    last = last_own_sale(standpoint.columns, standpoint.view, standpoint.subject)
    if last is None:
        return None
    agreed = int(price_days(standpoint.columns, np.array([last]))[0])
    factor = moved_since(found, float(agreed), standpoint.view.day)
    return None if factor is None else brought_forward(float(standpoint.view.price[last]), date_of(agreed), factor)


def _comps_facts(
    standpoint: Standpoint, found: Evidence, comps: Sequence[Candidate], rated: Mapping[str, int]
) -> list[dict[str, float]]:
    """The comps' numbers, with their condition and their location in percent against the subject's spot."""
    columns = standpoint.columns
    rows = np.array([c.row for c in comps], dtype=np.int64)
    out = [{k: float(v) for k, v in c.facts.items() if isinstance(v, (int, float))} for c in comps]
    extra = {}
    if "condition_grade" in columns.numbers:
        extra["condition_grade"] = columns.numbers["condition_grade"][rows]
    extra |= {name: columns.numbers[name][rows] for name in found.rates if name.startswith(RANK)}
    if found.surface is not None and rows.size:
        extra["location"] = location_pct(
            found.surface, standpoint.subject, columns.lats[rows], columns.lons[rows], rows
        )
    for name, values in extra.items():
        for facts, value in zip(out, values, strict=True):
            if np.isfinite(value):
                facts[name] = float(value)
    for facts, comp in zip(out, comps, strict=True):
        if comp.listing_id in rated:
            facts["condition_grade"] = float(rated[comp.listing_id])
    return out
