"""Files as they are written every day come in without a hand: at least 99 % of their values right."""

from __future__ import annotations

import datetime as dt
import math

import pytest

from rain_porch.records.importing import import_file
from rain_porch.records.mapping.layouts import LAYOUTS
from rain_porch.store.db import RECORDS, open_database
from tests.records.head_styles import STYLES, as_csv, columns_of, listings, table, wanted

NOW = dt.datetime(2026, 6, 30)
ROWS = listings()
SOLD = [r for r in ROWS if r["price"]]  # a file without statuses can tell of sales alone


def stored(tmp_path, text, name="file.csv"):
    file = tmp_path / name
    file.write_text(text, encoding="utf-8")
    db = open_database(tmp_path, RECORDS)
    result = import_file(db, file, folder=tmp_path, now=NOW, source="any")
    return db, result


def rows_in_order(db, kind):
    layout = LAYOUTS[kind]
    return [dict(r) for r in db.execute(f"SELECT * FROM {layout.table} ORDER BY row_id")]


def equal(got, want):
    if want is None or want == "":
        return got is None or got == ""
    if isinstance(want, dt.date):
        return got == want.isoformat()
    if isinstance(want, bool):
        return got == float(want)
    if isinstance(want, (int, float)):
        return got is not None and not isinstance(got, str) and math.isclose(got, want, rel_tol=2e-3, abs_tol=1e-5)
    return got == want


def share_right(style, tmp_path, text=None):
    """(values right, values, the wrong ones by field) of one style's file."""
    kind = STYLES[style][0]
    rows = ROWS if kind != "listings" or any(fact == "status" for _, fact, _ in columns_of(style)) else SOLD
    db, result = stored(tmp_path, text or as_csv(table(style, rows)))
    assert result.kind == kind, f"{style}: taken for {result.kind}"
    got = rows_in_order(db, kind)
    db.close()
    right = total = 0
    wrong: dict[str, str] = {}
    if len(got) != len(rows):
        return 0, 1, {"rows": f"{len(got)} of {len(rows)}: {result.reasons}"}
    for row, have in zip(rows, got, strict=True):
        for field, want in wanted(style, row):
            ok = equal(have.get(field), want)
            right, total = right + ok, total + 1
            if not ok:
                wrong.setdefault(field, f"{have.get(field)!r} for {want!r}")
    return right, total, wrong


def test_the_head_styles_are_read_without_a_hand(tmp_path, capsys):
    shares, notes = {}, {}
    for i, style in enumerate(STYLES):
        folder = tmp_path / str(i)
        folder.mkdir()
        try:
            right, total, wrong = share_right(style, folder)
        except Exception as error:  # a file refused has no value right
            right, total, wrong = 0, 1, {"refused": str(error)[:200]}
        shares[style], notes[style] = right / total, wrong
    with capsys.disabled():
        print()
        for style, share in sorted(shares.items(), key=lambda x: x[1]):
            print(f"  {share:7.2%}  {style}  {notes[style] or ''}")
    assert len(STYLES) >= 40
    assert sum(shares.values()) / len(shares) >= 0.99
    assert min(shares.values()) >= 0.97


@pytest.mark.parametrize(
    "text",
    [
        lambda t: "Sold homes of the spring,,,,\nprinted 2026-06-30,,,,\n\n" + as_csv(t) + "\nTotal,160,,,\n",
        lambda t: as_csv([t[0], *t[1:80], t[0], *t[80:]]),
        lambda t: as_csv([[*row, "", ""] for row in t]),
        lambda t: as_csv(
            [["Row", *t[0], "Notes", "Notes"], *([str(i), *row, "", "x"] for i, row in enumerate(t[1:], start=1))]
        ),
        lambda t: as_csv(t, ";"),
        lambda t: as_csv(t, "\t"),
        lambda t: as_csv(t, "|"),
    ],
    ids=["title and total", "heads again", "empty columns", "extra columns", "semicolons", "tabs", "bars"],
)
def test_noise_around_a_table_changes_nothing(tmp_path, text):
    style = "number sign and dollars"
    right, total, wrong = share_right(style, tmp_path, text(table(style, ROWS)))
    assert right / total >= 0.99, wrong


def test_prices_in_thousands_beside_prices_in_dollars_agree(tmp_path):
    lines = table("thousands", SOLD)
    sold = lines[0].index("Sale Price (000s)")
    lines[0][sold] = "Sale Price"
    for line, row in zip(lines[1:], SOLD, strict=True):
        line[sold] = str(row["price"])
    db, _ = stored(tmp_path, as_csv(lines))
    got = rows_in_order(db, "listings")
    db.close()
    assert [(r["list_price"], r["close_price"]) for r in got] == [(r["list"], r["price"]) for r in SOLD]
