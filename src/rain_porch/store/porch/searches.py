"""Saved searches in porch.db."""

from __future__ import annotations

from ...core.errors import NotFound
from ..db import Db, WritableDb, atomic


def listed(db: Db, owner: int) -> list[tuple[int, str, str]]:
    """(number, name, document) by name."""
    rows = db.execute("SELECT search_id, name, document FROM searches WHERE owner = :o ORDER BY name", {"o": owner})
    return [(r[0], r[1], r[2]) for r in rows]


def keep(db: WritableDb, owner: int, name: str, document: str) -> int:
    """Save a search under its name; one of the same name is replaced."""
    with atomic(db):
        db.execute(
            "INSERT INTO searches (owner, name, document) VALUES (:o, :n, :d) "
            "ON CONFLICT (owner, name) DO UPDATE SET document = excluded.document",
            {"o": owner, "n": name, "d": document},
        )
        row = db.execute("SELECT search_id FROM searches WHERE owner = :o AND name = :n", {"o": owner, "n": name})
        return int(row.fetchone()[0])


def read(db: Db, owner: int, search_id: int) -> tuple[str, str]:
    """(name, document). Raises NotFound."""
    row = db.execute(
        "SELECT name, document FROM searches WHERE search_id = :id AND owner = :o", {"id": search_id, "o": owner}
    )
    found = row.fetchone()
    if found is None:
        raise NotFound(f"There is no saved search {search_id}.", search_id=search_id)
    return str(found[0]), str(found[1])


def delete(db: WritableDb, owner: int, search_id: int) -> None:
    read(db, owner, search_id)
    db.execute("DELETE FROM searches WHERE search_id = :id AND owner = :o", {"id": search_id, "o": owner})
