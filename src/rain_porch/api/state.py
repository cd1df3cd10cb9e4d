"""What a request works on: who asks, the records as they are at its beginning, and what runs beside."""

from __future__ import annotations

import datetime as dt
import secrets
from collections.abc import Callable
from dataclasses import dataclass
from pathlib import Path as FilePath
from typing import Annotated

from fastapi import Depends, Path, Query, Request

from ..app.at_work import AtWork
from ..app.handover.delivering import let_wait
from ..app.handover.paper_process import PaperProcess
from ..app.incoming.files import IncomingFiles
from ..app.incoming.undoing import Undoing
from ..app.office import accounts
from ..app.office.agent import Agent
from ..app.pricing.backtester import Testing
from ..app.records import Records
from ..app.schedule import Schedule
from ..app.snapshot import Snapshot
from ..settings import feeds_nearby
from ..store import db as database


class State:
    """The open data folder. Requests run side by side: each reads one snapshot of the records."""

    def __init__(
        self,
        folder: FilePath,
        now: Callable[[], dt.datetime],
        is_open_here: bool,
        path: str,
        records: Records | None = None,
    ) -> None:
        """is_open_here: nobody but who sits at this machine can reach the service, and works as the folder's owner until there
        are accounts. path: under which a proxy offers the service, "" for none. records: those of the folder, where somebody
        has them open already, and closes them."""
        self.path = path
        self.now = now
        self.is_open_here = is_open_here
        self.first_code = new_code()
        self.porch = database.Database(folder, database.PORCH)
        self.working_on = AtWork(lambda on, owner: Agent.on(on, owner, self.porch, now), now)
        self._own_records = records is None
        self.records = records or Records(folder, today=lambda: now().date(), ahead=self.working_on.make_ahead)
        self.incoming = IncomingFiles(folder, now)
        self.undoing = Undoing()
        self.tests: dict[int, Testing] = {}  # running or done, by workup
        let_wait(self.porch)
        self.schedule = Schedule(self.porch, self.agent_of, now)
        self.papers: PaperProcess | None = None  # where papers are made beside

    def at_work(self) -> None:
        """Somebody is at work, and papers will be asked for: what makes them gets ready meanwhile."""
        if self.papers:
            self.papers.start()

    def close(self) -> None:
        self.schedule.end()
        if self.papers:
            self.papers.stop()
        self.porch.close()
        if self._own_records:
            self.records.close()

    def feeds_nearby(self) -> bool:
        """Whether a feed may stand on this machine or its network: where whoever asks sits here, or the settings allow it."""
        return feeds_nearby() or (self.is_open_here and not accounts.somebody_signs_in(self.porch))

    def agent_of(self, owner: int) -> Agent:
        """The agent of an account, on the newest records."""
        return Agent.on(self.records.snapshot(), owner, self.porch, self.now)


@dataclass(frozen=True)
class Asked:
    """One request: its agent with one snapshot of the records, which is all that it reads."""

    agent: Agent
    state: State

    @property
    def records(self) -> Snapshot:
        return self.agent.records

    @property
    def live(self) -> database.Database:
        """records.db itself, for what is no part of a snapshot: imports, feeds, what the agent says of a record."""
        return self.state.records.live

    @property
    def tests(self) -> dict[int, Testing]:
        return self.state.tests


async def asked(request: Request) -> Asked:
    """What the request works on; `who.may` has let it in."""
    return Asked(request.state.agent, request.app.state.porch)


def new_code() -> str:
    """What the service prints for who makes the first account: four groups of four signs that are not mixed up."""
    return "-".join("".join(secrets.choice("ABCDEFGHJKMNPQRSTUVWXYZ23456789") for _ in range(4)) for _ in range(4))


async def incoming_files(request: Request) -> IncomingFiles:
    """Files on their way in."""
    state: State = request.app.state.porch
    return state.incoming


Files = Annotated[IncomingFiles, Depends(incoming_files)]
Porch = Annotated[Asked, Depends(asked)]

# no more than the store can hold
Number = Annotated[int, Path(ge=1, le=2**53)]
AskedNumber = Annotated[int | None, Query(ge=1, le=2**53)]
