"""Who may what: every operation of the service against every kind of asker; what else only some may."""

from __future__ import annotations

import datetime as dt

from fastapi import HTTPException, Request
from fastapi.routing import APIRoute

from rain_porch.api.rights import RIGHTS, Right
from rain_porch.api.who import COOKIE, may
from rain_porch.app import schedule
from rain_porch.app.office import accounts
from tests.api.conftest import PASSWORD
from tests.conftest import NOW

LET_IN = 418  # what the table's own door answers behind the real one


def test_every_operation_has_a_rule_and_every_rule_an_operation(office):
    described = office.app.openapi()["paths"]
    operations = {(method.upper(), path) for path, methods in described.items() for method in methods}
    assert operations == set(RIGHTS)


def stop_behind_the_door(app, monkeypatch) -> None:
    """No route is entered: whoever may would be let in, and the table changes nothing."""

    def door(request: Request) -> None:
        may(request)
        raise HTTPException(LET_IN)

    for route in app.routes:
        for needed in route.dependant.dependencies if isinstance(route, APIRoute) else ():
            if needed.call is may:
                monkeypatch.setattr(needed, "call", door)


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


def test_every_route_against_every_asker(begun, monkeypatch):
    office, owner, number = begun
    porch = office.state.porch
    for name in ("Reader", "Editor"):
        office.ids[name] = accounts.add_account(porch, name, "agent", False, PASSWORD)
        owner.put(f"/api/workups/{number}/shares/{office.ids[name]}", json={"may_edit": name == "Editor"})
    delivery = owner.post(f"/api/workups/{number}/deliveries", json={}).json()["delivery_id"]
    names = (None, "Colleague", "Reader", "Editor", "Owner", "Importer", "Manager")
    clients = [office.client(name) for name in names]
    cookies = [c.cookies.get(COOKIE) for c in clients]
    stop_behind_the_door(office.app, monkeypatch)
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


def test_what_waits_is_pulled_for_nobody_who_may_no_longer_and_from_nowhere_that_they_may_not(office):
    manager = office.client("Manager")
    asked = {"kind": "feed", "details": {"address": "http://127.0.0.1:9/x", "token": "", "source": "", "nearby": True}}
    assert manager.post("/api/due-work", json=asked).status_code == 422, "a feed is planned where it is pulled"
    importer = office.state.agent_of(office.ids["Importer"])
    details = {"address": "http://127.0.0.1:9/x", "token": "", "source": "", "nearby": False}
    schedule.plan_once(importer, "feed", details, 60, NOW)

    def said() -> str:
        office.state.schedule.do_next()
        (work,) = office.client("Importer").get("/api/due-work").json()
        office.clock.at += dt.timedelta(hours=1)
        return work["last_said"]

    assert "private network" in said()
    changed = {"name": "Importer", "role": "agent", "may_import": False}
    assert manager.put(f"/api/accounts/{office.ids['Importer']}", json=changed).status_code == 200
    assert "may not change the records any more" in said()


def test_nobody_reads_what_the_service_can_be_asked(office):
    for path in ("/api/docs", "/openapi.json"):
        assert office.client().get(path).status_code == 401
        assert office.client("Owner").get(path).status_code == 200
