"""Parts of a bulletin that are pictures and sentences: headline, months, places, years, homes, lenders' form, words."""

from __future__ import annotations

import datetime as dt
from typing import Any

from ...core.facts.dates import month_name
from ...core.facts.local_form import Quantity, told_head
from ...core.market.measures import SMALL
from ...core.market.view_reading import shown
from ...core.phrases import continued, joined, phrase, phrases_of, sentence_case, within
from ..blocks import Block, card, columns, filling, heading, homes, keys, para, picture, table
from ..pictures import ink
from ..pictures.months import months_svg
from ..pictures.small_charts import heat_svg, months_line_svg, outside_svg, places_svg, spark_svg
from ..wording import blank, day, per_sqft_alone
from .bulletin_tables import Part, bare_value, form_of, supply_label, told_value
from .telling import in_dollars


def _width(part: Part) -> float:
    """How wide pictures as wide as the page are drawn, in points."""
    return float(part.get("width", ink.WIDE))


SHORT = ("same_home_price", "median_share_of_list", "median_price_per_sqft")


def short_label(name: str, label: str) -> str:
    """What a measure is called where room is scarce: by a phrase of its own, else by its name without what stands in brackets."""
    return phrase(f"short-{name}") if name in SHORT else label.split(" (")[0]


def change_words(figure: Part) -> str:
    """ "up 4.1 % on the year"; where there is no year before, from how many homes it is."""
    if figure["change"]:
        return phrase("headline-change", change=figure["change"]["words"])
    return phrase("headline-from", n=figure["value"]["n"])


def headline_part(part: Part) -> list[Block | None]:
    """The key figures with their change and a small chart, and what they mean."""
    told = part["answer"]
    shown_figures = [f for f in told["figures"][: part.get("figures", 4)] if f["value"]["value"] is not None]
    key_figures = [
        (
            short_label(f["measure"], f["label"]), shown(f["value"]["value"], f["unit"]),
            change_words(f), spark_svg(f["recent"], height=24 if part.get("crowded") else 34),
        )
        for f in shown_figures
    ]  # fmt: skip
    beside = [
        phrase(
            "headline-figure",
            label=within(short_label(f["measure"], f["label"])),
            value=shown(f["whole"]["value"], f["unit"]),
        )
        for f in shown_figures
        if f["whole"] and f["whole"]["value"] is not None and f["unit"]
    ]
    seller, buyer = told["seller"], told["buyer"]
    meaning: list[Block | None] = [para(seller)] if seller and seller == buyer else []
    if seller != buyer:
        both = [
            (phrase(f"headline-for-a-{who}"), words) for who, words in (("seller", seller), ("buyer", buyer)) if words
        ]
        told_to = [_told_to(name, words, part.get("crowded", False)) for name, words in both]
        meaning = [columns(told_to, [1] * len(both))]
    base = phrase("headline-base", span=told["span"], where=told["where"])
    whole = phrase("headline-whole", everywhere=told["everywhere"], figures=", ".join(beside)) if beside else ""
    return [
        keys(key_figures) if key_figures else None,
        para(joined(base, whole), small=True),
        para(told["why"], large=True) if told["why"] else None,
        *meaning,
    ]  # fmt: skip


def _told_to(name: str, words: str, crowded: bool) -> list[Block]:
    """What it means for a seller or a buyer; in one line on a crowded page."""
    if not crowded:
        return [heading(name), para(words)]
    return [para(phrase("headline-told-to", who=name, words=continued(words)))]


def prices_part(part: Part) -> list[Block | None]:
    told = part["answer"]
    if not months_svg(told["months"]):
        return [para(phrase("prices-none"))]
    crowded = part.get("crowded", False)
    where = sentence_case(told["where"])
    alt, caption = phrase("prices-alt"), phrase("prices-key-short" if crowded else "prices-key", where=where)

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
        picture(under, rates["name"], phrase("prices-rates", name=rates["name"])) if rates and under else None,
    ]  # fmt: skip


# part → its measures, each with the number of homes from which a month of it is not hollow
_CHARTS = {
    "price_ways": (("median_price", SMALL), ("median_price_per_sqft", SMALL), ("same_home_price", 0)),
    "pace": (("months_of_supply", 0), ("median_days", SMALL)),
    "flow": (("new_listings", 0), ("contracts", 0), ("closings", 0)),
    "shares": (("median_share_of_list", SMALL), ("median_share_of_original", SMALL), ("share_with_price_cut", 0)),
}


def charts_part(part: Part) -> list[Block | None]:
    """Two or three measures by month beside each other, under their sentence."""
    told, kind = part["answer"], part["kind"]
    form, crowded = form_of(part), part.get("crowded", False)
    wide = 255 if len(_CHARTS[kind]) == 2 else 168
    tall = (90 if crowded else 138) if wide > 200 else 120
    parts = []
    for name, least in _CHARTS[kind]:
        title, unit = phrase(f"chart-{name}"), told["labels"][name][1]
        if drawn := months_line_svg(told["months"], name, unit, wide, tall, least, form):
            alt = phrase("by-month-alt", label=title)
            parts.append([heading(told_head(title, form, unit)), picture(drawn, alt)])
    if not parts:
        return [para(phrase("bulletin-unknown"))]
    return [
        para(told["sentence"], large=True) if told["sentence"] else None,
        columns(parts, [1] * len(parts)),
        para(phrase(f"chart-key-{'short' if crowded else kind}", months=str(told["supply_months"])), small=True),
    ]


def places_part(part: Part) -> list[Block | None]:
    told = part["answer"]
    if not told["places"]:
        return [para(phrase("places-none"))]
    by_price = sorted(told["places"], key=lambda p: -(p["values"]["median_price"]["value"] or 0))
    numbered = [p | {"number": n} for n, p in enumerate(by_price, 1)]
    rows = [
        *(_place_row(p, phrase("places-numbered", number=str(p["number"]), place=p["place"])) for p in numbered),
        _place_row(told["whole"], phrase("places-all")),
    ]
    over = phrases_of("", "head-sold", "head-before", "head-median", "head-change", "head-days", "head-supply")
    made = table(over, rows, widths=(2.1, 0.8, 0.9, 1.35, 1.15, 0.75, 1), last=True)
    words = phrase("places-key", span=told["span"], supply=supply_label(told))
    wide = _width(part) * (0.42 if _width(part) > 400 else 1)
    drawn = places_svg(
        numbered, part.get("lines", ()), wide, 70 + (14 if part.get("crowded") else 21) * min(len(rows), 9)
    )
    return [
        para(told["sentence"], large=True) if told["sentence"] else None,
        columns([[picture(drawn, phrase("places-alt"))], [made]], [0.42, 0.58]) if drawn else made,
        para(words, small=True),
    ]  # fmt: skip


def _place_row(p: dict[str, Any], name: str) -> list[str]:
    v = p["values"]
    price, days, supply = (
        "" if v[name]["value"] is None else bare_value(v[name], unit)
        for name, unit in (("median_price", "$"), ("median_days", "days"), ("months_of_supply", "months"))
    )
    return [
        name, f"{v['closings']['value'] or 0:,.0f}", f"{p['before']['closings']['value'] or 0:,.0f}", price,
        p["change"]["words"] if p["change"] else phrase("places-too-few"), days, supply,
    ]  # fmt: skip


def years_part(part: Part) -> list[Block | None]:
    told = part["answer"]
    years = [y["period"] + ("" if y["finished"] else " *") for y in told["years"]]
    rows = [
        [label, *(blank(told_value(y["values"][name], unit)) for y in told["years"])]
        for name, (label, unit) in told["labels"].items()
        if any(y["values"][name]["value"] is not None for y in told["years"])
    ]
    return [
        para(told["sentence"], large=True) if told["sentence"] else None,
        table(["", *years], rows, share=0.85),
        para(phrase("years-not-over"), small=True) if years and years[-1].endswith("*") else None,
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
        return [para(phrase("bulletin-unknown"))]
    base = {"$": phrase("heat-in-thousands"), "share": phrase("heat-in-percent")}.get(unit, "")
    caption = joined(told["sentence"], base, phrase("heat-outlined") if unit else "")
    return [picture(drawn, phrase("heat-alt", label=told["label"]), caption)]


def _cell(value: float, unit: str) -> str:
    """A value as a cell of the heat has it: prices in thousands, shares in percent."""
    if unit == "$":
        return f"{value / 1000:,.0f}"
    return f"{100 * value:.1f}" if unit == "share" else f"{value:,.1f}" if unit == "months" else f"{value:,.0f}"


def homes_part(part: Part) -> list[Block | None]:
    """The newest that sold, or came on: as cards with pictures, or as a list."""
    told, sold = part["answer"], part["kind"] == "sold"
    n, shown_homes = told["count"], told["homes"][:6]
    newest = phrase("homes-newest", n=len(shown_homes)) if shown_homes and n > len(shown_homes) else ""
    said = joined(phrase("homes-closed" if sold else "homes-came-on", month=told["month"], n=n), newest)
    if part.get("table") and shown_homes:
        rows = [
            [h["address"] or h["listing_id"], day(h["date"]) if h["date"] else "", told_value({"value": h["price"]}, "$"),
             "" if h["living_area"] is None else Quantity(h["living_area"], "sq ft"), per_sqft_alone(h["price_per_sqft"], 0),
             "" if h["days_on_market"] is None else f"{h['days_on_market']:,}"]
            for h in shown_homes
        ]  # fmt: skip
        first = ("head-closed", "head-price") if sold else ("homes-day", "homes-price-now")
        over = phrases_of("", *first, "head-square-feet", "head-per-square-foot", "head-days")
        return [para(said), table(over, rows, words=2, widths=(2.4, 1.1, 1, 0.8, 0.8, 0.6))]
    across = 3 if part.get("page_break") else 6
    cards = [
        card(
            part.get("pictures", {}).get(h["listing_id"], ""), h["address"] or h["listing_id"], "" if h["price"] is None else in_dollars(h["price"]),
            _lines(h, sold, across > 3),
            alt=phrase("front-of", home=h["address"]),
        )
        for h in shown_homes
    ]  # fmt: skip
    return [para(said), homes(cards, across)]


def _lines(home: dict[str, Any], sold: bool, narrow: bool) -> list[str]:
    """What stands under a home: its day, its size, how long it took."""
    size = phrase("facts-size", size=f"{home['living_area']:,.0f}") if home["living_area"] else ""
    waited = "" if home["days_on_market"] is None or not sold else phrase("count-days", n=home["days_on_market"])
    lines = [_when(home, sold, narrow), *([" · ".join(x for x in (size, waited) if x)] if narrow else [size, waited])]
    return [x for x in lines if x]


def _when(home: dict[str, Any], sold: bool, short: bool) -> str:
    """ "closed 30 October 2026"; of one that came on what became of it since. short: the day alone."""
    if not home["date"]:
        return ""
    if short:
        return day(home["date"])
    became = {"for_sale": "since", "under_contract": "under-contract", "sold": "closed", "failed": "taken-off"}
    word = "closed" if sold else became.get(home["kind"])
    return day(home["date"]) if word is None else phrase(f"homes-day-{word}", day=day(home["date"]))


def conditions_part(part: Part) -> list[Block | None]:
    """Three windows back from the day, with the arithmetic that lenders' published form asks for."""
    told = part["answer"]
    windows = [phrase("conditions-window", start=_short(a), end=_short(b)) for a, b, _ in told["windows"]]
    rows = []
    for line in told["lines"]:
        counted = line["unit"] in ("", "a month") or line["label"].startswith("Months")
        values = [told_value(v, line["unit"]).replace(" a month", "").replace("—", "") for v in line["values"]]
        cells = [
            value if counted or not v["n"] else phrase("conditions-of-n", value=value, n=str(v["n"]))
            for value, v in zip(values, line["values"], strict=True)
        ]
        if any(cells):
            rows.append([line["label"], *cells, phrase(f"conditions-{line['trend']}") if line["trend"] else ""])
    months = ", ".join(str(m) for _, _, m in told["windows"])
    words = phrase("conditions-key", months=months)
    return [
        para(phrase("conditions-of", where=told["where"])),
        table(["", *windows, phrase("conditions-trend")], rows, widths=(1.9, 1.5, 1.5, 1.5, 0.8)),
        para(words, small=True),
    ]


def _short(text: object) -> str:
    """A day as the head of a window: "Nov 1, 2025"."""
    made = dt.date.fromisoformat(str(text))
    return phrase("day-short", month=month_name(made.month), day=str(made.day), year=f"{made:%y}")


def words_part(part: Part) -> list[Block | None]:
    """The words of the measures, for who reads it for the first time."""
    return [
        table(
            ["", ""],
            [[name, phrase("sentence", words=text)] for name, text in part["answer"]["words"]],
            words=2,
            widths=(1, 3.4),
        )
    ]
