"""The last pages: the market around, the words used, what this is and is not."""

from __future__ import annotations

import datetime as dt
from typing import Any

from ...core.facts.dates import said
from ...core.facts.money import dollars
from ..blocks import Nothing, heading, page, para, picture, table
from ..model import ReportInput
from ..pictures.months import months_svg
from ..wording import day, many, range_meaning

GLOSSARY = (
    ("Adjusted price", "What a comp would have brought had it been this home: minus where it is better, plus where it is less."),
    ("Comp", "A sold home like this one, near in place and time, used to find its value."),
    ("Concession", "Something of the price that the seller gave back to the buyer at closing."),
    ("Days on market", "From the first day for sale to the contract, without days withdrawn."),
    ("Indicated value", "The weighted mean of the comps' adjusted prices."),
    ("Market change", "How much prices of like homes moved between a comp's contract and today."),
    ("Median", "The middle value: half lie below it, half above. One odd sale does not move it."),
    ("Net and gross adjustment", "The sum of a comp's adjustments with, and without, regard to their signs."),
    ("Share of list", "What was paid, as a share of the last asking price."),
)  # fmt: skip


def market_page(given: ReportInput) -> dict[str, Any] | Nothing:
    periods = (given.market or {}).get("periods", [])
    drawn = months_svg(periods, given.width)
    if not drawn:
        return Nothing("The records tell nothing of the market here.")
    year = [p for p in periods if p["finished"]][-12:]
    before = [p for p in periods if p["finished"]][-24:-12]
    rows = []
    for p in periods[-13:][::-1]:
        v = p["values"]
        price = v["median_price"]["value"]
        there = [f"{v['for_sale']['value'] or 0:,.0f}"] if given.knows_listings else []
        rows.append([month(p["period"]) + ("" if p["finished"] else " *"), dollars(price) if price else "",
                     f"{v['closings']['value'] or 0:,.0f}", *there])  # fmt: skip
    closed, closed_before = (sum(p["values"]["closings"]["value"] or 0 for p in part) for part in (year, before))
    words = f"{many(int(closed), 'home')} closed in the last twelve months"
    if closed_before:
        words += (
            f", after {closed_before:,.0f} in the twelve before ({100 * (closed / closed_before - 1):+.0f} %)".replace(
                "-", "−"
            )
        )
    supply = year[-1]["values"]["for_sale"]["value"] if year and given.knows_listings else None
    pace = ""
    if supply == 0:
        pace = "None is for sale now."
    elif supply is not None and closed:
        pace = f"At that pace the {many(int(supply), 'home')} for sale would last {supply / (closed / 12):.1f} months."
    return page(
        "market", "The market here",
        para(f"{given.market_place}. {pace}"),
        picture(drawn, "Median price and closings by month",
                "Dots: the median price of each month, hollow where fewer than five homes closed or the month is not over; line: the mean of the half year to each month; bars: closings."),
        table(["Month", "Median price, $", "Closings", *(["For sale at its end"] if given.knows_listings else [])], rows, share=0.78),
        para("* not finished yet.", small=True) if rows and rows[0][0].endswith("*") else None,
        lead=f"{words}.",
    )  # fmt: skip


def month(name: str) -> str:
    """ "2026-10" → "October 2026"."""
    return (
        dt.date(int(name[:4]), int(name[5:7]), 1).strftime("%B %Y") if len(name) == 7 and name[5:].isdigit() else name
    )


def about_page(given: ReportInput) -> dict[str, Any]:
    words = sorted([*(list(row) for row in GLOSSARY), ["Likely range", range_meaning(given.price["range"])]])
    return page(
        "about", "What this is, and is not",
        para("This is a comparative market analysis by a real estate agent: an opinion of price, from recorded sales and "
             "listings, for deciding on an asking price. It is not an appraisal, and was not made by a licensed appraiser."),
        para(f"It stands as of {day(given.price['effective_date'])}, on records that run through {said(given.through)}. "
             f"Measurements and features are as recorded and were not verified."),
        para(f"Where the records came from: {'; '.join(given.sources)}.") if given.sources else None,
        para("Homes are compared by what they are and where they stand, never by who lives there."),
        heading("The words used"),
        table(["", ""], words, words=2, widths=(1, 3)),
        flow=True,
    )  # fmt: skip
