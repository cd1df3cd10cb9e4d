"""A market read at a glance and carried to a bulletin that keeps itself, by mouse alone and by keys alone."""

from __future__ import annotations

import csv
import io
import re
import zipfile
from pathlib import Path
from typing import Any

import openpyxl
import pytest
from playwright.sync_api import Page, expect

from tests.pdf_text import words_on_pages
from tests.report.boxes import faults

from .person import Press, at_rest, click_on, last_row, press_by_keys, tab_to
from .test_walks import answers

pytestmark = pytest.mark.e2e
HANDS = pytest.mark.parametrize("press", [click_on, press_by_keys], ids=["by_mouse", "by_keys"])


def look_at(page: Page, press: Press, place: str) -> None:
    """The market of a place that is found by three letters of its name."""
    press(page, page.get_by_role("link", name="Market", exact=True))
    field = page.get_by_role("combobox", name="Place", exact=True)
    press(page, field) if press is click_on else tab_to(page, field)
    page.keyboard.type(place[:3])
    expect(answers(page).first).to_have_text(re.compile(place))
    page.keyboard.press("Enter")
    expect(page.locator("p.says")).to_contain_text(f"in {place}")


def figure(text: str) -> float:
    return float(re.sub(r"[^\d.]", "", text))


@HANDS
def test_a_bulletin(page: Page, server: Any, press: Press) -> None:
    """The year so far of one size, each figure to its records, the table as a sheet; then the same market as a bulletin."""
    look_at(page, press, "Lantern Hill")
    press(page, page.get_by_role("button", name="+ condition"))
    page.get_by_label("Field", exact=True).select_option("living_area")
    field = page.get_by_label("From", exact=True)
    press(page, field) if press is click_on else tab_to(page, field)
    page.keyboard.type("2,000-2,400")
    page.keyboard.press("Enter")
    expect(page.get_by_role("button", name=re.compile("Take away: Living area .*2,000.*2,400"))).to_be_visible()
    press(page, page.get_by_role("button", name="The year so far", exact=True))
    table = page.get_by_role("table", name="The year so far")
    for year in ("2026", "2025", "2024"):
        expect(table.get_by_role("columnheader", name=re.compile(year))).to_have_count(1)
    row = table.get_by_role("row", name=re.compile(r"^Closings \d"))
    for k in range(3):
        value = row.get_by_role("button").nth(k)
        n = int(figure(value.inner_text()))
        press(page, value)
        opened = page.get_by_role("dialog")
        expect(opened.get_by_text(re.compile(rf"from {n} records?"))).to_be_visible()
        homes = opened.get_by_role("table", name="Records behind the figure").get_by_role("row")
        expect(homes).to_have_count(n + 1)
        sizes = [figure(r.get_by_role("cell").nth(5).inner_text()) for r in homes.all()[1:]]
        assert all(2000 <= s <= 2400 for s in sizes)
        page.keyboard.press("Escape")
        expect(opened).to_have_count(0)
    last_row(page, table)
    with page.expect_download() as download:
        press(page, page.get_by_role("button", name="XLSX", exact=True))
    sheet = openpyxl.load_workbook(io.BytesIO(Path(download.value.path()).read_bytes())).active
    told = {r[0]: r for r in sheet.iter_rows(values_only=True)}
    assert int(told["Closings"][2]) == int(figure(row.get_by_role("button").first.inner_text()))

    press(page, page.get_by_role("button", name="Bulletins", exact=True))
    press(page, page.get_by_role("button", name="One page", exact=True))
    sheets = page.get_by_role("img", name=re.compile(r"^Sheet \d+ of the bulletin"))
    expect(sheets).to_have_count(1)
    parts = page.get_by_role("list", name="Parts of the bulletin")
    expect(parts).to_contain_text("Living area 2,000 to 2,400")
    expect(parts).not_to_contain_text("living_area")
    press(page, page.get_by_role("button", name="the year so far", exact=True))
    begins = page.get_by_label("Part 5 begins a page")
    press(page, begins)
    expect(sheets).to_have_count(2)
    expect(page.get_by_role("link", name="PDF").first).to_be_visible()
    with page.expect_download() as download:
        press(page, page.get_by_role("link", name="PDF").first)
    data = Path(download.value.path()).read_bytes()
    text = " ".join(words_on_pages(data))
    assert "The year so far" in text and "Detached homes in Lantern Hill" in text and not faults(data, 8.4)
    with page.expect_download() as download:
        press(page, page.get_by_role("link", name="CSV"))
    rows = list(csv.DictReader(io.StringIO(Path(download.value.path()).read_text("utf-8-sig"))))
    so_far = [r for r in rows if r["measure"] == "closings" and r["part"].startswith("The year so far")]
    assert [float(r["value"]) for r in so_far] == [float(told["Closings"][k]) for k in (2, 3, 4)]
    with page.expect_download() as download:
        press(page, page.get_by_role("link", name="Square picture"))
    assert Path(download.value.path()).read_bytes()[:4] == b"\x89PNG"
    with page.expect_download() as download:
        press(page, page.get_by_role("link", name="Workbook"))
    assert zipfile.is_zipfile(download.value.path())

    # read by others, made again later, and as a past day saw it
    name = page.get_by_label("To", exact=True)
    press(page, name) if press is click_on else tab_to(page, name)
    page.keyboard.type("Theo Ashe")
    page.keyboard.press("Tab")
    page.keyboard.type("theo@ashe.example")
    page.keyboard.press("Enter")
    expect(page.get_by_role("button", name="Take Theo Ashe away")).to_be_visible()
    page.get_by_label("Day of the month").select_option("5")
    expect(page.get_by_text(re.compile("looked at next on"))).to_be_visible()
    press(page, page.get_by_role("button", name="Send to 1 reader now"))
    made = page.get_by_role("table", name="As it was made").get_by_role("row")
    expect(made).to_have_count(2)
    expect(made.nth(1).get_by_role("cell").nth(2)).to_have_text("1")
    day = page.get_by_label("As it stood on", exact=True)
    press(page, day) if press is click_on else tab_to(page, day)
    page.keyboard.type("6/30/25")
    page.keyboard.press("Enter")
    with page.expect_download() as download:
        press(page, page.get_by_role("link", name="CSV"))
    assert "the 12 months to June 2025" in Path(download.value.path()).read_text("utf-8-sig")


@HANDS
def test_a_market_at_a_glance(page: Page, server: Any, press: Press) -> None:
    """Every measure by month; one pulled up over places, bands and years, by month, and as its values lie; each to its records."""
    look_at(page, press, "Lantern Hill")
    apart = page.locator("p.apart")
    expect(apart).to_contain_text(
        re.compile(r"Median price: [\d,]+ over the 12 months; [\d,]+ over October 2026 alone")
    )
    press(page, page.get_by_role("button", name="At a glance", exact=True))
    matters = page.get_by_role("region", name="What matters")
    expect(matters).to_contain_text(
        re.compile(r"Detached homes in Lantern Hill sold for .* a median of \$[\d,]+ \(\d+ sales after \d+\)")
    )
    closings = matters.get_by_role("button").nth(1)
    n = int(figure(closings.inner_text()))
    press(page, closings)
    expect(
        page.get_by_role("dialog").get_by_role("table", name="Records behind the figure").get_by_role("row")
    ).to_have_count(n + 1)
    page.keyboard.press("Escape")
    charts = page.get_by_role("region", name="Every measure by month")
    drawn = charts.get_by_role("img", name=re.compile("by month$"))
    expect(drawn).to_have_count(12)
    drawn.last.scroll_into_view_if_needed()
    press(page, charts.get_by_role("button", name=re.compile("^Median price pull up")))
    up = page.get_by_role("region", name="Pulled up: Median price")
    expect(up.get_by_role("img", name=re.compile("Chart of the view"))).to_be_visible()
    expect(up.get_by_text("Foxglove Meadow")).to_be_visible()
    for way, words in (("By size", "sq ft and more"), ("Years", "2025")):
        press(page, up.get_by_role("button", name=way, exact=True))
        expect(up.get_by_text(re.compile(words)).first).to_be_visible()
    press(page, up.get_by_role("button", name="Month by month"))
    heat = up.get_by_role("table", name="Median price by month and year")
    cell = heat.get_by_role("row", name=re.compile("^2026")).get_by_role("button").last
    value = cell.inner_text()
    press(page, cell)
    expect(page.get_by_role("dialog")).to_contain_text(f"Median price: {value}")
    page.keyboard.press("Escape")
    press(page, up.get_by_role("button", name="How they lie"))
    bars = up.get_by_role("group", name=re.compile("How the values lie")).get_by_role("button")
    expect(bars.first).to_be_visible()
    counts = [int(re.search(r"(\d+) homes", b.get_attribute("aria-label") or "").group(1)) for b in bars.all()]  # type: ignore[union-attr]
    assert sum(counts) == n
    press(page, bars.nth(counts.index(max(counts))))
    expect(up.get_by_role("table", name="Homes behind the values").get_by_role("row")).to_have_count(max(counts) + 1)
    press(page, up.get_by_role("button", name="all measures"))
    rows = page.get_by_role("table", name="Place by place").get_by_role("row")
    for place in ("Alder Flats", "all together"):
        closed = rows.filter(has_text=place).get_by_role("button").first
        many = int(figure(closed.inner_text()))
        press(page, closed)
        expect(page.get_by_role("dialog").get_by_text(re.compile(rf"from {many:,} records?"))).to_be_visible()
        page.keyboard.press("Escape")
    press(page, charts.get_by_role("button", name=re.compile("^Median price pull up")))
    # the address brings it back, and back leads back
    page.reload()
    expect(page.get_by_role("region", name="Pulled up: Median price")).to_be_visible()
    page.go_back()
    expect(page.get_by_role("region", name="Every measure by month")).to_be_visible()


def test_the_pen_that_lies_ready_draws(page: Page, server: Any) -> None:
    """By mouse: the dialog opens with the pen for areas in hand, and its first corner counts."""
    page.get_by_role("link", name="Market", exact=True).click()
    says = page.locator("p.says")
    whole = says.inner_text()
    page.get_by_role("button", name="or draw it").click()
    dialog = page.get_by_role("dialog")
    expect(dialog.get_by_role("button", name=re.compile("^Draw an area: click"))).to_have_attribute(
        "aria-pressed", "true"
    )
    at_rest(page, 300)  # the map too
    box = dialog.get_by_role("application").bounding_box()
    assert box is not None
    for across, down in ((0.3, 0.3), (0.6, 0.3), (0.6, 0.6), (0.3, 0.6), (0.3, 0.6)):
        page.mouse.move(box["x"] + box["width"] * across, box["y"] + box["height"] * down, steps=3)
        page.mouse.down()
        page.mouse.up()
        page.wait_for_timeout(320)
    click_on(page, dialog.get_by_role("button", name="Look inside it"))
    expect(says).to_contain_text("inside a drawn area")
    assert says.inner_text() != whole


def test_a_place_with_a_name_of_its_own_and_places_together(page: Page, server: Any) -> None:
    """Drawn once, found by typing from then on; two places as one market, beside the whole."""
    page.get_by_role("link", name="Market", exact=True).click()
    page.get_by_role("button", name="or draw it").click()
    the_map = page.get_by_role("dialog").get_by_role("application")
    expect(the_map).to_be_visible()
    page.get_by_role("button", name=re.compile("Draw a circle")).press("Enter")
    expect(the_map).to_be_focused()
    for key in ("Enter", "Shift+ArrowRight", "Enter"):
        page.keyboard.press(key)
    page.get_by_label("Name of the place").fill("The two banks")
    page.get_by_role("button", name="Look inside it").click()
    says = page.locator("p.says")
    expect(says).to_contain_text("in The two banks")
    told = says.inner_text()
    page.get_by_role("button", name="Take away: in The two banks").click()
    expect(says).not_to_contain_text("The two banks")
    place = page.get_by_role("combobox", name="Place", exact=True)
    place.click()
    page.keyboard.type("two ban")
    expect(answers(page).first).to_contain_text("outline of your own")
    page.keyboard.press("Enter")
    expect(says).to_have_text(told)
    page.get_by_role("button", name="Take away: in The two banks").click()
    page.get_by_role("button", name="or draw it").click()
    drawing = page.get_by_role("dialog")
    drawing.get_by_role("button", name="Delete The two banks").click()
    expect(drawing.get_by_text("“The two banks” is deleted.")).to_be_visible()
    drawing.get_by_role("button", name="Bring it back").click()
    expect(drawing.get_by_role("button", name="Delete The two banks")).to_be_visible()
    drawing.get_by_role("button", name="Close").click()
    expect(drawing).to_have_count(0)
    for label, name in (("Place", "Quarry Bend"), ("Place 2", "Lantern Hill")):
        field = page.get_by_role("combobox", name=label, exact=True)
        field.fill(name)
        field.press("Enter")
    page.get_by_label("places together").check()
    page.get_by_label("beside the whole").check()
    expect(says).to_contain_text("in Quarry Bend and Lantern Hill")
    table = page.get_by_role("table", name="Market figures by period")
    expect(table.get_by_role("columnheader", name=re.compile("Quarry Bend and Lantern Hill"))).to_have_count(2)
    expect(table.get_by_role("columnheader", name=re.compile("all of the records"))).to_have_count(2)
    # each line opens to its own records: those of the two places, and those of everywhere
    newest = table.get_by_role("row").nth(2).get_by_role("button")
    for k in (1, 3):  # the closings
        n = int(figure(newest.nth(k).inner_text()))
        newest.nth(k).click()
        expect(page.get_by_role("dialog").get_by_text(re.compile(rf"from {n} records?"))).to_be_visible()
        page.keyboard.press("Escape")
        expect(page.get_by_role("dialog")).to_have_count(0)
