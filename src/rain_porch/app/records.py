"""records.db of one folder while it is in use: whoever asks gets the newest snapshot of it."""

from __future__ import annotations

import datetime as dt
import sqlite3
import threading
import weakref
from collections.abc import Callable, Iterator
from contextlib import contextmanager
from pathlib import Path

from ..core.market.columns import MANY
from ..core.memo import Memo
from ..store import db
from ..store.records.backtests import newest
from ..store.records.incoming.changed import changed_since
from ..store.records.incoming.imports import records_mark, records_version
from ..store.records.kept_columns import Before, is_little, kept_columns, read_beside, read_columns
from .clearing import Clearing
from .memory import give_back
from .snapshot import Snapshot, new_turns

Keep = Callable[[], bool]
READERS, BESIDE_TRIES = 3, 3
AHEAD_SECONDS = 45  # for which new records wait until those at work are priced on them


class Records:
    """`live` reads and writes what is no part of a snapshot: imports, feeds, what the agent says of a record."""

    def __init__(
        self,
        folder: Path,
        today: Callable[[], dt.date] = dt.date.today,
        ahead: Callable[[Snapshot, Memo, bool], None] | None = None,
    ) -> None:
        """ahead: called beside with the new snapshot and the fits of the one before it: what will be asked for again is made meanwhile.
        Where all was read anew, as its third value says, which takes long anyway, the records of before go on being used until it is done."""
        self.folder = folder
        self.today = today
        self._ahead = ahead
        self.live = db.Database(folder, db.RECORDS)
        self._newest: Snapshot | None = None
        self._reading = threading.Lock()  # held while the columns are read
        self._starting = threading.Lock()
        self._next: threading.Thread | None = None
        self._turns = new_turns()
        self._clearing = Clearing(self.live, _stamp)

    def snapshot(self) -> Snapshot:
        """The newest records as one value.

        Where they are many, those of before an import go on being used for the moments in which the new are read.
        """
        held = self._newest
        if held is not None:
            self._clearing.go_on(held.db, held.stamp)
            if held.stamp == _stamp(self.live):
                return held
        if held is not None and len(held.columns) >= MANY:
            with self._starting:
                if self._next is None or not self._next.is_alive():
                    self._next = threading.Thread(target=self._renew, daemon=True)
                    self._next.start()
            return held
        return self._renew()

    def is_behind(self, held: Snapshot) -> bool:
        """Whether records newer than this snapshot's are there already; they are being read, or the next who asks has them."""
        return held.stamp != _stamp(self.live)

    def _renew(self) -> Snapshot:
        with self._reading:
            held = self._newest
            if held is None or held.stamp != _stamp(self.live):
                before, held = held, self._made_ready(held)
                self._newest = held
                if before is not None:
                    self._clearing.after(weakref.ref(before.db))
                    if before.columns is not held.columns:
                        before.give_way()
            return held

    def _made_ready(self, before: Snapshot | None) -> Snapshot:
        """A new snapshot, with what is worth making ahead under way or done."""
        taken, is_much, keep = self._taken(before)
        if before is not None and (self._ahead is not None or keep is not None):
            beside = threading.Thread(target=self._beside, args=(taken, before.fits, is_much, keep), daemon=True)
            beside.start()
            beside.join(AHEAD_SECONDS if is_much else 0)
        return taken

    def _beside(self, taken: Snapshot, before: Memo, is_much: bool, keep: Keep | None) -> None:
        """before: the fits of the records before, which themselves are not held."""
        try:
            if self._ahead is not None:
                self._ahead(taken, before, is_much)
        finally:
            if keep is not None:
                keep()
                give_back()

    def _taken(self, before: Snapshot | None) -> tuple[Snapshot, bool, Keep | None]:
        """A new snapshot; columns that have not changed are taken over, many new ones read by a process beside: whether they were. Those
        into which what changed was put are kept later: by what is returned."""
        is_much, keep = False, None
        if before is not None and len(before.columns) >= MANY:
            read_of = before.stamp[0]
            for _ in range(BESIDE_TRIES):  # what is taken in meanwhile makes them old again
                newest = records_version(self.live)
                if newest == read_of or is_little(changed_since(self.live, before.mark)):
                    break
                read_of, is_much = newest, True
                read_beside(self.folder)
        stamp, readers = db.frozen(self.folder / "records.db", _stamp, READERS)
        if before is not None and before.stamp[0] == stamp[0]:
            read = before.columns
        else:
            with readers.one() as connection:
                if before is not None and len(before.columns) >= MANY:
                    read, keep = read_columns(self.folder, connection, Before(before.mark, before.columns))
                    give_back()
                else:
                    earlier = None if before is None else Before(before.mark, before.columns)
                    read = kept_columns(self.folder, connection, earlier)
        made = Snapshot(self.folder, stamp, read, readers, self.today, records_mark(readers), self._turns)
        return made, is_much, keep

    @contextmanager
    def connection(self) -> Iterator[sqlite3.Connection]:
        """A connection of its own for long work, an import or an export, that holds nobody up."""
        own = db.open_database(self.folder, db.RECORDS)
        try:
            yield own
        finally:
            own.close()

    def close(self) -> None:
        if self._newest is not None:
            self._newest.db.close()
            self._newest = None
        self.live.close()


def _stamp(of: db.Db) -> tuple[int, int]:
    return records_version(of), newest(of)
