"""Worth: the ask at a list price, net proceeds, and how close the method would have come."""

from __future__ import annotations

import re

import httpx
from playwright.sync_api import Page, expect

from tests.e2e.test_evening import find_home, room


def priced(page: Page) -> None:
    find_home(page, "630 hedgerow terrace")
    room(page, "Comps")
    page.get_by_role("button", name=re.compile("most alike")).click()
    expect(page.get_by_text(re.compile("Saved: .* kept"))).to_be_visible()
    page.get_by_label("List", exact=True).fill("374,900")
    page.get_by_label("List", exact=True).press("Enter")
    expect(page.get_by_text("Saved: list price set to 374,900")).to_be_visible()
    room(page, "Worth")


def test_the_ask_says_what_a_list_price_means_and_follows_it(page: Page, server) -> None:
    priced(page)
    expect(page.get_by_role("heading", name=re.compile("The ask at 374,900"))).to_be_visible()
    sentence = page.get_by_label("Sentence of recommendation")
    expect(sentence).to_have_value(re.compile("A list price of 374,900 stands .* above it; of .* within 30 days"))
    table = page.get_by_role("table", name="Time against price")
    expect(table.get_by_role("row")).to_have_count(6)
    rail = page.get_by_label("Price rail")
    expect(rail).to_contain_text(re.compile(r"contract within 30 days: \d+ %"))
    expect(page.get_by_text(re.compile("below the highest sold comp"))).to_be_visible()
    ladder = page.get_by_role("table", name="Homes for sale now, by price")
    expect(ladder.get_by_role("row", name=re.compile("This home 374,900"))).to_be_visible()

    # dearer: the sentence and the place on the ladder follow; the agent's own words stay
    page.get_by_label("List", exact=True).fill("450,000")
    page.get_by_label("List", exact=True).press("Enter")
    expect(sentence).to_have_value(re.compile("A list price of 450,000"))
    sentence.fill("We start at 450,000 and look again in two weeks.")
    sentence.press("Tab")
    expect(page.get_by_text("In your own words.")).to_be_visible()
    page.reload()
    expect(sentence).to_have_value("We start at 450,000 and look again in two weeks.")
    page.get_by_role("button", name="back to the written one").click()
    expect(sentence).to_have_value(re.compile("A list price of 450,000"))


def test_net_proceeds_in_two_scenarios_to_the_cent(page: Page, server) -> None:
    priced(page)
    page.get_by_role("button", name="Work out the net proceeds").click()
    sheet = page.get_by_role("table", name="Net proceeds")
    for label, typed in (
        ("Compensation, listing side", "2.5"), ("Mortgage balance", "210,000"), ("Taxes a year", "3,650"),
        ("Title and closing", "1850.25"),
    ):  # fmt: skip
        page.get_by_label(f"{label}, scenario 1").fill(typed)
        page.get_by_label(f"{label}, scenario 1").press("Tab")
    page.get_by_label("Closing, scenario 1", exact=True).fill("2026-12-31")
    page.get_by_label("Closing, scenario 1", exact=True).press("Tab")
    # 374,900.00 − 210,000.00 − 9,372.50 − 1,850.25 − 364 × 10.00
    expect(sheet.get_by_role("row", name=re.compile("^Net proceeds"))).to_contain_text("150,037.25")
    page.get_by_role("button", name="Another scenario, 3 % lower").click()
    expect(page.get_by_label("Price, scenario 2")).to_have_value("363653")
    page.get_by_label("Compensation, buying side, scenario 2").fill("101")
    page.get_by_label("Compensation, buying side, scenario 2").press("Tab")
    expect(page.get_by_role("alert").filter(has_text=re.compile("buying_side_pct|less than or equal"))).to_be_visible()
    page.reload()
    expect(sheet.get_by_role("row", name=re.compile("^Net proceeds"))).to_contain_text("150,037.25")


def test_the_method_is_tested_on_the_last_sales_and_the_range_says_so(page: Page, server) -> None:
    priced(page)
    rail = page.get_by_label("Price rail")
    expect(rail).to_contain_text("not yet measured")
    page.get_by_role("button", name="Test it on the last 200 sales").click()
    expect(page.get_by_text(re.compile(r"\d+ of\s+[\d,]+ …"))).to_be_visible(timeout=20_000)
    page.get_by_role("button", name="stop").click()
    page.get_by_role("button", name="Test it on the last 200 sales").click()
    expect(page.get_by_text(re.compile("of the prices lay inside the range"))).to_be_visible(timeout=90_000)
    expect(page.get_by_role("img", name=re.compile("How far predictions lay"))).to_be_visible()
    expect(rail).to_contain_text("measured here")
    n = int(page.url.rstrip("/").split("/")[-2])
    shown = page.get_by_text(re.compile("Half of the last")).inner_text()
    doc = httpx.get(f"{server.url}/api/workups/{n}/backtest", timeout=10).json()["result"]
    assert f"{100 * doc['methods']['adjusted_comps']['mdape']:.1f} %" in shown and doc["subjects"] == 200
