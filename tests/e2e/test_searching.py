"""Comps: the search reshaped in its sentence and on the map; every limit opens, tells its counts and can be let go."""

from __future__ import annotations

import json
import re

import pytest
from playwright.sync_api import Page, Request, Route, expect

from tests.e2e.person import at_rest, click_on, point_at
from tests.e2e.test_evening import find_home, room


@pytest.fixture
def comps(page: Page) -> Page:
    find_home(page, "630 hedgerow terrace")
    room(page, "Comps")
    expect(sentence(page)).to_contain_text("Detached homes within 1 mi")
    return page


def sentence(page: Page):
    return page.locator("p.sentence")


def add(page: Page, typed: str) -> None:
    expect(page.locator(".v-overlay--active")).to_have_count(0)  # what was open before has closed
    page.get_by_role("button", name="+ criterion").first.click()
    page.get_by_label("Part of a field’s name").fill(typed)
    page.get_by_label("Part of a field’s name").press("Enter")


def test_what_was_pressed_is_taken_though_it_moves_away_under_the_pointer(comps: Page) -> None:
    page = comps
    click_on(page, page.get_by_role("button", name=re.compile("sq ft")).first)
    click_on(page, page.get_by_label("From"))
    page.keyboard.press("Control+a")
    page.keyboard.type("9,000")  # past the other end: that it is, is told once the field is left, above what is pressed
    point_at(page, page.get_by_role("button", name="No limit here", exact=True))
    page.mouse.down()
    expect(page.get_by_role("dialog", name="Living area").get_by_role("alert")).to_be_visible()
    page.mouse.up()
    expect(sentence(page)).not_to_contain_text("sq ft")
    expect(page.locator(".v-overlay--active")).to_have_count(0)
    page.keyboard.press("Control+z")
    expect(sentence(page)).to_contain_text("sq ft")
    at_rest(page)
    expect(page.locator(".v-overlay--active")).to_have_count(0)  # what comes back does not open by itself


def test_fields_are_added_by_typing_part_of_their_name(comps: Page) -> None:
    page = comps
    add(page, "garage")
    expect(sentence(page)).to_contain_text("2 garage spaces")
    page.keyboard.press("Escape")
    add(page, "garage")  # what is in the search already is opened there, and nothing else
    expect(page.get_by_label("From")).to_be_focused()
    expect(page.locator(".v-overlay--active")).to_have_count(1)
    page.keyboard.type("3")  # typed over what stood there, past the other end, which is typed next
    page.keyboard.press("Tab")
    at_rest(page)
    expect(page.get_by_role("alert")).to_have_count(0)
    page.keyboard.type("4")
    page.keyboard.press("Enter")
    expect(sentence(page)).to_contain_text("3–4 garage spaces")
    page.get_by_label("From").fill("5")
    page.get_by_label("From").press("Enter")
    expect(page.get_by_role("alert").last).to_contain_text("5 to 4 is upside down; swap the two")
    page.get_by_label("From").fill("6")
    page.keyboard.press("Tab")
    page.keyboard.press("Tab")  # both are left so
    expect(page.get_by_role("alert").last).to_contain_text("6 to 4 is upside down; swap the two")
    page.get_by_label("To", exact=True).fill("2")
    page.get_by_label("To", exact=True).press("Enter")
    page.get_by_label("From").fill("1")
    page.get_by_label("From").press("Enter")
    expect(sentence(page)).to_contain_text("1–2 garage spaces")
    page.get_by_label("To", exact=True).fill("")
    page.get_by_role("button", name="only 1", exact=True).click()
    expect(sentence(page)).to_contain_text("1 garage space")
    expect(sentence(page)).not_to_contain_text("1–2")
    page.get_by_label("From").fill("=2")
    page.get_by_label("From").press("Enter")
    expect(sentence(page)).to_contain_text("2 garage spaces")
    page.get_by_label("From").fill("1-2")
    page.get_by_label("From").press("Enter")
    expect(sentence(page)).to_contain_text("1–2 garage spaces")
    page.get_by_label("must be known").check()
    expect(sentence(page)).to_contain_text("1–2 garage spaces, known")
    page.get_by_role("button", name="No limit here", exact=True).click()
    expect(sentence(page)).not_to_contain_text("garage")

    add(page, "remarks")
    page.get_by_label("Words to look for, any of them").fill("garden, porch")
    page.get_by_label("Words to look for, any of them").press("Enter")
    expect(sentence(page)).to_contain_text("“garden” or “porch” in the remarks")
    page.keyboard.press("Escape")

    add(page, "style")
    page.locator(".words input").first.check()
    expect(sentence(page)).to_contain_text(re.compile("style"))
    page.keyboard.press("Escape")
    page.get_by_role("button", name="+ criterion").first.click()
    page.get_by_role("button", name="Match everything", exact=True).click()
    expect(sentence(page)).to_contain_text("4 bedrooms")
    page.get_by_role("button", name="+ criterion").first.click()
    page.get_by_role("button", name="Start again from the proposed search", exact=True).click()
    expect(sentence(page)).not_to_contain_text("bedrooms")


def test_kinds_of_record_have_windows_of_their_own(comps: Page) -> None:
    page = comps
    page.get_by_role("button", name=re.compile("for sale now")).click()
    page.get_by_role("checkbox", name="deed sale").check()
    expect(sentence(page)).to_contain_text("sold by deed in the last 180 days")
    page.get_by_label("failed since").fill("1/1/26")
    page.get_by_label("failed since").press("Enter")
    expect(sentence(page)).to_contain_text("failed since Jan 1, 2026")
    page.get_by_label("failed until").fill("1/31/26")
    page.get_by_label("failed until").press("Enter")
    expect(sentence(page)).to_contain_text("Jan 31, 2026")
    page.get_by_label("failed since").fill("3/1/26")  # past the other end, which is typed next
    page.get_by_label("failed since").press("Tab")
    at_rest(page)
    expect(page.get_by_role("alert")).to_have_count(0)
    page.keyboard.type("3/31/26")
    page.keyboard.press("Enter")
    expect(sentence(page)).to_contain_text(re.compile("Mar 1.* Mar 31, 2026"))
    page.get_by_label("failed until").fill("Jan 1, 2025")
    page.get_by_label("failed until").press("Enter")
    expect(page.get_by_role("alert").last).to_contain_text("end before they start")


def test_counts_of_a_typed_search_do_not_wait_for_what_it_finds_and_go_where_it_is_refused(comps: Page) -> None:
    page, counts = comps, comps.locator("p.counts").first.locator("b")
    was = counts.all_inner_texts()
    held: list[Route] = []
    page.route("**/changes", lambda route: held.append(route))

    page.get_by_role("button", name="within 1 mi").first.click()
    miles = page.get_by_label("Miles", exact=True)
    miles.fill("2")
    miles.press("Enter")
    expect(counts).not_to_have_text(was)
    expect(sentence(page)).to_contain_text("within 2 mi")
    shown = counts.all_inner_texts()
    with page.expect_response("**/candidates"):
        held.pop().continue_()
    expect(page.get_by_text("Saved: search changed")).to_be_visible()
    expect(counts).to_have_text(shown)  # what it finds tells the same
    miles.fill("3")
    miles.press("Enter")
    expect(counts).not_to_have_text(shown)
    held.pop().fulfill(status=422, json={"message": "Not so far.", "field": "search"})
    expect(page.get_by_text("Not so far.").first).to_be_visible()
    expect(sentence(page)).to_contain_text("within 2 mi")
    expect(counts).to_have_text(shown)


def test_areas_fences_and_shapes_limit_the_place(comps: Page) -> None:
    page = comps
    add(page, "across a highway")
    page.get_by_role("button", name="not across it", exact=True).nth(1).click()
    expect(sentence(page)).to_contain_text(re.compile("not across .* River"))
    expect(page.get_by_text(re.compile(r"no limit: [\d,]+ sold"))).to_be_visible()
    page.keyboard.press("Escape")

    add(page, "in a named area")
    name = page.get_by_label("Name of an area, subdivision, city or postal code")
    name.fill("Atlantis")
    name.press("Enter")
    expect(page.get_by_role("alert").last).to_contain_text("No place of the records is called “Atlantis”")
    name.fill("Quarry*")
    name.press("Enter")
    expect(sentence(page)).to_contain_text("in Quarry*")
    page.keyboard.press("Escape")

    # a rectangle on the map, then not in it
    box = page.get_by_role("application", name=re.compile("Map of the home")).bounding_box()
    assert box is not None
    page.get_by_role("button", name=re.compile("Draw a rectangle")).click()
    x, y = box["x"] + box["width"] / 2, box["y"] + box["height"] / 2
    page.mouse.click(x - 60, y - 60)
    page.mouse.move(x + 20, y + 30)
    page.mouse.click(x + 60, y + 50)
    expect(sentence(page)).to_contain_text("inside a drawn area")
    page.get_by_role("button", name="inside a drawn area").click()
    page.get_by_role("button", name="inside", exact=True).click()
    expect(sentence(page)).to_contain_text("not in a drawn area")
    page.keyboard.press("Escape")
    page.keyboard.press("z")
    expect(sentence(page)).to_contain_text("inside a drawn area")
    page.reload()
    expect(sentence(page)).to_contain_text("inside a drawn area")


def rectangle(page: Page) -> list[tuple[float, float]]:
    """Draws one in the middle of the map: its corners on the screen, the first of them first."""
    box = page.get_by_role("application", name=re.compile("Map of the home")).bounding_box()
    assert box is not None
    x, y = box["x"] + box["width"] / 2, box["y"] + box["height"] / 2
    page.get_by_role("button", name=re.compile("Draw a rectangle")).click()
    page.mouse.click(x - 90, y - 60)
    page.mouse.move(x, y)
    page.mouse.click(x + 80, y + 70)
    return [(x - 90, y - 60), (x + 80, y - 60), (x + 80, y + 70), (x - 90, y + 70)]


def test_a_dragged_corner_takes_no_other_with_it(comps: Page) -> None:
    page = comps
    with page.expect_request(with_a_shape) as asked:
        corners = rectangle(page)
    before = drawn(asked.value)
    assert len(before) == 4
    expect(sentence(page)).to_contain_text("inside a drawn area")

    for corner in corners:
        page.mouse.move(*corner)
        page.mouse.down()
        page.mouse.move(corner[0] + 10, corner[1] + 8, steps=4)
        with page.expect_request(with_a_shape) as asked:
            page.mouse.up()
        after = drawn(asked.value)
        assert len(after) == len(before)
        assert sum(was not in after for was in before) == 1
        before = after  # and on to the next at once: the answer to this one comes while that is dragged


def test_a_corner_under_a_resting_pointer_is_taken_up_whatever_came_meanwhile(comps: Page) -> None:
    page, held = comps, list[Route]()
    page.route("**/changes", lambda route: held.append(route))
    with page.expect_request(with_a_shape) as asked:
        corner = rectangle(page)[0]
    before = drawn(asked.value)
    page.mouse.move(*corner)
    held.pop().continue_()
    page.unroute("**/changes")
    expect(page.get_by_text("Saved: search changed")).to_be_visible()  # the area is drawn anew, under the pointer

    for _ in range(2):  # and once more from where it was let go
        page.mouse.down()
        corner = corner[0] - 9, corner[1] - 7
        page.mouse.move(*corner, steps=4)
        with page.expect_request(with_a_shape) as asked:
            page.mouse.up()
        after = drawn(asked.value)
        assert len(after) == len(before)
        assert sum(was not in after for was in before) == 1
        before = after


def test_an_area_dragged_by_its_middle_leaves_the_others_where_they_are(comps: Page) -> None:
    page = comps
    box = page.get_by_role("application", name=re.compile("Map of the home")).bounding_box()
    assert box is not None
    x, y = box["x"] + box["width"] / 2, box["y"] + box["height"] / 2
    for left in (x - 110, x + 20):
        page.get_by_role("button", name=re.compile("Draw a rectangle")).click()
        page.mouse.click(left, y - 60)
        page.mouse.move(left + 40, y)
        with page.expect_request(with_a_shape) as asked:
            page.mouse.click(left + 80, y + 40)
        expect(page.get_by_role("button", name=re.compile("Draw a rectangle"))).not_to_have_class(re.compile(r"\bon\b"))
    expect(sentence(page)).to_contain_text("inside 2 drawn areas")
    first, second = all_drawn(asked.value)
    page.wait_for_timeout(700)  # a second click within so long belongs to the one that closed the area
    page.mouse.move(x + 60, y - 10)
    page.mouse.down()
    page.mouse.move(x + 60, y + 60, steps=4)
    with page.expect_request(with_a_shape) as asked:
        page.mouse.up()
    now = all_drawn(asked.value)
    assert now[0] == first
    assert all(abs(b[0] - a[0]) < 1e-5 and b[1] < a[1] for a, b in zip(second, now[1], strict=True)), (
        "moved down, and no further"
    )


def test_the_map_shows_the_whole_radius_wherever_it_was_left(comps: Page) -> None:
    """Also where the rounded miles are just those that were shown last while it was dragged."""
    page = comps
    box = page.get_by_role("application", name=re.compile("Map of the home")).bounding_box()
    assert box is not None
    y, edge = box["y"] + box["height"] / 2, box["x"] + box["width"] - 14
    for inwards in (24, 25, 26, 27, 28):
        was = sentence(page).inner_text()
        page.wait_for_timeout(300)  # the map has come to rest
        page.mouse.move(edge, y)
        page.mouse.down()
        page.mouse.move(edge - inwards, y, steps=4)
        page.wait_for_timeout(150)
        with page.expect_response(lambda answer: answer.request.method == "POST" and "/changes" in answer.url):
            page.mouse.up()
        page.wait_for_timeout(500)
        page.mouse.move(edge, y + 40)
        page.mouse.move(edge, y)
        expect(page.locator(".ol-viewport")).to_have_class(re.compile("ol-grab"))
        page.keyboard.press("Control+z")
        expect(sentence(page)).to_have_text(was)


def with_a_shape(request: Request) -> bool:
    return request.method != "GET" and '"points"' in (request.post_data or "")


def drawn(request: Request) -> list[list[float]]:
    """The corners of the first drawn area in a request that changes the search."""
    return all_drawn(request)[0]


def all_drawn(request: Request) -> list[list[list[float]]]:
    """The corners of each of them."""
    found = re.findall(r'"points":(\[\[.*?\]\])', request.post_data or "")
    assert found, request.post_data
    return [json.loads(points) for points in found]


def test_the_wheel_reaches_the_last_home_of_the_table(comps: Page) -> None:
    page = comps
    rows = page.get_by_role("row")
    expect(rows.last).to_be_visible()
    expect(rows.last).not_to_be_in_viewport()
    area = page.get_by_role("row").nth(2).bounding_box()
    assert area is not None
    page.mouse.move(area["x"] + 60, area["y"] + 5)
    page.mouse.wheel(0, 20_000)
    expect(rows.last).to_be_in_viewport(ratio=0.9)


def test_a_search_is_saved_and_laid_about_another_home(page: Page, server) -> None:
    find_home(page, "630 hedgerow terrace")
    room(page, "Comps")
    page.get_by_role("button", name="Searches").click()
    menu = page.get_by_role("dialog", name="Saved searches")
    menu.get_by_label("Name for this search").fill("Family homes")
    menu.get_by_role("button", name="Save").click()
    expect(menu.get_by_role("status")).to_have_text("Saved as “Family homes”.")
    page.keyboard.press("Escape")
    page.get_by_role("link", name="Desk", exact=True).click()
    find_home(page, "209 drumlin terrace")
    room(page, "Comps")
    page.get_by_role("button", name="Searches").click()
    menu.get_by_role("button", name="Take Family homes", exact=True).click()
    expect(menu.get_by_role("status")).to_contain_text("“Family homes” laid about this home.")
    expect(page.get_by_text("Saved: search changed")).to_be_visible()
    menu.get_by_role("button", name="Take Family homes away").click()
    expect(menu.get_by_text("None yet.")).to_be_visible()


def test_columns_are_chosen_and_rows_sorted_by_two_of_them(page: Page, server) -> None:
    find_home(page, "630 hedgerow terrace")
    room(page, "Comps")
    table = page.get_by_role("table", name="Homes found")
    page.get_by_role("button", name="Columns").click()
    menu = page.get_by_role("dialog", name="Columns of the table")
    menu.get_by_label("Find a field").fill("storeys")
    menu.get_by_role("button", name="Show Storeys").click()
    menu.get_by_role("button", name="Hide Miles").click()
    page.keyboard.press("Escape")
    expect(table.get_by_role("button", name="Sort by Storeys")).to_be_visible()
    expect(table.get_by_role("button", name="Sort by Miles")).to_have_count(0)
    table.get_by_role("button", name="Sort by Storeys").click()
    table.get_by_role("button", name="Sort by Price", exact=True).click(modifiers=["Shift"])
    expect(table.get_by_role("button", name="Sort by Storeys")).to_have_text("Storeys ↓1")
    expect(table.get_by_role("button", name="Sort by Price", exact=True)).to_have_text("Price ↓2")
    heads = [h.strip() for h in table.locator("thead th").all_inner_texts()]
    storeys, price = (next(i for i, h in enumerate(heads) if h.startswith(w)) for w in ("Storeys", "Price"))
    rows = [
        (float(r.locator("td").nth(storeys).inner_text().split()[0].replace("—", "-1")),
         float(r.locator("td").nth(price).inner_text().replace(",", "")))
        for r in table.locator("tbody tr[aria-selected]").all()
    ]  # fmt: skip
    assert rows == sorted(rows, reverse=True) and len(rows) > 3
    browser = page.context.browser
    assert browser is not None
    with browser.new_context(viewport={"width": 1280, "height": 800}) as elsewhere:  # the agent's other machine
        there = elsewhere.new_page()
        there.goto(page.url)
        expect(there.get_by_role("button", name="Sort by Storeys")).to_be_visible()
        there.get_by_role("button", name="Columns").click()
        there.get_by_role("button", name="back to the usual ones").click()
        expect(there.get_by_role("button", name="Sort by Miles")).to_be_visible()


def test_areas_are_drawn_and_changed_by_keys_alone(comps: Page) -> None:
    page = comps
    the_map = page.get_by_role("application", name=re.compile("Map of the home"))
    told = page.get_by_role("status").filter(has_text=re.compile("Enter"))
    page.get_by_role("button", name="Draw an area: click").press("Enter")
    expect(the_map).to_be_focused()
    for keys in (["Shift+ArrowLeft"], ["ArrowUp"] * 9, ["Shift+ArrowRight", "Shift+ArrowDown"], ["Shift+ArrowUp"]):
        for pressed in keys:
            page.keyboard.press(pressed)
        page.keyboard.press("Enter")
    expect(told).to_contain_text("Area, 4 set")
    page.keyboard.press("Enter")
    expect(sentence(page)).to_contain_text("inside a drawn area")
    page.get_by_role("button", name="inside a drawn area").click()
    part = page.get_by_text("An outline crosses itself")
    expect(part).to_be_visible()
    expect(page.get_by_text("an area of 4 corners")).to_be_visible()
    page.keyboard.press("Escape")

    # the corner that makes it cross is taken away, another moved
    the_map.focus()
    page.keyboard.press("n")
    page.keyboard.press("n")
    expect(told).to_contain_text("Corner 2 of 4")
    page.keyboard.press("Delete")
    expect(page.get_by_text("Saved: search changed")).to_be_visible()
    page.get_by_role("button", name="inside a drawn area").click()
    expect(page.get_by_text("an area of 3 corners")).to_be_visible()
    expect(part).to_have_count(0)
    page.keyboard.press("Escape")
    the_map.focus()
    page.keyboard.press("n")
    page.keyboard.press("Shift+ArrowUp")
    page.keyboard.press("Escape")
    expect(told).to_have_count(0)

    page.get_by_role("button", name=re.compile("Draw a circle")).press("Enter")
    page.keyboard.press("Enter")
    page.keyboard.press("Shift+ArrowRight")
    page.keyboard.press("Enter")
    expect(sentence(page)).to_contain_text("drawn areas")
    page.get_by_role("button", name="drawn areas").click()
    miles = page.get_by_label("Radius of circle 2 in miles")
    miles.fill("0")
    miles.press("Enter")
    expect(page.get_by_role("alert").last).to_contain_text("radius of more than 0")
    miles.fill("0.5")
    miles.press("Enter")
    expect(page.get_by_text("Saved: search changed")).to_be_visible()
    expect(miles).to_have_value("0.5")


def test_map_or_table_is_given_all_the_space(comps: Page) -> None:
    page = comps
    divider = page.get_by_role("separator", name=re.compile("Divider between map and table"))
    the_map, table = page.get_by_role("application"), page.get_by_role("table", name="Homes found")

    def widths() -> tuple[float, float]:
        boxes = the_map.bounding_box(), table.bounding_box()
        return tuple(b["width"] if b else 0.0 for b in boxes)

    before = widths()
    divider.press("ArrowRight")
    expect(divider).to_have_attribute("aria-valuenow", "31")
    assert widths()[0] > before[0] and widths()[1] < before[1]
    divider.press("Home")
    expect(divider).to_have_attribute("aria-valuenow", "0")
    assert widths()[0] == 0 and widths()[1] > before[0] + before[1] - 30
    divider.press("Enter")
    expect(divider).to_have_attribute("aria-valuenow", "27")


def test_likeness_shows_its_parts(page: Page, server) -> None:
    find_home(page, "630 hedgerow terrace")
    room(page, "Comps")
    page.get_by_role("table", name="Homes found").locator("tbody tr[aria-selected]").first.dblclick()
    panel = page.get_by_role("complementary", name=re.compile("Record of"))
    panel.get_by_text(re.compile(r"\d+ of 100 alike")).click()
    expect(panel.get_by_text("Distance", exact=True)).to_be_visible()
    expect(panel.get_by_text("Days since the sale")).to_be_visible()
