"""The order of the words of fields of the office's own, from least to most, where they have one."""

from __future__ import annotations

import json
from collections.abc import Sequence

from ..db import Db, WritableDb


def word_orders(db: Db) -> dict[str, list[str]]:
    """Field → its words, from least to most."""
    return {r[0]: json.loads(r[1]) for r in db.execute("SELECT field, words FROM word_orders")}


def set_order(db: WritableDb, field: str, words: Sequence[str]) -> None:
    """Keep the order of a field's words; none takes it away."""
    if not words:
        db.execute("DELETE FROM word_orders WHERE field = :field", {"field": field})
        return
    db.execute(
        "INSERT INTO word_orders (field, words) VALUES (:field, :words) ON CONFLICT DO UPDATE SET words = excluded.words",
        {"field": field, "words": json.dumps(list(words), ensure_ascii=False)},
    )
