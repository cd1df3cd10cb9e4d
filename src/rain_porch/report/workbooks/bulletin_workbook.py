"""A bulletin as a workbook: every figure with its unit and count, and the homes it is made from, dates as dates."""

from __future__ import annotations

import csv
import datetime as dt
import io
from collections.abc import Mapping, Sequence
from typing import Any

from ...core.phrases import phrase
from .bulletin_rows import HEAD, Row
from .sheet import workbook_in, write_row

FORMATS = {
    "$": "#,##0",
    "$ per sq ft": "#,##0.00",
    "share of 1": "0.0%",
    "months": "0.0",
    "homes a month": "0.0",
    "series": "0.00",
    "days": "#,##0.0",
}
# (field of a home, its head, the form of its figures)
_HOMES = (
    ("what", "what", ""), ("where", "of", ""), ("listing_id", "listing", ""), ("address", "address", ""), ("date", "date", "day"),
    ("price", "price", "#,##0"), ("list_price", "list-price", "#,##0"), ("price_per_sqft", "price-per-square-foot", "#,##0.00"),
    ("living_area", "living-area", "#,##0"), ("days_on_market", "days-on-market", "#,##0"), ("latitude", "latitude", "0.00000"),
    ("longitude", "longitude", "0.00000"),
)  # fmt: skip


def bulletin_csv(rows: Sequence[Row]) -> bytes:
    out = io.StringIO()
    written = csv.writer(out, lineterminator="\r\n")
    written.writerow(HEAD)
    written.writerows(rows)
    return out.getvalue().encode("utf-8-sig")


def bulletin_workbook(title: str, rows: Sequence[Row], homes: Sequence[Mapping[str, Any]]) -> bytes:
    """rows: as bulletin_rows has them. homes: records with what (closed, for sale, came on) and where."""
    out = io.BytesIO()
    with workbook_in(out) as book:
        bold = book.add_format({"bold": True})
        styles = {unit: book.add_format({"num_format": form}) for unit, form in FORMATS.items()}
        sheet = book.add_worksheet(phrase("sheet-figures"))
        write_row(sheet, 0, [title], bold)
        write_row(sheet, 2, HEAD, bold)
        for r, row in enumerate(rows, 3):
            write_row(sheet, r, row[:6])
            if row[6] is not None:
                sheet.write_number(r, 6, row[6], styles.get(row[3]))
            if row[7] is not None:
                sheet.write_number(r, 7, row[7])
        for column, width in enumerate((30, 24, 30, 14, 28, 28, 16, 10)):
            sheet.set_column(column, column, width)
        sheet.freeze_panes(3, 1)
        sheet.autofilter(2, 0, 2 + max(1, len(rows)), len(HEAD) - 1)
        _homes(book, homes, bold)
    return out.getvalue()


def _homes(book: Any, homes: Sequence[Mapping[str, Any]], bold: Any) -> None:
    sheet = book.add_worksheet(phrase("sheet-homes"))
    write_row(sheet, 0, [phrase(f"bulletin-book-{head}") for _, head, _ in _HOMES], bold)
    day = book.add_format({"num_format": "yyyy-mm-dd"})
    styles = [book.add_format({"num_format": form}) if form not in ("", "day") else None for _, _, form in _HOMES]
    for r, home in enumerate(homes, 1):
        for column, (name, _, form) in enumerate(_HOMES):
            value = home[name]
            if form == "day" and isinstance(value, dt.date):
                sheet.write_datetime(r, column, dt.datetime.combine(value, dt.time()), day)
            elif isinstance(value, int | float):
                sheet.write_number(r, column, value, styles[column])
            elif value is not None:
                sheet.write_string(r, column, str(value))
    for column, width in enumerate((12, 28, 14, 30, 12, 12, 12, 12, 12, 12, 11, 11)):
        sheet.set_column(column, column, width)
    sheet.freeze_panes(1, 0)
    sheet.autofilter(0, 0, max(1, len(homes)), len(_HOMES) - 1)
