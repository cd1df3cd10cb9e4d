"""The form of numbers and dates: judged over a whole column, by sense, by the other columns; asked where nothing tells."""

from __future__ import annotations

import datetime as dt
import json

import pytest
from hypothesis import given
from hypothesis import strategies as st

from rain_porch.core.errors import Refused
from rain_porch.core.facts.fields import BY_NAME
from rain_porch.core.intake.forms import evidence_of, judge, likely
from rain_porch.core.intake.parsing import number, written
from rain_porch.records.importing import import_file
from rain_porch.records.mapping.column_forms import FormsAsked
from rain_porch.store.db import RECORDS, open_database

NOW = dt.datetime(2025, 6, 30)
HEAD = "ListingId,UnparsedAddress,StandardStatus,CloseDate,ClosePrice,LivingArea,ConcessionsAmount"


@pytest.mark.parametrize(
    ("name", "cells", "form"),
    [
        ("close_price", ["400001,00", "395.000"], "comma"),
        ("close_price", ["395.000", "410.500"], "comma"),  # money has no thousandths
        ("close_price", ["$412,500", "$99,000"], "point"),
        ("close_price", ["412500", "395.5"], "point"),
        ("living_area", ["1850,5", "1.920"], "comma"),
        ("living_area", ["1,850", "980"], "point"),  # there is no home of 1.85 sq ft
        ("living_area", ["1.850", "2.100"], "comma"),
        ("latitude", ["41.207", "41.212"], "point"),
        ("year_built", ["2,005"], "point"),
        ("bathrooms_full", ["2.5", "2"], "point"),
        ("frontage_length", ["1.250", "2.125"], ""),
        ("frontage_length", ["1.250", "0.500"], "point"),
        ("close_date", ["03/04/2025", "25/06/2025"], "dmy"),
        ("close_date", ["03/04/2025", "06/25/2025"], "mdy"),
        ("close_date", ["03.04.2025", "25.06.2025"], "dmy"),
        ("close_date", ["03/04/2025", "05/06/2025"], ""),
        ("close_date", ["2025-04-03", "4 Apr 2025", "4/4/2025"], ""),
    ],
)
def test_the_form_of_one_column(name, cells, form):
    assert likely(BY_NAME[name], cells) == form


@given(st.lists(st.floats(1000, 5e6), min_size=1, max_size=20), st.sampled_from(["point", "comma"]), st.booleans())
def test_prices_written_in_either_form_come_out_as_they_went_in(values, form, cents):
    """Whatever the form, with cents or without them, a column reads back what was written."""
    values = [round(v, 2 if cents else 0) for v in values]
    cells = [f"{v:,.2f}" if cents else f"{v:,.0f}" for v in values]
    if form == "comma":
        cells = [c.translate(str.maketrans(",.", ".,")) for c in cells]
    f = BY_NAME["close_price"]
    assert [number(c, likely(f, cells) or form) for c in cells] == values


@given(st.floats(-1e6, 1e6))
def test_numbers_of_our_own_files_are_never_taken_for_thousands(value):
    text = written(value)
    seen = evidence_of(BY_NAME["concessions_amount"], [text])
    assert float(text) == value and not seen.either and not seen.second


def test_what_one_column_leaves_open_the_others_decide_and_else_the_last_time():
    def column(name, *cells):
        return name, (BY_NAME[name], evidence_of(BY_NAME[name], cells))

    dates = dict([column("close_date", "03/04/2025"), column("on_market_date", "25/03/2025")])
    assert {name: j.form for name, j in judge(dates).items()} == {"close_date": "dmy", "on_market_date": "dmy"}
    fees = dict([column("frontage_length", "1.250")])
    assert judge(fees)["frontage_length"].form is None
    assert judge(fees, usual={"frontage_length": "comma"})["frontage_length"].form == "comma"
    assert judge(fees | dict([column("close_price", "395.000")]))["frontage_length"].form == "comma"
    mixed = dict([column("close_date", "25/03/2025", "03/25/2025")])
    assert judge(mixed)["close_date"].form is None, "half and half is asked, not counted out"


@pytest.fixture
def bring(tmp_path):
    db = open_database(tmp_path, RECORDS)

    def bring(*rows: str, separator: str = ";", **more):
        path = tmp_path / "sales.csv"
        lines = [HEAD.replace(",", separator), *rows]
        path.write_text("\n".join(lines) + "\n", encoding="utf-8")
        return import_file(db, path, folder=tmp_path, now=NOW, **more)

    bring.facts = lambda: [
        tuple(r)
        for r in db.execute(
            "SELECT close_date, close_price, living_area, concessions_amount FROM listings ORDER BY listing_id"
        )
    ]
    yield bring
    db.close()


ROWS = ("A1;1 Made St;Closed;03/04/2025;400001,00;1850,5;5.000", "A2;2 Made St;Closed;13/04/2025;395.000;1920;")


def test_a_file_written_with_the_day_first_and_decimal_commas_comes_in_as_it_means(bring):
    result = bring(*ROWS)
    assert (result.new, result.rejected, result.reasons) == (2, 0, {})
    assert bring.facts() == [("2025-04-03", 400_001, 1850.5, 5000), ("2025-04-13", 395_000, 1920, None)]
    told = {r.field: (r.form, r.samples[0].value) for r in result.forms}
    assert told["close_date"] == ("dmy", "2025-04-03") or told["close_date"][0] == "dmy"
    assert told["close_price"][0] == told["concessions_amount"][0] == "comma"


def test_what_can_be_read_both_ways_is_asked_with_the_remedy_and_nothing_changes(bring):
    with pytest.raises(Refused, match=r"CloseDate.*--dates mdy .*--dates dmy"):
        bring(ROWS[0])
    assert bring.facts() == []
    assert bring(ROWS[0], forms=FormsAsked(dates="dmy")).new == 1
    assert bring.facts()[0][0] == "2025-04-03"
    # said once, it is known of this source and these columns; cells that tell otherwise are believed
    assert bring("A3;3 Made St;Closed;02/03/2025;1,00;1000;").new == 1
    assert bring.facts()[-1][0] == "2025-03-02"
    with pytest.raises(Refused, match="--decimal"):
        mapping = {c: c for c in HEAD.split(",")[:3]} | {"ConcessionsAmount": "FrontageLength"}
        bring("A4;4 Made St;Active;;;;1.250", columns=mapping, source="another")


def test_a_cell_that_comes_late_turns_the_whole_column(bring):
    """The first rows leave it open whether there is anything to be told; the last one tells."""
    plain = [f"B{i:04};{i} Made St;Closed;2025-05-01;400000;1800;" for i in range(4500)]
    result = bring(*plain, "C1;1 New St;Closed;2025-05-01;395.000;1850,5;")
    assert (result.new, result.rejected) == (4501, 0)
    assert bring.facts()[-1] == ("2025-05-01", 395_000, 1850.5, None)


def test_json_numbers_are_numbers_whatever_their_digits(tmp_path, bring):
    path = tmp_path / "sales.json"
    row = {"ListingId": "J1", "UnparsedAddress": "1 Json St", "StandardStatus": "Closed", "CloseDate": "2025-05-01",
           "ClosePrice": 395.125, "LivingArea": 1850.5, "ConcessionsAmount": 1.25}  # fmt: skip
    path.write_text(json.dumps([row]))
    db = open_database(tmp_path, RECORDS)
    import_file(db, path, folder=tmp_path, now=NOW)
    assert bring.facts() == [("2025-05-01", 395.125, 1850.5, 1.25)]


def test_a_column_that_is_not_needed_and_can_be_read_two_ways_is_left_out_and_named(tmp_path):
    file = tmp_path / "lots.csv"
    rows = "".join(f"F{i};{i} Mill St;Active;300000;1.2{50 + i % 9}\n" for i in range(30))
    file.write_text("ListingId;UnparsedAddress;StandardStatus;ListPrice;FrontageLength\n" + rows)
    db = open_database(tmp_path, RECORDS)
    result = import_file(db, file, folder=tmp_path, now=NOW)
    assert result.new == 30 and [(c.column, c.perhaps) for c in result.left_out] == [
        ("FrontageLength", "frontage_length")
    ]
    with pytest.raises(Refused, match="two ways"):
        import_file(db, file, folder=tmp_path, now=NOW, columns={"ListingId": "listing_id", "StandardStatus": "standard_status", "FrontageLength": "frontage_length"})  # fmt: skip
    db.close()
