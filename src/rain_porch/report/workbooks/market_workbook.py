"""A market view as a workbook: its figures by period, with their counts."""

from __future__ import annotations

import datetime as dt
import io
from collections.abc import Sequence
from typing import Any

from ...core.facts.dates import period_said
from ...core.phrases import phrase
from .sheet import workbook_in

FORMATS = {"$": "#,##0", "$/sq ft": "#,##0.00", "share": "0.0%", "months": "0.0", "a month": "0.0", "series": "0.00"}


def market_workbook(sentence: str, periods: Sequence[dict[str, Any]], lines: Sequence[dict[str, Any]]) -> bytes:
    """periods and lines as a view's answer has them. Words are written as words: none is ever taken for a formula."""
    out = io.BytesIO()
    with workbook_in(out) as book:
        sheet = book.add_worksheet(phrase("sheet-market"))
        bold = book.add_format({"bold": True})
        sheet.write_string(0, 0, sentence)
        for i, head in enumerate(("period", "start", "end", "finished")):
            sheet.write_string(2, i, phrase(f"view-book-{head}"), bold)
        day = book.add_format({"num_format": "yyyy-mm-dd", "align": "left"})
        for r, p in enumerate(periods):
            sheet.write_string(3 + r, 0, period_said(p["period"]))
            for i, when in ((1, p["start"]), (2, p["end"])):
                sheet.write_datetime(3 + r, i, dt.datetime.fromisoformat(str(when)), day)
            sheet.write_string(3 + r, 3, phrase("view-book-yes" if p["finished"] else "view-book-so-far"))
        for k, line in enumerate(lines):
            style = book.add_format({"num_format": FORMATS.get(line["unit"], "#,##0")})
            name = line["name"] or line["label"]
            sheet.write_string(2, 4 + 2 * k, name, bold)
            sheet.write_string(2, 5 + 2 * k, phrase("view-book-count", name=name), bold)
            for r, point in enumerate(line["points"]):
                if point is None:
                    continue
                if point["value"] is not None:
                    sheet.write_number(3 + r, 4 + 2 * k, point["value"], style)
                sheet.write_number(3 + r, 5 + 2 * k, point["n"])
        sheet.set_column(0, 3, 12)
        sheet.set_column(4, 3 + 2 * max(1, len(lines)), 18)
        sheet.freeze_panes(3, 1)
    return out.getvalue()
