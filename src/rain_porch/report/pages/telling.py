"""What is said of a home on several pages: its status, its pace, how it differs."""

from __future__ import annotations

from typing import Any

from ...core.facts.local_form import Quantity
from ...core.facts.money import dollars, priced
from ..blocks import Block, card, pairs
from ..model import ReportInput
from ..speaking import SOLD, Home, Spoken
from ..wording import day, distance, facts_line, many, per_sqft, sentence_case

SAID = {
    "sold": "sold", "deed_sale": "sold, by deed", "under_contract": "under contract", "for_sale": "for sale", "failed": "did not sell",
}  # fmt: skip
_SINCE = {"sold": "", "deed_sale": "", "under_contract": "since ", "for_sale": "since ", "failed": "off the market "}


def name_of(home: Home) -> str:
    return str(home["address"] or home["listing_id"])


def status_of(home: Home) -> str:
    """ "sold Jul 19, 2026", "for sale since Sep 2, 2026", "expired, off the market Aug 1, 2026"."""
    word = (
        str(home["status"]).lower().replace("canceled", "cancelled")
        if home["kind"] == "failed" and home["status"]
        else SAID[home["kind"]]
    )
    if not home["date"]:
        return word
    return f"{word}{', ' if home['kind'] == 'failed' else ' '}{_SINCE[home['kind']]}{day(home['date'])}"


def asked_or_paid(home: Home) -> str:
    if home["price"] is None:
        return "price unknown"
    return priced(home["price"])


def pace_of(home: Home) -> str:
    """ "52 days, 99 % of list"; "" where nothing is known."""
    days = home["days_on_market"]
    out = [] if days is None else [many(days, "day")]
    share = home.get("prices", {}).get("share_of_list")
    if home["kind"] == "sold" and share is not None:
        out.append(f"{100 * share:.1f} % of list")
    first = home["facts"].get("original_list_price")
    if home["kind"] != "sold" and first and home["price"] and first > home["price"]:
        out.append(f"cut from {dollars(first)}")
    return ", ".join(out)


def differs(home: Home, most: int = 9) -> str:
    """How it differs from this home, as a sentence."""
    told = list(home["differences"])[:most]
    return sentence_case(", ".join(told)) + "." if told else "Much like this home."


def front_alt(home: Home) -> str:
    return f"Front of {name_of(home)}"


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
    beds = f"{facts['bedrooms_total']:.0f} beds" if "bedrooms_total" in facts else ""
    area = f"{facts['living_area']:,.0f} sq ft" if "living_area" in facts else ""
    return " · ".join(x for x in (beds, area, per_sqft(home["price_per_sqft"])) if x) or facts_line(facts)


def of_words(spoken: Spoken) -> str:
    """The sentence that says of which homes a page speaks."""
    return f"Of {spoken.words}."


def prices_of(home: Home, across: int = 1) -> Block | None:
    """What was asked and paid for it, and when."""
    facts, prices = home["facts"], home.get("prices", {})
    first, last = facts.get("original_list_price"), home["list_price"]
    sold = home["kind"] in SOLD
    rows = [
        ("First list price", f"${dollars(first)}" if first and first != last else ""),
        ("List price", f"${dollars(last)}" if last else ""),
        ("Sold for", f"${dollars(home['price'])}" if sold and home["price"] else ""),
        ("Share of list", f"{100 * prices['share_of_list']:.1f} %" if sold and prices.get("share_of_list") else ""),
        ("Price per sq ft", Quantity(home["price_per_sqft"], "$/sq ft", signed=True) if home["price_per_sqft"] else ""),
        ("Days on market", "" if home["days_on_market"] is None else f"{home['days_on_market']:,}"),
        ("Paid the time before", f"${dollars(prices['paid_before'])}, {str(home.get('paid_before_on') or '')[:4]}" if prices.get("paid_before") else ""),
        ("From this home", "" if home["distance_miles"] is None else f"{distance(home['distance_miles'])} mi"),
    ]  # fmt: skip
    return pairs([r for r in rows if r[1]], across)
