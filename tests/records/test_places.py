"""Places: swapped ones, those at zero, those far from everything held, and those far from their own city are doubted."""

from __future__ import annotations

import datetime as dt
import math

import pytest
from hypothesis import given
from hypothesis import strategies as st

from rain_porch.records.importing import import_file
from rain_porch.records.places import AT_ZERO, FAR, SWAPPED, Places, cell_of
from rain_porch.store.db import RECORDS, open_database
from rain_porch.store.records.incoming import imports

NOW = dt.datetime(2025, 6, 30)
HEAD = "ListingId,UnparsedAddress,StandardStatus,Latitude,Longitude\n"


@pytest.fixture
def bring(tmp_path):
    db = open_database(tmp_path, RECORDS)

    def bring(*places: tuple[float, float], name="new", **more):
        path = tmp_path / f"{name}.csv"
        rows = [f"{name}{i},{i} {name} St,Active,{lat},{lon}\n" for i, (lat, lon) in enumerate(places)]
        path.write_text(HEAD + "".join(rows), encoding="utf-8")
        return import_file(db, path, folder=tmp_path, now=NOW, source=name, **more)

    bring.db = db
    yield bring
    db.close()


def test_places_are_judged_against_what_is_held_from_the_first_row_on(bring):
    assert bring((41.2, -38.4), (41.3, -38.5), name="town").suspect == 0
    odd = bring((-38.4, 41.2), (0, 0), (45.2, -38.4), (41.25, 38.4), (41.21, -38.45))
    assert odd.suspect == 4 and odd.reasons == {SWAPPED: 1, AT_ZERO: 1, FAR: 2}
    stored = bring.db.execute(
        "SELECT listing_id, suspect FROM listings WHERE suspect IS NOT NULL ORDER BY 1"
    ).fetchall()
    assert [r[0] for r in stored] == ["new0", "new1", "new2", "new3"] and "latitude" in stored[0][1]
    again = bring((-38.4, 41.2), (0, 0), (45.2, -38.4), (41.25, 38.4), (41.21, -38.45))
    assert (again.same, again.changed) == (5, 0), "the same file changes nothing"


def test_swapped_places_are_put_right_and_a_new_area_believed_where_that_is_said(bring):
    bring((41.2, -38.4), name="town")
    swapped = [(-38.4 - i / 100, 41.2) for i in range(30)]
    assert bring(*swapped, dry_run=True).suspect == 30, "a whole file of them as well"
    right = bring(*swapped, places="swap")
    assert (right.suspect, right.new) == (0, 30)
    assert bring.db.execute("SELECT max(latitude), min(longitude) FROM listings").fetchone()[:] == (41.2, -38.69)
    assert bring((48.2, -39.4), name="far", dry_run=True).reasons == {FAR: 1}
    assert bring((48.2, -39.4), name="far", places="new").suspect == 0
    assert bring((48.3, -39.4), name="beside").suspect == 0, "what was believed is held now"


@given(st.floats(-80, 80), st.floats(-170, 170), st.floats(-1, 1), st.floats(-1, 1))
def test_what_lies_near_what_is_held_is_never_doubted(lat, lon, north, east):
    if abs(lat + north) < 0.02 and abs(lon + east) < 0.02:
        return
    assert Places([cell_of(lat, lon)]).doubts([lat + north], [lon + east]) == {}


@given(st.floats(20, 60), st.floats(-130, -70))
def test_a_swapped_place_is_told_as_one(lat, lon):
    assert Places([cell_of(lat, lon)]).doubts([lon], [lat]) == {0: SWAPPED}


def county(k: int, rows: int = 260) -> list[tuple[float, float, str]]:
    """A county's homes with their postal codes: three towns some miles apart."""
    out = []
    for i in range(rows):
        town = i % 3
        lat, lon = 40.3 + 0.7 * (k // 4) + 0.14 * town, -40.5 + 0.8 * (k % 4) + 0.1 * town
        out.append((lat + 0.03 * math.sin(i), lon + 0.03 * math.cos(1.7 * i), f"{k:02d}{town:03d}"))
    return out


def test_a_state_of_eight_counties_sorted_has_no_odd_place_but_the_strays_put_there(tmp_path):
    rows = [row for k in range(8) for row in county(k)]
    strays = {
        7: (47.9, -51.2), 300: (12.0, 18.0), 801: (rows[1900][0], rows[1900][1]), 1205: (0.0, 0.0), 1600: (rows[1600][1], rows[1600][0]), 2000: (40.3, -39.0),
    }  # fmt: skip
    places = [(*strays.get(i, (lat, lon)), postal) for i, (lat, lon, postal) in enumerate(rows)]
    file = tmp_path / "state.csv"
    head = "ListingId,UnparsedAddress,PostalCode,StandardStatus,Latitude,Longitude\n"
    file.write_text(head + "".join(f"S{i},{i} Mill St,{p},Active,{a},{o}\n" for i, (a, o, p) in enumerate(places)))
    db = open_database(tmp_path, RECORDS)
    result = import_file(db, file, folder=tmp_path, now=NOW)
    odd = {r[0] for r in db.execute("SELECT listing_id FROM listings WHERE suspect IS NOT NULL")}
    assert odd == {f"S{i}" for i in strays} and result.suspect == len(strays)
    told = imports.reported_rows(db, result.import_id)
    assert {r["row_number"] for r in told} == {i + 1 for i in strays}
    again = import_file(db, file, folder=tmp_path, now=NOW)
    assert (again.same, again.changed) == (len(rows), 0)
    db.close()


def test_one_name_of_two_towns_is_believed_in_both(tmp_path):
    file = tmp_path / "two.csv"
    rows = [(41.2 + i / 9000, -38.4) for i in range(40)] + [(43.9 + i / 9000, -39.9) for i in range(40)]
    file.write_text(
        "ListingId,City,StandardStatus,Latitude,Longitude\n"
        + "".join(f"T{i},Alder,Active,{a},{o}\n" for i, (a, o) in enumerate(rows))
    )
    db = open_database(tmp_path, RECORDS)
    assert import_file(db, file, folder=tmp_path, now=NOW).suspect == 0
    db.close()
