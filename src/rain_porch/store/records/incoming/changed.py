"""Which records changed since an earlier state of them. Triggers note each (0012_notes_of_changes.sql), so that no way of changing a
record can forget to."""

from __future__ import annotations

import sqlite3
from collections.abc import Iterator
from contextlib import contextmanager
from dataclasses import dataclass

from ...db import Db, WritableDb

MOST_NOTED = 20_000  # changed records; where more change, columns are read anew as a whole
_MARKS = 1_000  # states that are remembered
_EVER = 2**62  # after the version of any state


@dataclass(frozen=True)
class Changed:
    """Keys of what came, went or is told otherwise: of listings, of transfers, and of parcels, whose facts stand in transfers."""

    listings: tuple[str, ...] = ()
    transfers: tuple[str, ...] = ()
    parcels: tuple[str, ...] = ()

    def __len__(self) -> int:
        return len(self.listings) + len(self.transfers) + len(self.parcels)


def changed_since(db: Db, mark: str) -> Changed | None:
    """What changed since the state of that mark; None where that is not known: too long ago, too much, or other records."""
    state = db.execute("SELECT version FROM earlier_marks WHERE mark = :mark", {"mark": mark}).fetchone()
    if state is None:
        return None
    keys: dict[str, list[str]] = {"listing": [], "transfer": [], "parcel": []}
    for kind, key in db.execute(
        "SELECT DISTINCT kind, record_key FROM changed_records WHERE version >= :version", {"version": state[0]}
    ):
        keys[kind].append(key)
    return Changed(tuple(keys["listing"]), tuple(keys["transfer"]), tuple(keys["parcel"]))


@contextmanager
def noting(db: sqlite3.Connection, records: int) -> Iterator[None]:
    """While so many records change, within one transaction: where they are too many, none is noted, and all earlier notes go."""
    if records <= MOST_NOTED:
        yield
        return
    _forget(db, _EVER)
    triggers = db.execute(
        "SELECT name, sql FROM sqlite_master WHERE type = 'trigger' AND sql LIKE '%INTO changed_records%'"
    ).fetchall()
    for name, _ in triggers:
        db.execute(f"DROP TRIGGER {name}")
    yield
    for _, made in triggers:
        db.execute(made)


def new_state(db: WritableDb) -> None:
    """Note that the records have changed: a number that counts up, and a mark that no other state of any records has."""
    _forget(db, _kept_since(db))
    db.execute("UPDATE meta SET value = CAST(value AS INTEGER) + 1 WHERE name = 'version'")
    db.execute("UPDATE meta SET value = hex(randomblob(8)) WHERE name = 'mark'")
    db.execute(
        "INSERT INTO earlier_marks SELECT m.value, CAST(v.value AS INTEGER) FROM meta m JOIN meta v ON v.name = 'version' "
        "WHERE m.name = 'mark'"
    )
    db.execute(
        "DELETE FROM earlier_marks WHERE version <= (SELECT max(version) FROM earlier_marks) - :most", {"most": _MARKS}
    )


def _kept_since(db: WritableDb) -> int:
    """The version from which notes are kept: the newest, as many as may be; a pull after others finds those of the last ones there."""
    noted = 0
    for version, changes in db.execute(
        "SELECT version, count(*) FROM changed_records GROUP BY version ORDER BY version DESC"
    ):
        noted += changes
        if noted > MOST_NOTED:
            return int(version) + 1
    return 0


def _forget(db: WritableDb, before: int) -> None:
    """What changed in states before that version, and the marks of those."""
    db.execute("DELETE FROM changed_records WHERE version < :before", {"before": before})
    db.execute("DELETE FROM earlier_marks WHERE version < :before", {"before": before})
