"""Who works on what now: when newer records come, it is priced on them before anybody asks for it."""

from __future__ import annotations

import datetime as dt
import sqlite3
import threading
from collections import OrderedDict
from collections.abc import Callable
from contextlib import suppress
from dataclasses import dataclass

from ..core.errors import RainPorchError
from .handover.report_input import report_input
from .office.agent import Agent
from .pricing.opened import found_candidates, priced
from .pricing.past_listings import past_listings
from .pricing.wide_models import make_models_ahead
from .snapshot import Snapshot
from .workup.workups import open_workup

MOST = 60  # workups
STAYS = dt.timedelta(minutes=20)  # since somebody last asked something of it


@dataclass(frozen=True)
class _Asked:
    at: dt.datetime
    page_at: dt.datetime | None  # when a page of its paper was last asked for


class AtWork:
    """The workups of which something was asked in the last minutes, those of last first."""

    def __init__(self, agent_on: Callable[[Snapshot, int], Agent], now: Callable[[], dt.datetime]) -> None:
        """agent_on: the agent of an account, on given records."""
        self._agent_on = agent_on
        self._now = now
        self._asked: OrderedDict[tuple[int, int], _Asked] = OrderedDict()
        self._lock = threading.Lock()

    def note(self, owner: int, workup_id: int, page: bool = False) -> None:
        """Something was asked of a workup. page: a page of its paper."""
        at, key = self._now(), (owner, workup_id)
        with self._lock:
            before = self._asked.pop(key, None)
            self._asked[key] = _Asked(at, at if page else before.page_at if before else None)
            while len(self._asked) > MOST:
                self._asked.popitem(last=False)

    def workups(self) -> list[tuple[int, int, bool]]:
        """(owner, workup, whether its pages are looked at) of those at work, last asked of first."""
        since = self._now() - STAYS
        with self._lock:
            held = [(key, asked) for key, asked in reversed(self._asked.items()) if asked.at >= since]
        return [(*key, asked.page_at is not None and asked.page_at >= since) for key, asked in held]

    def make_ahead(self, records: Snapshot, before: Snapshot) -> None:
        """What the screens of those at work will ask for, made from new records: the models first, which many share."""
        make_models_ahead(records, before)
        if not len(records.columns):
            return
        for owner, workup_id, with_pages in self.workups():
            # gone meanwhile, or nothing that could be priced on these records: who asks is told
            with suppress(RainPorchError, sqlite3.ProgrammingError):
                _price_ahead(self._agent_on(records, owner), workup_id, with_pages)


def _price_ahead(agent: Agent, workup_id: int, with_pages: bool) -> None:
    opened = open_workup(agent, workup_id)
    priced(opened)
    with suppress(RainPorchError):  # a search that names an area which has gone
        found_candidates(opened)
    past_listings(opened.standpoint)
    if with_pages:
        report_input(agent, workup_id)
