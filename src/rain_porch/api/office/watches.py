"""Saved searches and market views that are watched."""

from __future__ import annotations

import datetime as dt

from pydantic import BaseModel, Field

from ...app import watching
from ...app.office.watches import Kind, stop_watching
from ...app.schedule import Rhythm
from ...app.watching import WatchDoc
from ..routing import api_router
from ..state import Porch

router = api_router("watches")


class WatchedDoc(BaseModel):
    """A saved search or view, by its number."""

    kind: Kind
    number: int = Field(ge=1, le=2**53)


class WatchRequest(WatchedDoc):
    every_minutes: Rhythm | None = Field(description="how often it is looked at; none: no more")


@router.get("/watches")
def watched(porch: Porch) -> list[WatchDoc]:
    """All that is watched, with what is new, what has news first."""
    return watching.watched(porch.agent)


@router.put("/watches", status_code=204)
def watch(porch: Porch, body: WatchRequest) -> None:
    """Watch a saved search or view, or watch it no more. What stands there now counts as told."""
    if body.every_minutes is None:
        stop_watching(porch.agent, body.kind, body.number)
    else:
        watching.watch(porch.agent, body.kind, body.number, body.every_minutes)
        porch.state.schedule.wake()


class SeenRequest(WatchedDoc):
    """told_at: of the news that were looked at."""

    told_at: dt.datetime


@router.post("/watches/seen", status_code=204)
def seen(porch: Porch, body: SeenRequest) -> None:
    """The news of one have been looked at: they go from the desk, unless more have come since."""
    watching.seen_by_agent(porch.agent, body.kind, body.number, body.told_at.replace(tzinfo=None))
