"""An import undone: its new records go, what it changed stands as it stood before."""

from __future__ import annotations

import json
import sqlite3
from collections.abc import Callable
from dataclasses import dataclass
from functools import partial

from ....core.errors import NotFound, Refused
from ...db import atomic
from . import indexing, photo_undo
from .changed import new_state, noting
from .imports import GONE

# kind of file → (table, key column)
TABLES = {
    "listings": ("listings", "listing_id"),
    "parcels": ("parcels", "parcel_number"),
    "transfers": ("transfers", "transfer_key"),
    "assessments": ("assessments", "assessment_key"),
    "history": ("events", "event_key"),
    "series": ("series", "series_key"),
    "areas": ("areas", "area_key"),
}


@dataclass(frozen=True)
class Undone:
    """removed and restored count records; `kept` are keys that a later import changed, with that import's number."""

    import_id: int
    removed: int
    restored: int
    kept: tuple[tuple[str, int], ...]


Progress = Callable[[int, int], None]  # records done with, of how many
_PART = 20_000  # records between two calls of it


def undo_import(db: sqlite3.Connection, import_id: int, now: str, progress: Progress = lambda done, of: None) -> Undone:
    """Take an import back in one transaction; what `progress` raises leaves everything as it is.

    A record that a later import changed as well is left as it is and named in `kept`. NotFound for no such import,
    Refused for one that is undone already.
    """
    with atomic(db):
        row = db.execute(
            "SELECT kind, undone_at, new_count + changed_count AS n FROM imports WHERE import_id = :id",
            {"id": import_id},
        ).fetchone()
        if row is None:
            raise NotFound(f"There is no import {import_id}.", import_id=import_id)
        if row["undone_at"]:
            raise Refused(f"Import {import_id} was undone on {row['undone_at'][:10]} already.")
        removed, restored = 0, 0
        kept: list[tuple[str, int]] = []
        if row["kind"] == "photos":
            removed, restored, kept = photo_undo.take_back(db, import_id)
        else:
            with noting(db, row["n"]):
                table, key = TABLES[row["kind"]]
                kept = _later(db, table, key, import_id)
                told = partial(_counted, progress, max(row["n"] - len(kept), 0))
                restored = _bring_back(db, table, key, import_id)
                restored += _restore(db, table, key, import_id, told)
                removed = _remove(db, table, import_id, partial(told, before=restored))
                if table == "listings":
                    db.execute("DELETE FROM events WHERE first_import = :id AND last_import = :id", {"id": import_id})
                indexing.reindex(db, table, went=True)
        if not kept:  # what a later import holds can still be taken back, once that import is
            db.execute("UPDATE imports SET undone_at = :now WHERE import_id = :id", {"now": now, "id": import_id})
        new_state(db)
    return Undone(import_id, removed, restored, tuple(kept))


def _counted(progress: Progress, of: int, done: int, before: int = 0) -> None:
    progress(min(before + done, of), of)


def _later(db: sqlite3.Connection, table: str, key: str, import_id: int) -> list[tuple[str, int]]:
    rows = db.execute(
        f"SELECT {key}, last_import FROM {table} WHERE first_import = :id AND last_import <> :id "
        f"UNION SELECT t.{key}, t.last_import FROM import_changes c JOIN {table} t ON t.{key} = c.record_key "
        "WHERE c.import_id = :id AND t.last_import <> :id ORDER BY 1",
        {"id": import_id},
    )
    return [(str(r[0]), int(r[1])) for r in rows]


def _bring_back(db: sqlite3.Connection, table: str, key: str, import_id: int) -> int:
    """Records that the import found gone at their source; one that came again since stays as it is."""
    rows = db.execute(
        "SELECT record_key, before FROM import_changes WHERE import_id = :id AND before LIKE :gone",
        {"id": import_id, "gone": f'{{"{GONE}": %'},
    ).fetchall()
    back = 0
    for r in rows:
        row = json.loads(r["before"])[GONE]
        there = db.execute(f"SELECT 1 FROM {table} WHERE {key} = ?", (r["record_key"],)).fetchone()
        if there is None:
            db.execute(
                f"INSERT INTO {table} ({', '.join(row)}) VALUES ({', '.join('?' * len(row))})", list(row.values())
            )
            indexing.touch(db, table, f"{key} = :key", {"key": r["record_key"]})
            back += 1
    db.execute(
        "DELETE FROM import_changes WHERE import_id = :id AND before LIKE :gone",
        {"id": import_id, "gone": f'{{"{GONE}": %'},
    )
    return back


def _restore(db: sqlite3.Connection, table: str, key: str, import_id: int, told: Callable[[int], None]) -> int:
    rows = db.execute(
        f"SELECT c.record_key, c.before, c.was_import, c.was_source FROM import_changes c "
        f"JOIN {table} t ON t.{key} = c.record_key WHERE c.import_id = :id AND t.last_import = :id",
        {"id": import_id},
    ).fetchall()
    indexing.stir_homes(db, table, "last_import = :id", {"id": import_id})
    indexing.touch(db, table, "last_import = :id AND first_import <> :id", {"id": import_id})
    for done, r in enumerate(rows):
        if done % _PART == 0:
            told(done)
        before = json.loads(r["before"])
        sets = "".join(f"{name} = :{name}, " for name in before)
        db.execute(
            f"UPDATE {table} SET {sets}last_import = :was_import, source_id = :was_source WHERE {key} = :record_key",
            {**before, **{k: r[k] for k in ("was_import", "was_source", "record_key")}},
        )
    db.executemany(
        "DELETE FROM import_changes WHERE import_id = ? AND record_key = ?",
        [(import_id, r["record_key"]) for r in rows],
    )
    return len(rows)


def _remove(db: sqlite3.Connection, table: str, import_id: int, told: Callable[[int], None]) -> int:
    mine = "first_import = :id AND last_import = :id"
    indexing.touch(db, table, mine, {"id": import_id})
    first, last = db.execute(f"SELECT min(row_id), max(row_id) FROM {table} WHERE {mine}", {"id": import_id}).fetchone()
    removed = 0
    for start in range(first, last + 1, _PART) if first is not None else ():
        told(removed)
        part = {"id": import_id, "start": start, "end": start + _PART - 1}
        which = f"{mine} AND row_id BETWEEN :start AND :end"
        if table == "areas":
            db.execute(f"DELETE FROM area_places WHERE row_id IN (SELECT row_id FROM areas WHERE {which})", part)
        if table in ("listings", "parcels"):
            odd = 1 if table == "listings" else 0
            db.execute(
                f"DELETE FROM addresses WHERE rowid IN (SELECT row_id * 2 + {odd} FROM {table} WHERE {which})", part
            )
        removed += db.execute(f"DELETE FROM {table} WHERE {which}", part).rowcount
    told(removed)
    return removed
