"""Comps: the search reshaped in its sentence and on the map; every limit opens, tells its counts and can be let go."""

from __future__ import annotations

import re

import pytest
from playwright.sync_api import Page, expect

from tests.e2e.test_evening import find_home, room


@pytest.fixture
def comps(page: Page) -> Page:
    find_home(page, "630 hedgerow terrace")
    room(page, "Comps")
    expect(sentence(page)).to_contain_text("Detached homes within 1 mi")
    return page


def sentence(page: Page):
    return page.locator("p.sentence")


def add(page: Page, typed: str) -> None:
    page.get_by_role("button", name="+ criterion").first.click()
    page.get_by_label("Part of a field’s name").fill(typed)
    page.get_by_label("Part of a field’s name").press("Enter")


def test_fields_are_added_by_typing_part_of_their_name(comps: Page) -> None:
    page = comps
    add(page, "garage")
    expect(sentence(page)).to_contain_text("2 garage spaces")
    page.get_by_label("From").fill("3")
    page.get_by_label("From").press("Enter")
    expect(page.get_by_role("alert").last).to_contain_text(re.compile("upside down|swap"))
    page.get_by_label("From").fill("1")
    page.get_by_label("From").press("Enter")
    expect(sentence(page)).to_contain_text("1–2 garage spaces")
    page.get_by_label("must be known").check()
    expect(sentence(page)).to_contain_text("1–2 garage spaces, known")
    page.get_by_role("button", name="No limit here", exact=True).click()
    expect(sentence(page)).not_to_contain_text("garage")

    add(page, "remarks")
    page.get_by_label("Words to look for, any of them").fill("garden, porch")
    page.get_by_label("Words to look for, any of them").press("Enter")
    expect(sentence(page)).to_contain_text("“garden” or “porch” in the remarks")
    page.keyboard.press("Escape")

    add(page, "style")
    page.locator(".words input").first.check()
    expect(sentence(page)).to_contain_text(re.compile("style"))
    page.keyboard.press("Escape")
    page.get_by_role("button", name="+ criterion").first.click()
    page.get_by_role("button", name="Match everything", exact=True).click()
    expect(sentence(page)).to_contain_text("4 bedrooms")
    page.get_by_role("button", name="+ criterion").first.click()
    page.get_by_role("button", name="Start again from the proposed search", exact=True).click()
    expect(sentence(page)).not_to_contain_text("bedrooms")


def test_kinds_of_record_have_windows_of_their_own(comps: Page) -> None:
    page = comps
    page.get_by_role("button", name=re.compile("for sale now")).click()
    page.get_by_role("checkbox", name="deed sale").check()
    expect(sentence(page)).to_contain_text("sold by deed in the last 180 days")
    page.get_by_label("failed since").fill("2026-01-01")
    expect(sentence(page)).to_contain_text("failed since 2026-01-01")
    page.get_by_label("failed until").fill("2025-01-01")
    expect(page.get_by_role("alert").last).to_contain_text("end before they start")


def test_areas_fences_and_shapes_limit_the_place(comps: Page) -> None:
    page = comps
    add(page, "across a highway")
    page.get_by_role("button", name="not across it", exact=True).nth(1).click()
    expect(sentence(page)).to_contain_text(re.compile("not across .* River"))
    expect(page.get_by_text(re.compile(r"no limit: \d+"))).to_be_visible()
    page.keyboard.press("Escape")

    add(page, "in a named area")
    name = page.get_by_label("Name of an area, subdivision, city or postal code")
    name.fill("Atlantis")
    name.press("Enter")
    expect(page.get_by_role("alert").last).to_contain_text(
        "no area, subdivision, building, city or postal code “Atlantis”"
    )
    name.fill("Quarry*")
    name.press("Enter")
    expect(sentence(page)).to_contain_text("in Quarry*")
    page.keyboard.press("Escape")

    # a rectangle on the map, then not in it
    box = page.get_by_role("application", name=re.compile("Map of the home")).bounding_box()
    assert box is not None
    page.get_by_role("button", name=re.compile("Draw a rectangle")).click()
    x, y = box["x"] + box["width"] / 2, box["y"] + box["height"] / 2
    page.mouse.click(x - 60, y - 60)
    page.mouse.move(x + 20, y + 30)
    page.mouse.click(x + 60, y + 50)
    expect(sentence(page)).to_contain_text("inside a drawn area")
    page.get_by_role("button", name="inside a drawn area").click()
    page.get_by_role("button", name="inside", exact=True).click()
    expect(sentence(page)).to_contain_text("not in a drawn area")
    page.keyboard.press("Escape")
    page.keyboard.press("z")
    expect(sentence(page)).to_contain_text("inside a drawn area")
    page.reload()
    expect(sentence(page)).to_contain_text("inside a drawn area")
