"""House rules: every setting that an office may choose for itself, in one table with name, meaning, unit, usual value and range.

A rule says who may change it: one that is `own` is each agent's for their own work, the office's where they have said nothing;
the others are the office's alone. What is not chosen is as usual.
"""

from __future__ import annotations

import math
from collections.abc import Iterator, Mapping
from dataclasses import dataclass
from functools import cached_property

from ..errors import BadInput
from .fields import BY_NAME, CATALOGUE, Effect, Field, Kind
from .improvements import KINDS


@dataclass(frozen=True)
class HouseRule:
    """usual: the value where nothing is chosen; low, high: the least and the most; whole: no fractions; own: an agent may have
    another than the office; options: nothing but these; of: the field whose label stands in `called`."""

    name: str
    group: str
    called: str
    meaning: str
    unit: str
    usual: float
    low: float
    high: float
    whole: bool = False
    own: bool = True
    options: tuple[float, ...] = ()
    of: str = ""

    @property
    def label(self) -> str:
        """What it is called."""
        return self.called.format(BY_NAME[self.of].label) if self.of else self.called


GROUPS: Mapping[str, str] = {
    "search": "The search that is proposed",
    "likeness": "How alike a home is",
    "review": "Where reviewers begin to ask",
    "price": "How a price is told",
    "market": "How a market is counted",
    "rates": "Rates of built homes, where no sale tells",
    "land": "Rates of land, where no sale tells",
    "improvements": "What an improvement returns of its cost",
}


def _table() -> Iterator[HouseRule]:
    yield from (
        HouseRule("search.sold_days", "search", "Sales of the last", "how far back sales are looked for", "days", 180, 30, 3650, True),
        HouseRule("search.failed_days", "search", "Failed listings of the last", "how far back expired, withdrawn and cancelled ones are looked for", "days", 180, 30, 3650, True),
        HouseRule("search.radius_miles", "search", "Within", "the circle around the home", "mi", 1.0, 0.1, 50),
        HouseRule("search.area_band_pct", "search", "Band of living area", "of the usual one: 200 sq ft either way below 1,000 sq ft, 250 sq ft below 2,000 sq ft, 300 sq ft below 3,000 sq ft and so on", "% of the usual", 100, 20, 500, True),
        HouseRule("search.land_lot_pct", "search", "Lots of land within", "either way of the lot's own size", "%", 15, 2, 200, True),
        HouseRule("search.fewest", "search", "Loosened below", "fewer sales than this, and a search is loosened or its loosening proposed", "sales", 6, 1, 40, True),
        HouseRule("search.most", "search", "Tightened above", "more sales than this, and a tightening is proposed", "sales", 15, 2, 100, True),
        HouseRule("search.taken", "search", "Kept at one press", "so many of the most alike sales are kept where Rain Porch chooses", "sales", 12, 3, 40, True),
        HouseRule("likeness.distance.weight", "likeness", "Distance: weight", "how much it counts beside the others", "", 4.0, 0, 20),
        HouseRule("likeness.distance.tolerance", "likeness", "Distance: alike until", "where likeness falls to nothing", "mi", 1.0, 0.05, 50),
        HouseRule("likeness.days.weight", "likeness", "Days since the sale: weight", "how much it counts beside the others", "", 1.0, 0, 20),
        HouseRule("likeness.days.tolerance", "likeness", "Days since the sale: alike until", "where likeness falls to nothing", "days", 730, 30, 3650, True),
    )  # fmt: skip
    for f in CATALOGUE:
        yield from _likeness(f)
    yield from (
        HouseRule("review.line_pct", "review", "One line", "an adjustment above this share of the sale's price is marked", "% of the price", 10, 1, 100),
        HouseRule("review.net_pct", "review", "Net adjustment", "pluses less minuses above this share are marked", "% of the price", 15, 1, 100),
        HouseRule("review.gross_pct", "review", "Gross adjustment", "pluses and minuses together above this share are marked", "% of the price", 25, 1, 200),
        HouseRule("review.far_miles", "review", "A comp is far beyond", "farther ones are asked about", "mi", 1.0, 0.1, 50),
        HouseRule("review.old_days", "review", "A comp is old beyond", "earlier ones are asked about", "days", 180, 30, 3650, True),
        HouseRule("price.rounding", "price", "Shown to the nearest", "the indicated value and its range; what is behind them stays exact", "$", 100, 50, 5000, True, options=(50, 100, 500, 1000, 5000)),
        HouseRule("price.range_pct", "price", "The range holds", "of such homes, as far as past sales here were tested", "%", 80, 50, 95, True, options=(50, 60, 70, 80, 90, 95)),
        HouseRule("market.supply_months", "market", "Months of supply: at the pace of", "homes for sale, divided by the mean monthly closings of so many months", "months", 12, 1, 12, True, False, (1, 3, 6, 12)),
        HouseRule("market.gap_days", "market", "Back, not new, within", "a home that comes on again this soon after it failed goes on counting its days", "days", 90, 1, 730, True, False),
    )  # fmt: skip
    for f in CATALOGUE:
        yield from _rate(f, f.effect, "rates")
    for f in CATALOGUE:
        yield from _rate(f, f.land_effect, "land")
    for kind, (share, life) in KINDS.items():
        if share:
            yield HouseRule(
                f"improvements.{kind}", "improvements", kind.capitalize(), f"returned when new, fading over {life} years",
                "% of the cost", round(100 * share), 0, 99, own=False,
            )  # fmt: skip


def _likeness(f: Field) -> Iterator[HouseRule]:
    """A field's weight, and where likeness in it ends: a share of the home's own value where the field is relative."""
    if not f.weight:
        return
    yield HouseRule(f"likeness.{f.name}.weight", "likeness", "{}: weight", "how much it counts beside the others", "", f.weight, 0, 20, of=f.name)  # fmt: skip
    if f.numeric and f.tolerance and f.kind != Kind.YES_NO:
        usual = round(100 * math.expm1(f.tolerance), 1) if f.relative else f.tolerance
        unit = (
            "% larger, or as much smaller"
            if f.relative
            else f.unit or ("years" if f.kind == Kind.YEAR else "steps" if f.name == "condition_grade" else "apart")
        )
        yield HouseRule(
            f"likeness.{f.name}.tolerance", "likeness", "{}: alike until", "where likeness falls to nothing", unit,
            usual, round(usual / 20, 2), usual * 20, of=f.name,
        )  # fmt: skip


# what one unit of a feature is called where its field's unit does not tell
_EACH = {
    "year_built": "a year",
    "year_remodelled": "a year",
    "condition_grade": "a step",
    "pool_private_yn": "with one",
    "waterfront_yn": "on it",
}


def _rate(f: Field, effect: Effect | None, group: str) -> Iterator[HouseRule]:
    """What one unit of a feature is worth where no sale speaks, in percent of the price."""
    if effect is None or effect.only_where_told or not f.adjusted:
        return
    each = _EACH.get(f.name) or (f"a {f.unit}" if f.unit else "each")
    unit = "% of the price for 10 % more" if effect.log else f"% of the price, {each}"
    usual = round((10 if effect.log else 100) * effect.prior, 6)
    yield HouseRule(
        f"{group}.{f.name}", group, "{}", "where no sale around here tells", unit, usual, min(0.0, 5 * usual), max(5 * usual, 1.0), own=False, of=f.name,
    )  # fmt: skip


RULES: Mapping[str, HouseRule] = {rule.name: rule for rule in _table()}


@dataclass(frozen=True)
class HouseRules:
    """The rules by which something is worked out. changed: those that are not as usual, by name; the same rules are one value.

    >>> HouseRules.of({"search.radius_miles": 0.5})["search.radius_miles"], USUAL["search.radius_miles"]
    (0.5, 1.0)
    """

    changed: tuple[tuple[str, float], ...] = ()

    @classmethod
    def of(cls, chosen: Mapping[str, float]) -> HouseRules:
        """From chosen values. Names that this program does not know are left out: a newer one may know them."""
        return cls(tuple(sorted((n, float(v)) for n, v in chosen.items() if n in RULES and v != RULES[n].usual)))

    @cached_property
    def _by_name(self) -> Mapping[str, float]:
        return dict(self.changed)

    def __getitem__(self, name: str) -> float:
        """The value of a rule; KeyError for none of the table."""
        return self._by_name.get(name, RULES[name].usual)

    def whole(self, name: str) -> int:
        """The value of a rule that has no fractions."""
        return round(self[name])

    def chosen(self, name: str) -> float | None:
        """The value of a rule that is not as usual; None for one that is."""
        return self._by_name.get(name)


USUAL = HouseRules()


def tolerance_of(f: Field, rules: HouseRules) -> float:
    """Where likeness in a field ends, as likeness counts it: in logarithms where the field is relative."""
    chosen = rules.chosen(f"likeness.{f.name}.tolerance")
    if chosen is None:
        return f.tolerance
    return math.log1p(chosen / 100) if f.relative else chosen


def prior_of(group: str, name: str, rules: HouseRules) -> float | None:
    """What one unit of a feature does to log price where no sale tells (of the logarithm for a size), where the house has chosen it;
    None for what is usually believed. group: rates or land."""
    chosen = rules.chosen(f"{group}.{name}")
    if chosen is None:
        return None
    effect = BY_NAME[name].land_effect if group == "land" else BY_NAME[name].effect
    return chosen / (10 if effect is not None and effect.log else 100)


def share_returned(kind: str, rules: HouseRules) -> float | None:
    """The share of an improvement's cost that comes back, where the house has chosen one; None for the usual."""
    chosen = rules.chosen(f"improvements.{kind}")
    return None if chosen is None else chosen / 100


def rule_named(name: str) -> HouseRule:
    """The rule of a name. BadInput for none."""
    rule = RULES.get(name)
    if rule is None:
        raise BadInput("name", f"“{name[:60]}” is no house rule: they stand in Settings, each with its name.")
    return rule


def checked(name: str, value: float, others: HouseRules = USUAL) -> float:
    """A value that may stand for a rule. BadInput, naming the remedy, for a rule that is none, a value out of its range, and one
    that stands against another rule."""
    rule = rule_named(name)
    if not rule.low <= value <= rule.high:
        raise BadInput("value", f"{rule.label}: {value:g} is out of reason; give {rule.low:g} to {rule.high:g}{' ' + rule.unit if rule.unit else ''}.")  # fmt: skip
    if rule.whole and value != round(value):
        raise BadInput("value", f"{rule.label}: give a whole number, not {value:g}.")
    if rule.options and value not in rule.options:
        told = ", ".join(f"{x:g}" for x in rule.options)
        raise BadInput("value", f"{rule.label}: give one of {told}, not {value:g}.")
    by_name = {"search.fewest": others["search.fewest"], "search.most": others["search.most"], name: value}
    if by_name["search.fewest"] > by_name["search.most"]:
        raise BadInput("value", f"Searches cannot be loosened below {by_name['search.fewest']:g} sales and tightened above {by_name['search.most']:g}: change the other first.")  # fmt: skip
    return value
