"""A workup's price looked at as an appraiser would, and one of its rates opened to the sales behind it."""

from __future__ import annotations

import math
from dataclasses import dataclass

from ..core import rate_evidence as re
from ..core.checks import Asked, Check, checks
from ..core.errors import BadInput
from ..core.evidence import Rate, house_rate
from ..core.features import BY_NAME as FEATURES
from ..store.areas import between
from ..store.sellers import sellers_of
from .pricing import Pricing, price_day
from .workups import Opened


def checked(opened: Opened, pricing: Pricing) -> list[Check]:
    """Every check of the price as it stands, those with something to do first."""
    setting, columns = opened.setting, opened.setting.columns
    here = setting.subject.longitude, setting.subject.latitude
    spots = {c.listing_id: (float(columns.lons[c.row]), float(columns.lats[c.row])) for c in pricing.comps}
    spots = {key: spot for key, spot in spots.items() if math.isfinite(spot[0] + spot[1])}
    db = setting.records.db
    change = pricing.market_change
    return checks(
        Asked(
            setting.subject,
            pricing.comps,
            pricing.adjusted,
            [float(setting.view.day - price_day(columns, c)) for c in pricing.comps],
            pricing.value,
            opened.state.list_price,
            change.pct_per_month,
            change.low == change.high or change.low > 0 or change.high < 0,
            between(db, here, spots),
            sellers_of(db, [c.listing_id for c in pricing.comps]) if pricing.comps else {},
        )
    )


@dataclass(frozen=True)
class Choice:
    """A rate that may stand in the grid: where it comes from, in dollars a unit, with its standard error and count."""

    source: str
    dollars: float
    se: float | None
    n: int | None
    says: str


@dataclass(frozen=True)
class OpenedRate:
    used: Rate
    choices: list[Choice]
    plot: re.PartialPlot | None
    pairs: re.Pairs


def opened_rate(opened: Opened, pricing: Pricing, name: str) -> OpenedRate:
    """One rate of the grid with all that speaks for it and against it. Raises BadInput for a field without a rate."""
    if name not in pricing.rates or name not in FEATURES:
        raise BadInput("field", f"“{name}” has no rate that sales tell of; use one of {', '.join(FEATURES)}.")
    found, subject = pricing.found, opened.setting.subject
    columns, day = opened.setting.columns, opened.setting.view.day
    choices: list[Choice] = []
    plot, pairs = None, re.Pairs(0, None, None, None, ())
    if found is not None and found.wide is not None:
        plot = re.partial_plot(found, name)
        pairs = re.paired_sales(found, columns, name, day)
        names = [f.name for f in found.wide.features]
        worth = found.worth or 0.0
        if name in names and found.coef is not None:
            j = names.index(name)
            level = subject.number(name)
            per = worth / level if FEATURES[name].log and level else worth
            local = found.rates[name]
            choices.append(
                Choice("local sales", float(found.coef[j]) * per, local.se if local.source != "wider market" else None,
                       found.n_local, "the fit around here")
            )  # fmt: skip
            choices.append(
                Choice("wider market", float(found.wide.fit.coef[j]) * per, float(found.wide.fit.se[j]) * per, found.n_wide,
                       "the fit over the wider market")
            )  # fmt: skip
    if pairs.median is not None:
        choices.append(Choice("paired sales", pairs.median, None, pairs.count, "middle of the pairs below"))
    worth = (found.model_value if found else None) or pricing.value or 0.0
    rule = house_rate(name, worth, subject.number(name))
    choices.append(Choice("house rule", rule.dollars, rule.se, None, "what is usual, before any sale is seen"))
    return OpenedRate(pricing.rates[name], choices, plot, pairs)
