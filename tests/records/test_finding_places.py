"""Records without coordinates are placed by what else is known, each marked with how; nothing is kept of it in the files."""

from __future__ import annotations

import csv
import datetime as dt
import json

import pytest
from hypothesis import given
from hypothesis import strategies as st

from rain_porch.app.home.homes import HomeRef, read_home
from rain_porch.app.pricing.find_document import find_doc
from rain_porch.app.pricing.price_document import price_doc
from rain_porch.app.records import Records
from rain_porch.core.errors import BadInput
from rain_porch.core.facts.places.finding_places import ADDRESS, STREET, SUBDIVISION, Located, Neighbourhood
from rain_porch.core.search.search import Search
from rain_porch.records.exporting import export
from rain_porch.records.importing import import_file
from rain_porch.store.db import RECORDS, open_database
from rain_porch.store.records.incoming.undo import undo_import
from tests.records.head_styles import as_csv, table
from tests.records.head_styles import listings as made_listings

NOW = dt.datetime(2026, 6, 30)
PARCELS = (
    "ParcelNumber,UnparsedAddress,City,PostalCode,SubdivisionName,Latitude,Longitude\n"
    "P1,10 Mill St,Alder,00017,Old Mill,41.2000,-38.4000\n"
    "P2,20 Mill St,Alder,00017,Old Mill,41.2010,-38.4000\n"
    "P3,11 Mill St,Alder,00017,Old Mill,41.2000,-38.4010\n"
    "P4,31 Mill St,Alder,00017,Old Mill,41.2020,-38.4010\n"
)
LISTINGS = (
    "ListingId,StandardStatus,ParcelNumber,UnparsedAddress,City,PostalCode,SubdivisionName,ListPrice\n"
    "A,Active,P2,,,,,300000\n"
    "B,Active,,10 Mill Street,Alder,00017,,300000\n"
    "C,Active,,14 Mill St,Alder,00017,,300000\n"
    "D,Active,,21 Mill St.,Alder,,,300000\n"
    "E,Active,,9 Heron Way,Alder,00017,Old Mill,300000\n"
    "F,Active,,9 Heron Way,Elsewhere,00099,,300000\n"
)


@pytest.fixture
def bring(tmp_path):
    db = open_database(tmp_path, RECORDS)

    def bring(text, name):
        file = tmp_path / name
        file.write_text(text)
        return import_file(db, file, folder=tmp_path, now=NOW)

    bring.db, bring.folder = db, tmp_path
    yield bring
    db.close()


def places(db):
    rows = db.execute("SELECT listing_id, place_from, latitude, longitude FROM listings ORDER BY listing_id")
    return {r[0]: (r[1], r[2] and round(r[2], 5), r[3] and round(r[3], 5)) for r in rows}


WANTED = {
    "A": ("parcel", 41.201, -38.4), "B": ("address", 41.2, -38.4), "C": ("street", 41.2004, -38.4), "D": ("street", 41.201, -38.401),
    "E": ("subdivision", 41.20075, -38.4005), "F": (None, None, None),
}  # fmt: skip


@pytest.mark.parametrize("parcels_first", [True, False])
def test_each_is_placed_by_the_nearest_that_is_known_in_whatever_order_files_come(bring, parcels_first):
    files = [(PARCELS, "parcels.csv"), (LISTINGS, "listings.csv")]
    for text, name in files if parcels_first else files[::-1]:
        bring(text, name)
    assert places(bring.db) == WANTED
    again = bring(LISTINGS, "listings.csv")
    assert (again.same, again.changed) == (6, 0)
    out = bring.folder / "out.csv"
    export(bring.db, "listings", out)
    with out.open() as file:
        assert not any(row["Latitude"] for row in csv.DictReader(file)), "what was found is no fact of the source"


def test_what_told_of_a_place_goes_and_the_place_with_it(bring):
    number = bring(PARCELS, "parcels.csv").import_id
    bring(LISTINGS, "listings.csv")
    undo_import(bring.db, number, NOW.isoformat())
    assert {how for how, _, _ in places(bring.db).values()} == {None}


def test_a_place_of_its_own_takes_the_place_of_one_that_was_found(bring):
    bring(PARCELS, "parcels.csv")
    bring(LISTINGS, "listings.csv")
    own = bring("ListingId,StandardStatus,Latitude,Longitude\nC,Active,41.2123,-38.4123\n", "own.csv")
    assert own.changed == 1 and places(bring.db)["C"] == (None, 41.2123, -38.4123)
    undo_import(bring.db, own.import_id, NOW.isoformat())
    assert places(bring.db) == WANTED


@given(st.lists(st.integers(1, 900), min_size=2, max_size=20, unique=True), st.integers(1, 900))
def test_a_home_between_two_others_lies_between_them(numbers, wanted):
    straight = [Located(n, f"{n} Mill St", "Alder", "00017", None, (41.0 + n / 1e5, -38.0)) for n in numbers]
    found = Neighbourhood(straight).find(Located(0, f"{wanted} Mill Street", "Alder", "00017", None))
    if wanted in numbers:
        assert found is not None and found.how == ADDRESS
    elif found is not None:
        assert found.how == STREET
        close = abs(found.place[0] - (41.0 + wanted / 1e5)) <= 40 / 1e5 + 1e-9
        assert close, "on a straight street the place is the one it has, or a neighbour's"


def test_homes_of_one_name_scattered_over_a_county_tell_of_no_middle():
    far = [Located(i, None, "Alder", None, "Rural", (41.0 + i, -38.0)) for i in range(5)]
    assert Neighbourhood(far).find(Located(9, None, "Alder", None, "Rural")) is None
    near = [Located(i, None, "Alder", None, "Rural", (41.0 + i / 1000, -38.0)) for i in range(5)]
    found = Neighbourhood(near).find(Located(9, None, "Alder", None, "rural"))
    assert found is not None and found.how == SUBDIVISION and found.place == pytest.approx((41.002, -38.0))


def test_a_market_without_any_place_is_searched_by_postal_code_and_priced_with_the_limits_said(tmp_path):
    rows = [r for r in made_listings(240) if r["price"]]
    file = tmp_path / "sold.csv"
    file.write_text(as_csv(table("number sign and dollars", rows)))
    records = Records(tmp_path)
    import_file(records.live, file, folder=tmp_path, now=NOW)
    snapshot = records.snapshot()
    listing = rows[0]["id"]
    home = read_home(snapshot, HomeRef("listing", listing))
    doc, _ = price_doc(snapshot, home, None, None)
    assert doc.indicated_value and doc.comps and all(c.distance_miles is None for c in doc.comps)
    assert any("not known where the home stands" in w for w in doc.warnings)
    assert json.loads(doc.model_dump_json())["comps"][0]["distance_miles"] is None
    found = find_doc(snapshot, home, None, None)
    assert "postal code" in (found.sentence + " ".join(found.loosened)).lower() and " mi" not in found.sentence
    records.close()


def test_a_search_by_distance_around_a_home_without_a_place_is_told_and_not_passed_over(tmp_path):
    rows = [r for r in made_listings(60) if r["price"]]
    file = tmp_path / "sold.csv"
    file.write_text(as_csv(table("number sign and dollars", rows)))
    records = Records(tmp_path)
    import_file(records.live, file, folder=tmp_path, now=NOW)
    home = read_home(records.snapshot(), HomeRef("listing", rows[0]["id"]))
    with pytest.raises(BadInput, match="not known where this home stands"):
        find_doc(records.snapshot(), home, None, Search(home_kinds=(), radius_miles=2))
    doc = find_doc(records.snapshot(), home, None, Search(home_kinds=(), radius_miles=None))
    assert doc.candidates and {c.latitude for c in doc.candidates} == {None}
    json.dumps(doc.model_dump(mode="json"), allow_nan=False)
    records.close()
