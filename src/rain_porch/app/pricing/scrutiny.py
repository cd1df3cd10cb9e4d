"""A workup's price looked at as an appraiser would, and one of its rates opened to the sales behind it."""

from __future__ import annotations

import math
from collections.abc import Sequence
from dataclasses import dataclass

import numpy as np

from ...core.errors import BadInput, NotEnough
from ...core.market.features import features_of
from ...core.market.listing_facts import price_days
from ...core.price import rate_evidence as re
from ...core.price.checks import Asked, Check, checks
from ...core.price.evidence import Rate
from ...core.price.location import PlaceWorth, place_worth
from ...core.price.rate_curve import Curve, rate_curve
from ...core.price.weights import Factor, from_model, weight_factors, why_heaviest
from ...store.records.areas import between
from ...store.records.sellers import sellers_of
from .opened import Opened
from .pricing import Pricing
from .wide_models import wide_model


def checked(opened: Opened, pricing: Pricing) -> list[Check]:
    """Every check of the price as it stands, those with something to do first."""
    return opened.standpoint.records.remember(("checks", *opened.decided), lambda: _checked(opened, pricing))


def _checked(opened: Opened, pricing: Pricing) -> list[Check]:
    standpoint, columns = opened.standpoint, opened.standpoint.columns
    here = standpoint.subject.longitude, standpoint.subject.latitude
    spots = {c.listing_id: (float(columns.lons[c.row]), float(columns.lats[c.row])) for c in pricing.comps}
    spots = {key: spot for key, spot in spots.items() if math.isfinite(spot[0] + spot[1])}
    db = standpoint.records.db
    change = pricing.market_change
    rows = np.array([c.row for c in pricing.comps], dtype=np.int64)
    return checks(
        Asked(
            standpoint.subject,
            pricing.comps,
            pricing.adjusted,
            (standpoint.view.day - price_days(columns, rows)).astype(float).tolist(),
            None if pricing.value is None else pricing.value - sum(x.amount or 0.0 for x in pricing.apart),
            opened.state.list_price,
            change.pct_per_month,
            change.low == change.high or change.low > 0 or change.high < 0,
            between(db, here, spots),
            sellers_of(db, [c.listing_id for c in pricing.comps]) if pricing.comps else {},
            pricing.notes,
            standpoint.rules,
        )
    )


@dataclass(frozen=True)
class OpenedRate:
    used: Rate
    choices: list[re.Choice]
    plot: re.PartialPlot | None
    pairs: re.Pairs
    curve: Curve | None


def opened_rate(opened: Opened, pricing: Pricing, name: str) -> OpenedRate:
    """One rate of the grid with all that speaks for it and against it. Raises BadInput for a field without a rate."""
    found, standpoint = pricing.found, opened.standpoint
    told = {*features_of(opened.subject.home_kind), *(found.rates if found else ())}
    features = [x for x in pricing.rates if x in told]
    if name not in features:
        raise BadInput("field", f"“{name}” has no rate that sales tell of; use one of {', '.join(features)}.")
    plot, pairs = None, re.NO_PAIRS
    if found is not None:
        plot = re.partial_plot(found, name)
        pairs = re.paired_sales(found, standpoint.columns, name, standpoint.view.day)
    worth = (found.model_value if found else None) or pricing.value or 0.0
    curve = None
    if found is not None:
        model = wide_model(standpoint.records, standpoint.subject, standpoint.view.day)
        curve = rate_curve(model, found, standpoint.columns, standpoint.subject, name)
    told_choices = re.choices(found, pairs, standpoint.columns, standpoint.subject, name, worth)
    return OpenedRate(pricing.rates[name], told_choices, plot, pairs, curve)


def opened_place(opened: Opened, pricing: Pricing) -> PlaceWorth:
    """What spots around the home are worth of themselves. Raises NotEnough where no sale tells."""
    surface = pricing.found.surface if pricing.found else None
    told = place_worth(surface, opened.standpoint.subject) if surface else None
    if told is None:
        raise NotEnough(
            "No sale with a place tells what spots around here are worth: say where the home stands, in Home."
        )
    return told


def factors_of(pricing: Pricing) -> list[list[Factor]]:
    """Of each comp, in their order, what makes its weight."""
    if not pricing.comps:
        return []
    return weight_factors(
        np.array([c.likeness for c in pricing.comps]),
        np.maximum(np.array(pricing.ages), 0),
        np.array([a.gross_pct for a in pricing.adjusted]),
        from_model(
            np.array([a.adjusted_price for a in pricing.adjusted]), pricing.found.model_value if pricing.found else None
        ),
    )


def weights_say(pricing: Pricing, names: Sequence[str], factors: list[list[Factor]]) -> str:
    """Why the heaviest of the comps weighs most; nothing before any is kept."""
    if not pricing.comps:
        return ""
    named = [name or c.listing_id for name, c in zip(names, pricing.comps, strict=True)]
    return why_heaviest(named, np.array(pricing.weights), factors)
