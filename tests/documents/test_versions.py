"""Stored documents: every earlier form is read, what a newer program wrote comes back out, one bad one hides no other."""

from __future__ import annotations

import json

import pytest

from rain_porch.app.bulletin.documents import BulletinDoc
from rain_porch.app.market.views import ViewDoc
from rain_porch.app.office.agent import Agent
from rain_porch.app.workup.changes import SetClient
from rain_porch.app.workup.workups import change_workup, list_workups, open_workup
from rain_porch.core.errors import Refused
from rain_porch.documents import versions
from rain_porch.documents.stored import PaperDoc, WorkupDoc
from rain_porch.documents.versions import read, written
from rain_porch.store.porch import workups as store
from tests.app.workup.test_changes import begun

# a workup as it was written before documents said their version
FIRST = {
    "home": {"kind": "parcel", "key": "BF1"},
    "address": "14 Ferry Lane",
    "effective_date": "2026-10-31",
    "search": {"home_kinds": ["detached"], "radius_miles": 1.0},
    "decisions": {"A1": {"choice": "kept", "reason": ""}},
    "rates": {"living_area": 90.0},
}


def test_the_first_form_is_read_and_written_as_the_newest():
    doc = read(WorkupDoc, json.dumps(FIRST))
    assert doc.kept() == ["A1"] and doc.rates == {"living_area": 90.0} and doc.paper == PaperDoc()
    text = written(doc)
    assert json.loads(text)["version"] == versions.newest("workup") >= 2 and read(WorkupDoc, text) == doc
    assert written(read(WorkupDoc, text)) == text


def test_an_upgrade_turns_each_earlier_form_into_the_next(monkeypatch):
    """A field renamed, and moved in the version after: each earlier form arrives."""

    def renamed(data):
        return {**{k: v for k, v in data.items() if k != "buyer"}, "customer": data.get("buyer", "")}

    def moved(data):
        return {**{k: v for k, v in data.items() if k != "customer"}, "client": data["customer"]}

    chain = (*versions.UPGRADES["workup"], renamed, moved)
    monkeypatch.setattr(versions, "UPGRADES", {**versions.UPGRADES, "workup": chain})
    last = versions.newest("workup")
    for data in ({**FIRST, "buyer": "Orla"}, {"version": last - 2, **FIRST, "buyer": "Orla"}, {"version": last - 1, **FIRST, "customer": "Orla"},
                 {"version": last, **FIRST, "client": "Orla"}):  # fmt: skip
        doc = read(WorkupDoc, json.dumps(data))
        assert doc.client == "Orla" and json.loads(written(doc))["version"] == last


def test_what_was_a_market_letter_is_a_bulletin():
    """Layouts, workups and bulletins of earlier days: the page keeps its place, its comment and what it points at."""
    paper = {
        "pages": ["summary", "market_letter"],
        "market_letter": 7,
        "notes": {"market_letter": "see"},
        "speaks_of": {"market_letter": "found"},
    }
    for held in (
        read(PaperDoc, json.dumps({"version": 2, **paper})),
        read(WorkupDoc, json.dumps({"version": 2, **FIRST, "paper": paper})).paper,
    ):
        assert (held.pages, held.bulletin, held.notes, held.speaks_of) == (
            ["summary", "bulletin"], 7, {"bulletin": "see"}, {"bulletin": "found"},
        )  # fmt: skip
    text = json.dumps(
        {"title": "Autumn", "comment": "", "items": [{"kind": "so_far", "view": {"measures": ["closings"]}}]}
    )
    assert [p.kind for p in read(BulletinDoc, text).parts] == ["so_far"]


def test_what_a_newer_program_wrote_is_carried_along(agent: Agent):
    n = begun(agent)
    held = store.read(agent.porch, agent.owner, n)
    data = json.loads(held["document"])
    data |= {"version": 9, "mood": {"calm": True}}
    data["search"]["smell"] = "roses"
    data["paper"]["weight_gsm"] = 120
    store.save(agent.porch, agent.owner, n, 1, held["title"], json.dumps(data), "by a newer one", "t")
    change_workup(agent, n, 2, SetClient(change="set_client", client="Orla Grayle"))
    now = json.loads(store.read(agent.porch, agent.owner, n)["document"])
    assert now == {**data, "client": "Orla Grayle"}
    assert open_workup(agent, n).state.client == "Orla Grayle"


@pytest.mark.parametrize(
    ("text", "why"),
    [
        ("{", "damaged"),
        ("[]", "damaged"),
        (json.dumps({**FIRST, "effective_date": "someday"}), "damaged"),
        (json.dumps({**FIRST, "version": 99, "effective_date": {"from": 1}}), "newer version"),
        (json.dumps({"version": "two"}), "damaged"),
    ],
)
def test_what_cannot_be_read_says_why_and_hides_no_other(agent: Agent, text, why):
    with pytest.raises(Refused, match=why):
        read(WorkupDoc, text)
    n, other = begun(agent), begun(agent)
    store.save(agent.porch, agent.owner, n, 1, "14 Ferry Lane", text, "spoilt", "t")
    rows = {r["workup_id"]: r for r in list_workups(agent)}
    assert why in rows[n]["fault"] and rows[n]["title"] == "14 Ferry Lane" and "fault" not in rows[other]
    with pytest.raises(Refused, match=why):
        open_workup(agent, n)


def test_other_documents_have_versions_too():
    view = read(ViewDoc, '{"measures": ["closings"], "horizon": 3}')
    assert json.loads(written(view))["horizon"] == 3 and json.loads(written(view))["version"] == 2
