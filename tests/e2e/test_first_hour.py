"""The first hour: an empty desk takes a file, a full one offers homes to begin with, the job is walked through in nine steps, and the
page of keys tells every key."""

from __future__ import annotations

import re
from pathlib import Path

import pytest
from playwright.sync_api import Page, expect

pytestmark = pytest.mark.e2e

AMES = Path(__file__).parent.parent / "reference/data/ames.csv"


def test_an_empty_desk_says_what_to_do_first_and_takes_a_file_dropped_on_it(empty_desk: Page) -> None:
    page = empty_desk
    first = page.get_by_role("region", name="First of all")
    expect(first).to_contain_text("Drop a file here, or choose one")
    drop = """async ({name, text}) => {
      const data = new DataTransfer()
      data.items.add(new File([text], name))
      document.querySelector('.desk').dispatchEvent(new DragEvent('drop', {dataTransfer: data, bubbles: true}))
    }"""
    page.evaluate(drop, {"name": "ames.csv", "text": AMES.read_text(encoding="utf-8")})
    expect(page).to_have_url(re.compile("/records/incoming/"))
    expect(page.get_by_text("ames.csv").first).to_be_visible()


def test_a_home_to_begin_with_is_one_press_away_until_there_are_workups(page: Page) -> None:
    offered = page.get_by_role("region", name="Homes to begin with")
    expect(offered.get_by_role("listitem")).to_have_count(3)
    expect(offered).to_contain_text(re.compile("detached, for sale since"))
    address = offered.get_by_role("button").first.locator("b").inner_text()
    offered.get_by_role("button").first.click()
    expect(page.get_by_role("heading", level=1)).to_have_text(address)


def test_the_job_is_walked_in_nine_steps_left_and_gone_on_with(page: Page) -> None:
    page.get_by_role("button", name="Walk through the job in nine steps").click()
    card = page.get_by_role("complementary", name="The job in nine steps")
    expect(card).to_contain_text("Step 1 of 9")
    expect(page.locator(".ring")).to_be_visible()
    page.get_by_role("region", name="Homes to begin with").get_by_role("button").first.click()
    rooms = ("home", "comps", "comps", "worth", "worth", "paper", "paper", "market")
    for n, room in enumerate(rooms, start=2):
        card.get_by_role("button", name="Next").click()
        expect(card).to_contain_text(f"Step {n} of 9")
        expect(page).to_have_url(re.compile(f"/{room}"))
        if n == 4:
            expect(page.locator(".ring")).to_be_visible()
            page.keyboard.press("Escape")
            expect(card).to_have_count(0)
            page.get_by_role("link", name="Desk", exact=True).click()
            page.get_by_role("button", name="Go on with step 4").click()
            card.get_by_role("button", name="Take me there").click()
            expect(page).to_have_url(re.compile("/comps"))
    card.get_by_role("button", name="Done").click()
    expect(card).to_have_count(0)
    page.get_by_role("link", name="Desk", exact=True).click()
    expect(page.get_by_role("button", name="Walk through the job in nine steps")).to_be_visible()


def test_the_page_of_keys_opens_and_closes_by_its_key_but_not_while_something_is_typed(page: Page) -> None:
    page.get_by_role("link", name="Settings").click()
    page.get_by_role("button", name="the page of keys").click()
    keys = page.get_by_role("dialog", name="Keys")
    for part in ("Everywhere", "Comps, and homes around", "The price rail", "Paper"):
        expect(keys.get_by_role("region", name=part)).to_be_visible()
    page.keyboard.press("Escape")
    expect(keys).to_have_count(0)
    page.locator("h1").click()
    page.keyboard.press("?")
    expect(keys).to_be_visible()
    page.keyboard.press("?")
    expect(keys).to_have_count(0)
    page.get_by_role("combobox").first.focus()
    page.keyboard.type("?")
    expect(keys).to_have_count(0)
