"""Market: a view asked in its sentence, compared, smoothed, laid over itself, saved, pinned, and handed on as CSV."""

from __future__ import annotations

import csv
import io
import re
from pathlib import Path

import openpyxl
from playwright.sync_api import Page, expect

from rain_porch.core.market.measures import MEASURES
from tests.e2e.looking import on_a_phone
from tests.e2e.test_evening import find_home, room
from tests.pdf_text import words_on_pages
from tests.report.boxes import faults


def typed(page: Page, label: str, text: str) -> None:
    field = page.get_by_label(label, exact=True)
    field.fill(text)
    field.press("Enter")


def test_a_view_is_asked_compared_saved_and_pinned(page: Page, server) -> None:
    page.get_by_role("link", name="Market").click()
    says = page.locator("p.says")
    expect(says).to_contain_text(
        re.compile(r"The median price of detached homes was \$[\d,]+ in the 12 months to October 2026")
    )
    table = page.get_by_role("table", name="Market figures by period")
    expect(table.get_by_role("row")).to_have_count(61)

    page.get_by_label("Measure", exact=True).select_option("months_of_supply")
    expect(says).to_contain_text("would last")
    page.get_by_label("Second measure").select_option("")
    typed(page, "Place", "Atlantis")
    expect(page.get_by_role("alert")).to_contain_text("Atlantis")
    typed(page, "Place", "Quarry Bend")
    typed(page, "Place 2", "Lantern Hill")
    expect(table.get_by_role("columnheader", name="Lantern Hill")).to_be_visible()
    page.get_by_label("Smoothing").select_option("3")
    page.get_by_label("Outside series").select_option("Demo mortgage rates")
    expect(table.get_by_role("columnheader", name="Demo mortgage rates")).to_be_visible()
    with page.expect_download() as download:
        page.get_by_role("button", name="CSV").click()
    rows = list(csv.DictReader(Path(download.value.path()).read_text().splitlines()))
    assert len(rows) == 60 and set(rows[0]) >= {
        "period",
        "finished",
        "Months of supply (12-month pace), mean of 3 months, months, Quarry Bend",
        "Months of supply (12-month pace), mean of 3 months, months, Lantern Hill",
    }

    page.get_by_label("Name of the view").fill("Supply on both banks")
    page.get_by_role("button", name="Pin").click()
    expect(page.get_by_role("button", name="Supply on both banks", exact=True)).to_be_visible()
    page.get_by_role("link", name="Desk", exact=True).click()
    pins = page.get_by_role("region", name="Pinned market views")
    expect(pins.get_by_role("link", name=re.compile(r"Supply on both banks.*by month.*\d", re.DOTALL))).to_be_visible()
    pins.get_by_role("link", name=re.compile("Supply on both banks")).click()
    expect(page.get_by_label("Place 2")).to_have_value("Lantern Hill")
    page.get_by_role("button", name="Delete Supply on both banks").click()
    expect(page.get_by_role("button", name="Supply on both banks", exact=True)).to_have_count(0)


def test_presses_that_come_faster_than_the_answers_lose_nothing(page: Page, server) -> None:
    page.get_by_role("link", name="Market").click()
    page.get_by_label("Name of the view").fill("Quickly")
    page.get_by_role("button", name="Save", exact=True).click()
    pin = page.get_by_role("button", name="Pin Quickly to the desk")
    expect(pin).to_be_visible()
    # a name that is not meant after all
    page.get_by_role("button", name="Rename Quickly").click()
    page.keyboard.press("Control+A")
    page.keyboard.type("Wrongly")
    page.keyboard.press("Escape")
    expect(page.get_by_role("button", name="Quickly", exact=True)).to_be_visible()
    page.wait_for_timeout(300)
    expect(page.get_by_role("button", name="Wrongly", exact=True)).to_have_count(0)
    page.route("**/api/views/*", lambda route: (page.wait_for_timeout(500), route.continue_()))
    pin.click()
    page.get_by_role("button", name="Delete Quickly").click()
    page.get_by_role("button", name="Bring it back").click()
    expect(page.get_by_role("button", name="Take Quickly off the desk")).to_be_visible()
    page.get_by_role("button", name="Delete Quickly").click()
    expect(page.get_by_role("button", name="Quickly", exact=True)).to_have_count(0)


def test_years_lie_over_each_other_and_the_year_so_far_tells_all_measures(page: Page, server) -> None:
    page.get_by_role("link", name="Market").click()
    page.get_by_label("years over each other").check()
    table = page.get_by_role("table", name="Market figures by period")
    expect(table.get_by_role("row")).to_have_count(13)
    expect(table.get_by_role("columnheader", name="2025")).to_be_visible()
    page.get_by_role("button", name="The year so far").click()
    sofar = page.get_by_role("table", name="The year so far")
    expect(sofar.get_by_role("row", name=re.compile(r"^Closings \d"))).to_contain_text(re.compile(r"[+−][\d.]+ %"))
    expect(sofar.get_by_role("row")).to_have_count(len(MEASURES) + 1)


def test_a_market_is_split_narrowed_drawn_and_its_points_open(page: Page, server) -> None:
    page.get_by_role("link", name="Market").click()
    table = page.get_by_role("table", name="Market figures by period")
    page.get_by_label("Measure", exact=True).select_option("closings")
    page.get_by_label("Second measure").select_option("")
    page.get_by_label("Period", exact=True).select_option("quarter")
    page.get_by_role("button", name="+ condition").click()
    page.get_by_label("Field", exact=True).select_option("living_area")
    page.get_by_label("From", exact=True).fill("big")
    page.get_by_role("button", name="Add", exact=True).click()
    expect(page.get_by_role("alert")).to_contain_text("“big” is no number")
    page.get_by_label("From", exact=True).fill("2,400-2,000")
    page.get_by_role("button", name="Add", exact=True).click()
    expect(page.get_by_role("alert")).to_contain_text("upside down")
    page.get_by_label("From", exact=True).fill("1500")
    page.get_by_role("button", name="Add", exact=True).click()
    expect(page.get_by_role("button", name="Take away: Living area at least 1,500")).to_be_visible()
    page.get_by_label("Split by").select_option("price")
    expect(table.get_by_role("columnheader")).to_have_count(6)

    figure = table.get_by_role("row").nth(2).get_by_role("button").last
    n = int(figure.inner_text())
    figure.click()
    opened = page.get_by_role("dialog")
    expect(opened.get_by_text(re.compile(rf"from {n} records?"))).to_be_visible()
    expect(opened.get_by_role("table", name="Records behind the figure").get_by_role("row")).to_have_count(n + 1)
    expect(opened.get_by_role("application")).to_be_visible()
    opened.get_by_role("button", name="close").click()
    page.get_by_label("Split by").select_option("")

    # a place drawn by keys alone
    whole = page.locator("p.says").inner_text()
    page.get_by_role("button", name="or draw it").click()
    the_map = page.get_by_role("dialog").get_by_role("application")
    expect(the_map).to_be_visible()
    page.get_by_role("button", name=re.compile("Draw a circle")).press("Enter")
    expect(the_map).to_be_focused()
    page.keyboard.press("Enter")
    page.keyboard.press("Shift+ArrowRight")
    page.keyboard.press("Enter")
    page.get_by_role("button", name="Look inside it").click()
    expect(page.locator("p.says")).to_contain_text("inside a drawn area")
    page.get_by_role("button", name="Take away: inside a drawn area").click()
    expect(page.locator("p.says")).to_have_text(whole)

    with page.expect_download() as download:
        page.get_by_role("button", name="XLSX").click()
    sheet = openpyxl.load_workbook(io.BytesIO(Path(download.value.path()).read_bytes())).active
    assert sheet["A1"].value == whole and sheet.max_row == len(table.get_by_role("row").all()) + 2
    with page.expect_download() as download:
        page.get_by_role("button", name="PNG").click()
    assert Path(download.value.path()).read_bytes()[:4] == b"\x89PNG"

    page.get_by_role("button", name="What changed").click()
    changed = page.get_by_role("table", name="What changed")
    closed = page.get_by_role("button", name=re.compile(r"^\d+ closed"))
    n = int(closed.inner_text().split()[0])
    closed.click()
    expect(changed.get_by_role("row")).to_have_count(n + 1)


def test_from_a_workup_the_market_opens_around_its_home(page: Page, server) -> None:
    find_home(page, "630 hedgerow terrace")
    room(page, "Comps")
    page.get_by_role("link", name="the market around it").click()
    expect(page.locator("p.says")).to_contain_text("of detached homes within 1 mi of 630 Hedgerow Terrace")
    page.get_by_role("button", name="By size and price").click()
    size = page.get_by_role("table", name="By size: price per square foot")
    expect(size.get_by_role("row").filter(has_text="the home")).to_have_count(1)


def test_a_bulletin_is_put_together_from_views_and_handed_out(page: Page, server) -> None:
    page.get_by_role("link", name="Market").click()
    page.get_by_role("button", name="Bulletins").click()
    page.get_by_role("button", name="New bulletin").click()
    typed(page, "Title", "Autumn on both banks")
    words = page.get_by_label("Your words at the start")
    words.fill("A calm season.")
    words.press("Tab")
    parts = page.get_by_role("list", name="Parts of the bulletin").get_by_role("listitem")
    page.get_by_role("button", name="the view above", exact=True).click()
    expect(parts).to_have_count(1)
    page.get_by_role("button", name="what changed", exact=True).click()
    expect(parts).to_have_count(2)
    heading = page.get_by_label("Heading of part 2")
    heading.fill("The last weeks")
    heading.press("Tab")
    page.get_by_role("button", name="Part 2 up").click()
    expect(page.get_by_label("Heading of part 1")).to_have_value("The last weeks")
    expect(page.get_by_role("img", name="Sheet 1 of the bulletin")).to_be_visible()
    with page.expect_download() as download:
        page.get_by_role("link", name="PDF").click()
    text = " ".join(words_on_pages(download.value.path()))
    assert "Autumn on both banks" in text and "A calm season." in text
    assert text.index("The last weeks") < text.index("The median price of detached homes")
    page.get_by_role("button", name="New bulletin").click()
    expect(page.get_by_label("Title", exact=True)).to_have_value("Bulletin")
    typed(page, "Title", "Autumn on both banks")
    expect(page.get_by_role("alert")).to_contain_text("already")
    page.get_by_role("button", name="delete this bulletin").click()
    page.get_by_role("button", name="Autumn on both banks").click()
    expect(parts).to_have_count(2)


def test_a_ready_bulletin_is_made_of_the_view_and_reads_on_a_phone(page: Page, server, tmp_path: Path) -> None:
    """Walk 14 to the paper: a place of a view, four pages at one press, read to the last sheet, on a phone too."""
    page.get_by_role("link", name="Market").click()
    place = page.get_by_role("combobox", name="Place", exact=True)
    place.click()
    page.keyboard.type("lan")
    expect(page.get_by_role("option", name=re.compile("Lantern Hill")).first).to_be_visible()
    page.keyboard.press("Enter")
    page.get_by_role("button", name="Bulletins").click()
    page.get_by_role("button", name="Four pages").click()
    expect(page.get_by_label("Title", exact=True)).to_have_value("Lantern Hill")
    sheets = page.get_by_role("img", name=re.compile(r"^Sheet \d of the bulletin"))
    expect(sheets).to_have_count(4)
    sheets.last.scroll_into_view_if_needed()
    assert sheets.last.evaluate("image => image.decode().then(() => image.naturalWidth)") > 500
    with page.expect_download() as download:
        page.get_by_role("link", name="PDF").click()
    data = Path(download.value.path()).read_bytes()
    text = " ".join(words_on_pages(download.value.path()))
    for words in (
        "sold for",
        "Place by place",
        "Prices and closings",
        "Three ways to see a price",
        "How fast it goes",
        "What sold last",
        "What came on last",
        "What the words mean",
        "sales after",
    ):
        assert words in text, words
    assert not faults(data, 8.4)
    with page.expect_download() as download:
        page.get_by_role("link", name="Web page").click()
    file = tmp_path / "bulletin.html"
    download.value.save_as(file)
    browser = page.context.browser
    assert browser is not None
    with on_a_phone(browser, file) as opened:
        assert opened.evaluate(
            "[...document.images].some(i => i.currentSrc && i.alt.startsWith('Median price') && i.naturalWidth < 400)"
        ), "drawn for it"
