"""What every request works on, handed out one request at a time."""

from __future__ import annotations

import threading
from collections.abc import Iterator
from typing import Annotated

from fastapi import Depends, Request

from ..workups.records import Records
from ..workups.workups import Workups


class State:
    """The open records and workups. SQLite connections are shared, so requests take turns."""

    def __init__(self, records: Records, workups: Workups) -> None:
        self.records = records
        self.workups = workups
        self.turn = threading.RLock()


def take_turn(request: Request) -> Iterator[State]:
    state: State = request.app.state.porch
    with state.turn:
        yield state


Porch = Annotated[State, Depends(take_turn)]
