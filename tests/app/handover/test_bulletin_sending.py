"""A bulletin that keeps itself: kept as it was, sent to each reader alone, on its day, once for each month of records."""

from __future__ import annotations

import datetime as dt
import email
import json
from dataclasses import replace
from email import policy

import pytest

from rain_porch.app.bulletin.documents import BulletinDoc, ReaderDoc
from rain_porch.app.bulletin.kept import add_bulletin, change_bulletin, delete_bulletin, read_bulletin, ready
from rain_porch.app.handover import bulletin_sending as sending
from rain_porch.app.handover.delivering import DeliverAsk, compared, deliver_copy, delivered_paper, deliveries
from rain_porch.app.market.views import ViewDoc
from rain_porch.app.office.clients import add_clients
from rain_porch.app.office.erasing import erase_client
from rain_porch.app.schedule import Schedule, waiting
from rain_porch.core.errors import BadInput, NotFound
from rain_porch.store.porch import deliveries as store
from rain_porch.store.porch import due_work
from tests.app.handover.test_delivering import send_what_is_due

VIEW = ViewDoc(measures=["median_price"], places=["Lantern Hill"], home_kind="detached")
READERS = [ReaderDoc(name="Wilma Carrow", email="wilma@carrow.example"), ReaderDoc(email="theo@ashe.example")]


def made(agent, **more):
    return add_bulletin(agent, ready("one_page", VIEW, "Lantern Hill").model_copy(update=more))


def test_each_reader_gets_a_message_of_their_own_with_the_same_papers(agent, mail_server):
    n = made(agent, readers=READERS)
    edition = sending.make_edition(agent, n, send=True)
    send_what_is_due(agent)
    rows = [d for d in deliveries(agent) if d["bulletin_id"] == n]
    assert sorted((d["email"], d["state"]) for d in rows) == [
        ("", "by_hand"), ("theo@ashe.example", "sent"), ("wilma@carrow.example", "sent"),
    ]  # fmt: skip
    assert all(d["workup_id"] is None and d["through"] == "2026-10-31" for d in rows)
    laid = [email.message_from_bytes(p.read_bytes(), policy=policy.default) for p in mail_server.glob("*.eml")]
    assert sorted(str(m["To"]) for m in laid) == ["Wilma Carrow <wilma@carrow.example>", "theo@ashe.example"]
    for m in laid:
        pdf, page = m.iter_attachments()
        assert (
            pdf.get_content() == delivered_paper(agent, edition, "pdf") and page.get_filename() == "Lantern-Hill.html"
        )
        words = m.get_body(("plain",)).get_content()
        assert "Detached homes in Lantern Hill sold for" in words and "Since the last one" not in words
        assert ("theo" not in words and "Theo" not in words) or "Wilma" not in words
    held = agent.porch.execute("SELECT count(*) FROM delivered_papers").fetchone()[0]
    assert held == 3, "the papers are kept once, however many read them"


def test_what_was_sent_is_frozen_and_the_next_one_says_what_moved(agent):
    n = made(agent, readers=READERS[:1], words="For you.")
    earlier = replace(agent, records=AsOf(agent.records, dt.date(2026, 8, 31)))
    first = sending.make_edition(earlier, n, send=True)
    before = delivered_paper(agent, first, "pdf")
    change_bulletin(agent, n, read_bulletin(agent, n).model_copy(update={"comment": "New words."}))
    second = sending.make_edition(agent, n, send=True)
    assert delivered_paper(agent, first, "pdf") == before
    figures = [json.loads(delivered_paper(agent, x, "json"))["figures"] for x in (first, second)]
    moved = compared(agent, first, second)
    assert moved[0].model_dump() == {"what": "Records through", "before": "Aug 31, 2026", "after": "Oct 31, 2026"}
    for change in moved[1:]:
        told = next(f for f in figures[1].values() if f["label"] == change.what)
        assert change.after == told["shown"] != change.before
    message = next(d for d in deliveries(agent) if d["email"] and d["through"] == "2026-10-31")
    assert message["words"].startswith(
        "Dear Wilma Carrow,\n\nFor you.\n\nSince the last one, with records through Aug 31, 2026:\n- "
    )
    assert all(f"- {c.what}: {c.after}, was {c.before}" in message["words"] for c in moved[1:])
    assert [e.readers for e in sending.editions(agent, n).editions] == [1, 1]
    with pytest.raises(BadInput, match="of one kind"):
        agent.porch.execute(
            "UPDATE delivered_papers SET data = CAST('{}' AS BLOB) WHERE delivery_id = ? AND form = 'json'", (first,)
        )
        compared(agent, first, second)


class AsOf:
    """A snapshot whose records end on an earlier day."""

    def __init__(self, records, day):
        self._records, self._day = records, day

    def __getattr__(self, name):
        return (lambda: self._day) if name == "through" else getattr(self._records, name)


def test_its_day_comes_once_for_each_month_of_records(agent):
    """Planned for the next such day; that day missed it is made up for; a month that was told is not told again."""
    n = made(agent, readers=READERS, day_of_month=5)
    sending.keep_plan(agent, n, 5)
    (work,) = due_work.listed(agent.porch, agent.owner)
    assert work["due_at"] == "2026-11-05T06:00:00" and sending.editions(agent, n).next_due == dt.datetime(
        2026, 11, 5, 6
    )
    assert waiting(agent)[0]["name"] == "Make a bulletin and send it, Lantern Hill"
    sending.keep_plan(agent, n, 5)
    assert [w["work_id"] for w in due_work.listed(agent.porch, agent.owner)] == [work["work_id"]], (
        "the same day is planned once"
    )
    late = replace(agent, now=lambda: dt.datetime(2026, 11, 7, 8))  # the machine was off on the day
    schedule = Schedule(agent.porch, lambda owner: late, late.now)
    assert schedule.do_next()
    assert "a message to 2 readers is on its way" in sending.editions(agent, n).said
    assert len(store.editions(agent.porch, agent.owner, n)) == 1
    details = {"bulletin_id": n, "day": 5}
    assert "the next is due on day 5" in sending.make_if_due(late, details)
    month_on = replace(agent, now=lambda: dt.datetime(2026, 12, 5, 6))
    assert "October has been told already" in sending.make_if_due(month_on, details)
    newer = replace(month_on, records=AsOf(agent.records, dt.date(2026, 11, 30)))
    assert (
        sending.make_if_due(newer, details).startswith("Made") and len(store.editions(agent.porch, agent.owner, n)) == 2
    )
    sending.keep_plan(agent, n, None)
    assert not [w for w in due_work.listed(agent.porch, agent.owner) if w["kind"] == "bulletin"]


@pytest.mark.parametrize(
    ("now", "day", "due", "last"),
    [
        (dt.datetime(2026, 11, 2, 19), 5, dt.datetime(2026, 11, 5, 6), dt.date(2026, 10, 5)),
        (dt.datetime(2026, 11, 5, 5), 5, dt.datetime(2026, 11, 5, 6), dt.date(2026, 11, 5)),
        (dt.datetime(2026, 11, 5, 6), 5, dt.datetime(2026, 12, 5, 6), dt.date(2026, 11, 5)),
        (dt.datetime(2026, 12, 31, 9), 28, dt.datetime(2027, 1, 28, 6), dt.date(2026, 12, 28)),
        (dt.datetime(2027, 1, 1, 9), 28, dt.datetime(2027, 1, 28, 6), dt.date(2026, 12, 28)),
    ],
)
def test_days_of_months(now, day, due, last):
    assert sending.next_day(now, day) == due and sending.last_due(now.date(), day) == last


def test_what_cannot_be_sent_is_refused_and_nothing_is_kept(agent):
    n = made(agent)
    with pytest.raises(BadInput, match="no readers yet"):
        sending.make_edition(agent, n, send=True)
    assert not deliveries(agent) and sending.make_edition(agent, n, send=False)
    for readers, why in ((["nobody"], "no e-mail address"), (["a@b.example", "A@b.example"], "twice")):
        with pytest.raises(BadInput, match=why):
            sending.check_readers(BulletinDoc(title="x", readers=[ReaderDoc(email=e) for e in readers]))
    with pytest.raises(NotFound):
        sending.editions(replace(agent, owner=7), n)
    delete_bulletin(agent, n)
    assert len(deliveries(agent)) == 1, "what was made stays among the deliveries"


def test_a_copy_is_no_edition_and_speaks_of_the_bulletin(agent):
    """Sent once more, by hand or to somebody else: the same papers, kept once; the day of the month is not put off by it."""
    n = made(agent, readers=READERS[:1])
    edition = sending.make_edition(agent, n, send=False)
    later = replace(agent, now=lambda: dt.datetime(2026, 11, 20, 9))
    by_hand = deliver_copy(later, edition, DeliverAsk(client="Theo Ashe"))
    mailed = deliver_copy(later, by_hand, DeliverAsk(client="Wilma Carrow", email="wilma@carrow.example"))
    assert [e["delivery_id"] for e in store.editions(agent.porch, agent.owner, n)] == [edition]
    for copy in (by_hand, mailed):
        assert delivered_paper(agent, copy, "pdf") == delivered_paper(agent, edition, "pdf")
    assert agent.porch.execute("SELECT count(*) FROM delivered_papers").fetchone()[0] == 3
    message = email.message_from_bytes(delivered_paper(agent, mailed, "eml"), policy=policy.default)
    words = message.get_body(("plain",)).get_content()
    assert (
        message["Subject"] == "Lantern Hill" and "Attached is Lantern Hill, with records through Oct 31, 2026." in words
    )
    assert "is worth" not in words and [e.readers for e in sending.editions(agent, n).editions] == [1]


def test_a_reader_who_is_erased_reads_it_no_more(agent):
    n = made(agent, readers=READERS)
    sending.make_edition(agent, n, send=True)
    copy = deliver_copy(
        agent, store.editions(agent.porch, agent.owner, n)[0]["delivery_id"], DeliverAsk(client="Theo Ashe")
    )
    assert store.read(agent.porch, agent.owner, copy)["bulletin_id"] == n
    (client,) = add_clients(
        agent, [{"name": "Wilma Carrow", "email": "wilma@carrow.example", "phone": "", "address": "", "note": ""}]
    )
    assert erase_client(agent, client) == 1
    assert [r.email for r in read_bulletin(agent, n).readers] == ["theo@ashe.example"]
    assert (
        not [d for d in deliveries(agent) if "wilma" in d["email"]]
        and len(store.editions(agent.porch, agent.owner, n)) >= 1
    )
    only_by_name = [ReaderDoc(name="Nell Brook", email="other@place.example")]
    change_bulletin(agent, n, read_bulletin(agent, n).model_copy(update={"readers": only_by_name}))
    person = {"name": "Nell Brook", "email": "nell@brook.example", "phone": "", "address": "", "note": ""}
    (by_name,) = add_clients(agent, [person])
    erase_client(agent, by_name)
    assert read_bulletin(agent, n).readers == [], "by the name too, whatever the address"
