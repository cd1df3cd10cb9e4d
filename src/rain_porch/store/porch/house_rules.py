"""What was chosen of the house's rules: the office's values, each agent's own, and every change with who made it and when."""

from __future__ import annotations

from typing import Any

from ..db import Db, WritableDb, atomic

_NEWEST = (
    "SELECT name, value FROM rule_changes WHERE change_id IN "
    "(SELECT max(change_id) FROM rule_changes WHERE owner IS :o GROUP BY name) AND value IS NOT NULL"
)


def chosen(db: Db, owner: int | None) -> dict[str, float]:
    """The values that stand, by the rule's name. owner None: the office's."""
    return {r[0]: float(r[1]) for r in db.execute(_NEWEST, {"o": owner})}


def choose(db: WritableDb, owner: int | None, name: str, value: float | None, by_account: int, made_at: str) -> None:
    """Let a value stand for a rule; None: none of one's own, for the office the usual one."""
    with atomic(db):
        db.execute(
            "INSERT INTO rule_changes (owner, name, value, by_account, made_at) VALUES (:o, :n, :v, :by, :at)",
            {"o": owner, "n": name, "v": value, "by": by_account, "at": made_at},
        )


def changes(db: Db, owner: int, most: int) -> list[dict[str, Any]]:
    """The office's changes and the owner's own, newest first: {name, value, before, own, who, made_at}."""
    rows = db.execute(
        "SELECT r.name, r.value, r.owner IS NOT NULL AS own, a.name AS who, r.made_at, "
        "(SELECT b.value FROM rule_changes b WHERE b.name = r.name AND b.owner IS r.owner AND b.change_id < r.change_id "
        "ORDER BY b.change_id DESC LIMIT 1) AS before "
        "FROM rule_changes r LEFT JOIN accounts a ON a.account_id = r.by_account "
        "WHERE r.owner IS NULL OR r.owner = :o ORDER BY r.change_id DESC LIMIT :most",
        {"o": owner, "most": most},
    )
    return [dict(r) for r in rows]
