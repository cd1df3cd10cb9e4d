"""Paper: what is on it, whose it looks like, and to whom it goes; and that people with screen readers can read it."""

from __future__ import annotations

import re
from pathlib import Path

import pytest
from PIL import Image
from playwright.sync_api import Page, expect
from pypdf import PdfReader, PdfWriter

from tests.e2e.test_evening import find_home, room
from tests.pdf_text import words_on_pages

AXE = (Path(__file__).parents[2] / "web/node_modules/axe-core/axe.min.js").read_text(encoding="utf-8")


@pytest.fixture
def paper(page: Page, server) -> Page:
    find_home(page, "630 hedgerow terrace")
    room(page, "Comps")
    page.get_by_role("button", name=re.compile("Keep the \\d+ most alike")).click()
    expect(page.get_by_text("· likely").first).to_be_visible()
    room(page, "Paper")
    expect(page.get_by_role("img", name=re.compile("^Page 1")).first).to_be_visible()
    return page


def saved(page: Page) -> None:
    expect(page.get_by_text("Saved: paper changed")).to_be_visible()


def text_of(page: Page) -> str:
    with page.expect_download() as download:
        page.get_by_role("link", name="Download PDF").click()
    return " ".join(words_on_pages(download.value.path()))


def test_pages_comments_facts_and_layouts_are_the_agents(paper: Page) -> None:
    page = paper
    page.get_by_role("button", name=re.compile("^One page")).click()
    page.get_by_role("button", name="+ The home", exact=True).click()
    page.get_by_role("button", name="+ Drive past the comps").click()
    pages = page.get_by_role("navigation", name="Pages of the report")
    pages.get_by_role("button", name=re.compile(r"^\d+ Drive past")).click()
    note = page.get_by_label("Comment on “Drive past the comps”")
    note.fill("Take the river road at dusk.")
    note.press("Tab")
    facts = page.get_by_role("list", name="Facts of the home")
    page.get_by_text("Facts of the home: as usual").click()
    facts.get_by_role("button", name="Leave out Bedrooms").click()
    expect(page.get_by_text(re.compile(r"Facts of the home: \d+ chosen"))).to_be_visible()
    facts.get_by_role("button", name="Year built up").click()
    saved(page)
    text = text_of(page)
    assert "Take the river road at dusk." in text and "A drive past the comps" in text
    home = text.split("The home ")[1].split("Its story")[0]
    assert "Year built 1974" in home and "Bedrooms " not in home

    page.get_by_label("Name of this layout").fill("River homes")
    page.get_by_role("button", name="Save", exact=True).click()
    page.get_by_role("button", name=re.compile("^One page")).click()
    expect(pages.get_by_role("button", name=re.compile(r"^\d+ Drive past"))).to_have_count(0)
    page.get_by_role("button", name="River homes", exact=True).click()
    expect(pages.get_by_role("button", name=re.compile(r"^\d+ Drive past"))).to_be_visible()
    page.get_by_role("button", name="Delete the layout River homes").click()
    expect(page.get_by_role("button", name="River homes", exact=True)).to_have_count(0)


def test_logo_colour_and_own_pages(paper: Page, tmp_path: Path) -> None:
    page = paper
    Image.new("RGB", (300, 100), "#3E6A4B").save(tmp_path / "logo.png")
    writer = PdfWriter()
    writer.add_blank_page(width=612, height=792)
    with (tmp_path / "Our promise.pdf").open("wb") as f:
        writer.write(f)
    (tmp_path / "odd.svg").write_text("<svg><script>alert(1)</script></svg>")
    page.get_by_text("You on paper: no name yet").click()
    page.get_by_label("Your name").fill("Perrin Vale")
    page.get_by_label("Your name").press("Enter")
    page.get_by_label(re.compile("^Logo")).set_input_files(tmp_path / "odd.svg")
    expect(page.get_by_role("alert")).to_contain_text("no JPEG, PNG or WebP")
    page.get_by_label(re.compile("^Logo")).set_input_files(tmp_path / "logo.png")
    expect(page.get_by_role("img", name="Logo")).to_be_visible()
    page.get_by_label("Paper size").select_option("a4")
    page.get_by_text("Pages of your own: 0").click()
    page.get_by_label("Add a PDF or a picture").set_input_files(tmp_path / "Our promise.pdf")
    pages = page.get_by_role("navigation", name="Pages of the report")
    own = pages.get_by_role("button", name=re.compile("4 Our promise$"))
    own.press("Alt+ArrowUp")
    expect(pages.get_by_role("button", name=re.compile("3 Our promise$"))).to_be_visible()
    with page.expect_download() as download:
        page.get_by_role("link", name="Download PDF").click()
    made = PdfReader(download.value.path())
    assert round(float(made.pages[0].mediabox.width)) == 595 and not made.pages[2].extract_text().strip()
    assert "Perrin Vale" in made.pages[0].extract_text()


def test_a_report_is_sent_to_a_client_and_stays_as_it_was(paper: Page, tmp_path: Path) -> None:
    page = paper
    cards = tmp_path / "people.vcf"
    cards.write_text(
        "BEGIN:VCARD\nFN:Wilma Carrow\nEMAIL:wilma@carrow.example\nEND:VCARD\nBEGIN:VCARD\nEMAIL:x\nEND:VCARD\n"
    )
    workup = page.url
    page.get_by_role("link", name="Workups", exact=True).click()
    page.get_by_role("button", name="Clients").click()
    page.get_by_label("Bring in a vCard or CSV file").set_input_files(cards)
    expect(page.get_by_role("status")).to_contain_text("1 person taken in")
    expect(page.get_by_text("Left out: 2: no name.")).to_be_visible()
    form = page.get_by_role("form", name="Client")
    form.get_by_label("Name").fill("Orla Grayle")
    form.get_by_label("E-mail").fill("orla")
    form.get_by_role("button", name="Save").click()
    expect(page.get_by_role("alert")).to_contain_text("no e-mail address")
    form.get_by_label("E-mail").fill("orla@grayle.example")
    form.get_by_role("button", name="Save").click()
    expect(page.get_by_role("table", name="Clients").get_by_role("row")).to_have_count(3)

    page.goto(workup)
    page.get_by_role("button", name="Hand it over").click()
    over = page.get_by_role("dialog")
    over.get_by_label("To", exact=True).fill("Wilma Carrow")
    expect(over.get_by_label("E-mail")).to_have_value("wilma@carrow.example")
    over.get_by_role("button", name="Send by e-mail").click()
    row = over.get_by_role("table", name="Delivered").get_by_role("row").nth(1)
    expect(row).to_contain_text("waits")
    expect(row).to_contain_text("No mail server is set up")
    with page.expect_download() as download:
        row.get_by_role("link", name="message").click()
    assert b"application/pdf" in Path(download.value.path()).read_bytes()
    over.get_by_role("button", name="close").click()
    page.get_by_label("Title on the cover").fill("Another title")
    page.get_by_role("link", name="Workups", exact=True).click()
    expect(page.get_by_text(re.compile("delivered to Wilma Carrow on"))).to_be_visible()
    page.get_by_role("button", name="Delivered").click()
    expect(page.get_by_role("table", name="Delivered").get_by_role("row").nth(1)).to_contain_text(
        "630 Hedgerow Terrace"
    )


WCAG = ["wcag2a", "wcag2aa", "wcag21a", "wcag21aa"]


def failings(page: Page, only: list[str] = WCAG) -> list[str]:
    """What axe-core finds against WCAG 2 A and AA, or by some of its rules only, as "rule: where"; where a dialog is open, in it: what
    lies behind was looked at before."""
    if not page.evaluate("!!window.axe"):
        page.evaluate("axe => (0, eval)(axe)", AXE)
    told = page.evaluate(
        "only => axe.run([...document.querySelectorAll('.v-overlay--active')].at(-1) ?? document, "
        "{runOnly: only, rules: {'label-content-name-mismatch': {enabled: true}}, resultTypes: ['violations'], preload: false})",
        only,
    )
    return [
        f"{v['id']}: {v['nodes'][0]['html'][:120]} ({v['nodes'][0]['failureSummary'][:160]})"
        for v in told["violations"]
    ]


def test_the_web_page_of_a_report_can_be_read_by_everybody_with_no_network(paper: Page, tmp_path: Path) -> None:
    page = paper
    page.get_by_role("button", name="Long report").click()
    saved(page)
    with page.expect_download() as download:
        page.get_by_role("link", name="web page").click()
    file = tmp_path / "report.html"
    file.write_bytes(Path(download.value.path()).read_bytes())
    browser = page.context.browser
    assert browser is not None
    with browser.new_context(offline=True) as alone:
        opened = alone.new_page()
        asked: list[str] = []
        opened.on("request", lambda r: asked.append(r.url) if not r.url.startswith(("file:", "data:")) else None)
        opened.goto(file.as_uri())
        expect(opened.get_by_role("heading", level=1)).to_be_visible()
        assert asked == [] and failings(opened) == []


def test_the_appointment_leaves_as_a_calendar_note(paper: Page) -> None:
    page = paper
    page.get_by_role("button", name="A calendar note").click()
    dialog = page.get_by_role("dialog", name="The appointment")
    note = dialog.get_by_role("link", name="Calendar note")
    dialog.get_by_label("Day of the appointment").fill("11/4/26")
    dialog.get_by_label("Time of the appointment").fill("half six")
    page.keyboard.press("Tab")
    expect(dialog.get_by_role("alert")).to_contain_text("is no time of day")
    dialog.get_by_label("Time of the appointment").fill("6:30 pm")
    page.keyboard.press("Tab")
    with page.expect_download() as download:
        note.click()
    text = Path(download.value.path()).read_text(encoding="utf-8")
    assert "DTSTART:20261104T183000" in text and "LOCATION:630 Hedgerow Terrace" in text
