"""House rules from Settings: read to the last, tried on a workup before they are kept, by mouse and by keys."""

from __future__ import annotations

import re
from typing import Any

import pytest
from playwright.sync_api import Locator, Page, expect

from .person import Press, click_on, point_at, tab_to
from .test_evening import find_home, room
from .test_walks import HANDS, api

pytestmark = pytest.mark.e2e


def type_over(page: Page, press: Press, field: Locator, text: str) -> None:
    """A value is pressed on or gone to by keys, typed over, and left."""
    press(page, field) if press is click_on else tab_to(page, field)
    page.keyboard.press("Control+a")
    page.keyboard.type(text)
    page.keyboard.press("Tab")


@HANDS
def test_a_rule_tells_what_it_would_change_before_it_is_kept(page: Page, server: Any, press: Press) -> None:
    find_home(page, "630 hedgerow terrace")
    room(page, "Comps")
    press(page, page.get_by_role("button", name=re.compile(r"Keep the \d+ most alike")))
    expect(page.get_by_text("· likely").first).to_be_visible()
    press(page, page.get_by_role("link", name="Settings"))
    press(page, page.get_by_role("link", name="the table of house rules"))
    side = page.get_by_role("region", name="What it would change")
    expect(side).to_contain_text("Type another value")
    within = page.get_by_label("Within, mi", exact=True)
    type_over(page, press, within, "0.4")
    expect(side).to_contain_text("Within: 1 → 0.4")
    expect(side).to_contain_text("630 Hedgerow Terrace")
    expect(side).to_contain_text(re.compile(r"A search as it is proposed finds\s*\d+ sold\s*\d+ sold"))
    # out of reason, nonsense: told, and nothing can be saved
    type_over(page, press, within, "900")
    expect(side.get_by_role("alert")).to_contain_text("out of reason; give 0.1 to 50 mi")
    expect(side.get_by_role("button", name="Save", exact=True)).to_be_disabled()
    type_over(page, press, within, "near")
    expect(page.get_by_role("alert").filter(has_text="near")).to_be_visible()
    type_over(page, press, within, ".4")
    press(page, side.get_by_role("button", name="Save", exact=True))
    expect(side.get_by_role("status")).to_contain_text("Within is changed.")
    expect(page.get_by_role("table", name="What was changed")).to_contain_text(re.compile(r"Within\s*as usual\s*0.4"))
    # the last row of the last group can be read and reached
    last = page.get_by_label("Paint, % of the cost")
    type_over(page, press, last, "40")
    expect(side).to_contain_text("Nothing changes there.")
    press(page, side.get_by_role("button", name="Leave it"))
    expect(last).to_have_value("50")
    page.goto(server.url)
    find_home(page, "640 hedgerow terrace")
    room(page, "Comps")
    expect(page.get_by_role("button", name=re.compile(r"^within 0\.4 mi"))).to_be_visible()
    # back to what is usual with one press, from where its row says so
    page.goto(f"{server.url}/settings/rules")
    press(page, page.get_by_role("button", name="Within as usual"))
    expect(side).to_contain_text(re.compile(r"A search as it is proposed finds\s*\d+ sold\s*\d+ sold"))
    press(page, side.get_by_role("button", name="Save", exact=True))
    expect(side.get_by_role("status")).to_contain_text("Within is changed.")
    expect(page.get_by_label("Within, mi", exact=True)).to_have_value("1")
    assert {r["name"]: r["value"] for r in api(server, "/api/house-rules")["rules"]}["search.radius_miles"] == 1


def test_what_was_delivered_says_that_it_keeps_its_rules(page: Page, server: Any) -> None:
    find_home(page, "630 hedgerow terrace")
    room(page, "Comps")
    click_on(page, page.get_by_role("button", name=re.compile(r"Keep the \d+ most alike")))
    expect(page.get_by_text("· likely").first).to_be_visible()
    page.evaluate(
        "fetch('/api/workups/1/deliveries', {method: 'POST', headers: {'content-type': 'application/json'}, body: '{}'}).then(r => r.status)"
    )
    page.reload()
    room(page, "Worth")
    kept = page.get_by_text("It goes by the house rules it was delivered with")
    point_at(page, kept)
    click_on(page, page.get_by_role("button", name="Go by those of today"))
    expect(kept).to_have_count(0)


def test_a_word_says_what_it_means_under_a_resting_pointer_and_at_the_focus(page: Page) -> None:
    find_home(page, "630 hedgerow terrace")
    room(page, "Comps")
    told = page.get_by_role("tooltip")
    point_at(page, page.get_by_role("columnheader", name="Sort by Alike"))
    expect(told).to_contain_text("how like this home it is, of 100", ignore_case=True)
    page.mouse.wheel(0, 120)
    expect(told).to_have_count(0)
    tab_to(page, page.get_by_role("button", name="Sort by $/sq ft"))
    page.keyboard.press("Shift+Tab")
    page.keyboard.press("Tab")
    expect(told).to_contain_text("small homes always show a higher one")
    page.keyboard.press("Escape")
    expect(told).to_have_count(0)
