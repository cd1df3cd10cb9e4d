"""Handing a report over: the papers are kept as they are at that moment, and sent where they are to be sent."""

from __future__ import annotations

import dataclasses
import json
import re
from typing import Any

from pydantic import Field

from ...core.errors import RainPorchError
from ...documents.base import Doc
from ...report import papers
from ...report.model import ReportInput
from ...store import db as database
from ...store.porch import deliveries as store
from ...store.porch import due_work
from ..agent import Agent
from ..workups import open_workup
from . import mail as mailing
from .report_input import report_input

NOT_SET_UP = "No mail server is set up: the message waits here as a file that any mail program opens."


class DeliverAsk(Doc):
    """email: where to send it; none hands it over without a message. words: the message's text."""

    client: str = Field(default="", max_length=200)
    email: str = Field(default="", max_length=254)
    subject: str = Field(default="", max_length=200)
    words: str = Field(default="", max_length=10_000)


class DeliveryDoc(Doc):
    """state: by_hand, sending, sent or waiting (said tells why)."""

    delivery_id: int
    workup_id: int
    revision: int
    title: str
    client: str
    email: str
    subject: str
    state: str
    said: str
    pages: int
    list_price: float | None
    made_at: str
    sent_at: str | None


def deliver(agent: Agent, workup_id: int, ask: DeliverAsk) -> int:
    """Freeze the workup's report and keep it; with an e-mail address its message is made too. Returns its number.

    Raises BadInput for an address that is none; nothing is kept then.
    """
    if ask.email:
        mailing.check_address(ask.email)
    given = report_input(agent, workup_id)
    pdf = papers.pdf(given)
    made: dict[str, bytes] = {"pdf": pdf, "html": papers.html(given), "json": _frozen(given)}
    subject = ask.subject.strip() or f"{given.title}: what it is worth"
    if ask.email:
        made["eml"] = mailing.message(
            _sender(), given.agent.get("name", ""), ask.email, ask.client, subject, ask.words or _words(given, ask), pdf,
            f"{re.sub(r'[^A-Za-z0-9]+', '-', given.title).strip('-') or 'report'}.pdf",
        )  # fmt: skip
    delivery = {
            "workup_id": workup_id, "revision": open_workup(agent, workup_id).revision, "title": given.title, "client": ask.client.strip(),
            "email": ask.email, "subject": subject if ask.email else "", "pages": len(given.paper.pages),
            "state": store.SENDING if ask.email else store.BY_HAND, "list_price": given.list_price,
            "made_at": agent.stamp(),
    }  # fmt: skip
    with database.atomic(agent.porch):
        number = store.add(agent.porch, agent.owner, delivery, made)
        if ask.email:
            _plan(agent, number)
    return number


def let_wait(porch: database.Database) -> None:
    """When the service starts, no message is on its way any more: what was being sent waits for another try."""
    store.let_wait(porch)


def deliveries(agent: Agent, workup_id: int | None = None) -> list[dict[str, Any]]:
    return store.listed(agent.porch, agent.owner, workup_id)


def delivered_paper(agent: Agent, delivery_id: int, form: str) -> bytes:
    return store.paper(agent.porch, agent.owner, delivery_id, form)


def send_again(agent: Agent, delivery_id: int) -> bool:
    """Send a message that waits; one that went out, or is on its way, is left alone (False)."""
    with database.atomic(agent.porch):
        if store.read(agent.porch, agent.owner, delivery_id)["state"] != store.WAITING:
            return False
        store.note(agent.porch, delivery_id, store.SENDING, "", None)
        _plan(agent, delivery_id)
    return True


def _plan(agent: Agent, delivery_id: int) -> None:
    due_work.add_once(agent.porch, agent.owner, "message", json.dumps({"delivery_id": delivery_id}), agent.stamp())


def post(agent: Agent, delivery_id: int) -> str:
    """Send a message; what came of it is kept with its delivery. Raises NotNow where it is to be tried again later."""
    db = agent.porch
    delivery = store.read(db, agent.owner, delivery_id)
    if delivery["state"] not in (store.SENDING, store.WAITING):
        return "It went out before."
    store.note(db, delivery_id, store.SENDING, "", None)
    try:
        server = mailing.Server.from_settings()
        if server is None:
            store.note(db, delivery_id, store.WAITING, NOT_SET_UP, None)
            return NOT_SET_UP
        mailing.send(server, _sender(), delivery["email"], store.paper(db, agent.owner, delivery_id, "eml"))
    except mailing.NotNow as error:
        store.note(db, delivery_id, store.WAITING, error.message, None)
        raise
    except RainPorchError as error:
        store.note(db, delivery_id, store.WAITING, error.message, None)
        return error.message
    store.note(db, delivery_id, store.SENT, "", agent.stamp())
    return "Sent."


def _sender() -> str:
    server = mailing.Server.from_settings()
    return (server.sender if server else "") or "agent@rain-porch.invalid"


def _words(given: ReportInput, ask: DeliverAsk) -> str:
    hello = f"Dear {ask.client},\n\n" if ask.client else ""
    name = given.agent.get("name", "")
    return f"{hello}Attached is what {given.title} is worth to buyers today, and how that was found.\n\n{name}\n"


def _frozen(given: ReportInput) -> bytes:
    """The workup and the records that the papers stood on, as data; pictures and base map are in the papers."""
    plain: dict[str, Any] = {
        f.name: getattr(given, f.name)
        for f in dataclasses.fields(given)
        if f.name not in ("pictures", "base_map", "paper")
    }
    plain["paper"] = dataclasses.asdict(given.paper)
    return json.dumps(plain, ensure_ascii=False, default=str).encode()
