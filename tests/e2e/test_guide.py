"""The guide within the application: from any room by “?”, every page to its end, every picture there."""

from __future__ import annotations

import re
from pathlib import Path
from typing import Any

import pytest
from playwright.sync_api import Page, expect

from .person import Press, point_at
from .test_evening import find_home, room
from .test_walks import HANDS

GUIDE = Path(__file__).parents[2] / "docs/guide"
pytestmark = pytest.mark.e2e


@HANDS
def test_a_room_leads_to_its_page_and_the_pages_to_each_other(page: Page, server: Any, press: Press) -> None:
    find_home(page, "630 hedgerow terrace")
    room(page, "Worth")
    page.keyboard.press("?")
    press(page, page.get_by_role("button", name="this room in the guide"))
    expect(page).to_have_url(re.compile("/guide/worth$"))
    expect(page.get_by_role("heading", name="Worth: line by line to a price")).to_be_visible()
    press(page, page.get_by_role("article").get_by_role("link", name="house rule"))
    expect(page).to_have_url(re.compile("/guide/settings$"))
    pages = page.get_by_role("navigation", name="Pages of the guide").get_by_role("link")
    for n in range(pages.count()):
        name = str(pages.nth(n).get_attribute("href")).split("/")[-1]
        press(page, pages.nth(n))
        title = (GUIDE / f"{name}.md").read_text(encoding="utf-8").splitlines()[0].removeprefix("# ")
        expect(page.get_by_role("article").get_by_role("heading", level=1)).to_have_text(title)
        for picture in page.get_by_role("article").get_by_role("img").all():
            picture.scroll_into_view_if_needed()
            assert picture.evaluate("i => i.decode().then(() => i.naturalWidth)") >= 1000
    last = page.get_by_text("those still unsold counted too")
    point_at(page, last)
    page.goto(f"{server.url}/guide/nonsense")
    expect(page.get_by_role("alert")).to_contain_text("no such page")
