"""Every view, dialog and menu looked over at three sizes, with the longest values of the demo."""

from __future__ import annotations

import re
from collections.abc import Callable

import pytest
from playwright.sync_api import Page, expect

from .looking import look_over
from .person import at_rest
from .test_evening import find_home, room

pytestmark = pytest.mark.e2e

Look = Callable[[str], None]


@pytest.fixture
def look(page: Page):
    """Look over the page as it stands; what was found is told at the end, all together."""
    wrong: list[str] = []

    page.emulate_media(reduced_motion="reduce")  # nothing is looked at on its way

    def over(name: str) -> None:
        at_rest(page)
        wrong.extend(f"{name}: {told}" for told in look_over(page))

    yield over
    assert not wrong, "\n".join(wrong)


def away(page: Page) -> None:
    page.keyboard.press("Escape")
    at_rest(page)


def test_desk_lists_and_settings(page: Page, server, look: Look) -> None:
    expect(page.get_by_role("combobox", name="Which home?", exact=True)).to_be_visible()
    look("desk")
    page.get_by_role("combobox", name="Which home?", exact=True).fill("734 sill drive")
    expect(page.get_by_role("listbox").get_by_role("option")).to_have_count(34)
    look("answers")
    for path in (
        "/workups",
        "/settings",
        "/settings/rules",
        "/records",
        "/records/imports",
        "/records/conclusions",
        "/records/health",
        "/point",
    ):
        page.goto(server.url + path)
        expect(page.get_by_role("heading").first).to_be_visible()
        at_rest(page)
        look(path)


@pytest.mark.parametrize(
    "address", ["14 Orchard Road", "734 sill drive unit 101", "1330 avocet street", "630 hedgerow terrace"]
)
def test_homes_with_long_words(page: Page, look: Look, address: str) -> None:
    find_home(page, address)
    look(f"home of {address}")
    page.get_by_role("button", name=re.compile("more facts that no record knows")).click()
    look(f"all facts of {address}")
    room(page, "Comps")
    expect(page.get_by_role("button", name="+ criterion")).to_be_visible()
    look(f"comps of {address}")


def test_comps(page: Page, look: Look) -> None:
    find_home(page, "630 hedgerow terrace")
    room(page, "Comps")
    rows = page.get_by_role("table", name="Homes found").locator("tbody tr")
    expect(rows.first).to_be_visible()
    for name in (
        "Detached homes",
        "within 1 mi",
        "sq ft",
        "sold in the last",
        "for sale now",
        "+ criterion",
        "Columns",
        "Keys",
        "Searches",
    ):
        page.get_by_role("button", name=name).first.click()
        look(name)
        away(page)
    page.get_by_role("button", name="Add a home").click()
    expect(page.get_by_label("Listing number or address")).to_be_focused()
    page.keyboard.type("734 sill drive")
    expect(page.get_by_role("listbox").get_by_role("option")).to_have_count(34)
    look("adding a home")
    away(page)
    page.get_by_role("button", name=re.compile("Columns")).click()
    for _ in range(12):
        page.get_by_role("list", name="Columns that may be shown").get_by_role("button").first.click()
    away(page)
    look("many columns")
    rows.nth(1).click()
    expect(page.get_by_role("complementary", name=re.compile("Record of"))).to_be_visible()
    look("record")
    page.keyboard.press("x")
    look("why set aside")
    away(page)
    away(page)
    page.get_by_role("button", name="In figures").click()
    expect(page.get_by_role("table", name="Figures by kind")).to_be_visible()
    look("in figures")
    page.get_by_role("button", name="Side by side").click()
    expect(page.get_by_role("table", name="Homes side by side")).to_be_visible()
    look("side by side")
    page.keyboard.press("ArrowRight")
    page.keyboard.press("p")
    look("two homes")
    away(page)
    page.keyboard.press("l")
    look("legend")


def test_worth_and_paper(page: Page, look: Look) -> None:
    find_home(page, "630 hedgerow terrace")
    room(page, "Comps")
    page.get_by_role("button", name=re.compile("Keep the .* most alike")).click()
    expect(page.get_by_text(re.compile("Saved: .* kept"))).to_be_visible()
    room(page, "Worth")
    grid = page.get_by_role("table", name="Adjustment grid")
    expect(grid).to_be_visible()
    look("grid")
    grid.get_by_role("textbox", name=re.compile("^Living area,")).first.click()
    look("formula")
    for name in ("Living area", "Market change"):
        grid.get_by_role("button", name=name).click()
        expect(page.get_by_role("dialog").first).to_be_visible()
        at_rest(page)
        look(f"rate of {name}")
        away(page)
    for title in ("Everything on one scale", "The ask", "What would be left|Net", "What an appraiser would ask"):
        page.get_by_role("heading", name=re.compile(title)).first.scroll_into_view_if_needed()
        look(title)
    room(page, "Paper")
    expect(page.get_by_role("img", name=re.compile("^Page 1"))).to_be_visible()
    look("paper")


def test_market(page: Page, server, look: Look) -> None:
    page.get_by_role("link", name="Market").click()
    expect(page.get_by_role("table", name="Market figures by period")).to_be_visible()
    look("chart")
    page.get_by_role("table", name="Market figures by period").get_by_role("row").nth(2).get_by_role(
        "button"
    ).first.click()
    expect(page.get_by_role("dialog").get_by_role("table")).to_be_visible()
    look("records behind")
    away(page)
    page.get_by_role("button", name="+ condition").click()
    page.get_by_label("Field", exact=True).select_option("architectural_style")
    look("condition")
    away(page)
    for name in ("At a glance", "The year so far", "By size and price", "What changed", "Bulletins"):
        page.get_by_role("button", name=name, exact=True).click()
        at_rest(page)
        look(name)
    page.get_by_role("button", name="One page", exact=True).click()
    expect(page.get_by_role("img", name="Sheet 1 of the bulletin")).to_be_visible()
    look("a bulletin with its parts and readers")
    page.goto(f"{server.url}/market?way=glance&up=median_price")
    for name in ("By size", "Month by month", "How they lie"):
        page.get_by_role("button", name=name, exact=True).click()
        at_rest(page)
        look(f"pulled up: {name}")
    page.goto(f"{server.url}/around")
    expect(page.get_by_role("table", name="Homes found")).to_be_visible()
    look("around")
    page.get_by_role("button", name="On paper").click()
    look("on paper")
