"""What a bulletin says of a market in sentences: what changed, against when, from how many, why it may be, what it means.

Rules, no model: each sentence stands on figures of one span and of the same span a year before, is silent where one of them is
missing, and says so where they are few. Nothing is called hot, nothing is advised where the figures are thin.
"""

from __future__ import annotations

import math
from collections.abc import Mapping
from dataclasses import dataclass

from ...facts.money import dollars
from ...phrases import joined, phrase
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
    price = f.of("median_price").value
    told = {"homes": where, "span": f.span, "n": f.sold, "sales": phrase("count-sales", n=f.sold)}
    if not f.sold:
        return phrase("news-none", **told)
    if price is None:
        return phrase("news-no-price", **told)
    told |= {"median": dollars(price), "before": f.sold_before}
    if f.sold < SMALL:
        return phrase("news-too-few", **told)
    moved = f.moved("median_price")
    if not f.sold_before or moved is None:
        return phrase("news-no-year-before", **told)
    if f.thin:
        return phrase("news-thin-year-before", **told)
    if abs(moved) < SAME:
        return phrase("news-same", **told)
    return phrase("news-more" if moved > 0 else "news-less", **told, pct=pct(moved))


def _why(f: Figures) -> str:
    """The price of the same home told apart from which homes happened to sell."""
    if f.thin:
        return ""
    median, same = f.moved("median_price"), f.moved("same_home_price")
    out = []
    if median is not None and same is not None:
        if abs(median - same) >= APART:
            like = "why-same" if abs(same) < SAME else "why-up" if same > 0 else "why-down"
            less = abs(median) < abs(same) and median * same >= 0
            rest = phrase("why-moved-less" if less else "why-the-rest", mix=mix(median, same))
            out.append(phrase(like, pct=pct(same), rest=rest))
        elif abs(median) >= SAME and abs(same) >= SAME:
            out.append(phrase("why-gained" if same > 0 else "why-lost", pct=pct(same)))
    sold = f.moved("closings")
    if sold is not None and abs(sold) >= 10:
        out.append(phrase("why-more-sold" if sold > 0 else "why-fewer-sold", now=f.sold, before=f.sold_before))
    return joined(*out)


def mix(median: float, same: float) -> str:
    """Which homes sold where the median moved otherwise than the price of the same home: "larger or dearer"."""
    return phrase("mix-larger" if median > same else "mix-smaller")


def _meaning(f: Figures) -> tuple[str, str]:
    """What the supply means for a seller and for a buyer; silent where the figures are thin."""
    supply, there = f.of("months_of_supply").value, f.of("for_sale").value
    if supply is None or there is None or f.sold < SMALL:
        return "", ""
    if not there:
        return phrase("meaning-none-for-seller"), phrase("meaning-none-for-buyer")
    many = "few" if supply < FEW_MONTHS else "many" if supply > MANY_MONTHS else "even"
    would = phrase("supply-would-last", n=int(there), pace=f.rules.pace_of, months=figure(supply, 1))
    return phrase(f"meaning-{many}-for-seller", would=would), phrase(f"meaning-{many}-for-buyer", would=would)


def pct(size: float) -> str:
    """ "3 %", without its sign."""
    return f"{abs(size):.0f} %"
