"""An office that reads metres, euros and 31 Aug 2026: chosen in Settings, read and typed everywhere, and nothing else changes."""

from __future__ import annotations

import re

import pytest
from playwright.sync_api import Page, Route, expect

from tests.e2e.conftest import Server
from tests.e2e.looking import look_over
from tests.e2e.person import at_rest, click_on
from tests.e2e.test_evening import find_home, room
from tests.e2e.test_worth import priced

pytestmark = pytest.mark.e2e

OF_USUAL = re.compile(
    r"\$|\bsq ft\b|\bacres?\b|\bmiles?\b|\b\d+ (?:mi|ft)\b|\d,\d{3}\b|\b\d+\.\d{1,2}(?![\d.])"
    r"|\b(?:Jan|Feb|Mar|Apr|May|Jun|Jul|Aug|Sep|Oct|Nov|Dec) \d+, \d{4}"
)
# sums stand in what they were reckoned in, and so do the names of the ways that they are; addresses of machines; remarks
ELSEWHERE = re.compile(
    r"[×÷^]|^\S* ?(?:Mean|Median|Lowest|Highest)? ?price per sq ft(?:, corrected for size)?(?:: [^:]*)?$|https?://|@layer",
    re.I,
)
READ = """() => [...document.querySelectorAll('body *')].filter((e) => !e.closest('style, script, noscript, .remarks')).flatMap((e) => [
  [...e.childNodes].filter((n) => n.nodeType === 3).map((n) => n.textContent).join(' '),
  ...['title', 'aria-label', 'placeholder'].map((a) => e.getAttribute(a) ?? ''), e.tagName === 'INPUT' ? e.value : '',
]).map((t) => t.replace(/\\s+/g, ' ').trim()).filter(Boolean)"""


def choose_euros(page: Page) -> None:
    """As a manager does, by mouse."""
    page.get_by_role("link", name="Settings", exact=True).click()
    part = page.get_by_role("region", name="Numbers, days, money, sizes")
    expect(part).to_contain_text("$412,500 · 1,520 sq ft")
    part.get_by_label("Numbers", exact=True).select_option("1.234,5")
    part.get_by_label("Days", exact=True).select_option("31 Aug 2026")
    part.get_by_label("The sign of money stands").select_option("after")
    part.get_by_label("Sizes and distances in").select_option("metres")
    part.get_by_label("Sign of money", exact=True).fill("%")
    page.keyboard.press("Enter")
    expect(part.get_by_role("alert")).to_contain_text("“%” is no sign of money")
    expect(part).to_contain_text("412.500 $")
    part.get_by_label("Sign of money", exact=True).fill("€")
    page.keyboard.press("Enter")
    expect(part).to_contain_text("412.500 € · 141 m² · 2.921,11 per m² · 850 m² · 0,80 km · 3,5 % · 31 Aug 2026")
    expect(part.get_by_role("alert")).to_have_count(0)


def workup(page: Page, server: Server) -> dict:
    number = re.search(r"/workups/(\d+)", page.url)
    assert number
    return page.request.get(f"{server.url}/api/workups/{number[1]}").json()


def test_what_is_typed_is_read_in_the_form_and_reckoned_as_before(page: Page, server: Server) -> None:
    choose_euros(page)
    page.get_by_role("link", name="Desk", exact=True).click()
    find_home(page, "630 hedgerow terrace")
    area = page.get_by_label("Correct Living area")
    for text, square_feet, shown in (("165", 1776, "165"), ("1.700 sq ft", 1700, "158"), ("0,02 ha", 2153, "200")):
        area.fill(text)
        area.press("Enter")
        expect(area).to_have_value(shown)
        expect(page.get_by_text(re.compile("^Saved: living area set to"))).to_be_visible()
        assert workup(page, server)["subject"]["facts"]["living_area"] == square_feet
    area.fill("1.5")  # is it one and a half, or fifteen hundred?
    area.press("Enter")
    expect(page.get_by_text("“1.5” is no number: type it like 389.000, 389k or 2,5.")).to_be_visible()
    area.fill("165")
    area.press("Enter")

    room(page, "Comps")
    sentence = page.locator("p.sentence")
    click_on(page, sentence.get_by_role("button", name=re.compile("^within ")))
    page.get_by_label("km", exact=True).fill("2,5")
    page.keyboard.press("Enter")
    expect(sentence).to_contain_text("within 2,5 km")
    assert workup(page, server)["state"]["search"]["radius_miles"] == pytest.approx(2.5 / 1.609344, abs=1e-4)
    page.keyboard.press("Escape")
    click_on(page, sentence.get_by_role("button", name=re.compile("m²$")))
    page.get_by_label("From", exact=True).fill("140-180")
    page.keyboard.press("Enter")
    expect(sentence).to_contain_text("140–180 m²")
    page.keyboard.press("Escape")
    limits = next(c for c in workup(page, server)["state"]["search"]["criteria"] if c["field"] == "living_area")
    assert (limits["low"], limits["high"]) == (1507, 1938)

    as_of = page.get_by_label("as of", exact=True)
    as_of.fill("30/9/2026")
    as_of.press("Enter")
    expect(as_of).to_have_value("30 Sep 2026")
    assert workup(page, server)["state"]["effective_date"] == "2026-09-30"
    price = page.locator("#list-total")
    price.fill("389.500 €")
    price.press("Enter")
    expect(price).to_have_value("389.500")
    assert workup(page, server)["state"]["list_price"] == 389500
    per = page.get_by_label("List price per m²", exact=True)
    per.fill("2.400")
    per.press("Enter")
    expect(page.get_by_text("Saved: list price set to 396.000")).to_be_visible()
    asked = workup(page, server)["state"]["list_price"]
    assert asked == pytest.approx(2400 * 1776 / 10.763910417, abs=60)


def test_every_room_is_read_in_the_form_and_fits(page: Page, server: Server) -> None:
    page.emulate_media(reduced_motion="reduce")
    priced(page)
    here = re.sub(r"/(home|comps|worth|paper).*", "", page.url)
    choose_euros(page)
    wrong = []
    for path in (
        "/", "/workups", "/records", f"{here}/home", f"{here}/comps", f"{here}/worth", f"{here}/paper", "/market", "/market?way=glance",
        "/market?way=bands", "/market?way=so-far", "/settings/rules", '/market?view={"measures":["median_price_per_sqft"]}',
    ):  # fmt: skip
        page.goto(path if path.startswith("http") else server.url + path)
        expect(page.get_by_role("main").or_(page.locator("h1, h2")).first).to_be_visible()
        at_rest(page, 300)
        wrong += [f"{path}: {t}" for t in page.evaluate(READ) if OF_USUAL.search(t) and not ELSEWHERE.search(t)]
        if path.endswith(
            ("/comps", "/worth", "=glance", "/rules")
        ):  # where figures stand closest; the others have room
            wrong += [f"{path}: {t}" for t in look_over(page)]
    assert not wrong, "\n".join(wrong)

    # a browser that was never here: what is drawn before the service has said who asks is drawn anew in their form, fields too
    page.evaluate("localStorage.clear()")
    held: list[Route] = []
    page.route("**/api/session", lambda route: held.append(route))
    page.goto(f"{here}/worth")
    expect(page.get_by_role("table", name="Adjustment grid")).to_contain_text("$")
    held[0].continue_()
    page.unroute("**/api/session")
    expect(page.get_by_role("table", name="Adjustment grid")).not_to_contain_text("$")
    at_rest(page, 300)
    assert not [t for t in page.evaluate(READ) if OF_USUAL.search(t) and not ELSEWHERE.search(t)]

    # a field shows every digit that is typed into it: rules, and the sheet of net proceeds
    page.goto(f"{server.url}/settings/rules")
    rules = page.request.get(f"{server.url}/api/house-rules").json()["rules"]
    plain = [r for r in rules if not r["options"] and not re.search(r"sq ft|\bmi\b", r["unit"])]
    expect(page.get_by_label(f"{plain[0]['label']}, {plain[0]['unit']}", exact=True).first).to_be_visible()
    assert len(plain) > 20 and any(r["value"] != int(r["value"]) for r in plain)
    named = {f"{r['label']}, {r['unit'].replace('$', '€') or 'a weight'}" for r in plain}
    for name in named:
        shown = [f.input_value() for f in page.get_by_label(name, exact=True).all()]
        rules_of = [r for r in plain if f"{r['label']}, {r['unit'].replace('$', '€') or 'a weight'}" == name]
        assert shown == [f"{r['value']:g}".replace(".", ",") for r in rules_of], name
    a_foot = next(r for r in rules if r["name"] == "rates.below_grade_finished_area")
    field = page.get_by_label(f"{a_foot['label']}, % of the price, a m²", exact=True)
    expect(field).to_have_value(f"{a_foot['value'] * 10.763910417:.4f}".rstrip("0").replace(".", ","))
    page.goto(f"{here}/worth")
    page.get_by_role("button", name="Work out the net proceeds").click()
    side = page.get_by_label("Compensation, listing side, scenario 1")
    side.fill("2,75")
    side.press("Enter")
    expect(page.get_by_text("2,75 % ×")).to_be_visible()
    page.reload()
    expect(side).to_have_value("2,75")
