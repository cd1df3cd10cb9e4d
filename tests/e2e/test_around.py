"""A look with nothing kept is the room of a workup's homes: walks 7 to 10, its address, a phone at the kerb."""

from __future__ import annotations

import csv
import io
import re

import openpyxl
from playwright.sync_api import Browser, Locator, Page, expect
from pypdf import PdfReader

from tests.e2e.person import at_rest, click_on, last_row

TABLE = "Homes found"


def rows(page: Page) -> Locator:
    return page.get_by_role("table", name=TABLE).locator("tbody tr:not(.subject)").filter(has=page.locator(".address"))


def sentence(page: Page) -> Locator:
    return page.locator("p.sentence")


def alone(page: Page) -> None:
    page.get_by_role("link", name="search without a home").click()
    expect(page.get_by_role("heading", name="Homes by search")).to_be_visible()
    expect(rows(page).first).to_be_visible()


def add(page: Page, typed: str) -> None:
    expect(page.locator(".v-overlay--active")).to_have_count(0)
    click_on(page, page.get_by_role("button", name="+ criterion").first)
    page.get_by_label("Part of a field’s name").fill(typed)
    page.keyboard.press("Enter")


def cells(page: Page, head: str) -> list[float]:
    """The figures of a column of the rows in sight."""
    heads = page.get_by_role("table", name=TABLE).locator("thead th")
    names = [re.sub(r"[^\w$/% ]", "", h.inner_text()).strip() for h in heads.all()]
    at = next(i for i, n in enumerate(names) if n == head or n.rstrip("0123456789 ") == head)
    texts = [r.locator("td").nth(at).inner_text().split("\n")[0] for r in rows(page).all()]
    return [float(t.replace(",", "")) for t in texts if t != "—"]


def test_half_a_minute_for_a_buyer_takes_at_most_fifteen_acts(page: Page, server) -> None:
    """Walk 7, by mouse: from the desk to the printed page; then a workup of it, the four kept."""
    acts = 0

    def act(*done: object) -> None:
        nonlocal acts
        acts += 1

    act(click_on(page, page.get_by_role("link", name="search without a home")))
    expect(rows(page).first).to_be_visible()
    tool = page.get_by_role("button", name=re.compile("freehand", re.I))
    act(click_on(page, tool))
    box = page.get_by_role("application", name=re.compile("Map of the home")).bounding_box()
    assert box is not None
    x, y = box["x"] + box["width"] / 2, box["y"] + box["height"] / 2
    page.mouse.move(x - 90, y - 120)
    page.mouse.down()
    for to in ((90, -120), (100, 60), (20, 110), (-80, 90), (-90, -110)):
        page.mouse.move(x + to[0], y + to[1], steps=6)
    act(page.mouse.up())
    expect(sentence(page)).to_contain_text("inside a drawn area")
    act(click_on(page, page.get_by_role("button", name=re.compile(r"^365 d"))))
    expect(sentence(page)).to_contain_text("sold in the last 365 days")
    act(click_on(page, page.get_by_role("button", name="+ criterion").first))
    expect(page.get_by_label("Part of a field’s name")).to_be_focused()
    page.keyboard.type("list price", delay=20)
    act(page.keyboard.press("Enter"))
    expect(page.get_by_label("From")).to_be_focused()
    page.wait_for_timeout(150)  # nobody types sooner
    page.keyboard.press("Tab")
    page.keyboard.type("480k", delay=30)
    page.keyboard.press("Enter")
    act(page.keyboard.press("Escape"))
    expect(sentence(page)).to_contain_text("480,000")
    expect(page.locator(".v-overlay--active")).to_have_count(0)
    act(click_on(page, page.get_by_role("button", name="Sort by $/sq ft", exact=True)))
    per = cells(page, "$/sq ft")
    assert len(per) > 8 and per == sorted(per, reverse=True)
    prices: dict[str, list[float]] = {}
    for row in rows(page).all()[:4]:
        act(click_on(page, row.get_by_role("checkbox")))
        kind = row.get_by_role("img").first.get_attribute("aria-label").split(",")[0]
        prices.setdefault(kind, []).append(float(row.locator("td b").first.inner_text().replace(",", "")))
    told = page.get_by_role("status", name="Figures of the ticked")
    for kind, of in prices.items():
        line = told.locator("p").filter(has_text=f"{len(of)} {kind} ticked")
        several = (f"low {min(of):,.0f}", f"mean {sum(of) / len(of):,.0f}", f"high {max(of):,.0f}")
        for words in several if len(of) > 1 else (f"{of[0]:,.0f}",):
            expect(line).to_contain_text(words)
    act(click_on(page, page.get_by_role("button", name="On paper")))
    with page.expect_download() as got:
        act(click_on(page, page.get_by_role("button", name="Print one page")))
    assert acts <= 15, acts
    pdf = PdfReader(got.value.path())
    assert len(pdf.pages) == 1 and "The 4 chosen of" in pdf.pages[0].extract_text().replace("\n", " ")

    click_on(page, rows(page).first.locator(".address"))
    panel = page.get_by_role("complementary", name=re.compile("Record of"))
    expect(panel).to_be_visible()
    expect(panel.get_by_role("table", name="The story of this home")).to_be_visible()
    ticked = panel.get_by_role("heading").first.inner_text()
    click_on(page, panel.get_by_role("button", name="Workup of this home"))
    expect(page.get_by_role("navigation", name="Rooms of the workup")).to_be_visible()
    expect(page.get_by_role("heading", name=ticked)).to_be_visible()
    expect(page.get_by_role("button", name="Only kept (3)")).to_be_visible()
    expect(sentence(page)).to_contain_text("inside a drawn area")


def test_what_was_paid_the_time_before_stands_in_the_table_and_in_the_record(page: Page, server) -> None:
    alone(page)
    click_on(page, page.get_by_role("button", name="Columns"))
    page.get_by_label("Find a field").fill("paid")
    page.get_by_role("button", name="Show Paid before").click()
    page.keyboard.press("Escape")
    click_on(page, page.get_by_role("button", name="Sort by Paid before"))
    first = rows(page).first
    expect(first).to_be_visible()
    paid = cells(page, "Paid before")
    assert paid and paid == sorted(paid, reverse=True)
    click_on(page, first.locator(".address"))
    panel = page.get_by_role("complementary", name=re.compile("Record of"))
    expect(panel.get_by_role("table", name="Prices")).to_contain_text(f"{paid[0]:,.0f}")


def test_is_this_ask_too_high(page: Page, server) -> None:
    """Walk 8: a home for sale, its list price and price per sq ft beside lowest, mean and highest sold around it."""
    alone(page)
    click_on(page, rows(page).filter(has=page.get_by_role("img", name="for sale")).first.locator(".address"))
    panel = page.get_by_role("complementary", name=re.compile("Record of"))
    name = panel.get_by_role("heading").first.inner_text()
    click_on(page, panel.get_by_role("button", name="around it"))
    expect(page.get_by_role("heading", name=name)).to_be_visible()
    offered = page.get_by_text(re.compile(r"offered at [\d,]+, [\d.]+ per sq ft"))
    ask = float(re.search(r"at ([\d,]+)", offered.inner_text())[1].replace(",", ""))
    click_on(page, rows(page).first.get_by_role("checkbox"))
    page.keyboard.press("f")  # keys go on after the mouse
    figures = page.get_by_role("table", name="Figures by kind")
    head = figures.get_by_role("rowgroup").filter(has_text="Price paid or asked").first
    expect(head).to_contain_text(f"this home {ask:,.0f}")
    line = head.get_by_role("row").filter(has_text=re.compile(r"^\s*sold")).first.inner_text().split()
    low, mean, high = (float(line[i].replace(",", "")) for i in (2, 4, 7))
    assert low <= mean <= high
    pct = 100 * (ask - mean) / mean
    expect(head).to_contain_text(f"{abs(pct):.1f} % {'above' if pct > 0 else 'below'} the mean")
    drawn = page.get_by_role("group", name="Price against size")
    expect(drawn.get_by_role("img", name=f"This home, at {ask:,.0f}")).to_be_visible()
    mark = drawn.get_by_role("button").last
    mark.hover()
    expect(page.locator("figcaption")).to_contain_text("sq ft")
    page.keyboard.press("f")
    add(page, "pool")
    page.get_by_role("radio", name=re.compile("without|no", re.I)).or_(
        page.get_by_label("no", exact=True)
    ).first.click()
    page.keyboard.press("Escape")
    expect(sentence(page)).to_contain_text("pool")
    words = offered.inner_text()
    page.get_by_role("button", name="Make it a workup").click()
    expect(page.get_by_role("navigation", name="Rooms of the workup")).to_be_visible()
    expect(page.get_by_text(words)).to_be_visible()
    own = page.get_by_role("table", name="Homes found").get_by_role("row").filter(has_text=name).first
    expect(own).to_contain_text(f"{ask:,.0f}")


def test_no_home_at_all(page: Page, server) -> None:
    """Walk 9, by keys where they are quicker: exact beds and baths, a basement, 365 days; tick, narrow, spreadsheet."""
    alone(page)
    for field, low in (("bedrooms", "3"), ("full baths", "2")):
        add(page, field)
        expect(page.get_by_label("From")).to_be_visible()
        page.get_by_label("From").fill(low)
        page.get_by_label("To", exact=True).fill(low)
        page.get_by_label("To", exact=True).press("Enter")
        page.keyboard.press("Escape")
    expect(sentence(page)).to_contain_text("3 bedrooms")
    for field in ("basement", "cooling"):
        add(page, field)
        expect(page.locator(".editor .words input").first).to_be_visible()
        for box in page.locator(".editor .words input").all()[:5]:
            box.check()
        page.keyboard.press("Escape")
        expect(page.locator(".v-overlay--active")).to_have_count(0)
        expect(sentence(page)).to_contain_text(re.compile(field))
    click_on(page, page.get_by_role("button", name=re.compile(r"^365 d")))
    expect(sentence(page)).to_contain_text("365 days")
    before = page.url
    assert all(b == 3 for b in cells(page, "Beds"))
    page.keyboard.press("Escape")
    for _ in range(3):
        page.keyboard.press("ArrowDown")
        page.keyboard.press("Space")
    expect(page.get_by_role("button", name=re.compile(r"Only ticked \(3\)"))).to_be_visible()
    page.get_by_role("button", name=re.compile("Only ticked")).click()
    expect(rows(page)).to_have_count(3)
    assert page.url != before
    page.reload()
    expect(page.get_by_role("button", name="Only ticked (3)")).to_be_visible()
    expect(sentence(page)).to_contain_text("3 bedrooms")
    page.get_by_role("button", name="On paper").click()
    with page.expect_download() as got:
        page.get_by_role("button", name="Spreadsheet").click()
    page.get_by_role("button", name="On paper").click()
    with page.expect_download() as printed:
        page.get_by_role("button", name="Print one page").click()
    assert "The 3 chosen of" in " ".join(PdfReader(printed.value.path()).pages[0].extract_text().split())
    book = openpyxl.load_workbook(io.BytesIO(got.value.path().read_bytes()))
    assert book["Homes"].max_row == 4
    page.get_by_role("button", name="Searches").click()
    page.get_by_placeholder(re.compile("name", re.I)).fill("Three and two")
    page.keyboard.press("Enter")
    expect(page.get_by_text("Saved as “Three and two”.")).to_be_visible()
    page.keyboard.press("Escape")
    page.get_by_role("link", name="Desk", exact=True).click()
    page.get_by_role("link", name="search without a home").click()
    expect(sentence(page)).not_to_contain_text("3 bedrooms")
    page.get_by_role("button", name="Searches").click()
    page.get_by_role("button", name=re.compile("Three and two")).first.click()
    expect(sentence(page)).to_contain_text("3 bedrooms")


def test_a_packet(page: Page, server) -> None:
    """Walk 10: half a mile, garage known, sorted; the packet in the order of the screen, the table as CSV."""
    field = page.get_by_role("combobox", name="Which home?", exact=True)
    field.fill("630 hedgerow terrace")
    expect(page.get_by_role("option").first).to_be_visible()
    field.press("Shift+Enter")
    expect(page.get_by_role("heading", name="630 Hedgerow Terrace")).to_be_visible()
    click_on(page, page.get_by_role("button", name="within 1 mi"))
    page.get_by_label("Miles", exact=True).fill(".5")
    page.keyboard.press("Enter")
    page.keyboard.press("Escape")
    expect(sentence(page)).to_contain_text("within 0.5 mi")
    add(page, "garage spaces")
    page.get_by_label("From").fill("1")
    page.get_by_label("To", exact=True).fill("")
    page.get_by_label("To", exact=True).press("Enter")
    page.keyboard.press("Escape")
    expect(sentence(page)).to_contain_text("1+ garage spaces")
    add(page, "basement")
    for box in page.locator(".editor .words input").all():
        if "none" not in box.locator("xpath=ancestor::label").inner_text().lower():
            box.check()
    page.keyboard.press("Escape")
    expect(sentence(page)).to_contain_text("basement")
    click_on(page, page.get_by_role("button", name="Sort by Price", exact=True))
    for row in rows(page).all()[:3]:
        click_on(page, row.get_by_role("checkbox"))
    names = [r.locator(".address").inner_text() for r in rows(page).all()[:3]]
    page.get_by_role("button", name="On paper").click()
    with page.expect_download() as got:
        page.get_by_role("button", name=re.compile("Print a packet")).click()
    pages = [p.extract_text() for p in PdfReader(got.value.path()).pages]
    assert len(pages) == 5, "three lines go under the figures"
    for n, (name, sheet) in enumerate(zip(names, pages[2:], strict=True), 1):
        assert f"{n}. {name}" in sheet.replace("\n", " ")
    assert "Listing agent" not in " ".join(pages)
    wanted = (
        "low",
        "high",
        "mean",
        "median",
        "mode",
        "The 3 chosen of",
        "first list",
        "last list",
        "sold",
        "of first",
        "all days",
    )
    assert [word for word in wanted if word not in pages[0]] == [], pages[0]
    page.get_by_role("button", name="On paper").click()
    page.get_by_label("Of which homes").select_option("found")
    with page.expect_download() as got:
        page.get_by_role("button", name="CSV").click()
    with open(got.value.path(), newline="") as f:
        table = list(csv.DictReader(f))
    assert [float(r["Price"]) for r in table] == sorted((float(r["Price"]) for r in table), reverse=True)


def test_an_unknown_place_says_so_and_back_and_a_colleague_see_the_same(page: Page, server, browser: Browser) -> None:
    alone(page)
    add(page, "named area")
    field = page.get_by_role("combobox").or_(page.get_by_label(re.compile("area", re.I))).last
    field.fill("Lantern Hill")
    expect(page.get_by_role("option", name="Lantern Hill neighbourhood")).to_be_visible()
    field.press("Enter")
    expect(sentence(page)).to_contain_text("Lantern Hill")
    page.keyboard.press("Escape")
    there = page.url
    click_on(page, page.get_by_role("button", name=re.compile(r"^90 d")))
    expect(sentence(page)).to_contain_text("sold in the last 90 days")
    page.go_back()
    expect(sentence(page)).to_contain_text("sold in the last 180 days")
    page.go_forward()
    expect(sentence(page)).to_contain_text("sold in the last 90 days")
    colleague = browser.new_page()
    colleague.goto(there)
    expect(sentence(colleague)).to_contain_text("Lantern Hill")
    expect(sentence(colleague)).to_contain_text("180 days")
    colleague.goto(f"{server.url}/around#cut-short")
    expect(sentence(colleague)).to_contain_text("Detached homes")
    colleague.goto(f"{server.url}/around?area=Nowhere+at+all")
    expect(colleague.get_by_role("alert").first).to_contain_text("There is no area")
    expect(sentence(colleague)).to_contain_text("Nowhere at all")
    colleague.close()
    last_row(page, page.get_by_role("table", name=TABLE))
    page.get_by_role("link", name="the market here").click()
    expect(page.get_by_text("Lantern Hill").first).to_be_visible()


def test_a_home_is_given_to_a_search_that_has_none(page: Page, server) -> None:
    alone(page)
    click_on(page, page.get_by_role("button", name=re.compile(r"^365 d")))
    expect(sentence(page)).to_contain_text("365 days")
    page.get_by_role("button", name="Give it a home").click()
    page.get_by_label("Address or number").fill("630 hedgerow terrace")
    expect(page.get_by_role("dialog", name="Give it a home").get_by_role("option").first).to_be_visible()
    page.keyboard.press("Enter")
    expect(page.get_by_role("heading", name="630 Hedgerow Terrace")).to_be_visible()
    expect(sentence(page)).to_contain_text("365 days")
    expect(page.get_by_role("columnheader", name=re.compile("Miles"))).to_be_visible()
    page.get_by_role("button", name="Make it a workup").click()
    expect(page.get_by_role("navigation", name="Rooms of the workup")).to_be_visible()
    expect(sentence(page)).to_contain_text("365 days")


def test_on_a_phone_at_the_kerb_one_thing_at_a_time(browser: Browser, server) -> None:
    context = browser.new_context(viewport={"width": 390, "height": 844}, has_touch=True)
    page = context.new_page()
    page.goto(f"{server.url}/around?area=Lantern+Hill")
    expect(rows(page).first).to_be_visible()
    assert page.evaluate("document.documentElement.scrollWidth") <= 390
    page.get_by_role("button", name="Map", exact=True).tap()
    expect(page.get_by_role("application", name=re.compile("Map of the home"))).to_be_visible()
    expect(rows(page).first).not_to_be_visible()
    page.get_by_role("button", name="Search", exact=True).tap()
    page.get_by_role("button", name=re.compile("^sold in the last 180")).tap()
    page.get_by_label("Days", exact=True).fill("365")
    page.keyboard.press("Enter")
    expect(sentence(page)).to_contain_text("365 days")
    page.keyboard.press("Escape")
    page.get_by_role("button", name="List", exact=True).tap()
    for row in rows(page).all()[:2]:
        row.get_by_role("checkbox").tap()
    expect(page.get_by_role("status", name="Figures of the ticked")).to_be_visible()
    rows(page).first.locator(".address").tap()
    panel = page.get_by_role("complementary", name=re.compile("Record of"))
    expect(panel).to_be_visible()
    box = panel.bounding_box()
    assert box is not None and box["width"] <= 390 and box["height"] >= 800
    panel.get_by_role("button", name="Close the record").tap()
    page.get_by_role("button", name="Figures", exact=True).tap()
    expect(page.get_by_role("table", name="Figures by kind")).to_be_visible()
    context.close()


def test_a_home_is_pointed_at_on_the_map_or_entered_by_hand(page: Page, server) -> None:
    page.get_by_role("link", name=re.compile("point at it on the map")).click()
    map_ = page.get_by_role("application", name=re.compile("Map of the home"))
    expect(map_).to_be_visible()
    at_rest(page, 200)
    box = map_.bounding_box()
    assert box is not None

    def drag(to_x: float, to_y: float, from_x: float = 0, from_y: float = 0) -> None:
        x, y = box["x"] + box["width"] / 2, box["y"] + box["height"] / 2
        page.mouse.move(x + from_x, y + from_y)
        page.mouse.down()
        page.mouse.move(x + to_x / 2, y + to_y / 2, steps=3)
        page.mouse.move(x + to_x, y + to_y, steps=3)
        page.mouse.up()

    drag(-120, -90)
    expect(page.get_by_role("heading", name=re.compile("by hand"))).to_be_visible()
    page.get_by_label("Address").fill("9 Sample Hollow")
    page.get_by_role("button", name="Begin with it").click()
    expect(page.get_by_role("heading", name="9 Sample Hollow")).to_be_visible()
    area = page.get_by_label("Correct Living area")
    area.fill("1,800")
    area.press("Enter")
    expect(page.get_by_text("Saved: living area set to 1,800")).to_be_visible()
    page.get_by_role("navigation", name="Rooms of the workup").get_by_role("link", name=re.compile("^Comps")).click()
    page.get_by_role("button", name=re.compile("most alike")).click()
    expect(page.get_by_label("Price rail")).to_contain_text("Indicated")
    page.reload()
    expect(page.get_by_role("heading", name="9 Sample Hollow")).to_be_visible()
