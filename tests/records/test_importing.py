from __future__ import annotations

import datetime as dt
import json
import sqlite3

import pytest

from rain_porch.core.errors import Refused
from rain_porch.store.records import homes
from rain_porch.store.records.incoming import imports, indexing

LISTINGS = """ListingId,StandardStatus,UnparsedAddress,City,Latitude,Longitude,LivingArea,CloseDate,ClosePrice,ListPrice
A1,Closed,14 N Ferry Ln,Alder,41.2,-38.4,1800,2025-05-01,"$412,500",415000
A2,Active,16 N Ferry Ln,Alder,41.2001,-38.4,"1,900 sq ft",,,430000
A3,Sold,18 N Ferry Ln,Alder,41.2002,-38.4,2000,5/20/2025,398000,
"""


def dump(db: sqlite3.Connection, *tables: str) -> list[tuple]:
    return [tuple(r) for t in tables for r in db.execute(f"SELECT * FROM {t} ORDER BY 1")]


def counts(result) -> tuple[int, ...]:
    return result.rows, result.new, result.changed, result.same, result.suspect, result.rejected


def test_listings_come_in_with_money_units_and_dates_as_people_write_them(bring, records):
    assert counts(bring(LISTINGS)) == (3, 3, 0, 0, 0, 0)
    row = homes.listing(records.live, "A1")
    assert (row["close_price"], row["home_kind"], row["home_key"]) == (
        412_500,
        "unknown",
        "address:14 n ferry ln|alder",
    )
    assert homes.listing(records.live, "A2")["living_area"] == 1900
    third = homes.listing(records.live, "A3")
    assert (third["standard_status"], third["close_date"]) == ("Closed", "2025-05-20")


def test_the_same_file_twice_changes_nothing(bring, records):
    bring(LISTINGS)
    before = dump(records.live, "listings", "addresses")
    assert counts(bring(LISTINGS)) == (3, 0, 0, 3, 0, 0)
    assert dump(records.live, "listings", "addresses") == before


def test_a_changed_row_is_told_and_what_stood_before_is_kept(bring, records):
    bring(LISTINGS)
    later = "ListingId,StandardStatus,CloseDate,ClosePrice\nA2,Closed,2025-06-20,425000\nA1,Closed,2025-05-01,412500\n"
    assert counts(bring(later)) == (2, 0, 1, 1, 0, 0)
    row = homes.listing(records.live, "A2")
    assert (row["close_price"], row["list_price"], row["living_area"]) == (425_000, 430_000, 1900), (
        "columns not given stay"
    )
    kept = records.live.execute("SELECT record_key, before FROM import_changes").fetchall()
    assert [r["record_key"] for r in kept] == ["A2"]
    assert json.loads(kept[0]["before"]) == {"standard_status": "Active", "close_date": None, "close_price": None}


def test_a_dry_run_says_the_same_and_changes_nothing(bring, records):
    result = bring(LISTINGS, dry_run=True)
    assert counts(result) == (3, 3, 0, 0, 0, 0) and result.import_id is None
    assert imports.is_empty(records.live, "listings") and not imports.list_imports(records.live)


def test_rows_without_a_key_get_one_from_place_and_date(bring, records):
    text = "Latitude,Longitude,LivingArea,CloseDate,ClosePrice\n" + "".join(
        f"{lat},-38.4,{area},2025-05-{day},{price}\n"
        for lat, area, day, price in ((41.2, 1800, 15, 400000), (41.2, 1200, 15, 300000), (41.21, 1500, 16, 350000))
    )
    assert counts(bring(text)) == (3, 3, 0, 0, 0, 0)
    assert counts(bring(text)) == (3, 0, 0, 3, 0, 0)
    keys = [r[0] for r in records.live.execute("SELECT listing_id FROM listings ORDER BY row_id")]
    assert keys == [
        "at_41.200000_-38.400000_2025-05-15",
        "at_41.200000_-38.400000_2025-05-15_2",
        "at_41.210000_-38.400000_2025-05-16",
    ]
    row = homes.listing(records.live, keys[0])
    assert (row["standard_status"], row["home_kind"]) == ("Closed", "unknown")


@pytest.mark.parametrize(
    ("row", "reason"),
    [
        ("B1,Closed,,41.2,-38.4,1800,someday,400000", "unreadable CloseDate"),
        ("B1,Closed,,41.2,-38.4,1800,2025-05-01,four hundred", "unreadable ClosePrice"),
        ("B1,Closed,,41.2,-38.4,1800,2025-05-01,nan", None),
        ("B1,Closed,,41.2,-38.4,1800,2025-05-01,1e999", "unreadable ClosePrice"),
        (
            "B1,Haunted,,41.2,-38.4,1800,2025-05-01,400000",
            "StandardStatus “Haunted” is no status that is known: say what it means",
        ),
        ("B1,,,41.2,-38.4,1800,,", "no status, and no close date with a price: a column of statuses would help"),
        ("B1,Closed,,41.2,-38.4,1800,2025-05-01,400000,extra", "more cells than columns"),
        ("A1,Closed,,41.3,-38.4,1800,2025-05-01,400000", "its key stands twice in the file with different facts"),
        (",Active,,,,1800,,", "nothing that names the row"),
        ("B1,Closed,,north,-38.4,1800,2025-05-01,400000", "unreadable Latitude"),
    ],
)
def test_rows_that_cannot_be_used_are_rejected_with_their_reason(bring, records, row, reason):
    head = "ListingId,StandardStatus,OffMarketDate,Latitude,Longitude,LivingArea,CloseDate,ClosePrice\n"
    result = bring(f"{head}A1,Closed,,41.2,-38.4,1800,2025-05-01,400000\n{row}\n")
    if reason is None:
        assert counts(result) == (2, 2, 0, 0, 0, 0)
        return
    assert (result.new, result.rejected) == (1, 1) and reason in result.reasons
    kept = imports.reported_rows(records.live, result.import_id)[0]
    assert (kept["row_number"], kept["outcome"]) == (2, "rejected")
    assert row.split(",")[1] in kept["original"].values()


@pytest.mark.parametrize(
    ("row", "told"),
    [
        ("B1,Closed,,41.2,-38.4,1800,,400000", "Closed without CloseDate"),
        ("B1,X,,41.2,-38.4,1800,,", "Expired without OffMarketDate"),
    ],
)
def test_a_row_whose_day_is_not_known_is_kept_with_what_is_and_told(bring, records, row, told):
    head = "ListingId,StandardStatus,OffMarketDate,Latitude,Longitude,LivingArea,CloseDate,ClosePrice\n"
    result = bring(f"{head}A1,Closed,,41.2,-38.4,1800,2025-05-01,400000\n{row}\n")
    assert (result.new, result.rejected) == (2, 0) and [r for r in result.reasons if r.startswith(told)]
    columns = records.snapshot().columns
    assert columns.close[columns.row_of["B1"]] < -10_000


@pytest.mark.parametrize(
    ("cells", "suspect"),
    [
        ({"YearBuilt": "20231"}, "year_built"),
        ({"LivingArea": "-1200"}, "living_area"),
        ({"Latitude": "-38.4", "Longitude": "41.2"}, "latitude"),
        ({"Latitude": "0", "Longitude": "0"}, "latitude"),
        ({"CloseDate": "9999-01-01"}, "close_date"),
        ({"CloseDate": "2025-01-01", "OnMarketDate": "2025-03-01"}, "close_date"),
        ({"LivingArea": "18000"}, "living_area"),
        ({"ClosePrice": "1"}, "close_price"),
    ],
)
def test_values_out_of_all_reason_are_kept_marked_and_left_out_of_statistics(bring, records, cells, suspect):
    names = [
        "ListingId",
        "StandardStatus",
        "Latitude",
        "Longitude",
        "LivingArea",
        "YearBuilt",
        "OnMarketDate",
        "CloseDate",
        "ClosePrice",
    ]
    usual = dict(
        zip(names, ["", "Closed", "41.2", "-38.4", "1700", "1980", "2025-02-01", "2025-05-01", "400000"], strict=True)
    )
    rows = [{**usual, "ListingId": f"A{i}", "Latitude": f"{41.2 + i / 9000:.5f}"} for i in range(120)]
    rows.append({**usual, **cells, "ListingId": "odd"})
    text = "\n".join([",".join(names), *(",".join(r[n] for n in names) for r in rows)])
    result = bring(text)
    assert (result.new, result.suspect, result.rejected) == (121, 1, 0)
    held = homes.listing(records.live, "odd")
    assert suspect in json.loads(held["suspect"]) and held[suspect] is not None
    columns = records.snapshot().columns
    row = columns.row_of["odd"]
    assert columns.fact(row, suspect) is None and (suspect != "close_date" or columns.close[row] < -10_000)


def test_other_faults_blank_the_one_value_and_are_listed(bring, records):
    result = bring(
        "ListingId,CloseDate,ClosePrice,Latitude,Longitude,GarageSpaces\nA1,2025-05-01,400000,41.2,-38.4,many\n"
    )
    assert counts(result) == (1, 1, 0, 0, 0, 0) and result.reasons == {"unreadable GarageSpaces": 1}
    assert homes.listing(records.live, "A1")["garage_spaces"] is None
    assert imports.reported_rows(records.live, result.import_id)[0]["outcome"] == "blanked"


@pytest.mark.parametrize(
    ("text", "name", "words"),
    [
        (b"", "empty.csv", "is empty"),
        (b"\x89PNG\r\n\x1a\n" + b"\x00" * 99, "picture.csv", "binary data"),
        (b"PK\x03\x04" + b"\x00" * 99, "sheet.xlsx", "binary data"),
        (b"just a line of words\nand another\n", "notes.csv", "no two column names"),
        (b"Name,Colour\nA,blue\n", "colours.csv", "no kind of file"),
        (b"ListingId,LivingArea\nA1,1800\n", "thin.csv", "StandardStatus"),
        (b'[{"ListingId": "A1", ', "cut.json", "no complete JSON"),
        (b'{"name": "x"}', "one.json", "no list of records"),
        (",".join(f"c{i}" for i in range(10_000)).encode() + b"\n1\n", "wide.csv", "columns, more than"),
        (b'{"type": "FeatureCollection"}', "areas.geojson", "no list of features"),
    ],
)
def test_a_file_that_cannot_be_used_is_refused_and_changes_nothing(bring, records, text, name, words):
    with pytest.raises(Refused, match=words):
        bring(text, name)
    assert not imports.list_imports(records.live) and imports.is_empty(records.live, "listings")
    assert not list(records.folder.glob("staging*"))


@pytest.mark.parametrize(
    ("text", "city"),
    [
        ("﻿ListingId;City;CloseDate;ClosePrice\nA1;Älder;2025-05-01;400000\n".encode(), "Älder"),
        ("ListingId\tCity\tCloseDate\tClosePrice\nA1\tÄlder\t2025-05-01\t400000\n".encode("cp1252"), "Älder"),
        (b'ListingId,City,CloseDate,ClosePrice\nA1,"Alder,\nUpper",2025-05-01,400000\n', "Alder,\nUpper"),
        (b"ListingId,City,CloseDate,ClosePrice\nA1,Al\x00der,2025-05-01,400000\n", "Alder"),
        (
            b'[{"ListingId": "A1", "City": "Alder", "CloseDate": "2025-05-01", "ClosePrice": 400000, "View": ["River", "Hill"]}]',
            "Alder",
        ),
    ],
)
def test_delimiters_encodings_quotes_and_json(bring, records, text, city):
    assert counts(bring(text)) == (1, 1, 0, 0, 0, 0)
    assert homes.listing(records.live, "A1")["city"] == city


def test_a_mapping_names_columns_in_its_own_way(bring, records):
    text = "No,Paid,When,Size\n7,400000,2025-05-01,1800\n"
    mapping = {"No": "ListingId", "Paid": "ClosePrice", "When": "close_date", "Size": "living_area"}
    assert counts(bring(text, kind="listings", columns=mapping)) == (1, 1, 0, 0, 0, 0)
    assert homes.listing(records.live, "7")["living_area"] == 1800
    with pytest.raises(Refused, match="Sizes"):
        bring(text, kind="listings", columns={"Sizes": "living_area"})
    with pytest.raises(Refused, match="no field"):
        bring(text, kind="listings", columns={"Size": "girth"})


def test_parcels_transfers_and_closings_become_one_sale(bring, records):
    bring(
        "ParcelNumber,UnparsedAddress,City,LivingArea,Latitude,Longitude\nP1,14 N Ferry Ln,Alder,1800,41.2,-38.4\n"
        "P2,16 N Ferry Ln,Alder,1900,41.2,-38.4\n",
        "parcels.csv",
    )
    bring("ListingId,ParcelNumber,StandardStatus,CloseDate,ClosePrice\nA1,P1,Closed,2025-05-01,400000\n", "l.csv")
    bring(
        "ParcelNumber,RecordingDate,SaleDate,Price,DocumentType,Grantor,Grantee,ParcelCount\n"
        "P1,2025-05-20,2025-05-02,400500,Warranty Deed,X,Y,1\n"  # the closing
        "P1,2025-09-20,2025-09-02,400000,Warranty Deed,Y,Z,1\n"  # too late to be it
        "P2,2025-05-20,2025-05-02,350000,Warranty Deed,X,Y,1\n"  # never listed
        "P2,2025-05-21,2025-05-02,10,Quitclaim Deed,Y,Z,1\n"  # no sale
        "P2,,,350000,Warranty Deed,X,Y,1\n",
        "transfers.csv",
    )
    rows = records.live.execute("SELECT listing_id, not_arms_length FROM transfers ORDER BY row_id").fetchall()
    assert [tuple(r) for r in rows] == [("A1", None), (None, None), (None, None), (None, "nominal price")]
    columns = records.snapshot().columns
    assert columns.deed.sum() == 2 and len(columns) == 3
    deed = int(columns.deed.argmax() + 1)
    assert columns.numbers["living_area"][deed] == 1900 and columns.numbers["close_price"][deed] == 350_000
    assert columns.home_id[0] == columns.home_id[1], "a parcel's listing and deed are one home"


def test_areas_come_in_mended_or_are_told(bring, records):
    def feature(name, coordinates, kind="neighbourhood", geometry="Polygon"):
        return {
            "type": "Feature",
            "properties": {"name": name, "kind": kind},
            "geometry": {"type": geometry, "coordinates": coordinates},
        }

    good = feature("North", [[[0, 0], [1, 0], [1, 1], [0, 1], [0, 0]]])
    bow = feature("Bow", [[[0, 0], [1, 1], [1, 0], [0, 1], [0, 0]]])
    nameless = feature("", [[[0, 0], [1, 0], [1, 1], [0, 0]]])
    broken = feature("Broken", [[["a", 0]]])
    text = json.dumps({"type": "FeatureCollection", "features": [good, bow, nameless, broken, "x"]})
    result = bring(text, "areas.geojson")
    assert (result.kind, result.rows, result.new, result.rejected) == ("areas", 5, 2, 3)
    assert counts(bring(text, "areas.geojson"))[1:4] == (0, 0, 2)
    kinds = records.live.execute("SELECT json_extract(geometry, '$.type') FROM areas ORDER BY name").fetchall()
    assert [k[0] for k in kinds] == ["MultiPolygon", "Polygon"]


def test_history_lets_a_price_be_rewound(bring, records):
    bring(
        "ListingId,StandardStatus,OnMarketDate,ListPrice,Latitude,Longitude\nA1,Active,2025-05-01,400000,41.2,-38.4\n"
    )
    bring(
        "ListingId,Timestamp,Event,OldValue,NewValue\nA1,2025-05-20T09:00:00,Price Change,410000,400000\n"
        "A1,2025-05-01T09:00:00,New Listing,,410000\nA1,2025-05-21T09:00:00,Price Change,many,400000\n",
        "history.csv",
    )
    columns = records.snapshot().columns
    assert len(columns.changes.rows) == 1
    from rain_porch.core.facts.dates import day_of

    prices = [columns.as_of(day_of(dt.date.fromisoformat(d))).list_price[0] for d in ("2025-05-10", "2025-05-20")]
    assert prices == [410_000, 400_000]


def test_a_crash_in_the_middle_leaves_all_as_it_was(bring, records, monkeypatch):
    bring(LISTINGS)
    before = dump(records.live, "listings", "imports", "addresses")

    def fails(*_):
        raise sqlite3.OperationalError("the disk went away")

    monkeypatch.setattr(indexing, "_listing_addresses", fails)
    with pytest.raises(sqlite3.OperationalError):
        bring(LISTINGS.replace("A1", "B1"))
    assert dump(records.live, "listings", "imports", "addresses") == before
    assert not list(records.folder.glob("staging*"))
    monkeypatch.undo()
    assert bring(LISTINGS.replace("A1", "B1")).new == 1
