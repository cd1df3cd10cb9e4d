"""What a bulletin says of a market in sentences: what changed, against when, from how many, why it may be, what it means.

Rules, no model: each sentence stands on figures of one span and of the same span a year before, is silent where one of them is
missing, and says so where they are few. Nothing is called hot, nothing is advised where the figures are thin.
"""

from __future__ import annotations

import math
from collections.abc import Mapping
from dataclasses import dataclass

from ...facts.money import dollars
from ..market_rules import USUAL_MARKET, MarketRules
from ..measures import SMALL, Value, change_of
from ..view_reading import figure

FIGURES = (
    "median_price", "same_home_price", "closings", "median_days", "median_share_of_list", "median_share_of_original",
    "months_of_supply", "for_sale", "new_listings", "median_price_per_sqft", "contracts", "share_with_price_cut",
)  # fmt: skip
LISTED = (
    "months_of_supply",
    "for_sale",
    "new_listings",
    "median_days",
    "contracts",
    "share_with_price_cut",
)  # what records of closings alone do not tell
SAME = 1.0  # percent within which a price counts as the same
APART = 2.0  # points by which the median must part from the same home's price before the mix is spoken of
FEW_MONTHS, MANY_MONTHS = 3.0, 6.0  # of supply: below, sellers are asked for more than there are; above, buyers choose
UNKNOWN = Value(None, 0)


@dataclass(frozen=True)
class Figures:
    """FIGURES of a span and of the same span a year before. span: as it follows on "in": "the 12 months to October 2026"."""

    now: Mapping[str, Value]
    before: Mapping[str, Value]
    span: str
    rules: MarketRules = USUAL_MARKET

    def of(self, name: str) -> Value:
        return self.now.get(name, UNKNOWN)

    def was(self, name: str) -> Value:
        return self.before.get(name, UNKNOWN)

    def moved(self, name: str) -> float | None:
        """The change in percent; None where one of both is unknown."""
        change = change_of(self.of(name).value, self.was(name).value, "")
        return None if change is None or not math.isfinite(change.size) else change.size

    @property
    def sold(self) -> int:
        return int(self.of("closings").value or 0)

    @property
    def sold_before(self) -> int:
        return int(self.was("closings").value or 0)

    @property
    def thin(self) -> bool:
        """Whether too few sold, now or a year before, for a change to mean anything."""
        return min(self.sold, self.sold_before) < SMALL


@dataclass(frozen=True)
class Sentences:
    """headline: the one thing that matters. why: what may lie behind it. seller, buyer: what it means for either, "" where the
    figures do not carry it."""

    headline: str
    why: str
    seller: str
    buyer: str


def sentences(f: Figures, homes: str, place: str) -> Sentences:
    """homes: the kind in many, "detached homes". place: as it follows on it, "in Lantern Hill"; may be empty."""
    where = f"{homes} {place}".strip()
    return Sentences(headline(f, where), _why(f), *_meaning(f))


def headline(f: Figures, where: str) -> str:
    """ "Homes in Lantern Hill sold for 3 % more than a year ago: a median of $362,000 (58 sales after 61)." """
    first = where[:1].upper() + where[1:]
    price = f.of("median_price").value
    if not f.sold or price is None:
        return (
            f"No {where} sold in {f.span}."
            if not f.sold
            else f"{first}: {_sales(f.sold)} in {f.span}; no price is recorded."
        )
    median = f"a median of ${dollars(price)}"
    if f.sold < SMALL:
        return f"Too few {where} sold in {f.span} to say more ({f.sold}): {median}."
    moved = f.moved("median_price")
    if not f.sold_before or moved is None:
        return f"{first} sold for {median} in {f.span} ({_sales(f.sold)}); no year before is known to set it against."
    if f.thin:
        return f"{first} sold for {median} in {f.span} ({_sales(f.sold)}); the year before, too few sold to say more ({f.sold_before})."
    counts = f"({_sales(f.sold)} after {f.sold_before:,})"
    if abs(moved) < SAME:
        return f"{first} sold for as much as a year ago: {median} {counts}."
    return f"{first} sold for {pct(moved)} {'more' if moved > 0 else 'less'} than a year ago: {median} {counts}."


def _why(f: Figures) -> str:
    """The price of the same home told apart from which homes happened to sell."""
    if f.thin:
        return ""
    median, same = f.moved("median_price"), f.moved("same_home_price")
    out = []
    if median is not None and same is not None:
        if abs(median - same) >= APART:
            like = "as good as unchanged" if abs(same) < SAME else f"{'up' if same > 0 else 'down'} {pct(same)}"
            mix = "larger or dearer" if median > same else "smaller or cheaper"
            less = abs(median) < abs(same) and median * same >= 0
            rest = f"the median moved less, since {mix} homes sold" if less else f"the rest is that {mix} homes sold"
            out.append(f"The price of the same home is {like}; {rest}.")
        elif abs(median) >= SAME and abs(same) >= SAME:
            gained = "gained" if same > 0 else "lost"
            out.append(f"It is no matter of which homes sold: the same home {gained} {pct(same)}.")
    sold = f.moved("closings")
    if sold is not None and abs(sold) >= 10:
        out.append(f"{'More' if sold > 0 else 'Fewer'} homes sold: {f.sold:,} after {f.sold_before:,}.")
    return " ".join(out)


def _meaning(f: Figures) -> tuple[str, str]:
    """What the supply means for a seller and for a buyer; silent where the figures are thin."""
    supply, there = f.of("months_of_supply").value, f.of("for_sale").value
    if supply is None or there is None or f.sold < SMALL:
        return "", ""
    if not there:
        return (
            "None is for sale now: a home that comes on stands alone.",
            "None is for sale now; who looks here waits for the next.",
        )
    would = f"At the pace of {f.rules.pace_of} the {int(there):,} for sale {'would last' if there > 1 else 'would be gone in'} {figure(supply, 1)} months"
    if supply < FEW_MONTHS:
        return (
            f"{would}: buyers have few to choose from.",
            f"{would}: who finds the right one has little time to think.",
        )
    if supply > MANY_MONTHS:
        return f"{would}: buyers compare, and a price above the others waits.", f"{would}: there is choice, and time."
    return f"{would}: neither side has the upper hand.", f"{would}: neither side has the upper hand."


def _sales(n: int) -> str:
    return f"{n:,} {'sale' if n == 1 else 'sales'}"


def pct(size: float) -> str:
    return f"{abs(size):.0f} %"
