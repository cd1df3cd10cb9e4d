"""Who did what, when."""

from __future__ import annotations

from typing import Any

from ..db import Db, WritableDb, atomic

MOST = 100_000  # rows; the oldest go


def note(db: WritableDb, account_id: int, what: str, of_what: str, now: str, same_since: str) -> None:
    """The same of the same account since `same_since` is counted on in one row."""
    with atomic(db):
        again = db.execute(
            "UPDATE acts SET last_at = :now, times = times + 1 WHERE act_id = (SELECT act_id FROM acts "
            "WHERE account_id = :a AND what = :w AND of_what = :o AND last_at >= :since ORDER BY act_id DESC LIMIT 1)",
            {"now": now, "a": account_id, "w": what, "o": of_what, "since": same_since},
        )
        if again.rowcount:
            return
        made = db.execute(
            "INSERT INTO acts (account_id, what, of_what, first_at, last_at, times) VALUES (:a, :w, :o, :now, :now, 1)",
            {"a": account_id, "w": what, "o": of_what, "now": now},
        )
        db.execute("DELETE FROM acts WHERE act_id <= :last", {"last": int(made.lastrowid or 0) - MOST})


def listed(db: Db, account_id: int | None, most: int = 500) -> list[dict[str, Any]]:
    """Newest first; of one account where it is named."""
    rows = db.execute(
        "SELECT act_id, account_id, name, what, of_what, first_at, last_at, times, coalesce(title, '') AS title FROM acts "
        "JOIN accounts USING (account_id) LEFT JOIN workups ON of_what = 'workup ' || workup_id "
        "WHERE :a IS NULL OR account_id = :a ORDER BY last_at DESC, act_id DESC LIMIT :most",
        {"a": account_id, "most": most},
    )
    return [dict(r) for r in rows]
