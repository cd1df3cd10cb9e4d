"""Parts of a bulletin that are pictures and sentences: headline, months, places, years, homes, lenders' form, words."""

from __future__ import annotations

import datetime as dt
from typing import Any

from ...core.facts.local_form import Quantity, told_head
from ...core.market.measures import SMALL
from ...core.market.view_reading import shown
from ..blocks import Block, card, columns, filling, heading, homes, keys, para, picture, table
from ..pictures import ink
from ..pictures.months import months_svg
from ..pictures.small_charts import heat_svg, months_line_svg, outside_svg, places_svg, spark_svg
from ..wording import blank, day, per_sqft_alone
from .bulletin_tables import Part, form_of, supply_label, told_value

SHORT_LABELS = {
    "same_home_price": "Same home",
    "median_share_of_list": "Share of list price",
    "median_price_per_sqft": "Per sq ft",
}


def _width(part: Part) -> float:
    """How wide pictures as wide as the page are drawn, in points."""
    return float(part.get("width", ink.WIDE))


def short_label(name: str, label: str) -> str:
    return SHORT_LABELS.get(name, label.split(" (")[0])


def headline_part(part: Part) -> list[Block | None]:
    """The key figures with their change and a small chart, and what they mean."""
    told = part["answer"]
    shown_figures = [f for f in told["figures"][: part.get("figures", 4)] if f["value"]["value"] is not None]
    key_figures = [
        (
            short_label(f["measure"], f["label"]), shown(f["value"]["value"], f["unit"]),
            f"{f['change']['words']} on the year" if f["change"] else f"from {f['value']['n']:,}", spark_svg(f["recent"], height=24 if part.get("crowded") else 34),
        )
        for f in shown_figures
    ]  # fmt: skip
    beside = [
        f"{short_label(f['measure'], f['label']).lower()} {shown(f['whole']['value'], f['unit'])}"
        for f in shown_figures
        if f["whole"] and f["whole"]["value"] is not None and f["unit"]
    ]
    seller, buyer = told["seller"], told["buyer"]
    meaning: list[Block | None] = [para(seller)] if seller and seller == buyer else []
    if seller != buyer:
        both = [x for x in (("For a seller", seller), ("For a buyer", buyer)) if x[1]]
        crowded = part.get("crowded", False)
        told_to = [
            [para(f"{name}: {words[0].lower()}{words[1:]}")] if crowded else [heading(name), para(words)]
            for name, words in both
        ]
        meaning = [columns(told_to, [1] * len(both))]
    base = (
        f"In {told['span']}, of {told['where']}, beside the same months a year before. The lines: two years by month."
    )
    whole = f" In {told['everywhere']}: {', '.join(beside)}." if beside else ""
    return [
        keys(key_figures) if key_figures else None,
        para(base + whole, small=True),
        para(told["why"], large=True) if told["why"] else None,
        *meaning,
    ]  # fmt: skip


def prices_part(part: Part) -> list[Block | None]:
    told = part["answer"]
    if not months_svg(told["months"]):
        return [para("No price is recorded here in these years.")]
    crowded = part.get("crowded", False)
    words = ("Dots: medians of each month, hollow where few; line: the mean of the half year to each; bars: closings." if crowded else
             "Dots: the median price of each month, hollow where fewer than five homes closed or the month is not over; line: the mean of the half year "
             "to each month; bars: closings.")  # fmt: skip
    alt, caption = (
        "Median price and closings by month",
        words if crowded else f"{told['where'][:1].upper()}{told['where'][1:]}. {words}",
    )

    def drawn(height: float) -> str:
        return months_svg(told["months"], _width(part), height)

    least = 150 if crowded else 260  # points of room; with less its height is fixed, and it goes to the next page
    fills = part.get("left", 0.0) >= least
    chart = filling(drawn, [112, *range(130, 330, 20)], alt, caption) if fills else picture(drawn(150), alt, caption)
    rates = None if crowded else told["rates"]
    under = "" if rates is None else outside_svg(rates["values"], _width(part))
    return [
        para(told["sentence"], large=True) if told["sentence"] and not crowded else None,
        chart,
        picture(under, rates["name"], f"{rates['name']}, mean of each month, on a scale of its own.") if rates and under else None,
    ]  # fmt: skip


_CHARTS = {
    "price_ways": (("median_price", "Median price", 0), ("median_price_per_sqft", "Per sq ft", 0), ("same_home_price", "The same home", 0)),
    "pace": (("months_of_supply", "Months of supply", 0), ("median_days", "Days to a buyer", SMALL)),
    "flow": (("new_listings", "Came on", 0), ("contracts", "Found a buyer", 0), ("closings", "Closed", 0)),
    "shares": (("median_share_of_list", "Of the last list price", SMALL), ("median_share_of_original", "Of the first", SMALL),
               ("share_with_price_cut", "For sale with a cut", 0)),
}  # fmt: skip
_CAPTIONS = {
    "price_ways": "Dots: medians of each month, line: the mean of the half year to each. The same home: free of which homes happened to sell.",
    "pace": "Dots: each month, line: the mean of the half year to it. Supply: homes for sale at the month's end, at the pace of the {} months before.",
    "flow": "Homes in each month; line: the mean of the half year to it.",
    "shares": "Medians of the homes that closed in each month, line: the mean of the half year to it; cuts: share of those for sale at its end.",
}
_SHORT = "Dots: each month, hollow where few; line: the mean of the half year to it. Supply at the pace of the {} months before."
_FEW = {"price_ways": " Hollow: fewer than five homes, or a month that is not over.", "pace": " Hollow: fewer than five closings, or a month that is not over.",
        "shares": " Hollow: fewer than five closings, or a month that is not over.", "flow": " Hollow: a month that is not over."}  # fmt: skip


def charts_part(part: Part) -> list[Block | None]:
    """Two or three measures by month beside each other, under their sentence."""
    told, kind = part["answer"], part["kind"]
    wide = 255 if len(_CHARTS[kind]) == 2 else 168
    least = {
        name: SMALL if kind == "price_ways" and name != "same_home_price" else at_least
        for name, _, at_least in _CHARTS[kind]
    }
    form, units = form_of(part), {name: told["labels"][name][1] for name, _, _ in _CHARTS[kind]}
    parts = [
        [heading(told_head(title, form, units[name])), picture(drawn, f"{title} by month")]
        for name, title, _ in _CHARTS[kind]
        if (
            drawn := months_line_svg(
                told["months"],
                name,
                units[name],
                wide,
                (90 if part.get("crowded") else 138) if wide > 200 else 120,
                least[name],
                form,
            )
        )
    ]
    if not parts:
        return [para("Nothing is known of it here.")]
    return [
        para(told["sentence"], large=True) if told["sentence"] else None,
        columns(parts, [1] * len(parts)),
        para(
            (_SHORT if part.get("crowded") else _CAPTIONS[kind] + _FEW[kind]).format(told["supply_months"]), small=True
        ),
    ]


def places_part(part: Part) -> list[Block | None]:
    told = part["answer"]
    if not told["places"]:
        return [para("No place has a sale to set beside another.")]
    by_price = sorted(told["places"], key=lambda p: -(p["values"]["median_price"]["value"] or 0))
    numbered = [p | {"number": n} for n, p in enumerate(by_price, 1)]
    rows = [
        *(_place_row(p, f"{p['number']}  {p['place']}") for p in numbered),
        _place_row(told["whole"], "all together"),
    ]
    heads = ["", "sold", "before", "median", "change", "days", "supply"]
    made = table(heads, rows, widths=(2.1, 0.8, 0.9, 1.35, 1.15, 0.75, 1), last=True)
    words = f"Sold and the change of the median price: {told['span']} beside the year before; grey where fewer than five sold in either. Supply: {supply_label(told)}; numbers as on the map."
    wide = _width(part) * (0.42 if _width(part) > 400 else 1)
    drawn = places_svg(
        numbered, part.get("lines", ()), wide, 70 + (14 if part.get("crowded") else 21) * min(len(rows), 9)
    )
    return [
        para(told["sentence"], large=True) if told["sentence"] else None,
        columns([[picture(drawn, "Places by the change of their median price")], [made]], [0.42, 0.58]) if drawn else made,
        para(words, small=True),
    ]  # fmt: skip


def _place_row(p: dict[str, Any], name: str) -> list[str]:
    v = p["values"]
    return [
        name, f"{v['closings']['value'] or 0:,.0f}", f"{p['before']['closings']['value'] or 0:,.0f}", told_value(v["median_price"], "$").replace("—", ""),
        p["change"]["words"] if p["change"] else "too few", told_value(v["median_days"], "days").replace("—", "").split(" ")[0],
        told_value(v["months_of_supply"], "months").replace("—", "").split(" ")[0],
    ]  # fmt: skip


def years_part(part: Part) -> list[Block | None]:
    told = part["answer"]
    heads = [y["period"] + ("" if y["finished"] else " *") for y in told["years"]]
    rows = [
        [label, *(blank(told_value(y["values"][name], unit)) for y in told["years"])]
        for name, (label, unit) in told["labels"].items()
        if any(y["values"][name]["value"] is not None for y in told["years"])
    ]
    return [
        para(told["sentence"], large=True) if told["sentence"] else None,
        table(["", *heads], rows, share=0.85),
        para("* not over yet.", small=True) if heads and heads[-1].endswith("*") else None,
    ]


def heat_part(part: Part) -> list[Block | None]:
    told = part["answer"]
    unit = told["unit"]
    rows = [
        (
            str(year),
            [
                None
                if p is None or p["value"] is None
                else (p["value"], _cell(form_of(part).measured(p["value"], unit), unit), p["n"])
                for p in points
            ],
        )
        for year, points in told["years"].items()
    ]
    drawn = heat_svg(rows, _width(part), few=SMALL if unit else 0)
    if not drawn:
        return [para("Nothing is known of it here.")]
    base = {"$": " In thousands of dollars.", "share": " In percent."}.get(unit, "")
    hollow = " Outlined: from fewer than five homes." if unit else ""
    return [picture(drawn, f"{told['label']} by month and year", f"{told['sentence']}{base}{hollow}".strip())]


def _cell(value: float, unit: str) -> str:
    """A value as a cell of the heat has it: prices in thousands, shares in percent."""
    if unit == "$":
        return f"{value / 1000:,.0f}"
    return f"{100 * value:.1f}" if unit == "share" else f"{value:,.1f}" if unit == "months" else f"{value:,.0f}"


def homes_part(part: Part) -> list[Block | None]:
    """The newest that sold, or came on: as cards with pictures, or as a list."""
    told, sold = part["answer"], part["kind"] == "sold"
    n, shown_homes = told["count"], told["homes"][:6]
    verb = "closed" if sold else "came on for the first time"
    said = f"In {told['month']} {n:,} {'home' if n == 1 else 'homes'} {verb}."
    if shown_homes and n > len(shown_homes):
        said += f" The newest {len(shown_homes)}:"
    if part.get("table") and shown_homes:
        rows = [
            [h["address"] or h["listing_id"], day(h["date"]) if h["date"] else "", told_value({"value": h["price"]}, "$"),
             "" if h["living_area"] is None else Quantity(h["living_area"], "sq ft"), per_sqft_alone(h["price_per_sqft"], 0),
             "" if h["days_on_market"] is None else f"{h['days_on_market']:,}"]
            for h in shown_homes
        ]  # fmt: skip
        heads = ["", "closed" if sold else "day", "price" if sold else "price now", "sq ft", "$/sq ft", "days"]
        return [para(said), table(heads, rows, words=2, widths=(2.4, 1.1, 1, 0.8, 0.8, 0.6))]
    across = 3 if part.get("page_break") else 6
    cards = [
        card(
            part.get("pictures", {}).get(h["listing_id"], ""), h["address"] or h["listing_id"], "" if h["price"] is None else f"${h['price']:,.0f}",
            _lines(h, sold, across > 3),
            alt=f"Front of {h['address']}",
        )
        for h in shown_homes
    ]  # fmt: skip
    return [para(said), homes(cards, across)]


def _lines(home: dict[str, Any], sold: bool, narrow: bool) -> list[str]:
    """What stands under a home: its day, its size, how long it took."""
    size = f"{home['living_area']:,.0f} sq ft" if home["living_area"] else ""
    waited = "" if home["days_on_market"] is None or not sold else f"{home['days_on_market']:,} days"
    lines = [_when(home, sold, narrow), *([" · ".join(x for x in (size, waited) if x)] if narrow else [size, waited])]
    return [x for x in lines if x]


def _when(home: dict[str, Any], sold: bool, short: bool) -> str:
    """ "closed 30 October 2026"; of one that came on what became of it since. short: the day alone."""
    if not home["date"]:
        return ""
    became = {"for_sale": "since", "under_contract": "under contract", "sold": "closed", "failed": "taken off"}
    word = "closed" if sold else became.get(home["kind"], "")
    return day(home["date"]) if short else f"{word} {day(home['date'])}".strip()


def conditions_part(part: Part) -> list[Block | None]:
    """Three windows back from the day, with the arithmetic that lenders' published form asks for."""
    told = part["answer"]
    heads = [f"{_short(a)} – {_short(b)}" for a, b, _ in told["windows"]]
    rows = []
    for line in told["lines"]:
        counted = line["unit"] in ("", "a month") or line["label"].startswith("Months")
        cells = [
            told_value(v, line["unit"]).replace(" a month", "").replace("—", "")
            + ("" if counted or not v["n"] else f" ({v['n']})")
            for v in line["values"]
        ]
        if any(cells):
            rows.append([line["label"], *cells, line["trend"]])
    months = ", ".join(str(m) for _, _, m in told["windows"])
    words = (f"Windows of {months} months, the last one to the newest day of the records. Absorption: sales ÷ months; supply: homes for sale ÷ absorption. "
             "In brackets: how many a median or share is made from. Trend: the last window against the first, stable within 5 %; sales by the month.")  # fmt: skip
    return [
        para(f"Of {told['where']}."),
        table(["", *heads, "trend"], rows, widths=(1.9, 1.5, 1.5, 1.5, 0.8)),
        para(words, small=True),
    ]


def _short(text: object) -> str:
    """A day as the head of a window: "Nov 1, 2025"."""
    made = dt.date.fromisoformat(str(text))
    return f"{made:%b} {made.day}, {made:%y}"


def words_part(part: Part) -> list[Block | None]:
    """The words of the measures, for who reads it for the first time."""
    return [
        table(
            ["", ""],
            [[name, f"{text[0].upper()}{text[1:]}."] for name, text in part["answer"]["words"]],
            words=2,
            widths=(1, 3.4),
        )
    ]
