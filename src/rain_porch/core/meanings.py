"""What the words of the interface and of the paper mean: one glossary, in sentences that an agent and a seller understand.

A meaning is a sentence without its point, so that it can stand beside a word or after it, with what the house has chosen.
"""

from __future__ import annotations

from collections.abc import Mapping
from dataclasses import dataclass

from .facts.house_rules import USUAL, HouseRules
from .market.market_rules import market_rules
from .market.measure_words import MEASURES_EXPLAINED, words_told
from .phrases import phrase
from .price.worth import share_words


@dataclass(frozen=True)
class Meaning:
    word: str
    says: str


WORDS = (
    "likeness", "days_on_market", "cumulative_days", "share_of_list", "share_of_original", "price_per_sqft", "kind",
    "distance_miles", "date", "paid_before", "deed_sale", "fence", "comp", "adjusted_price", "concessions",
    "market_change", "location", "net_gross", "weight", "rate", "house_rule", "indicated_value", "model", "range",
    "chance", "list_price", "failed", "median", "absorption",
    *MEASURES_EXPLAINED,
)  # fmt: skip
OF_PAPER = frozenset((
    "comp", "adjusted_price", "concessions", "market_change", "net_gross", "indicated_value", "model", "median",
    "median_days", "median_share_of_list",
))  # fmt: skip
"""Those that are explained to the reader of a report: none of them hangs on what the house has chosen."""


def meanings_by(rules: HouseRules) -> Mapping[str, Meaning]:
    """What each word means by the house's rules, by the name under which it is pointed at."""
    told = {**words_told(market_rules(rules)), "share": share_words(rules["price.range_pct"] / 100)}
    return {name: Meaning(phrase(f"meaning-{name}"), phrase(f"meaning-{name}.says", **told)) for name in WORDS}


def of_paper() -> list[tuple[str, str]]:
    """(word, sentence) of those that a report explains."""
    return [(m.word, phrase("sentence", words=m.says)) for name, m in meanings_by(USUAL).items() if name in OF_PAPER]
