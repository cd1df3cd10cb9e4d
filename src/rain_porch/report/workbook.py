"""The report as a workbook: comps, the grid with live formulas, what is around, the market by month."""

from __future__ import annotations

import io
from typing import Any

from xlsxwriter.utility import xl_col_to_name

from ..core.statistics.summary import summarise
from .model import ReportInput
from .pages.readings import KINDS
from .sheet import workbook_in, write_row
from .wording import facts_line, label

FACTS = ("living_area", "bedrooms_total", "bathrooms_full", "bathrooms_half", "garage_spaces", "lot_size_square_feet",
         "year_built")  # fmt: skip


def workbook(given: ReportInput) -> bytes:
    """The workbook as bytes. Words are written as words: none of them is ever taken for a formula."""
    out = io.BytesIO()
    with workbook_in(out) as book:
        bold, money = book.add_format({"bold": True}), book.add_format({"num_format": "#,##0"})
        share = book.add_format({"num_format": "0.0%"})
        _comps(book.add_worksheet("Comps"), given, bold, money)
        _grid(book.add_worksheet("Grid"), given, bold, money, share)
        _around(book.add_worksheet("Around"), given, bold, money)
        if given.market:
            _market(book.add_worksheet("Market"), given.market, bold, money)
    return out.getvalue()


def _comps(sheet: Any, given: ReportInput, bold: Any, money: Any) -> None:
    write_row(sheet, 0, [given.title, facts_line(given.subject["facts"])], bold)
    write_row(sheet, 1, [given.price["sentence"]])
    heads = [
        "Home",
        "Listing",
        "Kind",
        "Date",
        "Price",
        "Per sq ft",
        "Miles",
        "Days",
        *(label(n) for n in FACTS),
        "Likeness",
    ]
    write_row(sheet, 3, heads, bold)
    mine = given.subject["facts"]
    write_row(sheet, 4, [given.title, "", "subject", "", None, None, None, None, *(mine.get(n) for n in FACTS)])
    for r, c in enumerate(given.comps, start=5):
        write_row(
            sheet, r,
            [c["address"], c["listing_id"], c["kind"].replace("_", " "), c["date"], c["price"], c["price_per_sqft"],
             c["distance_miles"], c["days_on_market"], *(c["facts"].get(n) for n in FACTS), c["likeness"]],
        )  # fmt: skip
    sheet.set_column(0, 0, 26)
    sheet.set_column(4, 5, 11, money)
    sheet.freeze_panes(4, 1)


def _grid(sheet: Any, given: ReportInput, bold: Any, money: Any, share: Any) -> None:
    """A column for each comp: price, lines, and in formulas the adjusted price, net, gross and the indicated value."""
    comps = given.price["comps"]
    if not comps:
        sheet.write_string(0, 0, "No comps are kept yet.")
        return
    names = [n for n in given.grid[0]["lines"] if any(g["lines"].get(n) for g in given.grid)]
    write_row(sheet, 0, ["", *(c["address"] or c["listing_id"] for c in comps)], bold)
    write_row(sheet, 1, ["Close price", *(c["close_price"] for c in comps)], money)
    for r, name in enumerate(names, start=2):
        write_row(sheet, r, [label(name), *(g["lines"].get(name) for g in given.grid)], money)
    first, last = 3, 2 + len(names)
    rows = {"Adjusted price": last + 1, "Net": last + 2, "Gross": last + 3, "Weight": last + 4}
    for title, row in rows.items():
        sheet.write_string(row - 1, 0, title, bold)
    for k, c in enumerate(comps, start=1):
        col = xl_col_to_name(k)
        lines = f"{col}{first}:{col}{last}"
        sheet.write_formula(rows["Adjusted price"] - 1, k, f"={col}2+SUM({lines})", money, c["adjusted_price"])
        sheet.write_formula(rows["Net"] - 1, k, f"=SUM({lines})/{col}2", share, c["net_pct"] / 100)
        sheet.write_formula(
            rows["Gross"] - 1, k, f'=(SUMIF({lines},">0")-SUMIF({lines},"<0"))/{col}2', share, c["gross_pct"] / 100
        )
        sheet.write_number(rows["Weight"] - 1, k, c["weight"], share)
    end = xl_col_to_name(len(comps))
    prices, weights = (f"B{rows[t]}:{end}{rows[t]}" for t in ("Adjusted price", "Weight"))
    at = last + 6
    added = ""
    for r, a in enumerate(given.price["apart"], start=at + 2):
        write_row(sheet, r, [f"{a['label']}, added once", a["amount"]], money)
        added += f"+B{r + 1}"
    sheet.write_string(at - 1, 0, "Indicated value", bold)
    sheet.write_formula(
        at - 1,
        1,
        f"=ROUND(SUMPRODUCT({prices},{weights})/SUM({weights}){added},-2)",
        money,
        given.price["indicated_value"] or 0,
    )
    if given.list_price:
        write_row(sheet, at, ["List price", given.list_price], money)
    sheet.set_column(0, 0, 26)
    sheet.set_column(1, len(comps), 13)
    sheet.freeze_panes(1, 1)


def _around(sheet: Any, given: ReportInput, bold: Any, money: Any) -> None:
    write_row(sheet, 0, ["Kind", "Homes", "Low", "Lower quartile", "Mean", "Median", "Upper quartile", "High"], bold)
    row = 1
    for kind, (_, short, _) in KINDS.items():
        s = summarise([c["price"] for c in given.around if c["kind"] == kind and c["price"]], 1000)
        if s.count:
            write_row(
                sheet, row, [short, s.count, s.low, s.lower_quartile, s.mean, s.median, s.upper_quartile, s.high], money
            )
            row += 1
    row += 1
    write_row(sheet, row, ["Home", "Kind", "Date", "Price", "Per sq ft", "Miles", "Days"], bold)
    for r, c in enumerate(given.around, start=row + 1):
        write_row(sheet, r, [c["address"] or c["listing_id"], c["kind"].replace("_", " "), c["date"], c["price"],
                        c["price_per_sqft"], c["distance_miles"], c["days_on_market"]])  # fmt: skip
    sheet.set_column(0, 0, 26)


def _market(sheet: Any, market: Any, bold: Any, money: Any) -> None:
    names = market["measures"]
    write_row(sheet, 0, ["Period", *(n.replace("_", " ") for n in names)], bold)
    for r, p in enumerate(market["periods"], start=1):
        write_row(sheet, r, [p["period"], *(p["values"][n]["value"] for n in names)], money)
    sheet.set_column(0, 4, 14)
