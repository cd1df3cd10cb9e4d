"""Places: swapped ones, those at zero and those far from everything held are doubted from the first row on."""

from __future__ import annotations

import datetime as dt

import pytest
from hypothesis import given
from hypothesis import strategies as st

from rain_porch.records.importing import import_file
from rain_porch.records.places import AT_ZERO, FAR, SWAPPED, Places, cell_of
from rain_porch.store.db import RECORDS, open_database

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
