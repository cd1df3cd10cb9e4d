"""Every view and dialog against WCAG 2 A and AA by axe-core, by day and by night; all of them at 200 %; less motion for who asks."""

from __future__ import annotations

import re
from collections.abc import Callable, Iterator
from pathlib import Path

import pytest
from playwright.sync_api import Browser, Page, expect

from tests.e2e.conftest import Server
from tests.e2e.person import at_rest
from tests.e2e.test_evening import find_home, room
from tests.e2e.test_paper import failings

AMES = Path(__file__).parent.parent / "reference/data/ames.csv"
Act = Callable[[Page], object]


def button(name: str) -> Act:
    return lambda page: page.get_by_role("button", name=re.compile(name)).first.click()


def closed(page: Page) -> None:
    page.keyboard.press("Escape")
    at_rest(page, 60)


def brought(page: Page) -> None:
    some = b"".join(AMES.read_bytes().splitlines(keepends=True)[:300])
    page.get_by_label("Bring in a file").set_input_files({"name": "ames.csv", "mimeType": "text/csv", "buffer": some})
    expect(page.get_by_role("region", name="Columns to be told")).to_be_visible()


# what is looked at, and how one gets there from the view before
IN_A_WORKUP: list[tuple[str, list[Act]]] = [
    ("home", [lambda p: room(p, "Home")]),
    ("comps", [lambda p: room(p, "Comps")]),
    ("a part of the search", [lambda p: p.locator(".sentence button, .phrase").first.click()]),
    ("columns", [closed, button("^Columns$")]),
    ("keys", [closed, button("^Keys$")]),
    ("searches", [closed, button("^Searches$")]),
    ("a record", [closed, lambda p: p.keyboard.press("ArrowDown"), lambda p: p.keyboard.press("Enter")]),
    ("why set aside", [lambda p: p.keyboard.press("x")]),
    ("two homes' pictures", [closed, closed, lambda p: p.keyboard.press("p")]),
    ("side by side", [closed, lambda p: p.keyboard.press("s")]),
    ("in figures", [lambda p: p.keyboard.press("f")]),
    ("legend", [lambda p: p.keyboard.press("l")]),
    ("worth", [closed, lambda p: room(p, "Worth")]),
    (
        "a rate",
        [
            lambda p: (
                p.get_by_role("table", name="Adjustment grid")
                .get_by_role("button", name="Living area", exact=True)
                .click()
            )
        ],
    ),
    (
        "spots",
        [
            closed,
            button("^Location$"),
            lambda p: expect(p.get_by_role("img", name=re.compile("^What spots"))).to_be_visible(),
        ],
    ),
    ("a weight", [closed, button("what makes the weight of")]),
    ("paper", [closed, lambda p: room(p, "Paper")]),
    ("the appointment", [button("^A calendar note")]),
    ("handing over", [closed, button("^Hand it over")]),
    ("links", [button("I hand it over myself"), button("^links$"), button("^Make a link$")]),
]
ELSEWHERE: list[tuple[str, list[Act]]] = [
    ("desk", [closed, lambda p: p.get_by_role("link", name="Desk", exact=True).click()]),
    ("workups", [lambda p: p.get_by_role("link", name="Workups").click()]),
    ("clients", [button("^Clients$")]),
    ("delivered", [button("^Delivered$")]),
    ("what came of workups", [button("^What came of it$")]),
    ("market", [lambda p: p.get_by_role("link", name="Market", exact=True).click()]),
    ("records", [lambda p: p.get_by_role("link", name="Records").click()]),
    ("a file on its way in", [lambda p: brought(p), button("columns are left out")]),
    (
        "what would change",
        [
            button("^See what would change"),
            lambda p: expect(p.get_by_role("button", name="Take it in")).to_be_visible(),
        ],
    ),
    ("let go", [button("^let it go")]),
    ("imports", [lambda p: p.get_by_role("link", name="Imports").click()]),
    ("conclusions", [lambda p: p.get_by_role("link", name="Conclusions").click()]),
    ("health", [lambda p: p.get_by_role("link", name="Health").click()]),
    ("settings", [lambda p: p.get_by_role("link", name="Settings").click()]),
    ("the guide", [lambda p: p.get_by_role("link", name="the guide").click()]),
    ("house rules", [lambda p: p.go_back(), lambda p: p.get_by_role("link", name="the table of house rules").click()]),
    ("homes by search", [lambda p: p.goto(p.url.split("/settings")[0] + "/around")]),
    ("pointing at a home", [lambda p: p.goto(p.url.split("/around")[0] + "/point")]),
]


def looked_over(page: Page, views: list[tuple[str, list[Act]]]) -> Iterator[str]:
    """What axe finds in each view by day, and of its colours by night, with the view's name before it."""
    for name, acts in views:
        for act in acts:
            act(page)
        at_rest(page)
        yield from (f"{name}: {fault}" for fault in failings(page))
        page.emulate_media(color_scheme="dark")
        at_rest(page, 60)
        yield from (f"{name} by night: {fault}" for fault in failings(page, ["color-contrast"]))
        page.emulate_media(color_scheme="light")


@pytest.mark.parametrize("views", [IN_A_WORKUP, ELSEWHERE], ids=["in a workup", "elsewhere"])
def test_every_view_and_dialog_can_be_read_by_everybody(page: Page, views: list[tuple[str, list[Act]]]) -> None:
    page.emulate_media(color_scheme="light", reduced_motion="reduce")  # what fades has other colours for a moment
    find_home(page, "630 hedgerow terrace")
    room(page, "Comps")
    page.get_by_role("button", name=re.compile("most alike")).click()
    expect(page.get_by_text("Saved: 12 homes kept")).to_be_visible()
    faults = [*looked_over(page, views)]
    assert not faults, "\n".join(faults)


@pytest.mark.parametrize("light", ["light", "dark"])
def test_signing_in_can_be_read_by_everybody(browser: Browser, town: Path, light: str) -> None:
    server = Server(town)
    server.is_open_here = False
    server.start()
    context = browser.new_context(viewport={"width": 1280, "height": 800}, color_scheme=light, reduced_motion="reduce")  # type: ignore[arg-type]
    page = context.new_page()
    page.goto(server.url)
    expect(page.get_by_label("Code")).to_be_focused()
    page.get_by_label("Code").fill("x")
    page.get_by_label("Name", exact=True).fill("Iris Vole")
    page.get_by_label("Password").fill("seven grey herons")
    page.keyboard.press("Enter")
    expect(page.get_by_text("This is not the code")).to_be_visible()
    faults = failings(page)
    page.get_by_label("Code").fill(server.app.state.porch.first_code)
    page.keyboard.press("Enter")
    page.get_by_role("link", name="Settings").click()
    expect(page.get_by_role("table", name="Accounts")).to_be_visible()
    page.get_by_role("button", name="Signed in as Iris Vole").click()
    at_rest(page)
    faults += failings(page)
    page.get_by_role("button", name="Change the password").click()
    at_rest(page)
    faults += failings(page)
    context.close()
    server.stop()
    assert not faults, "\n".join(faults)


def test_focus_goes_with_the_page_and_comes_back_from_a_dialog(page: Page) -> None:
    find_home(page, "630 hedgerow terrace")
    for name in ("Home", "Comps", "Worth", "Paper"):
        room(page, name)
        at_rest(page)
        assert (
            page.evaluate('document.querySelectorAll(\'[tabindex]:not([tabindex="0"]):not([tabindex="-1"])\').length')
            == 0
        )
    over = page.get_by_role("button", name="Hand it over")
    over.focus()
    page.keyboard.press("Enter")
    dialog = page.get_by_role("dialog", name="Hand it over")
    expect(dialog).to_be_visible()
    for _ in range(25):
        page.keyboard.press("Tab")
        assert page.evaluate("!!document.activeElement.closest('[role=dialog], .v-overlay')"), (
            "focus stays in the dialog"
        )
    page.keyboard.press("Escape")
    expect(dialog).to_have_count(0)
    expect(over).to_be_focused()


def test_a_bulletin_s_web_page_can_be_read_by_everybody(page: Page, server: Server) -> None:
    view = {"name": "Supply", "view": {"measures": ["months_of_supply"]}, "pinned": False}
    made = page.request.post(f"{server.url}/api/views", data=view)
    assert made.ok, made.text()
    bulletin = {"title": "November", "comment": "Quiet.", "parts": [{"view": view["view"]}]}
    made = page.request.post(f"{server.url}/api/bulletins", data=bulletin)
    assert made.ok, made.text()
    html = page.request.get(f"{server.url}/api/bulletins/{made.json()['bulletin_id']}/bulletin.html")
    assert html.ok, html.text()
    alone = page.context.new_page()
    alone.set_content(html.text())
    assert not failings(alone)


def test_a_workup_at_two_hundred_percent_is_reached_to_its_last_part(page: Page) -> None:
    page.set_viewport_size({"width": 640, "height": 400})
    page.emulate_media(reduced_motion="reduce")
    find_home(page, "630 hedgerow terrace")
    room(page, "Comps")
    page.get_by_role("button", name=re.compile("most alike")).click()
    expect(page.get_by_text("Saved: 12 homes kept")).to_be_visible()
    inside = page.locator("section.inside")
    inside.get_by_role("row").nth(6).scroll_into_view_if_needed()
    expect(inside.get_by_role("row").nth(6)).to_be_in_viewport(ratio=0.5)  # wider than the view, it scrolls
    price = page.get_by_label("List", exact=True)
    price.scroll_into_view_if_needed()
    expect(price).to_be_in_viewport(ratio=1)
    room(page, "Worth")
    cell = page.get_by_role("table", name="Adjustment grid").get_by_role("textbox").last
    cell.scroll_into_view_if_needed()
    expect(cell).to_be_in_viewport(ratio=1)
    moving = "[...document.querySelectorAll('*')].filter(e => parseFloat(getComputedStyle(e).transitionDuration) > 0.011).length"
    assert page.evaluate(moving) == 0, "nothing moves for who asks for less motion"


# controls that a person who scrolls to them could not press: beyond the page's edge, of no size, or under something else
OUT_OF_REACH = """() => [...document.querySelectorAll('a[href], button, input, select, textarea, [tabindex="0"]')].filter(e => {
  if (!e.checkVisibility({visibilityProperty: true}) || e.disabled || e.type === 'file' || e.closest('.v-overlay, [inert], canvas')) return false;
  e.scrollIntoView({block: 'center', inline: 'center'});
  const r = e.getBoundingClientRect();
  if (r.width < 2 || r.height < 2) return !e.labels || !e.labels.length;
  const x = r.x + Math.min(r.width, innerWidth) / 2, y = r.y + Math.min(r.height, innerHeight) / 2;
  const there = document.elementFromPoint(x, y);
  const own = there && (e.contains(there) || there.contains(e) || [...(e.labels || [])].some(l => l.contains(there)));
  return !own;
}).map(e => (e.getAttribute('aria-label') || e.textContent || e.name || e.outerHTML).trim().slice(0, 60))"""


def test_every_view_at_two_hundred_percent_has_each_control_in_reach(page: Page) -> None:
    find_home(page, "630 hedgerow terrace")
    page.set_viewport_size({"width": 640, "height": 400})
    faults = []
    rooms = [(name, [lambda p, name=name: room(p, name)]) for name in ("Home", "Worth", "Paper")]
    for name, acts in [*rooms, *ELSEWHERE]:
        for act in acts:
            act(page)  # type: ignore[operator]
        at_rest(page)
        faults += [f"{name}: {control}" for control in page.evaluate(OUT_OF_REACH)]
    assert not faults, "\n".join(faults)
