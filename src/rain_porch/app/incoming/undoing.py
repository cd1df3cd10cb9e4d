"""An import taken back, in the records and on the disk: how far it is, and stopped while it is under way."""

from __future__ import annotations

import datetime as dt
import sqlite3
import threading
from collections.abc import Iterator
from contextlib import closing, contextmanager
from dataclasses import dataclass, field
from pathlib import Path

from ...core.errors import NotFound, Refused
from ...store import own_files
from ...store.db import PORCH, Database
from ...store.records.incoming import photo_undo
from ...store.records.incoming.undo import Progress, Undone, undo_import

_STEPS = 100_000  # of the database between two looks whether it is stopped


@dataclass
class UnderWay:
    """An import that is being taken back: `done` of its records so far, of `of`."""

    import_id: int
    done: int = 0
    of: int = 0
    stop: threading.Event = field(default_factory=threading.Event)


class Undoing:
    """The imports of a folder that are being taken back, by number."""

    def __init__(self) -> None:
        self._under_way: dict[int, UnderWay] = {}
        self._lock = threading.Lock()

    def under_way(self) -> list[UnderWay]:
        with self._lock:
            return list(self._under_way.values())

    def stop(self, import_id: int) -> None:
        """Let one end where it is: everything stays as it was. NotFound where it is not being taken back."""
        with self._lock:
            held = self._under_way.get(import_id)
        if held is None:
            raise NotFound(f"Import {import_id} is not being taken back.", import_id=import_id)
        held.stop.set()

    def undo(self, folder: Path, db: sqlite3.Connection, import_id: int, now: dt.datetime) -> Undone:
        """Take an import back. Raises NotFound, Refused; Refused too where it is stopped, or under way already."""
        held = UnderWay(import_id)
        with self._lock:
            if import_id in self._under_way:
                raise Refused(f"Import {import_id} is being taken back already.")
            self._under_way[import_id] = held

        def told(done: int, of: int) -> None:
            held.done, held.of = done, of
            if held.stop.is_set():
                raise _stopped(import_id)

        try:
            with _stopped_by(db, held):
                return undo(folder, db, import_id, now, told)
        finally:
            with self._lock:
                self._under_way.pop(import_id, None)


@contextmanager
def _stopped_by(db: sqlite3.Connection, held: UnderWay) -> Iterator[None]:
    db.set_progress_handler(held.stop.is_set, _STEPS)
    try:
        yield
    except sqlite3.OperationalError:
        if held.stop.is_set():
            raise _stopped(held.import_id) from None
        raise
    finally:
        db.set_progress_handler(None, 0)


def _stopped(import_id: int) -> Refused:
    return Refused(f"Stopped: nothing of import {import_id} was taken back.")


def undo(
    folder: Path, db: sqlite3.Connection, import_id: int, now: dt.datetime, progress: Progress = lambda done, of: None
) -> Undone:
    """Take an import back; files of photos that nothing names any more go too. Raises NotFound, Refused."""
    files = photo_undo.files_of(db, import_id)
    undone = undo_import(db, import_id, now.isoformat(timespec="seconds"), progress)
    if gone := photo_undo.unnamed(db, files):
        with closing(Database(folder, PORCH)) as porch:
            for name in gone - own_files.named(porch):
                (folder / "photos" / name).unlink(missing_ok=True)
    return undone
