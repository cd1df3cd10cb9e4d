"""Handing over: what was delivered stays as it was; messages go out whole, or wait and say why."""

from __future__ import annotations

import dataclasses
import datetime as dt
import email
import io
import json
import re
import socket
from email import policy
from pathlib import Path

import pytest
from pypdf import PdfReader

from rain_porch.app.handover import mail as mailing
from rain_porch.app.handover import reader_links
from rain_porch.app.handover.branding import CardDoc, set_card
from rain_porch.app.handover.delivering import (
    NOT_SET_UP,
    DeliverAsk,
    compared,
    deliver,
    deliver_copy,
    delivered_paper,
    deliveries,
    send_again,
)
from rain_porch.app.pricing.opened import suggested
from rain_porch.app.schedule import Schedule
from rain_porch.app.workup.workups import delete_workup, list_workups, open_workup
from rain_porch.core.errors import BadInput, NotFound
from rain_porch.store.porch import deliveries as store
from rain_porch.store.porch import due_work
from tests.app.workup.test_changes import begun, change
from tests.conftest import NOW


@pytest.fixture
def priced(agent):
    n = begun(agent)
    change(agent, n, change="decide", listing_ids=suggested(open_workup(agent, n)), choice="kept")
    change(agent, n, change="set_list_price", list_price=309900)
    return n


def send_what_is_due(agent):
    while Schedule(agent.porch, lambda owner: agent, agent.now).do_next():
        pass


def posted(agent, n, **ask):
    number = deliver(agent, n, DeliverAsk(**ask))
    send_what_is_due(agent)
    return store.read(agent.porch, 1, number)


def test_what_was_delivered_does_not_change_when_the_workup_does(agent, priced, tmp_path):
    held = posted(agent, priced, client="Wilma Carrow")
    assert (held["state"], held["pages"], held["list_price"]) == ("by_hand", 3, 309900)
    before = delivered_paper(agent, held["delivery_id"], "pdf")
    change(agent, priced, change="set_list_price", list_price=250000)
    assert delivered_paper(agent, held["delivery_id"], "pdf") == before
    text = PdfReader(tmp_path / "x.pdf" if (tmp_path / "x.pdf").write_bytes(before) else "").pages[0].extract_text()
    assert "309,900" in text and "250,000" not in text
    stood_on = json.loads(delivered_paper(agent, held["delivery_id"], "json"))
    assert stood_on["list_price"] == 309900 and len(stood_on["comps"]) == len(stood_on["price"]["comps"]) > 3
    assert "list_agent_full_name" not in json.dumps(stood_on)
    assert list_workups(agent)[0]["delivered"] == "delivered to Wilma Carrow on Nov 2, 2026"
    delete_workup(agent, priced)
    assert delivered_paper(agent, held["delivery_id"], "pdf") == before, "it outlives its workup"


def test_a_message_carries_the_pdf_unharmed(agent, priced, mail_server: Path):
    held = posted(
        agent, priced, client="Wílma, Carrow", email="wilma@carrow.example", subject="Your home\r\nBcc: x@y.example"
    )
    assert held["state"] == "sent" and held["sent_at"]
    (laid,) = mail_server.glob("*.eml")
    ours = email.message_from_bytes(delivered_paper(agent, held["delivery_id"], "eml"), policy=policy.default)
    theirs = email.message_from_bytes(laid.read_bytes(), policy=policy.default)
    for made in (ours, theirs):
        pdf, page = made.iter_attachments()
        assert page.get_content_type() == "text/html" and "630 Hedgerow Terrace" in page.get_content()
        assert pdf.get_content() == delivered_paper(agent, held["delivery_id"], "pdf")
        assert pdf.get_filename() == "630-Hedgerow-Terrace.pdf" and pdf.get_content_type() == "application/pdf"
        assert made["To"].addresses[0].display_name == "Wílma, Carrow" and made["Bcc"] is None
        assert made["Subject"] == "Your home Bcc: x@y.example"
        assert "Dear Wílma, Carrow," in made.get_body(("plain",)).get_content()


def test_a_server_that_refuses_hangs_or_is_not_there_keeps_the_message_waiting(agent, priced, mail_server, monkeypatch):
    held = posted(agent, priced, email="nobody@refused.example")
    assert held["state"] == "waiting" and "does not take mail for nobody@refused.example: 550" in held["said"]
    monkeypatch.setattr(mailing, "TIMEOUT_SECONDS", 0.3)
    with socket.socket() as silent:
        silent.bind(("127.0.0.1", 0))
        silent.listen()
        monkeypatch.setenv("RAIN_PORCH_SMTP", f"127.0.0.1:{silent.getsockname()[1]}")
        held = posted(agent, priced, email="wilma@carrow.example")
    assert held["state"] == "waiting" and "did not answer" in held["said"]
    held = posted(agent, priced, email="wilma@carrow.example")
    assert held["state"] == "waiting" and "cannot be reached" in held["said"]
    monkeypatch.delenv("RAIN_PORCH_SMTP")
    assert posted(agent, priced, email="wilma@carrow.example")["said"] == NOT_SET_UP


def test_an_address_that_the_server_cannot_write_waits_and_says_so(agent, priced, mail_server):
    held = posted(agent, priced, email="wílma@carrow.example")
    assert held["state"] == "waiting" and "takes no address like wílma@carrow.example" in held["said"]


def test_what_waits_is_tried_again(agent, priced, mail_server, monkeypatch):
    address = mailing.setting("RAIN_PORCH_SMTP")
    monkeypatch.delenv("RAIN_PORCH_SMTP")
    held = posted(agent, priced, email="wilma@carrow.example")
    monkeypatch.setenv("RAIN_PORCH_SMTP", address)
    assert send_again(agent, held["delivery_id"])
    assert not send_again(agent, held["delivery_id"]), "pressed twice, it goes once"
    send_what_is_due(agent)
    assert store.read(agent.porch, 1, held["delivery_id"])["state"] == "sent"
    assert not send_again(agent, held["delivery_id"]), "what went out does not go twice"
    assert len(list(mail_server.glob("*.eml"))) == 1


def test_a_server_that_is_away_is_tried_again_by_itself(agent, priced, mail_server, monkeypatch):
    address = mailing.setting("RAIN_PORCH_SMTP")
    monkeypatch.setenv("RAIN_PORCH_SMTP", "127.0.0.1:9")
    held = posted(agent, priced, email="wilma@carrow.example")
    assert held["state"] == "waiting" and "try again later" in held["said"]
    monkeypatch.setenv("RAIN_PORCH_SMTP", address)
    send_what_is_due(agent)
    assert store.read(agent.porch, 1, held["delivery_id"])["state"] == "waiting", "its minute is not over"
    later = agent.now() + dt.timedelta(minutes=2)
    send_what_is_due(dataclasses.replace(agent, now=lambda: later))
    assert store.read(agent.porch, 1, held["delivery_id"])["state"] == "sent"
    assert due_work.listed(agent.porch, 1) == []


def test_what_was_being_sent_at_a_stop_waits_for_a_word_and_what_was_not_begun_goes_out(agent, priced, mail_server):
    numbers = [deliver(agent, priced, DeliverAsk(email=f"{who}@carrow.example")) for who in ("first", "second")]
    due_work.take_next(agent.porch, agent.stamp())  # and the service is killed
    store.let_wait(agent.porch)
    send_what_is_due(agent)
    states = [store.read(agent.porch, 1, n) for n in numbers]
    assert [s["state"] for s in states] == ["waiting", "sent"] and "while it was being sent" in states[0]["said"]
    assert len(list(mail_server.glob("*.eml"))) == 1


@pytest.mark.parametrize(
    "address", ["nobody", "a@b", "a b@c.example", "<x@y.example>", "x@y.example, z@y.example", "a" * 250 + "@b.example"]
)
def test_addresses_that_are_none_keep_nothing(agent, priced, address):
    with pytest.raises(BadInput):
        deliver(agent, priced, DeliverAsk(email=address[:254]))
    assert deliveries(agent) == []


def test_the_same_papers_go_to_somebody_else_as_they_were(agent, priced, mail_server: Path):
    first = posted(agent, priced, client="Wilma Carrow")["delivery_id"]
    change(agent, priced, change="set_list_price", list_price=250000)
    number = deliver_copy(agent, first, DeliverAsk(client="Bram Carrow", email="bram@carrow.example"))
    send_what_is_due(agent)
    held = store.read(agent.porch, 1, number)
    assert (held["state"], held["client"], held["list_price"]) == ("sent", "Bram Carrow", 309900)
    for form in ("pdf", "html", "json"):
        assert delivered_paper(agent, number, form) == delivered_paper(agent, first, form)
    with pytest.raises(BadInput, match="no e-mail address"):
        deliver_copy(agent, first, DeliverAsk(email="bram"))
    assert len(deliveries(agent)) == 2, "nothing is kept of what was refused"


def test_two_deliveries_are_compared_in_words(agent, priced):
    first = posted(agent, priced)["delivery_id"]
    kept = open_workup(agent, priced).state.kept()
    change(agent, priced, change="set_list_price", list_price=319900)
    change(agent, priced, change="decide", listing_ids=[kept[0]], choice="set_aside", reason="x")
    second = posted(agent, priced)["delivery_id"]
    told = {c.what: (c.before, c.after) for c in compared(agent, first, second)}
    assert told["List price"] == ("$309,900", "$319,900") and "Indicated value" in told
    home = json.loads(delivered_paper(agent, first, "json"))["comps"][0]["address"]
    assert told["Chosen no longer"] == (home, "") and "Newly chosen" not in told
    assert compared(agent, first, first) == []


def test_answers_go_to_the_agent_and_a_reader_gets_a_link_that_runs_out(agent, priced):
    set_card(agent, CardDoc(name="Perrin Vale", email="perrin@vale.example", phone="555 0100"))
    number = deliver(agent, priced, DeliverAsk(email="wilma@carrow.example"), "https://porch.example/office/")
    made = email.message_from_bytes(delivered_paper(agent, number, "eml"), policy=policy.default)
    assert made["Reply-To"].addresses[0].addr_spec == "perrin@vale.example"
    words = made.get_body(("plain",)).get_content()
    token = re.search(r"https://porch\.example/office/api/read/([\w-]+)\.html", words).group(1)
    assert "until Jan 1, 2027" in words and [a.get_content_type() for a in made.iter_attachments()] == [
        "application/pdf"
    ]
    assert reader_links.paper(agent.porch, token, "html", NOW) == delivered_paper(agent, number, "html")
    with pytest.raises(NotFound):
        reader_links.paper(agent.porch, token, "html", NOW + dt.timedelta(days=61))
    text = " ".join(PdfReader(io.BytesIO(delivered_paper(agent, number, "pdf"))).pages[0].extract_text().split())
    assert "Perrin Vale · 555 0100 · perrin@vale.example" in text, "on every page's foot"
    set_card(agent, CardDoc())
