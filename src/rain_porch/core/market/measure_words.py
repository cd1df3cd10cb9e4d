"""What each market measure means, in a sentence that a seller understands."""

from __future__ import annotations

from collections.abc import Mapping

from ..phrases import phrase
from .market_rules import MarketRules

MEASURES_EXPLAINED = (
    "median_price",
    "same_home_price",
    "median_price_per_sqft",
    "closings",
    "contracts",
    "new_listings",
    "median_days",
    "months_of_supply",
    "median_share_of_list",
    "median_share_of_original",
    "share_with_price_cut",
)


def words_of(rules: MarketRules) -> Mapping[str, tuple[str, str]]:
    """measure → (word, what it means), by the house's rules."""
    told = words_told(rules)
    return {name: (phrase(f"meaning-{name}"), phrase(f"meaning-{name}.says", **told)) for name in MEASURES_EXPLAINED}


def words_told(rules: MarketRules) -> Mapping[str, str]:
    """What stands in a meaning for what the house has chosen."""
    return {"gap": rules.back_within, "pace": rules.pace_of}
