"""Home: condition, place, features of the agent's own, improvements and pictures, down to the grid."""

from __future__ import annotations

import re
import struct
import zlib

from playwright.sync_api import Page, expect

from tests.e2e.test_evening import find_home, room


def png(width: int = 3, height: int = 2) -> bytes:
    def chunk(kind: bytes, data: bytes) -> bytes:
        return struct.pack(">I", len(data)) + kind + data + struct.pack(">I", zlib.crc32(kind + data))

    rows = b"".join(b"\0" + b"\x50\x80\x60" * width for _ in range(height))
    head = chunk(b"IHDR", struct.pack(">IIBBBBB", width, height, 8, 2, 0, 0, 0))
    return b"\x89PNG\r\n\x1a\n" + head + chunk(b"IDAT", zlib.compress(rows)) + chunk(b"IEND", b"")


def test_what_no_field_holds_and_what_was_done_reach_the_grid(page: Page) -> None:
    find_home(page, "630 hedgerow terrace")
    room(page, "Comps")
    page.get_by_role("button", name=re.compile("most alike")).click()
    expect(page.get_by_text(re.compile("Saved: .* kept"))).to_be_visible()
    room(page, "Home")
    page.get_by_label("Name of a feature").fill("sauna")
    page.get_by_label("Name of a feature").press("Enter")
    page.get_by_label("Amount for sauna").fill("4,500")
    page.get_by_label("Amount for sauna").press("Enter")
    page.get_by_label("Kind of improvement").select_option("kitchen")
    page.get_by_label("Year it was done").fill("2033")
    page.get_by_label("What it cost").fill("40,000")
    page.get_by_label("What it cost").press("Enter")
    expect(page.get_by_role("alert").first).to_contain_text("The year 2033 makes no sense")
    page.get_by_label("Year it was done").fill("2023")
    page.get_by_label("What it cost").press("Enter")
    expect(page.get_by_text("80 % of its 15 years left = 20,800")).to_be_visible()
    page.get_by_role("list", name="What lies around").get_by_role("button", name="bears on the price").first.click()
    expect(page.get_by_role("button", name="noted")).to_be_visible()
    page.get_by_role("group", name="Condition").get_by_role("button", name="like new").click()
    expect(page.get_by_text("Saved: condition set to like new")).to_be_visible()
    expect(page.get_by_role("row", name=re.compile("^Assessed|assessed")).first).to_be_visible()

    room(page, "Worth")
    grid = page.get_by_role("table", name="Adjustment grid")
    sauna = grid.get_by_role("row", name=re.compile("^sauna"))
    # equal for all comps, they are added once, after the mean
    expect(sauna.get_by_role("textbox").first).to_have_attribute("placeholder", "once")
    expect(
        page.get_by_text(re.compile(r"Weighted together [\d,]+ \+ sauna 4,500, once \+ improvements 20,800, once"))
    ).to_be_visible()
    sauna.get_by_role("textbox").first.fill("0")
    sauna.get_by_role("textbox").first.press("Enter")
    expect(page.get_by_text("Saved: adjustment set to 0")).to_be_visible()


def test_the_home_is_moved_and_its_pictures_are_added(page: Page) -> None:
    find_home(page, "630 hedgerow terrace")
    room(page, "Home")
    front = page.get_by_role("img", name="Front of the home")
    expect(front).to_be_visible()
    page.get_by_label("Add pictures").set_input_files(
        [
            {"name": "porch.png", "mimeType": "image/png", "buffer": png()},
            {"name": "plan.pdf", "mimeType": "application/pdf", "buffer": b"%PDF-1.7"},
        ]
    )
    expect(page.get_by_role("alert").first).to_contain_text("plan.pdf: This is no JPEG, PNG or WebP picture")
    expect(page.get_by_role("img", name="porch")).to_be_visible()
    expect(front).to_have_attribute("src", re.compile(r"/photos/[0-9a-f]{32}\.png"))
    page.get_by_role("button", name="Take porch away").click()
    expect(page.get_by_role("img", name="porch")).to_have_count(0)

    page.get_by_role("button", name="Not here? Move it").click()
    shown = page.get_by_role("application", name=re.compile("Map of the home"))
    shown.scroll_into_view_if_needed()
    box = shown.bounding_box()
    assert box is not None
    x, y = box["x"] + box["width"] / 2, box["y"] + box["height"] / 2
    page.mouse.move(x, y)
    page.mouse.down()
    page.mouse.move(x + 40, y + 30, steps=6)
    page.mouse.up()
    expect(page.get_by_text("Saved: place moved")).to_be_visible()
    page.get_by_role("button", name="back to the records’ place").click()
    expect(page.get_by_text("Saved: place as recorded")).to_be_visible()


def test_a_corner_lot_is_proposed_from_the_base_map(page: Page, server) -> None:
    find_home(page, "133 sheaf road")
    around = page.get_by_role("list", name="What lies around")
    line = around.get_by_role("listitem").filter(has_text="On a corner")
    expect(line).to_contain_text(re.compile("Sheaf Road and|and Sheaf Road"))
    line.get_by_role("button", name="bears on the price").click()
    expect(line.get_by_role("button", name="noted")).to_be_disabled()
    find = page.get_by_role("link", name="Desk", exact=True)
    find.click()
    find_home(page, "630 hedgerow terrace")
    expect(page.get_by_text("On a corner")).to_have_count(0)
