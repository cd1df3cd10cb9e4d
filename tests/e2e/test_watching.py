"""A search and a view are watched: what comes in stands on the desk, is looked at, and goes."""

from __future__ import annotations

import re

from playwright.sync_api import Page, expect

from rain_porch.app.records import Records
from rain_porch.records.importing import import_file
from tests.conftest import NOW
from tests.e2e.conftest import Server
from tests.e2e.person import click_on


def bring(server: Server, tmp_path, *lines: str) -> None:
    file = tmp_path / "more.csv"
    head = "ListingId,StandardStatus,UnparsedAddress,City,PropertySubType,LivingArea,ListPrice,OnMarketDate,Latitude,Longitude\n"
    file.write_text(head + "".join(f"{line}\n" for line in lines))
    held = Records(server.folder)
    with held.connection() as db:
        import_file(db, file, folder=server.folder, now=NOW, source="More")
    held.close()


def test_what_is_new_in_a_search_and_a_view_stands_on_the_desk_until_it_is_seen(
    page: Page, server: Server, tmp_path
) -> None:
    home = page.get_by_role("combobox", name="Which home?", exact=True)
    home.fill("630 hedgerow terrace")
    expect(page.get_by_role("option").first).to_contain_text("630 Hedgerow Terrace")
    home.press("Shift+Enter")
    expect(page.get_by_role("table", name="Homes found")).to_be_visible()
    click_on(page, page.get_by_role("button", name="Searches"))
    kept = page.get_by_role("dialog", name="Saved searches")
    kept.get_by_label("Name for this search").fill("Near Hedgerow")
    kept.get_by_role("button", name="Save").click()
    kept.get_by_role("combobox", name="How often Near Hedgerow is looked at").select_option("1440")
    expect(kept.get_by_role("status")).to_have_text(
        "“Near Hedgerow” is looked at every day; what is new stands on the desk."
    )
    page.keyboard.press("Escape")
    page.get_by_role("link", name="Market", exact=True).click()
    views = page.get_by_role("group", name="Saved views")
    views.get_by_label("Name of the view").fill("All homes")
    views.get_by_role("button", name="Save").click()
    views.get_by_role("button", name="Watch All homes").click()
    expect(views.get_by_role("button", name="Watch All homes no more")).to_be_visible()
    page.get_by_role("link", name="Desk", exact=True).click()
    watched = page.get_by_role("region", name="Watched")
    expect(watched.get_by_text("nothing new")).to_have_count(2)

    bring(
        server,
        tmp_path,
        "N41,Active,41 Newcomer Row,Fennimere,Single Family Residence,1750,333000,2026-10-30,41.2076,-38.3795",
    )
    page.get_by_role("link", name="Settings", exact=True).click()
    waits = page.get_by_role("table", name="Work that waits")
    for name in ("Near Hedgerow", "All homes"):
        row = waits.get_by_role("row", name=re.compile(name))
        click_on(page, row.get_by_role("button", name="Do it now"))
        expect(row).to_contain_text("1 new on the market. No letter: No mail server is set up")
        at = row.get_by_label(re.compile("^Time of day of"))
        expect(at).to_have_value("07:00")
    at.fill("06:30")
    at.press("Enter")
    expect(row).to_contain_text("6:30 AM")
    page.get_by_role("button", name="Send a message to myself").click()
    expect(page.get_by_role("alert")).to_contain_text("No mail server is set up")

    page.get_by_role("link", name="Desk", exact=True).click()
    for _ in range(2):
        watched.get_by_role("button", name=re.compile("^What is new in .*: 1 new on the market")).first.click()
        news = page.get_by_role("dialog", name=re.compile("^New in"))
        expect(news.get_by_role("table", name="What changed")).to_contain_text("41 Newcomer Row")
        expect(news).to_contain_text("333,000")
        news.get_by_role("button", name="Seen").click()
        expect(news).to_have_count(0)
    expect(watched.get_by_text("nothing new")).to_have_count(2)
