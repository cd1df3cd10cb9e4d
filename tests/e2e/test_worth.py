"""Worth: the ask at a list price, net proceeds, and how close the method would have come."""

from __future__ import annotations

import re

import httpx
from playwright.sync_api import Page, expect

from tests.e2e.person import click_on, press_by_keys
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
    expect(page.get_by_role("heading", name=re.compile(r"The ask at \$374,900"))).to_be_visible()
    sentence = page.get_by_label("Sentence of recommendation")
    expect(sentence).to_have_value(
        re.compile(
            r"A list price of \$374,900 stands .* above it; the chance of a contract within 30 days .* is [0-9]+ %"
        )
    )
    # rail, sentence and table say one and the same figure
    table = page.get_by_role("table", name="Chance of a contract by list price")
    expect(table.get_by_role("row")).to_have_count(6)
    rail = page.get_by_label("Price rail")
    expect(rail).to_contain_text(re.compile(r"contract within 30 days: \d+ %"))
    said = re.search(r"within 30 days at that price is (\d+) %", sentence.input_value())[1]
    expect(rail).to_contain_text(f"contract within 30 days: {said} %")
    expect(table.get_by_role("row", name=re.compile("374,900"))).to_contain_text(f"{said} %")
    page.get_by_text("What became of homes offered around here").click()
    became = page.get_by_role("table", name="What became of homes offered around here")
    expect(became.get_by_role("row")).to_have_count(6)
    expect(page.get_by_text(re.compile("below the highest sold comp"))).to_be_visible()
    ladder = page.get_by_role("table", name="Homes for sale now, by price")
    expect(ladder.get_by_role("row", name=re.compile("This home 374,900"))).to_be_visible()

    # dearer: the sentence and the place on the ladder follow; the agent's own words stay
    page.get_by_label("List", exact=True).fill("450,000")
    page.get_by_label("List", exact=True).press("Enter")
    expect(sentence).to_have_value(re.compile(r"A list price of \$450,000"))
    sentence.fill("We start at 450,000 and look again in two weeks.")
    sentence.press("Tab")
    expect(page.get_by_text("In your own words.")).to_be_visible()
    page.reload()
    expect(sentence).to_have_value("We start at 450,000 and look again in two weeks.")
    page.get_by_role("button", name="back to the written one").click()
    expect(sentence).to_have_value(re.compile(r"A list price of \$450,000"))


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
    page.get_by_label("Closing, scenario 1", exact=True).fill("12/31/2026")
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


def test_a_rate_opens_to_its_sales_and_another_figure_is_taken(page: Page, server) -> None:
    priced(page)
    page.get_by_role("button", name="Living area").click()
    dialog = page.get_by_role("dialog", name="Evidence for Living area")
    expect(dialog.get_by_role("img", name=re.compile("Sales around here"))).to_be_visible()
    figures = dialog.get_by_role("table", name="Figures that may be used")
    expect(figures.get_by_role("row")).to_have_count(4)
    expect(
        dialog.get_by_role("img", name=re.compile(r"^From .* sq ft, this home would be worth .* to "))
    ).to_be_visible()
    expect(figures.get_by_role("row", name=re.compile("Sales around here .* in use"))).to_be_visible()
    expect(dialog.get_by_role("table", name="Pairs of sales").get_by_role("row").nth(1)).to_be_visible()
    dialog.get_by_role("button", name="Use House rule").click()
    expect(figures.get_by_role("row", name=re.compile("House rule .* in use"))).to_be_visible()
    dialog.get_by_role("button", name="back to the evidence").click()
    expect(figures.get_by_role("row", name=re.compile("Sales around here .* in use"))).to_be_visible()
    page.keyboard.press("Escape")
    expect(dialog).to_be_hidden()
    page.get_by_role("button", name="Market change", exact=True).click()
    expect(page.get_by_role("img", name=re.compile("Prices by quarter"))).to_be_visible()
    page.keyboard.press("Escape")
    page.get_by_role("button", name="Location", exact=True).click()
    expect(page.get_by_role("img", name=re.compile("What spots around the home are worth"))).to_be_visible()
    told = page.get_by_role("list", name="Sales that tell what spots are worth")
    expect(told.get_by_role("listitem")).to_have_count(120)
    expect(told.get_by_role("listitem").first).to_contain_text("+")
    page.keyboard.press("Escape")


def test_weights_are_set_and_columns_moved_by_keys(page: Page, server) -> None:
    priced(page)
    heads = page.get_by_role("table", name="Adjustment grid").locator("th.comp")
    first, second = heads.nth(0).inner_text(), heads.nth(1).inner_text()
    weight = page.get_by_label(re.compile("^Weight of .*, percent")).first
    weight.fill("50")
    weight.press("Enter")
    expect(page.get_by_text(re.compile("Saved: weight of .* set to 50.0 %"))).to_be_visible()
    expect(page.locator(".says.stale")).to_have_count(0)
    shares = [float(w.input_value()) for w in page.get_by_label(re.compile("^Weight of .*, percent")).all()]
    assert shares[0] == 50.0 and abs(sum(shares) - 100) < 0.6
    weight.fill("130")
    weight.press("Enter")
    expect(page.get_by_role("alert").first).to_contain_text("A weight is a share")
    page.get_by_role("button", name=re.compile("^Weight of .*: back to the formula")).click()
    expect(page.get_by_text(re.compile("left to the formula"))).to_be_visible()
    model = page.get_by_label("Weight of the model, percent")
    expect(model).to_have_value(re.compile(r"^([2-4]\d\.\d|50\.0)$"))  # a fifth to a half, by the formula again
    model.fill("0")
    model.press("Enter")
    expect(page.get_by_text("Saved: weight of the model set to 0.0 %")).to_be_visible()
    expect(page.locator(".says.stale")).to_have_count(0)
    shares = [float(w.input_value()) for w in page.get_by_label(re.compile("^Weight of .*, percent")).all()]
    assert float(model.input_value()) == 0 and abs(sum(shares) - 100) < 0.01
    page.get_by_role("button", name=re.compile("what makes the weight of")).first.click()
    factors = page.get_by_role("table", name=re.compile("^What makes the weight of"))
    expect(factors.get_by_role("row")).to_have_count(6)
    expect(factors).to_contain_text(re.compile(r"\d+ of 100 alike.*×"))
    page.keyboard.press("Escape")
    expect(factors).to_be_hidden()
    heads.nth(0).focus()
    page.keyboard.press("Alt+ArrowRight")
    expect(page.get_by_text("Saved: comps put in another order")).to_be_visible()
    expect(heads.nth(0)).to_have_text(second, use_inner_text=True)
    expect(heads.nth(1)).to_have_text(first, use_inner_text=True)


def test_an_appraisers_questions_and_everything_on_one_scale(page: Page, server) -> None:
    priced(page)
    asks = page.get_by_role("region", name=re.compile("What an appraiser would ask"))
    expect(asks).to_contain_text(re.compile(r"\d+ in order"))
    scale = page.get_by_role("group", name=re.compile("Comps, ways to the number"))
    expect(scale.get_by_role("button")).not_to_have_count(0)
    scale.get_by_role("button", name=re.compile("corrected for size")).click()
    expect(page.get_by_text(re.compile(r"its sq ft\)\^0\.\d\d ="))).to_be_visible()
    page.get_by_label("List", exact=True).fill("800,000")
    page.get_by_label("List", exact=True).press("Enter")
    expect(asks).to_contain_text("List price against the sales.")
    expect(asks).to_contain_text("show what makes this home worth more than every sale")


def test_a_figure_opens_to_its_rule_and_its_steps_with_the_figures_filled_in(page: Page) -> None:
    priced(page)
    rail = page.get_by_label("Price rail")
    for name, says in (
        ("the indicated value", re.compile(r"Indicated value: \$\d.*The model.*% × .*to the nearest 100", re.S)),
        ("the range", re.compile(r"Likely range: \$\d.*By past sales.*High.*the range holds 80 %", re.S)),
        ("the chance of a contract", re.compile(r"at \$374,900: \d+ % within 30 days.*Within 90 days", re.S)),
    ):
        click_on(page, rail.get_by_role("button", name=f"how {name} is worked out"))
        told = page.get_by_role("dialog", name=f"How {name} is worked out")
        expect(told).to_have_text(says)
        page.keyboard.press("Escape")
        expect(told).to_have_count(0)
    shown = rail.get_by_role("button", name="how the indicated value is worked out").locator("b").inner_text()
    grid = page.get_by_role("table", name="Adjustment grid")
    for figure in ("adjusted price", "net and gross"):
        button = grid.get_by_role("button", name=re.compile(f"how {figure} of")).first
        press_by_keys(page, button)
        told = page.get_by_role("dialog", name=re.compile(f"^How {figure} of"))
        expect(told).to_contain_text(button.inner_text().partition(":")[0].strip())
        page.keyboard.press("Escape")
        expect(told).to_have_count(0)
    room(page, "Comps")
    page.get_by_role("table", name="Homes found").locator("tbody tr").nth(1).click()
    record = page.get_by_role("complementary", name=re.compile("Record of"))
    press_by_keys(page, record.get_by_text("How these are worked out"))
    expect(record).to_contain_text(re.compile(r"÷ [\d,]+ sq ft = [\d.]+"))
    expect(record).to_contain_text(re.compile(r"Days\s*from \w{3} \d+, \d{4}, when it came on, to"))
    page.keyboard.press("Escape")
    expect(rail).to_contain_text(shown)
    page.get_by_role("link", name="Market", exact=True).click()
    figures = page.get_by_role("table", name="Market figures by period")
    click_on(page, figures.get_by_role("row").nth(2).get_by_role("button").first)
    expect(page.get_by_role("dialog").get_by_label("How it was worked out")).to_contain_text("the middle one of")
