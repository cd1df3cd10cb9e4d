"""What whoever runs or carries on the service needs: its description, whether it lives, what was asked, whose parts it is."""

from __future__ import annotations

import json
import logging
import re

import pytest
from fastapi.testclient import TestClient
from scripts import list_licences

from rain_porch.api import journal
from rain_porch.api.app import create_app
from tests.conftest import LOCAL


@pytest.fixture
def client(town) -> TestClient:
    return TestClient(create_app(town), base_url=LOCAL)


def test_every_request_is_described_on_one_page_that_needs_nothing_from_elsewhere(client):
    page = client.get("/api/docs")
    assert page.status_code == 200 and "<script" not in page.text and not re.search(r'(src|href)="?https?:', page.text)
    paths = client.get("/openapi.json").json()["paths"]
    assert len(paths) > 80
    for path in paths:
        assert f"<code>{path}</code>" in page.text, path
    assert "WorthDoc" in page.text and "list of WorkupRow" in page.text


def test_health_tells_the_version_of_the_records(client):
    assert client.get("/api/health").json() == {
        "status": "ok",
        "records": client.app.state.porch.records.snapshot().stamp[0],
    }
    assert client.get("/api/health").json()["records"] > 0


def test_the_journal_holds_ids_and_no_word_of_what_was_asked(town, client):
    journal.keep_in(town)
    try:
        hit = client.get("/api/lookup", params={"text": "630 hedgerow terrace"}).json()["hits"][0]
        made = client.post("/api/workups", json={"kind": hit["kind"], "key": hit["key"]}).json()["workup_id"]
        change = {"change": "set_client", "client": "Orla Grayle"}
        client.post(f"/api/workups/{made}/changes", json={"revision": 1, "change": change})
        client.get(f"/api/workups/{made}/worth")
        client.get("/api/workups/99/worth")
        client.get("/api/nothing/Orla Grayle")
    finally:
        for handler in logging.getLogger("rain_porch.requests").handlers:
            handler.close()
        logging.getLogger("rain_porch.requests").handlers = []
    text = (town / "log/requests.jsonl").read_text()
    lines = [json.loads(line) for line in text.splitlines()]
    assert not re.search(r"hedgerow|orla|grayle|630", text, re.IGNORECASE)
    assert [(x["method"], x["route"], x["status"]) for x in lines[:5]] == [
        ("GET", "/api/lookup", 200), ("POST", "/api/workups", 201), ("POST", "/api/workups/{workup_id}/changes", 200),
        ("GET", "/api/workups/{workup_id}/worth", 200), ("GET", "/api/workups/{workup_id}/worth", 404),
    ]  # fmt: skip
    assert [x.get("workup_id") for x in lines[2:5]] == [made, made, 99] and all(x["ms"] >= 0 for x in lines)


def test_the_licences_are_those_of_the_parts_that_are_locked():
    held = (list_licences.ROOT / "docs/licences.md").read_text(encoding="utf-8")
    assert held == list_licences.listed(), "run scripts/list_licences.py"
    assert "GPL" not in held.replace("LGPL", "")
