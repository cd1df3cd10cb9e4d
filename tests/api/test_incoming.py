"""A file through the service: brought, previewed, planned, accepted, undone; and everything that can go wrong on the way."""

from __future__ import annotations

import gzip
import os
import shutil
import threading
import time
from datetime import date

import openpyxl
import pytest
from starlette.testclient import TestClient

from rain_porch.api.app import create_app
from tests.conftest import LOCAL, NOW

FILE = (
    "No;Where;Stat;Lot acres;Sold Price;Sold Date;Lat;Long\n"
    "7;14 N Ferry Ln;SLD;0.25;412500;5/21/2025;41.2;-38.4\n"
    "8;16 N Ferry Ln;ACT;0.5;;;41.2;-38.4\n"
    "9;18 N Ferry Ln;SLD;0.5;400000;soon;41.2;-38.4\n"
)
PARTS = [
    {"field": "listing_id", "columns": ["No"]},
    {"field": "unparsed_address", "columns": ["Where"]},
    {"field": "standard_status", "columns": ["Stat"], "values": {"SLD": "Closed", "ACT": "Active"}},
    {"field": "lot_size_square_feet", "columns": ["Lot acres"], "times": 43560},
    {"field": "close_price", "columns": ["Sold Price"]},
    {"field": "close_date", "columns": ["Sold Date"]},
    {"field": "latitude", "columns": ["Lat"]},
    {"field": "longitude", "columns": ["Long"]},
]


@pytest.fixture
def porch(tmp_path):
    with TestClient(create_app(tmp_path / "porch", now=lambda: NOW), base_url=LOCAL) as client:
        yield client
        client.app.state.porch.incoming.close()


def bring(porch, text=FILE, name="other.csv"):
    answer = porch.post(f"/api/records/incoming?name={name}", content=text)
    assert answer.status_code == 200, answer.text
    return f"/api/records/incoming/{answer.json()['file_id']}"


def until(porch, at, *stages):
    for _ in range(200):
        state = porch.get(at).json()
        if state["stage"] in stages:
            return state
        time.sleep(0.05)
    raise AssertionError(state)


def test_a_file_is_mapped_planned_taken_in_and_undone(porch):
    at = bring(porch)
    seen = porch.get(f"{at}/preview").json()
    assert (seen["kind"], seen["source"], seen["remembered"]) == ("listings", "other", False)
    proposed = {p["field"]: p for p in seen["parts"]}
    assert (
        proposed["lot_size_square_feet"]["times"] == 43_560
        and {"field": "standard_status", "word": "SLD", "rows": 2, "means": "Closed"} in seen["words"]
    )
    porch.post(f"{at}/plan", json={"source": "Other board", "parts": PARTS})
    plan = until(porch, at, "planned", "failed")
    assert {k: plan["result"][k] for k in ("rows", "new", "rejected")} == {"rows": 3, "new": 2, "rejected": 1}
    assert plan["samples"]["rejected"][0]["original"]["Sold Date"] == "soon"
    assert plan["samples"]["new"][0]["after"]["lot_size_square_feet"] == 10_890
    assert not porch.get("/api/records").json()["imports"], "nothing has changed yet"
    porch.post(f"{at}/accept")
    number = until(porch, at, "done")["result"]["import_id"]
    held = porch.get("/api/records").json()
    assert held["counts"]["listings"] == 2 and held["sources"][0]["name"] == "Other board"
    mend = porch.get(f"/api/records/imports/{number}/rejects.csv")
    assert mend.text.splitlines()[1].startswith("3,unreadable CloseDate,9,")
    # the same columns from the same source again: mapped as last time
    again = porch.get(f"{bring(porch)}/preview", params={"source": "Other board"}).json()
    assert again["remembered"] and {p["field"] for p in again["parts"]} == {p["field"] for p in PARTS}
    undone = porch.post(f"/api/records/imports/{number}/undo").json()
    assert (undone["removed"], undone["kept"]) == (2, [])
    assert porch.post(f"/api/records/imports/{number}/undo").status_code == 422


def test_a_plan_can_be_cancelled_at_any_point_and_leaves_nothing(porch, tmp_path):
    folder = tmp_path / "porch"
    at = bring(porch)
    porch.post(f"{at}/plan", json={"source": "x", "parts": PARTS})
    porch.delete(at)
    at = bring(porch)
    porch.post(f"{at}/plan", json={"source": "x", "parts": PARTS})
    until(porch, at, "planned")
    assert porch.delete(at).json() == []
    assert porch.get(at).status_code == 404
    assert not list(folder.glob("staging*")) and not list((folder / "incoming").iterdir())
    assert not porch.get("/api/records").json()["imports"]


@pytest.mark.parametrize(
    ("text", "name", "plan", "words"),
    [
        ("", "empty.csv", {}, "empty"),
        ("a,b\n1,2\n", "odd.csv", {}, "no kind of file"),
        ("\x89PNG\x00\x00" + "\x00" * 40, "p.csv", {}, "binary"),
        (FILE, "x.csv", {"parts": [{"field": "girth", "columns": ["No"]}]}, "no field"),
        (FILE, "x.csv", {"parts": [{"field": "listing_id", "columns": ["Number"]}]}, "does not have"),
        (FILE, "x.csv", {"parts": [{"field": "listing_id", "columns": ["No"]}]}, "no column for"),
    ],
)
def test_what_cannot_be_used_is_told_and_changes_nothing(porch, text, name, plan, words):
    answer = porch.post(f"/api/records/incoming?name={name}", content=text)
    if answer.status_code == 200:
        at = f"/api/records/incoming/{answer.json()['file_id']}"
        porch.post(f"{at}/plan", json={"source": "x", "kind": "listings" if plan else None, **plan})
        said = until(porch, at, "failed")["message"]
    else:
        said = answer.json()["message"]
    assert words in said and not porch.get("/api/records").json()["imports"]


def test_names_that_climb_and_requests_out_of_turn(porch, tmp_path):
    at = bring(porch, name="../../etc/passwd.csv")
    assert porch.get(at).json()["name"] == "passwd.csv"
    assert porch.post(f"{at}/accept").status_code == 422
    assert porch.post("/api/records/incoming/000000000000/accept").status_code == 404
    assert porch.post(f"{at}/plan", json={"source": ""}).status_code == 422
    assert porch.get("/api/records/export/listings.exe").status_code == 422
    assert porch.get("/api/records/export/ghosts.csv").status_code == 422
    assert porch.get("/api/records/export/listings.csv").text.startswith("ListingId,")
    assert not [p for p in (tmp_path / "porch").iterdir() if p.name.startswith("tmp")]


def test_health_and_conclusions_of_the_town(town):
    with TestClient(create_app(town, now=lambda: NOW), base_url=LOCAL) as porch:
        health = porch.get("/api/records/health").json()
        (source,) = [s for s in health["by_source"] if s["rows"] > 5000]
        assert 0 < source["known"]["purchase_contract_date"] < source["rows"] == source["known"]["unparsed_address"]
        assert "private_remarks" not in health["fields"] and "list_agent_full_name" not in health["fields"]
        counts = porch.get("/api/records/conclusions").json()
        for what, n in counts.items():
            rows = porch.get(f"/api/records/conclusions/{what}", params={"limit": 1000}).json()
            assert len(rows) == min(n, 1000), what
            assert not {"grantor", "grantee"} & {k for r in rows for k in r}
        for what, says in (("new_construction", "0"), ("quick_resale", "none")):
            first = porch.get(f"/api/records/conclusions/{what}").json()[0]
            ruling = {"kind": "listings", "key": first["key"], "about": what}
            assert porch.post("/api/records/rulings", json={**ruling, "says": "haunted"}).status_code == 422
            porch.post("/api/records/rulings", json={**ruling, "says": says})
            assert porch.get("/api/records/conclusions").json()[what] == counts[what] - 1
            porch.post("/api/records/rulings", json={**ruling, "says": None})
        resale = porch.get("/api/records/conclusions/quick_resale").json()[0]
        assert 0 < (date.fromisoformat(resale["date"]) - date.fromisoformat(resale["before"]["date"])).days <= 365
        for spread in porch.get("/api/records/spreads").json():
            assert spread["n"] == sum(spread["bins"]) + spread["beyond"]
            assert all(not spread["low"] <= f["value"] <= spread["high"] for f in spread["farthest"])
        key = porch.get("/api/records/conclusions/matched").json()[0]["key"]
        ruled = porch.post(
            "/api/records/rulings", json={"kind": "transfers", "key": key, "about": "listing_id", "says": "none"}
        )
        assert len(ruled.json()) == 1
        assert porch.get("/api/records/conclusions").json()["matched"] == counts["matched"] - 1
        porch.post("/api/records/rulings", json={"kind": "transfers", "key": key, "about": "listing_id", "says": None})
        assert porch.get("/api/records/conclusions").json() == counts


def test_the_watched_folder_is_looked_into_now_and_again(porch, tmp_path):
    folder = tmp_path / "porch"
    place = folder / "inbox" / "north board"
    place.mkdir(parents=True)
    (place / "export.csv").write_text("MLS #,Status,Address,List $\n7,A,12 Oak St,415K\n8,A,14 Oak St,500000\n")
    os.utime(place / "export.csv", (1e9, 1e9))
    assert porch.post("/api/records/inbox", json={"again_every": 7}).status_code == 422
    done = porch.post("/api/records/inbox", json={"again_every": 60}).json()
    assert done["folder"] == str(folder / "inbox")
    assert [(f["source"], f["name"], f["held"], f["outcome"]) for f in done["files"]] == [
        ("north board", "export.csv", False, "2 new, 0 changed, 0 the same, 0 rejected listings")
    ]
    waiting = [w for w in porch.get("/api/due-work").json() if "watched folder" in w["name"]]
    assert len(waiting) == 1
    porch.post("/api/records/inbox", json={"again_every": 1440})
    assert len([w for w in porch.get("/api/due-work").json() if "watched folder" in w["name"]]) == 1, "one rhythm"
    assert porch.get("/api/records").json()["sources"][0]["name"] == "north board"


def test_what_a_workbook_holds_waits_sheet_by_sheet(porch, tmp_path):
    book = openpyxl.Workbook()
    for title, rows in (
        ("Deeds", [["Parcel", "Sale Date", "Price", "Grantor"], ["P1", "2025-05-01", 300000, "A"], ["P2", "2025-05-02", 300000, "B"]]),
        ("Homes", [["ParcelNumber", "UnparsedAddress"], ["P1", "1 Oak St"], ["P2", "2 Oak St"]]),
    ):  # fmt: skip
        sheet = book.create_sheet(title)
        for row in rows:
            sheet.append(row)
    del book["Sheet"]
    book.save(tmp_path / "two.xlsx")
    first = porch.post(
        "/api/records/incoming", params={"name": "two.xlsx"}, content=(tmp_path / "two.xlsx").read_bytes()
    )
    assert first.json()["name"] == "two.xlsx: Homes"
    assert [f["name"] for f in porch.get("/api/records/incoming").json()] == ["two.xlsx: Homes", "two.xlsx: Deeds"]
    bad = porch.post("/api/records/incoming", params={"name": "b.xlsx"}, content=b"\xd0\xcf\x11\xe0" + b"z" * 900)
    assert bad.status_code == 422 and "b.xlsx is no workbook" in bad.json()["message"]
    assert len(porch.get("/api/records/incoming").json()) == 2, "what cannot be read does not wait"


def test_a_large_archive_is_unpacked_while_one_waits_or_lets_it_go(porch, tmp_path, monkeypatch):
    monkeypatch.setattr("rain_porch.app.incoming.files.PATIENT_SECONDS", 0.0)
    monkeypatch.setattr("rain_porch.records.files.containers._BLOCK", 4096)
    goes_on, room = threading.Event(), shutil.disk_usage  # asked before each block is written
    monkeypatch.setattr("shutil.disk_usage", lambda path: (goes_on.wait(20), room(path))[1])
    rows = "MLS #,Status,Address,List $\n" + "".join(f"{n},A,{n} Oak St,{300_000 + n}\n" for n in range(20_000))
    data = gzip.compress(rows.encode())

    def bring():
        return porch.post("/api/records/incoming", params={"name": "all.csv.gz"}, content=data).json()

    file = bring()
    assert file["stage"] == "unpacking"
    assert porch.get(f"/api/records/incoming/{file['file_id']}/preview").status_code == 422
    assert porch.post(f"/api/records/incoming/{file['file_id']}/plan", json={"source": "x"}).status_code == 422
    goes_on.set()
    for _ in range(200):
        now = porch.get(f"/api/records/incoming/{file['file_id']}").json()
        if now["stage"] != "unpacking":
            break
        time.sleep(0.05)
    assert (now["stage"], now["name"]) == ("waiting", "all.csv")
    assert porch.get(f"/api/records/incoming/{file['file_id']}/preview").json()["kind"] == "listings"
    goes_on.clear()
    other = bring()
    porch.delete(f"/api/records/incoming/{other['file_id']}")
    goes_on.set()
    for _ in range(100):
        if not list((tmp_path / "porch").glob("unpacked-*")):
            break
        time.sleep(0.05)
    assert not list((tmp_path / "porch").glob("unpacked-*")) and len(porch.get("/api/records/incoming").json()) == 1


def test_mappings_with_a_name_and_a_mended_import(porch):
    csv = "Num,Stat,Addr,Ask,Kitchen\n1,Active,1 Oak St,300000,Fair\n2,Active,2 Oak St,400000,Good\n"
    brought = porch.post("/api/records/incoming", params={"name": "e.csv"}, content=csv.encode()).json()
    path = f"/api/records/incoming/{brought['file_id']}"
    parts = [{"field": f, "columns": [c]} for f, c in
             (("listing_id", "Num"), ("standard_status", "Stat"), ("unparsed_address", "Addr"), ("list_price", "Ask"))]  # fmt: skip
    saved = porch.put("/api/records/mappings/Board", json={"kind": "listings", "parts": parts}).json()
    assert [(m["name"], len(m["parts"])) for m in saved] == [("Board", 4)]
    wrong = porch.put(
        "/api/records/mappings/Bad", json={"kind": "listings", "parts": [{"field": "nonsense", "columns": ["x"]}]}
    )
    assert wrong.status_code == 422 and "no field" in wrong.json()["message"]
    porch.post(f"{path}/plan", json={"kind": "listings", "source": "Board", "parts": saved[0]["parts"]})
    until(porch, path, "planned")
    porch.post(f"{path}/accept")
    number = until(porch, path, "done")["result"]["import_id"]
    (row,) = porch.get("/api/records").json()["imports"]
    assert row["kept"]
    file = porch.post(f"/api/records/imports/{number}/mend").json()
    assert (file["mends"], file["name"]) == (number, "e.csv")
    path = f"/api/records/incoming/{file['file_id']}"
    seen = porch.get(f"{path}/preview").json()
    assert seen["remembered"] and seen["source"] == "Board"
    own = next(c["own"] for c in seen["columns"] if c["name"] == "Kitchen")
    porch.post(
        f"{path}/plan",
        json={"kind": "listings", "source": "Board", "parts": [*seen["parts"], {"field": own, "columns": ["Kitchen"]}]},
    )
    assert until(porch, path, "planned")["result"]["changed"] == 2
    porch.post(f"{path}/accept")
    until(porch, path, "done")
    ordered = porch.put(f"/api/records/word-orders/{own}", json={"words": ["Fair", "Good", "Good"]}).json()
    assert ordered == {own: ["Fair", "Good"]}
    field = next(f for f in porch.get("/api/fields").json() if f["name"] == own)
    assert field["words"] == ["Fair", "Good"] and field["group"] == "own"
    assert porch.put("/api/records/word-orders/living_area", json={"words": ["a"]}).status_code == 422
    assert porch.put(f"/api/records/word-orders/{own}", json={"words": []}).json() == {}
    assert porch.delete("/api/records/mappings/Board").json() == []
    assert porch.delete("/api/records/mappings/Board").status_code == 404
    assert porch.post("/api/records/imports/999/mend").status_code == 404
