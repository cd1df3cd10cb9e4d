"""A look around with nothing kept: from a home in one press, and by a search with no home at all."""

from __future__ import annotations

import re

from playwright.sync_api import Page, expect


def test_what_sold_around_here_in_one_press_becomes_a_workup_when_asked(page: Page, server) -> None:
    field = page.get_by_role("combobox", name="Which home?", exact=True)
    field.fill("630 hedgerow terrace")
    expect(page.get_by_role("option").first).to_be_visible()
    field.press("Shift+Enter")
    expect(page.get_by_role("heading", name="630 Hedgerow Terrace")).to_be_visible()
    figures = page.get_by_role("table", name="Statistics of what was found")
    sold = figures.get_by_role("row", name=re.compile(r"sold Price"))
    before = sold.inner_text()
    expect(page.get_by_text(re.compile("Nothing of this is kept until you make it a workup"))).to_be_visible()
    page.get_by_label("Sold within").select_option("730")
    expect(page.get_by_text(re.compile("sold in the last 2 years|sold in the last 730 days"))).to_be_visible()
    assert sold.inner_text() != before
    page.get_by_role("link", name="Desk", exact=True).click()
    expect(page.get_by_role("link", name=re.compile("630 Hedgerow Terrace"))).to_have_count(0)
    page.go_back()
    page.get_by_role("button", name="Make it a workup").click()
    expect(page.get_by_role("navigation", name="Rooms of the workup")).to_be_visible()


def test_a_search_without_a_home_has_its_statistics(page: Page, server) -> None:
    page.get_by_role("link", name="search without a home").click()
    expect(page.get_by_role("heading", name="Homes by search")).to_be_visible()
    place = page.get_by_role("combobox", name="In", exact=True)
    place.fill("Alder*")
    place.press("Enter")
    expect(page.get_by_text(re.compile(r"^Detached homes in Alder\*"))).to_be_visible()
    page.get_by_label("Sq ft from").fill("1,500")
    page.get_by_label("Sq ft from").press("Enter")
    expect(page.get_by_text(re.compile(r"1,500\+ sq ft"))).to_be_visible()
    rows = page.get_by_role("table", name="Homes that were found").locator("tbody tr")
    expect(rows.first).to_be_visible()
    place.fill("")
    place.press("Enter")
    map_ = page.get_by_role("application", name=re.compile("Map of the home"))
    box = map_.bounding_box()
    assert box is not None
    expect(page.get_by_role("button", name=re.compile("Draw a fence"))).to_have_count(0)
    page.get_by_role("button", name=re.compile("Draw a rectangle")).click()
    x, y = box["x"] + box["width"] / 2, box["y"] + box["height"] / 2
    page.mouse.click(x - 60, y - 60)
    page.mouse.move(x + 20, y + 30)
    page.mouse.click(x + 60, y + 50)
    expect(page.get_by_text(re.compile("inside a drawn area"))).to_be_visible()
    page.get_by_label("One more field").select_option("garage_spaces")
    page.get_by_label(re.compile("^Garage.* from")).fill("2")
    page.get_by_label(re.compile("^Garage.* from")).press("Enter")
    expect(page.get_by_text(re.compile(r"2\+ garage spaces"))).to_be_visible()
    page.get_by_role("button", name="take what is drawn away").click()
    expect(page.get_by_text(re.compile("inside a drawn area"))).to_have_count(0)
    place.fill("Nowhere at all")
    place.press("Enter")
    expect(page.get_by_role("alert")).to_contain_text("There is no area")
