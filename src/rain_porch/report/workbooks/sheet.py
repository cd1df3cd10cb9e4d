"""Sheets of a workbook: words are written as words, none is ever taken for a formula or an address."""

from __future__ import annotations

import io
from collections.abc import Iterator, Sequence
from contextlib import contextmanager
from typing import Any

import xlsxwriter

from ...core.phrases import phrase

OPTIONS = {"in_memory": True, "strings_to_formulas": False, "strings_to_urls": False, "nan_inf_to_errors": True}
_LONGEST = 32_000  # signs that a cell holds


@contextmanager
def workbook_in(out: io.BytesIO) -> Iterator[Any]:
    """A workbook that stands in `out` when the block ends."""
    book = xlsxwriter.Workbook(out, OPTIONS)
    yield book
    book.close()


def write_row(page: Any, row: int, values: Sequence[object], style: Any = None) -> None:
    """One row from its first cell on; what is unknown stays empty."""
    for column, value in enumerate(values):
        if isinstance(value, int | float) and not isinstance(value, bool):
            page.write_number(row, column, value, style)
        elif value is not None:
            page.write_string(row, column, str(value)[:_LONGEST], style)


def sheet(title: str, rows: Sequence[Sequence[object]]) -> bytes:
    """A workbook of one sheet: rows under a title."""
    out = io.BytesIO()
    with workbook_in(out) as book:
        page = book.add_worksheet(phrase("sheet-market"))
        write_row(page, 0, [title], book.add_format({"bold": True}))
        for r, row in enumerate(rows):
            write_row(page, 2 + r, row)
        page.set_column(0, 0, 30)
        page.set_column(1, 12, 18)
    return out.getvalue()
