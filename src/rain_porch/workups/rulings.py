"""The agent's word on a conclusion: confirmed, overruled, or left to Rain Porch again."""

from __future__ import annotations

import datetime as dt
import json
import sqlite3
from typing import Any

from ..core.errors import BadInput, NotFound
from ..core.words import HomeKind
from ..records.layouts import LAYOUTS
from ..store import conclusions, homes

# about → what may be said; "suspect:FIELD" is confirmed or not
SAYS: dict[tuple[str, str], tuple[str, ...]] = {
    ("transfers", "not_arms_length"): ("", "no ordinary sale, the agent says"),
    ("transfers", "listing_id"): ("none",),
    ("listings", "manner"): ("standard", "distressed", "not_arms_length"),
    ("listings", "is_lease"): ("0", "1"),
    ("listings", "home_kind"): tuple(k.value for k in HomeKind),
}


def rule(db: sqlite3.Connection, kind: str, key: str, about: str, says: str | None, now: dt.datetime) -> None:
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
    elif about == "listing_id":
        columns = {}
    elif says is None:
        layout = LAYOUTS[kind]
        held = {name: [record[name]] for name in (*layout.facts, layout.key_column)}
        derived, _ = layout.derive(held, [key])
        columns = {about: derived[about][0]}
    else:
        columns = {about: int(says) if about == "is_lease" else says or None}
    conclusions.rule(db, kind, key, about, says, now.isoformat(timespec="seconds"), columns)


def _record(db: sqlite3.Connection, kind: str, key: str) -> dict[str, Any]:
    record = homes.listing(db, key) if kind == "listings" else homes.transfer(db, key) if kind == "transfers" else None
    if record is None:
        raise NotFound(f"There is no record {key} among the {kind}.", key=key)
    return record
