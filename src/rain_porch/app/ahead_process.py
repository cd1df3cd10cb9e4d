"""Many workups priced by a process of its own: `python -m` this module. The service goes on answering meanwhile, and takes over what
took long. It reads one JSON line with what to work out, and writes what it has as one pickle; where it fails, the service works it
out itself when it is asked."""

from __future__ import annotations

import datetime as dt
import json
import os
import pickle
import sqlite3
import subprocess
import sys
from collections.abc import Hashable, Iterator, Sequence
from contextlib import contextmanager, suppress
from pathlib import Path
from typing import Any

from ..core.errors import RainPorchError
from ..store.db import PORCH, Database
from ..store.records.kept_columns import code_digest
from .handover.report_input import report_input
from .office.agent import Agent
from .pricing.opened import found_candidates, priced
from .pricing.past_listings import past_listings
from .processors import on_one_processor
from .records import Records
from .snapshot import Snapshot
from .workup.workups import open_workup

MODULE = "rain_porch.app.ahead_process"
LONGEST_SECONDS = 120

Fits = list[tuple[Hashable, Any]]


def worked_out_beside(records: Snapshot, now: dt.datetime, workups: Sequence[tuple[int, int]]) -> Fits:
    """What took long of the prices and chances of these workups, each by its owner and number, on just these records and by the same
    core; nothing where that fails."""
    stands = _stands(records)
    task = {"folder": str(records.folder), "now": now.isoformat(), "workups": workups, "stands": stands}
    try:
        done = subprocess.run(
            [sys.executable, "-m", MODULE], input=(json.dumps(task) + "\n").encode(), stdout=subprocess.PIPE,
            stderr=subprocess.DEVNULL, check=True, timeout=LONGEST_SECONDS,
        )  # fmt: skip
        made: Fits = pickle.loads(done.stdout)  # by this program itself
        return made
    except (OSError, subprocess.SubprocessError, pickle.UnpicklingError, EOFError, AttributeError, ImportError):
        return []  # the last ones: the program was changed under the service


def _stands(records: Snapshot) -> list[Any]:
    """What the fits hang on: the state of the records, the last backtest, the code of the core."""
    return [records.mark, *records.stamp, code_digest()]


def main() -> None:
    os.nice(5)  # whoever looks at a screen meanwhile goes first
    task = json.loads(sys.stdin.readline())
    now = dt.datetime.fromisoformat(task["now"])
    with _opened(Path(task["folder"]), now) as (snapshot, porch):
        fits: Fits = []
        if _stands(snapshot) == task["stands"]:
            for owner, workup_id in task["workups"]:
                work_out(Agent.on(snapshot, owner, porch, lambda: now), workup_id)
            fits = snapshot.fits.held()
        pickle.dump(fits, sys.stdout.buffer, pickle.HIGHEST_PROTOCOL)


def work_out(agent: Agent, workup_id: int, with_pages: bool = False) -> None:
    """What the rooms of a workup ask for, and its paper. What has gone meanwhile, or cannot be priced on these records, is told to who asks for it."""
    with suppress(RainPorchError, sqlite3.ProgrammingError):
        opened = open_workup(agent, workup_id)
        priced(opened)
        with suppress(RainPorchError):  # a search that names an area which has gone
            found_candidates(opened)
        past_listings(opened.standpoint)
        if with_pages:
            report_input(agent, workup_id)


@contextmanager
def _opened(folder: Path, now: dt.datetime) -> Iterator[tuple[Snapshot, Database]]:
    records, porch = Records(folder, today=now.date), Database(folder, PORCH)
    with on_one_processor():
        yield records.snapshot(), porch
    porch.close()
    records.close()


if __name__ == "__main__":
    main()
