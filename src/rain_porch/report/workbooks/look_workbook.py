"""A look as a workbook (homes, figures, criteria) and as a plain table."""

from __future__ import annotations

import csv
import io
from typing import Any

from ...core.facts.fields import BY_NAME, PRIVATE
from ...core.intake.parsing import guarded
from ...core.phrases import phrase, phrases_of
from ..pages.look import LookInput, kind_said
from ..pages.readings import one_or_two
from .sheet import workbook_in, write_row

_FACTS = ("living_area", "bedrooms_total", "bathrooms_full", "bathrooms_half", "garage_spaces", "lot_size_square_feet", "year_built",
          "property_sub_type", "architectural_style", "basement", "cooling", "pool_private_yn", "subdivision_name", "city", "postal_code")  # fmt: skip


def _table(given: LookInput) -> tuple[list[str], list[list[Any]]]:
    """Heads and one row a home: the same for both forms."""
    held = {name for h in given.homes for name in h["facts"]} - PRIVATE
    facts = [n for n in _FACTS if n in held] + sorted(n for n in held if n.startswith("own_"))
    heads = [
        *phrases_of(
            "book-listing", "look-book-address", "book-kind", "look-book-status", "book-date", "look-book-first-list-price",
            "look-book-list-price", "look-book-price", "look-book-price-per-square-foot", "look-book-list-price-per-square-foot",
            "look-book-share-of-first-list", "look-book-share-of-list", "book-days-on-market", "look-book-cumulative-days",
            "look-book-paid-before", "look-book-paid-before-on", "look-book-miles",
        ),
        *(BY_NAME[n].label for n in facts), *phrases_of("look-book-latitude", "look-book-longitude"),
    ]  # fmt: skip
    rows = [
        [
            h["listing_id"], h["address"], kind_said(h["kind"]), h["status"], h["date"], h["facts"].get("original_list_price"),
            h["list_price"], h["price"], h["price_per_sqft"], h["prices"].get("list_price_per_sqft"), h["prices"].get("share_of_original"),
            h["prices"].get("share_of_list"), h["days_on_market"], h["prices"].get("cumulative_days_on_market"), h["prices"].get("paid_before"),
            h["paid_before_on"], h["distance_miles"], *(h["facts"].get(n) for n in facts), h["latitude"], h["longitude"],
        ]
        for h in given.homes
    ]  # fmt: skip
    return heads, rows


def look_csv(given: LookInput) -> bytes:
    """The homes as a table. No cell ever starts a formula."""
    heads, rows = _table(given)
    out = io.StringIO()
    writer = csv.writer(out)
    writer.writerow(heads)
    for row in rows:
        writer.writerow(["" if v is None else v if isinstance(v, int | float) else guarded(str(v)) for v in row])
    return out.getvalue().encode()


def look_workbook(given: LookInput, foot: str) -> bytes:
    """Homes, figures and criteria, a sheet each."""
    out = io.BytesIO()
    with workbook_in(out) as book:
        bold = book.add_format({"bold": True, "bottom": 1, "text_wrap": True, "valign": "top"})
        for name, (heads, rows) in {
            phrase("sheet-homes"): _table(given), phrase("sheet-figures"): _figures(given),
            phrase("sheet-criteria"): (phrases_of("sheet-criteria"), [[given.title], [given.sentence], [phrase("of-homes-alone", whose=given.whose)], [foot]]),
        }.items():  # fmt: skip
            page = book.add_worksheet(name)
            page.set_column(0, len(heads) - 1, 14)
            page.set_column(1, 1, 26)
            for r, row in enumerate([heads, *rows]):
                write_row(page, r, row, None if r else bold)
            page.freeze_panes(1, 2 if len(heads) > 2 else 0)
    return out.getvalue()


def _figures(given: LookInput) -> tuple[list[str], list[list[Any]]]:
    ways = ("low", "lower_quartile", "mean", "median", "upper_quartile", "high")
    heads = phrases_of(
        "look-book-figure",
        "look-book-of",
        "book-kind",
        "book-homes",
        *(f"book-{w}" for w in (*ways, "mode")),
    )
    rows = [
        [f["label"], whose, kind_said(k["kind"]), k["count"], *(k[w] for w in ways), one_or_two([f"{m:g}" for m in k["modes"]])]
        for f in given.summaries["fields"]
        for whose, parts in ((phrase("look-book-all-found"), f["kinds"]), (phrase("look-book-chosen"), f["chosen"]))
        for k in parts
    ]  # fmt: skip
    return heads, rows
