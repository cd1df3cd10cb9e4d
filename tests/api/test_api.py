from __future__ import annotations

import sqlite3
from unittest.mock import Mock

import pytest
import schemathesis
from fastapi.testclient import TestClient
from hypothesis import HealthCheck, Phase, given, settings

from rain_porch.api.app import create_app
from rain_porch.app.pricing import found_table
from rain_porch.app.records import Records
from rain_porch.core.facts.fields import PRIVATE
from rain_porch.records.importing import import_file
from tests.conftest import LOCAL, NOW, copy_demo


@pytest.fixture
def client(town) -> TestClient:
    return TestClient(create_app(town, now=lambda: NOW), base_url=LOCAL)


def begin(client: TestClient, text: str = "630 hedgerow ter") -> int:
    hit = client.get("/api/lookup", params={"text": text}).json()["hits"][0]
    made = client.post("/api/workups", json={"kind": hit["kind"], "key": hit["key"]})
    assert made.status_code == 201
    return made.json()["workup_id"]


def change(client: TestClient, n: int, **given) -> dict:
    revision = client.get(f"/api/workups/{n}").json()["revision"]
    answer = client.post(f"/api/workups/{n}/changes", json={"revision": revision, "change": given})
    return {"status": answer.status_code, **answer.json()}


def undone(client, n: int) -> str | None:
    revision = client.get(f"/api/workups/{n}").json()["revision"]
    return client.post(f"/api/workups/{n}/undo", json={"revision": revision}).json()["what"]


def test_an_evening_over_the_service(client):
    n = begin(client)
    opened = client.get(f"/api/workups/{n}").json()
    assert opened["state"]["address"] == "630 Hedgerow Terrace" and opened["past"]
    found = client.get(f"/api/workups/{n}/candidates").json()
    assert sum(found["counts"].values()) == len(found["candidates"])
    assert found["sold_within"]["180"] == found["counts"]["sold"]
    assert "".join(p["text"] for p in found["sentence"]).startswith("Detached homes within 1 mi")
    kept = found["suggested"]
    assert change(client, n, change="decide", listing_ids=kept, choice="kept")["what"] == f"{len(kept)} homes kept"
    worth = client.get(f"/api/workups/{n}/worth").json()
    price = worth["price"]
    assert [c["listing_id"] for c in price["comps"]] == kept == [g["listing_id"] for g in worth["grid"]]
    for column, comp in zip(worth["grid"], price["comps"], strict=True):
        lines = sum(x["amount"] or 0 for x in column["lines"])
        assert comp["close_price"] + lines == pytest.approx(comp["adjusted_price"], abs=0.02)
    assert change(client, n, change="set_list_price", list_price=309900)["status"] == 200
    assert client.get(f"/api/workups/{n}/report.pdf").content.startswith(b"%PDF")
    assert client.get(f"/api/workups/{n}/pages/1.png").content.startswith(b"\x89PNG")
    assert client.get("/api/workups").json()[0]["list_price"] == 309900
    assert undone(client, n) == "list price set to 309,900"
    assert [h["what"] for h in client.get(f"/api/workups/{n}/history").json()][-1] == "workup begun"
    assert client.delete(f"/api/workups/{n}").status_code == 204
    assert client.get(f"/api/workups/{n}").status_code == 404


def test_live_counts_are_those_of_the_saved_search_and_nothing_is_saved(client):
    n = begin(client)
    search = client.get(f"/api/workups/{n}").json()["state"]["search"]
    wider = {**search, "radius_miles": 2.0}
    live = client.post(f"/api/workups/{n}/counts", json=wider).json()
    assert client.get(f"/api/workups/{n}").json()["revision"] == 1
    change(client, n, change="set_search", search=wider)
    assert client.get(f"/api/workups/{n}/candidates").json()["counts"] == live["counts"]
    steps = {w["part"]: w for w in live["what_if"]}
    assert sum(steps["radius_miles"]["without"].values()) >= sum(live["counts"].values())


def test_what_a_saved_search_finds_is_looked_for_before_it_is_asked_for(client, monkeypatch):
    n = begin(client)
    search = client.get(f"/api/workups/{n}").json()["state"]["search"]
    looked = Mock(wraps=found_table.candidate_docs)
    monkeypatch.setattr(found_table, "candidate_docs", looked)
    change(client, n, change="set_search", search={**search, "radius_miles": 2.0})
    assert looked.call_count == 1
    assert len(client.get(f"/api/workups/{n}/candidates").json()["candidates"]) == len(looked.call_args.args[1]) > 0
    assert looked.call_count == 1


def test_bad_requests_name_the_field_and_change_nothing(client):
    n = begin(client)
    search = client.get(f"/api/workups/{n}").json()["state"]["search"]
    for bad, field in (
        ({"change": "correct_fact", "field": "living_area", "value": -5}, "living_area"),
        ({"change": "set_list_price", "list_price": 3}, "list_price"),
        ({"change": "set_search", "search": {**search, "radius_miles": -1}}, "radius_miles"),
        ({"change": "set_search", "search": {**search, "colour": "red"}}, "change.set_search.search.colour"),
        ({"change": "dance"}, "change"),
    ):
        answer = change(client, n, **bad)
        assert answer["status"] == 422 and answer["message"], bad
        assert answer["field"].endswith(field.split(".")[-1]), answer
    assert client.get(f"/api/workups/{n}").json()["revision"] == 1
    stale = {"revision": 7, "change": {"change": "set_client", "client": "x"}}
    assert client.post(f"/api/workups/{n}/changes", json=stale).status_code == 409
    assert client.get("/api/workups/999").json()["message"] == "There is no workup 999."
    assert client.post("/api/workups", json={"kind": "parcel", "key": "none"}).status_code == 404


def test_looking_up_finds_workups_numbers_and_what_comes_near(client):
    n = begin(client)
    hits = client.get("/api/lookup", params={"text": "630 hedgerow"}).json()["hits"]
    assert hits[0] == {"kind": "workup", "key": str(n), "shown": "630 Hedgerow Terrace", "note": "workup"}
    listing = client.get("/api/lookup", params={"text": "BF100500"}).json()["hits"]
    assert listing[0]["kind"] == "listing"
    none = client.get("/api/lookup", params={"text": "77777 hedgrow terrace"}).json()
    assert none["hits"] == [] and none["nearest"]
    assert client.get("/api/lookup", params={"text": ""}).json()["hits"] == []


def test_the_market_page_gets_its_series(client):
    area = next(a["name"] for a in client.get("/api/areas").json() if a["kind"] == "neighbourhood")
    query = {"measure": ["closings", "median_price", "for_sale"], "area": area, "home_kind": "detached", "years": 5}
    doc = client.get("/api/market", params=query).json()
    assert len(doc["periods"]) == 60 and doc["periods"][-1]["period"] == "2026-10"
    assert sum(p["values"]["closings"]["value"] for p in doc["periods"]) > 50
    assert client.get("/api/market", params={**query, "area": "Atlantis"}).status_code == 404
    assert client.get("/api/market", params={**query, "measure": ["joy"]}).json()["field"] == "measure"
    assert {m["name"] for m in client.get("/api/measures").json()} >= set(query["measure"])


def test_records_tell_how_fresh_they_are_and_what_was_wrong(client):
    doc = client.get("/api/records").json()
    assert doc["through"] == "2026-10-31" and doc["counts"]["parcels"] > 8000
    listings = next(i for i in doc["imports"] if i["kind"] == "listings")
    rows = client.get(f"/api/records/imports/{listings['import_id']}/rows").json()
    assert len([r for r in rows if r["outcome"] == "suspect"]) == listings["suspect"] > 5


def test_a_listing_has_its_pictures_its_words_and_what_happened_to_it(client, town):
    key = (
        sqlite3.connect(town / "records.db")
        .execute(
            "SELECT listing_id FROM events WHERE event = 'Price Change' AND listing_id IN "
            "(SELECT listing_id FROM listings WHERE home_kind = 'detached' AND NOT is_lease) LIMIT 1"
        )
        .fetchone()[0]
    )
    doc = client.get(f"/api/listings/{key}").json()
    assert doc["pictures"][0] == "Front" and len(doc["pictures"]) >= 5 and "square feet" in doc["remarks"]
    assert doc["agent"] and doc["status"] and doc["kind"]
    told = {f["field"] for f in doc["facts"]}
    assert {"list_price", "on_market_date", "living_area"} <= told and not told & {
        "private_remarks",
        "list_agent_full_name",
    }
    assert "price changed" in {e["what"] for e in doc["story"] if e["listing_id"] == key}
    assert [e["date"] for e in doc["story"]] == sorted((e["date"] for e in doc["story"]), reverse=True)
    made = client.get(f"/api/listings/{key}/pictures/2")
    assert made.headers["content-type"] == "image/svg+xml" and made.text.startswith("<svg")
    assert client.get(f"/api/listings/{key}/pictures/40").status_code == 404
    assert client.get("/api/listings/none").status_code == 404
    assert client.get("/api/listings/none/pictures/1").status_code == 404


def test_other_peoples_records_have_no_drawn_pictures(tmp_path):
    file = tmp_path / "x.csv"
    file.write_text("ListingId,CloseDate,ClosePrice,Latitude,Longitude\nA1,2025-05-01,400000,41.2,-38.4\n")
    records = Records(tmp_path / "own")
    import_file(records.live, file, folder=tmp_path / "own", now=NOW)
    client = TestClient(create_app(tmp_path / "own", now=lambda: NOW), base_url=LOCAL)
    assert client.get("/api/listings/A1").json()["pictures"] == []
    assert client.get("/api/listings/A1/pictures/1").status_code == 404


def test_the_map_gives_lots_and_buildings_of_what_is_in_view(client):
    base = client.get("/api/map").json()["features"]
    kinds = {f["properties"]["kind"] for f in base}
    assert {"river", "highway", "street", "park", "school", "pond", "creek", "railway", "neighbourhood"} <= kinds
    assert not kinds & {"lot", "building"}
    n = begin(client)
    me = client.get(f"/api/workups/{n}").json()["subject"]
    box = {
        "west": me["longitude"] - 0.002,
        "east": me["longitude"] + 0.002,
        "south": me["latitude"] - 0.001,
        "north": me["latitude"] + 0.001,
    }
    fine = client.get("/api/map/fine", params=box).json()["features"]
    here = {f["properties"]["name"] for f in fine if f["properties"]["kind"] == "building"}
    assert "630 Hedgerow Terrace" in here and 10 < len(fine) < 400
    assert client.get("/api/map/fine", params={**box, "west": 10}).status_code == 422


def test_nothing_private_leaves_by_any_door(client):
    names = {f["name"] for f in client.get("/api/fields").json()}
    assert not names & PRIVATE
    n = begin(client)
    text = client.get(f"/api/workups/{n}").text + client.get(f"/api/workups/{n}/candidates").text
    assert "list_agent" not in text and "grantor" not in text and "private_remarks" not in text


def test_an_empty_folder_opens_and_says_what_to_do(tmp_path):
    client = TestClient(create_app(tmp_path, now=lambda: NOW), base_url=LOCAL)
    assert client.get("/api/records").json()["through"] is None
    assert "bring in a file" in client.get("/api/market", params={"measure": "closings"}).json()["message"]
    assert client.get("/api/lookup", params={"text": "630 hedgerow"}).json() == {"hits": [], "nearest": []}


@pytest.fixture(scope="module")
def fuzzed(demo, tmp_path_factory):
    folder = tmp_path_factory.mktemp("fuzz")
    copy_demo(demo, folder)
    app = create_app(folder, now=lambda: NOW, hosts=["testserver"])
    begin(TestClient(app, base_url=LOCAL))
    return schemathesis.openapi.from_asgi("/openapi.json", app)


def test_no_request_whatever_makes_a_server_error(fuzzed):
    """The service fuzzed from its own description: whatever is sent, the answer is no 5xx."""
    seen = 0
    for result in fuzzed.get_all_operations():
        operation = result.ok()

        @settings(
            max_examples=5,
            deadline=None,
            derandomize=True,
            phases=[Phase.generate],
            suppress_health_check=list(HealthCheck),
        )
        @given(case=operation.as_strategy())
        def send(case):
            answer = case.call()
            assert answer.status_code < 500, (case.method, case.path, answer.text)

        send()
        seen += 1
    assert seen > 15


def test_counts_by_how_far_back_stay_those_of_the_days_whatever_the_search_says_of_dates(client):
    """With sales since a date the row beside the search once said the same count for every span."""
    n = begin(client)

    def within(**window):
        search = client.get(f"/api/workups/{n}").json()["state"]["search"]
        search["windows"]["sold"] = {"on": True, "days": None, "since": None, "until": None, **window}
        assert change(client, n, change="set_search", search=search)["status"] == 200
        return client.get(f"/api/workups/{n}/candidates").json()

    by_days = within(days=365)["sold_within"]
    assert len(set(by_days.values())) > 2 and by_days["365"] == within(days=365)["counts"]["sold"]
    assert within(since="2026-01-01")["sold_within"] == by_days == within(on=False)["sold_within"]
    undone(client, n)
    assert client.get(f"/api/workups/{n}/candidates").json()["sold_within"] == by_days
