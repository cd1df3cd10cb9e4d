"""Listings pulled from a feed of JSON pages in the manner of the RESO Web API, and brought in like any file.

What is new since the last pull comes in; what the feed does not have any more goes, as an import of its own that can be taken
back; pictures that it names are fetched (feed_pictures.py).
"""

from __future__ import annotations

import datetime as dt
import json
import sqlite3
import time
from collections.abc import Callable
from pathlib import Path
from typing import Any

from ...core.errors import Refused
from ...core.facts.keys import made_key
from ...store.records.incoming import feeds
from .. import importing
from ..import_result import ImportResult
from . import feed_pictures
from .feed_asking import Asking, Get, GetData, NotKnown, key_of


def pull(
    db: sqlite3.Connection,
    address: str,
    token: str,
    *,
    folder: Path,
    now: dt.datetime,
    get: Get,
    get_data: GetData | None = None,
    source: str | None = None,
    progress: Callable[[int], None] | None = None,
    wait: Callable[[float], None] = time.sleep,
) -> ImportResult:
    """Fetch what is new since the last pull and bring it in, all at once; then let go what the feed has no more.

    Pages are kept as they come: a pull that breaks off goes on with the page that failed. get_data: fetches the pictures that
    the feed names; without it none are. Refused when the feed does not answer, does not let us in or sends no pages.
    """
    if not address.startswith(("http://", "https://")):
        raise Refused(f"“{address}” is no address of a feed: it starts with http:// or https://.")
    address = address.rstrip("/")
    source = source or f"Feed {address.split('//', 1)[1]}"[:120]
    asking = Asking(address, token, get, wait)
    state = feeds.state(db, address)
    spool = folder / f"feed-{made_key(address)}.jsonl"
    going_on = state.next_page if state.next_page and spool.exists() else None
    if not going_on:
        spool.unlink(missing_ok=True)
    try:
        _spool(db, asking, source, going_on or _first(address, state.read_to, get_data is not None), spool, progress)
    except NotKnown:
        if get_data is None or going_on or spool.exists():
            raise
        _spool(db, asking, source, _first(address, state.read_to, False), spool, progress)  # without its pictures
    file = folder / f"{spool.stem}.json"
    newest = _gather(spool, file, now)
    try:
        if newest is None:
            result = ImportResult(None, "listings")
        else:
            result = importing.import_file(db, file, folder=folder, now=now, kind="listings", source=source)
        feeds.note_pictures(db, address, _pictures(spool))
        feeds.finish(db, address, source, newest or state.read_to, now.isoformat(timespec="seconds"))
    finally:
        file.unlink(missing_ok=True)
    spool.unlink(missing_ok=True)
    if state.read_to:
        result.notes += _let_go(db, asking, source, now)
    if get_data is not None:
        came = feed_pictures.fetch_pictures(db, asking, get_data, folder=folder, source=source, now=now)
        result.notes += [came] if came else []
    return result


def _spool(
    db: sqlite3.Connection, asking: Asking, source: str, url: str, spool: Path, progress: Callable[[int], None] | None
) -> None:
    """Pages written down as they come, with the page to go on with."""
    rows = 0
    for page, following in asking.pages(url):
        with spool.open("a", encoding="utf-8") as out:
            for row in page:
                out.write(json.dumps(row, ensure_ascii=False) + "\n")
        rows += len(page)
        if progress:
            progress(rows)
        if following:
            feeds.keep_page(db, asking.address, source, following)


def _let_go(db: sqlite3.Connection, asking: Asking, source: str, now: dt.datetime) -> list[str]:
    """What the feed does not have any more goes; what is said of it. A feed that cannot tell what it has takes nothing away."""
    try:
        pages = asking.pages(f"{asking.address}/Property?$select=ListingId&$orderby=ListingId&$top=1000")
        standing = {key for page, _ in pages for row in page if (key := key_of(row))}
    except NotKnown:
        return []
    except Refused as error:
        return [f"What the feed has no more could not be asked: {error.message}"]
    if not standing:
        return []
    try:
        gone = importing.let_go(db, "listings", source, standing, now)
    except Refused as error:
        return [error.message]
    return [f"{gone:,} no longer at the source: {'it goes' if gone == 1 else 'they go'}"] if gone else []


def _first(address: str, read_to: str | None, pictures: bool) -> str:
    since = f"&$filter=ModificationTimestamp ge {read_to}" if read_to else ""
    media = "&$expand=Media" if pictures else ""
    return f"{address}/Property?$top=500&$orderby=ModificationTimestamp{since}{media}"


def _pictures(spool: Path) -> list[tuple[str, int, str]]:
    if not spool.exists():
        return []
    with spool.open(encoding="utf-8") as lines:
        return [named for line in lines for named in feed_pictures.named_in(json.loads(line))]


def _gather(spool: Path, out: Path, now: dt.datetime) -> str | None:
    """The kept rows as one JSON list, each listing as it was sent last; returns the newest change, "" where none is told, None
    for no rows. A change that is still to come is a slip: to go on from there would be to see nothing until then."""
    last = (now + dt.timedelta(days=1)).date().isoformat()
    newest: dict[str, dict[str, Any]] = {}
    with spool.open(encoding="utf-8") as lines:
        for n, line in enumerate(lines):
            row = json.loads(line)
            row.pop("Media", None)
            newest[key_of(row) or str(n)] = row
    if not newest:
        return None
    with out.open("w", encoding="utf-8") as file:
        json.dump(list(newest.values()), file, ensure_ascii=False)
    stamps = (str(r.get("ModificationTimestamp") or "") for r in newest.values())
    return max((s for s in stamps if s[:10] <= last), default="")
