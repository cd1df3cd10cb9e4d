"""A service far away answers late, and in another order than it was asked: what was typed, chosen or pressed meanwhile stands."""

from __future__ import annotations

import re
import sqlite3
from contextlib import closing
from pathlib import Path

import pytest
from playwright.sync_api import Page, Route, expect

from tests.e2e.conftest import Server
from tests.e2e.person import late, tab_to
from tests.e2e.test_evening import find_home, room

pytestmark = pytest.mark.e2e


def test_enter_takes_what_was_typed_whatever_is_listed_still(page: Page, server) -> None:
    """An answer that comes late is waited for: what is listed for the first letters may be another home."""
    late(page, "/api/lookup", 700)
    page.goto(server.url)
    field = page.get_by_role("combobox", name="Which home?", exact=True)
    field.press_sequentially("613")
    expect(page.get_by_role("option").first).to_contain_text("613")
    field.press("Control+a")
    page.keyboard.type("630 hedgerow terrace")
    expect(page.get_by_role("option").first).to_contain_text("613")
    page.keyboard.press("Enter")
    expect(page.get_by_role("heading", level=1)).to_have_text("630 Hedgerow Terrace")

    page.goto(server.url)
    expect(field).to_be_focused()
    page.keyboard.type("99999 hedgrow terrace")
    page.wait_for_timeout(300)  # it is asked for by now, and nothing has been answered yet
    page.keyboard.press("Enter")
    expect(page.get_by_text("No home has the address")).to_be_visible()
    page.keyboard.press("Enter")
    expect(page).to_have_url(re.compile("/$"))  # what is near has other numbers: one of it has to be chosen
    page.keyboard.press("ArrowDown")
    page.keyboard.press("Enter")
    expect(page.get_by_role("heading", level=1)).to_contain_text("Hedgerow")

    page.goto(server.url)
    expect(field).to_be_focused()
    page.keyboard.type("734 sill drive")
    page.keyboard.press("Enter")
    expect(page.get_by_role("option", name="unit 101")).to_be_visible()
    expect(page).to_have_url(re.compile("/$"))  # it may be any of its units: they are seen first
    page.keyboard.press("ArrowDown")
    page.keyboard.press("Enter")
    expect(page.get_by_role("heading", level=1)).to_have_text("734 Sill Drive, unit 102")

    room(page, "Comps")
    page.get_by_role("button", name="Add a home").click()
    expect(page.get_by_role("textbox", name="Listing number or address")).to_be_focused()
    page.keyboard.type("BF1005")
    expect(page.get_by_role("listbox").get_by_role("option").first).to_be_visible()
    page.keyboard.type("00")
    page.keyboard.press("Enter")
    expect(page.locator(".saved")).to_contain_text("1 home kept")


def test_a_worth_that_waits_for_what_is_found_says_that_it_is_of_before(page: Page) -> None:
    find_home(page, "630 hedgerow terrace")
    room(page, "Comps")
    page.get_by_role("button", name="Keep the 12 most alike").click()
    rail = page.locator("[aria-busy]").filter(has_text="Indicated")
    expect(rail).to_have_attribute("aria-busy", "false")
    held: list[Route] = []
    page.route("**/candidates", lambda route: held.append(route))
    page.get_by_role("button", name="within 1 mi").first.click()
    miles = page.get_by_label("Miles", exact=True)
    miles.fill("0.5")
    miles.press("Enter")
    expect(page.get_by_text("Saved: search changed")).to_be_visible()
    page.wait_for_timeout(400)  # all but what is found has been answered
    expect(rail).to_have_attribute("aria-busy", "true")
    held.pop().continue_()
    expect(rail).to_have_attribute("aria-busy", "false")


def test_a_room_that_comes_late_takes_the_focus_from_nobody(page: Page, server: Server) -> None:
    under_way: list[Route] = []
    page.route(re.compile(r"/assets/Desk-[^/]*\.js"), lambda route: under_way.append(route))
    page.goto(server.url, wait_until="commit")
    market = page.get_by_role("link", name="Market", exact=True)
    tab_to(page, market)
    under_way[0].continue_()
    field = page.get_by_role("combobox", name="Which home?", exact=True)
    expect(field).to_be_visible()
    page.wait_for_timeout(300)
    expect(market).to_be_focused()
    page.keyboard.press("Enter")
    expect(page.get_by_role("combobox", name="Place", exact=True)).to_be_visible()
    page.get_by_role("link", name="Desk", exact=True).click()
    expect(field).to_be_focused()  # who comes by the link types at once


def test_of_one_workup_nothing_stays_in_the_next(page: Page) -> None:
    find_home(page, "630 hedgerow terrace")
    room(page, "Comps")
    rows = page.get_by_role("table", name="Homes found").locator("tbody tr")
    rows.nth(2).click()
    for _ in range(3):
        page.keyboard.press("k")
    expect(page.locator(".saved")).to_contain_text("Saved: ")
    page.keyboard.press("Control+k")
    page.keyboard.type("709 osier street")
    page.keyboard.press("Enter")
    expect(page.get_by_role("heading", level=1)).to_have_text("709 Osier Street")
    expect(page.locator(".saved")).to_contain_text("Everything saves by itself")
    room(page, "Comps")
    rows.nth(2).click()
    with page.expect_response("**/changes") as answer:
        page.keyboard.press("k")
    assert answer.value.status == 200
    expect(page.locator(".saved")).to_contain_text("Saved: 1 home kept")


def sentence(page: Page):
    return page.locator("p.sentence")


def limit(page: Page, part: str, low: str, high: str) -> None:
    sentence(page).get_by_role("button", name=re.compile(part)).click()
    page.get_by_label("From", exact=True).fill(low)
    page.get_by_label("To", exact=True).fill(high)
    page.get_by_label("To", exact=True).press("Enter")
    page.keyboard.press("Escape")


def test_what_is_refused_takes_no_later_change_of_the_search_with_it(page: Page) -> None:
    """From 19,000 to 1,950 is none; when that is told the other end is on its way, and the radius is changed next."""
    late(page, "/changes$", 100, 4000, 0)
    find_home(page, "630 hedgerow terrace")
    page.reload()
    room(page, "Comps")
    limit(page, r"\d sq ft$", "19000", "19500")
    page.wait_for_timeout(600)  # the first is refused by now, the second is on its way
    sentence(page).get_by_role("button", name="within 1 mi").click()
    page.get_by_label("Miles", exact=True).fill(".5")
    page.keyboard.press("Enter")
    page.keyboard.press("Escape")
    expect(sentence(page)).to_contain_text("within 0.5 mi, 19,000–19,500 sq ft")
    expect(page.locator(".saved")).to_contain_text("Saved: ")
    expect(sentence(page)).to_contain_text("within 0.5 mi, 19,000–19,500 sq ft")


def test_of_a_look_the_last_change_stands_whichever_is_answered_first(page: Page, server: Server) -> None:
    late(page, "/around/counts", 1200, 0)
    page.goto(f"{server.url}/around?kind=parcel&key=05-0857")
    expect(sentence(page)).to_contain_text("within 1 mi")
    limit(page, r"\d sq ft$", "1500", "1800")
    sentence(page).get_by_role("button", name="within 1 mi").click()
    page.get_by_label("Miles", exact=True).fill(".5")
    page.keyboard.press("Enter")
    page.keyboard.press("Escape")
    page.wait_for_timeout(1500)  # by now the first has been answered too
    expect(sentence(page)).to_contain_text("within 0.5 mi, 1,500–1,800 sq ft")
    page.reload()
    expect(sentence(page)).to_contain_text("within 0.5 mi, 1,500–1,800 sq ft")


def test_an_undo_is_stopped_also_before_the_service_has_heard_of_it(page: Page, server: Server, tmp_path: Path) -> None:
    file = tmp_path / "one.csv"
    file.write_text(
        "ListingId,StandardStatus,UnparsedAddress,City,CloseDate,ClosePrice\nZ1,Closed,900 Test Row,Brindle,2026-05-01,400000\n"
    )
    late(page, "/undo$", 1200, 0)
    page.goto(f"{server.url}/records")
    page.get_by_label("Bring in a file").set_input_files(file)
    page.get_by_role("button", name="See what would change").click()
    page.get_by_role("button", name="Take it in").click()
    expect(page.get_by_text("Taken in.")).to_be_visible()
    page.get_by_role("button", name="close").click()
    row = page.get_by_role("row", name=re.compile("one.csv"))
    with closing(sqlite3.connect(server.folder / "records.db", isolation_level=None)) as busy:
        busy.execute("BEGIN IMMEDIATE")  # somebody else writes: it cannot be quicker than the hand that stops it
        row.get_by_role("button", name="undo").click()
        page.get_by_role("button", name="yes, undo").click()
        row.get_by_role("button", name="stop").click()
        page.wait_for_timeout(2000)
        busy.execute("ROLLBACK")
    expect(page.get_by_role("alert")).to_contain_text("Stopped: nothing of import")
