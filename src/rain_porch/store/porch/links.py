"""Links by which one delivered paper is read, until a day."""

from __future__ import annotations

from typing import Any

from ...core.errors import NotFound
from ..db import Db, WritableDb, atomic


def add(db: WritableDb, owner: int, delivery_id: int, digest: str, now: str, until: str) -> int:
    made = db.execute(
        "INSERT INTO reader_links (digest, owner, delivery_id, made_at, until) VALUES (:d, :o, :n, :now, :until)",
        {"d": digest, "o": owner, "n": delivery_id, "now": now, "until": until},
    )
    return int(made.lastrowid or 0)


def listed(db: Db, owner: int, delivery_id: int) -> list[dict[str, Any]]:
    rows = db.execute(
        "SELECT link_id, made_at, until, times_read, last_read_at FROM reader_links "
        "WHERE owner = :o AND delivery_id = :n ORDER BY link_id",
        {"o": owner, "n": delivery_id},
    )
    return [dict(r) for r in rows]


def withdraw(db: WritableDb, owner: int, link_id: int) -> None:
    gone = db.execute("DELETE FROM reader_links WHERE link_id = :l AND owner = :o", {"l": link_id, "o": owner})
    if not gone.rowcount:
        raise NotFound(f"There is no link {link_id}.", link_id=link_id)


def read_by(db: WritableDb, digest: str, form: str, now: str) -> bytes | None:
    """The paper of a link that has not run out, and one more reading of it; None for any other link."""
    with atomic(db):
        row = db.execute(
            "SELECT link_id, data FROM reader_links JOIN deliveries d USING (delivery_id) "
            "JOIN delivered_papers p ON p.delivery_id IN (d.delivery_id, d.papers_of) "
            "WHERE digest = :d AND until > :now AND form = :f",
            {"d": digest, "now": now, "f": form},
        ).fetchone()
        if row is None:
            return None
        db.execute(
            "UPDATE reader_links SET times_read = times_read + 1, last_read_at = :now WHERE link_id = :l",
            {"now": now, "l": row["link_id"]},
        )
        return bytes(row["data"])
