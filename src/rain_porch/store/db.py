"""Opening the databases: pragmas, migrations, nestable transactions."""

from __future__ import annotations

import errno
import shutil
import sqlite3
import threading
import weakref
from collections.abc import Callable, Iterable, Iterator, Sequence
from contextlib import contextmanager, suppress
from importlib.resources import files
from importlib.resources.abc import Traversable
from pathlib import Path
from queue import Empty, SimpleQueue
from tempfile import TemporaryDirectory
from typing import Any, TypeAlias, TypeVar

from ..core.errors import Refused
from ..core.facts.places import addresses

RECORDS, PORCH = "records", "porch"
FIRST_TABLE = {RECORDS: "listings", PORCH: "workups"}
Stamp = TypeVar("Stamp")
CACHE = 24_576  # KB that a connection may keep of its database in memory


def connect(path: Path, cache: int = CACHE) -> sqlite3.Connection:
    """A connection in autocommit mode with WAL, foreign keys and rows by name. `cache` in KB."""
    db = sqlite3.connect(path, isolation_level=None, check_same_thread=False, timeout=10)
    db.row_factory = sqlite3.Row
    db.execute("PRAGMA journal_mode = WAL")
    db.execute("PRAGMA foreign_keys = ON")
    db.execute("PRAGMA synchronous = FULL")  # what is acknowledged is on the disk: a power cut takes nothing back
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
def atomic(db: WritableDb) -> Iterator[WritableDb]:
    """All of the block or none of it; may be nested, an inner block being a savepoint."""
    if isinstance(db, Database):
        with db.line() as connection, atomic(connection):
            yield db
        return
    if not db.in_transaction:
        db.execute("BEGIN IMMEDIATE")
        try:
            yield db
            db.execute(
                "COMMIT"
            )  # within: a disk that is full here too leaves no transaction open, in which later saves would hang
        except BaseException:
            if db.in_transaction:  # a full disk may have ended it already
                db.execute("ROLLBACK")
            raise
        return
    db.execute("SAVEPOINT inner_block")
    try:
        yield db
    except BaseException:
        if db.in_transaction:
            db.execute("ROLLBACK TO inner_block")
            db.execute("RELEASE inner_block")
        raise
    db.execute("RELEASE inner_block")


@contextmanager
def erasing(db: Database) -> Iterator[Database]:
    """A change after which what it deletes stands nowhere in the file: neither in free pages nor in its log."""
    with db.line() as connection:
        connection.execute("PRAGMA secure_delete = ON")
        try:
            with atomic(db):
                yield db
            connection.execute("VACUUM")
            connection.execute("PRAGMA wal_checkpoint(TRUNCATE)")
        finally:
            connection.execute("PRAGMA secure_delete = OFF")


def migrate(db: sqlite3.Connection, which: str) -> None:
    """Bring a database to the newest schema; each migration and the note that it ran commit together.

    Raises Refused for a database made by a newer version.
    """
    steps = _steps(which)
    version = int(db.execute("PRAGMA user_version").fetchone()[0])
    if version > len(steps):
        raise Refused(
            f"These {which} were written by a newer version (schema {version}); update Rain Porch to open them."
        )
    for number, step in enumerate(steps[version:], start=version + 1):
        script = step.read_text(encoding="utf-8")
        db.executescript(f"BEGIN IMMEDIATE;\n{script}\nPRAGMA user_version = {number};\nCOMMIT;")


def _steps(which: str) -> list[Traversable]:
    folder = files("rain_porch.store") / "migrations" / which
    return sorted((f for f in folder.iterdir() if f.name.endswith(".sql")), key=lambda f: f.name)


def newest_schema(which: str) -> int:
    """The number of the newest schema that this version writes."""
    return len(_steps(which))


def open_database(folder: Path, which: str) -> sqlite3.Connection:
    """records.db or porch.db in the data folder, made and migrated as needed."""
    path = folder / f"{which}.db"
    try:
        folder.mkdir(parents=True, exist_ok=True)
        if path.is_file() and path.stat().st_size and (wrong := not_ours(which, path)):
            raise Refused(f"{path} {wrong}.")
        db = connect(path)
        save_before_upgrade(folder, which, db)
        migrate(db, which)
    except (sqlite3.DatabaseError, OSError) as error:
        raise Refused(unreadable(folder, error)) from error
    return db


def save_before_upgrade(folder: Path, which: str, db: sqlite3.Connection) -> None:
    """Copy a database of an earlier schema aside before it is changed: to the folder's backups, once for a schema."""
    version = int(db.execute("PRAGMA user_version").fetchone()[0])
    if not 0 < version < newest_schema(which):
        return
    aside = folder / "backups" / f"{which}-schema-{version}.db"
    if aside.exists():
        return
    aside.parent.mkdir(parents=True, exist_ok=True)
    part = aside.with_suffix(".part")
    part.unlink(missing_ok=True)
    copy = sqlite3.connect(part)
    try:
        db.backup(copy)
    finally:
        copy.close()
    part.replace(aside)


def unreadable(folder: Path, error: sqlite3.DatabaseError | OSError) -> str:
    """What is told where a file cannot be opened, read or written, and what to do. folder: where the databases lie, which
    SQLite's own errors do not name."""
    why = str(error)
    if isinstance(error, OSError):
        path = error.filename or folder
        if error.errno in (errno.EACCES, errno.EPERM, errno.EROFS):
            return f"{path} may not be read or written by this account: change that, or name another place."
        if error.errno in (errno.ENOSPC, errno.EDQUOT):
            return f"There is no room left for {path}: make some, and repeat."
        return f"{path}: {error.strerror or why}."
    if "readonly" in why:
        return f"{folder} may not be written by this account: change that, or name another folder with --data."
    if "full" in why:
        return f"There is no room left in {folder}: make some, and repeat. Nothing was changed."
    if "locked" in why:
        return f"{folder} is held by another program: close it there, and repeat."
    if "unable to open" in why:
        return f"{folder} cannot be opened: check its name and whose it is."
    return f"{folder} is damaged, or no database of Rain Porch ({why}): bring a backup back with rain-porch restore."


def not_ours(which: str, path: Path) -> str:
    """What is wrong with a file that should be a database of ours, "" where it is one; not a byte of it is changed.

    Raises sqlite3.OperationalError for one that cannot be looked at.
    """
    if not path.stat().st_size:
        return "is empty: bring a backup back with rain-porch restore"
    try:
        names = _tables(path)
    except sqlite3.OperationalError:
        raise
    except sqlite3.DatabaseError as error:
        return f"is damaged, or no database of Rain Porch ({error}): bring a backup back with rain-porch restore"
    if not names or FIRST_TABLE[which] in names:
        return ""
    return "was made by another program: move it away, or name another folder with --data"


def _tables(path: Path) -> set[str]:
    """The names of a file's tables, without a change to it. One that was being written when its program was killed must first be
    brought back to what it was, which its own journal tells: that is done with a copy here."""

    def names_in(file: Path, mode: str) -> set[str]:
        db = sqlite3.connect(f"{file.resolve().as_uri()}?mode={mode}", uri=True, timeout=10)
        try:
            return {r[0] for r in db.execute("SELECT name FROM sqlite_master WHERE type = 'table'")}
        finally:
            db.close()

    try:
        return names_in(path, "ro")
    except sqlite3.OperationalError as error:
        if error.sqlite_errorcode != sqlite3.SQLITE_READONLY_ROLLBACK:
            raise
    with TemporaryDirectory() as aside:
        for file in (path, path.with_name(f"{path.name}-journal")):
            shutil.copy(file, aside)
        return names_in(Path(aside) / path.name, "rw")


class Rows:
    """What a statement has answered, read to its end: rows in order, the last row's number, how many it touched."""

    def __init__(self, cursor: sqlite3.Cursor) -> None:
        self._rows = iter(cursor.fetchall() if cursor.description else [])
        self.lastrowid, self.rowcount = cursor.lastrowid, cursor.rowcount

    def __iter__(self) -> Iterator[Any]:
        return self._rows

    def fetchone(self) -> Any:
        return next(self._rows, None)

    def fetchall(self) -> list[Any]:
        return list(self._rows)


class Readers:
    """Connections that are lent for one statement each, so that threads may read side by side."""

    def __init__(self, connections: Sequence[sqlite3.Connection]) -> None:
        self._idle: SimpleQueue[sqlite3.Connection] = SimpleQueue()
        self._door = threading.Lock()  # one goes in at a time; nobody does while all connections are fetched together
        self._count = len(connections)
        for connection in connections:
            self._idle.put(connection)
        self._closing = weakref.finalize(self, _close_all, list(connections))

    @contextmanager
    def one(self) -> Iterator[sqlite3.Connection]:
        """One of the connections for the length of a block: to read a whole table."""
        with self._door:
            connection = self._idle.get()
        try:
            yield connection
        finally:
            self._idle.put(connection)

    def execute(self, sql: str, parameters: Any = ()) -> Rows:
        with self.one() as connection:
            return Rows(connection.execute(sql, parameters))

    def begin_again(self) -> bool:
        """Let all that are frozen see the database as it is now; False, and nothing done, where one of them is busy for long."""
        with self._all(SHORT_SECONDS) as held:
            if len(held) < self._count:
                return False
            for connection in held:
                connection.execute("COMMIT")
                connection.execute("BEGIN")
                connection.execute("SELECT 1 FROM sqlite_master").fetchone()  # it is frozen as it first reads
            return True

    @contextmanager
    def _all(self, seconds: float) -> Iterator[list[sqlite3.Connection]]:
        """All connections, or those that came back within so many seconds each: nobody else gets one meanwhile."""
        if not self._door.acquire(timeout=seconds):
            yield []
            return
        held: list[sqlite3.Connection] = []
        try:
            with suppress(Empty):
                for _ in range(self._count):
                    held.append(self._idle.get(timeout=seconds))
            yield held
        finally:
            for connection in held:
                self._idle.put(connection)
            self._door.release()

    def close(self) -> None:
        """Close all, once what they are reading is read; a statement that takes seconds more is not waited for."""
        with self._all(PATIENT_SECONDS):
            self._closing()  # who comes later is told that they are closed


PATIENT_SECONDS, SHORT_SECONDS = 3.0, 0.3


def _close_all(connections: list[sqlite3.Connection]) -> None:
    for connection in connections:
        connection.close()


def frozen(path: Path, stamp: Callable[[sqlite3.Connection], Stamp], readers: int = 3) -> tuple[Stamp, Readers]:
    """Readers that all see the database as it is now, whatever is written meanwhile, with the stamp of that moment."""
    while True:
        made = [connect(path, cache=6000) for _ in range(readers)]
        for connection in made:
            connection.execute("BEGIN")
        stamps = [stamp(connection) for connection in made]
        if all(s == stamps[0] for s in stamps):
            return stamps[0], Readers(made)
        _close_all(made)  # something was written between the first and the last: again


class Database:
    """One database for many threads: reading side by side, writing one after the other.

    What is read inside `atomic` is read by the writing connection, so that a change sees what it builds on.
    """

    def __init__(self, folder: Path, which: str, readers: int = 3) -> None:
        self.folder, self.path = folder, folder / f"{which}.db"
        self._writer = open_database(folder, which)
        self._readers = Readers([connect(self.path, cache=4000) for _ in range(readers)])
        self._line = threading.RLock()
        self._mine = threading.local()

    def execute(self, sql: str, parameters: Any = ()) -> Rows:
        if not self._writing() and sql.lstrip()[:6].upper() in ("SELECT", "WITH"):
            return self._readers.execute(sql, parameters)
        with self._line:
            return Rows(self._writer.execute(sql, parameters))

    def executemany(self, sql: str, parameters: Iterable[Any]) -> Rows:
        with self._line:
            return Rows(self._writer.executemany(sql, parameters))

    def _writing(self) -> bool:
        return bool(getattr(self._mine, "depth", 0))

    @contextmanager
    def line(self) -> Iterator[sqlite3.Connection]:
        """The writing connection, for one thread at a time."""
        with self._line:
            self._mine.depth = getattr(self._mine, "depth", 0) + 1
            try:
                yield self._writer
            finally:
                self._mine.depth -= 1

    def close(self) -> None:
        self._readers.close()
        self._writer.close()


Db: TypeAlias = sqlite3.Connection | Database | Readers  # what a question may be put to
WritableDb: TypeAlias = sqlite3.Connection | Database
