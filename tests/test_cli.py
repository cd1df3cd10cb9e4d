"""The command line as other programs use it: exit codes, JSON, refusals on stderr."""

from __future__ import annotations

import csv
import io
import json
import subprocess
import sys
import zipfile
from pathlib import Path

import jsonschema_rs
import pytest
from pypdf import PdfReader

from rain_porch.app.bulletin.documents import BulletinDoc, BulletinPartDoc
from rain_porch.app.bulletin.kept import add_bulletin
from rain_porch.app.market.saved_views import save_view
from rain_porch.app.market.views import ViewDoc
from rain_porch.app.office.agent import folders_agent
from rain_porch.app.records import Records
from rain_porch.app.schemas import SCHEMAS
from rain_porch.cli import main

LISTING_FILE = "Latitude,Longitude,LivingArea,CloseDate,ClosePrice\n41.2,-38.4,1800,2025-05-01,400000\n41.2,-38.4,x,,\n"


@pytest.fixture
def run(town, capsys):
    def call(*words: str, data=town, as_json: bool = True) -> tuple[int, object, str]:
        code = main([*words, "--data", str(data), *(["--json"] if as_json else [])])
        said = capsys.readouterr()
        return code, json.loads(said.out) if as_json and said.out else said.out, said.err

    return call


def fits(name: str, doc: object) -> None:
    jsonschema_rs.validate(SCHEMAS[name].model_json_schema(), doc)


def test_find_price_save_report(run, tmp_path):
    code, found, _ = run("find", "--address", "630 hedgerow terrace")
    assert code == 0
    fits("find", found)
    assert found["counts"]["sold"] == sum(c["kind"] == "sold" for c in found["candidates"])
    file = tmp_path / "search.json"
    file.write_text(json.dumps(found["search"] | {"radius_miles": 2.0}))
    code, wider, _ = run("find", "--address", "630 hedgerow terrace", "--search", str(file))
    assert wider["search"]["radius_miles"] == 2 and wider["loosened"] == []
    assert sum(wider["counts"].values()) > sum(found["counts"].values())
    code, priced, _ = run("price", "--address", "630 hedgerow terrace", "--save")
    fits("price", priced)
    assert priced["workup_id"] == 1 and priced["indicated_value"] % 100 == 0
    code, rows, _ = run("workups")
    assert rows[0]["title"] == "630 Hedgerow Terrace" and rows[0]["kept"] == len(priced["comps"])
    out = tmp_path / "r.pdf"
    code, made, _ = run("report", "--workup", "1", "--layout", "three_pages", "--out", str(out))
    assert (code, made["pages"]) == (0, 3) and out.read_bytes().startswith(b"%PDF")


def test_exclude_self_hides_the_homes_own_sale(run, town):
    import sqlite3

    key, contract = (
        sqlite3.connect(town / "records.db")
        .execute(
            "SELECT listing_id, purchase_contract_date FROM listings WHERE standard_status = 'Closed' AND home_kind = 'detached' "
            "AND purchase_contract_date > '2024-01-01' AND NOT is_lease ORDER BY listing_id LIMIT 1"
        )
        .fetchone()
    )
    _, doc, _ = run("price", "--listing", key, "--exclude-self")
    assert doc["effective_date"] == contract and key not in [c["listing_id"] for c in doc["comps"]]
    assert all(c["close_date"] <= contract for c in doc["comps"])


def test_market_as_json_and_csv(run):
    code, doc, _ = run(
        "market",
        "--measure",
        "closings",
        "median_price,months_of_supply",
        "--by",
        "quarter",
        "--from",
        "2024-01-01",
        "--to",
        "2026-10-31",
        "--where",
        "home_kind = detached",
        "living_area >= 1500",
    )
    assert code == 0
    fits("market", doc)
    assert doc["measures"] == ["closings", "median_price", "months_of_supply"]
    assert [p["finished"] for p in doc["periods"]][-2:] == [True, False]
    code, text, _ = run("market", "--measure", "closings", "--by", "year", "--csv", as_json=False)
    table = list(csv.DictReader(io.StringIO(text)))
    assert table[-1]["period"] == "2026" and float(table[-2]["closings"]) > 300


def test_a_market_is_looked_into(run, town, tmp_path):
    _, told, _ = run("market", "--behind", "2026-09", "--measure", "closings", "--area", "Lantern Hill")
    fits("market-behind", told)
    assert told["count"] == told["value"]["value"] == len(told["records"])
    _, series, _ = run("market", "--measure", "closings", "--by", "month", "--area", "Lantern Hill")
    by_month = {p["period"]: p["values"]["closings"]["value"] for p in series["periods"]}
    assert told["count"] == by_month["2026-09"]
    _, changed, _ = run("market", "--changed-since", "2026-10-01", "--area", "Lantern Hill")
    fits("market-changes", changed)
    assert changed["counts"].get("closed", 0) == by_month["2026-10"]
    for words, name in ((["--so-far"], "market-so-far"), (["--bands"], "market-bands")):
        code, doc, _ = run("market", *words)
        assert code == 0
        fits(name, doc)
    with folders_agent(Records(town).snapshot()) as agent:
        view = ViewDoc(measures=["median_price"], places=["Lantern Hill"])
        items = [BulletinPartDoc(view=view), BulletinPartDoc(kind="so_far", view=view)]
        save_view(agent, "Months of supply", ViewDoc(measures=["months_of_supply"]), pinned=False)
        add_bulletin(agent, BulletinDoc(title="Autumn", parts=items))
    code, told, _ = run("market", "--view", "Months of supply")
    fits("market-view", told)
    out = tmp_path / "supply.xlsx"
    code, told, _ = run("market", "--view", "Months of supply", "--out", str(out), "--csv", as_json=False)
    rows = list(csv.DictReader(io.StringIO(told)))
    assert rows[-1]["period"] == "2026-10" and out.read_bytes()[:2] == b"PK"
    paper = tmp_path / "bulletin.pdf"
    assert run("market", "--letter", "Autumn", "--out", str(paper))[0] == 0
    text = "\n".join(p.extract_text() for p in PdfReader(paper).pages)
    assert "Median price in Lantern Hill" in text and "The year so far" in text
    ready = tmp_path / "ready.html"
    assert run("market", "--bulletin", "one_page", "--area", "Lantern Hill", "--out", str(ready))[0] == 0
    assert "Homes in Lantern Hill sold for" in ready.read_text()
    for ending, begins in (
        (".csv", b"\xef\xbb\xbfpart,measure,label,unit"),
        (".xlsx", b"PK"),
        (".square.png", b"\x89PNG"),
        (".wide.png", b"\x89PNG"),
    ):
        file = tmp_path / f"ready{ending}"
        assert (
            run("market", "--bulletin", "one_page", "--area", "Lantern Hill", "--to", "2026-08-31", "--out", str(file))[
                0
            ]
            == 0
        )
        assert file.read_bytes().startswith(begins)
    assert "the 12 months to August 2026" in (tmp_path / "ready.csv").read_text()
    for words, why in (
        (["--view", "nix"], "no saved view"),
        (["--letter", "nix", "--out", str(paper)], "no bulletin"),
        (["--letter", "Autumn", "--out", "autumn.doc"], ".wide.png"),
        (["--bulletin", "one_page", "--to", "2031-01-01", "--out", str(paper)], "records end on"),
        (["--behind", "2026-99", "--measure", "closings"], "is no month"),
        (["--changed-since", "2031-01-01"], "records end on"),
    ):
        code, _, said = run("market", *words)
        assert code == 1 and why in said


def test_import_tells_each_file_and_a_second_time_changes_nothing(run, tmp_path):
    file = tmp_path / "export.csv"
    file.write_text(LISTING_FILE)
    folder = tmp_path / "new"
    code, doc, _ = run("import", str(file), data=folder)
    fits("import", doc)
    assert (code, doc["new"], doc["rejected"]) == (0, 1, 1), "rejected rows are no failure"
    assert run("import", str(file), data=folder)[1]["same"] == 1
    code, both, _ = run("import", str(file), str(file), "--dry-run", data=folder)
    assert [d["import_id"] for d in both] == [None, None]
    code, text, _ = run("import", str(file), data=folder, as_json=False)
    assert "1 same" in text and "no status" in text


@pytest.mark.parametrize(
    ("words", "said"),
    [
        (("find", "--address", "hedgerow terrace"), "may mean several homes"),
        (("find", "--address", "1 nowhere at all"), "No home has the address"),
        (("price", "--parcel", "zz"), "No parcel"),
        (("price", "--place", "0,0"), "No home in the records"),
        (("market", "--measure", "joy"), "no measure"),
        (("market", "--measure", "closings", "--area", "Atlantis"), "Atlantis"),
        (("market", "--measure", "closings", "--where", "age of owner > 3"), "condition"),
        (("report", "--workup", "77", "--out", "x.pdf"), "no workup 77"),
        (("import", "/nowhere.csv"), "There is no file"),
        (("find", "--address", "630 hedgerow terrace", "--search", "/nowhere.json"), "no search file"),
    ],
)
def test_refusals_exit_1_with_their_reason_and_no_output(run, words, said):
    code, out, err = run(*words)
    assert code == 1 and not out and said in err


@pytest.mark.parametrize(
    "words",
    [("find",), ("dance",), ("price", "--place", "north"), ("find", "--address", "x", "--as-of", "May"), ("market",)],
)
def test_usage_errors_exit_2(words, capsys, monkeypatch, tmp_path):
    monkeypatch.setenv("RAIN_PORCH_DATA", str(tmp_path))
    with pytest.raises(SystemExit) as stop:
        main([*words])
    assert stop.value.code == 2 and capsys.readouterr().err


@pytest.mark.parametrize("name", list(SCHEMAS))
def test_schemas_are_printed(name, capsys):
    assert main(["schema", name]) == 0
    assert json.loads(capsys.readouterr().out)["type"] == "object"


def test_people_can_read_it_too(run):
    for words in (
        ("find", "--address", "630 hedgerow terrace"),
        ("price", "--address", "630 hedgerow terrace"),
        ("workups",),
    ):
        code, text, _ = run(*words, as_json=False)
        assert code == 0 and text.strip()


def test_a_backup_brings_all_of_it_back(tmp_path, run):
    folder = tmp_path / "porch"
    file = tmp_path / "l.csv"
    file.write_text(LISTING_FILE)
    assert run("import", str(file), data=folder)[0] == 0
    (folder / "photos").mkdir(exist_ok=True)
    (folder / "photos/a.png").write_bytes(b"\x89PNG")
    code, made, _ = run("backup", data=folder)
    assert code == 0 and made["bytes"] > 0
    assert run("check", data=folder)[1] == {"ok": True, "faults": []}
    held = run("export", "--kind", "listings", "--out", str(tmp_path / "before.csv"), data=folder)[1]
    run("undo", "1", data=folder)
    saved = tmp_path / "kept.zip"
    Path(made["file"]).rename(saved)
    code, told, _ = run("restore", str(saved), data=folder)
    assert code == 0 and Path(told["before"]).is_dir()
    assert (
        run("export", "--kind", "listings", "--out", str(tmp_path / "after.csv"), data=folder)[1][0]["rows"]
        == held[0]["rows"]
        == 1
    )
    assert (tmp_path / "after.csv").read_text() == (tmp_path / "before.csv").read_text()
    assert (folder / "photos/a.png").read_bytes() == b"\x89PNG"

    # what is no whole backup changes nothing
    climbing = tmp_path / "climbing.zip"
    with zipfile.ZipFile(climbing, "w") as bundle:
        bundle.writestr("../records.live", b"x")
    broken = tmp_path / "broken.zip"
    with zipfile.ZipFile(broken, "w") as bundle:
        bundle.writestr("records.db", b"no database at all" * 100)
    (tmp_path / "cut.zip").write_bytes(saved.read_bytes()[:200])
    for bad in (climbing, broken, tmp_path / "cut.zip", tmp_path / "none.zip"):
        code, _, err = run("restore", str(bad), data=folder)
        assert code == 1 and bad.name in err
    assert run("check", data=folder)[0] == 0
    (folder / "porch.db").write_bytes(b"not a database" * 500)
    assert run("check", data=folder)[0] == 1


def test_files_come_in_in_their_order_and_are_answered_in_the_order_given(run, tmp_path):
    listings, parcels = tmp_path / "a.csv", tmp_path / "b.csv"
    listings.write_text("ListingId,StandardStatus,ParcelNumber,UnparsedAddress\nA1,Active,P1,10 Mill St\n")
    parcels.write_text("ParcelNumber,UnparsedAddress,LivingArea,Latitude,Longitude\nP1,10 Mill St,1500,41.2,-38.4\n")
    code, done, _ = run("import", str(listings), str(parcels), data=tmp_path / "d")
    assert code == 0 and [(d["kind"], d["import_id"]) for d in done] == [("listings", 2), ("parcels", 1)]


def test_a_search_reads_neither_the_service_nor_the_fits(town):
    """Reading them takes longer than the search: `find` runs in a process of its own without them."""
    ask = ["find", "--data", str(town), "--address", "630 Hedgerow Terrace", "--json"]
    told = subprocess.run(
        [sys.executable, "-c", "import sys; from rain_porch.cli import main; code = main(sys.argv[1:]); "
         "print(*({m.split('.')[0] for m in sys.modules} & {'scipy', 'fastapi', 'uvicorn'}), file=sys.stderr); sys.exit(code)", *ask],
        capture_output=True, text=True, check=True,
    )  # fmt: skip
    assert json.loads(told.stdout)["candidates"] and not told.stderr.split()


@pytest.mark.parametrize(("command", "names"), [("import", "photos"), ("schema", "market-view"), ("user", "manager")])
def test_what_may_be_chosen_is_told_by_the_help_and_by_a_refusal(command, names, capsys):
    with pytest.raises(SystemExit):
        main([command, "--help"])
    assert names in "".join(capsys.readouterr().out.split())
    with pytest.raises(SystemExit) as stopped:
        main(
            {
                "import": ["import", "x", "--kind", "no"],
                "schema": ["schema", "no"],
                "user": ["user", "add", "--role", "no"],
            }[command]
        )
    assert stopped.value.code == 2 and names in capsys.readouterr().err
