"""Market: a view asked in its sentence, compared, smoothed, laid over itself, saved, pinned, and handed on as CSV."""

from __future__ import annotations

import csv
import re
from pathlib import Path

from playwright.sync_api import Page, expect


def test_a_view_is_asked_compared_saved_and_pinned(page: Page, server) -> None:
    page.get_by_role("link", name="Market").click()
    says = page.locator("p.says")
    expect(says).to_contain_text(
        re.compile(r"The median price of detached homes was \$[\d,]+ in the 12 months to October 2026")
    )
    table = page.get_by_role("table", name="Market figures by period")
    expect(table.get_by_role("row")).to_have_count(62)

    page.get_by_label("Measure", exact=True).select_option("months_of_supply")
    expect(says).to_contain_text("would last")
    page.get_by_label("Second measure").select_option("")
    page.get_by_label("Place", exact=True).select_option("Quarry Bend")
    page.get_by_label("Place 2").select_option("Lantern Hill")
    expect(table.get_by_role("columnheader", name="Lantern Hill")).to_be_visible()
    page.get_by_label("Smoothing").select_option("3")
    page.get_by_label("Outside series").select_option("Demo mortgage rates")
    expect(table.get_by_role("columnheader", name="Demo mortgage rates")).to_be_visible()
    with page.expect_download() as download:
        page.get_by_role("button", name="CSV").click()
    rows = list(csv.DictReader(Path(download.value.path()).read_text().splitlines()))
    assert len(rows) == 61 and set(rows[0]) >= {"period", "finished", "Quarry Bend", "Lantern Hill"}

    page.get_by_label("Name of the view").fill("Supply on both banks")
    page.get_by_role("button", name="Pin").click()
    expect(page.get_by_role("button", name="Supply on both banks", exact=True)).to_be_visible()
    page.get_by_role("link", name="Desk", exact=True).click()
    pins = page.get_by_role("region", name="Pinned market views")
    expect(pins.get_by_role("link", name=re.compile(r"Supply on both banks\s*[\d.]+"))).to_be_visible()
    pins.get_by_role("link", name=re.compile("Supply on both banks")).click()
    expect(page.get_by_label("Place 2")).to_have_value("Lantern Hill")
    page.get_by_role("button", name="Delete Supply on both banks").click()
    expect(page.get_by_role("button", name="Supply on both banks", exact=True)).to_have_count(0)


def test_years_lie_over_each_other_and_the_year_so_far_tells_all_measures(page: Page, server) -> None:
    page.get_by_role("link", name="Market").click()
    page.get_by_label("years over each other").check()
    table = page.get_by_role("table", name="Market figures by period")
    expect(table.get_by_role("row")).to_have_count(13)
    expect(table.get_by_role("columnheader", name="2025")).to_be_visible()
    page.get_by_role("button", name="the year so far").click()
    sofar = page.get_by_role("table", name="The year so far")
    expect(sofar.get_by_role("row", name=re.compile(r"^Closings \d"))).to_contain_text(re.compile(r"[+−][\d.]+ %"))
    expect(sofar.get_by_role("row")).to_have_count(27)
