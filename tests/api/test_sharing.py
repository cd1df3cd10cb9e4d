"""Workups shared, handed over, overseen; who did what; a reader by link."""

from __future__ import annotations

import datetime as dt

from fastapi.testclient import TestClient

from tests.pictures import picture as make_picture


def changed(client: TestClient, number: int, price: int):
    revision = client.get(f"/api/workups/{number}").json()["revision"]
    change = {"change": "set_list_price", "list_price": price, "sure": True}
    return client.post(f"/api/workups/{number}/changes", json={"revision": revision, "change": change})


def test_a_workup_is_shown_to_a_colleague_to_read_then_to_edit_then_no_longer(begun):
    office, owner, number = begun
    colleague, at = office.client("Colleague"), f"/api/workups/{number}"
    assert colleague.get("/api/workups").json() == [] and colleague.get(at).status_code == 404
    share = f"{at}/shares/{office.ids['Colleague']}"
    owner.put(share, json={"may_edit": False})
    (row,) = colleague.get("/api/workups").json()
    assert (row["whose"], row["may_edit"], row["title"]) == ("Owner", False, "630 Hedgerow Terrace")
    held = colleague.get(at).json()
    assert (held["whose"], held["may_edit"]) == ("Owner", False)
    for part in ("candidates", "worth", "report.pdf", "pages/1.svg"):
        assert colleague.get(f"{at}/{part}").status_code == 200, part
    assert "to read" in changed(colleague, number, 300_000).json()["message"]
    owner.put(share, json={"may_edit": True})
    assert changed(colleague, number, 301_000).status_code == 200
    history = owner.get(f"{at}/history").json()
    assert history[0]["who"] == "Colleague" and history[-1]["who"] == "Owner"
    assert colleague.delete(at).status_code == 403 and colleague.post(f"{at}/deliveries", json={}).status_code == 403
    assert owner.get("/api/lookup", params={"text": "Hedgerow"}).json()["hits"][0]["kind"] == "workup"
    owner.delete(share)
    assert colleague.get(at).status_code == 404 and colleague.get("/api/workups").json() == []
    assert owner.put(f"{at}/shares/{office.ids['Owner']}", json={}).status_code == 422, "with oneself"
    assert owner.put(f"{at}/shares/99", json={}).status_code == 404


def test_what_a_colleague_keeps_while_in_another_s_workup_is_their_own(begun):
    office, owner, number = begun
    colleague = office.client("Colleague")
    owner.put(f"/api/workups/{number}/shares/{office.ids['Colleague']}", json={"may_edit": True})
    assert colleague.post(f"/api/workups/{number}/searches", json={"name": "Near"}).status_code == 201
    assert [s["name"] for s in colleague.get("/api/searches").json()] == ["Near"]
    assert owner.get("/api/searches").json() == []
    picture = make_picture("PNG")
    file = owner.post(f"/api/workups/{number}/photos", content=picture).json()["file"]
    assert colleague.get(f"/api/workups/{number}/photos/{file}").content == picture
    other = office.client("Importer")
    assert other.get(f"/api/card/pictures/{file}").status_code == 404, "a file of another's is not there"


def test_a_workup_is_handed_over_with_all_that_belongs_to_it(begun):
    office, owner, number = begun
    delivery = owner.post(f"/api/workups/{number}/deliveries", json={"client": "Wilma Carrow"}).json()["delivery_id"]
    assert owner.post(f"/api/workups/{number}/owner", json={"account_id": office.ids["Colleague"]}).status_code == 204
    assert owner.get(f"/api/workups/{number}").status_code == 404 and owner.get("/api/workups").json() == []
    colleague = office.client("Colleague")
    (row,) = colleague.get("/api/workups").json()
    assert row["whose"] is None and "Wilma Carrow" in row["delivered"]
    assert changed(colleague, number, 300_000).status_code == 200
    assert colleague.get(f"/api/deliveries/{delivery}/paper.pdf").content.startswith(b"%PDF")
    assert owner.get(f"/api/deliveries/{delivery}/paper.pdf").status_code == 404


def test_a_manager_sees_all_works_in_anyone_s_place_and_reads_who_did_what(begun):
    office, owner, number = begun
    manager = office.client("Manager")
    assert manager.get("/api/workups").json() == []
    (row,) = manager.get("/api/workups", params={"every": True}).json()
    assert (row["whose"], row["may_edit"]) == ("Owner", True)
    assert owner.get("/api/workups", params={"every": True}).json()[0]["whose"] is None
    changed(owner, number, 300_000)
    changed(owner, number, 301_000)
    office.clock.at += dt.timedelta(minutes=30)
    changed(manager, number, 302_000)
    acts = manager.get("/api/acts").json()
    told = [(a["name"], a["what"], a["of_what"], a["times"]) for a in acts]
    assert told[:3] == [
        ("Manager", "changed", f"workup {number}", 1),
        ("Owner", "changed", f"workup {number}", 2),
        ("Owner", "began a workup", "", 1),
    ]
    only = manager.get("/api/acts", params={"account_id": office.ids["Owner"]}).json()
    assert {a["name"] for a in only} == {"Owner"}


def test_a_link_opens_one_paper_until_its_day_or_until_it_is_withdrawn(begun):
    office, owner, number = begun
    delivery = owner.post(f"/api/workups/{number}/deliveries", json={}).json()["delivery_id"]
    links = f"/api/deliveries/{delivery}/links"
    made = owner.post(links, json={"days": 7}).json()
    reader = office.client()
    answer = reader.get(made["path"])
    assert answer.status_code == 200 and "630 Hedgerow Terrace" in answer.text
    assert "sandbox" in answer.headers["content-security-policy"] and answer.headers["cache-control"] == "no-store"
    assert answer.headers["referrer-policy"] == "no-referrer"
    assert reader.get(made["path"].replace(".html", ".pdf")).content.startswith(b"%PDF")
    assert reader.get(f"/api/deliveries/{delivery}/paper.pdf").status_code == 401, "and nothing else"
    (held,) = owner.get(links).json()
    assert held["times_read"] == 2
    assert made["path"].split("/")[-1].split(".")[0] not in owner.get(links).text, "it is shown once"
    other = office.client("Colleague")
    assert other.post(links, json={}).status_code == 404 == other.delete(f"/api/links/{made['link_id']}").status_code
    office.clock.at += dt.timedelta(days=7)
    assert reader.get(made["path"]).status_code == 404
    again = owner.post(links, json={"days": 7}).json()
    assert reader.get(again["path"]).status_code == 200
    assert owner.delete(f"/api/links/{again['link_id']}").status_code == 204
    assert reader.get(again["path"]).status_code == 404
    assert owner.post(links, json={"days": 0}).status_code == 422


def test_a_damaged_workup_hides_no_other_from_who_looks_for_words_or_hands_over(begun):
    office, owner, number = begun
    other = owner.post(f"/api/workups/{number}/copy").json()["workup_id"]
    office.state.porch.execute("UPDATE workups SET document = '{broken' WHERE workup_id = :n", {"n": other})
    found = owner.get("/api/workups", params={"words": "hedgerow"}).json()
    assert {w["workup_id"] for w in found} == {number, other}
    assert owner.get("/api/workups", params={"words": "nobody"}).json() == []
    to = {"account_id": office.ids["Colleague"]}
    assert owner.post(f"/api/workups/{other}/owner", json=to).status_code == 204
    assert len(office.client("Colleague").get("/api/workups").json()) == 1


def test_a_shared_workup_is_found_by_its_name_until_it_is_put_away(begun):
    office, owner, number = begun
    colleague = office.client("Colleague")

    def found() -> list[str]:
        return [
            h["key"]
            for h in colleague.get("/api/lookup", params={"text": "Hedgerow"}).json()["hits"]
            if h["kind"] == "workup"
        ]

    assert found() == []
    owner.put(f"/api/workups/{number}/shares/{office.ids['Colleague']}", json={"may_edit": False})
    assert found() == [str(number)]
    owner.put(f"/api/workups/{number}/archived", json={"archived": True})
    assert found() == []
