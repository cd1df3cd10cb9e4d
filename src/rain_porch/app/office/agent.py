"""Who asks: the one door to porch.db, with the records that the request reads and its clock."""

from __future__ import annotations

import datetime as dt
from collections.abc import Callable, Iterator
from contextlib import contextmanager
from dataclasses import dataclass, replace

from ...core.facts.house_rules import HouseRules
from ...core.market.market_rules import market_rules
from ...store import db as database
from ...store.porch import house_rules
from ..snapshot import Snapshot
from .accounts import account_named

FOLDERS_OWNER = 1  # the account that every data folder begins with


@dataclass(frozen=True)
class Agent:
    """owner: the account whose rows are read and changed. porch: porch.db, of which only the owner's rows are theirs.
    now: the only clock. hand: the account that asks, where it works on what is another's; the owner's own where None.
    may_edit: whether the workup that is asked of may be changed by them."""

    owner: int
    porch: database.Database
    records: Snapshot
    now: Callable[[], dt.datetime]
    hand: int | None = None
    is_manager: bool = False
    may_edit: bool = True

    @classmethod
    def on(
        cls,
        records: Snapshot,
        owner: int,
        porch: database.Database,
        now: Callable[[], dt.datetime],
        *,
        hand: int | None = None,
        is_manager: bool = False,
        may_edit: bool = True,
    ) -> Agent:
        """On records that are counted by the office's rules."""
        office = HouseRules.of(house_rules.chosen(porch, None))
        return cls(owner, porch, records.by(market_rules(office)), now, hand, is_manager, may_edit)

    @property
    def account_id(self) -> int:
        """The account that asks."""
        return self.owner if self.hand is None else self.hand

    def in_place_of(self, owner: int, may_edit: bool = True) -> Agent:
        """Who works on what is another's, or only reads it."""
        return replace(self, owner=owner, hand=self.account_id, may_edit=may_edit)

    def stamp(self) -> str:
        return self.now().isoformat(timespec="seconds")


@contextmanager
def folders_agent(
    records: Snapshot, now: Callable[[], dt.datetime] = dt.datetime.now, user: str | None = None
) -> Iterator[Agent]:
    """Who the command line works for, on the records as they are now: the account of that name, else the folder's owner.
    Raises NotFound for a name that is none."""
    porch = database.Database(records.folder, database.PORCH)
    try:
        account = account_named(porch, user)
        yield Agent.on(records, account.account_id, porch, now, is_manager=account.is_manager)
    finally:
        porch.close()
