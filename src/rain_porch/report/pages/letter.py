"""Pages of a market letter: views with their sentence, the year so far, bands, what changed. Pure functions of their answers."""

from __future__ import annotations

import calendar
from collections.abc import Sequence
from typing import Any

from ...core.market.measures import SMALL
from ...core.market.view_reading import shown
from ..blocks import Block, card, columns, figures, heading, homes, keys, page, para, picture, table
from ..pictures import ink
from ..pictures.market_chart import view_svg
from ..pictures.months import months_svg
from ..pictures.small_charts import heat_svg, months_line_svg, places_svg, spark_svg
from ..wording import day

TABLE_PERIODS, CHANGES, CHANGES_BELOW = 4, 36, 16  # changes on a page of their own, and under something else
Item = dict[str, Any]  # kind, title, comment, and the answer of its kind


def letter_pages(title: str, comment: str, items: Sequence[Item]) -> list[dict[str, Any]]:
    """The bulletin as pages: its title and words, then its parts under each other; one that begins a page stands on top of one."""
    if not items:
        return [
            page("letter", title, *(para(t) for t in _paragraphs(comment)), para("Nothing is in this bulletin yet."))
        ]
    return _pages(title, items, [para(text) for text in _paragraphs(comment)])


def item_pages(items: Sequence[Item]) -> list[dict[str, Any]]:
    """The parts alone, as they stand in a client's report: the first gives the page its title."""
    return _pages("", items, []) if items else []


def _pages(title: str, items: Sequence[Item], opening: Sequence[Block | None]) -> list[dict[str, Any]]:
    out: list[dict[str, Any]] = []
    blocks: list[Block | None] = list(opening)
    lead, name = "", title
    for n, item in enumerate(items):
        if item.get("page_break") and (n or opening):
            out.append(page(f"letter {len(out)}", name, *blocks, lead=lead))
            blocks, lead, name = [], "", ""
        first = not name
        if first:
            name = item["title"]
        if item["kind"] == "headline" and not lead and len(blocks) <= len(opening):
            lead = item["answer"]["headline"]
        elif not first:
            blocks.append(heading(item["title"]))
        blocks += [*_OF[item["kind"]](item), *(para(t) for t in _paragraphs(item["comment"]))]
    out.append(page(f"letter {len(out)}", name, *blocks, lead=lead))
    return out


def _width(item: Item) -> float:
    """How wide pictures as wide as the page are drawn, in points."""
    return float(item.get("width", ink.WIDE))


def _paragraphs(text: str) -> list[str]:
    return [part.strip() for part in text.split("\n\n") if part.strip()]


def _view(item: Item) -> list[Block | None]:
    told = item["answer"]
    lines, periods = told["lines"], told["periods"]
    newest = told["newest"]
    unit = lines[0]["unit"]
    change = told["change"]
    top = None
    if newest is not None:
        moved = "" if change is None else f"{change['words']} on the year"
        top = figures(
            [
                (f"{lines[0]['label'].split(', mean of')[0]}, {told['newest_over']}", shown(newest, unit), "moss"),
                ("Change", moved or "—", "slate"),
            ]
        )
    hollow = any(p is not None and p["n"] < SMALL and line["unit"] for line in lines for p in line["points"])
    hollow = hollow or not all(p["finished"] for p in periods)
    head = ["Period", *(line["name"] or line["label"] for line in lines)]
    rows = []
    for i in range(len(periods) - 1, max(-1, len(periods) - 1 - item.get("periods", TABLE_PERIODS)), -1):
        p = periods[i]
        rows.append([p["period"] + ("" if p["finished"] else " *"), *(_cell(line, i) for line in lines)])
    return [
        para(told["sentence"]),
        *(para(n, small=True) for n in told["notes"]),
        top,
        picture(
            view_svg(periods, lines, _width(item), 145), f"Chart: {item['title']}; the figures stand in the table below"
        ),
        table(head, rows) if item.get("table", True) else None,
        para("Hollow: fewer than five homes, or * a period that is not finished.", small=True) if hollow else None,
    ]


def _cell(line: dict[str, Any], i: int) -> str:
    point = line["points"][i]
    if point is None or point["value"] is None:
        return "—"
    return f"{point['value']:.2f}" if line["unit"] == "series" else shown(point["value"], line["unit"])


def _so_far(item: Item) -> list[Block | None]:
    told = item["answer"]
    year = int(str(told["end"])[:4])
    rows = []
    for r in told["rows"]:
        if not any(r[k]["value"] for k in ("now", "before", "earlier")):
            continue  # nothing is known, or nothing happened
        change = "" if r["change"] is None else r["change"]["words"]
        rows.append(
            [r["label"], *(_told(r[k], r["unit"]) for k in ("now", "before")), change, _told(r["earlier"], r["unit"])]
        )
    return [
        para(f"This year to {day(told['end'])}, against the same days of {year - 1} and of {year - 2}."),
        table(
            ["Measure", str(year), f"same days of {year - 1}", "change", f"same days of {year - 2}"],
            rows,
            widths=(2.4, 1, 1.1, 0.9, 1.1),
        ),
    ]


def _told(point: dict[str, Any], unit: str) -> str:
    return "—" if point["value"] is None else shown(point["value"], unit)


_SIZE = (("median_price_per_sqft", "median per sq ft", "$/sq ft"), ("median_price", "median price", "$"),
         ("closings", "closings", ""), ("for_sale", "for sale", ""))  # fmt: skip
_PRICE = (("months_of_supply", "months of supply", "months"), ("for_sale", "for sale", ""), ("closings", "closings", ""),
          ("median_days", "median days", "days"))  # fmt: skip


def _bands(item: Item) -> list[Block | None]:
    told = item["answer"]
    out: list[Block | None] = [para(f"The twelve months to {day(told['end'])}.")]
    for name, title, measures in (("size", "By size", _SIZE), ("price", "By price", _PRICE)):
        if told[name]:
            rows = [[r["label"], *(_told(r["values"][m], unit) for m, _, unit in measures)] for r in told[name]]
            out.append(table([title, *(label for _, label, _ in measures)], rows))
    return out if len(out) > 1 else [para("No home closed here in these months.")]


def _changed(item: Item) -> list[Block | None]:
    told = item["answer"]
    if not told["counts"]:
        return [para(f"Nothing happened here from {day(told['since'])} to {day(told['through'])}.")]
    counts = ", ".join(f"{told['labels'][what].lower()} {n}" for what, n in told["counts"].items())
    rows = []
    most = CHANGES if item.get("page_break") else CHANGES_BELOW
    for c in told["changes"][:most]:
        price = c["new"] if c["new"] is not None else c["record"]["price"]
        before = f"{c['old']:,.0f}" if c["old"] is not None else ""
        rows.append([day(c["date"]), told["labels"][c["what"]], c["record"]["address"], f"{price or 0:,.0f}", before])
    more = len(told["changes"]) - len(rows)
    return [
        para(f"From {day(told['since'])} to {day(told['through'])}: {counts}."),
        table(["Day", "", "Home", "price", "before"], rows, words=3, widths=(1, 1.3, 2.4, 1, 1)),
        para(f"The newest {len(rows)}; {more} more.", small=True) if more > 0 else None,
    ]


def _headline(item: Item) -> list[Block | None]:
    """The key figures with their change and a small chart, and what they mean."""
    told = item["answer"]
    told_figures = [
        (
            f["label"].split(" (")[0], shown(f["value"]["value"], f["unit"]),
            f"{f['change']['words']} on the year" if f["change"] else f"from {f['value']['n']:,}", spark_svg(f["recent"]),
        )
        for f in told["figures"]
        if f["value"]["value"] is not None
    ]  # fmt: skip
    seller, buyer = told["seller"], told["buyer"]
    meaning: list[Block | None] = [para(seller)] if seller and seller == buyer else []
    if seller != buyer:
        both = [x for x in (("For a seller", seller), ("For a buyer", buyer)) if x[1]]
        meaning = [columns([[heading(name), para(words)] for name, words in both], [1] * len(both))]
    return [
        keys(told_figures) if told_figures else None,
        para(f"In {told['span']}, of {told['where']}, beside the same months a year before. The lines: two years by month.", small=True),
        para(told["why"], large=True) if told["why"] else None,
        *meaning,
    ]  # fmt: skip


def _prices(item: Item) -> list[Block | None]:
    told = item["answer"]
    drawn = months_svg(told["months"], _width(item), 320 if item.get("page_break") else 190)
    if not drawn:
        return [para("No price is recorded here in these years.")]
    words = ("Dots: the median price of each month, hollow where fewer than five homes closed or the month is not over; line: the mean of the half year "
             "to each month; bars: closings.")  # fmt: skip
    return [
        picture(drawn, "Median price and closings by month", f"{told['where'][:1].upper()}{told['where'][1:]}. {words}")
    ]


def _pace(item: Item) -> list[Block | None]:
    told = item["answer"]
    parts = [
        [heading(title), picture(drawn, title, words)]
        for title, name, unit, least, words in (
            ("Months of supply", "months_of_supply", "months", 0, "Homes for sale at each month's end, at the pace of the 12 months before."),
            ("Days to a buyer", "median_days", "days", SMALL, "Median of the month; hollow where fewer than five homes closed or the month is not over."),
        )
        if (drawn := months_line_svg(told["months"], name, unit, least=least))
    ]  # fmt: skip
    return [
        para(told["pace"], large=True) if told["pace"] else None,
        columns(parts, [1] * len(parts)) if parts else para("Nothing is known of the pace here."),
    ]


def _places(item: Item) -> list[Block | None]:
    told = item["answer"]
    if not told["places"]:
        return [para("No place has a sale to set beside another.")]
    drawn = places_svg(told["places"], item.get("lines", ()), _width(item))
    rows = [
        _place_row(p, p["place"])
        for p in sorted(told["places"], key=lambda p: -(p["values"]["median_price"]["value"] or 0))
    ]
    return [
        picture(drawn, "Places by the change of their median price", f"Change of the median price in {told['span']} on the year before; grey where fewer than five sold.") if drawn else None,
        table(["", "closings", "median price", "on the year", "days", "supply"], [*rows, _place_row(told["whole"], "all together")], widths=(2, 0.8, 1.1, 1, 0.8, 1), last=True),
    ]  # fmt: skip


def _place_row(p: dict[str, Any], name: str) -> list[str]:
    v = p["values"]
    return [
        name, f"{v['closings']['value'] or 0:,.0f}", _told(v["median_price"], "$").replace("—", ""), p["change"]["words"] if p["change"] else "too few",
        _told(v["median_days"], "days").replace("—", "").split(" ")[0], _told(v["months_of_supply"], "months").replace("—", ""),
    ]  # fmt: skip


def _years(item: Item) -> list[Block | None]:
    told = item["answer"]
    heads = [y["period"] + ("" if y["finished"] else " *") for y in told["years"]]
    rows = [
        [label, *(_told(y["values"][name], unit).replace("—", "") for y in told["years"])]
        for name, (label, unit) in told["labels"].items()
    ]
    months = [(f"{year}", values) for year, values in told["closings"].items()]
    known = [
        (v, f"{calendar.month_name[i + 1]} {year}")
        for year, values in told["closings"].items()
        for i, v in enumerate(values)
        if v is not None
    ]
    best = (
        f"Most closed in {max(known)[1]} ({max(known)[0]:,}), fewest in {min(known)[1]} ({min(known)[0]:,})."
        if len(known) > 1
        else ""
    )
    return [
        table(["", *heads], rows, share=0.85),
        para("* not over yet.", small=True) if heads and heads[-1].endswith("*") else None,
        heading("Closings month by month"),
        picture(heat_svg(months, _width(item)), "Closings by month and year", best),
    ]  # fmt: skip


def _sold(item: Item) -> list[Block | None]:
    told = item["answer"]
    cards = [
        card(
            item.get("pictures", {}).get(h["listing_id"], ""), h["address"] or h["listing_id"], "" if h["price"] is None else f"${h['price']:,.0f}",
            [x for x in (f"closed {day(h['date'])}" if h["date"] else "", f"{h['living_area']:,.0f} sq ft" if h["living_area"] else "",
                         "" if h["days_on_market"] is None else f"{h['days_on_market']:,} days on the market") if x],
            alt=f"Front of {h['address']}",
        )
        for h in told["homes"]
    ]  # fmt: skip
    n = told["sold"]
    return [
        para(
            f"{told['month']}: {n:,} {'home' if n == 1 else 'homes'} closed, {told['listed']:,} came on."
            + (f" The newest {len(cards)}:" if cards and n > len(cards) else "")
        ),
        homes(cards, 3 if item.get("page_break") else min(6, max(4, len(cards)))),
    ]


_OF = {
    "headline": _headline,
    "prices": _prices,
    "pace": _pace,
    "places": _places,
    "years": _years,
    "sold": _sold,
    "view": _view,
    "so_far": _so_far,
    "bands": _bands,
    "changed": _changed,
}
