"""Signing in and out: sessions, guesses, passwords, the first account, a folder without accounts."""

from __future__ import annotations

import datetime as dt
from concurrent.futures import ThreadPoolExecutor

import argon2
import pytest
from fastapi.testclient import TestClient

from rain_porch.api.app import create_app
from rain_porch.api.who import COOKIE
from rain_porch.app.office import accounts
from tests.api.conftest import PASSWORD
from tests.conftest import LOCAL, NOW

COSTLY = accounts.HASHER  # as it is at work


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
    asked_of_all = argon2.extract_parameters(COSTLY.hash(PASSWORD))
    assert asked_of_all.memory_cost >= 19 * 1024 and asked_of_all.time_cost >= 2, "what OWASP asks for at least, in KiB"
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


def test_many_guesses_at_once_are_slowed_down_as_those_one_after_the_other(office, monkeypatch):
    looked_at = []
    fits = accounts._fits
    monkeypatch.setattr(accounts, "_fits", lambda *given: looked_at.append(given) or fits(*given))
    client = office.client()
    with ThreadPoolExecutor(16) as pool:
        guesses = [{"name": "Owner", "password": f"a wrong guess {n}"} for n in range(40)]
        told = [a.json()["message"] for a in pool.map(lambda g: client.post("/api/session", json=g), guesses)]
    assert len(looked_at) == accounts.FREE_TRIES + 1 and sum("wait" in t for t in told) == 40 - len(looked_at)


def test_guesses_at_one_s_own_password_are_slowed_down_too(office):
    owner = office.client("Owner")
    for _ in range(accounts.FREE_TRIES + 1):
        assert owner.put("/api/password", json={"old": "wrong", "new": PASSWORD + "!"}).json()["field"] == "old"
    answer = owner.put("/api/password", json={"old": PASSWORD, "new": PASSWORD + "!"})
    assert answer.status_code == 401 and "wait 3 seconds" in answer.json()["message"]
    office.clock.at += dt.timedelta(seconds=3)
    assert owner.put("/api/password", json={"old": PASSWORD, "new": PASSWORD + "!"}).status_code == 204


def test_a_manager_without_a_password_is_none_that_could_be_left(office):
    porch = office.state.porch
    porch.execute("INSERT INTO accounts (name, role) VALUES ('Never signed in', 'manager')")
    manager = office.client("Manager")
    answer = manager.put("/api/accounts/1", json={"name": "Manager", "role": "agent"})
    assert answer.status_code == 422 and "only manager" in answer.json()["message"]
