"""SQLite's write-ahead log of a database at which somebody always looks.

What is committed stands in the log until it is written into the database; the log begins anew only when nobody reads from it. Frozen
readers of the newest records do so for as long as they live, so that beside a service the log would grow with each import.
"""

from __future__ import annotations

import sqlite3
from collections.abc import Callable
from contextlib import closing
from typing import TypeVar

from .db import Database, Readers, atomic, connect

Stamp = TypeVar("Stamp")


def begin_log_anew(db: Database, readers: Readers, stamp: Callable[[sqlite3.Connection], Stamp], seen: Stamp) -> bool:
    """Write the log into the database, let the frozen readers look at that instead, and empty the log; what they see stays. Whether it
    was done: it waits where somebody still reads what was before, where a reader is busy for long, or something new was committed.

    stamp, seen: what tells the state that the readers see, and its value.
    """
    with closing(connect(db.path)) as own:
        own.execute("PRAGMA busy_timeout = 0")
        if not _written_in(own):
            return False
        with db.line() as writer, atomic(writer):  # nothing is committed meanwhile
            if stamp(writer) != seen or not readers.begin_again():
                return False
        busy, _, _ = own.execute("PRAGMA wal_checkpoint(TRUNCATE)").fetchone()
        return not busy


def _written_in(own: sqlite3.Connection) -> bool:
    """Whether all of the log could be written into the database."""
    busy, pages, done = own.execute("PRAGMA wal_checkpoint(PASSIVE)").fetchone()
    return not busy and pages == done
