"""Kill what works on a data folder at chance moments, and look at what is there afterwards: nothing that was acknowledged may be
lost, nothing may be half done.

    python -m bench.kills --records .demo --kills 200
"""

from __future__ import annotations

import argparse
import datetime as dt
import random
import shutil
import signal
import sqlite3
import subprocess
import sys
import tempfile
import time
from collections.abc import Callable
from contextlib import closing
from pathlib import Path

from rain_porch.store import db as database
from rain_porch.store.backups import back_up, check, finish_restore, restore
from rain_porch.store.db import PORCH, RECORDS, open_database

NOW = dt.datetime(2026, 11, 2, 19, 30)
ROWS = 400
START = """
import datetime as dt, itertools, sys
from pathlib import Path
folder, beside = Path(sys.argv[1]), Path(sys.argv[2])
NOW = dt.datetime(2026, 11, 2, 19, 30)
def ready(): print("ready", flush=True)
def done(n): print(n, flush=True)
"""
AGENT = """
from rain_porch.app.office.agent import folders_agent
from rain_porch.app.records import Records
from rain_porch.app.workup.workups import change_workup, open_workup
from rain_porch.app.workup.changes import SetClient
"""
# what is killed: each says when it begins and acknowledges each time that it has done something
WORK = {
    "save": AGENT + """
with folders_agent(Records(folder).snapshot(), lambda: NOW) as agent:
    revision = open_workup(agent, 1).revision
    ready()
    for n in itertools.count(1):
        revision, _ = change_workup(agent, 1, revision, SetClient(change="set_client", client=str(n)))
        done(n)
""",
    "handing over": AGENT + """
from rain_porch.app.handover.delivering import DeliverAsk, deliver
with folders_agent(Records(folder).snapshot(), lambda: NOW) as agent:
    ready()
    for n in itertools.count(1):
        deliver(agent, 1, DeliverAsk(email="wilma@place.example"))
        done(n)
""",
    "import and undo": """
from rain_porch.app.incoming.undoing import undo
from rain_porch.app.records import Records
from rain_porch.records.importing import import_file
records = Records(folder)
ready()
for n in itertools.count(1):
    with records.connection() as db:
        number = import_file(db, beside / "rows.csv", folder=folder, now=NOW).import_id
        done("import")
        undo(folder, db, number, NOW)
        done("undo")
""",
    "backup": """
from rain_porch.store.backups import back_up_daily
ready()
for n in itertools.count(1):
    back_up_daily(folder, NOW + dt.timedelta(days=n))
    done(n)
""",
    "restore": """
from rain_porch.store.backups import restore
ready()
for n in itertools.count(1):
    restore(folder, beside / "saved.zip", NOW + dt.timedelta(seconds=n))
    done(n)
""",
    "upgrade": """
from rain_porch.store.db import PORCH, RECORDS, open_database
ready()
for which in (PORCH, RECORDS):
    open_database(folder, which).close()
    done(which)
""",
}  # fmt: skip


def killed(mode: str, folder: Path, beside: Path, draws: random.Random) -> list[str]:
    """Start the work, kill it after a moment; what it had acknowledged."""
    command = [sys.executable, "-c", START + WORK[mode], str(folder), str(beside)]
    process = subprocess.Popen(command, stdout=subprocess.PIPE, stderr=subprocess.PIPE, text=True)
    assert process.stdout is not None and process.stderr is not None
    if process.stdout.readline().strip() != "ready":
        raise SystemExit(f"{mode} did not begin: {process.stderr.read()[-2000:]}")
    time.sleep(draws.uniform(0, 0.06 if mode == "upgrade" else 1.2))
    process.send_signal(signal.SIGKILL)
    told, _ = process.communicate()
    return told.split()


def _answer(folder: Path, which: str, sql: str) -> int:
    with closing(open_database(folder, which)) as db:
        return int(db.execute(sql).fetchone()[0] or 0)


def _saves(folder: Path, _: Path, told: list[str]) -> str:
    now = _answer(folder, PORCH, "SELECT json_extract(document, '$.client') FROM workups")
    noted = _answer(folder, PORCH, "SELECT max(revision) FROM workup_revisions")
    revision = _answer(folder, PORCH, "SELECT revision FROM workups")
    lost = bool(told) and now < int(told[-1])
    return f"{told[-1:]} acknowledged, {now} there, noted {noted} of {revision}" if lost or noted != revision else ""


def _deliveries(folder: Path, _: Path, told: list[str]) -> str:
    there = _answer(folder, PORCH, "SELECT count(*) FROM deliveries")
    papers = _answer(folder, PORCH, "SELECT count(*) FROM delivered_papers")
    planned = _answer(folder, PORCH, "SELECT count(*) FROM due_work WHERE kind = 'message'")
    whole = papers == 4 * there and planned == there
    return (
        ""
        if there >= len(told) and whole
        else f"{told} acknowledged, {there} there, {papers} papers, {planned} to send"
    )


def _imports(folder: Path, _: Path, told: list[str]) -> str:
    rows = _answer(folder, RECORDS, "SELECT count(*) FROM listings WHERE listing_id LIKE 'KILL%'")
    all_of_it = "SELECT count(*) FROM imports WHERE file_name = 'rows.csv'"
    taken = _answer(folder, RECORDS, all_of_it)
    undone = _answer(folder, RECORDS, f"{all_of_it} AND undone_at IS NOT NULL")
    half = rows != ROWS * (taken - undone) or taken - undone not in (0, 1)
    lost = taken < told.count("import") or undone < told.count("undo")
    return f"{len(told)} acknowledged, {rows} rows, {taken} imports, {undone} undone" if half or lost else ""


def _backups(folder: Path, beside: Path, told: list[str]) -> str:
    kept = sorted((folder / "backups/daily").glob("*.zip"))
    if len(kept) < min(len(told), 7):
        return f"{len(told)} acknowledged, {len(kept)} there"
    for file in kept[-2:]:
        back = beside / "back"
        restore(back, file, NOW)
        faults = check(back)
        shutil.rmtree(back)
        if faults:
            return f"{file.name}: {faults}"
    return ""


def _restored(folder: Path, _: Path, told: list[str]) -> str:
    finish_restore(folder)
    if faults := check(folder):
        return f"{told[-1:]} acknowledged: {faults}"
    return "" if _answer(folder, PORCH, "SELECT count(*) FROM workups") == 1 else "the workup is not there"


def _upgraded(folder: Path, _: Path, told: list[str]) -> str:
    for which, table in ((PORCH, "workups"), (RECORDS, "parcels")):
        n = _answer(folder, which, f"SELECT count(*) FROM {table}")  # opening it ends what was begun
        with closing(sqlite3.connect(next((folder / "backups").glob(f"{which}-schema-*.db")))) as saved:
            if saved.execute(f"SELECT count(*) FROM {table}").fetchone()[0] != n or not n:
                return f"{which}: {n} {table}, in the copy of before others"
    return ""


LOOKS: dict[str, Callable[[Path, Path, list[str]], str]] = {
    "save": _saves, "handing over": _deliveries, "import and undo": _imports, "backup": _backups, "restore": _restored,
    "upgrade": _upgraded,
}  # fmt: skip


def trial(mode: str, records: Path, times: int, draws: random.Random) -> list[str]:
    """What was wrong after so many kills of one kind of work."""
    wrong = []
    with tempfile.TemporaryDirectory() as space:
        beside = Path(space)
        made = _made(beside / "made", records, beside, old=mode == "upgrade")
        for n in range(times):
            folder = beside / f"folder{n}"
            shutil.copytree(made, folder)
            told = killed(mode, folder, beside, draws)
            fault = LOOKS[mode](folder, beside, told) or "; ".join(check(folder))
            if fault:
                wrong.append(f"{mode}, kill {n}: {fault}")
            for old in beside.glob(f"folder{n}*"):
                shutil.rmtree(old)
    return wrong


# columns that the newest step made
NEWEST = {
    "listings": ("expiration_date", "attached_garage_yn", "place_from", "same_as", "own"),
    "parcels": ("attached_garage_yn", "place_from", "own"),
}


def _made(folder: Path, records: Path, beside: Path, old: bool) -> Path:
    """A folder with the records and one workup; of an earlier schema where `old`."""
    from rain_porch.app.home.homes import HomeRef
    from rain_porch.app.office.agent import folders_agent
    from rain_porch.app.records import Records
    from rain_porch.app.workup.workups import begin_workup

    folder.mkdir()
    database.open_database(records, RECORDS).close()
    with closing(sqlite3.connect(records / "records.db")) as a, closing(sqlite3.connect(folder / "records.db")) as b:
        a.backup(b)
    held = Records(folder)
    with folders_agent(held.snapshot(), lambda: NOW) as agent:
        parcel = agent.records.db.execute(
            "SELECT parcel_number FROM parcels WHERE home_kind = 'detached' LIMIT 1"
        ).fetchone()[0]
        begin_workup(agent, HomeRef("parcel", parcel))
    held.close()
    back_up(folder, beside / "saved.zip", NOW)
    lines = [f"KILL{i},Closed,300000,300000,2026-08-01,Killed,41.2,-38.4" for i in range(ROWS)]
    head = "ListingId,StandardStatus,ListPrice,ClosePrice,CloseDate,City,Latitude,Longitude"
    (beside / "rows.csv").write_text("\n".join([head, *lines]) + "\n", encoding="utf-8")
    if old:  # the newest steps once more, on what they have made already taken away again
        with closing(sqlite3.connect(folder / "porch.db")) as db:
            columns = ("through", "papers_of", "words", "bulletin_id")
            gone = "".join(f"ALTER TABLE deliveries DROP COLUMN {column}; " for column in columns)
            db.executescript(
                "ALTER TABLE due_work DROP COLUMN usual_at; DROP TABLE rule_changes; DROP INDEX deliveries_by_bulletin; " + gone
                + "ALTER TABLE workups DROP COLUMN archived_at; PRAGMA user_version = 7;"
            )  # fmt: skip
        with closing(sqlite3.connect(folder / "records.db")) as db:
            triggers = [r[0] for r in db.execute("SELECT name FROM sqlite_master WHERE type = 'trigger'")]
            db.executescript(
                "".join(f"DROP TRIGGER {name}; " for name in triggers)
                + "DROP TABLE changed_records; DROP TABLE earlier_marks; DELETE FROM meta WHERE name = 'noting'; "
                "DROP INDEX photos_by_file; ALTER TABLE photos DROP COLUMN last_import; ALTER TABLE photos DROP COLUMN address; DROP INDEX listings_found; "
                "DROP INDEX parcels_found; DROP INDEX listings_same; DROP TABLE inbox_files; DROP TABLE feed_pictures; "
                "DROP TABLE named_mappings; DROP TABLE word_orders; DELETE FROM meta WHERE name = 'mark'; "
                + "".join(
                    f"ALTER TABLE {table} DROP COLUMN {column}; "
                    for table, columns in NEWEST.items()
                    for column in columns
                )
                + "PRAGMA user_version = 5;"
            )
    return folder


def main() -> int:
    arguments = argparse.ArgumentParser(description=__doc__)
    arguments.add_argument("--records", type=Path, default=Path(".demo"), help="a folder with records")
    arguments.add_argument("--kills", type=int, default=200)
    arguments.add_argument("--seed", type=int, default=1847)
    asked = arguments.parse_args()
    draws, wrong = random.Random(asked.seed), []
    share = -(-asked.kills // len(WORK))
    for mode in WORK:
        began = time.perf_counter()
        found = trial(mode, asked.records, share, draws)
        wrong += found
        print(
            f"{mode}: {share} kills, {len(found)} faults, {time.perf_counter() - began:.0f} s",
            *found,
            sep="\n",
            flush=True,
        )
    print(f"{share * len(WORK)} kills: {len(wrong)} lost or half done")
    return 1 if wrong else 0


if __name__ == "__main__":
    sys.exit(main())
