"""Where each feed was last read to, and the pictures that it names."""

from __future__ import annotations

from collections.abc import Iterable
from dataclasses import dataclass
from typing import Any

from ...db import Db, WritableDb
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


def note_pictures(db: WritableDb, address: str, named: Iterable[tuple[str, int, str]]) -> None:
    """named: (listing, place, address of the picture); one that was fetched already is fetched again where its address changed."""
    db.executemany(
        "INSERT INTO feed_pictures (address, listing_id, place, url) VALUES (?, ?, ?, ?) "
        "ON CONFLICT DO UPDATE SET url = excluded.url, held = 0, tries = 0 WHERE url <> excluded.url",
        [(address, *one) for one in named],
    )


def open_pictures(db: Db, address: str, most: int, tries: int) -> list[tuple[str, int, str]]:
    """Pictures that are still to be fetched, first pictures of all listings first: (listing, place, address)."""
    rows = db.execute(
        "SELECT listing_id, place, url FROM feed_pictures WHERE address = :a AND NOT held AND tries < :tries "
        "ORDER BY place, tries, listing_id LIMIT :most",
        {"a": address, "tries": tries, "most": most},
    )
    return [(r[0], r[1], r[2]) for r in rows]


def waiting_pictures(db: Db, address: str, tries: int) -> int:
    query = "SELECT count(*) FROM feed_pictures WHERE address = :a AND NOT held AND tries < :tries"
    return int(db.execute(query, {"a": address, "tries": tries}).fetchone()[0])


def pictures_looked_at(db: WritableDb, address: str, looked: Iterable[tuple[str, int, bool]]) -> None:
    """looked: (listing, place, whether it is held, or is not to be had)."""
    db.executemany(
        "UPDATE feed_pictures SET held = :held, tries = tries + 1 WHERE address = :a AND listing_id = :l AND place = :p",
        [{"held": held, "a": address, "l": listing, "p": place} for listing, place, held in looked],
    )
