"""What is said of a home on several pages: its status, its pace, how it differs."""

from __future__ import annotations

from typing import Any

from ...core.facts.local_form import Quantity
from ...core.facts.money import dollars, priced
from ...core.facts.words import Status, status_words
from ...core.phrases import phrase, sentence_case
from ..blocks import Block, card, pairs
from ..model import ReportInput
from ..speaking import KINDS, SOLD, Home, Spoken
from ..wording import day, distance, facts_line, per_sqft


def name_of(home: Home) -> str:
    return str(home["address"] or home["listing_id"])


def kind_words(kind: str) -> str:
    """ "sold", "sold, by deed", "under contract", "for sale", "did not sell"."""
    return phrase(f"status-{kind}")


def kinds_in_words() -> dict[str, str]:
    """Each kind of record in words."""
    return {kind: kind_words(kind) for kind in KINDS}


def status_of(home: Home) -> str:
    """ "sold Jul 19, 2026", "for sale since Sep 2, 2026", "expired, off the market Aug 1, 2026"."""
    kind = home["kind"]
    word = status_words(Status(home["status"])) if kind == "failed" and home["status"] else kind_words(kind)
    if not home["date"]:
        return word
    how = "sold-on" if kind in SOLD else "off-the-market" if kind == "failed" else "since"
    return phrase(f"status-{how}", status=word, day=day(home["date"]))


def asked_or_paid(home: Home) -> str:
    return phrase("price-unknown") if home["price"] is None else priced(home["price"])


def pace_of(home: Home) -> str:
    """ "52 days, 99 % of list"; "" where nothing is known."""
    days = home["days_on_market"]
    out = [] if days is None else [phrase("count-days", n=days)]
    share = home.get("prices", {}).get("share_of_list")
    if home["kind"] == "sold" and share is not None:
        out.append(phrase("pace-share-of-list", pct=f"{100 * share:.1f}"))
    first = home["facts"].get("original_list_price")
    if home["kind"] != "sold" and first and home["price"] and first > home["price"]:
        out.append(phrase("pace-cut-from", price=dollars(first)))
    return ", ".join(out)


def differs(home: Home, most: int = 9) -> str:
    """How it differs from this home, as a sentence."""
    told = list(home["differences"])[:most]
    return sentence_case(", ".join(told)) + "." if told else phrase("much-alike")


def front_alt(home: Home) -> str:
    return phrase("front-of", home=name_of(home))


def home_card(given: ReportInput, home: Home, lines: int = 3) -> dict[str, Any]:
    """A home with its picture, number and price."""
    pace = pace_of(home)
    told = [x for x in (sentence_case(status_of(home)), pace, facts_line_short(home)) if x]
    return card(
        given.front_of(home["listing_id"]), name_of(home), asked_or_paid(home), told[:lines],
        given.number_of(home["listing_id"]), front_alt(home),
    )  # fmt: skip


def facts_line_short(home: Home) -> str:
    facts = home["facts"]
    beds = phrase("facts-beds", n=f"{facts['bedrooms_total']:.0f}") if "bedrooms_total" in facts else ""
    area = phrase("facts-size", size=f"{facts['living_area']:,.0f}") if "living_area" in facts else ""
    return " · ".join(x for x in (beds, area, per_sqft(home["price_per_sqft"])) if x) or facts_line(facts)


def of_words(spoken: Spoken) -> str:
    """The sentence that says of which homes a page speaks."""
    return phrase("of-homes", whose=spoken.words)


def in_dollars(amount: float) -> str:
    return phrase("dollars", amount=dollars(amount))


def prices_of(home: Home, across: int = 1) -> Block | None:
    """What was asked and paid for it, and when."""
    facts, prices = home["facts"], home.get("prices", {})
    first, last = facts.get("original_list_price"), home["list_price"]
    sold = home["kind"] in SOLD
    before = prices.get("paid_before")
    rows = [
        ("line-first-list-price", in_dollars(first) if first and first != last else ""),
        ("line-list-price", in_dollars(last) if last else ""),
        ("line-sold-for", in_dollars(home["price"]) if sold and home["price"] else ""),
        ("line-share-of-list", f"{100 * prices['share_of_list']:.1f} %" if sold and prices.get("share_of_list") else ""),
        ("line-price-per-square-foot", Quantity(home["price_per_sqft"], "$/sq ft", signed=True) if home["price_per_sqft"] else ""),
        ("line-days-on-market", "" if home["days_on_market"] is None else f"{home['days_on_market']:,}"),
        ("line-paid-before", phrase("dollars-in-year", amount=dollars(before), year=str(home.get("paid_before_on") or "")[:4]) if before else ""),
        ("line-from-this-home", "" if home["distance_miles"] is None else phrase("distance-away", miles=distance(home["distance_miles"]))),
    ]  # fmt: skip
    return pairs([(phrase(key), value) for key, value in rows if value], across)
