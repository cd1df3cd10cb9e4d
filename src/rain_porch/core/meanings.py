"""What the words of the interface and of the paper mean: one glossary, in sentences that an agent and a seller understand.

A meaning is a sentence without its point, so that it can stand beside a word or after it, with {gap}, {pace} and {share} for what
the house has chosen. `paper`: it is explained to the reader of a report.
"""

from __future__ import annotations

from collections.abc import Mapping
from dataclasses import dataclass, replace

from .facts.house_rules import USUAL, HouseRules
from .market.market_rules import market_rules
from .market.measure_words import MEASURE_WORDS, words_told
from .price.worth import share_words


@dataclass(frozen=True)
class Meaning:
    word: str
    says: str
    paper: bool = False


_MEANINGS: Mapping[str, Meaning] = {
    # finding
    "likeness": Meaning("Alike", "how like this home it is, of 100: place, time, size, age and the rest, each by its weight in the house rules"),
    "days_on_market": Meaning("Days", "from the day it came on to its contract, less days withdrawn or on hold; unknown where the contract's day is"),
    "cumulative_days": Meaning("All days", "the same over all listings of the home that followed each other within {gap} and without a sale"),
    "share_of_list": Meaning("% of list", "what was paid, of the last price that was asked"),
    "share_of_original": Meaning("% of first", "what was paid, of the price that was asked at first"),
    "price_per_sqft": Meaning("$/sq ft", "price divided by living area; small homes always show a higher one"),
    "kind": Meaning("Kind", "sold, a sale known only from its deed, under contract, for sale, or failed: what it is on the day of the workup"),
    "distance_miles": Meaning("Miles", "as the crow flies, from door to door"),
    "date": Meaning("Date", "the day it closed, was contracted, came on or went off the market"),
    "paid_before": Meaning("Paid before", "what the sale before this one brought"),
    "deed_sale": Meaning("Deed sale", "a sale that no listing tells of, known from the deed alone"),
    "fence": Meaning("Fence", "a line that comps must not lie across: a highway, a river, a school line"),
    # adjusting and pricing
    "comp": Meaning("Comp", "a sold home like this one, near in place and time, used to find its value", True),
    "adjusted_price": Meaning("Adjusted price", "what a comp would have brought had it been this home: minus where it is better, plus where it is less", True),
    "concessions": Meaning("Concession", "something of the price that the seller gave back to the buyer at closing", True),
    "market_change": Meaning("Market change", "how much prices of like homes moved between a comp's contract and today", True),
    "location": Meaning("Location", "what the sales around each spot brought beyond what their features explain"),
    "net_gross": Meaning("Net and gross adjustment", "the sum of a comp's adjustments with, and without, regard to their signs", True),
    "weight": Meaning("Weight", "how much a comp counts in the mean: more the more alike, the newer, the less adjusted and the nearer to the model"),
    "rate": Meaning("Rate", "dollars for one step of a difference: from the sales around here, else the wider market, else a house rule, else typed"),
    "house_rule": Meaning("House rule", "what is believed where no sale tells; each office may choose its own in Settings"),
    "indicated_value": Meaning("Indicated value", "the weighted mean of the comps' adjusted prices and, beside them, of the model's value", True),
    "model": Meaning("Model", "one formula for the prices of all sales of homes of this kind around here, refitted each quarter", True),
    "range": Meaning("Likely", "{share} such homes sold within it, as far as past sales here were tested; else as the fit has it"),
    "chance": Meaning("Chance", "the share of homes listed at such a distance from their worth that were under contract by then, those still unsold counted too"),
    "list_price": Meaning("List price", "what the home is offered at; drag it on the rail, or type it"),
    "failed": Meaning("Failed", "expired, withdrawn or cancelled: a price that the market refused"),
    "median": Meaning("Median", "the middle value: half lie below it, half above; one odd sale does not move it", True),
    "absorption": Meaning("Absorption", "closings a month"),
    **{name: Meaning(word, says, name in ("median_days", "median_share_of_list")) for name, (word, says) in MEASURE_WORDS.items()},
}  # fmt: skip


def meanings_by(rules: HouseRules) -> Mapping[str, Meaning]:
    """What each word means by the house's rules, by the name under which it is pointed at."""
    told = {**words_told(market_rules(rules)), "share": share_words(rules["price.range_pct"] / 100)}
    return {name: replace(m, says=m.says.format_map(told)) for name, m in _MEANINGS.items()}


def of_paper() -> list[tuple[str, str]]:
    """(word, sentence) of those that a report explains: none of them hangs on what the house has chosen."""
    return [(m.word, f"{m.says[0].upper()}{m.says[1:]}.") for m in meanings_by(USUAL).values() if m.paper]
