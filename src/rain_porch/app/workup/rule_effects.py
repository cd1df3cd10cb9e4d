"""What another rule of the house would change on a workup, told before it is chosen."""

from __future__ import annotations

from collections.abc import Callable, Mapping
from dataclasses import dataclass

from ...core.errors import RainPorchError
from ...core.facts.fields import line_label
from ...core.facts.house_rules import HouseRules
from ...core.facts.money import dollars, rate_words
from ...core.market.measures import MEASURES, series
from ...core.market.view_reading import shown, twelve_months
from ...core.search.sentence import sentence
from ..market.views import market_of
from ..office.agent import Agent
from ..pricing.candidates import sold_rows
from ..pricing.opened import Opened, priced, suggested
from ..pricing.pricing import Pricing
from ..pricing.scrutiny import checked
from .home_market import home_view
from .workups import open_workup


@dataclass(frozen=True)
class Effect:
    """One thing that would be otherwise, as it is and as it would be."""

    what: str
    before: str
    after: str


def effects(agent: Agent, workup_id: int, before: HouseRules, after: HouseRules) -> list[Effect]:
    """What differs on a workup between two sets of rules; empty where nothing does. Nothing is saved."""
    one, other = (open_workup(agent, workup_id, rules) for rules in (before, after))
    return [
        Effect(what, was, would)
        for what, tell in _TOLD.items()
        if (was := _safely(tell, one)) != (would := _safely(tell, other))
    ]


def _safely(tell: Callable[[Opened], str], opened: Opened) -> str:
    try:
        return tell(opened)
    except RainPorchError:
        return "nothing to go by"


def _proposed(opened: Opened) -> str:
    return sentence(opened.standpoint.proposed())


def _finds(opened: Opened) -> str:
    return f"{sold_rows(opened.standpoint, opened.standpoint.proposed()).size} sold"


def _price(of: Pricing) -> str:
    return dollars(of.shown) if of.shown is not None else "none"


def _range(of: Pricing) -> str:
    return f"{dollars(of.range.low)}–{dollars(of.range.high)}" if of.range else "none"


def _rates(of: Pricing) -> str:
    told = [f"{line_label(name)} {rate_words(r.dollars)}" for name, r in of.rates.items() if r.source == "house rule"]
    return ", ".join(told) or "none"


def _over(of: Pricing) -> str:
    return f"{sum(bool(a.over_limits) for a in of.adjusted)} of {len(of.adjusted)}"


def _likeness(of: Pricing) -> str:
    scores = sorted(c.likeness for c in of.comps)
    return f"{scores[0]:.0f} to {scores[-1]:.0f}" if scores else "none kept"


def _measured(name: str) -> Callable[[Opened], str]:
    """A measure of the market around the home over twelve months."""

    def tell(opened: Opened) -> str:
        view, day = home_view(opened), opened.state.effective_date
        market = market_of(opened.standpoint.records, view, view.places, through=day)
        (point,) = series(market, [name], twelve_months(day)[:1])
        value = point.values[name].value
        return "none" if value is None else shown(value, MEASURES[name][0])

    return tell


def _to_do(opened: Opened) -> str:
    return ", ".join(c.label for c in checked(opened, priced(opened)) if not c.ok) or "nothing"


def _of_price(tell: Callable[[Pricing], str]) -> Callable[[Opened], str]:
    return lambda opened: tell(priced(opened))


_TOLD: Mapping[str, Callable[[Opened], str]] = {
    "A search as it is proposed finds": _finds,
    "The search that would be proposed": _proposed,
    "Kept at one press": lambda opened: f"{len(suggested(opened))} sales",
    "Likeness of the kept comps": _of_price(_likeness),
    "Indicated value": _of_price(_price),
    "Range": _of_price(_range),
    "Improvements": lambda opened: dollars(sum(x.amount or 0.0 for x in priced(opened).apart)),
    "Rates where no sale tells": _of_price(_rates),
    "Comps over a review limit": _of_price(_over),
    "What the checks ask for": _to_do,
    "Months of supply around it": _measured("months_of_supply"),
    "New listings around it in twelve months": _measured("new_listings"),
    "Cumulative days of those that sold around it, the mean": _measured("mean_cumulative_days"),
}
