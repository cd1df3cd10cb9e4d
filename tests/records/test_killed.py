"""The import is killed in the middle: after each restart the records hold all of it or nothing, and saves go on."""

from __future__ import annotations

import json
import signal
import sqlite3
import subprocess
import sys
import time
from pathlib import Path

import pytest

from rain_porch.demo.crowd import write_crowd
from rain_porch.workups.homes import HomeRef
from rain_porch.workups.records import Records
from rain_porch.workups.workups import Workups
from tests.conftest import NOW

ROWS = 12_000


@pytest.fixture(scope="module")
def crowd(demo: Path, tmp_path_factory: pytest.TempPathFactory) -> Path:
    return write_crowd(demo / "files/listings.csv", tmp_path_factory.mktemp("crowd") / "listings.csv", ROWS)


def start_import(file: Path, folder: Path) -> subprocess.Popen[bytes]:
    command = [sys.executable, "-m", "rain_porch.cli", "import", str(file), "--data", str(folder), "--json"]
    return subprocess.Popen(command, stdout=subprocess.PIPE, stderr=subprocess.DEVNULL)


def whole(folder: Path) -> int:
    """Rows in the records, after their integrity was checked."""
    db = sqlite3.connect(folder / "records.db")
    assert db.execute("PRAGMA integrity_check").fetchone()[0] == "ok"
    n = db.execute("SELECT count(*) FROM listings").fetchone()[0]
    assert db.execute("SELECT count(*) FROM imports").fetchone()[0] == (1 if n else 0)
    assert db.execute("SELECT count(*) FROM listing_places").fetchone()[0] <= n
    db.close()
    return int(n)


@pytest.mark.parametrize("seconds", [0.6, 1.1, 1.6, 2.2, 3.0])
def test_a_killed_import_leaves_all_or_nothing_and_can_be_repeated(crowd, tmp_path, seconds):
    process = start_import(crowd, tmp_path)
    time.sleep(seconds)
    process.send_signal(signal.SIGKILL)
    process.wait()
    if (tmp_path / "records.db").exists():
        records = Records(tmp_path)
        records.close()
        assert whole(tmp_path) in (0, ROWS)
    done = start_import(crowd, tmp_path)
    told = json.loads(done.communicate()[0])
    assert told["new"] + told["same"] == ROWS and told["rejected"] == 0
    assert whole(tmp_path) == ROWS


def test_saves_of_workups_do_not_wait_for_an_import(crowd, town):
    records = Records(town, today=lambda: NOW.date())
    with Workups(records, now=lambda: NOW) as workups:
        row = records.db.execute("SELECT parcel_number FROM parcels WHERE home_kind = 'detached' LIMIT 1").fetchone()
        n = workups.create(HomeRef("parcel", row[0]))
        process = start_import(crowd, town)
        saved = 0
        while process.poll() is None:
            opened = workups.open(n)
            from rain_porch.workups.changes import SetClient

            workups.change(n, opened.revision, SetClient(change="set_client", client=f"Client {saved}"))
            saved += 1
        assert process.returncode == 0 and saved > 3
        assert workups.open(n).state.client == f"Client {saved - 1}"
        assert len(records.columns()) > ROWS, "the new records are seen once they are there"
    records.close()
