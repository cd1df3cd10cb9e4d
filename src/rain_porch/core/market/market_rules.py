"""What an office may choose of how a market is counted."""

from __future__ import annotations

from dataclasses import dataclass

from ..facts.house_rules import HouseRules
from ..phrases import phrase


@dataclass(frozen=True)
class MarketRules:
    """gap_days: a home that comes on again less than so many days after it failed is back, not new, and its days go on.
    supply_months: months of supply are homes for sale ÷ the mean monthly closings of so many months."""

    gap_days: int = 90
    supply_months: int = 12

    @property
    def back_within(self) -> str:
        """ "90 days", as a sentence has it."""
        return phrase("count-days", n=self.gap_days)

    @property
    def pace_of(self) -> str:
        """ "the last 12 months", as a sentence has it."""
        return phrase("last-months", n=self.supply_months)


USUAL_MARKET = MarketRules()


def market_rules(rules: HouseRules) -> MarketRules:
    """Those of the house's rules by which markets are counted."""
    return MarketRules(rules.whole("market.gap_days"), rules.whole("market.supply_months"))
