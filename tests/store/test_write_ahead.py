"""The log of what was committed does not grow for ever beside readers that are always there."""

from __future__ import annotations

import threading

import pytest

from rain_porch.store.db import frozen
from rain_porch.store.write_ahead import begin_log_anew


@pytest.fixture
def db(porch):
    porch.execute("CREATE TABLE notes (said TEXT)")
    return porch


def count(of):
    return of.execute("SELECT count(*) FROM notes").fetchone()[0]


def log_bytes(db):
    return db.path.with_name(f"{db.path.name}-wal").stat().st_size


def write(db, n=200):
    for _ in range(n):
        db.execute("INSERT INTO notes VALUES (?)", ("long " * 400,))


def test_each_import_finds_an_empty_log_and_readers_see_what_they_saw(db):
    before = None
    sizes = []
    for turn in range(1, 5):
        write(db)
        seen, readers = frozen(db.path, count)
        if before is not None:
            assert not begin_log_anew(db, readers, count, seen), "somebody still reads what was before"
            assert count(before) == seen - 200
            before.close()
        assert begin_log_anew(db, readers, count, seen)
        sizes.append(log_bytes(db))
        assert count(readers) == seen == 200 * turn
        before = readers
    assert sizes == [0, 0, 0, 0]
    db.execute("DELETE FROM notes")
    assert count(before) == 800, "they are still frozen"
    before.close()


def test_it_waits_where_something_new_was_committed_or_a_reader_is_busy(db):
    write(db)
    seen, readers = frozen(db.path, count)
    write(db, 1)
    assert not begin_log_anew(db, readers, count, seen)
    assert count(readers) == seen and log_bytes(db)
    readers.close()

    seen, readers = frozen(db.path, count)
    with readers.one():
        assert not begin_log_anew(db, readers, count, seen)
    assert log_bytes(db) and begin_log_anew(db, readers, count, seen)
    readers.close()


def test_who_asks_meanwhile_waits_and_sees_one_state(db):
    write(db)
    seen, readers = frozen(db.path, count)
    told: set[int] = set()
    stop = threading.Event()

    def ask() -> None:
        while not stop.wait(0.001):
            told.add(count(readers))

    asking = [threading.Thread(target=ask) for _ in range(5)]
    for t in asking:
        t.start()
    done = [begin_log_anew(db, readers, count, seen) for _ in range(10)]
    stop.set()
    for t in asking:
        t.join(10)
    assert told == {seen} and done == [True] * 10
    readers.close()
