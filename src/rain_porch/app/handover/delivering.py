"""Handing a report over: the papers are kept as they are at that moment, and sent where they are to be sent."""

from __future__ import annotations

import dataclasses
import json
import re
from collections.abc import Callable, Mapping
from typing import Any

from pydantic import Field

from ...core.errors import BadInput, RainPorchError
from ...core.facts.dates import said
from ...core.facts.local_form import told as in_form
from ...core.facts.money import priced
from ...core.phrases import phrase
from ...documents.base import Doc, Worded
from ...report import papers
from ...report.model import ReportInput
from ...store import db as database
from ...store.porch import deliveries as store
from ...store.porch import due_work
from ..office.agent import Agent
from ..office.choices import agent_card
from ..office.local_form import local_form
from ..workup.workups import keep_rules, open_workup
from . import mail as mailing
from . import reader_links
from .report_input import report_input

LINK_DAYS = 60  # that a link in a message opens the paper
NOT_SET_UP = "No mail server is set up: the message waits here as a file that any mail program opens."


class DeliverAsk(Doc):
    """email: where to send it; none hands it over without a message. words: the message's text."""

    client: str = Field(default="", max_length=200)
    email: str = Field(default="", max_length=254)
    subject: str = Field(default="", max_length=200)
    words: str = Field(default="", max_length=10_000)


class DeliveryDoc(Doc):
    """Of a workup, or of a bulletin (workup_id none) with records through a day. papers_of: the delivery whose papers these are, of
    one that went out with another. words: the message's, where it is written from them. state: by_hand, sending, sent or waiting
    (said tells why)."""

    delivery_id: int
    workup_id: int | None
    bulletin_id: int | None
    through: str | None
    papers_of: int | None
    revision: int
    title: str
    client: str
    email: str
    subject: str
    state: str
    said: Worded
    pages: int
    list_price: float | None
    made_at: str
    sent_at: str | None
    words: str = ""


def deliver(agent: Agent, workup_id: int, ask: DeliverAsk, link_base: str | None = None) -> int:
    """Freeze the workup's report and keep it; with an e-mail address its message is made too. Returns its number.

    link_base: the service's own address, where readers need an account: the message then holds a link that runs out; without it
    the web page goes along. Raises BadInput for an address that is none; nothing is kept then.
    """
    if ask.email:
        mailing.check_address(ask.email)
    given = report_input(agent, workup_id)
    made: dict[str, bytes] = {"pdf": papers.pdf(given), "html": papers.html(given), "json": _frozen(given)}
    keep_rules(agent, workup_id)  # once it is sure that there is something to deliver
    told = {
        "workup_id": workup_id, "revision": open_workup(agent, workup_id).revision, "title": given.title,
        "pages": len(given.paper.pages) - len(papers.without_words(given, None)), "list_price": given.list_price,
    }  # fmt: skip
    return _kept(agent, told, made, ask, link_base)


def deliver_copy(agent: Agent, delivery_id: int, ask: DeliverAsk, link_base: str | None = None) -> int:
    """The same papers again, as they went out, to the same people or to others: a delivery of its own. Returns its number."""
    if ask.email:
        mailing.check_address(ask.email)
    before = store.read(agent.porch, agent.owner, delivery_id)
    if before["bulletin_id"] is not None:
        return _copy_of_edition(agent, before, ask)
    made = {form: store.paper(agent.porch, agent.owner, delivery_id, form) for form in ("pdf", "html", "json")}
    told = {name: before[name] for name in ("workup_id", "revision", "title", "pages", "list_price")}
    return _kept(agent, told, made, ask, link_base)


def _copy_of_edition(agent: Agent, before: Mapping[str, Any], ask: DeliverAsk) -> int:
    """A bulletin as it was made once, to one more person: it shares the edition's papers, and is no edition itself."""
    told = {name: before[name] for name in ("bulletin_id", "through", "revision", "title", "pages", "list_price")}
    name = str(agent_card(agent).get("name", ""))
    through = in_form(said(before["through"]), local_form(agent).form())
    words = ask.words or mailing.letter(
        ask.client, phrase("mail-edition", title=str(before["title"]), through=through), name
    )
    copy = told | {
        "papers_of": before["papers_of"] or before["delivery_id"], "client": ask.client.strip(), "email": ask.email,
        "subject": (ask.subject.strip() or str(before["title"])) if ask.email else "", "words": words if ask.email else "",
        "state": store.SENDING if ask.email else store.BY_HAND, "made_at": agent.stamp(),
    }  # fmt: skip
    with database.atomic(agent.porch):
        number = store.add(agent.porch, agent.owner, copy, {})
        if ask.email:
            plan_message(agent, number)
    return number


def _kept(agent: Agent, told: dict[str, Any], made: dict[str, bytes], ask: DeliverAsk, link_base: str | None) -> int:
    title = str(told["title"])
    subject = ask.subject.strip() or phrase("mail-subject", title=title)
    delivery = told | {
        "client": ask.client.strip(), "email": ask.email, "subject": subject if ask.email else "",
        "state": store.SENDING if ask.email else store.BY_HAND, "made_at": agent.stamp(),
    }  # fmt: skip
    card = agent_card(agent)
    file = file_name(title)
    with database.atomic(agent.porch):
        number = store.add(agent.porch, agent.owner, delivery, made)
        if ask.email:
            words = ask.words or _words(title, str(card.get("name", "")), ask.client)
            attached = [(made["pdf"], "pdf", f"{file}.pdf")]
            if link_base:
                _, token, until = reader_links.make(agent, number, LINK_DAYS)
                read_until = phrase("mail-to-read", until=said(until.date()))
                words = f"{words.rstrip()}\n\n{read_until}\n{link_base.rstrip('/')}/api/read/{token}.html\n"
            else:
                attached.append((made["html"], "html", f"{file}.html"))
            envelope = _envelope(card, ask.email, ask.client, subject)
            store.add_paper(agent.porch, number, "eml", mailing.message(envelope, words, attached))
            plan_message(agent, number)
    return number


class ChangeDoc(Doc):
    """What differs between two deliveries: in words, how it was and how it is."""

    what: Worded
    before: Worded
    after: Worded


def compared(agent: Agent, delivery_id: int, other_id: int) -> list[ChangeDoc]:
    """What changed from one delivery to another, by the records that they stand on; empty where nothing that counts did."""
    old, new = (json.loads(store.paper(agent.porch, agent.owner, n, "json")) for n in (delivery_id, other_id))
    if "parts" in old or "parts" in new:
        return _moved(old, new)
    out = []
    for what, tell in _COMPARED.items():
        before, after = tell(old), tell(new)
        if before != after:
            out.append(ChangeDoc(what=what, before=before or "none", after=after or "none"))
    homes = [
        {c["listing_id"]: c["address"] or c["listing_id"] for c in d.get("chosen") or d["comps"]} for d in (old, new)
    ]
    gone, come = (", ".join(a[k] for k in a if k not in b) for a, b in (homes, homes[::-1]))
    out += [ChangeDoc(what="Chosen no longer", before=gone, after="")] if gone else []
    out += [ChangeDoc(what="Newly chosen", before="", after=come)] if come else []
    return out


def _moved(old: dict[str, Any], new: dict[str, Any]) -> list[ChangeDoc]:
    """How the key figures of a bulletin moved from one time it was made to another; BadInput where one of both is a report."""
    if "parts" not in old or "parts" not in new:
        raise BadInput("other_id", "A bulletin and a report are not compared: choose two of one kind.")
    was, now = old["figures"], new["figures"]
    out = [ChangeDoc(what="Records through", before=said(old["through"]), after=said(new["through"]))]
    for name, figure in now.items():
        before = was.get(name)
        if before is not None and before["shown"] != figure["shown"]:
            out.append(ChangeDoc(what=figure["label"], before=before["shown"], after=figure["shown"]))
    return out


def _range(d: dict[str, Any]) -> str:
    span = d["price"]["range"]
    return f"{priced(span['low'])} – {priced(span['high'])}" if span else ""


_COMPARED: dict[str, Callable[[dict[str, Any]], str]] = {
    "Home": lambda d: str(d["title"]),
    "List price": lambda d: priced(d["list_price"]) if d["list_price"] else "",
    "Indicated value": lambda d: priced(d["price"]["indicated_value"]) if d["price"]["indicated_value"] else "",
    "Likely range": _range,
    "Effective day": lambda d: said(d["price"]["effective_date"]),
    "Records through": lambda d: said(d["through"]),
    "Search": lambda d: str(d["price"]["sentence"]),
    "Found": lambda d: ", ".join(f"{n} {k.replace('_', ' ')}" for k, n in d["counts"].items() if n),
    "Market change a month": lambda d: f"{d['price']['market_change']['pct_per_month']:+.2f} %".replace("-", "−"),
}


def let_wait(porch: database.Database) -> None:
    """When the service starts, no message is on its way any more: what was being sent waits for another try."""
    store.let_wait(porch)


def deliveries(agent: Agent, workup_id: int | None = None) -> list[dict[str, Any]]:
    return store.listed(agent.porch, agent.owner, workup_id)


def delivered_paper(agent: Agent, delivery_id: int, form: str) -> bytes:
    """A paper as it went out; the message to a reader of a bulletin is written from its words and the papers that they share."""
    delivery = store.read(agent.porch, agent.owner, delivery_id)
    kept = store.paper_or_none(agent.porch, agent.owner, delivery_id, form)
    if kept is not None or form != "eml" or not delivery["email"]:
        return kept if kept is not None else store.paper(agent.porch, agent.owner, delivery_id, form)
    attached = [
        (store.paper(agent.porch, agent.owner, delivery_id, f), f, f"{file_name(delivery['title'])}.{f}")
        for f in ("pdf", "html")
    ]
    envelope = _envelope(agent_card(agent), delivery["email"], delivery["client"], delivery["subject"])
    return mailing.message(envelope, delivery["words"], attached)


def file_name(title: str) -> str:
    return re.sub(r"[^A-Za-z0-9]+", "-", title).strip("-") or "report"


def _envelope(card: Mapping[str, Any], email: str, client: str, subject: str) -> mailing.Envelope:
    return mailing.Envelope(
        mailing.sender(), str(card.get("name", "")), str(card.get("email", "")), email, client, subject
    )


def send_again(agent: Agent, delivery_id: int) -> bool:
    """Send a message that waits; one that went out, or is on its way, is left alone (False)."""
    with database.atomic(agent.porch):
        if store.read(agent.porch, agent.owner, delivery_id)["state"] != store.WAITING:
            return False
        store.note(agent.porch, delivery_id, store.SENDING, "", None)
        plan_message(agent, delivery_id)
    return True


def plan_message(agent: Agent, delivery_id: int) -> None:
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
        mailing.send(server, mailing.sender(), delivery["email"], delivered_paper(agent, delivery_id, "eml"))
    except mailing.NotNow as error:
        store.note(db, delivery_id, store.WAITING, error.message, None)
        raise
    except RainPorchError as error:
        store.note(db, delivery_id, store.WAITING, error.message, None)
        return error.message
    store.note(db, delivery_id, store.SENT, "", agent.stamp())
    return "Sent."


def _words(title: str, name: str, client: str) -> str:
    return mailing.letter(client, phrase("mail-worth", title=title), name)


def _frozen(given: ReportInput) -> bytes:
    """The workup and the records that the papers stood on, as data; pictures and base map are in the papers."""
    plain: dict[str, Any] = {
        f.name: getattr(given, f.name)
        for f in dataclasses.fields(given)
        if f.name not in ("pictures", "inside", "base_map", "paper", "own_pages", "brand")
    }
    plain["paper"] = dataclasses.asdict(given.paper)
    return json.dumps(plain, ensure_ascii=False, default=str).encode()
