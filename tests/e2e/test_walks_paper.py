"""Walks that end on paper: what was chosen is printed, what was set aside is not, and every page can be read."""

from __future__ import annotations

import json
import re
import urllib.request
from pathlib import Path
from typing import Any

from playwright.sync_api import Page, expect
from pypdf import PdfReader, PdfWriter

from tests.pdf_text import words_on_pages
from tests.report.boxes import faults

from .looking import on_a_phone
from .person import Press, click_on, point_at, tab_to
from .test_evening import find_home, room
from .test_walks import HANDS, api


def paper(page: Page, press: Press) -> Path:
    with page.expect_download() as download:
        press(page, page.get_by_role("link", name="Download PDF"))
    return Path(download.value.path())


def words_of(file: Path) -> list[str]:
    return words_on_pages(file)


def decide(server: Any, choice: str, keys: list[str], reason: str = "") -> None:
    """What the table's keys do, asked of the service: the walk is about the paper."""
    revision = api(server, "/api/workups/1")["revision"]
    body = {
        "revision": revision,
        "change": {"change": "decide", "listing_ids": keys, "choice": choice, "reason": reason},
    }
    ask = urllib.request.Request(
        f"{server.url}/api/workups/1/changes", json.dumps(body).encode(), {"content-type": "application/json"}
    )
    urllib.request.urlopen(ask).read()


@HANDS
def test_the_evening_before_to_the_paper(page: Page, server: Any, press: Press) -> None:
    find_home(page, "630 hedgerow terrace")
    found = {
        k: [c for c in api(server, "/api/workups/1/candidates")["candidates"] if c["kind"] == k]
        for k in ("sold", "for_sale", "under_contract")
    }
    kept = [*found["sold"][:6], *found["for_sale"][:2], found["under_contract"][0]]
    aside = [found["sold"][6], found["for_sale"][2]]
    decide(server, "kept", [c["listing_id"] for c in kept])
    decide(server, "set_aside", [c["listing_id"] for c in aside], "backs on the railway")
    page.reload()
    room(page, "Paper")
    press(page, page.get_by_role("button", name=re.compile("^Long report")))
    expect(page.get_by_text("Saved: paper changed")).to_be_visible()
    file = paper(page, press)
    text = " ".join(words_of(file))
    for home in kept:
        assert home["address"] in text, home["address"]
    for home in aside:
        assert home["address"] not in text and home["listing_id"] not in text
    assert "backs on the railway" not in text and "6 homes like this one sold" in text
    n = len(api(server, "/api/workups/1/candidates")["candidates"]) - len(aside)
    assert f"The 9 chosen, of {n} found." in text and f"{n} homes were found; 9 are chosen" in text
    # the search is narrowed afterwards: the chosen stay chosen, everywhere
    room(page, "Comps")
    press(page, page.get_by_role("button", name=re.compile(r"^within 1 mi")))
    press(
        page, page.get_by_role("button", name=re.compile(r"^0\.25 mi|^¼ mi|^within 0\.25")).first
    ) if page.get_by_role("button", name=re.compile(r"^0\.25 mi|^¼ mi|^within 0\.25")).count() else page.keyboard.press(
        "Escape"
    )
    room(page, "Paper")
    again = " ".join(words_of(paper(page, press)))
    assert all(home["address"] in again for home in kept) and not any(home["address"] in again for home in aside)
    assert not faults(file.read_bytes(), 8.4)


@HANDS
def test_the_paper(page: Page, server: Any, press: Press, tmp_path: Path) -> None:
    find_home(page, "630 hedgerow terrace")
    room(page, "Comps")
    press(page, page.get_by_role("button", name=re.compile(r"Keep the \d+ most alike")))
    expect(page.get_by_text("· likely").first).to_be_visible()
    room(page, "Paper")
    writer = PdfWriter()
    for _ in range(2):
        writer.add_blank_page(width=612, height=792)
    with (tmp_path / "Our promise.pdf").open("wb") as f:
        writer.write(f)
    title, client = page.get_by_label("Title on the cover"), page.get_by_label("Prepared for")
    for field, words in ((client, "Orla Grayle"), (title, "What we would ask for it")):
        press(page, field) if press is click_on else tab_to(page, field)
        page.keyboard.type(words)
        page.keyboard.press("Tab")
    expect(page.get_by_text("Saved: paper changed")).to_be_visible()
    press(page, page.get_by_role("button", name=re.compile("^Long report")))
    page.get_by_role("combobox", name=re.compile("^The price")).select_option("blank")
    # a page of the agent's own from a file, seen before it is printed, and one that is written here
    press(page, page.get_by_text("Pages of your own: 0"))
    page.get_by_label("Add a PDF or a picture").set_input_files(tmp_path / "Our promise.pdf")
    expect(page.get_by_role("img", name="First page of Our promise")).to_be_visible()
    press(page, page.get_by_role("button", name="write a page"))
    dialog = page.get_by_role("dialog", name="Write a page")
    dialog.get_by_label("Title").fill("How I work")
    dialog.get_by_label("Words").fill("I answer within a day.\n\nI come to every showing.")
    press(page, dialog.get_by_role("button", name="Keep the page"))
    expect(page.get_by_role("region", name="The page as it will print").get_by_role("img").first).to_be_visible()
    strip = page.get_by_role("navigation", name="Pages of the report")
    own = strip.get_by_role("button", name=re.compile(r"^\d+ How I work"))
    number = int(own.inner_text().split()[0])
    place = 16 if press is click_on else number - 3
    if press is click_on:  # dragged by hand, over the last pages
        point_at(page, own)
        own.drag_to(strip.get_by_role("button", name=re.compile(r"^16 What this is")))
    else:
        for n in range(3):
            strip.get_by_role("button", name=re.compile(r"^\d+ How I work")).press("Alt+ArrowUp")
            expect(strip.get_by_role("button", name=re.compile(rf"^{number - n - 1} How I work"))).to_be_visible()
    expect(strip.get_by_role("button", name=re.compile(rf"^{place} How I work"))).to_be_visible()
    # a page that has nothing to say tells the agent why, and goes with one press
    press(page, strip.get_by_role("button", name=re.compile(r"^\d+ Net proceeds|not printed.*Net proceeds")))
    sheet = page.get_by_role("region", name="The page as it will print")
    expect(sheet).to_contain_text("“Net proceeds” is not printed")
    press(page, sheet.get_by_role("button", name="Leave this page out"))
    expect(strip.get_by_role("button", name=re.compile("Net proceeds$"))).to_have_count(1)
    # a long page is read to its last sheet
    press(page, strip.get_by_role("button", name=re.compile(r"^\d+ A sheet a home")))
    last = sheet.get_by_role("img", name=re.compile(r"sheet (\d+) of \1$"))
    expect(last).to_have_count(1)
    last.scroll_into_view_if_needed()
    assert last.evaluate("image => image.decode().then(() => image.naturalWidth)") > 500
    # of whom a page speaks
    press(page, strip.get_by_role("button", name=re.compile(r"^\d+ For sale")))
    expect(page.get_by_text(re.compile(r"Now: all \d+ found\."))).to_be_visible()
    for size in ("us-letter", "a4"):
        if size == "a4":
            press(page, page.get_by_text("You on paper: no name yet"))
            page.get_by_label("Paper size").select_option("a4")
            expect(page.get_by_label("Paper size")).to_have_value("a4")
            page.wait_for_timeout(300)
        file = paper(page, press)
        pages = words_of(file)
        text = " ".join(pages)
        assert pages[0].startswith("What we would ask for it 630 Hedgerow Terrace") and "Orla Grayle" in pages[0]
        written = text.index("How I work I answer within a day. I come to every showing.")
        if press is click_on:  # the last mention of each is its own page, after the list of contents
            assert text.rindex("The market here") < written < text.rindex("What this is, and is not")
        else:
            assert text.index("Orla Grayle") < written < text.rindex("What this is, and is not")
        assert "Indicated value" not in pages[0] and "List price" in pages[0]
        for words in ("No scenario", "No list price", "keep some", "not yet known"):
            assert words not in text
        assert len([p for p in pages if len(p) < 200]) <= 3, (
            "no page stands nearly empty, but the blank ones of the agent's own"
        )
        assert not faults(file.read_bytes(), 8.4)


def test_a_report_goes_out_again_and_two_are_compared(page: Page, server: Any) -> None:
    find_home(page, "630 hedgerow terrace")
    room(page, "Comps")
    page.get_by_role("button", name=re.compile(r"Keep the \d+ most alike")).click()
    expect(page.get_by_text("· likely").first).to_be_visible()
    price = page.get_by_label("List", exact=True)
    room(page, "Paper")
    for amount in ("349,900", "339,900"):
        price.fill(amount)
        price.press("Enter")
        expect(page.get_by_text(f"Saved: list price set to {amount}")).to_be_visible()
        page.get_by_role("button", name="Hand it over").click()
        over = page.get_by_role("dialog", name="Hand it over")
        over.get_by_label("To", exact=True).fill("Wilma Carrow")
        over.get_by_role("button", name="I hand it over myself").click()
        expect(over.get_by_role("status")).to_have_text("Kept as it is now.")
        over.get_by_role("button", name="close").click()
    page.get_by_role("button", name="Hand it over").click()
    rows = page.get_by_role("table", name="Delivered").get_by_role("row")
    expect(rows).to_have_count(3)
    rows.nth(1).get_by_role("button", name="compare").click()
    told = page.get_by_role("table", name="What changed")
    expect(told.get_by_role("row", name="List price $349,900 $339,900")).to_be_visible()
    page.keyboard.press("Escape")
    rows.nth(2).get_by_role("button", name="send again").click()
    again = page.get_by_role("dialog", name="Once more, as it was")
    again.get_by_label("To", exact=True).fill("Bram Carrow")
    again.get_by_label("E-mail").fill("bram@carrow.example")
    again.get_by_role("button", name="Send by e-mail").click()
    expect(rows).to_have_count(4)
    expect(rows.nth(1)).to_contain_text("Bram Carrow")
    expect(rows.nth(1)).to_contain_text("349,900")


def test_the_web_page_of_a_report_reads_on_a_phone(page: Page, server: Any, tmp_path: Path) -> None:
    find_home(page, "630 hedgerow terrace")
    room(page, "Comps")
    page.get_by_role("button", name=re.compile(r"Keep the \d+ most alike")).click()
    expect(page.get_by_text("· likely").first).to_be_visible()
    room(page, "Paper")
    page.get_by_role("button", name=re.compile("^Long report")).click()
    expect(page.get_by_text("Saved: paper changed")).to_be_visible()
    with page.expect_download() as download:
        page.get_by_role("link", name="web page").click()
    file = tmp_path / "report.html"
    download.value.save_as(file)
    browser = page.context.browser
    assert browser is not None
    with on_a_phone(browser, file) as opened:
        expect(opened.get_by_role("heading", level=1)).to_be_visible()
    with browser.new_context() as desk:
        opened = desk.new_page()
        opened.goto(file.as_uri())
        sheets = len(PdfReader(paper(page, click_on)).pages)
        opened.pdf(path=tmp_path / "printed.pdf", prefer_css_page_size=True)
        assert len(PdfReader(tmp_path / "printed.pdf").pages) <= sheets * 1.15 + 1, "as well as the PDF"
