"""Opening the databases: pragmas, migrations, nestable transactions."""

from __future__ import annotations

import sqlite3
from collections.abc import Iterator
from contextlib import contextmanager
from importlib.resources import files
from pathlib import Path

from ..core import addresses
from ..core.errors import Refused

RECORDS, PORCH = "records", "porch"
CACHE = 24_576  # KB that a connection may keep of its database in memory


def connect(path: Path, cache: int = CACHE) -> sqlite3.Connection:
    """A connection in autocommit mode with WAL, foreign keys and rows by name. `cache` in KB."""
    db = sqlite3.connect(path, isolation_level=None, check_same_thread=False, timeout=10)
    db.row_factory = sqlite3.Row
    db.execute("PRAGMA journal_mode = WAL")
    db.execute("PRAGMA foreign_keys = ON")
    db.execute("PRAGMA synchronous = NORMAL")
    db.execute(f"PRAGMA cache_size = {-cache}")
    db.create_function("fold_address", 4, addresses.folded, deterministic=True)
    return db


@contextmanager
def snapshot(path: Path) -> Iterator[sqlite3.Connection]:
    """A connection of its own that sees the database as it is now, whatever is written meanwhile; to read all of it."""
    db = connect(path, cache=2000)
    try:
        db.execute("BEGIN")
        yield db
    finally:
        db.close()


@contextmanager
def atomic(db: sqlite3.Connection) -> Iterator[sqlite3.Connection]:
    """All of the block or none of it; may be nested, an inner block being a savepoint."""
    if not db.in_transaction:
        db.execute("BEGIN IMMEDIATE")
        try:
            yield db
        except BaseException:
            db.execute("ROLLBACK")
            raise
        db.execute("COMMIT")
        return
    db.execute("SAVEPOINT inner_block")
    try:
        yield db
    except BaseException:
        db.execute("ROLLBACK TO inner_block")
        db.execute("RELEASE inner_block")
        raise
    db.execute("RELEASE inner_block")


def migrate(db: sqlite3.Connection, which: str) -> None:
    """Bring a database to the newest schema; each migration and the note that it ran commit together.

    Raises Refused for a database made by a newer version.
    """
    folder = files("rain_porch.store") / "migrations" / which
    steps = sorted((f for f in folder.iterdir() if f.name.endswith(".sql")), key=lambda f: f.name)
    version = int(db.execute("PRAGMA user_version").fetchone()[0])
    if version > len(steps):
        raise Refused(
            f"These {which} were written by a newer version (schema {version}); update Rain Porch to open them."
        )
    for number, step in enumerate(steps[version:], start=version + 1):
        script = step.read_text(encoding="utf-8")
        db.executescript(f"BEGIN IMMEDIATE;\n{script}\nPRAGMA user_version = {number};\nCOMMIT;")


def open_database(folder: Path, which: str) -> sqlite3.Connection:
    """records.db or porch.db in the data folder, made and migrated as needed."""
    folder.mkdir(parents=True, exist_ok=True)
    db = connect(folder / f"{which}.db")
    migrate(db, which)
    return db
