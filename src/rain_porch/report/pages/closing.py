"""The last pages: the market around, the words used, what this is and is not."""

from __future__ import annotations

from collections.abc import Sequence
from typing import Any

from ...core.facts.dates import said
from ...core.facts.money import dollars
from ..blocks import heading, note, page, para, picture, table
from ..model import ReportInput
from ..pictures import ink
from ..wording import day, range_meaning

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


def market_page(given: ReportInput) -> dict[str, Any]:
    periods = (given.market or {}).get("periods", [])
    if not periods:
        return page("market", "The market around", note("The records tell nothing of the market here."))
    names = {"median_price": "Median price of the month", "closings": "Closings", "for_sale": "For sale at month's end"}
    year = [p for p in periods if p["finished"]][-12:]
    before = [p for p in periods if p["finished"]][-24:-12]
    rows = []
    for p in periods[-13:][::-1]:
        v = p["values"]
        mark = "" if p["finished"] else " *"
        price = v["median_price"]["value"]
        rows.append(
            [p["period"] + mark, dollars(price) if price else "—", f"{v['closings']['value'] or 0:.0f}", f"{v['for_sale']['value'] or 0:.0f}"]
        )  # fmt: skip
    closed, closed_before = (sum(p["values"]["closings"]["value"] or 0 for p in part) for part in (year, before))
    words = f"{closed:.0f} closings in the last twelve months"
    if closed_before:
        words += (
            f", after {closed_before:.0f} in the twelve before ({100 * (closed / closed_before - 1):+.1f} %)".replace(
                "-", "−"
            )
        )
    supply = year[-1]["values"]["for_sale"]["value"] if year else None
    if supply == 0:
        words += ". None is for sale now"
    elif supply is not None and closed:
        words += f". At that pace the {supply:.0f} homes for sale would last {supply / (closed / 12):.1f} months"
    return page(
        "market", "The market around",
        para(f"{given.market_place}: {words}."),
        picture(series_svg(periods, "median_price"), "Median price by month"),
        para("Median price by month; hollow where fewer than five homes closed.", small=True),
        table(["Month", *names.values()], rows),
        para("* not finished yet.", small=True),
    )  # fmt: skip


def no_letter_page(given: ReportInput) -> dict[str, Any]:
    """What stands where a market letter would, until one is chosen."""
    return page(
        "market_letter",
        "Market letter",
        note("No market letter is chosen: choose one beside the page, or leave this page out."),
    )


def series_svg(periods: Sequence[dict[str, Any]], name: str, width: float = 540, height: float = 170) -> str:
    """A line of monthly values; months without a value leave a gap, small counts are hollow."""
    points = [(i, p["values"][name]["value"], p["values"][name]["n"]) for i, p in enumerate(periods)]
    known = [v for _, v, _ in points if v is not None]
    if not known:
        return ink.svg(width, height, [])
    low, high = min(known), max(known)
    pad = (high - low) * 0.08 or high * 0.05 or 1
    low, high = low - pad, high + pad
    left, right, top, bottom = 58.0, width - 8, 8.0, height - 22

    def at(i: int, v: float) -> tuple[float, float]:
        return left + (right - left) * i / max(1, len(points) - 1), bottom - (bottom - top) * (v - low) / (high - low)

    body = []
    for k in range(4):
        v = low + (high - low) * (k + 0.5) / 4
        y = at(0, v)[1]
        body.append(f'<path d="M{left} {y:.1f}H{right}" stroke="{ink.LINE}" stroke-width="0.6"/>')
        body.append(ink.text(left - 5, y + 3, dollars(round(v, -3)), 8, ink.GREY, "end"))
    for i, p in enumerate(periods):
        if p["period"].endswith("-01"):
            body.append(ink.text(at(i, low)[0], height - 8, p["period"][:4], 8, ink.GREY))
    path, pen = "", "M"
    for i, v, _ in points:
        if v is None:
            pen = "M"
            continue
        x, y = at(i, v)
        path += f"{pen}{x:.1f} {y:.1f}"
        pen = "L"
    body.append(f'<path d="{path}" fill="none" stroke="{ink.RAIN}" stroke-width="1.4"/>')
    for i, v, n in points:
        if v is not None:
            x, y = at(i, v)
            fill = ink.RAIN if n >= 5 else ink.PAPER
            body.append(
                f'<circle cx="{x:.1f}" cy="{y:.1f}" r="2" fill="{fill}" stroke="{ink.RAIN}" stroke-width="0.9"/>'
            )
    return ink.svg(width, height, body)


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
