"""The adjustment grid: each comp brought to the subject, line by line, in dollars.

Superior comp → minus, inferior → plus. Order: concessions, market change (on the price net of concessions), then
features in dollars. Each rule is one function that takes one comp or an array of them: `adjust` dresses its amounts for
people, `adjusted_prices` sums them for the many homes of a backtest.
"""

from __future__ import annotations

from collections.abc import Mapping, Sequence
from dataclasses import dataclass, field
from functools import lru_cache

import numpy as np

from ..facts.condition import said
from ..facts.fields import BY_NAME, RANK, line_label
from ..facts.homes import Subject
from ..facts.house_rules import USUAL, HouseRules
from ..facts.money import dollars, pct_words, rate_words, signed
from ..market.change.market_change import OneOrMany, compounded
from ..market.columns import Floats
from ..phrases import phrase
from .evidence import Rate


@dataclass(frozen=True)
class Line:
    """One adjustment. amount None: unknown on one side, nothing adjusted. computed: what stood before an override.

    apart: the line is equal for all comps, and is added once to their mean: it moves no comp's adjusted price.
    """

    field: str
    amount: float | None
    computed: float | None
    theirs: float | None = None
    mine: float | None = None
    rate: float | None = None
    formula: str = ""
    overridden: bool = False
    apart: bool = False


@dataclass(frozen=True)
class Adjusted:
    """A comp brought to the subject. net and gross in percent of the close price."""

    listing_id: str
    close_price: float
    lines: tuple[Line, ...]
    adjusted_price: float
    net: float
    gross: float
    over_limits: tuple[str, ...] = ()

    @property
    def net_pct(self) -> float:
        """Net adjustment in percent of the close price."""
        return 100 * self.net / self.close_price

    @property
    def gross_pct(self) -> float:
        """Gross adjustment in percent of the close price."""
        return 100 * self.gross / self.close_price


@dataclass(frozen=True)
class Own:
    """Something of the subject that no field holds and no comp is known to have. amount None: left to judgement."""

    field: str
    amount: float | None
    formula: str


@dataclass(frozen=True)
class Comp:
    """What the grid needs of a comp. days: from the price's date to the effective date."""

    listing_id: str
    close_price: float
    days: float
    facts: Mapping[str, float]
    concessions: float | None = None
    overrides: Mapping[str, float] = field(default_factory=dict)


def apart(own: Sequence[Own], comps: Sequence[Comp]) -> list[Own]:
    """Those of the subject's own lines that are equal for all comps, since nothing was typed for one of them: added once,
    after the mean, they raise the value by what they say, and enter neither gross, nor limits, nor weights."""
    return [x for x in own if x.amount is not None and not any(x.field in c.overrides for c in comps)]


def market_amount(net_price: OneOrMany, pct_per_month: float, days: OneOrMany) -> OneOrMany:
    """Dollars by which a price net of concessions moved until the effective date: price × ((1 + rate)^months − 1)."""
    return net_price * compounded(pct_per_month, days)


def feature_amount(rate: float, mine: float, theirs: OneOrMany) -> OneOrMany:
    """rate × (subject − comp), in dollars. 85 $ × (1,875 − 2,045) = −14,450."""
    return rate * (mine - theirs)


@dataclass(frozen=True)
class AdjustedPrices:
    """Many comps brought to one subject: their adjusted prices and gross adjustments (percent of the price), (n,)."""

    prices: Floats
    gross_pct: Floats


def adjusted_prices(
    subject: Subject,
    price: Floats,
    days: Floats,
    concessions: Floats,
    facts: Mapping[str, Floats],
    rates: Mapping[str, Rate],
    pct_per_month: float,
) -> AdjustedPrices:
    """What `adjust` says of each comp, summed over its lines, for all at once. Arrays are (n,), NaN where unknown."""
    given = np.nan_to_num(concessions)
    moved = market_amount(price - given, pct_per_month, days)
    net, gross = moved - given, np.abs(moved) + given
    for name, rate in rates.items():
        mine, theirs = subject.number(name), facts.get(name)
        if mine is None or theirs is None:
            continue
        amount = np.nan_to_num(feature_amount(rate.dollars, mine, theirs))
        net, gross = net + amount, gross + np.abs(amount)
    return AdjustedPrices(price + net, 100 * gross / price)


def feature_line(name: str, rate: float, mine: float | None, theirs: float | None, words: tuple[str, ...] = ()) -> Line:
    """One feature's line, its sum in words. Unknown on either side adjusts nothing. words: of a rank, from least to most."""
    if mine is None or theirs is None:
        return Line(name, None, None, theirs, mine, rate, phrase("grid-worked-one-side"))
    amount = feature_amount(rate, mine, theirs)
    unit = BY_NAME[name].unit
    gap = f"({shown(name, mine, words)} − {shown(name, theirs, words)})"
    if name == "condition_grade" or name.startswith(RANK):
        steps = mine - theirs
        gap += f", {phrase('grid-steps-better' if steps > 0 else 'grid-steps-worse', n=abs(steps))}"
    return Line(
        name, amount, amount, theirs, mine, rate,
        f"{gap}{' ' + unit if unit else ''} × {rate_words(rate)} = {signed(amount)}",
    )  # fmt: skip


@lru_cache(4096)
def shown(name: str, value: float, words: tuple[str, ...] = ()) -> str:
    """A fact's value as people read it: a grade is a word, a rank its own, a year has no thousands mark."""
    if name == "condition_grade":
        return said(value)
    if name.startswith(RANK) and 1 <= value <= len(words):
        return words[round(value) - 1]
    return f"{value:.0f}" if name.startswith("year_") else f"{value:,.10g}".replace("-", "−")


def adjust(
    subject: Subject,
    comp: Comp,
    rates: Mapping[str, Rate],
    pct_per_month: float,
    own: Sequence[Own] = (),
    apart: frozenset[str] = frozenset(),
    rules: HouseRules = USUAL,
) -> Adjusted:
    """The whole column of one comp. apart: those of `own` that are added once, after the mean. rules: the house's limits.

    Worked: 412,000 less 6,000 concessions, 174 days at 0.35 % → +8,191; −14,450; +6,000; +12,000 → 417,741, net
    +5,741 (1.39 %), gross 46,641 (11.32 %).
    """
    lines: list[Line] = []
    given = comp.concessions
    lines.append(
        Line("concessions", -given, -given, given, None, None, phrase("grid-worked-concessions", amount=dollars(given)))
        if given is not None
        else Line("concessions", None, None, formula=phrase("grid-worked-unknown"))
    )
    base = comp.close_price - (given or 0.0)
    moved = market_amount(base, pct_per_month, comp.days)
    lines.append(
        Line(
            "market_change", moved, moved, comp.days, 0.0, pct_per_month,
            phrase("grid-worked-market-change", price=dollars(base), pct=pct_words(pct_per_month), days=f"{comp.days:.0f}",
                   amount=signed(moved)),
        )
    )  # fmt: skip
    for name, rate in rates.items():
        lines.append(feature_line(name, rate.dollars, subject.number(name), comp.facts.get(name), rate.words))
    lines += [Line(x.field, x.amount, x.amount, formula=x.formula, apart=x.field in apart) for x in own]
    lines = [_overridden(line, comp.overrides) for line in lines]
    counted = [line for line in lines if not line.apart]
    amounts = [line.amount for line in counted if line.amount is not None]
    net, gross = sum(amounts), sum(abs(a) for a in amounts)
    return Adjusted(
        comp.listing_id, comp.close_price, tuple(lines), comp.close_price + net, net, gross,
        over_limits(comp.close_price, counted, net, gross, rules),
    )  # fmt: skip


def _overridden(line: Line, overrides: Mapping[str, float]) -> Line:
    if line.field not in overrides:
        return line
    return Line(
        line.field, overrides[line.field], line.computed, line.theirs, line.mine, line.rate,
        phrase("grid-typed") if line.computed is None else phrase("grid-typed-for", computed=signed(line.computed)),
        True,
    )  # fmt: skip


def over_limits(
    price: float, lines: Sequence[Line], net: float, gross: float, rules: HouseRules = USUAL
) -> tuple[str, ...]:
    """Review limits that are passed (a long-used lending guideline, from memory): line 10 %, net 15 %, gross 25 %."""
    line_pct, net_pct, gross_pct = (rules[f"review.{part}_pct"] for part in ("line", "net", "gross"))
    out = [
        phrase(
            "limit-line", line=line_label(line.field), pct=f"{100 * abs(line.amount) / price:.1f}", most=f"{line_pct:g}"
        )
        for line in lines
        if line.amount is not None and abs(line.amount) > price * line_pct / 100
    ]
    if abs(net) > price * net_pct / 100:
        out.append(phrase("limit-net", pct=f"{100 * abs(net) / price:.1f}", most=f"{net_pct:g}"))
    if gross > price * gross_pct / 100:
        out.append(phrase("limit-gross", pct=f"{100 * gross / price:.1f}", most=f"{gross_pct:g}"))
    return tuple(out)
