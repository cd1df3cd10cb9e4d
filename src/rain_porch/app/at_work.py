"""Who works on what now: when newer records come, it is priced on them before anybody asks for it."""

from __future__ import annotations

import datetime as dt
import sqlite3
import threading
from collections import OrderedDict
from collections.abc import Callable
from concurrent.futures import Future, wait
from contextlib import suppress
from dataclasses import dataclass

from ..core.errors import RainPorchError
from .office.agent import Agent
from .pricing.opened import Opened, found_candidates, priced
from .pricing.past_listings import past_listings
from .pricing.wide_models import make_models_ahead
from .snapshot import Snapshot
from .workup.workups import open_workup

MOST = 60  # workups
LONGEST_SECONDS = 30.0  # that papers are waited for
STAYS = dt.timedelta(minutes=20)  # since somebody last asked something of it


@dataclass(frozen=True)
class _Asked:
    at: dt.datetime
    page_at: dt.datetime | None  # when a page of its paper was last asked for


class AtWork:
    """The workups of which something was asked in the last minutes, those of last first."""

    def __init__(
        self,
        agent_on: Callable[[Snapshot, int], Agent],
        now: Callable[[], dt.datetime],
        prepare: Callable[[Agent, int], Future[None]],
    ) -> None:
        """agent_on: the agent of an account, on given records. prepare: begins what the papers of a workup are made from."""
        self._agent_on, self._now, self._prepare = agent_on, now, prepare
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
        working = [(self._agent_on(records, owner), workup, pages) for owner, workup, pages in self.workups()]
        papers = [self._prepare(agent, workup_id) for agent, workup_id, with_pages in working if with_pages]
        for agent, workup_id, _ in working:
            # gone meanwhile, or nothing that could be priced on these records: who asks is told
            with suppress(RainPorchError, sqlite3.ProgrammingError):
                _price_ahead(open_workup(agent, workup_id))
        wait(papers, LONGEST_SECONDS)


def _price_ahead(opened: Opened) -> None:
    priced(opened)
    with suppress(RainPorchError):  # a search that names an area which has gone
        found_candidates(opened)
    past_listings(opened.standpoint)
