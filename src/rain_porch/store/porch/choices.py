"""What an agent has set once for all their work: the name on paper, the columns of tables. One JSON value a name."""

from __future__ import annotations

import json
from typing import Any

from ..db import Db, WritableDb, atomic

AGENT_CARD, COLUMNS, LAND_COLUMNS, OWN_PAGES = "agent_card", "columns", "land_columns", "own_pages"


def read(db: Db, owner: int, name: str) -> Any:
    """The value kept under a name; None where there is none."""
    row = db.execute("SELECT value FROM settings WHERE owner = :o AND name = :n", {"o": owner, "n": name}).fetchone()
    return json.loads(row[0]) if row else None


def write(db: WritableDb, owner: int, name: str, value: Any) -> None:
    with atomic(db):
        db.execute(
            "INSERT INTO settings VALUES (:o, :n, :v) ON CONFLICT DO UPDATE SET value = excluded.value",
            {"o": owner, "n": name, "v": json.dumps(value)},
        )
