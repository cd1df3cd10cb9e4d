"""The watched folder: files come in by themselves, mapped as before; changed heads hold one that tells less."""

from __future__ import annotations

import datetime as dt
import os

import pytest

from rain_porch.records.inbox import folder_of, take_in
from rain_porch.store.db import RECORDS, open_database
from rain_porch.store.records.incoming import inbox
from tests.records.head_styles import as_csv, listings, table

NOW = dt.datetime(2026, 6, 30, 9)
ROWS = listings(40)


@pytest.fixture
def office(tmp_path):
    db = open_database(tmp_path, RECORDS)
    place = folder_of(tmp_path) / "north board"
    place.mkdir(parents=True)

    def put(lines, name="export.csv"):
        (place / name).write_text(lines if isinstance(lines, str) else as_csv(lines))
        os.utime(place / name, (1e9, 1e9 + put.n))
        put.n += 1
        return [(x.name, x.held, x.outcome) for x in take_in(db, tmp_path, NOW)]

    put.n, put.db, put.folder, put.place = 0, db, tmp_path, place
    yield put
    db.close()


STYLE = "number sign and dollars"


def test_what_is_put_there_comes_in_once_and_again_when_it_has_changed(office):
    lines = table(STYLE, ROWS)
    assert office(lines) == [("export.csv", False, "40 new, 0 changed, 0 the same, 0 rejected listings")]
    assert take_in(office.db, office.folder, NOW) == [], "nothing new"
    price = lines[0].index("List $")
    lines[1][price] = "$123,400"
    assert office(lines)[0][2].startswith("0 new, 1 changed, 39 the same")
    assert office.db.execute("SELECT name FROM sources").fetchone()[0] == "north board"
    (office.place / "late.csv").write_text(as_csv(lines))
    assert take_in(office.db, office.folder, NOW) == [], "it may still be written"


def test_heads_that_changed_are_told_and_hold_a_file_that_tells_less(office):
    lines = table(STYLE, ROWS)
    office(lines)
    heads = list(lines[0])
    lines[0] = ["Sale Price" if h == "Sold $" else h for h in heads]
    ((_, held, said),) = office(lines)
    assert not held and "heads have changed: ClosePrice is now “Sale Price”" in said
    lines[0] = ["Qx7" if h == "Sold $" else h for h in heads]
    ((name, held, said),) = office(lines)
    assert held and "nothing tells ClosePrice any more" in said
    assert inbox.files(office.db)[0]["name"] == name and inbox.files(office.db)[0]["held"]
    assert office.db.execute("SELECT count(*) FROM listings").fetchone()[0] == 40, "nothing of it came in"


def test_what_cannot_be_read_waits_with_its_reason_and_stops_nothing(office):
    office("colour,shape\nred,round\n", "a.csv")
    assert office(table(STYLE, ROWS), "b.csv")[0][:2] == ("b.csv", False)
    assert {f["name"]: f["held"] for f in inbox.files(office.db)} == {"a.csv": True, "b.csv": False}
