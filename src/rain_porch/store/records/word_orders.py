"""The order of the words of fields of the office's own, from least to most, where they have one."""

from __future__ import annotations

import json
from collections.abc import Sequence

from ..db import Db, WritableDb, atomic
from .incoming.changed import new_state


def word_orders(db: Db) -> dict[str, list[str]]:
    """Field → its words, from least to most, as the office has said; none of a field of which it has said that they have no order."""
    return {r[0]: json.loads(r[1]) for r in db.execute("SELECT field, words FROM word_orders")}


def set_order(db: WritableDb, field: str, words: Sequence[str]) -> None:
    """Keep the order of a field's words, none where they have none; the records count as changed, since prices hang on it."""
    with atomic(db):
        db.execute(
            "INSERT INTO word_orders (field, words) VALUES (:field, :words) ON CONFLICT DO UPDATE SET words = excluded.words",
            {"field": field, "words": json.dumps(list(words), ensure_ascii=False)},
        )
        new_state(db)
