"""What every request works on, handed out one request at a time."""

from __future__ import annotations

import asyncio
from collections.abc import AsyncIterator
from typing import Annotated

from fastapi import Depends, Path, Request

from ..workups.backtester import Testing
from ..workups.incoming import IncomingFiles
from ..workups.records import Records
from ..workups.workups import Workups


class State:
    """The open records and workups. SQLite connections are shared, so requests take turns.

    Waiting is done on the event loop: no thread of the pool is held by a request whose turn has not come.
    """

    def __init__(self, records: Records, workups: Workups) -> None:
        self.records = records
        self.workups = workups
        self.incoming = IncomingFiles(records.folder)
        self.tests: dict[int, Testing] = {}  # running or done, by workup
        self.turn = asyncio.Lock()


async def take_turn(request: Request) -> AsyncIterator[State]:
    state: State = request.app.state.porch
    async with state.turn:
        yield state


def incoming_files(request: Request) -> IncomingFiles:
    """Files on their way in; they wait for nobody's turn."""
    state: State = request.app.state.porch
    return state.incoming


Files = Annotated[IncomingFiles, Depends(incoming_files)]
Porch = Annotated[State, Depends(take_turn)]

# no more than the store can hold
Number = Annotated[int, Path(ge=1, le=2**53)]
