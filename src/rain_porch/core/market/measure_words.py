"""What each market measure means, in a sentence that a seller understands."""

from __future__ import annotations

from collections.abc import Mapping

from .market_rules import MarketRules


def words_of(rules: MarketRules) -> Mapping[str, tuple[str, str]]:
    """measure → (word, what it means), by the house's rules."""
    told = words_told(rules)
    return {name: (word, meaning.format_map(told)) for name, (word, meaning) in MEASURE_WORDS.items()}


def words_told(rules: MarketRules) -> Mapping[str, str]:
    """What stands in a meaning for what the house has chosen."""
    return {"gap": rules.back_within, "pace": rules.pace_of}


# with {gap} and {pace} for what the house has chosen
MEASURE_WORDS: Mapping[str, tuple[str, str]] = {
    "median_price": ("Median price", "half of the homes that closed brought more, half less"),
    "same_home_price": (
        "Price of the same home",
        "what one and the same home would bring: free of whether large or small homes happened to sell",
    ),
    "median_price_per_sqft": ("Price per sq ft", "what was paid, divided by the living area; the median of the homes"),
    "closings": ("Closing", "the day on which a home changes hands"),
    "contracts": ("Contract", "the day on which a seller takes a buyer's offer"),
    "new_listings": (
        "New listing",
        "a home that comes on for the first time; one that comes back within {gap} is none",
    ),
    "median_days": (
        "Days on the market",
        "from the day a home comes on to its contract, less days on hold; half needed fewer",
    ),
    "months_of_supply": (
        "Months of supply",
        "how long the homes for sale would last at the pace of {pace}",
    ),
    "median_share_of_list": (
        "Share of list price",
        "what was paid as a share of the last price asked; the median of the homes",
    ),
    "median_share_of_original": ("Share of first list price", "the same of the price asked at first"),
    "share_with_price_cut": ("Price cut", "a home for sale that asks less now than at first"),
}
