"""Pictures that a feed names by address, fetched a bounded number at a pull and kept as photos that came in."""

from __future__ import annotations

import datetime as dt
import os
import re
import shutil
import sqlite3
import time
from collections.abc import Iterator, Mapping
from pathlib import Path
from typing import Any

from ...store.records.incoming import feeds
from ...store.records.incoming import imports as store
from ..pictures import photos
from ..pictures.picture_files import fault_of
from .feed_asking import Asking, GetData, key_of, lies_within

A_PULL, SECONDS, A_LISTING, TRIES = (
    300,
    60.0,
    40,
    3,
)  # at most: pictures a pull, time for them, a listing's, tries of one
_LONGEST = 2_000
_FILE_NAME = re.compile(r"[^/\x00-\x1f]{1,120}")  # a number by which a picture's file can be called


def named_in(row: Mapping[str, Any]) -> list[tuple[str, int, str]]:
    """(listing, place, address) of the pictures that a row of a feed names under Media, in their order."""
    listing, media = key_of(row), row.get("Media")
    if not _FILE_NAME.fullmatch(listing) or not isinstance(media, list):
        return []
    told = [m for m in media if isinstance(m, Mapping) and _address(m.get("MediaURL"))]
    told.sort(key=lambda m: m["Order"] if isinstance(m.get("Order"), int) else len(told))
    return [(listing, place, str(m["MediaURL"])) for place, m in enumerate(told[:A_LISTING], start=1)]


def _address(url: object) -> bool:
    return isinstance(url, str) and len(url) <= _LONGEST and url.startswith(("http://", "https://"))


def fetch_pictures(
    db: sqlite3.Connection, asking: Asking, get_data: GetData, *, folder: Path, source: str, now: dt.datetime
) -> str:
    """Fetch what is open and bring it in like any photos; what came of it in words, "" where nothing was to be fetched."""
    wanted = feeds.open_pictures(db, asking.address, A_PULL, TRIES)
    if not wanted:
        return ""
    into = folder / f"unpacked-{os.getpid()}-{time.monotonic_ns()}"  # cleared like any other that is left
    into.mkdir()
    try:
        looked = []
        for listing, place, data, held in _fetched(asking, get_data, wanted):
            looked.append((listing, place, held))
            if data:
                (into / f"{listing}_{place}.jpg").write_bytes(data)
        counted, take = photos.plan(db, into, folder)
        if counted["new"] + counted["changed"]:
            take({
                "source_id": store.source_id(db, source), "kind": "photos", "file_name": "pictures of the feed",
                "finished_at": now.isoformat(timespec="seconds"), "columns": [], **counted,
            })  # fmt: skip
        feeds.pictures_looked_at(db, asking.address, looked)  # once they are in: what is not is fetched again
    finally:
        shutil.rmtree(into, ignore_errors=True)
    left = feeds.waiting_pictures(db, asking.address, TRIES)
    came = counted["new"] + counted["changed"]
    return f"{came:,} pictures came" + (f"; {left:,} wait for the next pull" if left else "")


def _fetched(
    asking: Asking, get_data: GetData, wanted: list[tuple[str, int, str]]
) -> Iterator[tuple[str, int, bytes, bool]]:
    """(listing, place, the picture, whether it need not be fetched again): b"" for what is no picture."""
    until = time.monotonic() + SECONDS
    for listing, place, url in wanted:
        if time.monotonic() > until:
            return
        try:
            # the token goes to nobody but the feed
            status, data = get_data(url, asking.headers if lies_within(url, asking.address) else {})
        except OSError:
            status, data = 0, b""
        good = (
            status == 200
            and len(data) <= photos.MAX_BYTES
            and photos.kind_of(data[:12]) is not None
            and fault_of(data) is None
        )
        yield listing, place, data if good else b"", good or status in (404, 410)
