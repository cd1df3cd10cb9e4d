"""The rooms of a workup, one journey each: what is typed wrong, what can be taken back, what the keys do."""

from __future__ import annotations

import re
from collections.abc import Iterator

import pytest
from playwright.sync_api import Locator, Page, expect

from tests.e2e.test_evening import find_home, room, whole

pytestmark = pytest.mark.e2e


@pytest.fixture
def workup(page: Page) -> Iterator[Page]:
    """A workup of a plain home, its most alike sales kept."""
    find_home(page, "630 hedgerow terrace")
    room(page, "Comps")
    page.get_by_role("button", name=re.compile("most alike")).click()
    expect(page.get_by_text(re.compile("Saved: .* kept"))).to_be_visible()
    yield page


def value(page: Page) -> int:
    rail = page.get_by_label("Price rail")
    expect(rail.locator("[aria-busy=true]")).to_have_count(0)
    shown = rail.locator(".first b")
    expect(shown).to_be_visible()
    return whole(shown.inner_text())


def typed(field: Locator, text: str) -> None:
    field.fill(text)
    field.press("Enter")


# --- Home


def test_facts_of_every_kind_are_corrected_and_taken_back(page: Page) -> None:
    find_home(page, "630 hedgerow terrace")
    row = page.get_by_role("row", name=re.compile("^Pool"))
    page.get_by_label("Correct Pool").select_option("yes")
    expect(page.get_by_text("Saved: pool set to yes")).to_be_visible()
    expect(row.locator("td").nth(3)).to_have_text("yes")
    typed(page.get_by_label("Correct Style"), "Bungalow")
    expect(page.get_by_text("Saved: style set to Bungalow")).to_be_visible()
    typed(page.get_by_label("Correct Living area"), "1,850")
    expect(page.get_by_text("1,850 sq ft")).to_be_visible()
    typed(page.get_by_label("Correct Living area"), "big")
    expect(page.get_by_text("“big” is no number").first).to_be_visible()
    expect(page.get_by_label("Correct Living area")).to_have_value("big")
    expect(page.get_by_text("1,850 sq ft")).to_be_visible()
    page.get_by_role("button", name="Living area: back to the records").click()
    expect(page.get_by_text("1,700 sq ft")).to_be_visible()
    expect(page.get_by_role("link", name=re.compile("2 corrected"))).to_be_visible()


def test_a_correction_of_the_size_reaches_the_value(workup: Page) -> None:
    before = value(workup)
    room(workup, "Home")
    typed(workup.get_by_label("Correct Living area"), "1,900")
    expect(workup.get_by_text("1,900 sq ft")).to_be_visible()
    expect(workup.get_by_label("Price rail").locator(".first b")).not_to_have_text(f"${before:,}")
    assert value(workup) > before
    workup.get_by_role("button", name="Undo the last change").click()
    expect(workup.get_by_label("Price rail").locator(".first b")).to_have_text(f"${before:,}")


def test_what_no_record_knows_can_be_shown_and_the_story_is_told(page: Page) -> None:
    find_home(page, "630 hedgerow terrace")
    rows = page.get_by_role("table").first.locator("tbody tr")
    expect(rows.first).to_be_visible()
    n = rows.count()
    page.get_by_role("button", name=re.compile("more facts that no record knows")).click()
    expect(page.get_by_label("Correct Above grade, finished")).to_be_visible()
    assert rows.count() > n
    page.get_by_role("button", name="Hide what nobody knows").click()
    expect(rows).to_have_count(n)
    story = page.locator("section.side")
    expect(story.get_by_text("sold", exact=True).first).to_be_visible()
    expect(story.get_by_text("listed", exact=True).first).to_be_visible()


# --- Comps


def test_what_if_counts_come_true(page: Page) -> None:
    find_home(page, "630 hedgerow terrace")
    room(page, "Comps")
    page.get_by_role("button", name="within 1 mi").click()
    told = page.get_by_text(re.compile("^within 1.25 mi:"))
    expect(told).to_be_visible()
    promised = sum(int(n.replace(",", "")) for n in re.findall(r"([\d,]+) [a-z]", told.inner_text().split(":")[1]))
    slider = page.get_by_role("slider", name="Miles from the home")
    slider.focus()
    slider.press("ArrowRight")
    expect(page.get_by_role("button", name="within 1.25 mi")).to_be_visible()
    expect(page.get_by_role("link", name=re.compile(f"Comps {promised} found"))).to_be_visible()


def test_a_part_is_let_go_and_brought_back_by_undo(page: Page) -> None:
    find_home(page, "630 hedgerow terrace")
    room(page, "Comps")
    page.get_by_role("button", name="2+ full baths").click()
    page.get_by_role("button", name="No limit here", exact=True).click()
    expect(page.get_by_role("button", name="2+ full baths")).to_have_count(0)
    page.keyboard.press("z")
    expect(page.get_by_role("button", name="2+ full baths")).to_be_visible()
    page.get_by_role("button", name="no new construction").click()
    page.get_by_role("button", name="Let new construction in", exact=True).click()
    expect(page.get_by_role("button", name="no new construction")).to_have_count(0)


def test_the_circle_is_dragged_on_the_map_and_the_sentence_follows(page: Page) -> None:
    find_home(page, "630 hedgerow terrace")
    room(page, "Comps")
    chart = page.get_by_role("application", name=re.compile("Map of the home"))
    expect(chart.locator("canvas").first).to_be_visible()
    page.wait_for_timeout(900)
    box = chart.bounding_box()
    # the handle stands on the circle's east; the circle fills the narrower side of the map less its margin
    radius = min(box["width"], box["height"]) / 2 - 14
    x, y = box["x"] + box["width"] / 2 + radius, box["y"] + box["height"] / 2
    page.mouse.move(x, y)
    page.mouse.down()
    page.mouse.move(x - radius / 2, y, steps=8)
    page.mouse.up()
    expect(page.get_by_text("Saved: search changed")).to_be_visible()
    part = page.get_by_role("button", name=re.compile("^within 0.[45]"))
    expect(part).to_be_visible()


def test_set_aside_in_ones_own_words_and_let_go_by_key(workup: Page) -> None:
    table = workup.get_by_role("table", name="Homes found")
    workup.keyboard.press("ArrowDown")
    workup.keyboard.press("x")
    own = workup.get_by_label("In your own words")
    typed(own, "backs to the railway")
    expect(table.get_by_text("set aside: backs to the railway")).to_be_visible()
    workup.keyboard.press("ArrowUp")
    workup.keyboard.press("u")
    expect(table.get_by_text("set aside: backs to the railway")).to_have_count(0)
    workup.keyboard.press("x")
    workup.keyboard.press("Escape")
    expect(workup.get_by_text(re.compile("Why set"))).to_have_count(0)


def test_a_kept_home_stays_when_the_search_no_longer_finds_it(workup: Page) -> None:
    before = value(workup)
    kept = re.search(r"(\d+) kept", workup.get_by_role("link", name=re.compile("Comps .* found")).inner_text()).group(1)
    workup.get_by_role("button", name="within 1 mi").click()
    slider = workup.get_by_role("slider", name="Miles from the home")
    slider.focus()
    for _ in range(3):
        slider.press("ArrowLeft")
    expect(workup.get_by_role("button", name="within 0.25 mi")).to_be_visible()
    workup.keyboard.press("Escape")
    workup.get_by_role("button", name=re.compile("Only kept")).click()
    expect(workup.get_by_role("table", name="Homes found").locator("tbody tr")).to_have_count(int(kept))
    assert value(workup) == before


# --- Worth


def test_a_cell_is_typed_over_and_goes_back(workup: Page) -> None:
    before = value(workup)
    room(workup, "Worth")
    grid = workup.get_by_role("table", name="Adjustment grid")
    cell = grid.get_by_label(re.compile("^Living area, ")).first
    typed(cell, "-50,000")
    expect(workup.get_by_text("Saved: adjustment set to -50,000")).to_be_visible()
    shown = workup.get_by_label("Price rail").locator(".first b")
    expect(shown).not_to_have_text(f"${before:,}")
    grid.get_by_role("button", name=re.compile("^not ")).click()
    expect(workup.get_by_text("adjustment back to the computed one")).to_be_visible()
    expect(shown).to_have_text(f"${before:,}")
    typed(cell, "much")
    expect(workup.get_by_role("alert").filter(has_text="“much” is no number").first).to_be_visible()
    assert value(workup) == before


def test_market_change_is_typed_and_absurd_rates_are_refused(workup: Page) -> None:
    room(workup, "Worth")
    rate = workup.get_by_label("Rate of Market change", exact=True)
    shown = workup.get_by_label("Price rail").locator(".first b")
    before = value(workup)
    typed(rate, "50")
    expect(workup.get_by_role("alert").filter(has_text="50 % a month makes no sense").first).to_be_visible()
    typed(rate, "2")
    expect(workup.get_by_text("market change rate set to 2")).to_be_visible()
    expect(shown).not_to_have_text(f"${before:,}")
    assert value(workup) > before
    workup.get_by_role("button", name="Rate of Market change: back to the evidence").click()
    expect(workup.get_by_text("market change rate back to the evidence")).to_be_visible()


def test_every_way_to_the_number_opens_to_its_formula(workup: Page) -> None:
    room(workup, "Worth")
    for way, words in (
        ("Median price per sq ft", "× 1,700 sq ft ="),
        ("Model", "one formula for"),
        ("Adjusted comps", "% ×"),
    ):
        workup.get_by_role("button", name=re.compile(rf"^{way}\s*\d")).click()
        formula = workup.get_by_role("status").filter(has_text=f"{way}.")
        expect(formula).to_contain_text(words)
    shown = formula.inner_text()
    assert round(whole(shown.rsplit("= ", 1)[1]), -2) == value(workup)


def test_a_list_price_per_square_foot_fills_the_total(workup: Page) -> None:
    typed(workup.get_by_label("List price per square foot"), "200")
    expect(workup.get_by_label("List", exact=True)).to_have_value("340,000")
    typed(workup.get_by_label("List", exact=True), "")
    expect(workup.get_by_text("Saved: list price left open")).to_be_visible()
    expect(workup.get_by_label("List price per square foot")).to_have_value("")
    expect(workup.get_by_role("slider", name="List price")).to_have_count(0)


# --- Paper and the list of workups


def test_paper_shows_each_page_also_before_any_comp_is_kept(page: Page) -> None:
    find_home(page, "630 hedgerow terrace")
    room(page, "Paper")
    for n, name in enumerate(("The one page", "The chosen, at a glance"), start=1):
        page.get_by_role("button", name=re.compile(f"{n} {name}")).click()
        picture = page.get_by_role("img", name=f"Page {n}: {name}").first
        expect(picture).to_be_visible()
        assert picture.evaluate("image => image.decode().then(() => image.naturalWidth)") > 600
    page.get_by_role("button", name=re.compile("3 The grid")).click()
    expect(page.get_by_role("region", name="The page as it will print")).to_contain_text("keep some in Comps")


def test_the_list_tells_where_a_workup_stands_and_deletes_it_when_asked(workup: Page, server) -> None:
    typed(workup.get_by_label("List", exact=True), "375,000")
    expect(workup.get_by_text("Saved: list price set to 375,000")).to_be_visible()
    workup.get_by_role("navigation", name="Places").get_by_role("link", name="Workups").click()
    expect(workup.get_by_text(re.compile(r"homes kept · (\$[\d,]+ indicated · )?list \$375,000"))).to_be_visible()
    workup.once("dialog", lambda d: d.dismiss())
    workup.get_by_role("button", name="Delete the workup of 630 Hedgerow Terrace").click()
    expect(workup.get_by_role("link", name="630 Hedgerow Terrace")).to_be_visible()
    workup.once("dialog", lambda d: d.accept())
    workup.get_by_role("button", name="Delete the workup of 630 Hedgerow Terrace").click()
    expect(workup.get_by_text("No workups yet.")).to_be_visible()


# --- the date


def test_a_workup_from_an_earlier_day_tells_what_happened_since_and_is_brought_up(workup: Page, server) -> None:
    now = value(workup)
    date = workup.get_by_label("as of")
    date.fill("8/31/26")
    date.press("Enter")
    expect(workup.get_by_text("Saved: date set to Aug 31, 2026")).to_be_visible()
    since = workup.get_by_role("button", name=re.compile(r"^\d+ changes since$"))
    expect(since).to_be_visible()
    count = whole(since.inner_text())
    then = value(workup)

    workup.goto(f"{server.url}/")
    row = workup.get_by_label("Open workups")
    expect(row.get_by_text(re.compile(rf"{count} changes since Aug 31, 2026, \d+ to homes kept"))).to_be_visible()
    row.get_by_role("link", name="630 Hedgerow Terrace").click()

    workup.get_by_role("button", name=re.compile("changes since")).click()
    told = workup.get_by_role("dialog")
    rows = told.get_by_role("table", name="What changed").locator("tbody tr")
    expect(rows).to_have_count(count)
    expect(told.get_by_text("your comp").first).to_be_visible()
    closed = told.get_by_role("button", name=re.compile("closed"))
    closed.click()
    expect(rows).to_have_count(whole(closed.inner_text()))
    told.get_by_role("button", name="Price it as of Oct 31, 2026").click()
    expect(told.get_by_text(f"Indicated ${now:,}; on Aug 31, 2026 it was ${then:,}.")).to_be_visible()
    told.get_by_role("button", name="Good").click()
    expect(workup.get_by_role("button", name=re.compile("changes since"))).to_have_count(0)
    assert value(workup) == now
    workup.keyboard.press("z")
    expect(workup.get_by_role("button", name=re.compile("changes since"))).to_be_visible()

    date = workup.get_by_label("as of")
    date.fill("Jan 1, 2031")
    date.press("Enter")
    expect(workup.get_by_role("alert")).to_contain_text("Jan 1, 2031 is still to come")
    expect(date).to_have_value("Aug 31, 2026")


def test_a_backup_waits_for_its_time_is_done_at_once_stopped_and_taken_away(page: Page, server) -> None:
    server.app.state.porch.schedule.start()
    page.goto(f"{server.url}/settings")
    page.get_by_role("button", name="Back up every night").click()
    table = page.get_by_role("table", name="Work that waits")
    expect(table).to_contain_text(re.compile(r"Back up everything, every day\s*at\s*due \w+ \d+, \d{4}, 2:00.AM"))
    table.get_by_role("button", name="Do it now").click()
    expect(table).to_contain_text(re.compile(r"Backed up to rain-porch-.*zip, [\d.]+ MB"))
    assert list((server.folder / "backups/daily").glob("*.zip"))
    table.get_by_role("button", name="Stop").click()
    expect(table).to_contain_text("stopped")
    table.get_by_role("button", name="Start").click()
    expect(table).to_contain_text("due")
    table.get_by_role("button", name="Take away").click()
    expect(page.get_by_text("Nothing waits.")).to_be_visible()


def test_the_most_alike_are_those_of_the_day_that_was_just_set(page: Page, server) -> None:
    """Pressed before what is found on that day has come: what another day would suggest is none of it."""
    find_home(page, "305 hedgerow terrace")
    room(page, "Comps")
    keep = page.get_by_role("button", name=re.compile(r"Keep the \d+ most alike"))
    expect(keep).to_be_visible()
    page.route("**/candidates*", lambda route: (page.wait_for_timeout(700), route.continue_()))
    day = page.get_by_label("as of")
    day.fill("1/15/2026")
    day.press("Enter")
    keep.click()
    expect(page.get_by_text(re.compile(r"Saved: \d+ homes kept"))).to_be_visible()
    number = int(re.search(r"/workups/(\d+)", page.url)[1])
    state = page.request.get(f"{server.url}/api/workups/{number}").json()["state"]
    sold = {
        c["listing_id"]
        for c in page.request.get(f"{server.url}/api/workups/{number}/candidates").json()["candidates"]
        if c["kind"] == "sold"
    }
    assert state["effective_date"] == "2026-01-15" and state["decisions"] and set(state["decisions"]) <= sold


def test_what_would_help_is_not_pressed_in_place_of_a_search_that_is_being_saved(page: Page) -> None:
    """It takes the whole search's place: one that was worked out before the last change would take that change back."""
    find_home(page, "305 hedgerow terrace")
    room(page, "Comps")
    helps = page.locator(".help").get_by_role("button")
    expect(helps).to_be_enabled()
    page.route("**/changes", lambda route: (page.wait_for_timeout(900), route.continue_()))
    page.get_by_role("button", name=re.compile("^90 d:")).click()
    expect(helps).to_be_disabled()
    expect(page.get_by_role("button", name="sold in the last 90 days")).to_be_visible()
    expect(page.get_by_text("Saved: search changed")).to_be_visible()


def test_a_value_that_is_on_its_way_is_not_told_as_missing(workup: Page) -> None:
    page = workup
    page.route("**/api/workups/*/worth*", lambda route: (page.wait_for_timeout(1500), route.continue_()))
    page.reload()
    rail = page.get_by_label("Price rail")
    expect(rail.get_by_text("Working out the value")).to_be_visible()
    expect(rail.locator("b").first).to_have_text(re.compile(r"\$\d"))
