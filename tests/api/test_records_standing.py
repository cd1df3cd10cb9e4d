"""While newer records are being read, the service says on which import its figures stand, and goes on answering."""

from __future__ import annotations

import threading
import time

from rain_porch.app import records as of_folder
from rain_porch.app.records import Records
from rain_porch.records.importing import import_file
from tests.conftest import NOW


def test_what_is_shown_says_through_which_import_it_stands_while_a_newer_one_is_taken_in(office, tmp_path, monkeypatch):
    client = office.client("Owner")
    before = client.get("/api/records/standing").json()
    assert not before["is_behind"] and before["newest_import"] and before["taken_in"]

    held, read = threading.Event(), of_folder.read_columns
    monkeypatch.setattr(of_folder, "MANY", 1)
    monkeypatch.setattr(of_folder, "read_columns", lambda *a: (held.wait(30), read(*a))[1])
    file = tmp_path / "more.csv"
    file.write_text("Listing ID,Status,Address,City,List Price\nZZ1,Active,1 Test Lane,Town,250000\n")
    with office.state.records.connection() as db:
        import_file(db, file, folder=office.state.records.folder, now=NOW, source="More")
    while_read = client.get("/api/records/standing").json()
    assert while_read == {**before, "is_behind": True}

    held.set()
    until = time.monotonic() + 20
    while (now := client.get("/api/records/standing").json())["is_behind"]:
        assert time.monotonic() < until
        time.sleep(0.05)
    assert now["version"] > before["version"] and now["newest_import"] == "more.csv"


def test_what_was_made_from_older_records_says_so_also_when_the_newer_are_there_by_now(town, tmp_path):
    """An answer that was begun before the newer records were read once told of the older ones that nothing newer was there."""
    records = Records(town)
    old = records.snapshot()
    assert not records.is_behind(old)
    file = tmp_path / "more.csv"
    file.write_text("Listing ID,Status,Address,City,List Price\nZZ1,Active,1 Test Lane,Town,250000\n")
    import_file(records.live, file, folder=town, now=NOW, source="More")
    new = records.snapshot()
    assert new.stamp > old.stamp and records.is_behind(old) and not records.is_behind(new)
    records.close()
