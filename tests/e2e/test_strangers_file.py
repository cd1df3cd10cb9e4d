"""A stranger's file, from the desk on: columns matched, one kept as a field of the office's own that is a criterion, a column and
a line of the grid; a home priced, a report printed; the import taken back."""

from __future__ import annotations

import re
from pathlib import Path

import openpyxl
import pytest
from playwright.sync_api import Page, expect

from tests.e2e.looking import look_over
from tests.e2e.person import Press, click_on
from tests.e2e.test_evening import room
from tests.e2e.test_walks import HANDS, add_columns, add_criterion, sentence
from tests.records.head_styles import listings, table

pytestmark = pytest.mark.e2e
DATA = Path(__file__).parent.parent / "reference/data"


@HANDS
def test_a_strangers_file(empty_desk: Page, press: Press, tmp_path: Path) -> None:
    page = empty_desk
    press(page, page.get_by_role("link", name="Records"))
    page.get_by_label("Bring in a file").set_input_files(DATA / "ames.csv")
    mapping = page.get_by_role("table", name="Mapping of columns to fields")
    expect(page.get_by_label("Field of Gr_Liv_Area")).to_have_value("living_area")
    press(page, page.get_by_role("button", name=re.compile("columns are left out")))
    for column in ("Lot_Shape", "Wood_Deck_SF"):
        page.get_by_label(f"Field of {column}", exact=True).select_option(label="a field of your own")
    expect(mapping.get_by_role("row", name=re.compile("^Wood_Deck_SF"))).to_contain_text("your choice")
    press(page, page.get_by_role("button", name="See what would change"))
    expect(page.get_by_role("tab", name=re.compile("2,930 new"))).to_be_visible()
    expect(page.get_by_role("img", name="Where the rows lie")).to_be_visible()
    press(page, page.get_by_role("button", name="Take it in"))
    press(page, page.get_by_role("button", name="Price one of its homes"))

    expect(page.get_by_role("button", name="+ criterion")).to_be_visible()
    add_criterion(page, "lot shape", press)
    expect(sentence(page)).to_contain_text("lot shape")
    page.keyboard.press("Escape")
    add_columns(page, ["Wood deck sf", "Lot shape"], press)
    found = page.get_by_role("table", name="Homes found")
    expect(found.get_by_role("columnheader", name=re.compile("Lot shape"))).to_have_count(1)
    expect(found).to_contain_text(re.compile("Regular|Slightly"))
    press(page, page.get_by_role("button", name=re.compile("most alike")))
    expect(page.get_by_text(re.compile(r"Saved: \d+ homes kept"))).to_be_visible()

    room(page, "Home")
    rate = page.get_by_label("Rate for Wood deck sf")
    rate.fill("20")
    rate.press("Tab")
    room(page, "Worth")
    grid = page.get_by_role("table", name="Adjustment grid")
    expect(grid.get_by_role("row", name=re.compile("Wood deck sf"))).to_be_visible()
    assert not look_over(page), "homes that have no address have long names"
    below = page.get_by_role("heading", name="Everything on one scale")
    before = below.bounding_box()
    page.mouse.move(700, 400)
    page.mouse.wheel(5000, 0)
    page.wait_for_timeout(300)
    after = below.bounding_box()
    assert before and after and abs(after["x"] - before["x"]) < 2, "what is no grid stays in the room's width"
    room(page, "Paper")
    with page.expect_download() as download:
        press(page, page.get_by_role("link", name="Download PDF"))
    assert Path(download.value.path()).read_bytes().startswith(b"%PDF")

    press(page, page.get_by_role("link", name="Records"))
    press(page, page.get_by_role("link", name="Imports"))
    row = page.get_by_role("row", name=re.compile("ames.csv"))
    press(page, row.get_by_role("button", name="undo"))
    press(page, page.get_by_role("button", name="yes, undo"))
    expect(page.get_by_text("2,930 records removed")).to_be_visible()


def test_a_workbook_s_sheets_come_in_one_after_the_other_and_unknown_words_are_asked_once(
    empty_desk: Page, tmp_path: Path
) -> None:
    page = empty_desk
    rows = listings(120)
    lines = table("number sign and dollars", rows)
    status = lines[0].index("Status")
    for i, line in enumerate(lines[1:]):
        line[status] = "QZ" if i % 30 == 5 else line[status]
    book = openpyxl.Workbook()
    for title, sheet in (("Homes", lines), ("Roll", table("assessor", rows))):
        page_of = book.create_sheet(title)
        for line in sheet:
            page_of.append(line)
    del book["Sheet"]
    file = tmp_path / "office.xlsx"
    book.save(file)
    click_on(page, page.get_by_role("link", name="Records"))
    page.get_by_label("Bring in a file").set_input_files(file)
    expect(page.get_by_role("heading", name="office.xlsx: Roll")).to_be_visible()
    click_on(page, page.get_by_role("button", name="See what would change"))
    click_on(page, page.get_by_role("button", name="Take it in"))
    click_on(page, page.get_by_role("link", name="Next: office.xlsx: Homes"))
    expect(page.get_by_role("heading", name="office.xlsx: Homes")).to_be_visible()
    expect(page.get_by_label("Source", exact=True)).to_have_value("office Homes")
    click_on(page, page.get_by_role("button", name="See what would change"))
    expect(page.get_by_role("tab", name=re.compile("4 rejected"))).to_be_visible()
    # a refusal is mended where it is seen: the word is said, and the file is looked at again by itself
    words = page.get_by_role("region", name="Words of the source")
    expect(words).to_contain_text("4 rows")
    words.get_by_label("QZ means").select_option("Expired")
    expect(page.get_by_role("tab", name=re.compile("120 new"))).to_be_visible()
    click_on(page, page.get_by_role("button", name="Take it in"))
    expect(page.get_by_role("button", name=re.compile("^Price "))).to_be_visible()
    # the same source again: nothing is asked
    page.get_by_label("Bring in a file").set_input_files(file)
    expect(page.get_by_text("mapped as last time for this source")).to_be_visible()
    expect(page.get_by_text("What do these mean?")).to_have_count(0)
