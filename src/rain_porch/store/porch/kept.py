"""Documents kept by name in porch.db: bulletins, layouts of reports, outlines on the map."""

from __future__ import annotations

import sqlite3
from dataclasses import dataclass

from ...core.errors import BadInput, NotFound
from ..db import Db, WritableDb, atomic

BULLETIN, LAYOUT, OUTLINE = "bulletin", "layout", "outline"


@dataclass(frozen=True)
class Kept:
    kept_id: int
    name: str
    document: str


def listed(db: Db, owner: int, kind: str) -> list[Kept]:
    rows = db.execute(
        "SELECT kept_id, name, document FROM kept WHERE owner = :o AND kind = :k ORDER BY name", {"o": owner, "k": kind}
    )
    return [Kept(*r) for r in rows]


def read(db: Db, owner: int, kind: str, kept_id: int) -> Kept:
    """Raises NotFound for one that is not there or not this owner's."""
    row = db.execute(
        "SELECT kept_id, name, document FROM kept WHERE kept_id = :id AND owner = :o AND kind = :k",
        {"id": kept_id, "o": owner, "k": kind},
    ).fetchone()
    if row is None:
        raise NotFound(f"There is no {kind} {kept_id}.", kept_id=kept_id)
    return Kept(*row)


def add(db: WritableDb, owner: int, kind: str, name: str, document: str) -> int:
    """Keep a new one; raises BadInput where the name is taken."""
    try:
        cursor = db.execute(
            "INSERT INTO kept (owner, kind, name, document) VALUES (:o, :k, :n, :d)",
            {"o": owner, "k": kind, "n": name, "d": document},
        )
    except sqlite3.IntegrityError:
        raise BadInput("name", f"There is a {kind} “{name}” already: choose another name.") from None
    return int(cursor.lastrowid or 0)


def write(db: WritableDb, owner: int, kind: str, kept_id: int, name: str, document: str) -> None:
    """Change one; raises NotFound, or BadInput where another has the name."""
    with atomic(db):
        read(db, owner, kind, kept_id)
        try:
            db.execute(
                "UPDATE kept SET name = :n, document = :d WHERE kept_id = :id",
                {"id": kept_id, "n": name, "d": document},
            )
        except sqlite3.IntegrityError:
            raise BadInput("name", f"There is a {kind} “{name}” already: choose another name.") from None


def delete(db: WritableDb, owner: int, kind: str, kept_id: int) -> None:
    read(db, owner, kind, kept_id)
    db.execute("DELETE FROM kept WHERE kept_id = :id", {"id": kept_id})
