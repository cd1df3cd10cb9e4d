"""What came of workups: a home priced as of an earlier day is held against what it then brought."""

from __future__ import annotations

import re
from typing import Any

import pytest
from playwright.sync_api import Page, expect

from .test_evening import find_home, room

pytestmark = pytest.mark.e2e


def test_a_home_that_sold_since_its_day_stands_among_what_came_of_it(page: Page, server: Any) -> None:
    page.goto(f"{server.url}/workups")
    page.get_by_role("button", name="What came of it").click()
    expect(page.get_by_text("None of your workups’ homes has come on the market")).to_be_visible()
    page.goto(server.url)
    find_home(page, "305 hedgerow terrace")  # came on in March 2026 and closed in May
    day = page.get_by_label("as of")
    day.fill("1/15/2026")
    day.press("Enter")
    room(page, "Comps")
    page.get_by_role("button", name=re.compile(r"Keep the \d+ most alike")).click()
    expect(page.get_by_text("· likely").first).to_be_visible()
    page.goto(f"{server.url}/workups")
    page.get_by_role("button", name="What came of it").click()
    row = page.get_by_role("table", name="What came of the workups").get_by_role("row").nth(1)
    expect(row).to_contain_text("305 Hedgerow Terrace")
    expect(row).to_contain_text(re.compile(r"sold\s*May 12, 2026"))
    expect(row).to_contain_text(re.compile(r"[+−]\d+\.\d %"))
    expect(page.get_by_text("Too few of your workups")).to_contain_text("(1)")
    row.get_by_role("link", name="305 Hedgerow Terrace").click()
    expect(page).to_have_url(re.compile("/worth$"))
