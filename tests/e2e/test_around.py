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


def test_a_home_is_pointed_at_on_the_map_or_entered_by_hand(page: Page, server) -> None:
    page.get_by_role("link", name=re.compile("point at it on the map")).click()
    map_ = page.get_by_role("application", name=re.compile("Map of the home"))
    expect(map_).to_be_visible()
    page.wait_for_timeout(600)
    box = map_.bounding_box()
    assert box is not None

    def drag(to_x: float, to_y: float, from_x: float = 0, from_y: float = 0) -> None:
        x, y = box["x"] + box["width"] / 2, box["y"] + box["height"] / 2
        page.mouse.move(x + from_x, y + from_y)
        page.mouse.down()
        page.mouse.move(x + to_x / 2, y + to_y / 2, steps=3)
        page.mouse.move(x + to_x, y + to_y, steps=3)
        page.mouse.up()

    drag(-120, -90)
    expect(page.get_by_role("heading", name=re.compile("by hand"))).to_be_visible()
    page.get_by_label("Address").fill("9 Sample Hollow")
    page.get_by_role("button", name="Begin with it").click()
    expect(page.get_by_role("heading", name="9 Sample Hollow")).to_be_visible()
    area = page.get_by_label("Correct Living area")
    area.fill("1,800")
    area.press("Enter")
    expect(page.get_by_text("Saved: living area set to 1,800")).to_be_visible()
    page.get_by_role("navigation", name="Rooms of the workup").get_by_role("link", name=re.compile("^Comps")).click()
    page.get_by_role("button", name=re.compile("most alike")).click()
    expect(page.get_by_label("Price rail")).to_contain_text("Indicated")
    page.reload()
    expect(page.get_by_role("heading", name="9 Sample Hollow")).to_be_visible()
