"""An import taken back, in the records and on the disk."""

from __future__ import annotations

import datetime as dt
import sqlite3
from contextlib import closing
from pathlib import Path

from ...store import own_files
from ...store.db import PORCH, Database
from ...store.records.incoming import photo_undo
from ...store.records.incoming.undo import Undone, undo_import


def undo(folder: Path, db: sqlite3.Connection, import_id: int, now: dt.datetime) -> Undone:
    """Take an import back; files of photos that nothing names any more go too. Raises NotFound, Refused."""
    files = photo_undo.files_of(db, import_id)
    undone = undo_import(db, import_id, now.isoformat(timespec="seconds"))
    if gone := photo_undo.unnamed(db, files):
        with closing(Database(folder, PORCH)) as porch:
            for name in gone - own_files.named(porch):
                (folder / "photos" / name).unlink(missing_ok=True)
    return undone
