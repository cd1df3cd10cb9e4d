"""An import taken back: the tables stand as they stood, row for row, unless a later import has touched the record."""

from __future__ import annotations

import sqlite3
from contextlib import closing
from functools import partial
from pathlib import Path

import pytest
from hypothesis import HealthCheck, given, settings
from hypothesis import strategies as st

from rain_porch.app.incoming import undoing
from rain_porch.app.incoming.undoing import Undoing
from rain_porch.app.incoming.undoing import undo as plain_undo
from rain_porch.app.records import Records
from rain_porch.core.errors import NotFound, Refused
from rain_porch.records.importing import import_file
from rain_porch.store.db import RECORDS, open_database
from rain_porch.store.records.incoming import imports
from rain_porch.store.records.incoming import undo as undo_of_imports
from rain_porch.store.records.incoming.undo import TABLES, undo_import
from tests.conftest import NOW

HEAD = "ListingId,StandardStatus,UnparsedAddress,ParcelNumber,Latitude,Longitude,LivingArea,CloseDate,ClosePrice,ListPrice\n"
BESIDES = {"area_places": "south, north, west, east", "addresses": "words, kind, key, shown"}


def whole(db: sqlite3.Connection) -> dict[str, list[tuple]]:
    """All records, and all that is kept so that they are found; row numbers aside, which nobody sees."""
    out = {}
    for table, key in TABLES.values():
        names = [r["name"] for r in db.execute(f"PRAGMA table_info({table})") if r["name"] != "row_id"]
        out[table] = sorted(
            map(str, (tuple(r) for r in db.execute(f"SELECT {', '.join(names)} FROM {table} ORDER BY {key}")))
        )
    for table in BESIDES:
        out[table] = sorted(map(str, (tuple(r) for r in db.execute(f"SELECT {BESIDES[table]} FROM {table}"))))
    return out


def sums(folder: Path) -> dict[str, tuple[int, int]]:
    """The same of a whole town, told short: how many rows each table has, and a sum over them that any other row would change."""
    out = {}
    with closing(sqlite3.connect(folder / "records.db")) as db:
        for table in [*(table for table, _ in TABLES.values()), *BESIDES]:
            names = [name for _, name, *_ in db.execute(f"PRAGMA table_info({table})") if name != "row_id"]
            if table in BESIDES:
                names = BESIDES[table].split(", ")
            rows = [hash(row) for row in db.execute(f"SELECT {', '.join(names)} FROM {table}")]
            out[table] = len(rows), sum(rows)
    return out


def undo(records: Records, number: int | None):
    assert number is not None
    return undo_import(records.live, number, "2026-11-02T19:30:00")


def line(key, status="Active", area="1800", close="", paid="", price="400000", parcel=""):
    return f"{key},{status},{key[-1]} Ferry Ln,{parcel},41.2,-38.4,{area},{close},{paid},{price}\n"


def test_every_demo_import_undone_leaves_the_records_as_they_were(town: Path, demo: Path):
    records = Records(town)
    file = sorted((demo / "files").glob("*.*csv")) + sorted((demo / "files").glob("*.geojson"))
    before = sums(town)
    for path in file:
        again = import_file(records.live, path, folder=town, now=NOW, source="again")
        assert (again.new, again.changed) == (0, 0), path.name
        undo(records, again.import_id)
        assert sums(town) == before
    first = records.live.execute("SELECT min(import_id) FROM imports WHERE kind = 'listings'").fetchone()[0]
    done = undo(records, first)
    assert done.removed == before["listings"][0] and not done.kept
    import_file(records.live, demo / "files/listings.csv", folder=town, now=NOW)
    after = sums(town)
    assert after["listings"][0] == before["listings"][0]
    assert all(after[table] == before[table] for table in ("transfers", *BESIDES))
    records.close()


def test_what_was_changed_is_put_back_and_what_a_later_import_changed_is_kept_and_named(bring, records):
    bring(HEAD + line("A1") + line("A2") + line("A3"))
    empty_or_first = whole(records.live)
    second = bring(
        HEAD + line("A1", price="390000") + line("A2", "Closed", close="2025-05-01", paid="395000") + line("B1")
    )
    third = bring(HEAD + line("A2", "Closed", close="2025-05-02", paid="395000"))
    assert records.live.execute("SELECT old_value, new_value FROM events WHERE event = 'Price Change'").fetchone()[:] == (
        "400000", "390000",
    )  # fmt: skip
    done = undo(records, second.import_id)
    assert (done.removed, done.restored, done.kept) == (1, 1, (("A2", third.import_id),))
    assert [r[0] for r in records.live.execute("SELECT list_price FROM listings ORDER BY listing_id")] == [400_000] * 3
    undo(records, third.import_id)
    undo(records, second.import_id)
    assert whole(records.live) == empty_or_first
    with pytest.raises(Refused, match="already"):
        undo(records, third.import_id)
    with pytest.raises(NotFound, match="no import 99"):
        undo(records, 99)


def test_an_undone_parcel_gives_its_address_back_to_the_listing(bring, records):
    bring(HEAD + line("A1", parcel="P1"))
    before = whole(records.live)
    parcels = bring(
        "ParcelNumber,UnparsedAddress,LivingArea,Latitude,Longitude\nP1,1 Ferry Ln,1800,41.2,-38.4\n", "p.csv"
    )
    assert [r[0] for r in records.live.execute("SELECT kind FROM addresses")] == ["parcel"]
    undo(records, parcels.import_id)
    assert whole(records.live) == before


rows = st.dictionaries(
    st.sampled_from(["A1", "A2", "A3", "B1", "B2"]),
    st.tuples(st.sampled_from(["Active", "Pending", "Closed"]), st.sampled_from(["400000", "410000", ""])),
    min_size=1,
)


@settings(max_examples=25, suppress_health_check=[HealthCheck.function_scoped_fixture], deadline=None)
@given(st.lists(rows, min_size=1, max_size=4))
def test_imports_undone_last_first_leave_nothing_behind(tmp_path_factory, files):
    folder = tmp_path_factory.mktemp("undo")
    records = Records(folder)
    states, numbers = [], []
    for n, listing_rows in enumerate(files):
        states.append(whole(records.live))
        path = folder / f"f{n}.csv"
        path.write_text(
            HEAD + "".join(line(k, s, price=p, close="2025-05-01", paid="400000") for k, (s, p) in listing_rows.items())
        )
        numbers.append(import_file(records.live, path, folder=folder, now=NOW).import_id)
    for number, state in zip(reversed(numbers), reversed(states), strict=True):
        assert not undo(records, number).kept
        assert whole(records.live) == state
    assert imports.is_empty(records.live, "listings")
    records.close()


def test_what_a_source_has_no_more_goes_and_comes_back_with_an_undo(tmp_path):
    db = open_database(tmp_path, RECORDS)

    def bring(numbers, **more):
        file = tmp_path / "board.csv"
        rows = "".join(f"W{i},Active,{i} Mill St,Alder,300000,41.2,-38.4\n" for i in numbers)
        file.write_text("ListingId,StandardStatus,UnparsedAddress,City,ListPrice,Latitude,Longitude\n" + rows)
        return import_file(db, file, folder=tmp_path, now=NOW, **more)

    def state():
        names = [r[0] for r in db.execute("SELECT listing_id FROM listings ORDER BY 1")]
        found = [r[0] for r in db.execute("SELECT key FROM addresses WHERE addresses MATCH 'mill' ORDER BY 1")]
        assert names == found
        return names

    bring(range(40))
    before = [tuple(r) for r in db.execute("SELECT * FROM listings ORDER BY row_id")]
    dry = bring(range(3, 41), whole=True, dry_run=True)
    assert dry.reasons == {"no longer at the source: go": 3} and len(state()) == 40
    done = bring(range(3, 41), whole=True)
    assert (done.new, done.same) == (1, 37) and {"W0", "W1", "W2"}.isdisjoint(state()) and len(state()) == 38
    undone = undo_import(db, done.import_id, NOW.isoformat())
    assert (undone.removed, undone.restored) == (1, 3)
    assert [tuple(r) for r in db.execute("SELECT * FROM listings ORDER BY row_id")] == before and len(state()) == 40
    with pytest.raises(Refused, match="cut short"):
        bring(range(15), whole=True)
    assert len(state()) == 40
    db.close()


def test_it_tells_how_far_it_is_and_where_it_is_stopped_all_stays(bring, records: Records, monkeypatch):
    monkeypatch.setattr(undo_of_imports, "_PART", 10)
    lines = [f"R{i},Active,{i} Ferry Ln,,41.2,-38.4,1800,,,400000\n" for i in range(45)]
    first = bring(HEAD + "".join(lines))
    second = bring(HEAD + "".join(line.replace("400000", "410000") for line in lines))
    before = whole(records.live)
    for number in (second.import_id, first.import_id):
        under = Undoing()
        seen: list[tuple[int, int]] = []

        def stopped(done: int, of: int, seen=seen, under=under, number=number) -> None:
            seen.append((done, of))
            assert [(x.import_id, x.done, x.of) for x in under.under_way()] == [(number, done, of)]
            if done >= 20:
                under.stop(number)

        with records.connection() as db:
            monkeypatch.setattr(undoing, "undo", partial(_watched, stopped))
            monkeypatch.setattr(undoing, "_STEPS", 1)
            with pytest.raises(Refused, match=f"Stopped: nothing of import {number} was taken back"):
                under.undo(records.folder, db, number, NOW)
            assert seen == [(0, 45), (10, 45), (20, 45)] and not under.under_way() and whole(records.live) == before
            monkeypatch.undo()
            monkeypatch.setattr(undo_of_imports, "_PART", 10)
            plain_undo(records.folder, db, number, NOW, lambda done, of, seen=seen: seen.append((done, of)))
        assert seen[-1] == (45, 45)
        before = whole(records.live)
    with pytest.raises(NotFound, match="is not being taken back"):
        Undoing().stop(1)


def _watched(also, folder, db, import_id, now, progress):
    """`undo` with one more who is told."""

    def both(done: int, of: int) -> None:
        progress(done, of)
        also(done, of)

    return plain_undo(folder, db, import_id, now, both)
