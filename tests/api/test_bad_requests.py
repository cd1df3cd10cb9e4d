"""Requests that make no sense, at their most spiteful: told in a document, nothing changed, nothing left behind."""

from __future__ import annotations

import json

import pytest
from fastapi.testclient import TestClient

from rain_porch.api.app import create_app
from tests.conftest import LOCAL, NOW

BIG = 10**30
JSON = {"content-type": "application/json"}


@pytest.fixture
def client(town):
    return TestClient(create_app(town, now=lambda: NOW), base_url=LOCAL, raise_server_exceptions=False)


@pytest.fixture
def workup(client):
    hit = client.get("/api/lookup", params={"text": "630 hedgerow terrace"}).json()["hits"][0]
    return client.post("/api/workups", json={"kind": hit["kind"], "key": hit["key"]}).json()["workup_id"]


def refused(answer) -> str:
    assert 400 <= answer.status_code < 500, (answer.status_code, answer.text[:200])
    assert answer.headers["content-type"] == "application/json"
    return answer.json()["message"]


@pytest.mark.parametrize("path", ["/api/records/export/x%00.csv", "/api/records/export/..%2f..%2fx.csv", "/api/records/export/songs.csv",
                                  "/api/records/export/" + "y" * 300 + ".csv"])  # fmt: skip
def test_what_is_no_kind_of_record_is_not_exported_and_leaves_nothing(client, town, path):
    before = sorted(p.name for p in town.iterdir() if not p.name.endswith(("-wal", "-shm")))
    refused(client.get(path))
    assert sorted(p.name for p in town.iterdir() if not p.name.endswith(("-wal", "-shm"))) == before


@pytest.mark.parametrize(
    ("method", "path"),
    [("GET", f"/api/workups/{BIG}"), ("GET", f"/api/workups/{BIG}/worth"), ("DELETE", f"/api/workups/{BIG}"),
     ("POST", f"/api/records/imports/{BIG}/undo"), ("GET", f"/api/records/imports/{BIG}/rejects.csv"),
     ("GET", "/api/listings/a%00b"), ("GET", "/api/listings/" + "x" * 300), ("GET", "/api/nothing"), ("GET", "/api/workups/1/nothing")],
)  # fmt: skip
def test_numbers_and_names_beyond_all_bounds_are_told(client, method, path):
    assert refused(client.request(method, path))


@pytest.mark.parametrize(
    ("path", "body"),
    [
        ("/api/workups", '{"kind":"parcel","key":"\\ud800"}'),
        ("/api/workups", '{"kind":"\\udfff","key":"x"}'),
        ("/api/clients", '{"name":"\\ud800","email":""}'),
        ("/api/views", '{"name":"\\ud800","view":{"measures":["closings"]}}'),
        ("/api/views", '{"name":"a\\u0000b","view":{"measures":["closings"]}}'),
        ("/api/clients", '{"name":"Wilma\\u0007","email":"a@place.example"}'),
        ("/api/clients", '{"name":"Wilma\\nCarrow","email":"a@place.example"}'),
        ("/api/workups", "[" * 100_000),
        ("/api/workups", '{"kind":"parcel","key":' + "9" * 5000 + "}"),
        ("/api/workups", "\xff\xfe"),
    ],
)
def test_texts_that_are_none_are_refused(client, path, body):
    before = client.get(path).json()
    assert refused(client.post(path, content=body.encode("latin-1"), headers=JSON))
    assert client.get(path).json() == before


SPOILT = "Wilma\u0007Carrow"


def test_no_name_of_any_kind_takes_what_no_key_writes(client, workup):
    """Every place where something is called something."""
    change = {"revision": 1}
    sent = [
        ("POST", "/api/clients", {"name": SPOILT}), ("POST", "/api/clients", {"name": "Wilma", "phone": SPOILT}),
        ("POST", "/api/views", {"name": SPOILT, "view": {"measures": ["closings"]}}),
        ("POST", "/api/bulletins", {"title": SPOILT}), ("PUT", "/api/card", {"name": SPOILT}), ("PUT", "/api/card", {"contact": SPOILT}),
        ("POST", "/api/kept-layouts", {"name": SPOILT, "paper": {"pages": ["summary"]}}),
        ("POST", f"/api/workups/{workup}/searches", {"name": SPOILT}),
        ("POST", "/api/workups/by-hand", {"address": SPOILT, "latitude": 41.2, "longitude": -38.4, "home_kind": "detached"}),
        ("POST", f"/api/workups/{workup}/changes", change | {"change": {"change": "set_client", "client": SPOILT}}),
        ("POST", f"/api/workups/{workup}/changes", change | {"change": {"change": "set_features", "features": [{"label": SPOILT}]}}),
    ]  # fmt: skip
    paths = client.get("/openapi.json").json()["paths"]
    for method, path, body in sent:
        route = path.replace(f"/workups/{workup}", "/workups/{workup_id}")
        assert route in paths and method.lower() in paths[route], (method, route)
        assert "no key writes" in refused(client.request(method, path, json=body)), (path, body)
    answer = client.post("/api/own-pages", params={"title": SPOILT}, content=b"x")
    assert "no key writes" in refused(answer)


def test_a_name_of_earlier_days_is_read_as_it_was_kept(client, workup):
    """What is kept is not judged by the rules of today."""
    porch = client.app.state.porch.porch
    document = porch.execute("SELECT document FROM workups WHERE workup_id = ?", (workup,)).fetchone()[0]
    old = json.loads(document) | {"features": [{"label": SPOILT, "amount": None}], "client": SPOILT}
    porch.execute("UPDATE workups SET document = ? WHERE workup_id = ?", (json.dumps(old), workup))
    assert client.get(f"/api/workups/{workup}").json()["state"]["client"] == SPOILT


@pytest.mark.parametrize(
    "path",
    [
        "/a%00b",
        "/" + "x" * 300,
        "/assets/%00",
        "/assets/" + "y" * 300,
        "/%ff%fe",
        "/workups/" + "z" * 4000,
        "/index.html",
    ],
)
def test_an_address_of_the_interface_is_a_page_or_nothing(client, path):
    answer = client.get(path)
    assert answer.status_code in (200, 404) and "{nonce}" not in answer.text


@pytest.mark.parametrize("price", ["9" * 5000, "1e999", "NaN", "-Infinity", '"\\ud800"', "true", "[]"])
def test_a_price_that_is_no_number_changes_nothing(client, workup, price):
    change = f'{{"revision":1,"change":{{"change":"set_list_price","list_price":{price}}}}}'
    refused(client.post(f"/api/workups/{workup}/changes", content=change.encode(), headers=JSON))
    assert client.get(f"/api/workups/{workup}").json()["revision"] == 1


def test_a_listing_whose_number_holds_a_slash_can_be_opened(client):
    db = client.app.state.porch.records.live
    key = db.execute("SELECT listing_id FROM listings ORDER BY listing_id LIMIT 1").fetchone()[0]
    assert client.get(f"/api/listings/{key}").json()["listing_id"] == key
    for written in ("SL/1", "SL%2F1"):
        assert "SL/1" in refused(client.get(f"/api/listings/{written}"))
    assert client.get(f"/api/listings/{key}/pictures/1").status_code == 200


def test_every_number_that_is_asked_for_has_an_end(client):
    """The store holds 64 bits: a number beyond them is refused as such, in whatever parameter it stands."""
    endless = []
    for path, methods in client.get("/openapi.json").json()["paths"].items():
        for method, operation in methods.items():
            for p in operation.get("parameters", []):
                for schema in (p["schema"], *p["schema"].get("anyOf", [])):
                    if schema.get("type") == "integer" and not {"maximum", "exclusiveMaximum"} & set(schema):
                        endless.append(f"{method.upper()} {path}: {p['name']}")
    assert not endless


def test_a_full_disk_is_told_and_what_was_saved_before_stands(client):
    hit = client.get("/api/lookup", params={"text": "630 Hedgerow Terrace"}).json()["hits"][0]
    number = client.post("/api/workups", json={"kind": hit["kind"], "key": hit["key"]}).json()["workup_id"]
    writer = client.app.state.porch.porch._writer
    pages = writer.execute("PRAGMA page_count").fetchone()[0]
    writer.execute(f"PRAGMA max_page_count = {pages}")  # SQLite says of it what it says of a full disk
    asked = {"revision": 1, "change": {"change": "set_paper", "paper": {"pages": ["summary"], "letter": "x" * 4000}}}
    asked["change"]["paper"]["letter"] = "x" * 3900
    answer = client.post(f"/api/workups/{number}/changes", json=asked)
    while answer.status_code == 200:
        asked["revision"] = answer.json()["revision"]
        asked["change"]["paper"]["title"] = f"Number {asked['revision']}"
        answer = client.post(f"/api/workups/{number}/changes", json=asked)
    assert answer.status_code == 507 and "There is no room left" in answer.json()["message"]
    assert client.get(f"/api/workups/{number}").json()["revision"] == asked["revision"], "nothing of it is there"
    writer.execute("PRAGMA max_page_count = 1000000")
    assert client.post(f"/api/workups/{number}/changes", json=asked).status_code == 200
