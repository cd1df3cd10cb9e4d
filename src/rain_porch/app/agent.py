"""Who asks: the one door to porch.db, with the records that the request reads and its clock."""

from __future__ import annotations

import datetime as dt
from collections.abc import Callable, Iterator
from contextlib import contextmanager
from dataclasses import dataclass

from ..store import db as database
from .snapshot import Snapshot

FOLDERS_OWNER = 1  # the account that every data folder begins with


@dataclass(frozen=True)
class Agent:
    """owner: the number of the account. porch: porch.db, of which only the owner's rows are theirs. now: the only clock."""

    owner: int
    porch: database.Database
    records: Snapshot
    now: Callable[[], dt.datetime]

    def stamp(self) -> str:
        return self.now().isoformat(timespec="seconds")


@contextmanager
def folders_agent(records: Snapshot, now: Callable[[], dt.datetime] = dt.datetime.now) -> Iterator[Agent]:
    """The owner of a data folder, on its records as they are now: who the command line works for."""
    porch = database.Database(records.folder, database.PORCH)
    try:
        yield Agent(FOLDERS_OWNER, porch, records, now)
    finally:
        porch.close()
