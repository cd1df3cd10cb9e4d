"""Where each feed was last read to."""

from __future__ import annotations

from dataclasses import dataclass
from typing import Any

from ..db import Db, WritableDb
from .imports import source_id


@dataclass(frozen=True)
class FeedState:
    """read_to: the newest change that came; next_page: where a pull broke off."""

    read_to: str | None = None
    next_page: str | None = None


def state(db: Db, address: str) -> FeedState:
    row = db.execute("SELECT read_to, next_page FROM feeds WHERE address = :a", {"a": address}).fetchone()
    return FeedState(row["read_to"], row["next_page"]) if row else FeedState()


def keep_page(db: WritableDb, address: str, source: str, page: str) -> None:
    """Remember the page to go on with."""
    db.execute(
        "INSERT INTO feeds (address, source_id, next_page) VALUES (:a, :s, :p) "
        "ON CONFLICT (address) DO UPDATE SET next_page = excluded.next_page",
        {"a": address, "s": source_id(db, source), "p": page},
    )


def finish(db: WritableDb, address: str, source: str, read_to: str | None, now: str) -> None:
    """A pull is through: the next one starts after `read_to`."""
    db.execute(
        "INSERT INTO feeds (address, source_id, read_to, last_pulled_at) VALUES (:a, :s, :r, :now) "
        "ON CONFLICT (address) DO UPDATE SET read_to = excluded.read_to, next_page = NULL, last_pulled_at = :now",
        {"a": address, "s": source_id(db, source), "r": read_to, "now": now},
    )


def all_feeds(db: Db) -> list[dict[str, Any]]:
    rows = db.execute(
        "SELECT f.address, s.name AS source, f.read_to, f.last_pulled_at, f.next_page IS NOT NULL AS broken_off "
        "FROM feeds f JOIN sources s USING (source_id) ORDER BY f.address"
    )
    return [dict(r) for r in rows]
