"""Work that waits for its time, in porch.db. Times are ISO texts of one clock, so that they compare as texts."""

from __future__ import annotations

from typing import Any

from ...core.errors import NotFound
from ..db import Db, WritableDb, atomic

_ALL = (
    "SELECT work_id, owner, kind, details, every_minutes, due_at, stopped, running_since, failures, last_at, last_said, "
    "coalesce(usual_at, due_at) AS usual_at "
    "FROM due_work "
)


def add(db: WritableDb, owner: int, kind: str, details: str, every_minutes: int | None, due_at: str) -> int:
    made = db.execute(
        "INSERT INTO due_work (owner, kind, details, every_minutes, due_at, usual_at) VALUES (:o, :k, :d, :e, :at, :at)",
        {"o": owner, "k": kind, "d": details, "e": every_minutes, "at": due_at},
    )
    return int(made.lastrowid or 0)


def add_once(db: WritableDb, owner: int, kind: str, details: str, due_at: str) -> int:
    """Work of which one is enough: what waits already is brought forward."""
    with atomic(db):
        same = db.execute(
            "SELECT work_id FROM due_work WHERE owner = :o AND kind = :k AND details = :d",
            {"o": owner, "k": kind, "d": details},
        ).fetchone()
        if same is None:
            return add(db, owner, kind, details, None, due_at)
        bring_forward(db, owner, same[0], due_at)
        return int(same[0])


def listed(db: Db, owner: int) -> list[dict[str, Any]]:
    return [dict(r) for r in db.execute(f"{_ALL} WHERE owner = :o ORDER BY work_id", {"o": owner})]


def read(db: Db, owner: int, work_id: int) -> dict[str, Any]:
    row = db.execute(f"{_ALL} WHERE work_id = :id AND owner = :o", {"id": work_id, "o": owner}).fetchone()
    if row is None:
        raise NotFound(f"There is no work {work_id} that waits.", work_id=work_id)
    return dict(row)


def take_next(db: WritableDb, now: str) -> dict[str, Any] | None:
    """The work that has been due for longest, noted as running; None where nothing is due."""
    with atomic(db):
        row = db.execute(
            f"{_ALL} WHERE stopped = 0 AND running_since IS NULL AND due_at <= :now ORDER BY due_at LIMIT 1",
            {"now": now},
        ).fetchone()
        if row is None:
            return None
        db.execute("UPDATE due_work SET running_since = :now WHERE work_id = :id", {"now": now, "id": row["work_id"]})
        return dict(row)


def finish(db: WritableDb, work_id: int, now: str, said: str, failures: int, due_at: str | None) -> None:
    """What came of it, and when it is due again; work that is due no more goes."""
    if due_at is None:
        db.execute("DELETE FROM due_work WHERE work_id = :id", {"id": work_id})
        return
    db.execute(
        "UPDATE due_work SET running_since = NULL, last_at = :now, last_said = :said, failures = :n, due_at = :due "
        "WHERE work_id = :id",
        {"now": now, "said": said, "n": failures, "due": due_at, "id": work_id},
    )


def stop(db: WritableDb, owner: int, work_id: int, stopped: bool) -> None:
    read(db, owner, work_id)
    db.execute("UPDATE due_work SET stopped = :s WHERE work_id = :id", {"s": int(stopped), "id": work_id})


def bring_forward(db: WritableDb, owner: int, work_id: int, now: str) -> None:
    read(db, owner, work_id)
    db.execute(
        "UPDATE due_work SET usual_at = coalesce(usual_at, due_at), due_at = :now, stopped = 0 WHERE work_id = :id",
        {"now": now, "id": work_id},
    )


def set_time(db: WritableDb, owner: int, work_id: int, due_at: str) -> None:
    """When it is due next, from which its rhythm goes on."""
    read(db, owner, work_id)
    db.execute("UPDATE due_work SET due_at = :at, usual_at = :at WHERE work_id = :id", {"at": due_at, "id": work_id})


def forget(db: WritableDb, owner: int, work_id: int) -> None:
    read(db, owner, work_id)
    db.execute("DELETE FROM due_work WHERE work_id = :id", {"id": work_id})


def let_wait(db: WritableDb) -> None:
    """When the service starts nothing is running: what was broken off waits for its turn again."""
    db.execute("UPDATE due_work SET running_since = NULL")
