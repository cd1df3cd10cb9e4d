"""The report as a workbook: the chosen homes, the grid with live formulas, what is around, the market by month."""

from __future__ import annotations

import datetime as dt
import io
from collections.abc import Sequence
from dataclasses import dataclass
from typing import Any

from xlsxwriter.utility import xl_col_to_name

from ...core.facts.dates import said
from ...core.phrases import phrase, phrases_of
from ...core.statistics.summary import summarise
from ..model import ReportInput
from ..pages.readings import KINDS, reading
from ..pages.telling import kind_words
from ..wording import facts_line, label
from .sheet import workbook_in, write_row

FACTS = ("living_area", "bedrooms_total", "bathrooms_full", "bathrooms_half", "garage_spaces", "lot_size_square_feet",
         "year_built")  # fmt: skip
WIDEST = 48  # signs of a column


@dataclass(frozen=True)
class Styles:
    bold: Any
    head: Any
    money: Any
    cents: Any
    share: Any
    day: Any
    miles: Any
    plain: Any
    year: Any


def _styles(book: Any) -> Styles:
    return Styles(
        book.add_format({"bold": True}), book.add_format({"bold": True, "text_wrap": True, "bottom": 1, "valign": "top"}),
        book.add_format({"num_format": "#,##0"}), book.add_format({"num_format": "#,##0.00"}), book.add_format({"num_format": "0.0%"}),
        book.add_format({"num_format": "yyyy-mm-dd", "align": "left"}), book.add_format({"num_format": "0.00"}),
        book.add_format({"num_format": "#,##0.##"}), book.add_format({"num_format": "0"}),
    )  # fmt: skip


def workbook(given: ReportInput) -> bytes:
    """The workbook as bytes. Words are written as words: none of them is ever taken for a formula. Days are dates, every figure
    has its unit in its column's head, and each sheet prints on the agent's paper with its heads on every page."""
    out = io.BytesIO()
    with workbook_in(out) as book:
        book.set_properties(
            {
                "title": given.title,
                "author": given.agent.get("name", ""),
                "comments": phrase("book-remark"),
            }
        )
        styles = _styles(book)
        _chosen(book.add_worksheet(phrase("sheet-comps")), given, styles)
        _grid(book.add_worksheet(phrase("sheet-grid")), given, styles)
        _around(book.add_worksheet(phrase("sheet-around")), given, styles)
        if given.market:
            _market(book.add_worksheet(phrase("sheet-market")), given, styles)
    return out.getvalue()


def _write(sheet: Any, row: int, values: Sequence[object], styles: Sequence[Any]) -> None:
    """A row whose cells have each their own style; a day becomes a date."""
    for column, (value, style) in enumerate(zip(values, styles, strict=True)):
        if isinstance(value, dt.date):
            sheet.write_datetime(row, column, dt.datetime.combine(value, dt.time()), style)
        elif isinstance(value, int | float) and not isinstance(value, bool):
            sheet.write_number(row, column, value, style)
        elif value is not None:
            sheet.write_string(row, column, str(value)[:32_000])


def _laid(sheet: Any, given: ReportInput, heads: int, rows: int, columns: int, widths: Sequence[float]) -> None:
    """Widths that clip nothing, heads that stay, and how it prints: landscape, one page wide, heads on each page."""
    for column, width in enumerate(widths):
        sheet.set_column(column, column, min(WIDEST, width))
    sheet.freeze_panes(heads, 1)
    sheet.set_landscape()
    sheet.set_paper(9 if given.brand.size == "a4" else 1)
    sheet.fit_to_pages(1, 0)
    sheet.repeat_rows(heads - 1)
    sheet.print_area(0, 0, max(rows - 1, heads), columns - 1)
    foot = phrase("book-foot", home=given.title, day=said(given.price["effective_date"]))
    sheet.set_footer(f"&L{_foot(foot)}&R{phrase('book-page', page='&P', pages='&N')}")


def _heads(*names: str) -> list[str]:
    """What stands over the columns of these names."""
    return phrases_of(*(f"book-{name}" for name in names))


def _foot(text: str) -> str:
    """Words in a foot, where an ampersand would be an order."""
    return text.replace("&", "&&")[:180]


def _width(rows: Sequence[Sequence[object]], columns: int) -> list[float]:
    """How wide each column must be for what stands in it."""
    return [
        max(
            [
                9.0,
                *(
                    len(f"{r[c]:,}" if isinstance(r[c], int | float) else str(r[c])) + 2.0
                    for r in rows
                    if c < len(r) and r[c] is not None
                ),
            ]
        )
        for c in range(columns)
    ]


def _day(text: Any) -> dt.date | None:
    return dt.date.fromisoformat(str(text)[:10]) if text else None


def _head_width(heads: Sequence[str]) -> list[float]:
    """A head may stand on two lines; none of its words is cut."""
    return [max(9.0, len(h) / 2 + 3, *(len(w) + 2.0 for w in h.split() or [""])) for h in heads]


def _chosen(sheet: Any, given: ReportInput, s: Styles) -> None:
    sheet.write_string(0, 0, given.title, s.bold)
    sheet.write_string(0, 1, facts_line(given.subject["facts"]))
    sheet.write_string(1, 0, given.price["sentence"])
    heads = [
        *_heads(
            "home",
            "number",
            "listing",
            "kind",
            "date",
            "price",
            "price-per-square-foot",
            "miles-away",
            "days-on-market",
        ),
        *(label(n) for n in FACTS),
        phrase("line-likeness"),
    ]
    numbers = [s.year if n == "year_built" else s.plain for n in FACTS]
    styles = [None, s.plain, None, None, s.day, s.money, s.cents, s.miles, s.plain, *numbers, s.plain]
    write_row(sheet, 3, heads, s.head)
    mine = given.subject["facts"]
    rows: list[list[Any]] = [
        [
            given.title,
            None,
            "",
            phrase("book-this-home"),
            None,
            given.list_price,
            None,
            None,
            None,
            *(mine.get(n) for n in FACTS),
            None,
        ]
    ]
    rows += [
        [c["address"] or c["listing_id"], n, c["listing_id"], kind_words(c["kind"]), _day(c["date"]), c["price"], c["price_per_sqft"],
         c["distance_miles"], c["days_on_market"], *(c["facts"].get(f) for f in FACTS), c["likeness"]]
        for n, c in enumerate(given.chosen, 1)
    ]  # fmt: skip
    for r, row in enumerate(rows, start=4):
        _write(sheet, r, row, styles)
    widths = [max(a, b) for a, b in zip(_width(rows, len(heads)), _head_width(heads), strict=True)]
    _laid(sheet, given, 4, 4 + len(rows), len(heads), widths)


def _grid(sheet: Any, given: ReportInput, s: Styles) -> None:
    """A column for each comp: price, lines, and in formulas the adjusted price, net, gross and the indicated value."""
    comps = given.price["comps"]
    if not comps:
        sheet.write_string(0, 0, phrase("book-none-kept"))
        return
    names = [n for n in given.grid[0]["lines"] if any(g["lines"].get(n) for g in given.grid)]
    write_row(sheet, 0, [phrase("book-dollars"), *(c["address"] or c["listing_id"] for c in comps)], s.head)
    write_row(sheet, 1, [phrase("book-close-price"), *(c["close_price"] for c in comps)], s.money)
    for r, name in enumerate(names, start=2):
        write_row(sheet, r, [label(name), *(g["lines"].get(name) for g in given.grid)], s.money)
    first, last = 3, 2 + len(names)
    rows = {"adjusted-price": last + 1, "net": last + 2, "gross": last + 3, "weight": last + 4}
    for name, row in rows.items():
        sheet.write_string(row - 1, 0, phrase(f"book-{name}"), s.bold)
    for k, c in enumerate(comps, start=1):
        col = xl_col_to_name(k)
        lines = f"{col}{first}:{col}{last}"
        sheet.write_formula(rows["adjusted-price"] - 1, k, f"={col}2+SUM({lines})", s.money, c["adjusted_price"])
        sheet.write_formula(rows["net"] - 1, k, f"=SUM({lines})/{col}2", s.share, c["net_pct"] / 100)
        sheet.write_formula(
            rows["gross"] - 1, k, f'=(SUMIF({lines},">0")-SUMIF({lines},"<0"))/{col}2', s.share, c["gross_pct"] / 100
        )
        sheet.write_number(rows["weight"] - 1, k, c["weight"], s.share)
    end = xl_col_to_name(len(comps))
    prices, weights = (f"B{rows[t]}:{end}{rows[t]}" for t in ("adjusted-price", "weight"))
    at = last + 6
    added = said = ""
    shared = f"SUM({weights})"
    if model := given.price.get("model"):
        write_row(sheet, at + 1, [phrase("book-model"), model["value"]], s.money)
        sheet.write_number(at + 1, 2, model["weight"], s.share)
        said, shared = f"+B{at + 2}*C{at + 2}", f"({shared}+C{at + 2})"
    for r, a in enumerate(given.price["apart"], start=at + 3):
        write_row(sheet, r, [phrase("book-added-once", label=a["label"]), a["amount"]], s.money)
        added += f"+B{r + 1}"
    sheet.write_string(at - 1, 0, phrase("line-indicated-value"), s.bold)
    sheet.write_formula(
        at - 1,
        1,
        f"=ROUND((SUMPRODUCT({prices},{weights}){said})/{shared}{added},-2)",
        s.money,
        given.price["indicated_value"] or 0,
    )
    if given.list_price:
        write_row(sheet, at, [phrase("line-list-price"), given.list_price], s.money)
    longest = max(len(label(n)) for n in [*names, "market_change"]) + 4.0
    addresses = _head_width([str(c["address"] or c["listing_id"]) for c in comps])
    _laid(
        sheet,
        given,
        1,
        at + 4 + len(given.price["apart"]),
        len(comps) + 1,
        [max(26.0, longest), *(max(13.0, w) for w in addresses)],
    )


def _around(sheet: Any, given: ReportInput, s: Styles) -> None:
    heads = _heads("home", "kind", "date", "price", "price-per-square-foot", "miles-away", "days-on-market", "number")
    write_row(sheet, 0, heads, s.head)
    rows = [
        [c["address"] or c["listing_id"], kind_words(c["kind"]), _day(c["date"]), c["price"], c["price_per_sqft"], c["distance_miles"],
         c["days_on_market"], given.number_of(c["listing_id"])]
        for c in given.around
    ]  # fmt: skip
    for r, row in enumerate(rows, start=1):
        _write(sheet, r, row, [None, None, s.day, s.money, s.cents, s.miles, s.plain, s.plain])
    at = len(rows) + 2
    told = _heads("price", "homes", "low", "lower_quartile", "mean", "median", "upper_quartile", "high")
    write_row(sheet, at, told, s.head)
    for kind, kinds in KINDS.items():
        f = summarise([c["price"] for c in given.around if c["kind"] in kinds and c["price"]], 1000)
        if f.count:
            at += 1
            write_row(
                sheet,
                at,
                [reading("short-", kind), f.count, f.low, f.lower_quartile, f.mean, f.median, f.upper_quartile, f.high],
                s.money,
            )
    widths = [
        max(a, b, c) for a, b, c in zip(_width(rows, len(heads)), _head_width(heads), _head_width(told), strict=True)
    ]
    _laid(sheet, given, 1, at + 1, len(heads), [max(widths[0], 16.0), *widths[1:]])


def _market(sheet: Any, given: ReportInput, s: Styles) -> None:
    """The months of the home's market: every measure that its parts show."""
    parts = [p["answer"] for p in given.market if "months" in p["answer"]]
    labels = {name: told for answer in parts for name, told in answer["labels"].items()}
    measures = [
        phrase("book-in-dollars", label=label) if unit.startswith("$") else label for label, unit in labels.values()
    ]
    heads = [*_heads("month"), *measures, *_heads("finished")]
    write_row(sheet, 0, heads, s.head)
    months = list(zip(*(answer["months"] for answer in parts), strict=True))
    for r, same in enumerate(months, start=1):
        values = {name: point["value"] for month in same for name, point in month["values"].items()}
        told = [
            _day(f"{same[0]['period']}-01"),
            *(values[n] for n in labels),
            "" if same[0]["finished"] else phrase("book-not-yet"),
        ]
        _write(sheet, r, told, [s.day, *(s.share if unit == "share" else s.money for _, unit in labels.values()), None])
    _laid(sheet, given, 1, 1 + len(months), len(heads), [12.0, *_head_width(heads)[1:]])
