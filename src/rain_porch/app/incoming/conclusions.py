"""The agent's word on a conclusion: confirmed, overruled, or left to Rain Porch again."""

from __future__ import annotations

import datetime as dt
import json
from typing import Any

import numpy as np

from ...core.errors import BadInput, NotFound
from ...core.facts.dates import NO_DAY, date_of
from ...core.facts.words import HomeKind
from ...core.market.columns import Columns, Ints
from ...core.market.listing_facts import resold_from
from ...records.mapping.layouts import LAYOUTS
from ...store.db import Db, WritableDb
from ...store.records import conclusions, homes
from ..snapshot import Snapshot

# about → what may be said; "suspect:FIELD" is confirmed or not
SAYS: dict[tuple[str, str], tuple[str, ...]] = {
    ("transfers", "not_arms_length"): ("", "no ordinary sale, the agent says"),
    ("transfers", "listing_id"): ("none",),
    ("listings", "manner"): ("standard", "distressed", "not_arms_length"),
    ("listings", "is_lease"): ("0", "1"),
    ("listings", "new_construction"): ("0", "1"),
    ("listings", "quick_resale"): ("none",),
    ("listings", "home_kind"): tuple(k.value for k in HomeKind),
}


def rule(db: WritableDb, kind: str, key: str, about: str, says: str | None, now: dt.datetime) -> None:
    """Keep what the agent says of one record; None leaves it to Rain Porch again. BadInput, NotFound."""
    record = _record(db, kind, key)
    columns: dict[str, Any]
    if about.startswith("suspect:"):
        name = about[8:]
        if says not in (None, "confirmed") or name not in LAYOUTS[kind].columns:
            raise BadInput("says", "A suspect value can be “confirmed”, or left as suspect.")
        odd = json.loads(record["suspect"] or "[]")
        odd = [x for x in odd if x != name] if says else list(dict.fromkeys([*odd, name]))
        columns = {"suspect": json.dumps(odd) if odd else None}
    elif (kind, about) not in SAYS:
        raise BadInput("about", f"Nothing is concluded about “{about}” of {kind}.")
    elif says is not None and says not in SAYS[kind, about]:
        raise BadInput("says", f"“{says}” cannot be said of {about}: it can be {', '.join(SAYS[kind, about])}.")
    elif about in ("listing_id", "new_construction", "quick_resale"):
        columns = {}  # worked out anew from all records, where the ruling is looked up
    elif says is None:
        layout = LAYOUTS[kind]
        held = {name: [record[name]] for name in (*layout.facts, layout.key_column)}
        derived, _ = layout.derive(held, [key])
        columns = {about: derived[about][0]}
    else:
        columns = {about: int(says) if about == "is_lease" else says or None}
    conclusions.rule(db, kind, key, about, says, now.isoformat(timespec="seconds"), columns)


def new_construction(records: Snapshot, limit: int) -> list[dict[str, Any]]:
    """Listings taken for new construction, newest first, with the builder and year that led to it."""
    columns = records.columns
    rows = np.flatnonzero(columns.new_construction & ~columns.lease & ~columns.deed)
    return [
        {**_shown(columns, row), "builder": columns.fact(row, "builder_name"), "year": columns.fact(row, "year_built")}
        for row in _newest(columns, rows)[:limit]
    ]


def quick_resales(records: Snapshot, limit: int) -> list[dict[str, Any]]:
    """Sales within a year of the same home's sale before, newest first, with what was paid then."""
    columns = records.columns
    pairs = resold_from(columns)
    rows = np.array([row for row in pairs if not columns.deed[row]], dtype=np.int64)
    return [{**_shown(columns, row), "before": _shown(columns, pairs[row])} for row in _newest(columns, rows)[:limit]]


def counts(records: Snapshot) -> dict[str, int]:
    """How many records each conclusion holds for, those that are worked out from all records among them."""
    columns = records.columns
    return conclusions.counts(records.db) | {
        "new_construction": int((columns.new_construction & ~columns.lease & ~columns.deed).sum()),
        "quick_resale": sum(not columns.deed[row] for row in resold_from(columns)),
    }


def _newest(columns: Columns, rows: Ints) -> list[int]:
    day = np.where(columns.close[rows] == NO_DAY, columns.on_market[rows], columns.close[rows])
    return [int(row) for row in rows[np.argsort(-day.astype(np.int64), kind="stable")]]


def _shown(columns: Columns, row: int) -> dict[str, Any]:
    day = int(columns.close[row] if columns.close[row] != NO_DAY else columns.on_market[row])
    price = columns.fact(row, "close_price") or columns.fact(row, "list_price")
    key = str(columns.keys[row])
    return {"key": key, "date": None if day == NO_DAY else date_of(day).isoformat(), "price": price}


def with_addresses(db: Db, rows: list[dict[str, Any]]) -> list[dict[str, Any]]:
    """The rows with the address of each listing as what is shown of it."""
    shown = homes.addresses_of(db, [r["key"] for r in rows])
    return [{"shown": shown.get(r["key"], r["key"]), **r} for r in rows]


def _record(db: Db, kind: str, key: str) -> dict[str, Any]:
    record = homes.listing(db, key) if kind == "listings" else homes.transfer(db, key) if kind == "transfers" else None
    if record is None:
        raise NotFound(f"There is no record {key} among the {kind}.", key=key)
    return record
