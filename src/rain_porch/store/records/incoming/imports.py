"""Imports in the database: staging and taking effect. Identifiers come from the layouts alone."""

from __future__ import annotations

import json
import sqlite3
from collections.abc import Iterable, Mapping, Sequence
from pathlib import Path
from typing import Any

from ....core.facts.keys import made_key, number_words
from ...db import CACHE, Db, WritableDb, atomic
from . import indexing, placing
from .changed import new_state, noting

IMPORT_CACHE = 131_072  # KB: most of the indexes that a large import changes
COUNTS = ("rows", "new", "changed", "same", "suspect", "rejected")


def source_id(db: WritableDb, name: str) -> int:
    db.execute("INSERT OR IGNORE INTO sources (name) VALUES (:name)", {"name": name})
    return int(db.execute("SELECT source_id FROM sources WHERE name = :name", {"name": name}).fetchone()[0])


def source_id_of(db: Db, name: str) -> int | None:
    """A source's number, None where nothing came from it yet."""
    row = db.execute("SELECT source_id FROM sources WHERE name = :name", {"name": name}).fetchone()
    return int(row[0]) if row else None


def open_staging(db: sqlite3.Connection, path: Path, columns: Sequence[str]) -> None:
    """Attach an empty staging file, and let the connection use more memory while it is: rows that are new or changed (`columns` are those that the file brings)."""
    path.unlink(missing_ok=True)
    db.execute("ATTACH :path AS staging", {"path": str(path)})
    db.execute(f"PRAGMA cache_size = {-IMPORT_CACHE}")
    db.execute("PRAGMA staging.page_size = 16384")
    db.execute("PRAGMA staging.journal_mode = OFF")
    db.execute("PRAGMA staging.synchronous = OFF")
    names = ", ".join(columns)
    db.execute(
        f"CREATE TABLE staging.ready (row_number INTEGER, key TEXT, outcome TEXT, before TEXT, suspect TEXT, {names})"
    )
    db.execute("CREATE TABLE staging.reported (row_number INTEGER, outcome TEXT, reasons TEXT, original TEXT)")
    db.execute("CREATE TABLE staging.unchanged (key TEXT)")


def close_staging(db: sqlite3.Connection, path: Path) -> None:
    db.execute("DETACH staging")
    db.execute(f"PRAGMA cache_size = {-CACHE}")
    db.execute("PRAGMA shrink_memory")
    path.unlink(missing_ok=True)


def stage(db: sqlite3.Connection, columns: Sequence[str], rows: Iterable[Sequence[Any]]) -> None:
    """rows: (row number, key, outcome, before, suspect, *columns)."""
    marks = ", ".join("?" * (len(columns) + 5))
    with atomic(db):
        db.executemany(f"INSERT INTO staging.ready VALUES ({marks})", rows)


def report_rows(
    db: sqlite3.Connection, rows: Iterable[tuple[int, str, str, str]], unchanged: Iterable[str] = ()
) -> None:
    """rows: (row number, outcome, reasons, original) to be shown; `unchanged`: keys of a few rows that change nothing."""
    with atomic(db):
        db.executemany("INSERT INTO staging.reported VALUES (?, ?, ?, ?)", rows)
        db.executemany("INSERT INTO staging.unchanged VALUES (?)", [(key,) for key in unchanged])


def sampled_places(db: sqlite3.Connection, most: int = 1_500) -> list[dict[str, Any]]:
    """Places of the staged rows, some of all of them: where they lie, and whether they are doubted."""
    with atomic(db):
        n = int(db.execute("SELECT count(*) FROM staging.ready").fetchone()[0])
        rows = db.execute(
            "SELECT latitude, longitude, coalesce(suspect LIKE '%itude%', 0) AS odd FROM staging.ready "
            "WHERE latitude IS NOT NULL AND longitude IS NOT NULL AND (rowid % :every = 0 OR suspect LIKE '%itude%') LIMIT :most",
            {"every": max(1, n // most), "most": 2 * most},
        ).fetchall()
    return [{"latitude": r[0], "longitude": r[1], "odd": bool(r[2])} for r in rows]


def doubt_staged(db: sqlite3.Connection, told: Mapping[int, str], fields: Sequence[str], columns: Sequence[str]) -> int:
    """Mark fields of staged rows as suspect, with why; returns how many rows were not suspect before."""
    fresh = 0
    with atomic(db):
        db.execute("CREATE INDEX IF NOT EXISTS staging.reported_rows ON reported (row_number)")
        rows = (db.execute("SELECT rowid, * FROM staging.ready WHERE rowid = ?", (rowid,)).fetchone() for rowid in told)
        marks: list[tuple[str, int]] = []
        again: list[tuple[str, int]] = []
        added: list[tuple[int, str, str]] = []
        for row in rows:
            why, odd = told[row["rowid"]], json.loads(row["suspect"] or "[]")
            fresh += not odd
            marks.append((json.dumps([*odd, *(name for name in fields if name not in odd)]), row["rowid"]))
            number = row["row_number"]
            before = db.execute("SELECT reasons FROM staging.reported WHERE row_number = ?", (number,)).fetchone()
            if before:
                again.append((json.dumps([*json.loads(before["reasons"]), why]), number))
            else:
                original = {name: str(row[name])[:2000] for name in columns if row[name] is not None}
                added.append((number, json.dumps([why]), json.dumps(original, ensure_ascii=False)))
        db.executemany("UPDATE staging.ready SET suspect = ? WHERE rowid = ?", marks)
        db.executemany("UPDATE staging.reported SET outcome = 'suspect', reasons = ? WHERE row_number = ?", again)
        db.executemany("INSERT INTO staging.reported VALUES (?, 'suspect', ?, ?)", added)
    return fresh


def existing(
    db: sqlite3.Connection, table: str, key_column: str, columns: Sequence[str], keys: Sequence[str]
) -> dict[str, dict[str, Any]]:
    """What the table holds for these keys: key → {"suspect": …, column: value}."""
    out: dict[str, dict[str, Any]] = {}
    placed = ", last_import" + (", source_id, place_from, own" if table in ("listings", "parcels") else "")
    names = ", ".join(columns) + placed
    for first in range(0, len(keys), 900):
        part = keys[first : first + 900]
        marks = ", ".join("?" * len(part))
        query = f"SELECT {key_column}, suspect, {names} FROM {table} WHERE {key_column} IN ({marks})"
        for row in db.execute(query, part):
            out[row[0]] = placing.without_found(table, dict(row))
    return out


def is_empty(db: sqlite3.Connection, table: str) -> bool:
    return db.execute(f"SELECT 1 FROM {table} LIMIT 1").fetchone() is None


def apply(
    db: sqlite3.Connection,
    table: str,
    key_column: str,
    columns: Sequence[str],
    record: Mapping[str, Any],
    gone: Sequence[str] = (),
) -> int:
    """Take a staged import into effect in one transaction; returns its number. `record`: the row of `imports`.

    `columns` are those staged; columns that the file did not bring stay as they are. `gone`: keys of records that their
    source does not have any more; they go, and come back when the import is undone.
    """
    with atomic(db), noting(db, record["new"] + record["changed"] + len(gone)):
        number, first = write_record(db, record), is_empty(db, table)
        if gone:
            _remove_gone(db, table, key_column, number, gone)
        names = ", ".join(columns)
        values = {"id": number, "source": record["source_id"]}
        db.execute(
            f"INSERT INTO {table} ({key_column}, suspect, {names}, source_id, first_import, last_import) "
            f"SELECT key, suspect, {names}, :source, :id, :id FROM staging.ready WHERE outcome = 'new'",
            values,
        )
        db.execute(
            "INSERT INTO import_changes (import_id, record_key, before, was_import, was_source) "
            f"SELECT :id, r.key, r.before, t.last_import, t.source_id FROM staging.ready r "
            f"JOIN {table} t ON t.{key_column} = r.key WHERE r.outcome = 'changed'",
            {"id": number},
        )
        indexing.stir_homes(db, table, f"{key_column} IN (SELECT key FROM staging.ready WHERE outcome = 'changed')", {})
        sets = ", ".join(f"{c} = r.{c}" for c in columns)
        if table in ("listings", "parcels") and "latitude" in columns:
            sets += ", place_from = NULL"  # it has a place of its own, or is given one anew
        db.execute(
            f"UPDATE {table} SET {sets}, suspect = r.suspect, source_id = :source, last_import = :id "
            f"FROM staging.ready r WHERE r.outcome = 'changed' AND {table}.{key_column} = r.key",
            values,
        )
        db.execute(
            "INSERT INTO import_rows (import_id, row_number, outcome, reasons, original) "
            "SELECT :id, row_number, outcome, reasons, original FROM staging.reported",
            {"id": number},
        )
        if table == "listings":
            _seen_changes(db, values, str(record["finished_at"]))
        indexing.touch(db, table, "last_import = :id", {"id": number})
        indexing.reindex(db, table, first=first)
        new_state(db)
    return number


def apply_gone(
    db: sqlite3.Connection, table: str, key_column: str, record: Mapping[str, Any], gone: Sequence[str]
) -> int:
    """Records that their source does not have any more go, as an import of its own; returns its number."""
    with atomic(db), noting(db, len(gone)):
        number = write_record(db, record)
        _remove_gone(db, table, key_column, number, gone)
        indexing.reindex(db, table, went=True)
        new_state(db)
    return number


GONE = "gone"  # in what stood before: the record was removed, and this is all of it


def keys_of_source(db: sqlite3.Connection, table: str, key_column: str, source: int) -> list[str]:
    """Keys of the records that came from a source last."""
    with atomic(db):
        rows = db.execute(f"SELECT {key_column} FROM {table} WHERE source_id = ?", (source,)).fetchall()
    return [str(r[0]) for r in rows]


def _remove_gone(db: sqlite3.Connection, table: str, key_column: str, number: int, gone: Sequence[str]) -> None:
    for key in gone:
        row = dict(db.execute(f"SELECT * FROM {table} WHERE {key_column} = ?", (key,)).fetchone())
        db.execute(
            "INSERT INTO import_changes (import_id, record_key, before, was_import, was_source) VALUES (?, ?, ?, ?, ?)",
            (number, key, json.dumps({GONE: row}, ensure_ascii=False), row["last_import"], row["source_id"]),
        )
        indexing.forget(db, table, row["row_id"], row.get("home_key"))
        db.execute(f"DELETE FROM {table} WHERE row_id = ?", (row["row_id"],))


def _seen_changes(db: sqlite3.Connection, values: Mapping[str, Any], at: str) -> None:
    """A listing's price or status that differs from what an earlier import brought is an event of its history."""
    rows = []
    for field, event in (("list_price", "Price Change"), ("standard_status", "Status Change")):
        for r in db.execute(
            f"SELECT c.record_key, coalesce(substr(l.modification_timestamp, 1, 19), :at) AS at, "
            f"json_extract(c.before, '$.{field}') AS old, l.{field} AS new "
            "FROM import_changes c JOIN listings l ON l.listing_id = c.record_key "
            f"WHERE c.import_id = :id AND json_extract(c.before, '$.{field}') IS NOT NULL AND l.{field} IS NOT NULL",
            {**values, "at": at},
        ):
            fact = (r["record_key"], r["at"], event, number_words(r["old"]), number_words(r["new"]))
            rows.append((made_key(*fact), *fact, values["source"], values["id"], values["id"]))
    db.executemany(
        "INSERT OR IGNORE INTO events (event_key, listing_id, at, event, old_value, new_value, source_id, "
        "first_import, last_import) VALUES (?, ?, ?, ?, ?, ?, ?, ?, ?)",
        rows,
    )


def write_record(db: sqlite3.Connection, record: Mapping[str, Any]) -> int:
    """A row of `imports`; returns its number."""
    cursor = db.execute(
        "INSERT INTO imports (source_id, kind, file_name, finished_at, row_count, new_count, changed_count, same_count, "
        "suspect_count, rejected_count, reasons, columns) VALUES (:source_id, :kind, :file_name, :finished_at, :rows, "
        ":new, :changed, :same, :suspect, :rejected, :reasons, :columns)",
        {**record, "reasons": json.dumps(record["reasons"]), "columns": json.dumps(record.get("columns") or [])},
    )
    return int(cursor.lastrowid or 0)


def records_mark(db: Db) -> str:
    """What tells this state of the records from every other, also from one of the same number in a backup."""
    return str(db.execute("SELECT value FROM meta WHERE name = 'mark'").fetchone()[0])


def records_version(db: Db) -> int:
    return int(db.execute("SELECT value FROM meta WHERE name = 'version'").fetchone()[0])


def list_imports(db: Db) -> list[dict[str, Any]]:
    """Newest first, with the source's name."""
    rows = db.execute(
        "SELECT i.import_id, s.name AS source, i.kind, i.file_name, i.finished_at, i.row_count AS rows, i.new_count AS new, "
        "i.changed_count AS changed, i.same_count AS same, i.suspect_count AS suspect, i.rejected_count AS rejected, "
        "i.reasons, i.undone_at FROM imports i JOIN sources s USING (source_id) ORDER BY i.import_id DESC LIMIT 200"
    )
    return [{**dict(r), "reasons": json.loads(r["reasons"])} for r in rows]


def newest_import(db: Db) -> tuple[str, str] | None:
    """(file name, when it was taken in) of the newest import that was not taken back; None where there is none."""
    row = db.execute(
        "SELECT file_name, finished_at FROM imports WHERE undone_at IS NULL ORDER BY import_id DESC LIMIT 1"
    ).fetchone()
    return tuple(row) if row else None


def reported_rows(db: Db, import_id: int, limit: int = 500) -> list[dict[str, Any]]:
    """Rows of an import that were rejected, suspect or partly blanked, as they stood in the file."""
    rows = db.execute(
        "SELECT row_number, outcome, reasons, original FROM import_rows WHERE import_id = :id ORDER BY row_number LIMIT :limit",
        {"id": import_id, "limit": limit},
    )
    return [_reported(r) for r in rows]


def _reported(row: sqlite3.Row) -> dict[str, Any]:
    return {**dict(row), "reasons": json.loads(row["reasons"]), "original": json.loads(row["original"])}


def staged_rows(db: sqlite3.Connection, outcome: str, columns: Sequence[str], limit: int = 50) -> list[dict[str, Any]]:
    """A few staged rows of an outcome ("new", "changed", "same", "suspect", "rejected", "blanked"), to be looked at."""
    if outcome == "same":
        return [{"key": r[0]} for r in db.execute("SELECT key FROM staging.unchanged LIMIT :n", {"n": limit})]
    if outcome in ("suspect", "rejected", "blanked"):
        rows = db.execute(
            "SELECT row_number, reasons, original FROM staging.reported WHERE outcome = :outcome LIMIT :n",
            {"outcome": outcome, "n": limit},
        )
        return [_reported(r) for r in rows]
    names = ", ".join(columns)
    rows = db.execute(
        f"SELECT key, before, {names} FROM staging.ready WHERE outcome = :outcome LIMIT :n",
        {"outcome": outcome, "n": limit},
    )
    return [{"key": r["key"], **_told_apart(json.loads(r["before"] or "{}"), {c: r[c] for c in columns})} for r in rows]


def _told_apart(before: dict[str, Any], after: dict[str, Any]) -> dict[str, dict[str, Any]]:
    """What stood before and what comes, each column of the office's own for itself."""
    came = json.loads(after.pop("own", None) or "{}")
    if "own" in before:
        was = json.loads(before.pop("own") or "{}")
        before |= {name: was.get(name) for name in {**was, **came} if was.get(name) != came.get(name)}
    return {"before": before, "after": after | came}


def rulings(db: sqlite3.Connection, kind: str) -> dict[str, dict[str, str]]:
    """What the agent has said of records of a kind: key → {about: says}."""
    out: dict[str, dict[str, str]] = {}
    for r in db.execute("SELECT record_key, about, says FROM rulings WHERE kind = :kind", {"kind": kind}):
        out.setdefault(r["record_key"], {})[r["about"]] = r["says"]
    return out


def remembered_mapping(db: Db, source: str, kind: str, columns_key: str) -> str | None:
    row = db.execute(
        "SELECT m.mapping FROM source_mappings m JOIN sources s USING (source_id) "
        "WHERE s.name = :source AND m.kind = :kind AND m.columns_key = :key",
        {"source": source, "kind": kind, "key": columns_key},
    ).fetchone()
    return row[0] if row else None


def newest_mapping(db: Db, source: str, kind: str) -> str | None:
    """The mapping with which the newest import of a source and kind came in, whatever its columns were."""
    row = db.execute(
        "SELECT i.columns FROM imports i JOIN sources s USING (source_id) "
        "WHERE s.name = :source AND i.kind = :kind AND i.undone_at IS NULL ORDER BY i.import_id DESC LIMIT 1",
        {"source": source, "kind": kind},
    ).fetchone()
    if row is None:
        return None
    return remembered_mapping(db, source, kind, made_key(*json.loads(row[0])))


def remember_mapping(db: sqlite3.Connection, source: int, kind: str, columns_key: str, mapping: str) -> None:
    db.execute(
        "INSERT INTO source_mappings (source_id, kind, columns_key, mapping) VALUES (:source, :kind, :key, :mapping) "
        "ON CONFLICT DO UPDATE SET mapping = excluded.mapping",
        {"source": source, "kind": kind, "key": columns_key, "mapping": mapping},
    )


def import_row(db: Db, import_id: int) -> dict[str, Any] | None:
    """An import's kind, source, file name, and when it was undone; None for no such import."""
    row = db.execute(
        "SELECT i.import_id, i.kind, s.name AS source, i.file_name, i.undone_at FROM imports i JOIN sources s USING (source_id) "
        "WHERE i.import_id = :id",
        {"id": import_id},
    ).fetchone()
    return dict(row) if row else None


def gone_since(db: sqlite3.Connection, import_id: int) -> set[str]:
    """Keys of the records that imports after this one let go."""
    rows = db.execute(
        "SELECT c.record_key FROM import_changes c JOIN imports i USING (import_id) "
        "WHERE c.import_id > :id AND i.undone_at IS NULL AND json_extract(c.before, '$.gone') IS NOT NULL",
        {"id": import_id},
    )
    return {str(r[0]) for r in rows}


def named_mappings(db: Db) -> list[dict[str, Any]]:
    """Mappings that have a name, by name: name, kind, mapping, saved_at."""
    rows = db.execute("SELECT name, kind, mapping, saved_at FROM named_mappings ORDER BY name")
    return [{**dict(r), "mapping": json.loads(r["mapping"])} for r in rows]


def save_mapping(db: WritableDb, name: str, kind: str, mapping: Mapping[str, Any], now: str) -> None:
    db.execute(
        "INSERT INTO named_mappings (name, kind, mapping, saved_at) VALUES (:name, :kind, :mapping, :now) "
        "ON CONFLICT DO UPDATE SET kind = excluded.kind, mapping = excluded.mapping, saved_at = excluded.saved_at",
        {"name": name, "kind": kind, "mapping": json.dumps(mapping, ensure_ascii=False), "now": now},
    )


def forget_mapping(db: WritableDb, name: str) -> bool:
    return db.execute("DELETE FROM named_mappings WHERE name = :name", {"name": name}).rowcount > 0


def cells_held(db: sqlite3.Connection, per_degree: int) -> set[tuple[int, int]]:
    """The cells, 1 ÷ `per_degree` degrees wide, in which there are listings or parcels whose places are believed."""
    rows = db.execute(
        """
        SELECT DISTINCT CAST((latitude + 90) * :n AS INTEGER) - 90 * :n, CAST((longitude + 180) * :n AS INTEGER) - 180 * :n
        FROM listings WHERE latitude IS NOT NULL AND longitude IS NOT NULL AND (suspect IS NULL OR suspect NOT LIKE '%itude%')
        UNION
        SELECT DISTINCT CAST((latitude + 90) * :n AS INTEGER) - 90 * :n, CAST((longitude + 180) * :n AS INTEGER) - 180 * :n
        FROM parcels WHERE latitude IS NOT NULL AND longitude IS NOT NULL AND (suspect IS NULL OR suspect NOT LIKE '%itude%')
        """,
        {"n": per_degree},
    )
    return {(int(lat), int(lon)) for lat, lon in rows}
