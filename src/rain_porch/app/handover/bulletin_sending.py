"""A bulletin that keeps itself: made by a press or on its day of the month, kept as it was then, sent to its readers."""

from __future__ import annotations

import datetime as dt
import json
from collections.abc import Mapping
from typing import Any

from ...core.errors import BadInput
from ...core.facts.dates import said
from ...core.market.view_reading import shown, twelve_months
from ...core.phrases import joined, phrase
from ...documents.base import Doc, Worded
from ...report.papers import as_pdf
from ...store import db as database
from ...store.porch import deliveries as store
from ...store.porch import due_work
from ..bulletin.documents import BulletinDoc
from ..bulletin.kept import parts_of, read_bulletin
from ..office.agent import Agent
from ..office.choices import agent_card
from . import mail as mailing
from .bulletin_papers import html_of, model_of
from .delivering import ChangeDoc, compared, plan_message

HOUR = 6  # of the day on which it is made by itself


class EditionDoc(Doc):
    """A bulletin as it was made on a day, kept with its figures. readers: to how many it went."""

    delivery_id: int
    title: str
    through: str
    made_at: str
    pages: int
    readers: int


class EditionsDoc(Doc):
    """next_due: when it is made by itself next; none where it is not. said: what came of it last."""

    next_due: dt.datetime | None
    said: Worded
    editions: list[EditionDoc]


def check_readers(bulletin: BulletinDoc) -> None:
    """Raises BadInput for an address that is none, and for one that stands there twice."""
    seen: set[str] = set()
    for reader in bulletin.readers:
        mailing.check_address(reader.email)
        if reader.email.casefold() in seen:
            raise BadInput("readers", f"{reader.email} stands there twice: take one of them away.")
        seen.add(reader.email.casefold())


def editions(agent: Agent, bulletin_id: int) -> EditionsDoc:
    """All that were made, newest first. Raises NotFound."""
    read_bulletin(agent, bulletin_id)
    planned = _planned(agent, bulletin_id)
    made = [
        EditionDoc(**{k: row[k] for k in EditionDoc.model_fields})
        for row in store.editions(agent.porch, agent.owner, bulletin_id)
    ]
    due = None if planned is None or planned["stopped"] else dt.datetime.fromisoformat(planned["due_at"])
    return EditionsDoc(next_due=due, said=planned["last_said"] if planned else "", editions=made)


def last_through(agent: Agent, bulletin_id: int) -> dt.date | None:
    """The day through which a bulletin was made last; None where it never was."""
    last = next(iter(store.editions(agent.porch, agent.owner, bulletin_id)), None)
    return dt.date.fromisoformat(last["through"]) if last else None


def make_edition(agent: Agent, bulletin_id: int, send: bool) -> int:
    """Keep the bulletin as it is now, with its figures; a message to each reader where it is sent. Returns its number."""
    bulletin = read_bulletin(agent, bulletin_id)
    if send and not bulletin.readers:
        raise BadInput("readers", "This bulletin has no readers yet: add one, or keep it without sending.")
    last = next(iter(store.editions(agent.porch, agent.owner, bulletin_id)), None)
    through = agent.records.through()
    parts = parts_of(agent.records, bulletin, None, last_through(agent, bulletin_id))
    model = model_of(agent, bulletin, parts, None)
    papers = {
        "pdf": as_pdf(model),
        "html": html_of(agent, bulletin, parts, None),
        "json": json.dumps(
            {"title": bulletin.title, "through": through.isoformat(), "figures": key_figures(parts), "parts": parts},
            default=str, ensure_ascii=False,
        ).encode(),
    }  # fmt: skip
    told: dict[str, Any] = {
        "bulletin_id": bulletin_id, "through": through.isoformat(), "revision": 0, "title": bulletin.title, "client": "", "email": "",
        "subject": "", "state": store.BY_HAND, "pages": len(model["pages"]), "list_price": None, "made_at": agent.stamp(),
    }  # fmt: skip
    with database.atomic(agent.porch):
        number = store.add(agent.porch, agent.owner, told, papers)
        if send:
            moved = compared(agent, last["delivery_id"], number) if last else []
            headline = next((p["answer"]["headline"] for p in parts if p["kind"] == "headline"), "")
            for reader in bulletin.readers:
                message = {
                    **told, "client": reader.name.strip(), "email": reader.email, "subject": f"{bulletin.title}, {through:%B %Y}",
                    "state": store.SENDING, "papers_of": number,
                    "words": _words(bulletin, reader.name, headline, moved, str(agent_card(agent).get("name", ""))),
                }  # fmt: skip
                plan_message(agent, store.add(agent.porch, agent.owner, message, {}))
    return number


def key_figures(parts: list[dict[str, Any]]) -> dict[str, dict[str, Any]]:
    """The key figures of a bulletin's headline by measure: what a reader is told has moved."""
    told: list[dict[str, Any]] = next((p["answer"]["figures"] for p in parts if p["kind"] == "headline"), [])
    return {
        f["measure"]: {
            "label": f["label"],
            "value": f["value"]["value"],
            "n": f["value"]["n"],
            "shown": shown(f["value"]["value"], f["unit"]),
        }
        for f in told
        if f["value"]["value"] is not None
    }


def _words(bulletin: BulletinDoc, reader: str, headline: str, moved: list[ChangeDoc], name: str) -> str:
    """The message: the agent's own words, else the headline; then what moved since the last one."""
    own = bulletin.words.strip() or joined(phrase("mail-bulletin", title=bulletin.title), headline)
    if len(moved) > 1:
        lines = [phrase("mail-moved", what=c.what, after=str(c.after), before=str(c.before)) for c in moved[1:]]
        own = "\n".join([f"{own}\n\n{phrase('mail-since', through=str(moved[0].before))}", *lines])
    return mailing.letter(reader, own, name)


def _planned(agent: Agent, bulletin_id: int) -> dict[str, Any] | None:
    return next(
        (
            w for w in due_work.listed(agent.porch, agent.owner)
            if w["kind"] == "bulletin" and json.loads(w["details"])["bulletin_id"] == bulletin_id
        ),
        None,
    )  # fmt: skip


def keep_plan(agent: Agent, bulletin_id: int, day_of_month: int | None) -> None:
    """Let a bulletin be made by itself on its day from now on, or no longer. One that is planned for that day stays so."""
    planned = _planned(agent, bulletin_id)
    if planned is not None:
        if json.loads(planned["details"])["day"] == day_of_month:
            return
        due_work.forget(agent.porch, agent.owner, planned["work_id"])
    if day_of_month is not None:
        details = json.dumps({"bulletin_id": bulletin_id, "day": day_of_month})
        due = next_day(agent.now(), day_of_month)
        due_work.add(agent.porch, agent.owner, "bulletin", details, 24 * 60, due.isoformat(timespec="seconds"))


def next_day(now: dt.datetime, day_of_month: int) -> dt.datetime:
    """The next such day of a month at six in the morning."""
    at = now.replace(day=day_of_month, hour=HOUR, minute=0, second=0, microsecond=0)
    if at > now:
        return at
    return (at.replace(day=1) + dt.timedelta(days=32)).replace(day=day_of_month)


def last_due(today: dt.date, day_of_month: int) -> dt.date:
    """The newest such day of a month that is not to come."""
    if today.day >= day_of_month:
        return today.replace(day=day_of_month)
    return (today.replace(day=1) - dt.timedelta(days=1)).replace(day=day_of_month)


def make_if_due(agent: Agent, details: Mapping[str, Any]) -> str:
    """Looked at each day from the first one on: made once a month, as soon as the records hold a whole month that no edition had."""
    number, day = int(details["bulletin_id"]), int(details["day"])
    bulletin = read_bulletin(agent, number)
    due = last_due(agent.now().date(), day)
    made = store.editions(agent.porch, agent.owner, number)
    last = made[0] if made else None
    if last and last["made_at"][:10] >= due.isoformat():
        return f"Made on {said(last['made_at'][:10])}; the next is due on day {day} of the month."
    through = agent.records.through()
    newest = twelve_months(through)[0].end
    if last and twelve_months(dt.date.fromisoformat(last["through"]))[0].end >= newest:
        return f"It waits for the records: they run through {said(through)}, and {newest:%B} has been told already."
    make_edition(agent, number, send=bool(bulletin.readers))
    n = len(bulletin.readers)
    return (
        f"Made, and a message to {n} {'reader' if n == 1 else 'readers'} is on its way."
        if n
        else "Made and kept; it has no readers."
    )
