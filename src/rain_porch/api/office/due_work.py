"""Work that waits: what is due when, what came of it, stopped, begun again, done at once; and the mail that it sends."""

from __future__ import annotations

import datetime as dt
from typing import Literal

from pydantic import BaseModel, Field

from ...app import schedule
from ...app.handover.own_mail import MailDoc, mail_set_up, try_mail
from ...documents.base import Worded
from ..routing import api_router
from ..state import Number, Porch

router = api_router("settings")


class DueWorkDoc(BaseModel):
    """failures: how often it failed since it last came through. last_said: what came of it."""

    work_id: int
    kind: str
    name: str
    every_minutes: int | None
    due_at: dt.datetime
    usual_at: dt.datetime
    stopped: bool
    running_since: dt.datetime | None
    failures: int
    last_at: dt.datetime | None
    last_said: Worded


class PlanDoc(BaseModel):
    """due_at: now where none is given. Messages and feeds are planned where they are sent and pulled, by who may."""

    kind: Literal["backup"]
    every_minutes: int | None = Field(default=None, le=525_600)
    due_at: dt.datetime | None = None


@router.get("/due-work")
def waiting(porch: Porch) -> list[DueWorkDoc]:
    return [DueWorkDoc(**w) for w in schedule.waiting(porch.agent)]


@router.post("/due-work", status_code=201)
def plan(porch: Porch, body: PlanDoc) -> DueWorkDoc:
    due = (body.due_at or porch.agent.now()).replace(tzinfo=None)
    number = schedule.plan(porch.agent, body.kind, {}, body.every_minutes, due)
    porch.state.schedule.wake()
    return next(DueWorkDoc(**w) for w in schedule.waiting(porch.agent) if w["work_id"] == number)


class TimeDoc(BaseModel):
    """time: of the day, as the service's clock has it."""

    time: dt.time


@router.put("/due-work/{work_id}", status_code=204)
def set_time(porch: Porch, work_id: Number, body: TimeDoc) -> None:
    """Have daily or weekly work done at another time of the day."""
    schedule.set_time_of_day(porch.agent, work_id, body.time.replace(second=0, microsecond=0, tzinfo=None))
    porch.state.schedule.wake()


@router.post("/due-work/{work_id}/{act}", status_code=204)
def act_on(porch: Porch, work_id: Number, act: Literal["stop", "start", "now"]) -> None:
    if act == "now":
        schedule.do_now(porch.agent, work_id)
    else:
        schedule.stop(porch.agent, work_id, act == "stop")
    porch.state.schedule.wake()


@router.delete("/due-work/{work_id}", status_code=204)
def forget(porch: Porch, work_id: Number) -> None:
    schedule.forget(porch.agent, work_id)


class TriedDoc(BaseModel):
    said: Worded


@router.get("/mail")
def mail(porch: Porch) -> MailDoc:
    """What is set up to send mail."""
    return mail_set_up(porch.agent)


@router.post("/mail/try")
def send_to_oneself(porch: Porch) -> TriedDoc:
    """Send a message to one's own address, to see whether mail works."""
    return TriedDoc(said=try_mail(porch.agent))
