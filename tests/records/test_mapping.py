"""Columns by any known name, kinds of file by their columns, keys that stay the same."""

from __future__ import annotations

import pytest
from hypothesis import given
from hypothesis import strategies as st

from rain_porch.core.errors import Refused
from rain_porch.core.fields import FIELDS
from rain_porch.core.record_fields import ASSESSMENTS, EVENTS, SERIES, TRANSFERS
from rain_porch.core.words import plain
from rain_porch.records import mapping
from rain_porch.records.layouts import LAYOUTS, home_key, recognise
from rain_porch.records.readers import read_table


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
    assert mapping.propose([column], FIELDS).get(0) == field


def test_the_standards_name_wins_over_another_spelling_and_each_field_is_taken_once():
    made = mapping.propose(["Sold Price", "ClosePrice", "Sale Price"], FIELDS)
    assert made == {1: "close_price"}


def test_every_field_of_every_kind_is_found_by_its_own_names():
    for fields in (FIELDS, TRANSFERS, ASSESSMENTS, EVENTS, SERIES):
        for f in fields:
            assert mapping.propose([f.reso], fields) == {0: f.name}
            assert mapping.propose([f.name], fields) == {0: f.name}
        assert len({plain(f.reso) for f in fields}) == len(fields)


def test_a_given_mapping_takes_both_spellings_and_refuses_what_is_not_there():
    assert mapping.given(["A", "B"], FIELDS, {"A": "ClosePrice", "B": "close_date"}) == {
        0: "close_price",
        1: "close_date",
    }
    for wrong in ({"C": "ClosePrice"}, {"A": "Happiness"}):
        with pytest.raises(Refused):
            mapping.given(["A", "B"], FIELDS, wrong)


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
    assert home_key(row, "A1") == key


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
    assert table.columns == columns and list(table.rows) == rows
