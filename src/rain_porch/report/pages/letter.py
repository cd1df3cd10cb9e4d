"""Pages of a market letter: views with their sentence, the year so far, bands, what changed. Pure functions of their answers."""

from __future__ import annotations

from collections.abc import Sequence
from typing import Any

from ...core.market.measures import SMALL
from ...core.market.view_reading import shown
from ..blocks import Block, figures, page, para, picture, table
from ..pictures.market_chart import view_svg
from ..wording import day

TABLE_PERIODS, CHANGES = 4, 24
Item = dict[str, Any]  # kind, title, comment, and the answer of its kind


def letter_pages(title: str, comment: str, items: Sequence[Item]) -> list[dict[str, Any]]:
    """The letter as pages: its title and words, then a page an item, set under one another where there is room."""
    opening: list[Block | None] = [para(text) for text in _paragraphs(comment)]
    if not items:
        opening.append(para("Nothing is in this letter yet."))
    return [page("letter", title, *opening), *item_pages(items)]


def item_pages(items: Sequence[Item]) -> list[dict[str, Any]]:
    """The items alone, as they stand in a client's report."""
    return [
        page(
            item["kind"],
            item["title"],
            *_OF[item["kind"]](item),
            *(para(t) for t in _paragraphs(item["comment"])),
            flow=True,
        )
        for item in items
    ]


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
        picture(view_svg(periods, lines, height=145), f"Chart: {item['title']}; the figures stand in the table below"),
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
        change = "" if r["change"] is None else r["change"]["words"]
        rows.append([r["label"], *(_told(r[k], r["unit"]) for k in ("now", "before")), change])
    return [
        para(f"This year to {told['end']}, against the same days of {year - 1}."),
        table(["Measure", str(year), f"same days of {year - 1}", "change"], rows, widths=(2.4, 1, 1, 0.8)),
    ]


def _told(point: dict[str, Any], unit: str) -> str:
    return "—" if point["value"] is None else shown(point["value"], unit)


_SIZE = (("median_price_per_sqft", "median per sq ft", "$/sq ft"), ("median_price", "median price", "$"),
         ("closings", "closings", ""), ("for_sale", "for sale", ""))  # fmt: skip
_PRICE = (("months_of_supply", "months of supply", "months"), ("for_sale", "for sale", ""), ("closings", "closings", ""),
          ("median_days", "median days", "days"))  # fmt: skip


def _bands(item: Item) -> list[Block | None]:
    told = item["answer"]
    out: list[Block | None] = [para(f"The twelve months to {told['end']}.")]
    for name, title, columns in (("size", "By size", _SIZE), ("price", "By price", _PRICE)):
        if told[name]:
            rows = [[r["label"], *(_told(r["values"][m], unit) for m, _, unit in columns)] for r in told[name]]
            out.append(table([title, *(label for _, label, _ in columns)], rows))
    return out if len(out) > 1 else [para("No home closed here in these months.")]


def _changed(item: Item) -> list[Block | None]:
    told = item["answer"]
    if not told["counts"]:
        return [para(f"Nothing happened here from {day(told['since'])} to {day(told['through'])}.")]
    counts = ", ".join(f"{told['labels'][what].lower()} {n}" for what, n in told["counts"].items())
    rows = []
    for c in told["changes"][:CHANGES]:
        price = c["new"] if c["new"] is not None else c["record"]["price"]
        before = f"{c['old']:,.0f}" if c["old"] is not None else ""
        rows.append([day(c["date"]), told["labels"][c["what"]], c["record"]["address"], f"{price or 0:,.0f}", before])
    more = len(told["changes"]) - len(rows)
    return [
        para(f"From {day(told['since'])} to {day(told['through'])}: {counts}."),
        table(["Day", "", "Home", "price", "before"], rows, words=3, widths=(1, 1.3, 2.4, 1, 1)),
        para(f"The newest {CHANGES}; {more} more.", small=True) if more > 0 else None,
    ]


_OF = {"view": _view, "so_far": _so_far, "bands": _bands, "changed": _changed}
