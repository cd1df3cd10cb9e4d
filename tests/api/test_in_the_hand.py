"""What the rooms ask of the service: everything offered works, what is typed is found, what is strange is asked about."""

from __future__ import annotations

import json
import sqlite3
import statistics

import pytest
from fastapi.testclient import TestClient

from rain_porch.api.app import create_app
from tests.conftest import LOCAL


@pytest.fixture
def client(town) -> TestClient:
    return TestClient(create_app(town), base_url=LOCAL)


@pytest.fixture
def workup(client) -> str:
    hit = client.get("/api/lookup", params={"text": "630 hedgerow terrace"}).json()["hits"][0]
    made = client.post("/api/workups", json={"kind": hit["kind"], "key": hit["key"]}).json()
    return f"/api/workups/{made['workup_id']}"


def change(client, workup: str, **what):
    revision = client.get(workup).json()["revision"]
    return client.post(f"{workup}/changes", json={"revision": revision, "change": what})


def test_every_field_that_is_offered_can_be_a_criterion(client, workup):
    proposed = client.get(f"{workup}/proposals").json()["fields"]
    for field in client.get("/api/fields").json():
        name = field["name"]
        if not (field["searched"] or field["kind"] == "text"):
            continue
        for criterion in ({"field": name}, {"field": name, "must_be_known": True}, proposed.get(name)):
            if criterion is None:
                continue
            search = {**client.get(workup).json()["state"]["search"], "criteria": [criterion]}
            assert change(client, workup, change="set_search", search=search).status_code == 200, criterion
            found = client.get(f"{workup}/candidates").json()
            assert found["fault"] is None and found["sentence"], criterion
        if field["kind"] != "text":
            spread = client.get(f"{workup}/spread", params={"field": name})
            assert spread.status_code == 200, name


def test_a_day_is_a_limit_and_a_number_is_none(client, workup):
    search = client.get(workup).json()["state"]["search"]
    search["criteria"] = [{"field": "close_date", "low": "2026-08-01", "high": "2026-09-30", "must_be_known": True}]
    assert change(client, workup, change="set_search", search=search).status_code == 200
    found = client.get(f"{workup}/candidates").json()["candidates"]
    assert found and all("2026-08-01" <= c["facts"].get("close_date", c["date"]) <= "2026-09-30" for c in found)
    assert client.get(workup).json()["state"]["search"]["criteria"][0]["low"] == "2026-08-01"
    for low, why in ((20_000, "a date"), ("2026-13-01", "")):
        search["criteria"] = [{"field": "close_date", "low": low}]
        answer = change(client, workup, change="set_search", search=search)
        assert answer.status_code == 422 and why in answer.json()["message"]
    search["criteria"] = [{"field": "living_area", "low": "2026-08-01"}]
    assert "a number" in change(client, workup, change="set_search", search=search).json()["message"]


def test_a_search_that_fails_keeps_its_sentence_and_names_the_part(client, workup, town):
    search = {**client.get(workup).json()["state"]["search"], "areas": ["Lantern Hill North"]}
    assert change(client, workup, change="set_search", search=search).status_code == 200
    # the area goes with its records, as when an import is taken back
    db = sqlite3.connect(town / "porch.db")
    (document,) = db.execute("SELECT document FROM workups").fetchone()
    db.execute("UPDATE workups SET document = ?", (document.replace("Lantern Hill North", "Gone Hill"),))
    db.commit()
    found = client.get(f"{workup}/candidates")
    assert found.status_code == 200
    told = found.json()
    assert told["fault"]["part"] == "areas" and "Gone Hill" in told["fault"]["message"]
    assert "in Gone Hill" in "".join(p["text"] for p in told["sentence"])
    search["areas"] = ["Nowhere"]
    assert change(client, workup, change="set_search", search=search).status_code == 404


def test_a_record_is_told_as_it_stood_on_the_workups_day(client, town):
    db = sqlite3.connect(town / "records.db")
    key, contract, paid, asked = db.execute(
        "SELECT listing_id, purchase_contract_date, close_price, list_price FROM listings WHERE close_date > '2026-08-01' "
        "AND purchase_contract_date IS NOT NULL AND on_market_date < purchase_contract_date AND close_price != list_price LIMIT 1"
    ).fetchone()
    now = client.get(f"/api/listings/{key}").json()
    facts = {f["field"]: f["value"] for f in now["facts"]}
    assert (
        facts["close_price"] == paid
        and facts["list_price"] == asked
        and now["kind"] == "sold"
        and now["status"] == "Closed"
    )
    before = client.get(f"/api/listings/{key}", params={"until": contract[:8] + "01"}).json()
    told = {f["field"] for f in before["facts"]}
    assert not told & {"close_price", "close_date", "concessions_amount"} and before["status"] != "Closed"
    assert str(int(paid)) not in json.dumps([before["prices"], before["facts"]])
    assert all(e["date"] <= contract[:8] + "01" for e in before["story"])


@pytest.mark.parametrize(
    ("text", "kind", "shown"),
    [
        ("lantern hill", "area", "Lantern Hill"),
        ("LANTERN HILL NO", "area", "Lantern Hill North"),
        ("03-0012", "parcel", None),
        ("030012", "parcel", None),
        ("03 0012", "parcel", None),
    ],
)
def test_what_is_typed_is_found(client, text, kind, shown):
    first = client.get("/api/lookup", params={"text": text}).json()["hits"][0]
    assert first["kind"] == kind and (first["shown"] == shown if shown else first["key"] == "03-0012")


def test_a_plain_street_address_leads_to_every_unit_of_its_building(client):
    hits = client.get("/api/lookup", params={"text": "734 sill drive"}).json()["hits"]
    assert len(hits) == 34 and len({h["key"] for h in hits}) == 34
    assert all("734 Sill Drive, unit " in h["shown"] for h in hits)


def test_a_comp_is_named_whatever_the_search_says_and_help_never_touches_a_decision(client, workup):
    listings = client.get(f"{workup}/candidates").json()
    land = client.get("/api/lookup", params={"text": "1306 anvil road"}).json()["hits"][0]
    records = client.get(f"{workup}/of-home", params={"kind": land["kind"], "key": land["key"]}).json()
    assert records and records[0]["listing_id"] not in {c["listing_id"] for c in listings["candidates"]}
    assert (
        change(client, workup, change="decide", listing_ids=[records[0]["listing_id"]], choice="kept").status_code
        == 200
    )
    assert [c["listing_id"] for c in client.get(f"{workup}/candidates").json()["kept_elsewhere"]] == [
        records[0]["listing_id"]
    ]
    own = client.get(workup).json()["state"]["home"]
    answer = client.get(f"{workup}/of-home", params={"kind": own["kind"], "key": own["key"]})
    assert answer.status_code == 422 and "the home itself" in answer.json()["message"]


def test_the_figures_by_kind_equal_pythons_own_and_leave_out_what_was_set_aside(client, workup):
    def of(field: str, kind: str) -> dict:
        fields = client.get(f"{workup}/summaries").json()["fields"]
        return next(k for f in fields if f["field"] == field for k in f["kinds"] if k["kind"] == kind)

    found = client.get(f"{workup}/candidates").json()["candidates"]
    days = {
        c["listing_id"]: c["days_on_market"] for c in found if c["kind"] == "sold" and c["days_on_market"] is not None
    }
    told = of("days_on_market", "sold")
    lower, middle, upper = statistics.quantiles(days.values(), n=4, method="inclusive")
    assert told["count"] == len(days) and told["mean"] == pytest.approx(statistics.mean(days.values()))
    assert [told[k] for k in ("lower_quartile", "median", "upper_quartile")] == pytest.approx([lower, middle, upper])
    reach = 1.5 * (upper - lower)
    beyond = {k for k, d in days.items() if d < lower - reach or d > upper + reach}
    assert beyond and {x["listing_id"] for x in told["far"]} == beyond
    first = told["far"][0]
    rest = [d for k, d in days.items() if k != first["listing_id"]]
    assert first["mean_without"] == pytest.approx(statistics.mean(rest))
    change(client, workup, change="decide", listing_ids=[first["listing_id"]], choice="set_aside")
    assert of("days_on_market", "sold")["mean"] == pytest.approx(first["mean_without"])
    shares = [
        c["price"] / c["list_price"] for c in found if c["kind"] == "sold" and c["listing_id"] != first["listing_id"]
    ]
    assert of("share_of_list", "sold")["median"] == pytest.approx(statistics.median(shares))


def test_what_is_strange_is_asked_about_and_taken_when_it_is_meant(client, workup):
    suggested = client.get(f"{workup}/candidates").json()["suggested"][:5]
    change(client, workup, change="decide", listing_ids=suggested, choice="kept")
    asked = change(client, workup, change="set_list_price", list_price=3_890_000)
    assert asked.json()["odd"] and "times what the comps cost" in asked.json()["message"]
    assert change(client, workup, change="set_list_price", list_price=3_890_000, sure=True).status_code == 200
    for what in (
        {"change": "correct_fact", "field": "living_area", "value": 15_200},
        {"change": "correct_fact", "field": "year_built", "value": 2031},
    ):
        before = client.get(workup).json()
        asked = change(client, workup, **what)
        assert asked.status_code == 422 and asked.json()["odd"] and asked.json()["field"] == what["field"]
        assert client.get(workup).json() == before, "nothing has changed"
        assert change(client, workup, **what, sure=True).status_code == 200


def test_the_proposed_search_follows_the_facts_until_the_agent_changes_it(client):
    place = client.get("/api/map/middle").json()
    body = {**place, "address": "9 New Lane", "home_kind": "detached"}
    workup = f"/api/workups/{client.post('/api/workups/by-hand', json=body).json()['workup_id']}"
    assert client.get(workup).json()["state"]["search"]["criteria"] == []
    change(client, workup, change="correct_fact", field="living_area", value=1600)
    limits = client.get(workup).json()["state"]["search"]["criteria"]
    assert [(c["field"], c["low"], c["high"]) for c in limits] == [("living_area", 1350, 1850)]
    search = {**client.get(workup).json()["state"]["search"], "radius_miles": 2}
    change(client, workup, change="set_search", search=search)
    change(client, workup, change="correct_fact", field="living_area", value=1700)
    assert client.get(workup).json()["state"]["search"] == search, "the agent's own search stays"


def test_views_are_renamed_and_replaced_only_on_purpose(client):
    view = {"measures": ["closings"]}
    first = client.post("/api/views", json={"name": "A", "view": view}).json()
    assert client.post("/api/views", json={"name": "A", "view": view}).status_code == 422
    assert (
        client.post("/api/views", json={"name": "A", "view": view, "replace": True}).json()["view_id"]
        == first["view_id"]
    )
    client.post("/api/views", json={"name": "B", "view": view})
    path = f"/api/views/{first['view_id']}"
    assert client.put(path, json={"name": "B", "view": view}).status_code == 422
    assert client.put(path, json={"name": "C", "view": view, "pinned": True}).json()["pinned"]
    assert {v["name"] for v in client.get("/api/views").json()} >= {"B", "C"}
    assert client.put("/api/views/99999", json={"name": "D", "view": view}).status_code == 404


def test_the_year_so_far_and_the_bands_leave_as_tables_whose_figures_open(client):
    view = {"measures": ["closings"], "places": ["Lantern Hill"]}
    told = client.post("/api/market/year-so-far", json=view).json()
    table = client.post("/api/market/year-so-far.csv", json=view).text.splitlines()
    assert len(table) == len(told["rows"]) + 1 and "same days of 2024" in table[0]
    closings = next(r for r in told["rows"] if r["measure"] == "closings")
    for back, age in enumerate(("now", "before", "earlier")):
        year = 2026 - back
        behind = client.post("/api/market/behind", json={
            "view": view, "measure": "closings", "place": "Lantern Hill", "start": f"{year}-01-01",
            "end": told["end"].replace("2026", str(year)),
        }).json()  # fmt: skip
        assert behind["count"] == closings[age]["value"]
    bands = client.post("/api/market/bands", json={"view": view}).json()
    for row in bands["size"]:
        behind = client.post("/api/market/behind", json={
            "view": {**view, "where": row["where"]}, "measure": "closings", "place": "Lantern Hill",
            "start": bands["start"], "end": bands["end"],
        }).json()  # fmt: skip
        assert behind["count"] == row["values"]["closings"]["value"]
    for path, body in (("year-so-far", view), ("bands", {"view": view})):
        assert client.post(f"/api/market/{path}.xlsx", json=body).content[:2] == b"PK"
        assert client.post(f"/api/market/{path}.doc", json=body).status_code in (404, 422)
