"""Saved market views in porch.db."""

from __future__ import annotations

from typing import Any

from ...core.errors import NotFound
from ..db import Db, WritableDb, atomic


def listed(db: Db, owner: int) -> list[dict[str, Any]]:
    rows = db.execute(
        "SELECT view_id, name, document, pinned FROM views WHERE owner = :o ORDER BY name", {"o": owner}
    ).fetchall()
    return [dict(r) for r in rows]


def read(db: Db, owner: int, view_id: int) -> tuple[str, str]:
    """(name, document). Raises NotFound."""
    row = db.execute("SELECT name, document FROM views WHERE view_id = :id AND owner = :o", {"id": view_id, "o": owner})
    found = row.fetchone()
    if found is None:
        raise NotFound(f"There is no saved view {view_id}.", view_id=view_id)
    return str(found[0]), str(found[1])


def keep(db: WritableDb, owner: int, name: str, document: str, pinned: bool) -> int:
    """Save a view under its name; one of the same name is replaced."""
    with atomic(db):
        db.execute(
            "INSERT INTO views (owner, name, document, pinned) VALUES (:o, :n, :d, :p) "
            "ON CONFLICT (owner, name) DO UPDATE SET document = excluded.document, pinned = excluded.pinned",
            {"o": owner, "n": name, "d": document, "p": int(pinned)},
        )
        row = db.execute("SELECT view_id FROM views WHERE owner = :o AND name = :n", {"o": owner, "n": name}).fetchone()
    return int(row[0])


def change(db: WritableDb, owner: int, view_id: int, name: str, document: str, pinned: bool) -> None:
    """Give a saved view a name, a content and a place on the desk. NotFound."""
    with atomic(db):
        done = db.execute(
            "UPDATE views SET name = :n, document = :d, pinned = :p WHERE view_id = :id AND owner = :o",
            {"n": name, "d": document, "p": int(pinned), "id": view_id, "o": owner},
        )
    if not done.rowcount:
        raise NotFound(f"There is no saved view {view_id}.", view_id=view_id)


def delete(db: WritableDb, owner: int, view_id: int) -> None:
    if not db.execute("DELETE FROM views WHERE view_id = :id AND owner = :o", {"id": view_id, "o": owner}).rowcount:
        raise NotFound(f"There is no saved view {view_id}.", view_id=view_id)
