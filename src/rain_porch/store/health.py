"""How complete the records are, and what in them is not believed. Column names come from the catalogue alone."""

from __future__ import annotations

import json
from collections.abc import Sequence
from typing import Any

from .db import Db

KINDS = ("listings", "parcels", "transfers", "events", "assessments", "areas")


def counts(db: Db) -> dict[str, int]:
    """How many records of each kind there are."""
    return {kind: int(db.execute(f"SELECT count(*) FROM {kind}").fetchone()[0]) for kind in KINDS}


def known_by(db: Db, group: str, fields: Sequence[str], limit: int = 40) -> list[dict[str, Any]]:
    """Of the listings of each source ("source") or neighbourhood ("place"): how many, and how many know each field."""
    counts = ", ".join(f"count({name}) AS {name}" for name in fields)
    by, join = {
        "source": ("s.name", "JOIN sources s USING (source_id)"),
        "place": ("coalesce(l.subdivision_name, l.city, 'no neighbourhood given')", ""),
    }[group]
    rows = db.execute(
        f"SELECT {by} AS name_, count(*) AS rows_, {counts} FROM listings l {join} GROUP BY 1 ORDER BY 2 DESC LIMIT :n",
        {"n": limit},
    )
    return [{"name": r["name_"], "rows": r["rows_"], "known": {f: r[f] for f in fields}} for r in rows.fetchall()]


def sources(db: Db) -> list[dict[str, Any]]:
    """Each source that has records or imports: kinds, last import, records now, its newest event."""
    out: list[dict[str, Any]] = []
    for r in db.execute(
        "SELECT s.source_id, s.name, group_concat(DISTINCT i.kind) AS kinds, count(i.import_id) AS imports, "
        "max(i.finished_at) AS last_import FROM sources s LEFT JOIN imports i ON i.source_id = s.source_id "
        "AND i.undone_at IS NULL GROUP BY s.source_id ORDER BY s.name"
    ).fetchall():
        newest = db.execute(
            "SELECT count(*), max(max(coalesce(close_date, ''), coalesce(off_market_date, ''), "
            "coalesce(purchase_contract_date, ''), coalesce(on_market_date, ''))) FROM listings "
            "WHERE source_id = :id AND suspect IS NULL",
            {"id": r["source_id"]},
        ).fetchone()
        out.append({**dict(r), "listings": newest[0], "through": newest[1] or None})
    return out


def suspects(db: Db, table: str, key: str, shown: str, limit: int = 300) -> list[dict[str, Any]]:
    """Records with values that are not believed: key, what to show of it, and {field: value}."""
    out = []
    for r in db.execute(
        f"SELECT * FROM {table} WHERE suspect IS NOT NULL ORDER BY row_id LIMIT :n", {"n": limit}
    ).fetchall():
        names = json.loads(r["suspect"])
        out.append({"key": r[key], "shown": r[shown] or r[key], "values": {name: r[name] for name in names}})
    return out
