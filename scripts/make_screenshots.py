"""Make docs/screenshots from the demo records: one PNG of each main view at 1280×800.

usage: python scripts/make_screenshots.py [FOLDER] [NAME…]   (names choose among the shots; all by default)
"""

from __future__ import annotations

import base64
import csv
import io
import os
import re
import shutil
import sys
import tempfile
from collections.abc import Callable
from pathlib import Path

import httpx
from PIL import Image
from playwright.sync_api import Page, sync_playwright
from shown_service import earlier, serve

from rain_porch.demo.town import prepare_demo
from rain_porch.standins.mail import serve_mail
from rain_porch.store.backups import copy_database

ROOT = Path(__file__).parent.parent
FLAGS = [
    "--no-sandbox", "--disable-gpu", "--disable-background-networking", "--disable-component-update", "--disable-sync",
    "--no-first-run",
]  # fmt: skip
HOME = "630 Hedgerow Ter"


def desk(page: Page, base: str) -> None:
    page.goto(base)
    page.get_by_text("on the year").nth(2).wait_for()


def since(page: Page, base: str) -> None:
    page.goto(f"{base}/workups/2/comps")
    page.get_by_role("button", name=re.compile("changes since")).click()
    page.get_by_role("table", name="What changed").wait_for()


def open_room(name: str) -> Callable[[Page, str], None]:
    def shot(page: Page, base: str) -> None:
        page.goto(f"{base}/workups/1/{name}")
        page.wait_for_load_state("networkidle")
        page.wait_for_timeout(1500)

    return shot


def place(name: str) -> Callable[[Page, str], None]:
    def shot(page: Page, base: str) -> None:
        page.goto(f"{base}/{name}")
        page.wait_for_load_state("networkidle")

    return shot


def part_opened(page: Page, base: str) -> None:
    open_room("comps")(page, base)
    page.get_by_role("button", name=re.compile("sq ft")).first.click()


def fence(page: Page, base: str) -> None:
    open_room("comps")(page, base)
    page.get_by_role("button", name="+ criterion").first.click()
    page.get_by_label("Part of a field’s name").fill("across")
    page.keyboard.press("Enter")
    page.get_by_role("button", name="not across it", exact=True).nth(1).click()
    page.wait_for_timeout(500)
    page.keyboard.press("Escape")
    page.get_by_role("button", name=re.compile("Draw an area: click")).click()
    box = page.get_by_role("application", name=re.compile("Map of the home")).bounding_box()
    assert box is not None
    x, y = box["x"] + box["width"] / 2, box["y"] + box["height"] / 2
    for dx, dy in ((-90, -110), (70, -120), (95, 10), (-40, 50)):
        page.mouse.click(x + dx, y + dy)
        page.wait_for_timeout(350)
    page.mouse.dblclick(x - 95, y + 20)
    page.get_by_role("button", name="inside a drawn area").wait_for()


def side_by_side(page: Page, base: str) -> None:
    open_room("comps")(page, base)
    page.get_by_role("button", name="Side by side").click()
    page.get_by_role("table", name="Homes side by side").wait_for()


def two_homes(page: Page, base: str) -> None:
    open_room("comps")(page, base)
    page.get_by_role("table", name="Homes found").wait_for()
    page.keyboard.press("ArrowDown")
    page.keyboard.press("p")
    page.get_by_role("dialog", name="Two homes’ pictures").wait_for()
    page.keyboard.press("ArrowRight")


def house_rules(page: Page, base: str) -> None:
    page.goto(f"{base}/settings/rules")
    page.get_by_label("Living area: weight").fill("8")
    page.keyboard.press("Tab")
    page.get_by_text("Likeness of the kept comps").wait_for()
    page.keyboard.press("Shift+Tab")


def paper(page: Page, base: str) -> None:
    open_room("paper")(page, base)
    page.get_by_role("button", name="Long report").click()
    page.wait_for_timeout(2500)

    page.get_by_role("navigation", name="Pages of the report").get_by_role(
        "button", name=re.compile("For sale")
    ).first.click()
    page.wait_for_timeout(2500)


def around(page: Page, base: str) -> None:
    """A home for sale among what sold around it, four homes ticked, in figures."""
    page.goto(f"{base}/around?kind=listing&key=BF105918")
    page.get_by_role("table", name="Homes found").wait_for()
    for box in page.get_by_role("checkbox", name=re.compile("^Tick")).all()[:4]:
        box.click()
    page.get_by_role("status", name="Figures of the ticked").wait_for()
    page.keyboard.press("f")
    page.get_by_role("group", name="Price against size").wait_for()
    page.wait_for_timeout(600)


def rate(page: Page, base: str) -> None:
    open_room("worth")(page, base)
    page.get_by_role("button", name="Living area", exact=True).click()
    page.get_by_role("table", name="Pairs of sales").wait_for()
    page.wait_for_timeout(400)


def odd_file(folder: Path) -> Path:
    """A neighbour's export: some of the town's listings under other names, with changes and faults."""
    out = folder / "Porchlight export.csv"
    with (ROOT / ".demo/files/listings.csv").open(newline="", encoding="utf-8") as f:
        rows = [r for r in csv.DictReader(f) if r["City"]][1200:1500]
    words = {"Closed": "SLD", "Active": "ACT", "Expired": "EXP", "Pending": "PND"}
    with out.open("w", newline="", encoding="cp1252") as f:
        w = csv.writer(f, delimiter=";")
        w.writerow(["List no.", "Where", "Town", "Stat", "Lot acres", "Sq Ft", "Beds", "Full Baths", "Yr Blt", "Asking price (000s)",
                    "Sold Price", "Sold Date", "Off the market", "Lat", "Long", "Colour of the door"])  # fmt: skip
        for i, r in enumerate(rows):
            lot = f"{float(r['LotSizeSquareFeet']) / 43560:.2f}" if r["LotSizeSquareFeet"] else ""
            paid = str(float(r["ClosePrice"]) + 2500 * (i % 7 == 0)) if r["ClosePrice"] else ""
            sold = "soon" if i % 61 == 5 else r["CloseDate"]
            area = "1" + r["LivingArea"] + "0" if i % 50 == 3 and r["LivingArea"] else r["LivingArea"]
            number = r["ListingId"] if i % 4 else f"PL{i:05}"
            w.writerow([number, r["UnparsedAddress"], r["City"], words.get(r["StandardStatus"], r["StandardStatus"]), lot, area,
                        r["BedroomsTotal"], r["BathroomsFull"], r["YearBuilt"], f"{float(r['ListPrice']) / 1000:g}", paid, sold,
                        r["OffMarketDate"], r["Latitude"], r["Longitude"], "blue"])  # fmt: skip
    return out


def mapping(page: Page, base: str) -> None:
    page.goto(f"{base}/records")
    with tempfile.TemporaryDirectory() as folder:
        page.get_by_label("Bring in a file").set_input_files(odd_file(Path(folder)))
        page.get_by_role("table", name="Mapping of columns to fields").wait_for()
    page.get_by_role("button", name=re.compile("words")).first.click()


def plan(page: Page, base: str) -> None:
    if "/incoming/" not in page.url:
        mapping(page, base)
    page.get_by_role("button", name="See what would change").click()
    page.get_by_role("button", name="Take it in").wait_for(timeout=20_000)


def rejects(page: Page, base: str) -> None:
    if not page.get_by_role("button", name="Take it in").is_visible():
        plan(page, base)
    page.get_by_role("button", name="Take it in").click()
    page.get_by_text("Taken in.").wait_for()
    page.get_by_role("link", name="Imports").click()
    page.get_by_role("button", name="what was wrong").first.click()
    page.get_by_role("table", name="Rows to look at").wait_for()


def backtest(page: Page, base: str) -> None:
    open_room("worth")(page, base)
    page.get_by_role("button", name="Test it on the last").click()
    page.get_by_text("came within").wait_for(timeout=60_000)
    page.get_by_text("came within").scroll_into_view_if_needed()


def ask(page: Page, base: str) -> None:
    open_room("worth")(page, base)
    page.get_by_role("heading", name="If this home were listed at").wait_for()
    page.locator("#tall").evaluate("e => e.scrollIntoView()")


def table_wide(page: Page, base: str) -> None:
    open_room("comps")(page, base)
    page.get_by_role("separator").press("Home")
    page.mouse.move(640, 20)


def two_measures_and_rates(page: Page, base: str) -> None:
    page.goto(f"{base}/market")
    page.get_by_label("Smoothing").select_option("3")
    page.get_by_label("Outside series").select_option("Demo mortgage rates")
    page.wait_for_load_state("networkidle")


def places_compared(page: Page, base: str) -> None:
    page.goto(f"{base}/market")
    page.get_by_label("Second measure").select_option("")
    page.get_by_label("Period", exact=True).select_option("quarter")
    for label, name in (("Place", "Quarry Bend"), ("Place 2", "Lantern Hill"), ("Place 3", "Millrace")):
        page.get_by_label(label, exact=True).fill(name)
        page.get_by_label(label, exact=True).press("Enter")
        page.wait_for_timeout(500)
    page.get_by_role("table", name="Market figures by period").get_by_role("columnheader", name="Millrace").wait_for()


def at_a_glance(page: Page, base: str) -> None:
    page.goto(f'{base}/market?way=glance&view={{"places":["Lantern Hill"]}}')
    page.get_by_role("img", name=re.compile("by month$")).nth(8).wait_for()


def pulled_up(page: Page, base: str) -> None:
    page.goto(f'{base}/market?way=glance&up=median_price&view={{"places":["Lantern Hill"]}}')
    page.get_by_role("button", name="Month by month").click()
    page.get_by_role("table", name="Median price by month and year").wait_for()


def bulletin(page: Page, base: str) -> None:
    view = {"measures": ["median_price"], "places": ["Lantern Hill"], "home_kind": "detached"}
    asked = {"layout": "four_pages", "title": "Lantern Hill in October", "view": view}
    httpx.post(f"{base}/api/bulletins/ready", json=asked, timeout=60).raise_for_status()
    page.goto(f'{base}/market?way=bulletins&view={{"places":["Lantern Hill"]}}')
    page.get_by_role("img", name="Sheet 4 of the bulletin").wait_for()


def bulletin_sheets(page: Page, base: str) -> None:
    """Its pages, as they print."""
    sheets = [httpx.get(f"{base}/api/bulletins/1/sheets/{n}.png", timeout=30).content for n in (1, 2, 3)]
    shown = "".join(
        f"<img style='width:420px' src='data:image/png;base64,{base64.b64encode(x).decode()}'>" for x in sheets
    )
    page.goto("about:blank")  # the style of this one page is its own
    page.set_content(f"<body style='margin:0;display:flex;gap:10px;align-items:flex-start;background:#C9D4D8'>{shown}")


def report_page(number: int) -> Callable[[Page, str], None]:
    """One page of the full report, as it prints."""

    def shot(page: Page, base: str) -> None:
        made = httpx.get(f"{base}/api/workups/1/pages/{number}.png?layout=full", timeout=30)
        inside = base64.b64encode(made.content).decode()
        page.set_content(f"<body style='margin:0'><img style='width:618px' src='data:image/png;base64,{inside}'>")

    return shot


def outbox(page: Page, base: str) -> None:
    open_room("paper")(page, base)
    page.get_by_role("button", name="Hand it over").click()
    page.get_by_label("To", exact=True).fill("Wilma Carrow")
    page.get_by_role("dialog").get_by_label("E-mail").fill("wilma@carrow.example")
    page.get_by_role("button", name="I hand it over myself").click()
    page.get_by_text("Kept as it is now.").wait_for()
    page.get_by_role("button", name="Send by e-mail").click()
    page.get_by_role("cell", name=re.compile("^sent")).wait_for()


# a picture's name: its shots, one under the other
SHOTS: dict[str, list[Callable[[Page, str], None]]] = {
    "desk": [desk, since],
    "home": [open_room("home")],
    "search-part": [part_opened, fence],
    "side-by-side": [side_by_side, two_homes],
    "table": [table_wide],
    "worth": [open_room("worth")],
    "rate": [rate],
    "ask": [ask, backtest],
    "paper": [paper],
    "report-pages": [report_page(3), report_page(7), report_page(8)],
    "outbox": [outbox],
    "around": [around],
    "market": [two_measures_and_rates],
    "market-more": [at_a_glance, pulled_up, places_compared],
    "bulletin": [bulletin, bulletin_sheets],
    "records": [place("records"), place("records/health")],
    "mapping": [mapping],
    "incoming": [plan, rejects],
    "rules": [house_rules],
}


def prepare(page: Page, base: str) -> None:
    """A workup as an agent would have it after a quarter of an hour."""
    page.goto(base)
    page.get_by_role("combobox", name="Which home?", exact=True).fill(HOME)
    page.get_by_role("listbox").get_by_role("option").first.click()
    page.wait_for_url("**/home")
    page.get_by_role("link", name="Comps", exact=False).first.click()
    page.get_by_role("button", name="Keep the").click()
    page.get_by_text("· likely").first.wait_for()
    page.get_by_label("List", exact=True).fill("374,900")
    page.keyboard.press("Enter")
    page.wait_for_timeout(600)
    earlier(base)


def beside(pictures: list[Image.Image], across: bool) -> Image.Image:
    """Pictures in one: under each other, or across."""
    if len(pictures) == 1:
        return pictures[0]
    gap = 12
    wide, tall = [p.width for p in pictures], [p.height for p in pictures]
    size = (sum(wide) + gap * (len(wide) - 1), max(tall)) if across else (max(wide), sum(tall) + gap * (len(tall) - 1))
    whole = Image.new("RGB", size, "#C9D4D8")
    at = 0
    for p in pictures:
        whole.paste(p, (at, 0) if across else (0, at))
        at += (p.width if across else p.height) + gap
    return whole


def main(out: Path, names: list[str]) -> None:
    demo = ROOT / ".demo"
    prepare_demo(demo, say=print, with_work=False)
    with tempfile.TemporaryDirectory() as folder, sync_playwright() as p:
        copy_database(demo / "records.db", Path(folder) / "records.db")
        shutil.copy(demo / "demo.txt", folder)
        os.environ["RAIN_PORCH_SMTP"] = serve_mail(Path(folder) / "mail", 8052) or ""
        base = serve(Path(folder))
        browser = p.chromium.launch(executable_path="/usr/bin/chromium", args=FLAGS)
        page = browser.new_page(viewport={"width": 1280, "height": 800})
        page.on("response", lambda r: print("refused:", r.status, r.url) if r.status >= 400 else None)
        page.on("pageerror", lambda e: print("page error:", e))
        prepare(page, base)
        for name in names or list(SHOTS):
            taken = []
            for shot in SHOTS[name]:
                shot(page, base)
                page.wait_for_timeout(900)
                whole = page.locator("img") if name == "report-pages" else page
                taken.append(Image.open(io.BytesIO(whole.screenshot())))
            beside(taken, name == "report-pages").save(out / f"{name}.png")
        browser.close()


if __name__ == "__main__":
    target = Path(sys.argv[1]) if len(sys.argv) > 1 else ROOT / "docs/screenshots"
    target.mkdir(parents=True, exist_ok=True)
    main(target, sys.argv[2:])
