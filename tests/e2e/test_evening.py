"""An agent's evening, as it is worked at the screen."""

from __future__ import annotations

import re
from pathlib import Path

import pytest
from playwright.sync_api import Page, Route, expect

from tests.pdf_text import words_on_pages

pytestmark = pytest.mark.e2e


def find_home(page: Page, text: str) -> None:
    page.get_by_role("combobox", name="Which home?", exact=True).fill(text)
    page.get_by_role("option").first.click()
    expect(page.get_by_role("heading", name="The facts")).to_be_visible()


def room(page: Page, name: str) -> None:
    page.get_by_role("navigation", name="Rooms of the workup").get_by_role("link", name=re.compile(f"^{name}")).click()


def whole(text: str) -> int:
    return int(re.sub(r"\D", "", text))


@pytest.mark.own_process
def test_the_whole_evening(page: Page, tmp_path: Path) -> None:
    # address → the home, its facts, one of them wrong
    find_home(page, "hedgerow ter 630")
    expect(page.get_by_role("heading", name="630 Hedgerow Terrace")).to_be_visible()
    garage = page.get_by_label("Correct Garage spaces")
    garage.fill("-4")
    garage.press("Enter")
    expect(page.get_by_role("alert").filter(has_text="Garage spaces of -4 makes no sense").first).to_be_visible()
    garage.fill("1")
    garage.press("Enter")
    expect(page.get_by_text("Saved: garage spaces set to 1")).to_be_visible()
    expect(page.get_by_role("link", name=re.compile("1 corrected"))).to_be_visible()

    # the search, reshaped: counts follow
    room(page, "Comps")
    expect(page.get_by_role("button", name="within 1 mi")).to_be_visible()
    table = page.get_by_role("table", name="Homes found")
    expect(table).to_be_visible()
    before = page.locator("p.counts").inner_text()
    page.get_by_role("button", name="within 1 mi").click()
    expect(page.get_by_text("What if:")).to_be_visible()
    slider = page.get_by_role("slider", name="Miles from the home")
    slider.focus()
    for _ in range(3):
        slider.press("ArrowRight")
    expect(page.get_by_role("button", name="within 2 mi")).to_be_visible()
    page.keyboard.press("Escape")
    page.get_by_role("button", name="365 d:").click()
    expect(page.get_by_role("button", name="sold in the last 365 days")).to_be_visible()
    expect(page.locator("p.counts")).not_to_have_text(before)
    page.get_by_role("button", name=re.compile(r"\d sq ft$")).click()
    page.get_by_label("From", exact=True).fill("2000")
    page.get_by_label("To", exact=True).fill("1000")
    page.get_by_label("To", exact=True).press("Enter")
    expect(page.get_by_text("is upside down").first).to_be_visible()
    page.get_by_label("From", exact=True).fill("1300")
    page.get_by_label("To", exact=True).fill("2,000")
    page.get_by_label("To", exact=True).press("Enter")
    expect(page.get_by_role("button", name="1,300–2,000 sq ft")).to_be_visible()
    page.keyboard.press("Escape")

    # comps kept, by click, by key; one set aside with a reason; one undone
    page.get_by_role("button", name=re.compile("most alike")).click()
    expect(page.get_by_text(re.compile("Saved: .* kept"))).to_be_visible()
    page.get_by_role("button", name=re.compile("Only kept")).click()
    rows = table.locator("tbody tr")
    kept = int(re.search(r"\((\d+)\)", page.get_by_role("button", name=re.compile("Only kept")).inner_text()).group(1))
    expect(rows).to_have_count(kept)
    page.keyboard.press("ArrowDown")
    page.keyboard.press("x")
    expect(page.get_by_text(re.compile("Why set .* aside"))).to_be_visible()
    page.keyboard.press("c")
    expect(rows).to_have_count(kept - 1)
    expect(page.get_by_text("Saved: 1 home set aside")).to_be_visible()
    page.keyboard.press("z")
    expect(rows).to_have_count(kept)
    expect(page.get_by_text("undone: 1 home set aside")).to_be_visible()

    # a rate typed over: the value follows, and there is a way back
    room(page, "Worth")
    says = page.get_by_label("Price rail").locator(".says")
    expect(says).to_contain_text("not yet measured")
    expect(says).to_have_attribute("aria-busy", "false")
    value = whole(says.locator("b").inner_text())
    area = page.get_by_label("Rate of Living area")
    area.fill("10")
    area.press("Enter")
    expect(page.get_by_text("living area rate set to 10")).to_be_visible()
    expect(says.locator("b")).not_to_have_text(f"${value:,}")
    expect(page.get_by_role("button", name="Rate of Living area: back to the evidence")).to_be_visible()
    expect(says).to_have_attribute("aria-busy", "false")
    changed = whole(says.locator("b").inner_text())
    assert changed != value

    # the list price: refused, set, nudged, dragged
    price = page.get_by_label("List", exact=True)
    price.fill("12")
    price.press("Enter")
    expect(page.get_by_text("A list price of 12 makes no sense").first).to_be_visible()
    price.fill("$309,900")
    price.press("Enter")
    handle = page.get_by_role("slider", name="List price")
    expect(handle).to_have_attribute("aria-valuenow", "309900")
    handle.focus()
    handle.press("ArrowRight")
    expect(handle).to_have_attribute("aria-valuenow", "310900")
    box = handle.bounding_box()
    page.mouse.move(box["x"] + 11, box["y"] + 30)
    page.mouse.down()
    page.mouse.move(box["x"] + 60, box["y"] + 30, steps=6)
    page.mouse.up()
    expect(handle).not_to_have_attribute("aria-valuenow", "310900")
    expect(page.get_by_text(re.compile("Saved: list price set to"))).to_be_visible()
    listed = int(handle.get_attribute("aria-valuenow"))
    assert listed > 310_900 and listed % 1000 == 0

    # the report: seen, downloaded, read back
    room(page, "Paper")
    page.get_by_label("Prepared for").fill("Orla Grayle")
    page.get_by_label("Prepared for").press("Tab")
    expect(page.get_by_text("Saved: client changed")).to_be_visible()
    expect(page.get_by_role("img", name="Page 1: The one page")).to_be_visible()
    with page.expect_download() as download:
        page.get_by_role("link", name="Download PDF").click()
    file = tmp_path / "report.pdf"
    download.value.save_as(file)
    assert download.value.suggested_filename == "630-Hedgerow-Terrace.pdf"
    first, *others = words_on_pages(file)
    for words in (
        "630 Hedgerow Terrace",
        "Orla Grayle",
        f"{changed:,}",
        f"{listed:,}",
        "within 2 mi",
        "1,300–2,000 sq ft",
        "365 days",
    ):
        assert words in first, words
    assert "Beside this home" in others[0] and any("Living area, sq ft $10" in text for text in others)


@pytest.mark.own_process
def test_the_server_stops_in_the_middle_and_nothing_is_lost(page: Page, server) -> None:
    find_home(page, "630 hedgerow terrace")
    room(page, "Comps")
    page.get_by_role("button", name=re.compile("most alike")).click()
    expect(page.get_by_text(re.compile("Saved: .* kept"))).to_be_visible()
    price = page.get_by_label("List", exact=True)
    price.fill("305,000")
    price.press("Enter")
    expect(page.get_by_text("Saved: list price set to 305,000")).to_be_visible()
    value = page.get_by_label("Price rail").locator("b").inner_text()

    server.stop()
    price.fill("299,000")
    price.press("Enter")
    expect(page.get_by_role("alert").filter(has_text="1 change waits here and goes out when it does")).to_be_visible()
    room(page, "Worth")
    expect(page.get_by_label("List", exact=True)).to_have_value("299,000")
    page.get_by_role("link", name="Market", exact=True).click()  # which was never looked at: its part is still to come
    expect(page.get_by_role("alert").filter(has_text="What you asked for opens as soon as it does")).to_be_visible()
    room(page, "Comps")
    expect(page.get_by_role("alert").filter(has_text="What you asked for")).to_have_count(0)
    room(page, "Paper")
    expect(page.get_by_role("alert").filter(has_text="What you asked for opens as soon as it does")).to_be_visible()
    server.start()
    expect(page.get_by_role("img", name=re.compile("^Page 1"))).to_be_visible()

    # what was decided meanwhile has waited in the page, and goes out by itself
    expect(page.get_by_text("Saved: list price set to 299,000")).to_be_visible(timeout=20_000)
    expect(page.get_by_role("alert")).to_have_count(0)
    expect(page.get_by_label("Price rail").locator("b")).to_have_text(value)
    page.goto(server.url)
    expect(page.get_by_text("list $299,000")).to_be_visible()


def test_a_part_of_the_program_that_cannot_be_fetched_comes_later(page: Page) -> None:
    """A map whose part failed once; a place whose part is gone for good, as where a newer program has it under another name."""
    failed: list[str] = []

    def once(route: Route) -> None:
        failed.append(route.request.url)
        route.abort() if len(failed) == 1 else route.continue_()

    page.route(re.compile(r"/assets/HomeMap-.*\.js"), once)
    find_home(page, "630 hedgerow terrace")
    room(page, "Comps")
    expect(page.get_by_role("application", name=re.compile("Map of the home"))).to_be_visible()
    assert len(failed) > 1

    loaded: list[Page] = []
    page.on("load", lambda it: loaded.append(it))
    page.route(
        re.compile(r"/assets/Market-.*\.js"),
        lambda route: route.continue_() if loaded else route.fulfill(status=404),
    )
    page.get_by_role("link", name="Market", exact=True).click()
    expect(page.get_by_role("alert").filter(has_text="What you asked for opens")).to_be_visible()
    expect(page.get_by_role("table", name="Market figures by period")).to_be_visible()
    assert loaded, "the program was begun anew"
