"""What is watched: what is new is told once, on the desk and by a letter, whenever it comes in; what is gone is watched no more."""

from __future__ import annotations

import datetime as dt
import email
from dataclasses import replace
from email import policy

import pytest

from rain_porch.app.around import LookAsk
from rain_porch.app.handover.branding import CardDoc, set_card
from rain_porch.app.handover.own_mail import mail_set_up, try_mail
from rain_porch.app.home.homes import locate
from rain_porch.app.market.saved_views import delete_view, save_view
from rain_porch.app.market.views import ViewDoc
from rain_porch.app.records import Records
from rain_porch.app.saved_searches import delete_search, save_looked, save_search
from rain_porch.app.schedule import Schedule, waiting
from rain_porch.app.watching import look, seen_by_agent, stop_watching, watch, watched
from rain_porch.core.errors import NotFound, Refused
from rain_porch.documents.search import SearchDoc
from rain_porch.documents.stored import HomeRefDoc, SavedSearchDoc
from rain_porch.documents.versions import written
from rain_porch.records.importing import import_file
from rain_porch.store.porch import searches
from tests.app.workup.test_changes import begun
from tests.conftest import NOW

HEAD = "ListingId,StandardStatus,UnparsedAddress,City,PropertySubType,LivingArea,ListPrice,OnMarketDate,Latitude,Longitude\n"


@pytest.fixture
def office(agent, town, tmp_path):
    """An agent who sees what comes in; `brings(lines)` brings listings in beside the home that is looked around."""
    records = Records(town, today=lambda: NOW.date())
    home = locate(agent.records, address="630 hedgerow terrace")

    def brings(*lines: str):
        file = tmp_path / "more.csv"
        file.write_text(HEAD + "".join(f"{line},41.2109,-38.4019\n" for line in lines))
        with records.connection() as db:
            import_file(db, file, folder=town, now=NOW, source="More")
        return replace(agent, records=records.snapshot())

    yield agent, HomeRefDoc(kind=home.kind, key=home.key), brings
    records.close()


def new(key: str, price: int, day: str = "2026-10-30") -> str:
    return f"{key},Active,{key[1:]} Newcomer Row,Fennimere,Single Family Residence,1700,{price},{day}"


def around(agent, home) -> int:
    search = SearchDoc(home_kinds=["detached"], radius_miles=3.0)
    return save_looked(agent, "Near Hedgerow", LookAsk(home=home, search=search, ticked=[]))


def test_what_is_new_is_told_once_and_late_ones_too(office, mail_server):
    agent, home, brings = office
    number = around(agent, home)
    watch(agent, "search", number, 1440)
    (one,) = watched(agent)
    assert one.news is None and one.due_at == dt.datetime(2026, 11, 3, 7, 0), "what stands there is told already"
    assert look(agent, {"of": "search", "number": number}) == "Nothing new."
    set_card(agent, CardDoc(name="Iris Vole", email="iris@vole.example"))

    agent = brings(new("N41", 333_000), new("N42", 421_000))
    said = look(agent, {"of": "search", "number": number})
    assert said == "2 new on the market. A letter went to iris@vole.example."
    (one,) = watched(agent)
    assert one.in_words == "2 new on the market" and one.told_at == NOW
    assert {(c.what, c.record.address, c.price) for c in one.news.changes} == {("new", "41 Newcomer Row", 333_000), ("new", "42 Newcomer Row", 421_000)}  # fmt: skip
    assert one.news.through == agent.records.through() and {c.record.days_on_market for c in one.news.changes} == {1}
    (laid,) = mail_server.glob("*.eml")
    message = email.message_from_bytes(laid.read_bytes(), policy=policy.default)
    assert message["Subject"] == "New in Near Hedgerow: 2 new on the market"
    assert "Oct 30, 2026: new on the market, 41 Newcomer Row, 333,000" in message.get_content()
    assert look(agent, {"of": "search", "number": number}) == "Nothing new."

    # cheaper since today, a day that no record has yet; and one that came on weeks ago is only told now
    agent = brings(new("N41", 329_000), new("N43", 300_000, "2026-10-02"))
    later = replace(agent, now=lambda: NOW + dt.timedelta(minutes=5))
    assert look(later, {"of": "search", "number": number}).startswith("1 new on the market, 1 price down.")
    seen_by_agent(agent, "search", number, one.told_at)
    (now,) = watched(agent)
    assert now.in_words == "3 new on the market, 1 price down", "what came while the first were looked at stays"
    seen_by_agent(agent, "search", number, now.told_at)
    assert watched(agent)[0].news is None and look(agent, {"of": "search", "number": number}) == "Nothing new."
    agent = brings("N99,Active,1 Elsewhere,Nowhere,Condominium,900,100000,2026-10-30")
    assert look(agent, {"of": "search", "number": number}) == "Nothing new.", "another kind of home is none of it"


def test_a_letter_that_cannot_go_out_is_tried_again_and_tells_all(office, monkeypatch):
    agent, home, brings = office
    number = around(agent, home)
    watch(agent, "search", number, 1440)
    set_card(agent, CardDoc(name="Iris Vole", email="iris@vole.example"))
    monkeypatch.setenv("RAIN_PORCH_SMTP", "127.0.0.1:9")
    agent = brings(new("N41", 333_000))
    for tries in (1, 2):
        agent.porch.execute("UPDATE due_work SET due_at = '2026-11-01T00:00:00'")
        assert Schedule(agent.porch, lambda owner, agent=agent: agent, agent.now).do_next()
        (work,) = [w for w in waiting(agent) if w["kind"] == "watch"]
        assert work["failures"] == tries and "cannot be reached" in work["last_said"]
        assert work["name"] == "Look at what is watched, “Near Hedgerow”"
        assert watched(agent)[0].in_words == "1 new on the market", "the desk tells it all the same, once"
    with pytest.raises(Refused, match="cannot be reached"):
        try_mail(agent)
    monkeypatch.delenv("RAIN_PORCH_SMTP")
    assert "No letter: No mail server is set up" in look(agent, {"of": "search", "number": number})


def test_mail_is_tried_with_one_press(agent, mail_server):
    with pytest.raises(Refused, match="no mail address"):
        try_mail(agent)
    set_card(agent, CardDoc(name="Iris Vole", email="iris@vole.example"))
    assert mail_set_up(agent).to == "iris@vole.example" and mail_set_up(agent).server.startswith("127.0.0.1:")
    assert "took a message to iris@vole.example" in try_mail(agent)
    assert len([*mail_server.glob("*.eml")]) == 1


def test_a_view_and_a_workups_search_are_watched_and_what_is_gone_no_more(office):
    agent, _, brings = office
    view = save_view(agent, "Fennimere", ViewDoc(measures=["for_sale"], home_kind="detached"), pinned=False)
    search = save_search(agent, begun(agent), "Like mine")
    for kind, number in (("view", view), ("search", search)):
        watch(agent, kind, number, 60)
        watch(agent, kind, number, 10080)  # another rhythm takes the place of the first
    assert {(w.kind, w.name, w.every_minutes) for w in watched(agent)} == {("view", "Fennimere", 10080), ("search", "Like mine", 10080)}  # fmt: skip
    agent = brings(new("N41", 333_000))
    assert look(agent, {"of": "view", "number": view}).startswith("1 new on the market.")
    delete_view(agent, view)
    assert [w.kind for w in watched(agent)] == ["search"] and [w["kind"] for w in waiting(agent)] == ["watch"]
    assert look(agent, {"of": "view", "number": view}) == "It is there no longer.", "where the work was under way"
    delete_search(agent, search)
    assert not watched(agent) and not [w for w in waiting(agent) if w["kind"] == "watch"]
    stop_watching(agent, "search", search)
    with pytest.raises(NotFound, match="no saved search"):
        watch(agent, "search", search, 60)
    old = SavedSearchDoc(search=SearchDoc(home_kinds=["detached"]), facts={"living_area": 1500.0}, home_kind="detached")
    number = searches.keep(agent.porch, agent.owner, "Of old", written(old))
    with pytest.raises(Refused, match="save it once more"):
        watch(agent, "search", number, 60)


def test_of_very_many_a_letter_tells_some_and_the_count_of_all(office, mail_server):
    agent, home, brings = office
    number = around(agent, home)
    watch(agent, "search", number, 1440)
    set_card(agent, CardDoc(name="Iris Vole", email="iris@vole.example"))
    agent = brings(*(new(f"N{i}", 300_000 + i) for i in range(100, 170)))
    assert look(agent, {"of": "search", "number": number}).startswith("70 new on the market. A letter went")
    (laid,) = mail_server.glob("*.eml")
    words = email.message_from_bytes(laid.read_bytes(), policy=policy.default).get_content()
    assert words.count("Newcomer Row") == 40 and "and 30 more, which stand on your desk" in words
    assert len(watched(agent)[0].news.changes) == 70
