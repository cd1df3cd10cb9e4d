"""Outside series by the name of their source: dates and values."""

from __future__ import annotations

from ..db import Db


def names(db: Db) -> list[str]:
    rows = db.execute("SELECT DISTINCT s.name FROM series x JOIN sources s USING (source_id) ORDER BY 1")
    return [r[0] for r in rows]


def values(db: Db, name: str) -> list[tuple[str, float]]:
    """(date, value) of one series in the order of dates."""
    rows = db.execute(
        "SELECT x.date, x.value FROM series x JOIN sources s USING (source_id) "
        "WHERE s.name = :n AND x.date IS NOT NULL AND x.value IS NOT NULL ORDER BY x.date",
        {"n": name},
    )
    return [(r[0], float(r[1])) for r in rows]
