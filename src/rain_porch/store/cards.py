"""The agent's own settings that go on paper: name, licence, contact."""

from __future__ import annotations

import json
import sqlite3

from .db import atomic

NAME = "agent_card"


def read_card(db: sqlite3.Connection, owner: int) -> dict[str, str]:
    row = db.execute("SELECT value FROM settings WHERE owner = :o AND name = :n", {"o": owner, "n": NAME}).fetchone()
    held: dict[str, str] = json.loads(row[0]) if row else {}
    return held


def write_card(db: sqlite3.Connection, owner: int, card: dict[str, str]) -> None:
    with atomic(db):
        db.execute(
            "INSERT INTO settings VALUES (:o, :n, :v) ON CONFLICT DO UPDATE SET value = excluded.value",
            {"o": owner, "n": NAME, "v": json.dumps(card)},
        )
