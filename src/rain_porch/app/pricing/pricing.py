"""Candidates and price of one home on one date: load → search → weigh → adjust → worth."""

from __future__ import annotations

from collections.abc import Callable, Mapping, Sequence
from dataclasses import dataclass, field, replace

import numpy as np

from ...core.errors import NotEnough
from ...core.facts.dates import NO_DAY, date_of
from ...core.facts.fields import ADJUSTED, BY_NAME, CATALOGUE, FIELDS
from ...core.facts.homes import Candidate, Subject
from ...core.facts.money import rate_words
from ...core.facts.place import miles
from ...core.market.columns import HOME_KINDS, RECORD_KINDS, SOLD, AsOf, Columns, Floats, Ints
from ...core.market.features import features_of
from ...core.market.listing_facts import (
    days_on_market,
    differences,
    flags,
    price_days,
    price_per_sqft,
    prices_of,
    status_said,
)
from ...core.market.market_change import MarketChange
from ...core.market.own_sale import last_own_sale
from ...core.price import evidence as ev
from ...core.price.backtest import Calibration
from ...core.price.checks import cautions
from ...core.price.evidence import Evidence, Rate, evidence, house_rate, location_rate
from ...core.price.grid import Adjusted, Comp, Own, adjust, apart
from ...core.price.rate_evidence import moved_since
from ...core.price.valuation import location_pct
from ...core.price.worth import (
    Method,
    Range,
    brought_forward,
    comp_weights,
    from_model,
    indicated,
    methods,
    size_corrected,
    value_range,
    with_set_weights,
    without,
)
from ...core.search import search as sr
from ...core.search.likeness import Likeness, days_since, likeness
from ...core.search.steps import loosened_until_enough
from ...store.backtests import cases_near
from ..snapshot import Snapshot
from .roads import by_roads

TAKE = 12
SHOWN_FACTS = (
    *(f.name for f in FIELDS if f.group in ("home", "price", "costs")),
    "bathrooms_total", "subdivision_name", "building_name", "city", "postal_code", "local_status",
)  # fmt: skip


@dataclass(frozen=True)
class Standpoint:
    """Everything a computation stands on: the market, its view at a day, and the subject."""

    records: Snapshot
    columns: Columns
    view: AsOf
    subject: Subject
    distressed: float | None = None  # share of distressed sales, where it has been counted already

    @classmethod
    def at(cls, records: Snapshot, subject: Subject, day: int) -> Standpoint:
        columns = records.columns
        return cls(records, columns, columns.as_of(day), subject)

    def distressed_share(self) -> float:
        """Share of distressed ones among the year's sales of the subject's kind; 0 where there are none."""
        rows = self.view.rows_since(SOLD, self.view.day - 365)
        rows = rows[self.columns.home_kind[rows] == HOME_KINDS.index(self.subject.home_kind)]
        return float(self.columns.distressed[rows].mean()) if rows.size else 0.0

    def run(self, search: sr.Search) -> sr.Found:
        sr.check(search)
        return sr.run(search, self.columns, self.view, self.subject, self.records.masks_of(search))

    def likeness(self, rows: Ints) -> tuple[Floats, Floats, Floats]:
        """(score, known share, distance in miles) of rows."""
        like, far = self._likeness(rows)
        return like.score, like.known, far

    def _likeness(self, rows: Ints) -> tuple[Likeness, Floats]:
        s, c = self.subject, self.columns
        far = miles(s.latitude, s.longitude, c.lats[rows], c.lons[rows])
        return likeness(s, c, rows, far, days_since(self.view.date[rows], self.view.day)), far

    def likeness_parts(self, row: int) -> dict[str, tuple[float | None, float]]:
        """Each part of one record's likeness, 0 to 1 (None where unknown), with its share of the whole weight."""
        like, _ = self._likeness(np.array([row], dtype=np.int64))
        whole = sum(like.weights.values())
        return {name: (_known(float(part[0])), like.weights[name] / whole) for name, part in like.parts.items()}

    def proposed(self) -> sr.Search:
        share = self.distressed_share() if self.distressed is None else self.distressed
        return sr.proposed_search(self.subject, date_of(self.view.day).year, share)


def candidates(standpoint: Standpoint, rows: Ints, limit: int = 2000) -> list[Candidate]:
    """The found records with their facts, most alike first."""
    score, known, far = standpoint.likeness(rows)
    order = np.argsort(-score, kind="stable")[:limit]
    rows, score, known, far = rows[order], score[order], known[order], far[order]
    view, columns = standpoint.view, standpoint.columns
    on_market = days_on_market(columns, view, rows)
    facts = columns.facts(rows, SHOWN_FACTS)
    of_listing = prices_of(columns, view, rows, on_market)
    roads = by_roads(standpoint.records, columns, standpoint.subject, rows)
    out = []
    for i, row in enumerate(int(r) for r in rows):
        price = _known(view.price[row])
        area = _known(columns.numbers["living_area"][row])
        out.append(
            Candidate(
                row=row,
                listing_id=str(columns.keys[row]),
                kind=RECORD_KINDS[view.kind[row]].value,
                distance_miles=round(float(far[i]), 4),
                date=None if view.date[row] == NO_DAY else date_of(int(view.date[row])),
                price=price,
                list_price=_known(view.list_price[row]),
                price_per_sqft=price_per_sqft(price, area),
                days_on_market=None if np.isnan(on_market[i]) else int(on_market[i]),
                likeness=round(float(score[i]), 2),
                known_share=round(float(known[i]), 3),
                facts=facts[i],
                differences=(*differences(columns, row, standpoint.subject), *([roads[i]] if roads[i] else [])),
                flags=flags(columns, view, row),
                status=status_said(columns, view, row),
                prices=of_listing[i],
            )
        )
    return out


def _known(value: float) -> float | None:
    return None if np.isnan(value) else float(value)


def sold_rows(standpoint: Standpoint, search: sr.Search) -> Ints:
    rows = standpoint.run(search).rows
    return np.asarray(rows[standpoint.view.kind[rows] == SOLD])


def loosened(standpoint: Standpoint, search: sr.Search) -> tuple[sr.Search, list[str]]:
    """The search as it is, or loosened step by step until it finds six sales."""
    return loosened_until_enough(search, lambda s: sold_rows(standpoint, s), lambda rows: standpoint.likeness(rows)[0])


@dataclass(frozen=True)
class Decided:
    """What the agent has decided that bears on the numbers. Rates in dollars; market change in percent a month."""

    rates: Mapping[str, float] = field(default_factory=dict)
    cells: Mapping[str, Mapping[str, float]] = field(default_factory=dict)
    weights: Mapping[str, float] = field(default_factory=dict)  # shares set by hand
    conditions: Mapping[str, int] = field(default_factory=dict)  # of comps, rated by the agent: 6 new to 1 damaged
    own: Sequence[Own] = ()  # lines for what no field of the records holds


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
    apart: Sequence[Own] = ()  # lines equal for all comps, added once after their mean
    notes: Sequence[str] = ()  # those of the warnings that are about the evidence
    ages: Sequence[float] = ()  # days since each comp's price was agreed


def most_alike(standpoint: Standpoint, search: sr.Search) -> list[Candidate]:
    """The twelve most alike sales that a search finds."""
    return candidates(standpoint, sold_rows(standpoint, search), TAKE)


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
    decided = decided or Decided()
    sold = [c for c in comps if c.kind in ("sold", "deed_sale") and c.price and c.date]
    columns, day = standpoint.columns, standpoint.view.day
    ages = (day - price_days(columns, np.array([c.row for c in sold], dtype=np.int64))).astype(np.float64)
    window = int(max(180, *ages)) if sold else 180
    if evidence_of is None:
        found = evidence(columns, standpoint.view, standpoint.subject, window, leave_out_home, shared)
    else:
        found = evidence_of(window)
    warnings: list[str] = []
    if found is None:
        found = _no_evidence(sold)
        warnings.append("Fewer than five sales around here: the rates are house rules and no market change is used.")
    elif found.market_change.past_data:
        warnings.append("Some comps are older than the sales from which market change is read.")
    rates = rates_for(standpoint, found, sold)
    if taken := [label(name) for name in rates if _source_of(name) in standpoint.subject.from_lease]:
        warnings.append(
            f"{', '.join(taken)}: known only from a listing for lease. Check {'it' if len(taken) == 1 else 'them'} in Home."
        )
    for name, dollars in decided.rates.items():
        if name in rates:
            rates[name] = replace(rates[name], dollars=dollars, se=0.0, source="typed", weak=False, says="")
    change = found.market_change
    if "market_change" in decided.rates:
        typed = decided.rates["market_change"]
        change = replace(change, pct_per_month=typed, low=typed, high=typed)
    units = {f.name: f.unit for f in CATALOGUE}
    facts = _comps_facts(standpoint, found, sold, decided.conditions)
    warnings += _asked_for(standpoint, rates, facts)
    here = replace(standpoint.subject, facts={**standpoint.subject.facts, "location": 0.0})
    of_grid = [
        Comp(
            c.listing_id, float(c.price or 0), float(age), known, _known(columns.numbers["concessions_amount"][c.row]),
            decided.cells.get(c.listing_id, {}),
        )
        for c, age, known in zip(sold, ages, facts, strict=True)
    ]  # fmt: skip
    once = apart(decided.own, of_grid)
    names = frozenset(x.field for x in once)
    adjusted = [adjust(here, comp, rates, change.pct_per_month, units, decided.own, names) for comp in of_grid]
    if not sold:
        warnings.append("No comps are kept yet: keep some sales to see an indicated value.")
        ways = methods(standpoint.subject, [], np.zeros(0), [], found.model_value, found.n_local)
        return Pricing([], [], [], rates, change, None, None, ways, warnings, found.n_local, found)
    weights = comp_weights(
        np.array([c.likeness for c in sold]),
        np.maximum(ages, 0),
        np.array([a.gross_pct for a in adjusted]),
        from_model(np.array([a.adjusted_price for a in adjusted]), found.model_value),
    )
    fixed = {i: decided.weights[c.listing_id] for i, c in enumerate(sold) if c.listing_id in decided.weights}
    if fixed:
        weights = with_set_weights(weights, fixed)
    mean = indicated(adjusted, weights)
    value = indicated(adjusted, weights, once)
    per_sqft = [c.price_per_sqft for c in sold if c.price_per_sqft]
    ways = methods(standpoint.subject, adjusted, weights, per_sqft, found.model_value, found.n_local, once)
    ways += [
        way
        for way in (
            size_corrected(standpoint.subject, sold, rates.get("living_area")),
            _brought_forward(standpoint, found),
        )
        if way is not None
    ]
    ways = without(ways, once)
    notes = tuple(warnings)
    warnings += cautions(standpoint.subject, sold, adjusted, mean)
    return Pricing(
        sold, adjusted, [float(w) for w in weights], rates, change, value, _range(standpoint, value, found.half_width),
        ways, warnings, found.n_local, found, once, notes, [float(a) for a in ages],
    )  # fmt: skip


def _range(standpoint: Standpoint, value: float, half_width: float) -> Range:
    """The range, as wide as past sales around here have shown it must be; where none was tested, as the fit has it."""
    s = standpoint.subject
    past = cases_near(standpoint.records.db, s.home_kind.value, s.latitude, s.longitude)
    factor, measured = Calibration.from_rows(past).factor(value, standpoint.view.day)
    return value_range(value, half_width * (factor if measured else 1.0), measured)


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
    if found.surface is not None and rows.size:
        extra["location"] = location_pct(found, columns, standpoint.subject, rows)
    for name, values in extra.items():
        for facts, value in zip(out, values, strict=True):
            if np.isfinite(value):
                facts[name] = float(value)
    for facts, comp in zip(out, comps, strict=True):
        if comp.listing_id in rated:
            facts["condition_grade"] = float(rated[comp.listing_id])
    return out


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
            out[name] = house_rate(features[name], worth, level)
    return out


def _differs(standpoint: Standpoint, name: str, rows: Ints) -> bool:
    """Whether a comp differs in a field, or is known in it while the home is not: then the grid asks."""
    if name not in standpoint.columns.numbers:
        return False
    mine, theirs = standpoint.subject.number(name), standpoint.columns.numbers[name][rows]
    return bool((np.isfinite(theirs) & (theirs != (np.nan if mine is None else mine))).any())


def _asked_for(standpoint: Standpoint, rates: Mapping[str, Rate], facts: Sequence[Mapping[str, float]]) -> list[str]:
    """What the grid leaves out because the home's own fact is unknown, what a step of it is worth here, and the remedy."""
    out = []
    for name, rate in rates.items():
        known = sum(name in f for f in facts)
        if name == "location" or standpoint.subject.number(name) is not None or not known or not rate.dollars:
            continue
        what, unit = ("not rated", "a step") if name == "condition_grade" else ("not known of this home", "a unit")
        out.append(
            f"{label(name)} is {what} and is left out, while {known} of {len(facts)} comps are known: here it is worth "
            f"{rate_words(rate.dollars)} {unit}. Give it in Home."
        )
    return out


def _no_evidence(comps: Sequence[Candidate]) -> Evidence:
    prices = [c.price for c in comps if c.price]
    if not prices:
        raise NotEnough("There are not five sales within 25 miles and five years to learn from, and no comps: "
                        "bring in more listings, or loosen the search.")  # fmt: skip
    return Evidence({}, MarketChange(0.0, 0.0, 0.0, 0, 365, (), True), None, 0.25, 0, 0)


def _source_of(name: str) -> str:
    """The fact of the records that a line's feature is read from."""
    return "property_condition" if name == "condition_grade" else name


def label(name: str) -> str:
    """A grid line's name as people read it."""
    other = {"concessions": "Concessions", "market_change": "Market change", "improvements": "Improvements"}
    return other.get(name) or (BY_NAME[name].label if name in BY_NAME else name.removeprefix("own: "))
