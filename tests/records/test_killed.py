"""The import is killed in the middle: after each restart the records hold all of it or nothing, and saves go on."""

from __future__ import annotations

import contextlib
import json
import multiprocessing
import random
import shutil
import sqlite3
import sys
import time
from multiprocessing.context import ForkServerProcess as Process
from pathlib import Path

import pytest

from rain_porch.app.home.homes import HomeRef
from rain_porch.app.office.agent import folders_agent
from rain_porch.app.records import Records
from rain_porch.app.workup.workups import begin_workup, change_workup, open_workup
from rain_porch.cli import main
from rain_porch.demo.crowd import write_crowd
from tests.conftest import NOW

ROWS = 3_000


@pytest.fixture(scope="module")
def crowd(demo: Path, tmp_path_factory: pytest.TempPathFactory) -> Path:
    return write_crowd(demo / "files/listings.csv", tmp_path_factory.mktemp("crowd") / "listings.csv", ROWS)


def start_import(file: Path, folder: Path) -> Process:
    """`rain-porch import` as a process of its own, begun from one that has read the modules and nothing else; what it tells stands
    beside the folder, in `FOLDER-told.json`."""
    process = BEGIN.Process(target=_import, args=(str(file), str(folder)))
    process.start()
    return process


def _import(file: str, folder: str) -> None:
    with open(f"{folder}-told.json", "w") as out, contextlib.redirect_stdout(out):
        code = main(["import", file, "--data", folder, "--json"])
    sys.exit(code)


BEGIN = multiprocessing.get_context("forkserver")
BEGIN.set_forkserver_preload(["tests.records.test_killed"])


def whole(folder: Path) -> int:
    """Rows in the records, after their integrity was checked."""
    db = sqlite3.connect(folder / "records.db")
    assert db.execute("PRAGMA integrity_check").fetchone()[0] == "ok"
    n = db.execute("SELECT count(*) FROM listings").fetchone()[0]
    assert db.execute("SELECT count(*) FROM imports").fetchone()[0] in ((1, 2) if n else (0,))
    assert db.execute("SELECT count(*) FROM addresses WHERE kind = 'listing'").fetchone()[0] <= n
    db.close()
    return int(n)


def test_an_import_killed_at_moments_spread_over_it_leaves_all_or_nothing(crowd, tmp_path):
    """One in each twentieth of the time from its start to a little past its end; `bench.kills` does it longer."""
    for name in ("first", "whole"):  # with the first the modules are read
        started = time.monotonic()
        process = start_import(crowd, tmp_path / name)
        process.join()
        assert process.exitcode == 0
        usual = time.monotonic() - started
    draws = random.Random(1847)
    for n in range(20):
        folder = tmp_path / f"killed{n}"
        process = start_import(crowd, folder)
        time.sleep((0.02 + 1.08 * (n + draws.random()) / 20) * usual)
        process.kill()
        process.join()
        if not (folder / "records.db").exists():
            continue
        Records(folder).close()
        assert whole(folder) in (0, ROWS)
        if n % 10 == 0:
            done = start_import(crowd, folder)
            done.join()
            told = json.loads((tmp_path / f"{folder.name}-told.json").read_text())
            assert told["new"] + told["same"] == ROWS and told["rejected"] == 0 and whole(folder) == ROWS
        shutil.rmtree(folder)


def test_saves_of_workups_do_not_wait_for_an_import(crowd, town):
    records = Records(town, today=lambda: NOW.date())
    with folders_agent(records.snapshot(), now=lambda: NOW) as agent:
        row = records.live.execute("SELECT parcel_number FROM parcels WHERE home_kind = 'detached' LIMIT 1").fetchone()
        n = begin_workup(agent, HomeRef("parcel", row[0]))
        process = start_import(crowd, town)
        saved = 0
        while process.is_alive():
            opened = open_workup(agent, n)
            from rain_porch.app.workup.changes import SetClient

            change_workup(agent, n, opened.revision, SetClient(change="set_client", client=f"Client {saved}"))
            saved += 1
        assert process.exitcode == 0 and saved > 3
        assert open_workup(agent, n).state.client == f"Client {saved - 1}"
        assert len(records.snapshot().columns) > ROWS, "the new records are seen once they are there"
    records.close()
