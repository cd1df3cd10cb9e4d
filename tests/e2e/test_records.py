"""Records through the interface: a foreign file mapped, planned and taken in; rejects, undo, rulings, the feed."""

from __future__ import annotations

import json
import re
import socket
import sqlite3
import subprocess
import sys
from contextlib import closing
from pathlib import Path

import httpx
import pytest
from playwright.sync_api import Page, expect

from rain_porch.standins.feed import TOKEN
from tests.e2e.conftest import Server

DATA = Path(__file__).parent.parent / "reference/data"


@pytest.fixture
def empty_records(empty_desk: Page) -> Page:
    empty_desk.get_by_role("link", name="Records").click()
    return empty_desk


def test_the_ames_sales_come_in_through_a_mapping_made_here_and_agree_with_the_checks(empty_records: Page) -> None:
    """ames.csv: columns that are not RESO's, month and year for a date, sales that are no ordinary ones; checked against
    ames-checks.json (pandas)."""
    page = empty_records
    expect(page.get_by_text("Nothing has been brought in yet")).to_be_visible()
    page.get_by_label("Bring in a file").set_input_files(DATA / "ames.csv")
    table = page.get_by_role("table", name="Mapping of columns to fields")
    expect(table.get_by_text("Year_Sold + Mo_Sold")).to_be_visible()
    expect(table.get_by_role("row", name=re.compile("^Total_Bsmt_SF . Bsmt_Unf_SF"))).to_contain_text("the first less")
    # columns that nobody can be sure of are asked, and stay out until that is said; the many that are nothing known are one line
    asks = page.get_by_role("region", name="Columns to be told")
    expect(asks).to_contain_text("MS_Zoning")
    asks.get_by_role("button", name="Yes, MS_Zoning is the Zoning").click()
    expect(page.get_by_label("Field of MS_Zoning")).to_have_value("zoning")
    expect(page.get_by_label("Field of Gr_Liv_Area")).to_have_value("living_area")
    # a proposal that is not wanted, and one made by hand from two columns
    page.get_by_label("Field of Utilities").select_option(label="left out")
    made = table.get_by_role("row", name=re.compile("^Total_Bsmt_SF . Bsmt_Unf_SF"))
    made.get_by_role("button", name="leave out").click()
    expect(made).to_have_count(0)
    page.get_by_label("Field to add").select_option(label="Below grade, finished")
    page.get_by_label("Column to add").select_option("Total_Bsmt_SF")
    page.get_by_label("Column to add").select_option("Bsmt_Unf_SF")
    page.get_by_label("How they are put together").select_option("difference")
    page.get_by_role("button", name="Add", exact=True).click()
    expect(table.get_by_text("Total_Bsmt_SF + Bsmt_Unf_SF")).to_be_visible()
    # the county's word for a sale under pressure is no ordinary sale here
    row = table.get_by_role("row", name=re.compile("^Sale_Condition"))
    row.get_by_role("button", name=re.compile("words")).click()
    page.get_by_label("Abnorml means").fill("Not Arms Length")
    page.get_by_label("Abnorml means").press("Tab")

    # a column of the file's own stays where it stands; nothing of this is lost by a reload, before it was looked at or after
    page.get_by_role("button", name=re.compile("columns are left out$")).click()
    page.get_by_label("Field of Screen_Porch").select_option(label="a field of your own")
    around = table.get_by_role("row", name=re.compile("^(Three_season_porch|Screen_Porch|Pool_Area)"))
    expect(around).to_contain_text(["Three_season_porch", "Screen_Porch", "Pool_Area"])

    def as_it_was() -> None:
        expect(page.get_by_label("Field of MS_Zoning")).to_have_value("zoning")
        expect(page.get_by_label("Field of Screen_Porch")).to_have_value("own_number_screen_porch")
        expect(page.get_by_label("Field of Utilities")).to_have_count(0)
        expect(table.get_by_role("row", name=re.compile("^Sale_Condition"))).to_contain_text("some changed")

    page.reload()
    as_it_was()
    page.get_by_role("button", name="See what would change").click()
    expect(page.get_by_role("tab", name=re.compile("2,930 new"))).to_be_visible()
    page.evaluate("sessionStorage.clear()")  # as on another screen
    page.reload()
    as_it_was()
    expect(page.get_by_text("Nothing has changed yet")).to_be_visible()
    page.get_by_role("button", name="Take it in").click()
    expect(page.get_by_text("Taken in.")).to_be_visible()
    expect(page.get_by_text("2,930 listings")).to_be_visible()

    checks = json.loads((DATA / "ames-checks.json").read_text())["monthly_ordinary"]
    asked = {"measure": ["closings", "median_price"], "by": "month", "start": "2006-01-01", "end": "2010-07-31"}
    base = page.url.split("/records")[0]
    answer = httpx.get(f"{base}/api/market", params=asked, timeout=30)
    assert answer.status_code == 200, answer.text
    got = {p["period"]: p["values"] for p in answer.json()["periods"]}
    assert [got[c["month"]]["closings"]["value"] for c in checks] == [c["closed"] for c in checks]
    assert [got[c["month"]]["median_price"]["value"] for c in checks] == [c["median_price"] for c in checks]


def test_an_import_with_rejects_is_looked_at_and_undone(page: Page, server: Server, tmp_path: Path) -> None:
    file = tmp_path / "odd.csv"
    file.write_text(
        "ListingId,StandardStatus,UnparsedAddress,City,CloseDate,ClosePrice\n"
        "Z1,Closed,900 Test Row,Brindle,2026-05-01,400000\nZ2,Closed,902 Test Row,Brindle,2026-05-01,four\n"
    )
    page.get_by_role("link", name="Records").click()
    page.get_by_label("Bring in a file").set_input_files(file)
    page.get_by_role("button", name="See what would change").click()
    expect(page.get_by_text("unreadable ClosePrice").first).to_be_visible()
    page.get_by_role("button", name="Take it in").click()
    expect(page.get_by_text("Taken in.")).to_be_visible()
    page.get_by_role("button", name="close").click()
    row = page.get_by_role("row", name=re.compile("odd.csv"))
    row.get_by_role("button", name="what was wrong").click()
    told = page.get_by_role("table", name="Rows to look at")
    expect(told).to_contain_text("902 Test Row")
    expect(told).not_to_contain_text(re.compile(r"[{}\"]"))  # in words, as the file had it
    line = told.get_by_role("row").filter(has_text="902 Test Row").locator("summary")
    line.click()
    assert line.evaluate("line => line.scrollWidth <= line.clientWidth")  # all of it is in sight
    with page.expect_download() as download:
        page.get_by_role("link", name="download the rejected rows").click()
    assert "Z2" in Path(download.value.path()).read_text()
    with closing(sqlite3.connect(server.folder / "records.db", isolation_level=None)) as busy:
        busy.execute("BEGIN IMMEDIATE")  # somebody else writes: it cannot be quicker than the hand that stops it
        row.get_by_role("button", name="undo").click()
        page.get_by_role("button", name="yes, undo").click()
        expect(row.get_by_role("status")).to_contain_text("taking it back")
        row.get_by_role("button", name="stop").click()
        page.wait_for_timeout(200)
        busy.execute("ROLLBACK")
    expect(page.get_by_role("alert")).to_contain_text("Stopped: nothing of import")
    row.get_by_role("button", name="undo").click()
    page.get_by_role("button", name="yes, undo").click()
    expect(page.get_by_text("1 records removed")).to_be_visible()
    with page.expect_download() as download:
        page.get_by_role("link", name="Sources").click()
        page.get_by_role("link", name="CSV").first.click()
    assert "Z1" not in Path(download.value.path()).read_text()


def test_conclusions_are_seen_and_overruled_and_health_shows_the_gaps(page: Page) -> None:
    page.get_by_role("link", name="Records").click()
    page.get_by_role("link", name="Conclusions").click()
    menu = page.get_by_role("navigation", name="Conclusions")
    expect(menu.get_by_role("button", name=re.compile("Deeds that are no sales"))).to_contain_text(
        re.compile(r"[1-9]\d")
    )
    before = menu.get_by_role("button", name=re.compile("Deeds that are no sales")).inner_text()
    menu.get_by_role("button", name=re.compile("Deeds that are no sales")).click()
    table = page.get_by_role("table", name="Deeds that are no sales")
    expect(table).to_contain_text(re.compile("nominal price|quitclaim"))
    table.get_by_role("button", name="it was a sale").first.click()
    expect(page.get_by_text("an ordinary sale")).to_be_visible()
    expect(menu.get_by_role("button", name=re.compile("Deeds that are no sales"))).not_to_have_text(before)
    page.get_by_role("button", name="take it back").click()
    expect(page.get_by_role("button", name="take it back")).to_have_count(0)
    expect(menu.get_by_role("button", name=re.compile("Deeds that are no sales"))).to_contain_text(
        before.split("\n")[-1]
    )
    page.get_by_role("link", name="Health").click()
    expect(page.get_by_role("table", name="Share of listings that have each field")).to_contain_text("Concessions")
    page.get_by_role("button", name="by source").click()
    expect(page.get_by_role("columnheader", name=re.compile("Demo listings"))).to_be_visible()


def test_the_feed_is_pulled_and_tomorrow_brings_what_changed(page: Page, demo: Path, tmp_path: Path) -> None:
    some = tmp_path / "listings.csv"  # pictures and all of a tenth of the town are as good as those of the whole
    some.write_text("".join((demo / "files/listings.csv").read_text().splitlines(keepends=True)[:600]))
    with socket.socket() as s:
        s.bind(("127.0.0.1", 0))
        port = s.getsockname()[1]
    command = [
        sys.executable,
        "-m",
        "rain_porch.cli",
        "feed",
        "--stand-in",
        str(some),
        "--port",
        str(port),
    ]
    feed = subprocess.Popen(command, stdout=subprocess.PIPE)
    try:
        assert feed.stdout and b"The feed is at" in feed.stdout.readline()
        page.get_by_role("link", name="Records").click()
        page.get_by_label("Address").fill(f"http://127.0.0.1:{port}")
        page.get_by_label("Token").fill("wrong")
        page.get_by_role("button", name="Pull what is new").click()
        expect(page.get_by_role("alert")).to_contain_text(re.compile("check the token|does not answer"), timeout=30_000)
        for _ in range(50):
            try:
                httpx.post(
                    f"http://127.0.0.1:{port}/tomorrow", headers={"Authorization": f"Bearer {TOKEN}"}, timeout=10
                )
                break
            except httpx.TransportError:
                continue
        page.get_by_label("Token").fill(TOKEN)
        page.get_by_role("button", name="Pull what is new").click()
        expect(page.get_by_text(re.compile(r"listings came: 0 new, \d+ changed"))).to_be_visible(timeout=60_000)
    finally:
        feed.terminate()
        feed.wait(10)


def test_a_mapping_is_mended_later_and_words_are_given_an_order(empty_records: Page) -> None:
    page = empty_records
    rows = [
        f"{n},A,{n} Oak St,Alder,3,{1500 + 10 * n},{300 + n}000,{('Dining', 'Grand', 'Galley')[n % 3]}"
        for n in range(1, 31)
    ]
    file = "\n".join(["MLS #,Status,Address,City,Beds,Sq Ft,List $,Kitchen", *rows]).encode()
    page.get_by_label("Bring in a file").set_input_files({"name": "board.csv", "mimeType": "text/csv", "buffer": file})
    page.get_by_role("button", name="See what would change").click()
    page.get_by_role("button", name="Take it in").click()
    expect(page.get_by_role("button", name=re.compile("^Price "))).to_be_visible()
    page.get_by_role("link", name="Imports").click()
    page.get_by_role("button", name="mend its mapping").click()
    expect(page.get_by_text("came in as import 1")).to_be_visible()
    page.get_by_role("button", name="keep all as fields of your own").click()
    page.get_by_role("button", name="keep this mapping under a name").click()
    page.get_by_label("Name of the mapping").fill("Board, daily")
    page.get_by_role("button", name="Keep it").click()
    expect(page.get_by_text("Kept as “Board, daily”")).to_be_visible()
    page.get_by_role("button", name="See what would change").click()
    expect(page.get_by_role("tab", name=re.compile("30 changed"))).to_be_visible()
    expect(page.get_by_text("kitchen 30")).to_be_visible()
    page.get_by_role("button", name="Take it in").click()
    expect(page.get_by_text("Taken in.")).to_be_visible()
    page.goto(page.url.split("/records")[0] + "/around")
    page.get_by_role("button", name="Detached homes").click()
    page.get_by_role("button", name=re.compile("No limit here")).click()
    page.keyboard.press("Escape")
    expect(page.locator(".v-overlay--active")).to_have_count(0)
    page.get_by_role("button", name="+ criterion").first.click()
    page.get_by_label("Part of a field’s name").fill("kitchen")
    page.keyboard.press("Enter")
    page.get_by_role("button", name="these words have an order").click()
    page.get_by_label("Words from least to most").fill("Galley, Dining, Grand")
    page.keyboard.press("Enter")
    page.get_by_role("button", name="Dining and better").click()
    expect(page.locator("p.sentence")).to_contain_text("kitchen Dining or Grand")
    expect(page.get_by_text("20 homes", exact=True)).to_be_visible()
