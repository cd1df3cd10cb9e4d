"""Who may what: every operation of the service against every kind of asker, signing in and out, sharing, links."""

from __future__ import annotations

import datetime as dt
from collections.abc import Iterator

import pytest
from fastapi import HTTPException, Request
from fastapi.testclient import TestClient

from rain_porch.api.app import create_app
from rain_porch.api.rights import RIGHTS, Right
from rain_porch.api.who import COOKIE, may
from rain_porch.app import accounts
from tests.conftest import LOCAL, NOW

PASSWORD = "seven grey herons wading"
LET_IN = 418  # what the table's own door answers behind the real one


class Clock:
    def __init__(self) -> None:
        self.at = NOW

    def __call__(self) -> dt.datetime:
        return self.at


class Office:
    """A service with a manager, an owner of workup 1, a colleague, one who brings records in; nobody signed in."""

    def __init__(self, folder) -> None:
        self.clock = Clock()
        self.app = create_app(folder, now=self.clock)
        self.state = self.app.state.porch
        porch = self.state.porch
        accounts.make_first(porch, "Manager", PASSWORD)
        self.ids = {"Manager": 1}
        for name, may_import in (("Owner", False), ("Colleague", False), ("Importer", True)):
            self.ids[name] = accounts.add_account(porch, name, "agent", may_import, PASSWORD)

    def client(self, name: str | None = None) -> TestClient:
        client = TestClient(self.app, base_url=LOCAL)
        if name:
            answer = client.post("/api/session", json={"name": name, "password": PASSWORD})
            assert answer.status_code == 200, answer.text
        return client


@pytest.fixture
def office(town) -> Iterator[Office]:
    held = Office(town)
    yield held
    held.state.close()


@pytest.fixture
def begun(office: Office) -> tuple[Office, TestClient, int]:
    """The office, its owner's client, and their workup."""
    owner = office.client("Owner")
    hit = owner.get("/api/lookup", params={"text": "630 Hedgerow Terrace"}).json()["hits"][0]
    number = owner.post("/api/workups", json={"kind": hit["kind"], "key": hit["key"]}).json()["workup_id"]
    return office, owner, number


# --- the table


def test_every_operation_has_a_rule_and_every_rule_an_operation(office):
    described = office.app.openapi()["paths"]
    operations = {(method.upper(), path) for path, methods in described.items() for method in methods}
    assert operations == set(RIGHTS)


def stop_behind_the_door(app) -> None:
    """No route is entered: whoever may would be let in, and the table changes nothing."""

    def door(request: Request) -> None:
        may(request)
        raise HTTPException(LET_IN)

    app.dependency_overrides[may] = door


EXPECTED = {
    # asker: nobody, another agent, who reads it, who edits it, whose it is, who brings records in, manager
    Right.ANYONE: "+++++++",
    Right.SIGNED_IN: "1++++++",
    Right.READ_WORKUP: "14+++4+",
    Right.EDIT_WORKUP: "143++4+",
    Right.OWN_WORKUP: "1433+4+",
    Right.OWN_DELIVERY: "1444+4+",
    Right.RECORDS: "13333++",
    Right.MANAGER: "133333+",
}
ASKERS = ("nobody", "another", "reads", "edits", "owner", "importer", "manager")
SIGNS = {LET_IN: "+", 401: "1", 403: "3", 404: "4"}


def test_every_route_against_every_asker(begun):
    office, owner, number = begun
    porch = office.state.porch
    for name in ("Reader", "Editor"):
        office.ids[name] = accounts.add_account(porch, name, "agent", False, PASSWORD)
        owner.put(f"/api/workups/{number}/shares/{office.ids[name]}", json={"may_edit": name == "Editor"})
    delivery = owner.post(f"/api/workups/{number}/deliveries", json={}).json()["delivery_id"]
    names = (None, "Colleague", "Reader", "Editor", "Owner", "Importer", "Manager")
    clients = [office.client(name) for name in names]
    cookies = [c.cookies.get(COOKIE) for c in clients]
    stop_behind_the_door(office.app)
    lines, wrong = [], []
    for (method, path), right in sorted(RIGHTS.items(), key=lambda x: (x[0][1], x[0][0])):
        address = path.replace("{workup_id}", str(number)).replace("{delivery_id}", str(delivery))
        address = address.replace("{form}", "pdf").replace("{kind}", "listings").replace("{ending}", "csv")
        address = "".join("1" if i % 2 else part for i, part in enumerate(address.replace("}", "{").split("{")))
        got = ""
        for client, cookie in zip(clients, cookies, strict=True):
            client.cookies.clear()
            if cookie:
                client.cookies.set(COOKIE, cookie)
            answer = client.request(method, address, json={} if method != "GET" else None)
            got += SIGNS.get(answer.status_code, f"[{answer.status_code}]")
        lines.append(f"{got}  {method:6} {path}")
        if got != EXPECTED[right]:
            wrong.append(f"{lines[-1]}: {EXPECTED[right]} expected")
    print("\n" + "  ".join(ASKERS) + " (+ let in, 1 not signed in, 3 not allowed, 4 not there)", *lines, sep="\n")
    assert not wrong, "\n".join(wrong)


# --- signing in


def test_a_session_is_a_cookie_that_no_script_reads_and_ends_everywhere(office):
    first, second = office.client("owner"), office.client("  OWNER ")
    said = first.post("/api/session", json={"name": "Owner", "password": PASSWORD}).headers["set-cookie"].lower()
    assert "httponly" in said and "samesite=lax" in said and "secure" not in said
    over_tls = TestClient(office.app, base_url="https://127.0.0.1")
    answer = over_tls.post("/api/session", json={"name": "Owner", "password": PASSWORD})
    assert "; secure" in answer.headers["set-cookie"].lower()
    token = first.cookies[COOKIE]
    assert token not in (office.state.records.folder / "porch.db").read_bytes().decode("latin-1"), (
        "the file opens nothing"
    )
    assert first.get("/api/workups").status_code == second.get("/api/workups").status_code == 200
    assert first.delete("/api/session").status_code == 204
    first.cookies.set(COOKIE, token)
    assert first.get("/api/workups").status_code == 401, "the cookie that was kept aside opens nothing"
    assert second.delete("/api/sessions").status_code == 204
    assert over_tls.get("/api/workups").status_code == 401


def test_sessions_run_out(office):
    client = office.client("Owner")
    office.clock.at += dt.timedelta(days=13)
    assert client.get("/api/workups").status_code == 200
    office.clock.at += dt.timedelta(days=13)
    assert client.get("/api/workups").status_code == 200, "it was seen in between"
    office.clock.at += dt.timedelta(days=15)
    assert client.get("/api/workups").status_code == 401
    client = office.client("Owner")
    for _ in range(6):
        office.clock.at += dt.timedelta(days=10)
        status = client.get("/api/workups").status_code
    assert status == 401, "60 days after its beginning, however often it was used"


def test_guesses_are_slowed_down_and_a_right_one_meanwhile_is_not_looked_at(office):
    client = office.client()

    def tried(password: str, name: str = "Owner") -> str:
        answer = client.post("/api/session", json={"name": name, "password": password})
        return "" if answer.status_code == 200 else answer.json()["message"]

    for _ in range(accounts.FREE_TRIES + 1):
        assert tried("wrong") == "The name or the password is not right."
    assert "wait 3 seconds" in tried(PASSWORD)
    assert tried(PASSWORD, "Manager") == "", "others are not held up"
    office.clock.at += dt.timedelta(seconds=3)
    assert tried("wrong").startswith("The name") and "wait 5 seconds" in tried(PASSWORD)
    office.clock.at += dt.timedelta(seconds=5)
    assert tried(PASSWORD) == "" and tried("wrong").startswith("The name"), "a right one begins anew"
    assert tried("wrong", "Nobody of this name") == "The name or the password is not right."
    assert accounts.wait_after(10_000) == accounts.LONGEST_WAIT


def test_passwords_are_kept_as_argon2id_and_poor_ones_refused(office):
    manager = office.client("Manager")
    held = accounts.read_account(office.state.porch, 1)
    assert held.password_hash and held.password_hash.startswith("$argon2id$")
    for poor in ("short", "aaaaaaaaaaaaaa", "my name is Eve Marl", "x" * 201):
        answer = manager.post("/api/accounts", json={"name": "Eve Marl", "password": poor})
        assert (answer.status_code, answer.json()["field"]) == (422, "password"), poor
    for name in ("", "x", "a\x00b", "owner", "y" * 81):
        answer = manager.post("/api/accounts", json={"name": name, "password": PASSWORD})
        assert (answer.status_code, answer.json()["field"]) == (422, "name"), name
    assert manager.put("/api/password", json={"old": "no", "new": PASSWORD + "!"}).json()["field"] == "old"
    other = office.client("Manager")
    assert manager.put("/api/password", json={"old": PASSWORD, "new": PASSWORD + "!"}).status_code == 204
    assert manager.get("/api/accounts").status_code == 200 and other.get("/api/accounts").status_code == 401


def test_a_disabled_account_is_out_at_once_and_the_last_manager_stays(office):
    owner, manager = office.client("Owner"), office.client("Manager")
    number = office.ids["Owner"]
    changed = {"name": "Owner", "role": "agent", "may_import": False, "disabled": True}
    assert manager.put(f"/api/accounts/{number}", json=changed).json()["disabled"]
    assert owner.get("/api/workups").status_code == 401
    assert office.client().post("/api/session", json={"name": "Owner", "password": PASSWORD}).status_code == 401
    only = {"name": "Manager", "role": "agent", "may_import": True, "disabled": False}
    answer = manager.put("/api/accounts/1", json=only)
    assert answer.status_code == 422 and "only manager" in answer.json()["message"]
    assert manager.put("/api/accounts/1", json={**only, "role": "manager", "disabled": True}).status_code == 422


# --- a folder without accounts


@pytest.mark.parametrize("is_open_here", [True, False])
def test_without_accounts_who_sits_here_works_and_others_find_the_first_page(town, is_open_here):
    app = create_app(town, now=lambda: NOW, is_open_here=is_open_here)
    client = TestClient(app, base_url=LOCAL)
    held = client.get("/api/session").json()
    assert held["first"] and held["by_itself"] == is_open_here and (held["who"] is not None) == is_open_here
    assert client.get("/api/workups").status_code == (200 if is_open_here else 401)
    through_a_proxy = client.get("/api/workups", headers={"X-Forwarded-For": "203.0.113.9"})
    assert through_a_proxy.status_code == 401, "somebody beyond this machine asks through one on it"
    if is_open_here:
        new = {"name": "Another", "password": PASSWORD}
        assert client.post("/api/accounts", json=new).status_code == 403, "the owner could not come back"
        assert client.put("/api/password", json={"old": "", "new": PASSWORD}).status_code == 403
    asked = {"code": "AAAA-AAAA-AAAA-AAAA", "name": "Iris Vole", "password": PASSWORD}
    answer = client.post("/api/first-account", json=asked)
    assert answer.status_code == 401 and answer.json()["field"] == "code"
    asked["code"] = app.state.porch.first_code.lower()
    assert client.post("/api/first-account", json={**asked, "password": "poor"}).status_code == 422
    answer = client.post("/api/first-account", json=asked)
    assert answer.status_code == 201 and answer.json()["who"]["role"] == "manager" and not answer.json()["first"]
    assert client.get("/api/workups").status_code == 200
    assert client.post("/api/first-account", json={**asked, "name": "Second"}).status_code == 403, "once"
    assert TestClient(app, base_url=LOCAL).get("/api/workups").status_code == 401, "all sign in from now on"
    app.state.porch.close()


# --- sharing


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
    picture = b"\x89PNG\r\n\x1a\n" + bytes(40)
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


# --- a reader by link


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


def test_a_feed_on_the_office_s_own_network_is_not_reached_through_us(office, monkeypatch):
    importer = office.client("Importer")
    asked = []
    monkeypatch.setattr("socket.socket.connect", lambda self, address: asked.append(address))
    for address in (
        "http://127.0.0.1:9/x",
        "http://localhost/x",
        "http://10.0.0.8/x",
        "http://[::1]/x",
        "http://169.254.1.1/x",
    ):
        answer = importer.post("/api/records/feed", json={"address": address})
        assert answer.status_code == 422 and "private network" in answer.json()["message"], address
    assert asked == []
    monkeypatch.setenv("RAIN_PORCH_FEEDS_NEARBY", "yes")
    assert office.state.feeds_nearby()
