"""Listings pulled from a feed of JSON pages in the manner of the RESO Web API, and brought in like any file."""

from __future__ import annotations

import datetime as dt
import json
import sqlite3
import time
from collections.abc import Callable, Mapping
from pathlib import Path
from typing import Any, Protocol
from urllib.parse import urlsplit

from ..core.errors import Refused
from ..core.facts.keys import made_key
from ..store.records import feeds
from .import_result import ImportResult
from .importing import import_file

TRIES, WAIT_SECONDS, MAX_PAGES = 4, 0.5, 20_000


class Get(Protocol):
    """One request: (address, headers) → (status, JSON body or None). Raises OSError where nothing answers."""

    def __call__(self, url: str, headers: Mapping[str, str]) -> tuple[int, Any]: ...


def pull(
    db: sqlite3.Connection,
    address: str,
    token: str,
    *,
    folder: Path,
    now: dt.datetime,
    get: Get,
    source: str | None = None,
    progress: Callable[[int], None] | None = None,
    wait: Callable[[float], None] = time.sleep,
) -> ImportResult:
    """Fetch what is new since the last pull and bring it in, all at once.

    Pages are kept as they come: a pull that breaks off goes on with the page that failed. Refused when the feed does
    not answer, does not let us in or sends no pages.
    """
    if not address.startswith(("http://", "https://")):
        raise Refused(f"“{address}” is no address of a feed: it starts with http:// or https://.")
    address = address.rstrip("/")
    source = source or f"Feed {address.split('//', 1)[1]}"[:120]
    spool = folder / f"feed-{made_key(address)}.jsonl"
    state = feeds.state(db, address)
    url = state.next_page if state.next_page and spool.exists() else _first(address, state.read_to)
    if not (state.next_page and spool.exists()):
        spool.unlink(missing_ok=True)
    headers = {"Authorization": f"Bearer {token}", "Accept": "application/json"}
    rows = 0
    for _ in range(MAX_PAGES):
        body = _page(get, url, headers, wait)
        with spool.open("a", encoding="utf-8") as out:
            for row in body["value"]:
                out.write(json.dumps(row, ensure_ascii=False) + "\n")
        rows += len(body["value"])
        if progress:
            progress(rows)
        following = body.get("@odata.nextLink")
        if not following:
            break
        if not _lies_within(str(following), address):
            raise Refused(f"The feed's next page lies elsewhere ({str(following)[:80]}): it is not followed.")
        url = str(following)
        feeds.keep_page(db, address, source, url)
    file = folder / f"{spool.stem}.json"
    newest = _gather(spool, file, now)
    try:
        if newest is None:
            result = ImportResult(None, "listings")
        else:
            result = import_file(db, file, folder=folder, now=now, kind="listings", source=source)
        feeds.finish(db, address, source, newest or state.read_to, now.isoformat(timespec="seconds"))
    finally:
        file.unlink(missing_ok=True)
    spool.unlink(missing_ok=True)
    return result


def _lies_within(url: str, address: str) -> bool:
    """Whether an address is of the very origin (scheme, host and port) and under the path for which the token was given."""
    usual = {"http": 80, "https": 443}
    there, here = urlsplit(url), urlsplit(address)
    try:
        same = (there.scheme, there.hostname, there.port or usual.get(there.scheme)) == (
            here.scheme, here.hostname, here.port or usual.get(here.scheme)
        )  # fmt: skip
    except ValueError:  # a port that is none
        return False
    path = here.path.rstrip("/")
    return same and (there.path == path or there.path.startswith(path + "/")) and "/../" not in there.path + "/"


def _first(address: str, read_to: str | None) -> str:
    since = f"&$filter=ModificationTimestamp ge {read_to}" if read_to else ""
    return f"{address}/Property?$top=500&$orderby=ModificationTimestamp{since}"


def _page(get: Get, url: str, headers: Mapping[str, str], wait: Callable[[float], None]) -> dict[str, Any]:
    """One page; tried again, later each time, when the feed is busy or does not answer."""
    why = ""
    for attempt in range(TRIES):
        if attempt:
            wait(WAIT_SECONDS * 2**attempt)
        try:
            status, body = get(url, headers)
        except OSError as error:
            why = f"does not answer ({error})"
            continue
        if status in (401, 403):
            raise Refused("The feed does not let us in: check the token.")
        if status == 429 or status >= 500:
            why = f"is busy (answer {status})"
            continue
        if status != 200 or not isinstance(body, dict) or not isinstance(body.get("value"), list):
            raise Refused(f"The feed sent no page of listings (answer {status}): check its address.")
        if not all(isinstance(row, dict) for row in body["value"]):
            raise Refused("The feed sent something that is no listing: check its address.")
        return body
    raise Refused(f"The feed {why}, {TRIES} times over. What came so far is kept: pull again to go on from there.")


def _gather(spool: Path, out: Path, now: dt.datetime) -> str | None:
    """The kept rows as one JSON list, each listing as it was sent last; returns the newest change, "" where none is told, None
    for no rows. A change that is still to come is a slip: to go on from there would be to see nothing until then."""
    last = (now + dt.timedelta(days=1)).date().isoformat()
    newest: dict[str, dict[str, Any]] = {}
    with spool.open(encoding="utf-8") as lines:
        for n, line in enumerate(lines):
            row = json.loads(line)
            newest[str(row.get("ListingId", n))] = row
    if not newest:
        return None
    with out.open("w", encoding="utf-8") as file:
        json.dump(list(newest.values()), file, ensure_ascii=False)
    stamps = (str(r.get("ModificationTimestamp") or "") for r in newest.values())
    return max((s for s in stamps if s[:10] <= last), default="")
