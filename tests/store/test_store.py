from __future__ import annotations

import json
import sqlite3

import pytest

from rain_porch.core.errors import NotFound, OutOfDate, Refused
from rain_porch.core.facts.fields import FIELDS, PARCEL
from rain_porch.records.mapping.layouts import LAYOUTS
from rain_porch.store import db
from rain_porch.store.porch import workups
from rain_porch.store.records import areas, homes
from rain_porch.store.records.sellers import sellers_of


def test_the_schema_has_just_the_catalogues_columns(records):
    kept = {"row_id", "suspect", "source_id", "first_import", "last_import"}
    for layout in LAYOUTS.values():
        held = {r["name"] for r in records.live.execute(f"PRAGMA table_info({layout.table})")} - kept
        # what is worked out from all records: a transfer's closing, a place that was found, the same listing elsewhere
        matched = {"listing_id"} if layout.kind == "transfers" else {"place_from", "same_as", "own"}
        assert held - matched == {*layout.columns, layout.key_column} - matched, layout.kind
    assert {f.name for f in PARCEL} <= {f.name for f in FIELDS}


def test_migrations_run_once_and_a_newer_database_is_refused(tmp_path):
    first = db.open_database(tmp_path, db.PORCH)
    version = first.execute("PRAGMA user_version").fetchone()[0]
    assert version >= 1
    first.close()
    again = db.open_database(tmp_path, db.PORCH)
    assert again.execute("PRAGMA user_version").fetchone()[0] == version
    again.execute(f"PRAGMA user_version = {version + 1}")
    again.close()
    with pytest.raises(Refused, match="newer version"):
        db.open_database(tmp_path, db.PORCH)


def test_blocks_nest_and_an_inner_one_fails_alone(tmp_path):
    held = db.connect(tmp_path / "x.db")
    held.execute("CREATE TABLE t (n INTEGER)")
    with db.atomic(held):
        held.execute("INSERT INTO t VALUES (1)")
        with pytest.raises(ValueError, match="inner"), db.atomic(held):
            held.execute("INSERT INTO t VALUES (2)")
            raise ValueError("inner")
        held.execute("INSERT INTO t VALUES (3)")
    assert [r[0] for r in held.execute("SELECT n FROM t")] == [1, 3]
    with pytest.raises(ValueError, match="outer"), db.atomic(held):
        held.execute("DELETE FROM t")
        raise ValueError("outer")
    assert held.execute("SELECT count(*) FROM t").fetchone()[0] == 2


def test_foreign_keys_hold(tmp_path):
    held = db.open_database(tmp_path, db.PORCH)
    with pytest.raises(sqlite3.IntegrityError):
        workups.create(held, 99, "x", "{}", "begun", "2025-01-01")


def test_revisions_save_undo_and_refuse_what_is_out_of_date(tmp_path):
    held = db.open_database(tmp_path, db.PORCH)
    n = workups.create(held, 1, "14 Ferry Lane", '{"a": 1}', "begun", "t0")
    assert workups.save(held, 1, n, 1, "14 Ferry Lane", '{"a": 2}', "two", "t1") == 2
    with pytest.raises(OutOfDate, match="revision 2"):
        workups.save(held, 1, n, 1, "14 Ferry Lane", '{"a": 9}', "nine", "t2")
    assert json.loads(workups.read(held, 1, n)["document"]) == {"a": 2}
    with pytest.raises(OutOfDate, match="revision 2, not 1"):
        workups.undo(held, 1, n, 1, "t3")
    assert workups.undo(held, 1, n, 2, "t3") == (3, "two")
    with pytest.raises(OutOfDate):  # who read what was undone cannot save on it
        workups.save(held, 1, n, 2, "14 Ferry Lane", '{"a": 9}', "nine", "t3")
    assert json.loads(workups.read(held, 1, n)["document"]) == {"a": 1}
    assert workups.undo(held, 1, n, 3, "t4") == (3, None)
    assert [h["what"] for h in workups.history(held, 1, n)] == ["begun"]
    with pytest.raises(NotFound):
        workups.read(held, 2, n)
    workups.delete(held, 1, n)
    with pytest.raises(NotFound):
        workups.read(held, 1, n)
    assert held.execute("SELECT count(*) FROM workup_revisions").fetchone()[0] == 0


# --- the address locator

PARCELS = """ParcelNumber,UnparsedAddress,UnitNumber,City,PostalCode,Latitude,Longitude
P1,14 North Ferry Lane,,Brindle,00011,41.2000,-38.4
P2,14 Ferry Court,,Brindle,00011,41.2100,-38.4
P3,140 Lantern Street,101,Brindle,00012,41.2200,-38.4
P4,140 Lantern Street,102,Brindle,00012,41.2200,-38.4
"""


@pytest.mark.parametrize(
    ("text", "keys"),
    [
        ("14 North Ferry Lane", ["P1"]),
        ("14 n ferry ln", ["P1"]),
        ("ferry ln 14", ["P1"]),
        ("14 FERRY LANE", ["P1"]),
        ("14 fery lane", ["P1"]),
        ("14 frery ln", ["P1"]),
        ("14 ferry la", ["P1"]),
        ("14 ferry", ["P1", "P2"]),
        ("ferry court", ["P2"]),
        ("14 north ferry lane brindle", ["P1"]),
        ("14 ferry lane 00011", ["P1"]),
        ("14, N. Ferry Ln.", ["P1"]),
        ("140 lantern st #102", ["P4"]),
        ("140 lantern street apt 101", ["P3"]),
        ("140 lantern", ["P3", "P4"]),
        ("lanten street", ["P3", "P4"]),
        ("15 ferry lane", []),
        ("nowhere road", []),
        ("", []),
        ("''; --", []),
        ('"ferry', ["P1", "P2"]),
        ("*", []),
    ],
)
def test_addresses_are_found_however_they_are_typed(bring, records, text, keys):
    bring(PARCELS, "parcels.csv")
    assert sorted(h.key for h in homes.search_address(records.live, text, homes.address_terms(records.live))) == keys


WAYS = (
    "630 South Hedgerow Terrace", "630 s hedgerow ter", "630 S. HEDGEROW TERR.", "630 Hedgerow Terrace", "hedgerow ter s 630",
    "Terrace Hedgerow South 630", "630 hedgerow", "630 hedgero", "630 Hedgrow Terrace", "630 Hedgeorw Ter", "630 Hedgerow Terace",
    "630 Hedge Row Terrace", "630 Hedgerow Street", "630 N Hedgerow Terrace", "#630 Hedgerow Terrace", "No. 630 Hedgerow Tce",
    "630, South Hedgerow Terrace, Brindle", "Brindle 630 hedgerow", "630 Hedgerow 00013", "  630   hedgerow   terrace ",
    "630-hedgerow-terrace", "hedgerow 630", "630 hedgerow terrace brindl",
)  # fmt: skip


@pytest.mark.parametrize("text", WAYS)
def test_twenty_ways_of_typing_one_address_all_find_it(bring, records, text):
    bring(
        "ParcelNumber,UnparsedAddress,City,PostalCode\nH1,630 South Hedgerow Terrace,Brindle,00013\n"
        "H2,63 South Hedgerow Terrace,Brindle,00013\nH3,630 Thistle Terrace,Brindle,00013\n",
        "parcels.csv",
    )
    assert [h.key for h in homes.search_address(records.live, text, homes.address_terms(records.live))] == ["H1"]


@pytest.mark.parametrize("text", ["140 lantern street 102", "unit 102 140 lantern", "140 lantern st no 102"])
def test_a_unit_is_found_wherever_its_number_stands(bring, records, text):
    bring(PARCELS, "parcels.csv")
    assert "P4" in [h.key for h in homes.search_address(records.live, text, homes.address_terms(records.live))]


def test_an_address_that_fits_nothing_offers_what_comes_near(bring, records):
    bring(PARCELS, "parcels.csv")
    assert {
        h.key for h in homes.nearest_addresses(records.live, "99 fery lane", homes.address_terms(records.live))
    } == {"P1", "P2"} | set()
    assert homes.nearest_addresses(records.live, "99", homes.address_terms(records.live)) == []


def test_the_nearest_of_a_street_are_those_whose_numbers_are(bring, records):
    numbers = [101, 105, 610, 613, 617, 1002]
    rows = "".join(f"S{n},{n} Hedgerow Terrace,Brindle,00013\n" for n in numbers)
    bring(f"ParcelNumber,UnparsedAddress,City,PostalCode\n{rows}O612,612 Osier Street,Brindle,00013\n", "parcels.csv")
    for text in ("612 hedgerow ter", "hedgrow terrace 612", "612 Hedgerow Terrace, Othertown"):
        near = homes.nearest_addresses(records.live, text, homes.address_terms(records.live))
        assert [h.key for h in near[:4]] == ["S613", "S610", "S617", "S1002"], text


def test_a_listing_of_a_known_parcel_adds_no_second_address(bring, records):
    bring(PARCELS, "parcels.csv")
    bring(
        "ListingId,ParcelNumber,StandardStatus,UnparsedAddress,City,CloseDate\nA1,P1,Closed,14 N Ferry Ln,Brindle,2025-05-01\n"
        "A2,,Closed,9 Mill Row,Brindle,2025-05-01\nA3,,Closed,9 Mill Row,Brindle,2023-05-01\n",
        "l.csv",
    )
    assert [
        h.key for h in homes.search_address(records.live, "14 n ferry lane", homes.address_terms(records.live))
    ] == ["P1"]
    assert [h.kind for h in homes.search_address(records.live, "9 mill row", homes.address_terms(records.live))] == [
        "listing"
    ]


def test_the_nearest_home_to_a_point(bring, records):
    bring(PARCELS, "parcels.csv")
    assert homes.nearest_home(records.live, 41.2001, -38.4) == ("parcel", "P1")
    assert homes.nearest_home(records.live, 42.0, -38.4) is None


def test_areas_by_name_are_joined_and_lines_are_no_areas(bring, records):
    def box(name, x, kind="neighbourhood"):
        ring = [[x, 0], [x + 1, 0], [x + 1, 1], [x, 1], [x, 0]]
        return {
            "type": "Feature",
            "id": x,
            "properties": {"name": name, "kind": kind},
            "geometry": {"type": "Polygon", "coordinates": [ring]},
        }

    text = {"type": "FeatureCollection", "features": [box("North", 0), box("North", 5), box("Big River", 0, "river")]}
    bring(json.dumps(text), "areas.geojson")
    assert areas.area_shape(records.live, "north").area == pytest.approx(2)
    assert areas.area_shape(records.live, "Big River") is None
    assert [a["name"] for a in areas.named_areas(records.live)] == ["North", "North"]
    assert len(areas.base_map(records.live)["features"]) == 3


def test_what_lies_between_corners_and_sellers_are_read_from_map_and_deeds(bring, records):
    def feature(n, name, kind, geometry, coordinates):
        return {
            "type": "Feature", "id": n, "properties": {"name": name, "kind": kind},
            "geometry": {"type": geometry, "coordinates": coordinates},
        }  # fmt: skip

    lot = [[[-38.4003, 41.2001], [-38.4000, 41.2001], [-38.4000, 41.2004], [-38.4003, 41.2004], [-38.4003, 41.2001]]]
    town = [
        feature(1, "Route 9", "highway", "LineString", [[-38.39, 41.1], [-38.39, 41.3]]),
        feature(2, "Reed Creek", "creek", "LineString", [[-38.41, 41.1], [-38.41, 41.3]]),
        feature(3, "lot", "lot", "Polygon", lot),
        feature(4, "Ferry Lane", "street", "LineString", [[-38.41, 41.20005], [-38.395, 41.20005]]),
        feature(5, "Marl Court", "street", "LineString", [[-38.39992, 41.19], [-38.39992, 41.21]]),
        feature(6, "Far Road", "street", "LineString", [[-38.41, 41.2020], [-38.39, 41.2020]]),
    ]
    bring(json.dumps({"type": "FeatureCollection", "features": town}), "areas.geojson")
    here = (-38.40, 41.2)
    spots = {"east": (-38.38, 41.2), "west": (-38.42, 41.2), "near": (-38.401, 41.21), "far": (-38.38, 41.28)}
    crossed = areas.between(records.live, here, spots)
    assert crossed == {"east": "Route 9", "west": "Reed Creek", "far": "Route 9"}
    assert areas.between(records.live, here, {}) == {}
    assert sorted(areas.streets_beside(records.live, 41.2002, -38.4001)) == ["Ferry Lane", "Marl Court"]
    assert areas.streets_beside(records.live, 41.25, -38.4) == [], "no lot lies there"

    bring("ListingId,StandardStatus,CloseDate,ClosePrice,ParcelNumber,BuilderName\n"
          "A,Closed,2026-03-01,400000,P1,Marl Homes\nB,Closed,2026-03-01,410000,P2,Marl Homes\n"
          "C,Closed,2026-04-01,300000,P3,\n", "listings.csv")  # fmt: skip
    bring(
        "ParcelNumber,SaleDate,Price,DocumentType,Grantor,Grantee\nP2,2026-03-03,410000,WD,Ada Fenn,Bo Tarn\n",
        "transfers.csv",
    )
    assert sellers_of(records.live, ["A", "B", "C"]) == {"A": "Marl Homes", "B": "Ada Fenn"}, (
        "the deed before the builder"
    )
