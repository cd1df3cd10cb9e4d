"""Papers drawn and typeset by a process of its own: prices and counts stay quick meanwhile.

It is given what the paper is made from, frozen, and reads nothing else. Where it has not started yet, has too much to do, or fails,
the service makes the paper itself: what is wrong with a request is told there.
"""

from __future__ import annotations

import base64
import itertools
import json
import pickle
import sys
import threading
from collections.abc import Iterator
from concurrent.futures import Future
from contextlib import suppress
from queue import Empty, SimpleQueue
from typing import TypedDict

from ...core.errors import RainPorchError
from ...report.model import ReportInput
from ...report.papers import FORMS, PICTURE_MEDIA, page_pictures
from ..side_process import Beside, Step, say

MODULE = "rain_porch.app.handover.paper_process"
IDLE_SECONDS, LONGEST_SECONDS = 600.0, 60.0
MOST_WAITING = 3  # beyond so many the service makes papers too


class Wanted(TypedDict):
    """A page as "svg" or "png", numbered from 1, or the whole report in a form of FORMS, number None. layout: one that comes with
    the product, else the workup's own pages."""

    layout: str | None
    number: int | None
    form: str


def paper_made(given: ReportInput, wanted: Wanted) -> list[bytes]:
    """The sheets of a page, or the one file of a report. Raises what page_pictures raises."""
    number = wanted["number"]
    if number is None:
        return [FORMS[f".{wanted['form']}"](given, wanted["layout"])]
    form = next(f for f in PICTURE_MEDIA if f == wanted["form"])
    return page_pictures(given, wanted["layout"], number, form)


class PaperProcess:
    """It is started where a workup is opened or a paper asked for, and ends where no paper is asked for ten minutes."""

    def __init__(self) -> None:
        self._lock = threading.Lock()
        self._numbers = itertools.count(1)
        self._beside: Beside | None = None
        self._ready = False
        self._waiting: dict[int, Future[list[bytes] | None]] = {}

    def start(self) -> None:
        """Begin to get ready, where it has not. A machine that has no room for it goes without."""
        with self._lock:
            if self._beside is None:
                with suppress(OSError):
                    self._beside = Beside(MODULE, {}, self._told, self._ended)

    def made(self, given: ReportInput, wanted: Wanted) -> list[bytes] | None:
        """The paper as `paper_made` gives it; None where it must be made here."""
        answer: Future[list[bytes] | None] = Future()
        self.start()
        with self._lock:
            if self._beside is None or not self._ready or len(self._waiting) >= MOST_WAITING:
                return None
            number = next(self._numbers)
            self._waiting[number] = answer
            frozen = base64.b64encode(pickle.dumps(given)).decode()
            self._beside.say(json.dumps({"asked": number, "wanted": wanted, "given": frozen}))
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
        elif answer := self._waiting.get(step.get("asked", 0)):
            sheets = step.get("sheets")
            answer.set_result(None if sheets is None else [base64.b64decode(s) for s in sheets])

    def _ended(self) -> None:
        with self._lock:
            self._beside, self._ready = None, False
            left = list(self._waiting.values())
        for answer in left:
            if not answer.done():
                answer.set_result(None)


def _tasks() -> Iterator[Step]:
    """What the service says, until it says nothing for long or is gone."""
    said: SimpleQueue[Step] = SimpleQueue()

    def read() -> None:
        for line in sys.stdin:
            said.put(json.loads(line))
        said.put({})

    threading.Thread(target=read, daemon=True).start()
    with suppress(Empty):
        while task := said.get(timeout=IDLE_SECONDS):
            yield task


def main() -> None:
    next(sys.stdin, None)  # its task, which has nothing in it
    say(ready=True)
    for task in _tasks():
        sheets = None
        with suppress(RainPorchError):  # the service meets with it too, and tells it
            given: ReportInput = pickle.loads(
                base64.b64decode(task["given"])
            )  # by the service itself, of its own making
            sheets = [base64.b64encode(s).decode() for s in paper_made(given, task["wanted"])]
        say(asked=task["asked"], sheets=sheets)


if __name__ == "__main__":
    main()
