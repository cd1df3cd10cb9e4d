"""An import of photos taken back: the pictures that it replaced stand in their places again."""

from __future__ import annotations

import json
import sqlite3
from collections.abc import Mapping

from ...db import Db
from ..pictures import Kept

Key = tuple[str, int]  # a listing's number, the place among its photos


def note_replaced(db: sqlite3.Connection, import_id: int, replaced: Mapping[Key, Kept]) -> None:
    """Remember which picture stood where an import puts another."""
    db.executemany(
        "INSERT INTO import_changes (import_id, record_key, before, was_import) SELECT ?, ?, ?, last_import FROM photos "
        "WHERE listing_id = ? AND place = ?",
        [
            (
                import_id,
                f"{listing}/{place}",
                json.dumps({"file_name": file, "address": address, "caption": caption}),
                listing,
                place,
            )
            for (listing, place), (file, address, caption) in replaced.items()
        ],
    )


def take_back(db: sqlite3.Connection, import_id: int) -> tuple[int, int, list[tuple[str, int]]]:
    """(how many went, how many stand as before, what a later import replaced and who did)."""
    key = {"id": import_id}
    named = "listing_id || '/' || place"
    kept = db.execute(
        f"SELECT {named}, last_import FROM photos WHERE last_import <> :id AND "
        f"(first_import = :id OR {named} IN (SELECT record_key FROM import_changes WHERE import_id = :id)) ORDER BY 1",
        key,
    ).fetchall()
    rows = db.execute(
        "SELECT photo_id, json_extract(c.before, '$.file_name'), c.was_import, c.record_key, "
        "json_extract(c.before, '$.address'), json_extract(c.before, '$.caption') FROM import_changes c "
        f"JOIN photos ON {named} = c.record_key WHERE c.import_id = :id AND last_import = :id",
        key,
    ).fetchall()
    db.executemany(
        "UPDATE photos SET file_name = ?, last_import = ?, address = ?, caption = ? WHERE photo_id = ?",
        [(r[1], r[2], r[4], r[5], r[0]) for r in rows],
    )
    db.executemany(
        "DELETE FROM import_changes WHERE import_id = ? AND record_key = ?", [(import_id, r[3]) for r in rows]
    )
    removed = db.execute("DELETE FROM photos WHERE first_import = :id AND last_import = :id", key).rowcount
    return removed, len(rows), [(str(r[0]), int(r[1])) for r in kept]


def files_of(db: Db, import_id: int) -> set[str]:
    """The files that stand in place through this import."""
    rows = db.execute("SELECT file_name FROM photos WHERE last_import = :id AND file_name <> ''", {"id": import_id})
    return {r[0] for r in rows}


def unnamed(db: Db, files: set[str]) -> set[str]:
    """Of these files, those that no listing's photo is any more, and none that could be brought back would be."""
    named = {r[0] for r in db.execute("SELECT file_name FROM photos")}
    named |= {
        r[0]
        for r in db.execute(
            "SELECT json_extract(before, '$.file_name') FROM import_changes WHERE record_key LIKE '%/%'"
        )
    }
    return files - named
