"""A table as a workbook of one sheet."""

from __future__ import annotations

import io
from collections.abc import Sequence

import xlsxwriter


def sheet(title: str, rows: Sequence[Sequence[object]]) -> bytes:
    """Rows under a title; words are written as words: none is ever taken for a formula. Unknown cells stay empty."""
    out = io.BytesIO()
    book = xlsxwriter.Workbook(out, {"in_memory": True, "strings_to_formulas": False, "strings_to_urls": False})
    page = book.add_worksheet("Market")
    bold = book.add_format({"bold": True})
    page.write_string(0, 0, title, bold)
    for r, row in enumerate(rows):
        for c, value in enumerate(row):
            if isinstance(value, (int, float)) and not isinstance(value, bool):
                page.write_number(2 + r, c, value)
            elif value is not None:
                page.write_string(2 + r, c, str(value))
    page.set_column(0, 0, 30)
    page.set_column(1, 12, 18)
    book.close()
    return out.getvalue()
