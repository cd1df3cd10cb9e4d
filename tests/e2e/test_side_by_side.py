"""Comps, side by side: what differs in columns, pictures beside each other, condition rated by keys, down to the grid."""

from __future__ import annotations

import re

from playwright.sync_api import Page, expect

from tests.e2e.test_evening import find_home, room


def test_homes_are_read_side_by_side_and_rated_by_keys(page: Page) -> None:
    find_home(page, "630 hedgerow terrace")
    room(page, "Comps")
    page.get_by_role("button", name=re.compile("most alike")).click()
    expect(page.get_by_text("Saved: 12 homes kept")).to_be_visible()
    page.keyboard.press("s")
    table = page.get_by_role("table", name="Homes side by side")
    expect(table.get_by_role("row", name=re.compile("^Living area 1,700"))).to_be_visible()
    first = table.get_by_role("button", name=re.compile("^Kept ")).first
    address = (first.get_attribute("aria-label") or "").removeprefix("Kept ")
    page.keyboard.press("ArrowRight")

    # keys act on the column in front
    page.keyboard.press("k")
    expect(page.get_by_text("Saved: 1 home left undecided")).to_be_visible()
    page.keyboard.press("ArrowLeft")
    page.keyboard.press("k")
    expect(page.get_by_text("Saved: 1 home kept")).to_be_visible()
    page.keyboard.press("ArrowLeft")

    # two homes' pictures, turned together
    page.keyboard.press("p")
    two = page.get_by_role("dialog", name="Two homes’ pictures")
    expect(two).to_contain_text("630 Hedgerow Terrace")
    expect(two).to_contain_text(address)
    expect(two.get_by_role("img", name="Front")).to_have_count(2)
    page.keyboard.press("ArrowRight")
    expect(two.get_by_role("img", name="Front")).to_have_count(0)
    # a question over it has the keys to itself
    page.keyboard.press("x")
    expect(page.get_by_role("dialog", name=re.compile("^Why set"))).to_be_visible()
    page.keyboard.press("Escape")
    expect(page.get_by_role("dialog", name=re.compile("^Why set"))).to_have_count(0)
    expect(two).to_be_visible()
    page.keyboard.press("6")
    expect(page.get_by_text("Saved: condition rated damaged")).to_be_visible()
    page.keyboard.press("Escape")
    expect(two).to_have_count(0)
    condition = table.get_by_label(f"Condition of {address}")
    expect(condition).to_have_value("1")

    # the grid takes the rating: three grades below ordinary wear and worse
    room(page, "Worth")
    grid = page.get_by_role("table", name="Adjustment grid")
    cell = grid.get_by_role("textbox", name=f"Condition, {address}")
    expect(cell).to_have_value(re.compile(r"^\+\d\d,\d\d\d"))
    worse = cell.input_value()
    page.keyboard.press("z")
    expect(page.get_by_text("undone: condition rated damaged")).to_be_visible()
    expect(cell).not_to_have_value(worse)
