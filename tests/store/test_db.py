"""Many readers and one writing line: what each sees, and that a change is whole or not at all."""

from __future__ import annotations

import sqlite3
import subprocess
import sys
import threading
from contextlib import closing

import pytest

from rain_porch.core.errors import Refused
from rain_porch.store.db import (
    PORCH,
    Readers,
    atomic,
    connect,
    frozen,
    migrate,
    not_ours,
    open_database,
    snapshot,
)


@pytest.fixture
def db(porch):
    porch.execute("CREATE TABLE notes (n INTEGER PRIMARY KEY, said TEXT UNIQUE)")
    return porch


def said(db) -> list[str]:
    return [r["said"] for r in db.execute("SELECT said FROM notes ORDER BY n")]


def test_a_block_that_fails_leaves_nothing_and_an_inner_one_only_its_own(db):
    with pytest.raises(RuntimeError), atomic(db):
        db.execute("INSERT INTO notes (said) VALUES ('lost')")
        raise RuntimeError
    assert said(db) == []
    with atomic(db):
        db.execute("INSERT INTO notes (said) VALUES ('kept')")
        with pytest.raises(sqlite3.IntegrityError), atomic(db):
            db.execute("INSERT INTO notes (said) VALUES ('inner')")
            db.execute("INSERT INTO notes (said) VALUES ('kept')")
        assert said(db) == ["kept"], "inside, a question sees what it builds on"
    assert said(db) == ["kept"]


def test_what_is_being_written_is_seen_by_nobody_else_until_it_is_whole(db):
    written, look, seen = threading.Event(), threading.Event(), []

    def write() -> None:
        with atomic(db):
            db.execute("INSERT INTO notes (said) VALUES ('half')")
            written.set()
            look.wait(5)

    writer = threading.Thread(target=write)
    writer.start()
    assert written.wait(5)
    seen.append(said(db))
    look.set()
    writer.join(5)
    assert seen == [[]] and said(db) == ["half"]


def test_writers_take_turns_and_none_is_lost(db):
    def add(i: int) -> None:
        for j in range(20):
            with atomic(db):
                n = db.execute("SELECT count(*) FROM notes").fetchone()[0]
                db.execute("INSERT INTO notes (n, said) VALUES (?, ?)", (n + 1, f"{i}.{j}"))

    threads = [threading.Thread(target=add, args=(i,)) for i in range(6)]
    for t in threads:
        t.start()
    for t in threads:
        t.join(30)
    rows = db.execute("SELECT n FROM notes ORDER BY n").fetchall()
    assert [r["n"] for r in rows] == list(range(1, 121)), "each count was that of the notes before it"


def test_a_snapshot_and_frozen_readers_stay_as_they_were(db, tmp_path):
    db.execute("INSERT INTO notes (said) VALUES ('then')")
    path = tmp_path / f"{PORCH}.db"
    count = lambda c: c.execute("SELECT count(*) FROM notes").fetchone()[0]  # noqa: E731
    stamp, readers = frozen(path, count)
    with snapshot(path) as held:
        assert said(held) == ["then"]
        db.execute("INSERT INTO notes (said) VALUES ('now')")
        assert said(held) == ["then"]
    assert stamp == 1 and [r["said"] for r in readers.execute("SELECT said FROM notes")] == ["then"]
    assert said(db) == ["then", "now"]
    readers.close()


def test_readers_lend_each_connection_to_one_thread_at_a_time(tmp_path):
    open_database(tmp_path, PORCH).close()
    readers = Readers([connect(tmp_path / f"{PORCH}.db") for _ in range(2)])
    with readers.one() as a, readers.one() as b:
        assert a is not b
        waited = threading.Thread(target=lambda: readers.execute("SELECT 1"))
        waited.start()
        waited.join(0.1)
        assert waited.is_alive(), "the third waits for one to come back"
    waited.join(5)
    assert not waited.is_alive()
    readers.close()


def test_a_database_of_a_newer_version_is_refused_and_left_as_it_is(tmp_path):
    db = open_database(tmp_path, PORCH)
    db.execute("PRAGMA user_version = 999")
    with pytest.raises(Refused, match="newer version"):
        migrate(db, PORCH)
    assert db.execute("PRAGMA user_version").fetchone()[0] == 999
    db.close()


def test_opening_twice_migrates_once(tmp_path):
    first = open_database(tmp_path, PORCH)
    schema = first.execute("SELECT sql FROM sqlite_master ORDER BY name").fetchall()
    first.close()
    again = open_database(tmp_path, PORCH)
    assert again.execute("SELECT sql FROM sqlite_master ORDER BY name").fetchall() == schema
    again.close()


KILLED_WHILE_WRITING = """
import os, sqlite3, sys
db = sqlite3.connect(sys.argv[1], isolation_level=None)
db.execute("PRAGMA cache_size = 1")  # what is not committed yet is in the file already
db.execute(sys.argv[2])
db.execute("BEGIN")
db.execute("CREATE TABLE half (said TEXT)")
db.executemany("INSERT INTO half VALUES (?)", [("x" * 900,)] * 400)
os.kill(os.getpid(), 9)
"""


@pytest.mark.parametrize(
    ("first", "told"),
    [
        ("PRAGMA user_version = 0", ""),  # the first start, as its database was being made
        ("CREATE TABLE recipes (n INTEGER)", "made by another program"),
    ],
)
def test_a_file_whose_program_was_killed_as_it_wrote_is_what_it_was_before(tmp_path, first, told):
    path = tmp_path / "porch.db"
    subprocess.run([sys.executable, "-c", KILLED_WHILE_WRITING, str(path), first], check=False)
    journal = path.with_name("porch.db-journal")
    assert journal.stat().st_size, "it is half written"
    before = path.read_bytes(), journal.read_bytes()
    assert ("another program" in not_ours(PORCH, path)) == ("another" in told)
    assert (path.read_bytes(), journal.read_bytes()) == before, "looking at it changes nothing"
    if told:
        return
    open_database(tmp_path, PORCH).close()
    with closing(sqlite3.connect(path)) as db:
        tables = {r[0] for r in db.execute("SELECT name FROM sqlite_master")}
    assert "workups" in tables and "half" not in tables
