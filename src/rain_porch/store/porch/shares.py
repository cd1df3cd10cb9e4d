"""Workups shown to colleagues, whose a workup is, and whose a file is."""

from __future__ import annotations

from dataclasses import dataclass
from typing import Any

from ...core.errors import NotFound
from ..db import Db, WritableDb, atomic


@dataclass(frozen=True)
class Share:
    """owner: whose workup it is. may_edit: what it is shared with this account for; none where it is not shared with it."""

    owner: int
    may_edit: bool | None


def of_workup_for(db: Db, workup_id: int, account_id: int) -> Share | None:
    """None for a workup that is not there."""
    row = db.execute(
        "SELECT owner, (SELECT may_edit FROM shares s WHERE s.workup_id = w.workup_id AND s.account_id = :a) AS may_edit "
        "FROM workups w WHERE workup_id = :w",
        {"a": account_id, "w": workup_id},
    ).fetchone()
    if row is None:
        return None
    return Share(row["owner"], None if row["may_edit"] is None else bool(row["may_edit"]))


def owner_of_delivery(db: Db, delivery_id: int) -> int | None:
    row = db.execute("SELECT owner FROM deliveries WHERE delivery_id = :d", {"d": delivery_id}).fetchone()
    return row[0] if row else None


def listed(db: Db, owner: int, workup_id: int) -> list[dict[str, Any]]:
    """With whom a workup of this owner is shared."""
    rows = db.execute(
        "SELECT s.account_id, a.name, s.may_edit FROM shares s JOIN accounts a USING (account_id) "
        "JOIN workups w USING (workup_id) WHERE s.workup_id = :w AND w.owner = :o ORDER BY a.name",
        {"w": workup_id, "o": owner},
    )
    return [{**dict(r), "may_edit": bool(r["may_edit"])} for r in rows]


def share(db: WritableDb, owner: int, workup_id: int, account_id: int, may_edit: bool | None) -> None:
    """Show a workup to a colleague, to read or to edit; None takes that back."""
    with atomic(db):
        _own(db, owner, workup_id)
        key = {"w": workup_id, "a": account_id}
        if may_edit is None:
            db.execute("DELETE FROM shares WHERE workup_id = :w AND account_id = :a", key)
            return
        db.execute(
            "INSERT INTO shares VALUES (:w, :a, :e) ON CONFLICT (workup_id, account_id) DO UPDATE SET may_edit = :e",
            {**key, "e": int(may_edit)},
        )


def hand_over(db: WritableDb, owner: int, workup_id: int, to: int) -> None:
    """Give a workup to a colleague, with its history and what was delivered of it; its pictures are the new owner's too."""
    with atomic(db):
        _own(db, owner, workup_id)
        key = {"w": workup_id, "to": to}
        db.execute("UPDATE workups SET owner = :to WHERE workup_id = :w", key)
        db.execute("UPDATE workup_revisions SET owner = :to WHERE workup_id = :w", key)
        db.execute(
            "UPDATE due_work SET owner = :to WHERE kind = 'message' AND json_extract(details, '$.delivery_id') IN "
            "(SELECT delivery_id FROM deliveries WHERE workup_id = :w)",
            key,
        )
        db.execute(
            "UPDATE reader_links SET owner = :to WHERE delivery_id IN "
            "(SELECT delivery_id FROM deliveries WHERE workup_id = :w)",
            key,
        )
        db.execute("UPDATE deliveries SET owner = :to WHERE workup_id = :w", key)
        db.execute("DELETE FROM shares WHERE workup_id = :w AND account_id = :to", key)
        db.execute(
            "INSERT OR IGNORE INTO own_files SELECT :to, json_extract(p.value, '$.file') "
            "FROM workups w, json_each(CASE WHEN json_valid(w.document) THEN w.document ELSE '{}' END, '$.photos') p "
            "WHERE w.workup_id = :w",
            key,
        )


def _own(db: Db, owner: int, workup_id: int) -> None:
    if not db.execute(
        "SELECT 1 FROM workups WHERE workup_id = :w AND owner = :o", {"w": workup_id, "o": owner}
    ).fetchone():
        raise NotFound(f"There is no workup {workup_id}.", workup_id=workup_id)


def note_file(db: WritableDb, owner: int, name: str) -> None:
    db.execute("INSERT OR IGNORE INTO own_files VALUES (:o, :n)", {"o": owner, "n": name})


def forget_file(db: WritableDb, owner: int, name: str) -> None:
    db.execute("DELETE FROM own_files WHERE owner = :o AND name = :n", {"o": owner, "n": name})


def has_file(db: Db, owner: int, name: str, first: int) -> bool:
    """Whether a file of the photos folder is this owner's. Of those from before there were accounts nobody is noted: they are
    the first one's, who keeps the folder and may read all of it."""
    noted = db.execute("SELECT 1 FROM own_files WHERE name = :n AND owner = :o", {"n": name, "o": owner}).fetchone()
    return owner == first or noted is not None
