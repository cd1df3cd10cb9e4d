"""Papers made by a process of its own: prices and counts stay quick while pages are drawn and typeset.

It reads the same folder, and is asked for one paper after the other. Where it has not started yet, stands on other records, or
fails, the service makes the paper itself: what is wrong with a request is told there.
"""

from __future__ import annotations

import base64
import datetime as dt
import importlib
import itertools
import json
import queue
import sys
import threading
from collections.abc import Callable, Iterator
from concurrent.futures import Future
from contextlib import suppress
from pathlib import Path
from typing import Any, TypedDict

from threadpoolctl import threadpool_limits

from ...core.errors import RainPorchError
from ...report.papers import FORMS, PICTURE_MEDIA, page_pictures
from ...store.db import PORCH, Database
from ..office.agent import Agent
from ..records import Records
from ..side_process import Beside, Step, say
from ..snapshot import Snapshot
from .report_input import report_input

MODULE = "rain_porch.app.handover.paper_process"
IDLE_SECONDS, LONGEST_SECONDS = 600.0, 60.0
MOST_PREPARED = 2000
MOST_WAITING = 3  # beyond so many the service makes papers too
NOTHING = ""  # the form of what is only prepared


class Wanted(TypedDict):
    """A paper of a workup: a page as "svg" or "png", numbered from 1, or the whole report in a form of FORMS, number None."""

    workup: int
    layout: str | None
    number: int | None
    form: str


def paper_made(agent: Agent, wanted: Wanted) -> list[bytes]:
    """The sheets of a page, or the one file of a report. Raises what report_input and page_pictures raise."""
    given, number = report_input(agent, wanted["workup"], wanted["layout"]), wanted["number"]
    if wanted["form"] == NOTHING:
        return []
    if number is None:
        return [FORMS[f".{wanted['form']}"](given, wanted["layout"])]
    form = next(f for f in PICTURE_MEDIA if f == wanted["form"])
    return page_pictures(given, wanted["layout"], number, form)


class PaperProcess:
    """It is started where a workup is opened or a paper asked for, and ends where no paper is asked for ten minutes."""

    def __init__(self, folder: Path) -> None:
        self._folder = folder
        self._lock = threading.Lock()
        self._numbers = itertools.count(1)
        self._beside: Beside | None = None
        self._ready = False
        self._waiting: dict[int, Future[list[bytes] | None]] = {}
        self._preparing: dict[int, Future[None]] = {}
        self._prepared: set[tuple[int, ...]] = (
            set()
        )  # workups, each by its owner, number and the version of the records

    def start(self) -> None:
        """Begin to get ready, where it has not. A machine that has no room for it goes without."""
        with self._lock:
            if self._beside is None:
                with suppress(OSError):
                    self._beside = Beside(MODULE, {"folder": str(self._folder)}, self._told, self._ended)

    def prepare(self, agent: Agent, workup: int) -> Future[None]:
        """Let it work out what the papers of a workup are made from, when it has nothing else to do: once for each version of the
        records, since what takes long hangs on the home and not on what is decided. Done when it has, or will not."""
        self.start()
        which = (agent.owner, workup, *agent.records.stamp)
        prepared: Future[None] = Future()
        with self._lock:
            if self._beside is None or which in self._prepared:
                prepared.set_result(None)
                return prepared
            if len(self._prepared) >= MOST_PREPARED:
                self._prepared.clear()  # most of it was of records that have gone
            self._prepared.add(which)
            number = next(self._numbers)
            self._preparing[number] = prepared
            wanted = Wanted(workup=workup, layout=None, number=None, form=NOTHING)
            self._beside.say(json.dumps(_asked(number, agent, wanted)))
        return prepared

    def made(self, agent: Agent, wanted: Wanted) -> list[bytes] | None:
        """The paper as `paper_made` gives it; None where it must be made here."""
        answer: Future[list[bytes] | None] = Future()
        self.start()
        with self._lock:
            if self._beside is None or not self._ready or len(self._waiting) >= MOST_WAITING:
                return None
            number = next(self._numbers)
            self._waiting[number] = answer
            self._beside.say(json.dumps(_asked(number, agent, wanted)))
        try:
            return answer.result(LONGEST_SECONDS)
        except TimeoutError:
            return None
        finally:
            self._waiting.pop(number, None)

    def stop(self) -> None:
        """End it, where it runs."""
        if beside := self._beside:
            beside.stop()

    def _told(self, step: Step) -> None:
        if step.get("ready"):
            self._ready = True
        elif prepared := self._preparing.pop(step.get("asked", 0), None):
            prepared.set_result(None)
        elif answer := self._waiting.get(step.get("asked", 0)):
            sheets = step.get("sheets")
            answer.set_result(None if sheets is None else [base64.b64decode(s) for s in sheets])

    def _ended(self) -> None:
        with self._lock:
            self._beside, self._ready = None, False
            self._prepared.clear()
            left = list(self._waiting.values())
            preparing, self._preparing = list(self._preparing.values()), {}
        for prepared in preparing:
            prepared.set_result(None)
        for answer in left:
            if not answer.done():
                answer.set_result(None)


def _asked(number: int, agent: Agent, wanted: Wanted) -> dict[str, Any]:
    return {
        "asked": number, "wanted": wanted, "owner": agent.owner, "hand": agent.hand, "is_manager": agent.is_manager,
        "may_edit": agent.may_edit, "now": agent.now().isoformat(), "records": _state_of(agent.records),
    }  # fmt: skip


def _state_of(records: Snapshot) -> list[Any]:
    return [*records.stamp, records.mark]


def _tasks() -> Iterator[Step]:
    """What the service says, papers before what is only prepared, until it says nothing for long or is gone."""
    said: queue.PriorityQueue[tuple[int, int, Step]] = queue.PriorityQueue()

    def read() -> None:
        n = 0
        for n, line in enumerate(sys.stdin):
            task = json.loads(line)
            said.put((task.get("wanted", {}).get("form") == NOTHING, n, task))
        said.put((-1, n + 1, {}))

    threading.Thread(target=read, daemon=True).start()
    while True:
        try:
            task = said.get(timeout=IDLE_SECONDS)[2]
        except queue.Empty:
            return
        if not task:
            return
        yield task


def _agent_as(asked: Step, porch: Database, records: Snapshot, now: dt.datetime) -> Agent:
    return Agent.on(
        records, asked["owner"], porch, lambda: now,
        hand=asked["hand"], is_manager=asked["is_manager"], may_edit=asked["may_edit"],
    )  # fmt: skip


class _Held:
    """The records that the service reads: while it gets newer ones ready, papers are asked for on both."""

    def __init__(self, folder: Path, today: Callable[[], dt.date]) -> None:
        self._folder, self._today = folder, today
        self._held: list[Snapshot] = []

    def newest(self) -> None:
        """Map those that are there now: the service has kept them."""
        records = Records(self._folder, today=self._today)
        self._held = [*self._held[-1:], records.snapshot()]
        records.live.close()  # a snapshot has readers of its own, and they go with it

    def of(self, state: list[Any]) -> Snapshot | None:
        """The records of a state; None where they have gone."""
        if not any(_state_of(s) == state for s in self._held):
            self.newest()
        return next((s for s in self._held if _state_of(s) == state), None)


def main() -> None:
    tasks = _tasks()
    if (first := next(tasks, None)) is None:
        return
    folder, clock = Path(first["folder"]), {"now": dt.datetime.now()}
    held, porch = _Held(folder, lambda: clock["now"].date()), Database(folder, PORCH)
    held.newest()
    importlib.import_module("scipy.spatial")  # what takes longest to read of all that a paper needs
    say(ready=True)
    with threadpool_limits(1, user_api="blas"):
        for task in tasks:
            clock["now"], sheets = dt.datetime.fromisoformat(task["now"]), None
            if (snapshot := held.of(task["records"])) is not None:
                with suppress(RainPorchError):  # the service meets with it too, and tells it
                    agent = _agent_as(task, porch, snapshot, clock["now"])
                    sheets = [base64.b64encode(s).decode() for s in paper_made(agent, task["wanted"])]
            say(asked=task["asked"], sheets=sheets)
    porch.close()


if __name__ == "__main__":
    main()
