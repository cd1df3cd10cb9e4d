"""Columns by any known name, kinds of file by their columns, keys that stay the same."""

from __future__ import annotations

import pytest
from hypothesis import given
from hypothesis import strategies as st

from rain_porch.core.errors import Refused
from rain_porch.core.facts.fields import FIELDS
from rain_porch.core.facts.words import plain
from rain_porch.records.files.readers import read_table
from rain_porch.records.mapping import mapping
from rain_porch.records.mapping.layouts import LAYOUTS, home_key, recognise
from rain_porch.records.mapping.proposing import SURE, propose, taken


def fields_of(columns, fields, kind="listings"):
    """Column → field, as a file of these columns would be read unasked."""
    return {c: p.field for p in taken(propose(columns, fields, (), kind)) for c in p.columns}


@pytest.mark.parametrize(
    ("column", "field"),
    [
        ("ListingId", "listing_id"),
        ("listing_id", "listing_id"),
        ("LISTING ID", "listing_id"),
        ("Listing Number", "listing_id"),
        ("ClosePrice", "close_price"),
        ("Sold Price", "close_price"),
        ("sale_price", "close_price"),
        ("Sq Ft", "living_area"),
        ("Lat", "latitude"),
        ("lng", "longitude"),
        ("APN", "parcel_number"),
        ("Zip Code", "postal_code"),
        ("Half Baths", "bathrooms_half"),
        ("Beds", "bedrooms_total"),
        ("List Date", "on_market_date"),
        ("Closed Date", "close_date"),
        ("Status", "standard_status"),
        ("Colour of the door", None),
    ],
)
def test_columns_are_known_by_the_standards_name_ours_or_the_trades(column, field):
    assert fields_of([column], FIELDS).get(column) == field


def test_the_standards_name_wins_over_another_spelling_and_each_field_is_taken_once():
    assert fields_of(["Sold Price", "ClosePrice", "Sale Price"], FIELDS) == {"ClosePrice": "close_price"}


def test_every_field_of_every_kind_is_found_by_its_own_names():
    for kind, layout in LAYOUTS.items():
        fields = layout.fields
        for f in fields:
            assert fields_of([f.reso], fields, kind)[f.reso] == f.name
            assert fields_of([f.name], fields, kind)[f.name] == f.name
        assert len({plain(f.reso) for f in fields}) == len(fields)


def read(document, columns=("A", "B", "C"), fields=FIELDS):
    return mapping.read_mapping(document, columns, fields)


def test_a_given_mapping_takes_both_spellings_and_the_long_form():
    short = read({"A": "ClosePrice", "B": "close_date"})
    assert [(p.field, p.columns) for p in short] == [("close_price", ("A",)), ("close_date", ("B",))]
    long = {"parts": [
        {"field": "LotSizeSquareFeet", "columns": ["A"], "times": 43560},
        {"field": "close_date", "columns": ["B", "C"], "how": "date"},
        {"field": "city", "constant": "Brindle"},
    ]}  # fmt: skip
    made = read(long)
    assert read({"parts": [p.as_json() for p in made]}) == made


@pytest.mark.parametrize(
    ("document", "words"),
    [
        ({"D": "ClosePrice"}, "“D” that the file does not have"),
        ({"A": "Happiness"}, "no field"),
        ([1], "one JSON object"),
        ({"parts": 3}, "list of objects"),
        ({"A": "ClosePrice", "B": "close_price"}, "ClosePrice twice"),
        ({"A": {"field": "living_area", "times": 0}}, "number other than zero"),
        ({"A": {"field": "living_area", "times": "ten"}}, "number other than zero"),
        ({"A": {"field": "living_area", "how": "date"}}, "no way to make it"),
        ({"A": {"field": "city", "values": ["x"]}}, "object of words"),
        ({"parts": [{"field": "city"}]}, "or give a constant"),
        ({"parts": [{"field": "city", "columns": "A"}]}, "list of up to eight"),
    ],
)
def test_a_mapping_that_makes_no_sense_is_refused_with_what_to_mend(document, words):
    with pytest.raises(Refused, match=words):
        read(document)


@pytest.mark.parametrize(
    ("part", "cells", "made"),
    [
        ({"field": "unparsed_address", "columns": ["A", "B", "C"]}, ("14", "", "Ferry Ln "), "14 Ferry Ln"),
        ({"field": "close_date", "columns": ["A", "B"], "how": "date"}, ("2010", "5", ""), "2010-05-15"),
        ({"field": "close_date", "columns": ["A", "B", "C"], "how": "date"}, ("2010", "Sep", "3"), "2010-09-03"),
        ({"field": "close_date", "columns": ["A", "B"], "how": "date"}, ("2010", "13", ""), "2010 13"),
        ({"field": "close_date", "columns": ["A", "B"], "how": "date"}, ("", "", ""), ""),
        ({"field": "bathrooms_full", "columns": ["A", "B"], "how": "sum"}, ("2", "", ""), "2"),
        (
            {"field": "below_grade_finished_area", "columns": ["A", "B"], "how": "difference"},
            ("1080", "441", ""),
            "639",
        ),
        ({"field": "below_grade_finished_area", "columns": ["A", "B"], "how": "difference"}, ("1080", "", ""), ""),
        ({"field": "standard_status", "columns": ["A"], "values": {"S": "Closed"}}, (" s", "", ""), "Closed"),
        ({"field": "city", "constant": "Brindle"}, ("x", "", ""), "Brindle"),
    ],
)
def test_parts_make_one_cell_of_one_column_or_several(part, cells, made):
    (bound,) = mapping.bind(read({"parts": [part]}), ("A", "B", "C"), FIELDS)
    assert list(bound.texts([(c,) for c in cells], 1)) == [made]


def test_values_speak_as_well_as_names():
    def one(column, cells):
        return [(g.part.field, g.part.times, g.part.values) for g in propose([column], FIELDS, [[c] for c in cells])]

    assert one("Lot Acres", ["0.25", "1.5"]) == [("lot_size_square_feet", 43_560.0, {})]
    assert one("List Price (000s)", ["415", "398"])[0][:2] == ("list_price", 1000.0)
    assert [field for field, _, _ in one("Status", ["S", "A", "S"])] == ["standard_status", "local_status"]
    assert one("Bldg Type", ["SFR", "TH"])[0][2] == {"SFR": "Single Family Residence", "TH": "Townhouse"}
    # a name that fits and values that do not: not sure enough to be taken unasked
    (guess,) = propose(["Lat"], FIELDS, [["north"], ["south"]]) or [None]
    assert guess is None or guess.sure < SURE
    joined = propose(["Street Number", "Street Name", "Yr Sold", "Mo Sold"], FIELDS)
    assert {g.part.field: g.part.columns for g in joined} == {
        "unparsed_address": ("Street Number", "Street Name"), "close_date": ("Yr Sold", "Mo Sold"),
    }  # fmt: skip


@pytest.mark.parametrize(
    ("columns", "kind"),
    [
        (["ListingId", "ListPrice"], "listings"),
        (["Latitude", "Longitude", "CloseDate", "ClosePrice"], "listings"),
        (["ParcelNumber", "LivingArea"], "parcels"),
        (["ParcelNumber", "RecordingDate", "Price"], "transfers"),
        (["ParcelNumber", "TaxYear", "TotalValue"], "assessments"),
        (["ListingId", "Timestamp", "Event"], "history"),
        (["Date", "Value"], "series"),
        (["Name", "Colour"], None),
    ],
)
def test_the_kind_of_a_file_is_told_by_its_columns(columns, kind):
    assert recognise([plain(c) for c in columns]) == kind


def test_every_kind_of_file_is_recognised_by_all_its_own_columns():
    for layout in LAYOUTS.values():
        assert recognise([plain(f.reso) for f in layout.fields]) == layout.kind


@given(st.floats(-89, 89), st.floats(-179, 179), st.dates())
def test_a_made_key_depends_on_place_and_date_alone(lat, lon, date):
    make = LAYOUTS["listings"].make_key
    row = {"latitude": lat, "longitude": lon, "close_date": date.isoformat()}
    assert make(row) == make({**row, "close_price": 5.0, "living_area": 9.0})
    assert make(row) != make({**row, "close_date": "1066-10-14"})
    assert make({"close_date": date.isoformat()}) is None


@pytest.mark.parametrize(
    ("row", "key"),
    [
        ({"parcel_number": "P1", "unparsed_address": "14 N Ferry Ln"}, "parcel:P1"),
        ({"unparsed_address": "14 North Ferry Lane", "city": "Alder"}, "address:14 n ferry ln|alder"),
        (
            {"unparsed_address": "14 N Ferry Ln", "unit_number": "3", "postal_code": "00011"},
            "address:14 n ferry ln unit3|00011",
        ),
        ({"city": "Alder"}, "record:A1"),
    ],
)
def test_what_makes_two_records_one_home(row, key):
    names = ("parcel_number", "unparsed_address", "unit_number", "city", "postal_code")
    assert home_key(*(row.get(name) for name in names), "A1") == key


@pytest.mark.parametrize(
    ("text", "columns", "rows"),
    [
        ("a,b\n1,2\n\n3,4\n", ["a", "b"], [(1, ["1", "2"]), (3, ["3", "4"])]),
        ("a;b\n1;2,5\n", ["a", "b"], [(1, ["1", "2,5"])]),
        ("a|b\n1|2\n", ["a", "b"], [(1, ["1", "2"])]),
        (' a ,"b, c"\n1,"x\ny"\n', ["a", "b, c"], [(1, ["1", "x\ny"])]),
        (
            '[{"a": 1, "b": null}, {"b": ["x", "y"], "c": true}]',
            ["a", "b", "c"],
            [(1, ["1", "", ""]), (2, ["", "x, y", "True"])],
        ),
        ('{"value": [{"a": 1.5}]}', ["a"], [(1, ["1.5"])]),
    ],
)
def test_tables_are_read_with_their_row_numbers(tmp_path, text, columns, rows):
    file = tmp_path / "t.csv"
    file.write_text(text)
    table = read_table(file)
    assert table.columns == columns and [row for chunk in table.chunks for row in chunk] == rows
