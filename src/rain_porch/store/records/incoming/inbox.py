"""Files of the folder that is watched, as they stood when they were last looked at."""

from __future__ import annotations

from typing import Any

from ...db import Db, WritableDb


def stamp_of(db: Db, source: str, name: str) -> str | None:
    row = db.execute(
        "SELECT stamp FROM inbox_files WHERE source = :s AND name = :n", {"s": source, "n": name}
    ).fetchone()
    return str(row[0]) if row else None


def looked(db: WritableDb, source: str, name: str, stamp: str, at: str, outcome: str, held: bool) -> None:
    db.execute(
        "INSERT INTO inbox_files VALUES (:s, :n, :stamp, :at, :outcome, :held) ON CONFLICT (source, name) DO UPDATE SET "
        "stamp = excluded.stamp, looked_at = excluded.looked_at, outcome = excluded.outcome, held = excluded.held",
        {"s": source, "n": name, "stamp": stamp, "at": at, "outcome": outcome, "held": int(held)},
    )


def files(db: Db, limit: int = 60) -> list[dict[str, Any]]:
    """Newest first; those that wait for a person before all."""
    rows = db.execute(
        "SELECT source, name, looked_at, outcome, held FROM inbox_files ORDER BY held DESC, looked_at DESC, name LIMIT :n",
        {"n": limit},
    )
    return [{**dict(r), "held": bool(r["held"])} for r in rows]
