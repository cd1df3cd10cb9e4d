"""Parts of a bulletin that are tables: a view, the year so far, bands, what changed, what moved since the last one."""

from __future__ import annotations

from typing import Any

from ...core.facts.dates import period_said
from ...core.facts.local_form import USUAL, LocalForm, told_head
from ...core.market.measures import SMALL
from ...core.market.view_reading import bare, shown
from ...core.phrases import continued, phrase, phrases_of, within
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
        moved = "—" if change is None else phrase("headline-change", change=change["words"])
        label = phrase("view-newest", label=lines[0]["alone"], over=told["newest_over"])
        top = figures([(label, shown(newest, unit), "moss"), (phrase("view-change"), moved, "slate")])
    hollow = any(p is not None and p["n"] < SMALL and line["unit"] for line in lines for p in line["points"])
    hollow = hollow or not all(p["finished"] for p in periods)
    head = [phrase("view-period"), *(line["name"] or line["label"] for line in lines)]
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
            phrase("view-alt", title=part["title"]),
        ),
        table(head, rows) if part.get("table", True) else None,
        para(phrase("view-hollow"), small=True) if hollow else None,
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
        para(phrase("so-far-lead", day=day(told["end"]), before=str(year - 1), earlier=str(year - 2))),
        table(
            [
                phrase("so-far-measure"), str(year), phrase("so-far-same-days", year=str(year - 1)), phrase("head-change"),
                phrase("so-far-same-days", year=str(year - 2)),
            ],
            rows,
            widths=(2.4, 1, 1.1, 0.9, 1.1),
        ),
    ]  # fmt: skip


def told_value(point: dict[str, Any], unit: str) -> str:
    return "—" if point["value"] is None else shown(point["value"], unit)


# (measure, its head, its unit)
_SIZE = (
    ("median_price_per_sqft", "head-per-square-foot", "$/sq ft"),
    ("median_price", "head-median", "$"),
    ("closings", "head-sold", ""),
)
_PRICE = (
    ("months_of_supply", "head-supply", "months"),
    ("for_sale", "bands-for-sale", ""),
    ("closings", "head-sold", ""),
    ("median_days", "head-days", "days"),
)


def bare_value(point: dict[str, Any], unit: str) -> str:
    """A value in a column whose head names its unit."""
    return "—" if point["value"] is None else bare(point["value"], unit)


def supply_label(told: Part) -> str:
    """What months of supply are called within a sentence: their name carries the pace that they stand on."""
    return continued(told["labels"]["months_of_supply"][0])


def bands_part(part: Part) -> list[Block | None]:
    """Price per square foot by size beside months of supply by price."""
    told = part["answer"]
    both: list[list[Block | None]] = []
    for name, measures in (("size", _SIZE), ("price", _PRICE)):
        if told[name]:
            rows = [
                [
                    r["label"],
                    *(bare_value(r["values"][m], unit) for m, _, unit in measures),
                ]
                for r in told[name]
            ]
            over = phrases_of(f"bands-{name}", *(key for _, key, _ in measures))
            both.append([table(over, rows, widths=(2.4, *[1.0] * len(measures)))])
    if not both:
        return [para(phrase("bands-none"))]
    words = phrase("bands-key", day=day(told["end"]), supply=supply_label(told))
    return [columns(both, [1.0] * len(both)), para(words, small=True)]


def changed_part(part: Part) -> list[Block | None]:
    told = part["answer"]
    span = {"from": day(told["since"]), "to": day(told["through"])}
    if not told["counts"]:
        return [para(phrase("changed-none", **span))]
    counts = [
        phrase("changed-count", what=within(told["labels"][what]), n=str(n)) for what, n in told["counts"].items()
    ]
    rows = []
    most = CHANGES if part.get("page_break") else CHANGES_BELOW
    for c in told["changes"][:most]:
        price = c["new"] if c["new"] is not None else c["record"]["price"]
        before = f"{c['old']:,.0f}" if c["old"] is not None else ""
        rows.append([day(c["date"]), told["labels"][c["what"]], c["record"]["address"], f"{price or 0:,.0f}", before])
    more = len(told["changes"]) - len(rows)
    return [
        para(phrase("changed-lead", **span, counts=", ".join(counts))),
        table(phrases_of("changed-day", "", "changed-home", "head-price", "head-before"), rows, words=3, widths=(1, 1.3, 2.4, 1, 1)),
        para(phrase("changed-newest", n=len(rows), more=more), small=True) if more > 0 else None,
    ]  # fmt: skip


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
        para(phrase("since-lead", then=then, now=now), small=True),
        table(["", then, now, phrase("head-change")], rows, widths=(2.2, 1, 1, 0.9), share=0.85),
        *changed_part({"answer": told["happened"]}),
    ]
