"""Work that waits for its time: one thread takes what is due, one after the other, and notes what came of it."""

from __future__ import annotations

import datetime as dt
import json
import logging
import threading
from collections.abc import Callable, Mapping
from contextlib import suppress
from typing import Any, Literal

from ..core.errors import BadInput, NotFound, RainPorchError
from ..store.db import Database, atomic
from ..store.porch import choices, kept
from ..store.porch import due_work as store
from .office.agent import Agent
from .office.watches import WATCH
from .watching import named
from .work_kinds import KINDS, check

BACKUP_PLANNED = "daily backup was planned"
Rhythm = Literal[60, 1440, 10080]  # minutes: every hour, day or week
LONGEST_WAIT = 24 * 60  # minutes until what fails is tried again, at most
LOOK_EVERY = 20.0  # seconds
MOST_TRIES = 8  # of work that is meant once; then it is for a person to begin it again


def plan(agent: Agent, kind: str, details: Mapping[str, Any], every_minutes: int | None, due_at: dt.datetime) -> int:
    """Let work wait until `due_at`; it comes back `every_minutes` after it was due, or once where that is None."""
    check(kind, details)
    if every_minutes is not None and every_minutes < 5:
        raise BadInput("every_minutes", "Work comes back every 5 minutes at most: give 5 or more.")
    at = due_at.isoformat(timespec="seconds")
    return store.add(agent.porch, agent.owner, kind, json.dumps(dict(details)), every_minutes, at)


def plan_once(agent: Agent, kind: str, details: Mapping[str, Any], every_minutes: int, due_at: dt.datetime) -> int:
    """Plan work in the place of what waits with the same address: a feed is pulled by one rhythm."""
    with atomic(agent.porch):
        for row in store.listed(agent.porch, agent.owner):
            if row["kind"] == kind and json.loads(row["details"]).get("address") == details.get("address"):
                store.forget(agent.porch, agent.owner, row["work_id"])
        return plan(agent, kind, details, every_minutes, due_at)


def plan_daily_backup(agent: Agent) -> None:
    """A backup each night at two, planned the first time that a folder is served; who takes it away is not asked again."""
    with atomic(agent.porch):
        if choices.read(agent.porch, agent.owner, BACKUP_PLANNED):
            return
        choices.write(agent.porch, agent.owner, BACKUP_PLANNED, True)
        if not any(w["kind"] == "backup" for w in store.listed(agent.porch, agent.owner)):
            night = agent.now().replace(hour=2, minute=0, second=0, microsecond=0) + dt.timedelta(days=1)
            plan(agent, "backup", {}, 24 * 60, night)


def waiting(agent: Agent) -> list[dict[str, Any]]:
    """All that waits: name, when it is due, whether it is stopped or running, what came of it last."""
    titles = {k.kept_id: k.name for k in kept.listed(agent.porch, agent.owner, kept.BULLETIN)}
    return [
        {**row, "name": _name(agent, row, titles), "stopped": bool(row["stopped"])}
        for row in store.listed(agent.porch, agent.owner)
    ]


def _name(agent: Agent, row: Mapping[str, Any], titles: Mapping[int, str]) -> str:
    """What it is called, with the address, the bulletin, the search or the view that it is about."""
    name = KINDS[row["kind"]][0] if row["kind"] in KINDS else row["kind"]
    details = json.loads(row["details"])
    about = details.get("address") or titles.get(details.get("bulletin_id", 0), "")
    if row["kind"] == WATCH:
        with suppress(NotFound):
            about = f"“{named(agent, details['of'], details['number'])[0]}”"
    return f"{name}, {about}" if about else name


def stop(agent: Agent, work_id: int, stopped: bool) -> None:
    """Let work rest until it is begun again (`stopped` False). Raises NotFound."""
    store.stop(agent.porch, agent.owner, work_id, stopped)


def do_now(agent: Agent, work_id: int) -> None:
    store.bring_forward(agent.porch, agent.owner, work_id, agent.stamp())


def forget(agent: Agent, work_id: int) -> None:
    store.forget(agent.porch, agent.owner, work_id)


def next_due(usual_at: dt.datetime, every_minutes: int | None, failures: int, now: dt.datetime) -> dt.datetime | None:
    """When work is due again: what failed after 1, 2, 4 … minutes, no later than a day and than its usual time; else by its
    rhythm, the times that were missed left out. None where it was meant once and is done, or has failed eight times.

    usual_at: one of the times of its rhythm.
    """
    usual = None if every_minutes is None else _following(usual_at, every_minutes, now)
    if not failures or (usual is None and failures >= MOST_TRIES):
        return usual
    again = now + dt.timedelta(minutes=min(2 ** (failures - 1), LONGEST_WAIT))
    return again if usual is None else min(again, usual)


def _following(usual_at: dt.datetime, every_minutes: int, now: dt.datetime) -> dt.datetime:
    """The first time of a rhythm that lies after now."""
    step = dt.timedelta(minutes=every_minutes)
    return usual_at if usual_at > now else usual_at + step * ((now - usual_at) // step + 1)


def set_time_of_day(agent: Agent, work_id: int, at: dt.time) -> None:
    """Let work that is done daily or weekly be done at another time of the day from now on. BadInput for any other work."""
    row = store.read(agent.porch, agent.owner, work_id)
    if not row["every_minutes"] or row["every_minutes"] % (24 * 60):
        raise BadInput("time", "Only work that is done every day or every week has a time of day.")
    usual = dt.datetime.combine(dt.datetime.fromisoformat(row["usual_at"]).date(), at)
    now = agent.now()
    while usual - dt.timedelta(minutes=row["every_minutes"]) > now:
        usual -= dt.timedelta(minutes=row["every_minutes"])
    due = _following(usual, row["every_minutes"], now)
    store.set_time(agent.porch, agent.owner, work_id, due.isoformat(timespec="seconds"))


class Schedule:
    """The thread. `agent_of` makes the agent of an account on the newest records."""

    def __init__(self, porch: Database, agent_of: Callable[[int], Agent], now: Callable[[], dt.datetime]) -> None:
        self.porch, self.agent_of, self.now = porch, agent_of, now
        self._woken, self._ended, self._starting = threading.Event(), threading.Event(), threading.Lock()
        self._thread = threading.Thread(target=self._run, daemon=True, name="work that waits")
        store.let_wait(porch)

    def start(self) -> None:
        with self._starting:
            if not self._thread.is_alive() and not self._ended.is_set():
                self._thread.start()

    def wake(self) -> None:
        """There may be something to do: look now."""
        self.start()
        self._woken.set()

    def end(self) -> None:
        self._ended.set()
        self._woken.set()
        if self._thread.is_alive():
            self._thread.join(20)

    def _run(self) -> None:
        while not self._ended.is_set():
            while not self._ended.is_set() and self.do_next():
                pass
            self._woken.wait(LOOK_EVERY)
            self._woken.clear()

    def do_next(self) -> bool:
        """Do what has been due for longest; False where nothing is."""
        work = store.take_next(self.porch, self.now().isoformat(timespec="seconds"))
        if work is None:
            return False
        try:
            said, failures = KINDS[work["kind"]][1](self.agent_of(work["owner"]), json.loads(work["details"])), 0
        except RainPorchError as error:
            said, failures = error.message, work["failures"] + 1
        except Exception:  # a fault of ours stops no other work; it is told where it can be read
            logging.getLogger(__name__).exception("work %s failed", work["work_id"])
            said, failures = "It failed for a reason that is in the log.", work["failures"] + 1
        now = self.now()
        due = next_due(dt.datetime.fromisoformat(work["usual_at"]), work["every_minutes"], failures, now)
        store.finish(
            self.porch, work["work_id"], now.isoformat(timespec="seconds"), said, failures,
            None if due is None else due.isoformat(timespec="seconds"),
        )  # fmt: skip
        return True
