"""Parts of a bulletin that are tables: a view, the year so far, bands, what changed, what moved since the last one."""

from __future__ import annotations

from typing import Any

from ...core.facts.dates import period_said
from ...core.facts.local_form import USUAL, LocalForm, told_head
from ...core.market.measures import SMALL
from ...core.market.view_reading import shown
from ..blocks import Block, columns, figures, para, picture, table
from ..pictures import ink
from ..pictures.market_chart import view_svg
from ..wording import day

TABLE_PERIODS, CHANGES, CHANGES_BELOW = 4, 36, 16  # changes on a page of their own, and under something else
Part = dict[str, Any]  # kind, title, comment, and the answer of its kind


def view_part(part: Part) -> list[Block | None]:
    told = part["answer"]
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
    for i in range(len(periods) - 1, max(-1, len(periods) - 1 - part.get("periods", TABLE_PERIODS)), -1):
        p = periods[i]
        rows.append([period_said(p["period"]) + ("" if p["finished"] else " *"), *(_cell(line, i) for line in lines)])
    return [
        para(told["sentence"]),
        *(para(n, small=True) for n in told["notes"]),
        top,
        picture(
            view_svg(periods, [_drawn(line, form_of(part)) for line in lines], float(part.get("width", ink.WIDE)), 145),
            f"Chart: {part['title']}; the figures stand in the table below",
        ),
        table(head, rows) if part.get("table", True) else None,
        para("Hollow: fewer than five homes, or * a period that is not finished.", small=True) if hollow else None,
    ]


def form_of(part: Part) -> LocalForm:
    """In whose units a part's charts are drawn."""
    form: LocalForm = part.get("form", USUAL)
    return form


def _drawn(line: dict[str, Any], form: LocalForm) -> dict[str, Any]:
    """A line of a view in the units in which it is drawn, named by them."""
    unit = line["unit"]
    points = [p and {**p, "value": p["value"] and form.measured(p["value"], unit)} for p in line["points"]]
    heads = {k: told_head(line[k], form, unit) for k in ("label", "name")}
    return {**line, **heads, "points": points}


def _cell(line: dict[str, Any], i: int) -> str:
    point = line["points"][i]
    if point is None or point["value"] is None:
        return "—"
    return f"{point['value']:.2f}" if line["unit"] == "series" else shown(point["value"], line["unit"])


def so_far_part(part: Part) -> list[Block | None]:
    told = part["answer"]
    year = int(str(told["end"])[:4])
    rows = []
    for r in told["rows"]:
        if not any(r[k]["value"] for k in ("now", "before", "earlier")):
            continue  # nothing is known, or nothing happened
        change = "" if r["change"] is None else r["change"]["words"]
        rows.append(
            [
                r["label"],
                *(told_value(r[k], r["unit"]) for k in ("now", "before")),
                change,
                told_value(r["earlier"], r["unit"]),
            ]
        )
    return [
        para(f"This year to {day(told['end'])}, against the same days of {year - 1} and of {year - 2}."),
        table(
            ["Measure", str(year), f"same days of {year - 1}", "change", f"same days of {year - 2}"],
            rows,
            widths=(2.4, 1, 1.1, 0.9, 1.1),
        ),
    ]


def told_value(point: dict[str, Any], unit: str) -> str:
    return "—" if point["value"] is None else shown(point["value"], unit)


_SIZE = (("median_price_per_sqft", "$/sq ft", "$/sq ft"), ("median_price", "median", "$"), ("closings", "sold", ""))
_PRICE = (
    ("months_of_supply", "supply", "months"),
    ("for_sale", "for sale", ""),
    ("closings", "sold", ""),
    ("median_days", "days", "days"),
)


def _without_unit(told: str, unit: str) -> str:
    """A value in a column whose head names its unit."""
    return told.removesuffix(" months").removesuffix(" days") if unit in ("months", "days") else told


def supply_label(told: Part) -> str:
    """What months of supply are called within a sentence: their name carries the pace that they stand on."""
    label = str(told["labels"]["months_of_supply"][0])
    return label[0].lower() + label[1:]


def bands_part(part: Part) -> list[Block | None]:
    """Price per square foot by size beside months of supply by price."""
    told = part["answer"]
    both: list[list[Block | None]] = []
    for name, title, measures in (("size", "By size", _SIZE), ("price", "By price", _PRICE)):
        if told[name]:
            rows = [
                [
                    r["label"],
                    *(_without_unit(told_value(r["values"][m], unit), unit) for m, _, unit in measures),
                ]
                for r in told[name]
            ]
            both.append(
                [table([title, *(label for _, label, _ in measures)], rows, widths=(2.4, *[1.0] * len(measures)))]
            )
    if not both:
        return [para("No home closed here in these months.")]
    words = f"The twelve months to {day(told['end'])}; medians of the homes that sold; supply: {supply_label(told)}, for sale at their end."
    return [columns(both, [1.0] * len(both)), para(words, small=True)]


def changed_part(part: Part) -> list[Block | None]:
    told = part["answer"]
    if not told["counts"]:
        return [para(f"Nothing happened here from {day(told['since'])} to {day(told['through'])}.")]
    counts = ", ".join(f"{told['labels'][what].lower()} {n}" for what, n in told["counts"].items())
    rows = []
    most = CHANGES if part.get("page_break") else CHANGES_BELOW
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


def since_part(part: Part) -> list[Block | None]:
    """Key figures then and now, and what happened between."""
    told = part["answer"]
    then, now = day(told["since"]), day(told["through"])
    rows = [
        [
            r["label"],
            told_value(r["then"], r["unit"]),
            told_value(r["now"], r["unit"]),
            r["change"]["words"] if r["change"] else "",
        ]
        for r in told["lines"]
    ]
    return [
        para(
            f"How the market stood on {then}, and how it stands on {now}; prices and days over the twelve whole months before each.",
            small=True,
        ),
        table(["", then, now, "change"], rows, widths=(2.2, 1, 1, 0.9), share=0.85),
        *changed_part({"answer": told["happened"]}),
    ]
