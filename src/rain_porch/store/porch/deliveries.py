"""What was delivered, in porch.db: never changed after, but for whether the message went out."""

from __future__ import annotations

from collections.abc import Mapping
from typing import Any

from ...core.errors import NotFound
from ..db import Db, WritableDb, atomic

BY_HAND, SENDING, SENT, WAITING = "by_hand", "sending", "sent", "waiting"
_SHOWN = (
    "delivery_id, nullif(workup_id, 0) AS workup_id, bulletin_id, through, papers_of, revision, title, client, email, subject, state, said, "
    "pages, list_price, made_at, sent_at, words"
)
_BULLETIN = {"bulletin_id": None, "through": None, "papers_of": None, "words": ""}


def add(db: WritableDb, owner: int, delivery: Mapping[str, Any], papers: Mapping[str, bytes]) -> int:
    """delivery: of a workup, or of a bulletin (workup_id None); papers_of: the delivery whose papers these are, where not its own."""
    row = {**_BULLETIN, "owner": owner, **delivery, "workup_id": delivery.get("workup_id") or 0}
    with atomic(db):
        cursor = db.execute(
            "INSERT INTO deliveries (owner, workup_id, bulletin_id, through, papers_of, words, revision, title, client, email, subject, "
            "state, pages, list_price, made_at) VALUES (:owner, :workup_id, :bulletin_id, :through, :papers_of, :words, :revision, "
            ":title, :client, :email, :subject, :state, :pages, :list_price, :made_at)",
            row,
        )
        number = int(cursor.lastrowid or 0)
        db.executemany(
            "INSERT INTO delivered_papers (delivery_id, form, data) VALUES (?, ?, ?)",
            [(number, form, data) for form, data in papers.items()],
        )
    return number


def add_paper(db: WritableDb, delivery_id: int, form: str, data: bytes) -> None:
    """One more paper of a delivery that was just added."""
    db.execute("INSERT INTO delivered_papers (delivery_id, form, data) VALUES (?, ?, ?)", (delivery_id, form, data))


def listed(db: Db, owner: int, workup_id: int | None = None) -> list[dict[str, Any]]:
    """Deliveries, newest first; of one workup where it is named."""
    rows = db.execute(
        f"SELECT {_SHOWN} FROM deliveries WHERE owner = :o AND (:w IS NULL OR workup_id = :w) "
        "ORDER BY made_at DESC, delivery_id DESC LIMIT 500",
        {"o": owner, "w": workup_id},
    )
    return [dict(r) for r in rows]


def editions(db: Db, owner: int, bulletin_id: int) -> list[dict[str, Any]]:
    """A bulletin as it was made each time, newest first, with how many messages went to readers."""
    rows = db.execute(
        f"SELECT {_SHOWN}, (SELECT count(*) FROM deliveries r WHERE r.papers_of = d.delivery_id AND r.email <> '') AS readers FROM deliveries d "
        "WHERE owner = :o AND bulletin_id = :b AND papers_of IS NULL ORDER BY made_at DESC, delivery_id DESC LIMIT 200",
        {"o": owner, "b": bulletin_id},
    )
    return [dict(r) for r in rows]


def read(db: Db, owner: int, delivery_id: int) -> dict[str, Any]:
    row = db.execute(
        f"SELECT {_SHOWN} FROM deliveries WHERE delivery_id = :id AND owner = :o", {"id": delivery_id, "o": owner}
    ).fetchone()
    if row is None:
        raise NotFound(f"There is no delivery {delivery_id}.", delivery_id=delivery_id)
    return dict(row)


def paper(db: Db, owner: int, delivery_id: int, form: str) -> bytes:
    """One of the delivered papers, just as it went out."""
    read(db, owner, delivery_id)
    made = paper_or_none(db, owner, delivery_id, form)
    if made is None:
        raise NotFound(f"Delivery {delivery_id} has no {form}.", delivery_id=delivery_id)
    return made


def paper_or_none(db: Db, owner: int, delivery_id: int, form: str) -> bytes | None:
    """A paper of a delivery, its own or that of the delivery whose papers it went out with."""
    row = db.execute(
        "SELECT data FROM delivered_papers p JOIN deliveries d ON p.delivery_id IN (d.delivery_id, d.papers_of) "
        "WHERE d.delivery_id = :id AND d.owner = :o AND form = :f ORDER BY p.delivery_id = d.delivery_id DESC",
        {"id": delivery_id, "o": owner, "f": form},
    ).fetchone()
    return None if row is None else bytes(row[0])


def erase(db: WritableDb, owner: int, name: str, email: str) -> int:
    """Everything that was delivered to a person or prepared for them, by name or address in small letters; how many deliveries went."""
    rows = db.execute(
        "SELECT delivery_id, d.client, email, json_extract(CAST(data AS TEXT), '$.client') AS prepared_for FROM deliveries d "
        "LEFT JOIN delivered_papers p USING (delivery_id) WHERE owner = :o AND (p.form = 'json' OR p.form IS NULL)",
        {"o": owner},
    ).fetchall()
    theirs = [
        r["delivery_id"]
        for r in rows
        if (name and r["client"].strip().casefold() == name)
        or (email and r["email"].strip().casefold() == email)
        or (name and str(r["prepared_for"] or "").strip().casefold() == name)
    ]
    for number in theirs:
        key = {"id": number}
        db.execute("DELETE FROM due_work WHERE kind = 'message' AND json_extract(details, '$.delivery_id') = :id", key)
        db.execute("DELETE FROM deliveries WHERE delivery_id = :id", key)
    return len(theirs)


def note(db: WritableDb, delivery_id: int, state: str, said: str, sent_at: str | None) -> None:
    """Whether the message went out, and what was said where it did not."""
    db.execute(
        "UPDATE deliveries SET state = :s, said = :t, sent_at = coalesce(:at, sent_at) WHERE delivery_id = :id",
        {"id": delivery_id, "s": state, "t": said, "at": sent_at},
    )


def let_wait(db: WritableDb) -> None:
    """What was being sent when the application stopped may have gone out: it waits for a person's word. What had not been
    begun goes out in its turn."""
    begun = "SELECT work_id, json_extract(details, '$.delivery_id') FROM due_work WHERE kind = 'message'"
    with atomic(db):
        for work, delivery in db.execute(f"{begun} AND running_since IS NOT NULL").fetchall():
            note(db, delivery, WAITING, "The application stopped while it was being sent: try again.", None)
            db.execute("DELETE FROM due_work WHERE work_id = :id", {"id": work})
        db.execute(
            "UPDATE deliveries SET state = :w, said = 'The application stopped before it was sent: try again.' "
            "WHERE state = :s AND delivery_id NOT IN "
            "(SELECT json_extract(details, '$.delivery_id') FROM due_work WHERE kind = 'message')",
            {"w": WAITING, "s": SENDING},
        )
