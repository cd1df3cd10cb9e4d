"""Backtests as they were made, and their cases, each sale as it was priced last."""

from __future__ import annotations

import json
from collections.abc import Iterable, Mapping
from typing import Any

from ..db import Db, WritableDb, atomic


def save(db: WritableDb, made_at: str, document: Mapping[str, Any], cases: Iterable[tuple[Any, ...]]) -> int:
    """Keep a backtest. cases: (listing_id, home_kind, latitude, longitude, day, close_day, actual, value, width)."""
    with atomic(db):
        number = int(
            db.execute(
                "INSERT INTO backtests (made_at, document) VALUES (:at, :document)",
                {"at": made_at, "document": json.dumps(document)},
            ).lastrowid
            or 0
        )
        db.executemany(
            f"INSERT INTO backtest_cases VALUES (?, {number}, ?, ?, ?, ?, ?, ?, ?, ?) ON CONFLICT DO UPDATE SET "
            "backtest_id = excluded.backtest_id, day = excluded.day, close_day = excluded.close_day, "
            "actual = excluded.actual, value = excluded.value, width = excluded.width",
            cases,
        )
    return number


def cases_of(db: Db, home_kind: str) -> list[tuple[float, float, float, int, float, float]]:
    """(actual, value, width, close_day, latitude, longitude) of all cases of a kind, the latest first."""
    rows = db.execute(
        "SELECT actual, value, width, close_day, latitude, longitude FROM backtest_cases WHERE home_kind = :kind "
        "ORDER BY close_day DESC, listing_id",
        {"kind": home_kind},
    )
    return [tuple(r) for r in rows]


def newest(db: Db) -> int:
    """The number of the newest backtest, 0 before the first."""
    return int(db.execute("SELECT coalesce(max(backtest_id), 0) FROM backtests").fetchone()[0])


def last(db: Db) -> dict[str, Any] | None:
    """The newest backtest's document, with when it was made."""
    row = db.execute("SELECT made_at, document FROM backtests ORDER BY backtest_id DESC LIMIT 1").fetchone()
    return {**json.loads(row["document"]), "made_at": row["made_at"]} if row else None
