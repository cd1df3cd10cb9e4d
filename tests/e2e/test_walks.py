"""Pieces of an agent's real work, walked by mouse alone and by keys alone, to the last row."""

from __future__ import annotations

import datetime as dt
import json
import re
import urllib.request
from math import copysign
from typing import Any

import pytest
from playwright.sync_api import Locator, Page, expect

from rain_porch.core.facts import dates

from .person import Press, a_mark, at_rest, click_on, last_row, point_at, press_by_keys, tab_to, type_in
from .test_evening import room

pytestmark = pytest.mark.e2e
HANDS = pytest.mark.parametrize("press", [click_on, press_by_keys], ids=["by_mouse", "by_keys"])


def open_comps(page: Page, address: str, press: Press) -> Locator:
    """The comps of a home that is found by what is typed; the table of homes."""
    field = page.get_by_role("combobox", name="Which home?", exact=True)
    press(page, field) if press is click_on else tab_to(page, field)
    page.keyboard.type(address)
    answer = answers(page).filter(has_text=re.compile(r"\W+".join(address.split()), re.IGNORECASE)).first
    expect(answer).to_be_visible()  # read before it is taken: others stand there for the first letters
    page.keyboard.press("Enter") if press is press_by_keys else click_on(page, answer)
    expect(page.get_by_role("heading", name="The facts")).to_be_visible()
    press(
        page, page.get_by_role("navigation", name="Rooms of the workup").get_by_role("link", name=re.compile("^Comps"))
    )
    expect(page.get_by_role("button", name="+ criterion")).to_be_visible()
    return page.get_by_role("table", name="Homes found")


def answers(page: Page) -> Locator:
    """What a field that looks homes or places up offers."""
    return page.get_by_role("listbox").get_by_role("option")


def sentence(page: Page) -> Locator:
    return page.locator("p.sentence")


def found(page: Page) -> int:
    said = page.get_by_role("link", name=re.compile(r"^Comps [\d,]+ found")).inner_text()
    return int(re.search(r"([\d,]+) found", said).group(1).replace(",", ""))  # type: ignore[union-attr]


def part(page: Page, words: str, press: Press) -> None:
    """Open a part of the sentence; its field has the focus."""
    press(page, sentence(page).get_by_role("button", name=re.compile(words)).first)
    at_rest(page)


def leave(page: Page) -> None:
    page.keyboard.press("Escape")
    at_rest(page)


def add_criterion(page: Page, words: str, press: Press) -> None:
    press(page, page.get_by_role("button", name="+ criterion"))
    expect(page.get_by_role("textbox", name="Part of a field’s name")).to_be_focused()
    page.keyboard.type(words)
    page.keyboard.press("Enter")
    at_rest(page)


def add_columns(page: Page, names: list[str], press: Press) -> None:
    press(page, page.get_by_role("button", name="Columns"))
    for name in names:
        press(page, page.get_by_role("button", name=f"Show {name}", exact=True))
    leave(page)


def api(server: Any, path: str) -> Any:
    with urllib.request.urlopen(server.url + path) as answer:
        return json.load(answer)


@HANDS
def test_a_thin_neighbourhood(page: Page, server: Any, press: Press) -> None:
    table = open_comps(page, "101 dairy terrace", press)
    part(page, "^within", press)
    type_in(page, "2.5")
    expect(sentence(page)).to_contain_text("within 2.5 mi")
    leave(page)
    counts = []
    for days in (90, 120, 150, 300, 600):
        part(page, "^sold ", press)
        type_in(page, str(days))
        expect(page.get_by_text("Found now:")).to_be_visible()
        expect(sentence(page)).to_contain_text(f"sold in the last {days} days")
        leave(page)
        counts.append(found(page))
    assert counts == sorted(counts) and counts[-1] > counts[0], counts
    names = ["List $/sq ft", "First list", "% of list", "% of first", "Days", "All days", "Dues", "Taxes"]
    add_columns(page, names, press)
    head = table.get_by_role("columnheader", name=re.compile("Taxes"))
    assert head.evaluate(
        "(e) => { const r = e.getBoundingClientRect(); return r.right <= innerWidth + 1 && r.left > 0 }"
    ), "added, in sight"
    if press is click_on:
        click_on(page, table.get_by_role("button", name="Sort by Taxes"))
        page.get_by_label("Sort within that by").select_option(label="Miles")
    else:
        tab_to(page, table.get_by_role("button", name="Sort by Taxes"))
        page.keyboard.press("Enter")
        tab_to(page, page.get_by_label("Sort within that by"))
        page.keyboard.type("Miles")
    expect(page.locator("p.sorts")).to_contain_text(re.compile(r"Taxes.*, then\s+Miles"))
    key = last_row(page, table)
    expect(key).to_contain_text(re.compile(r"\d"))


@HANDS
def test_an_appraisers_eye(page: Page, server: Any, press: Press) -> None:
    table = open_comps(page, "630 hedgerow terrace", press)
    part(page, "sq ft", press)
    type_in(page, "±300")
    expect(sentence(page)).to_contain_text("1,400–2,000 sq ft")
    leave(page)
    add_criterion(page, "not across", press)
    press(page, page.get_by_role("button", name="not across it", exact=True).first)
    expect(sentence(page)).to_contain_text("not across")
    leave(page)
    all_found = found(page)

    the_map = page.get_by_role("application", name=re.compile("Map of the home"))
    box = the_map.bounding_box()
    assert box is not None
    x, y = box["x"] + box["width"] / 2, box["y"] + box["height"] / 2
    six = [(-80, -60), (0, -110), (80, -60), (80, 60), (0, 105), (-80, 60)]
    if press is click_on:
        click_on(page, page.get_by_role("button", name=re.compile("Draw an area: click")))
        for dx, dy in six[:-1]:
            page.mouse.move(x + dx, y + dy, steps=3)
            page.mouse.click(x + dx, y + dy)
            page.wait_for_timeout(320)  # two clicks at one moment end a drawing
        page.mouse.move(x + six[-1][0], y + six[-1][1], steps=3)
        page.mouse.dblclick(x + six[-1][0], y + six[-1][1])
    else:
        tab_to(page, page.get_by_role("button", name=re.compile("Draw an area: click")))
        page.keyboard.press("Enter")
        at = (0, 0)
        for dx, dy in six:
            for key, steps in (("ArrowRight", dx - at[0]), ("ArrowDown", dy - at[1])):
                turned = {"ArrowRight": "ArrowLeft", "ArrowDown": "ArrowUp"}[key] if steps < 0 else key
                for _ in range(abs(round(steps / 10))):
                    page.keyboard.press(turned)
            at = (dx, dy)
            page.keyboard.press("Enter")
        page.keyboard.press("Enter")
    expect(sentence(page)).to_contain_text("inside a drawn area")

    def shape() -> list[Any]:
        return api(server, "/api/workups/1")["state"]["search"]["shapes"][0]["points"]

    def right_count() -> None:
        """As many as lie inside, by an even-odd count of our own over what is found without the outline."""
        at_rest(page, 300)
        inside = api(server, "/api/workups/1/candidates")["candidates"]
        assert found(page) == len(inside)
        points = shape()
        for c in inside:
            px, py, odd = c["longitude"], c["latitude"], False
            for (ax, ay), (bx, by) in zip(points, points[1:] + points[:1], strict=True):
                if (ay > py) != (by > py) and px < ax + (py - ay) / (by - ay) * (bx - ax):
                    odd = not odd
            assert odd, f"{c['address']} lies outside"

    assert len(shape()) == 6
    right_count()
    if press is click_on:
        # another, one corner on a side of the first; closed on its first corner, on a home, as some people do, with one click or two
        home = a_mark(page, the_map)
        third = home[0] + copysign(20, x - home[0]), home[1] + copysign(60, y - home[1])
        for close in (page.mouse.click, page.mouse.dblclick):
            page.get_by_role("button", name=re.compile("Draw an area: click")).click()
            for corner in (home, (x + 80, y + 10), third):
                page.mouse.click(*corner)
                page.wait_for_timeout(320)
            scale = page.locator(".ol-scale-line").inner_text()
            close(*home)
            expect(page.get_by_text("Saved: search changed")).to_be_visible()
            at_rest(page, 300)
            shapes = api(server, "/api/workups/1")["state"]["search"]["shapes"]
            assert [len(s["points"]) for s in shapes] == [6, 3], "a corner went with the click that closed the area"
            assert page.locator(".ol-scale-line").inner_text() == scale, "the map grew"
            expect(page.get_by_role("complementary", name=re.compile("Record of"))).to_have_count(0)
            page.keyboard.press("z")
            at_rest(page, 300)
    assert 0 < found(page) <= all_found
    if press is click_on:
        first = shape()
        for n, (dx, dy) in enumerate(six):  # each corner a little outwards
            page.mouse.move(x + dx, y + dy)
            page.mouse.down()
            page.mouse.move(x + dx * 1.15, y + dy * 1.15, steps=5)
            page.mouse.up()
            expect(page.get_by_text("Saved: search changed")).to_be_visible()
            at_rest(page, 200)
            assert len(shape()) == 6, f"corner {n} took another with it"
        assert all(a != b for a, b in zip(first, shape(), strict=True)), "each corner has moved"
        right_count()
        # a side is dragged: one corner more; double-clicked: it is gone again
        side = (x + 80 * 1.15, y)
        page.mouse.move(*side)
        page.mouse.down()
        page.mouse.move(side[0] + 14, side[1], steps=4)
        page.mouse.up()
        at_rest(page, 300)
        assert len(shape()) == 7
        page.mouse.dblclick(side[0] + 14, side[1])
        at_rest(page, 300)
        assert len(shape()) == 6
        right_count()
        page.keyboard.press("z")
        at_rest(page, 300)
        assert len(shape()) == 7, "undone"
    else:
        tab_to(page, the_map)
        page.keyboard.press("n")
        page.keyboard.press("ArrowLeft")
        page.keyboard.press("Enter")
        expect(page.get_by_text("Saved: search changed")).to_be_visible()
        at_rest(page, 300)
        assert len(shape()) == 6
        page.keyboard.press("n")
        page.keyboard.press("Delete")
        at_rest(page, 300)
        assert len(shape()) == 5
        right_count()
        # a corner more, taken up at once and moved; then the whole area, and that undone
        page.keyboard.press("n")
        page.keyboard.press("a")
        expect(page.get_by_text("Corner 2 of 6")).to_be_visible()
        page.keyboard.press("ArrowUp")
        page.keyboard.press("Enter")
        at_rest(page, 300)
        before = shape()
        for _ in range(7):
            page.keyboard.press("n")
        expect(page.get_by_text("The whole area")).to_be_visible()
        page.keyboard.press("ArrowUp")
        page.keyboard.press("Enter")
        at_rest(page, 300)
        now = shape()
        assert all(b[1] > a[1] and abs(b[0] - a[0]) < 2e-6 for a, b in zip(before, now, strict=True)), (
            "all of it, north"
        )
        right_count()
        page.keyboard.press("z")
        at_rest(page, 300)
        assert shape() == before, "undone"
    add_columns(page, ["Kind"], press)
    press(page, table.get_by_role("button", name="Sort by Kind"))
    if press is click_on:
        page.get_by_label("Sort within that by").select_option(label="Price")
    else:
        tab_to(page, page.get_by_label("Sort within that by"))
        page.keyboard.type("Price")
    expect(page.locator("p.sorts")).to_contain_text(re.compile(r"Kind.*, then\s+Price"))
    last_row(page, table)


@HANDS
def test_a_unit(page: Page, server: Any, press: Press) -> None:
    field = page.get_by_role("combobox", name="Which home?", exact=True)
    press(page, field) if press is click_on else tab_to(page, field)
    page.keyboard.type("734 sill drive")
    units = answers(page)
    expect(units).to_have_count(34)
    if press is click_on:
        last = units.last
        point_at(page, last)
        name = last.inner_text()
        click_on(page, last)
    else:
        for _ in range(33):
            page.keyboard.press("ArrowDown")
        expect(units.last).to_be_in_viewport()
        name = units.last.inner_text()
        page.keyboard.press("Enter")
    unit = re.search(r"unit (\w+)", name).group(1)  # type: ignore[union-attr]
    expect(page.get_by_role("heading", name=re.compile(f"734 Sill Drive, unit {unit}"))).to_be_visible()
    room(page, "Comps")
    # its own project first; then a second one, typed by name
    expect(sentence(page)).to_contain_text("subdivision The Sill House")
    part(page, "^subdivision", press)
    others = [w for w in api(server, "/api/words?field=subdivision_name&text=house") if w != "The Sill House"]
    page.keyboard.type(others[0][:9])
    page.keyboard.press("Enter")
    expect(sentence(page)).to_contain_text(others[0])
    leave(page)
    # sales known only from deeds
    part(page, "now$|for sale", press)
    press(page, page.get_by_role("checkbox", name="deed sale"))
    expect(sentence(page)).to_contain_text("sold by deed")
    leave(page)
    # one more comp by its number, another by its address
    elsewhere = api(server, "/api/lookup?text=702%20wren%20place")["hits"][0]
    listing = api(server, f"/api/workups/1/of-home?kind={elsewhere['kind']}&key={elsewhere['key']}")[0]["listing_id"]
    for text in (listing, "613 barge place"):
        press(page, page.get_by_role("button", name="Add a home"))
        expect(page.get_by_role("textbox", name="Listing number or address")).to_be_focused()
        page.keyboard.type(text)
        expect(answers(page).first).to_be_visible()
        at_rest(page)
        page.keyboard.press("Enter") if press is press_by_keys else click_on(page, answers(page).first)
        record = page.get_by_role("dialog", name="Add a home to those kept").get_by_role(
            "button", name=re.compile("keep$")
        )
        if text != listing:
            press(page, record.first)
        expect(page.get_by_text("Saved: 1 home kept")).to_be_visible()
        leave(page)
    table = page.get_by_role("table", name="Homes found")
    expect(table.get_by_text("not in this search")).to_have_count(2)
    if press is click_on:
        # hovering a mark says address, kind and price; a click opens it and keeps nothing
        kept = page.get_by_role("button", name=re.compile(r"Only kept \((\d+)\)")).inner_text()
        box = page.get_by_role("application", name=re.compile("Map of the home")).bounding_box()
        assert box is not None
        card = page.locator(".card")
        for dx in range(-8, 9, 2):
            page.mouse.move(box["x"] + box["width"] / 2 + dx, box["y"] + box["height"] / 2 + 1)
            page.wait_for_timeout(60)
            if card.count():
                break
        if card.count():
            expect(card).to_contain_text(re.compile(r"\$[\d,]+"))
        click_on(page, table.locator("tbody tr").nth(1))
        expect(page.get_by_role("complementary", name=re.compile("Record of"))).to_be_visible()
        expect(page.get_by_role("button", name=re.compile(r"Only kept"))).to_have_text(kept)


@HANDS
def test_land(page: Page, server: Any, press: Press) -> None:
    number = api(server, "/api/lookup?text=1221%20avocet%20street")["hits"][0]["key"]
    field = page.get_by_role("combobox", name="Which home?", exact=True)
    press(page, field) if press is click_on else tab_to(page, field)
    page.keyboard.type(number.replace("-", ""))
    expect(answers(page).first).to_contain_text(f"parcel {number}")
    page.keyboard.press("Enter") if press is press_by_keys else click_on(page, answers(page).first)
    expect(page.get_by_role("heading", name="1221 Avocet Street")).to_be_visible()
    room(page, "Comps")
    table = page.get_by_role("table", name="Homes found")
    for head in ("$/sq ft of lot", "$/acre", "Frontage", "Utilities", "Zoning"):
        expect(table.get_by_role("button", name=f"Sort by {head}", exact=True)).to_be_visible()
    lot = api(server, "/api/workups/1")["subject"]["facts"]["lot_size_square_feet"]
    part(page, "lot", press)
    type_in(page, "±15%")
    expect(sentence(page)).to_contain_text(f"{0.85 * lot:,.0f}–{1.15 * lot:,.0f}")
    leave(page)
    row = last_row(page, table)
    cells = row.get_by_role("cell").all_inner_texts()
    price, size, per = (float(re.sub(r"[^\d.]", "", c.split("\n")[0])) for c in cells[1:4])
    assert abs(price / size - per) < 0.006, "the pocket calculator agrees"
    press(page, page.get_by_role("button", name="Side by side"))
    expect(page.get_by_role("table", name="Homes side by side")).to_contain_text(
        re.compile(r"per sq ft of lot.*an acre.*Lot")
    )


@HANDS
def test_by_parcel(page: Page, server: Any, press: Press) -> None:
    open_comps(page, "630 hedgerow terrace", press)
    part(page, "^within", press)
    press(page, page.get_by_role("button", name="No limit here", exact=True))
    expect(sentence(page)).not_to_contain_text("within")  # what stands behind it moves up when it has gone
    add_criterion(page, "parcel numbers", press)
    last = 0
    for text, said in (("03-0012 to 03-0099", "03-0012 to 03-0099"), ("03", "parcels 03"), ("1 to 5", "parcels 1 to 5"),
                       ("03-0012, 03-0015, 05-0020", "03-0012, 03-0015, 05-0020")):  # fmt: skip
        field = page.get_by_role("textbox", name="Parcel numbers")
        press(page, field) if press is click_on else tab_to(page, field)
        type_in(page, text)
        expect(sentence(page)).to_contain_text(said)
        at_rest(page, 200)
        now = found(page)
        assert now >= last or "," in text, f"{text}: {now}"
        last = now


@HANDS
def test_what_failed(page: Page, server: Any, press: Press) -> None:
    table = open_comps(page, "630 hedgerow terrace", press)
    part(page, "^failed", press)
    type_in(page, "730")
    leave(page)
    add_columns(page, ["Status", "Kind"], press)
    part(page, "for sale now", press)
    before = found(page)
    press(page, page.get_by_role("checkbox", name="pending", exact=True))
    expect(sentence(page)).to_contain_text("under contract with conditions")
    for word, said in (("withdrawn", "expired or cancelled"), ("cancelled", "expired")):
        press(page, page.get_by_role("checkbox", name=word, exact=True))
        expect(sentence(page)).to_contain_text(f"{said} in the last 730 days")
    leave(page)
    at_rest(page, 200)
    assert found(page) < before
    shown = {c["status"] for c in api(server, "/api/workups/1/candidates")["candidates"]}
    assert shown <= {"Closed", "Expired", "Active", "Coming Soon", "Active Under Contract"} and "Expired" in shown
    # all attempts to sell the same home, with their prices, in the record
    failed = next(c for c in api(server, "/api/workups/1/candidates")["candidates"] if c["kind"] == "failed")
    press(page, table.get_by_role("button", name=failed["address"], exact=True).first)
    story = page.get_by_role("table", name="The story of this home")
    expect(story).to_contain_text("expired")
    told = api(server, f"/api/listings/{failed['listing_id']}?until=2026-10-31")["story"]
    expect(story.get_by_role("row")).to_have_count(len(told))
    row = last_row(page, story) if press is click_on else story.get_by_role("row").last
    expect(row).to_contain_text(re.compile(r"\d{4}"))
    press(page, page.get_by_role("button", name="close").first) if press is click_on else page.keyboard.press("Escape")
    # a listing that stood for long is seen to draw the mean up, and left out of it
    press(page, page.get_by_role("button", name="In figures"))
    far = (
        page.get_by_role("list", name="Far from the rest")
        .get_by_role("listitem")
        .filter(has_text="Days on market")
        .first
    )
    expect(far).to_contain_text(re.compile(r"Days on market \d+: mean of \w+( \w+)* \d+, without it \d+"))
    kind, mean, without = re.search(
        r"Days on market \d+: mean of ([a-z ]+) (\d+), without it (\d+)", far.inner_text()
    ).groups()  # type: ignore[union-attr]
    days = (
        page.get_by_role("table", name="Figures by kind")
        .locator("tbody")
        .filter(has_text=re.compile("^Days on market"))
    )
    of_kind = days.get_by_role("row").filter(has_text=kind)
    expect(of_kind.get_by_role("cell").nth(4)).to_have_text(mean)
    press(page, far.get_by_role("button", name=re.compile("^Set aside")))
    press(page, page.get_by_role("dialog").get_by_role("button").first)
    expect(of_kind.get_by_role("cell").nth(4)).to_have_text(without)
    expect(page.get_by_text("1 set aside is left out")).to_be_visible()


@HANDS
def test_the_months_figures(page: Page, server: Any, press: Press) -> None:
    press(page, page.get_by_role("link", name="Market", exact=True))
    place = page.get_by_role("combobox", name="Place", exact=True)
    press(page, place) if press is click_on else tab_to(page, place)
    page.keyboard.type("lan")
    expect(answers(page).first).to_have_text(re.compile("Lantern Hill"))
    page.keyboard.press("Enter")
    says = page.locator("p.says")
    expect(says).to_contain_text("in Lantern Hill")
    page.get_by_label("Measure", exact=True).select_option("closings")
    page.get_by_label("Second measure").select_option("median_price")
    press(page, page.get_by_role("button", name="+ condition"))
    page.get_by_label("Field", exact=True).select_option("seller")
    press(page, page.get_by_role("checkbox", name="owner"))
    press(page, page.get_by_role("button", name="Add", exact=True))
    expect(page.get_by_role("button", name="Take away: Seller is owner")).to_be_visible()
    page.get_by_label("Outside series").select_option("Demo mortgage rates")
    table = page.get_by_role("table", name="Market figures by period")
    expect(table.get_by_role("columnheader", name=re.compile("mortgage"))).to_be_visible()
    name = page.get_by_label("Name of the view")
    press(page, name) if press is click_on else tab_to(page, name)
    page.keyboard.type("Closings by the month")
    press(page, page.get_by_role("button", name="Save", exact=True))
    saved = page.get_by_role("group", name="Saved views")
    expect(saved.get_by_role("button", name="Closings by the month", exact=True)).to_have_attribute(
        "aria-current", "true"
    )
    press(page, page.get_by_role("button", name="Rename Closings by the month"))
    expect(page.get_by_label("New name of Closings by the month")).to_be_focused()
    type_in(page, "Hill closings")
    press(page, page.get_by_role("button", name="Pin Hill closings to the desk"))
    press(page, page.get_by_role("button", name="Delete Hill closings"))
    press(page, page.get_by_role("button", name="Bring it back"))
    expect(saved.get_by_role("button", name="Hill closings", exact=True)).to_be_visible()
    told = says.inner_text()
    address = page.url
    page.reload()
    expect(says).to_have_text(told)
    colleague = page.context.new_page()
    colleague.goto(address)
    expect(colleague.locator("p.says")).to_have_text(told)
    colleague.close()
    expect(page.get_by_role("button", name="Take away: Seller is owner")).to_be_visible()
    # what cannot be asked says so, and leaves chart and figures in place
    page.get_by_label("Period", exact=True).select_option("year")
    page.get_by_label("Period", exact=True).select_option("month")
    expect(table.get_by_role("row").nth(1)).to_be_visible()
    page.get_by_role("link", name="Desk", exact=True).click()
    tile = page.get_by_role("region", name="Pinned market views").get_by_role("link", name=re.compile("Hill closings"))
    expect(tile).to_contain_text(re.compile("Closings.*Lantern Hill.*by month"))


TYPED_MONEY = {"389k": 389_000, "$389,000": 389_000, "0.389m": 389_000, " 412,500 ": 412_500, "$1.2m": None}
TYPED_AREAS = {"1,520 sq ft": "1,520", "1520sf": "1,520", ".2 ac": "8,712", "1.9k": "1,900", "141 m²": "1,518"}
TYPED_RANGES = {"1500-1900": "1,500–1,900 sq ft", "1,500 to 1,900": "1,500–1,900 sq ft", "±20%": "1,360–2,040 sq ft",
                "+-300": "1,400–2,000 sq ft", "1,600+": "1,600+ sq ft", "up to 2k": "up to 2,000 sq ft", "1.5k–1.9k": "1,500–1,900 sq ft"}  # fmt: skip
TYPED_DAYS = {"10/31/25": "2025-10-31", "2025-10-31": "2025-10-31", "Oct 31, 2025": "2025-10-31", "31 October 2025": "2025-10-31",
              "1.5.2025": "2025-01-05"}  # fmt: skip

TYPED_MILES = {"half a mile": "0.5", "1/2 mi": "0.5", "¾": "0.75", "2640 ft": "0.5", "1.5 miles": "1.5", "a mile": "1"}
TYPED_SPANS = {"6 months": 180, "a year": 365, "2 weeks": 14, "90d": 90}


@HANDS
def test_slips_are_understood_or_told(page: Page, server: Any, press: Press) -> None:
    """What people type, and what is understood: never a silent blank, never a number nobody typed."""
    open_comps(page, "630 hedgerow terrace", press)

    def into(field: Locator, text: str) -> None:
        press(page, field) if press is click_on else tab_to(page, field)
        type_in(page, text)

    def state() -> Any:
        return api(server, "/api/workups/1")["state"]

    price = page.get_by_label("List", exact=True)
    for text, value in TYPED_MONEY.items():
        if value is None:
            continue
        into(price, text)
        expect(page.get_by_text(f"list price set to {value:,}")).to_be_visible()
        assert state()["list_price"] == value, text
    into(price, "cheap")
    expect(page.get_by_role("alert").filter(has_text="“cheap” is no number").first).to_be_visible()
    expect(price).to_have_value("cheap")
    assert state()["list_price"] == 412_500

    room(page, "Home")
    lot, area, built, full = (
        page.get_by_label(f"Correct {n}", exact=True) for n in ("Lot", "Living area", "Year built", "Full baths")
    )
    for text, shown in TYPED_AREAS.items():
        field = lot if "ac" in text else area
        into(field, text)
        expect(page.get_by_text(re.compile(f"set to {shown}"))).to_be_visible()
    for field, text, asks in (
        (area, "15,200", "the records say 1,700"),
        (built, "2027", "still to come"),
        (full, "2.5", "half baths are counted apart"),
        (full, "10", "unusually many"),
    ):
        before = state()["corrections"]
        into(field, text)
        expect(page.get_by_role("alert").filter(has_text=asks).first).to_be_visible()
        assert state()["corrections"] == before, "asked first"
        expect(field).to_have_value(text)
    press(page, page.get_by_role("button", name="Yes, it is so"))
    expect(page.get_by_text("full baths set to 10")).to_be_visible()
    into(area, "big")
    expect(page.get_by_role("alert").filter(has_text="“big” is no number").first).to_be_visible()
    expect(area).to_have_value("big")
    press(page, page.get_by_role("button", name="Living area: back to the records"))
    expect(page.get_by_text("living area back to the records")).to_be_visible()

    room(page, "Comps")
    for text, said in TYPED_RANGES.items():
        part(page, "sq ft$", press)
        type_in(page, text)
        expect(sentence(page)).to_contain_text(said)
        leave(page)
    for what, typed, says in (
        ("^within", TYPED_MILES, "within {} mi"),
        ("^sold ", TYPED_SPANS, "sold in the last {} days"),
    ):
        part(page, what, press)
        for text, said in typed.items():
            type_in(page, text)
            expect(sentence(page)).to_contain_text(says.format(said))
        type_in(page, "far")
        expect(page.get_by_role("alert").filter(has_text="“far” is no number").first).to_be_visible()
        leave(page)
    part(page, "sq ft$", press)
    type_in(page, "2000-1000")
    expect(page.get_by_role("alert").filter(has_text="upside down").first).to_be_visible()
    leave(page)
    add_criterion(page, "closed", press)
    for text, iso in TYPED_DAYS.items():
        field = page.get_by_label("From", exact=True)
        press(page, field) if press is click_on else tab_to(page, field)
        type_in(page, text)
        expect(sentence(page)).to_contain_text(f"closed since {dates.said(dt.date.fromisoformat(iso))}")
    field = page.get_by_label("From", exact=True)
    press(page, field) if press is click_on else tab_to(page, field)
    type_in(page, "31/31/2025")
    expect(page.get_by_role("alert").filter(has_text="is no date").first).to_be_visible()
    leave(page)
    top = page.get_by_role("combobox", name="Which home, number, workup or command?")
    press(page, top) if press is click_on else page.keyboard.press("Control+k")
    page.keyboard.type("12 High Street, Elsewhere")
    expect(page.get_by_text(re.compile("No home has the address"))).to_be_visible()
