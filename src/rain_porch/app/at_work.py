"""Who works on what now: what their screens and papers will ask for is worked out on newer records before they have them."""

from __future__ import annotations

import datetime as dt
import threading
from collections import OrderedDict
from collections.abc import Callable
from dataclasses import dataclass

from ..core.memo import Memo
from .ahead_process import work_out, worked_out_beside
from .office.agent import Agent
from .pricing.wide_models import make_models_ahead
from .snapshot import Snapshot

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
        self._agent_on, self._now = agent_on, now
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

    def make_ahead(self, records: Snapshot, before: Memo, is_much: bool) -> None:
        """Work out from new records what all at work ask for. before: the fits of the records before; is_much: all was read anew, and is
        not used until this is done: a process beside does what takes long."""
        working = self.workups()
        if is_much and working:
            records.fits.take(
                worked_out_beside(records, self._now(), [(owner, number) for owner, number, _ in working])
            )
        make_models_ahead(records, before)
        if not len(records.columns):
            return
        for owner, workup_id, with_pages in working:
            work_out(self._agent_on(records, owner), workup_id, with_pages)
