"""What came of an agent's workups, told by the newest records, and how near their prices came."""

from __future__ import annotations

import datetime as dt

from ...core.errors import RainPorchError
from ...core.facts.dates import NO_DAY, date_of, day_of
from ...core.price.track_record import Came, came_of, said_of, track_record
from ...documents.base import Doc, Worded
from ..office.agent import Agent
from ..pricing.opened import Opened, priced
from .workups import list_workups, open_workup

MOST = 200  # workups that are looked through, the newest first


class OutcomeDoc(Doc):
    """One workup's home since its day. off_pct: of the worth against what was paid; kind: of its newest listing."""

    workup_id: int
    title: str
    effective_date: dt.date
    indicated_value: float | None
    list_price: float | None
    listed_on: dt.date | None
    first_list: float | None
    last_list: float | None
    kind: str
    sold_on: dt.date | None
    price: float | None
    off_pct: float | None


class OutcomesDoc(Doc):
    """says: of the last twenty that sold; why not, where there are too few."""

    says: Worded
    rows: list[OutcomeDoc]


def outcomes(agent: Agent) -> OutcomesDoc:
    """Of the agent's own workups, those at hand and those put away, whose home has been on the market or sold since."""
    listed = [row for away in (False, True) for row in list_workups(agent, archived=away) if row["whose"] is None]
    listed.sort(key=lambda row: str(row.get("effective_date", "")), reverse=True)
    rows = [doc for row in listed[:MOST] if (doc := _outcome(agent, int(row["workup_id"]), str(row["title"])))]
    sold = sorted((r for r in rows if r.price and r.indicated_value), key=lambda r: str(r.sold_on), reverse=True)
    record = track_record([(r.indicated_value or 0.0, r.list_price, r.price or 0.0) for r in sold])
    says = (
        said_of(record)
        if record
        else f"Too few of your workups' homes have sold since to say how near they came ({len(sold)})."
    )
    return OutcomesDoc(says=says, rows=rows)


def _outcome(agent: Agent, workup_id: int, title: str) -> OutcomeDoc | None:
    try:
        opened = open_workup(agent, workup_id)
    except RainPorchError:  # its home is no longer in the records
        return None
    columns = opened.standpoint.columns
    newest = columns.as_of(day_of(agent.records.through()))
    came = came_of(columns, newest, opened.subject, opened.standpoint.view.day)
    return None if came is None else _doc(opened, title, came)


def _doc(opened: Opened, title: str, came: Came) -> OutcomeDoc:
    try:
        value = priced(opened).shown if opened.state.kept() else None
    except RainPorchError:
        value = None
    return OutcomeDoc(
        workup_id=opened.workup_id, title=title, effective_date=opened.state.effective_date,
        indicated_value=value, list_price=opened.state.list_price,
        listed_on=_date(came.listed), first_list=came.first_list, last_list=came.last_list, kind=came.kind,
        sold_on=_date(came.sold), price=came.price,
        off_pct=round(100 * (value / came.price - 1), 1) if value and came.price else None,
    )  # fmt: skip


def _date(day: int) -> dt.date | None:
    return None if day == NO_DAY else date_of(day)
