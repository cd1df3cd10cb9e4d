"""An office: a service with a manager, somebody who owns a workup, a colleague, somebody who brings records in."""

from __future__ import annotations

import datetime as dt
from collections.abc import Iterator

import pytest
from fastapi.testclient import TestClient

from rain_porch.api.app import create_app
from rain_porch.app.office import accounts
from tests.conftest import LOCAL, NOW

PASSWORD = "seven grey herons wading"


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
