"""Figures that once misled: an improvement, one figure in three places, fields that cannot be read, ends of the rail, columns
that can be read two ways; and no view that shows what is no figure."""

from __future__ import annotations

import re
from collections.abc import Callable
from pathlib import Path

import pytest
from playwright.sync_api import Browser, Locator, Page, expect

from tests.e2e.conftest import Server
from tests.e2e.person import at_rest
from tests.e2e.test_evening import find_home, room, whole
from tests.e2e.test_worth import priced

NO_FIGURE = re.compile(r"NaN|undefined|Infinity|\bnull\b|\[object|−1 makes no sense|1,000,000,000,000")


def by_mouse(page: Page, field: Locator, text: str) -> None:
    """As a hand with a mouse does it: a click into the field, text, a click beside it."""
    field.scroll_into_view_if_needed()
    field.click(click_count=3)
    page.keyboard.type(text)
    page.get_by_text("Everything saves by itself").or_(page.locator("h1, h2").first).first.click()


def by_keys(page: Page, field: Locator, text: str) -> None:
    field.focus()
    page.keyboard.press("Control+a")
    page.keyboard.type(text)
    page.keyboard.press("Tab")


@pytest.mark.parametrize("hand", [by_mouse, by_keys])
def test_an_improvement_raises_the_value_by_what_its_line_says(page: Page, server, hand: Callable) -> None:
    """Walk 15: the indicated value rises by exactly what the improvement's line says, and the weights stay."""
    priced(page)
    weights = page.get_by_label(re.compile("^Weight of .*percent$"))
    expect(weights.first).to_be_visible()
    before = [w.input_value() for w in weights.all()]
    assert sum(round(10 * float(w)) for w in before) == 1000, "printed weights add up to 100"
    mean = page.get_by_label("Adjustment grid").locator("xpath=..").locator(".sum").filter(has_text="Weighted together")
    expect(mean).to_have_count(0)
    room(page, "Home")
    page.get_by_label("Kind of improvement").select_option("kitchen")
    hand(page, page.get_by_label("Year it was done"), "2025")
    hand(page, page.get_by_label("What it cost"), "$25,000")
    page.get_by_role("button", name="Add", exact=True).last.click()
    returned = page.get_by_role("region", name="Recent improvements").locator("b").nth(1)
    expect(returned).to_have_text(re.compile(r"^\$[\d,]+$"))
    line = whole(returned.inner_text())
    assert 5_000 < line < 25_000
    room(page, "Worth")
    expect(mean).to_contain_text("improvements")
    plain, added, total = (whole(x) for x in re.findall(r"[\d,]{5,}", mean.inner_text()))
    assert added == line and total - plain == line
    expect(weights.first).to_have_value(before[0])
    assert [w.input_value() for w in weights.all()] == before


def test_what_cannot_be_read_stays_with_a_sentence_and_nothing_is_sent(page: Page, server) -> None:
    priced(page)
    sent: list[str] = []
    page.on("request", lambda r: sent.append(r.url) if r.method == "POST" and "/changes" in r.url else None)
    total = page.get_by_label("List", exact=True)
    for typed in ("about 400", "1,5,0", "--"):
        by_keys(page, total, typed)
        expect(total).to_have_value(typed)
        expect(page.get_by_label("Price rail").get_by_role("alert")).to_contain_text("is no number")
    rate = page.get_by_label("Rate of Living area")
    by_keys(page, rate, "much")
    expect(rate).to_have_value("much")
    expect(page.get_by_role("alert").filter(has_text="“much” is no number")).to_be_visible()
    assert sent == []
    for typed, understood in (("389k", "389,000"), ("$392,500", "392,500"), ("0.4m", "400,000")):
        by_keys(page, total, typed)
        expect(page.get_by_text(f"Saved: list price set to {understood}")).to_be_visible()

    # the net sheet: percent, dollars and brackets as people type them; the list price moves and the sheet offers to follow
    page.get_by_role("button", name="Work out the net proceeds").click()
    by_keys(page, page.get_by_label("Compensation, listing side, scenario 1"), "2.5%")
    expect(page.get_by_text(re.compile("^10,000.00|−10,000.00|-10,000.00")).first).to_be_visible()
    closing = page.get_by_label("Title and closing, scenario 1")
    by_keys(page, closing, "two thousand")
    expect(closing).to_have_value("two thousand")
    by_keys(page, closing, "2k")
    expect(closing).to_have_value("2000")
    by_keys(page, total, "380,000")
    expect(page.get_by_text(re.compile(r"\+5\.3 % against the list price"))).to_be_visible()
    page.get_by_role("button", name=re.compile("Scenario 1: take the list price 380,000")).click()
    expect(page.get_by_label("Price, scenario 1")).to_have_value("380000")


def test_what_the_rail_does_not_reach_is_counted_at_its_ends_and_opens(page: Page, server) -> None:
    find_home(page, "110 parterre")
    room(page, "Comps")
    scale = page.get_by_label("Prices around this home")
    expect(scale).to_be_visible()

    def in_sight() -> int:
        ends = page.get_by_label("Price rail").get_by_role("button", name=re.compile("(below|above) .*: show them"))
        return sum(int(e.get_attribute("aria-label").split()[0]) for e in ends.all()) + scale.locator("title").count()

    before = in_sight()
    page.get_by_role("button", name="Sort by Price").click()
    rows = (
        page.get_by_role("table", name="Homes found")
        .get_by_role("row")
        .filter(has=page.get_by_label(re.compile("^Keep ")))
    )
    sold = rows.filter(has=page.get_by_title(re.compile("^sold")))
    (sold if sold.count() else rows).first.click()
    page.keyboard.press("Escape")
    for _ in range(6):  # the first sale among the next rows
        page.keyboard.press("k")
        expect(page.get_by_text(re.compile("Saved: .* kept"))).to_be_visible()
        at_rest(page)
        if page.get_by_label("Price rail").locator(".first b").count():
            break
    expect(page.get_by_label("Price rail").locator(".first b")).to_be_visible()
    assert in_sight() >= before > 20, "one kept comp does not make the others vanish"
    page.get_by_role("button", name=re.compile("most alike")).click()
    ends = page.get_by_label("Price rail").get_by_role("button", name=re.compile("(below|above) .*: show them"))
    expect(ends.first).to_be_visible()
    ends.first.click()
    link = page.get_by_role("link", name=re.compile(": (sold for|for sale at|under contract at|failed at)")).first
    address = link.inner_text().split(":")[0]
    link.click()
    expect(page.get_by_role("complementary", name=f"Record of {address}")).to_be_visible()


def test_a_file_that_can_be_read_two_ways_is_asked_and_read_as_it_is_meant(page: Page, server, tmp_path: Path) -> None:
    file = tmp_path / "either.csv"
    file.write_text(
        "ListingId;UnparsedAddress;StandardStatus;CloseDate;ClosePrice;Latitude;Longitude\n"
        "Y1;1 Either Way;Closed;03/04/2026;395.000;-38.4;41.2\n"
    )
    page.get_by_role("link", name="Records").click()
    page.get_by_label("Bring in a file").set_input_files(file)
    form = page.get_by_label("How CloseDate is written")
    expect(form).to_be_visible()
    expect(page.get_by_text(re.compile("“03/04/2026” is 2026-03-04 or 2026-04-03"))).to_be_visible()
    expect(page.get_by_text("“395.000” is 395,000")).to_be_visible()
    page.get_by_role("button", name="See what would change").click()
    expect(page.get_by_role("alert").filter(has_text="can be read two ways")).to_be_visible()
    form.select_option("dmy")
    page.get_by_role("button", name=re.compile("See what would change|Look again")).click()
    expect(page.get_by_role("list", name="How numbers and dates are read")).to_contain_text(
        "“03/04/2026” is 2026-04-03"
    )
    expect(page.get_by_text("latitude and longitude look swapped").first).to_be_visible()
    page.get_by_role("button", name="Swap them back").click()
    expect(page.get_by_text("where they should when")).to_have_count(0)
    page.get_by_role("button", name="Take it in").click()
    expect(page.get_by_text("Taken in.")).to_be_visible()


def test_no_view_shows_what_is_no_figure_even_after_an_error(page: Page, server) -> None:
    def clean(where: str) -> None:
        at_rest(page)
        titles = page.evaluate(
            "[...document.querySelectorAll('[title], title')].map((e) => e.getAttribute('title') ?? e.textContent)"
        )
        text = page.locator("body").inner_text() + " ".join(titles)
        assert not NO_FIGURE.search(text), (where, NO_FIGURE.search(text))

    priced(page)
    for name in ("Home", "Comps", "Worth", "Paper"):
        room(page, name)
        clean(name)
    for name in ("Desk", "Workups", "Market", "Records", "Settings"):
        page.get_by_role("link", name=name, exact=True).first.click()
        clean(name)
    page.get_by_role("link", name="Market", exact=True).click()
    place = page.get_by_label("Place", exact=True)
    place.fill("Atlantis")
    place.press("Enter")
    expect(page.get_by_role("alert")).to_contain_text("Atlantis")
    for way in ("The year so far", "By size and price", "Chart"):
        page.get_by_role("tab", name=way).or_(page.get_by_role("button", name=way)).or_(
            page.get_by_role("radio", name=way)
        ).first.click()
        clean(f"Market, {way}, after an error")


def test_a_browser_that_writes_figures_otherwise_changes_none(browser: Browser, server: Server) -> None:
    """Where 1.500 is fifteen hundred, what a field shows must not be read again as one and a half."""
    with browser.new_context(
        viewport={"width": 1280, "height": 800}, locale="de-DE", reduced_motion="reduce"
    ) as abroad:
        page = abroad.new_page()
        page.goto(server.url)
        find_home(page, "630 hedgerow terrace")
        room(page, "Comps")
        sentence = page.locator("p.sentence")
        before = sentence.inner_text()
        sentence.get_by_role("button", name=re.compile("sq ft$")).click()
        low = page.get_by_label("From", exact=True)
        expect(low).to_have_value("1,450")
        low.fill("1,450 ")
        low.press("Enter")
        page.keyboard.press("Escape")
        at_rest(page, 400)
        assert sentence.inner_text() == before
        expect(page.get_by_role("table", name="Homes found")).to_contain_text(re.compile(r"\d{3},\d00"))
