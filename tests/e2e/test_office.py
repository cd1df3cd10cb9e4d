"""An office: the first account with the printed code, a colleague let in, a workup shared and handed over, a client's link."""

from __future__ import annotations

import re
from collections.abc import Iterator
from pathlib import Path

import pytest
from playwright.sync_api import Browser, Page, expect

from rain_porch.app.office import accounts
from tests.e2e.conftest import Server
from tests.e2e.test_evening import find_home, room

PASSWORD = "seven grey herons wading"


@pytest.fixture
def office(town: Path) -> Iterator[Server]:
    """A server that others can reach, on which nobody has an account yet."""
    held = Server(town)
    held.is_open_here = False
    held.start()
    yield held
    held.stop()


def opened(browser: Browser, server: Server, at: str = "/") -> Page:
    page = browser.new_context(viewport={"width": 1280, "height": 800}, accept_downloads=True).new_page()
    page.set_default_timeout(30_000)
    page.goto(server.url + at)
    return page


def sign_in(page: Page, name: str) -> None:
    page.get_by_label("Name", exact=True).fill(name)
    page.get_by_label("Password").fill(PASSWORD)
    page.keyboard.press("Enter")
    expect(page.get_by_role("button", name=re.compile(f"Signed in as {name}", re.IGNORECASE))).to_be_visible()


def test_an_office_from_its_first_account_to_a_client_s_link(browser: Browser, office: Server) -> None:
    # the first account, by keys alone: nothing else answers
    page = opened(browser, office, "/records")
    expect(page.get_by_role("heading", name="Make the first account")).to_be_visible()
    expect(page.get_by_label("Code")).to_be_focused()
    page.keyboard.type("AAAA-AAAA-AAAA-AAAA")
    page.keyboard.press("Tab")
    page.keyboard.type("Iris Vole")
    page.keyboard.press("Tab")
    page.keyboard.type(PASSWORD)
    page.keyboard.press("Enter")
    expect(page.get_by_text("This is not the code")).to_be_visible()
    page.get_by_label("Code").fill(office.app.state.porch.first_code)
    page.keyboard.press("Enter")
    expect(page.get_by_role("heading", name="Records", exact=True)).to_be_visible()

    # a colleague
    page.get_by_role("link", name="Settings").click()
    form = page.get_by_role("form", name="A new account")
    form.get_by_label("Name", exact=True).fill("Joan Tern")
    form.get_by_label("Password").fill("poor")
    form.get_by_role("button", name="Add the account").click()
    expect(page.get_by_text("A password has 10 to 200 signs")).to_be_visible()
    form.get_by_label("Password").fill(PASSWORD)
    form.get_by_role("button", name="Add the account").click()
    expect(page.get_by_text("Joan Tern may sign in now.")).to_be_visible()

    # a workup, shared to read
    page.get_by_role("link", name="Desk", exact=True).click()
    find_home(page, "630 hedgerow terrace")
    room(page, "Comps")
    page.get_by_role("button", name="Share with colleagues").click()
    page.get_by_label("What Joan Tern may do").select_option("read")
    page.keyboard.press("Escape")

    joan = opened(browser, office, "/workups")
    sign_in(joan, "joan tern")
    expect(joan.get_by_text("Iris Vole’s, to read")).to_be_visible()
    expect(joan.get_by_role("button", name=re.compile("^Delete"))).to_have_count(0)
    joan.get_by_role("link", name="630 Hedgerow Terrace").click()
    expect(joan.get_by_text("Iris Vole’s workup, to read")).to_be_visible()
    joan.get_by_role("button", name=re.compile("most alike")).click()
    expect(joan.get_by_role("alert")).to_contain_text("shared with you to read")
    joan.get_by_role("link", name="Records").click()
    expect(joan.get_by_text("Your account reads the records")).to_be_visible()
    expect(joan.get_by_label("Bring in a file")).to_have_count(0)
    joan.get_by_role("link", name="Settings").click()
    expect(joan.get_by_role("heading", name="Accounts")).to_have_count(0)

    # to edit; then it is given away, with what was delivered
    page.get_by_role("button", name="Share with colleagues").click()
    page.get_by_label("What Joan Tern may do").select_option("edit")
    page.keyboard.press("Escape")
    joan.get_by_role("link", name="Workups").click()
    joan.get_by_role("link", name="630 Hedgerow Terrace").click()
    joan.get_by_role("button", name=re.compile("most alike")).click()
    expect(joan.get_by_text("Saved: 12 homes kept")).to_be_visible()
    room(page, "Paper")
    page.get_by_role("button", name="Hand it over").click()
    page.get_by_role("button", name="I hand it over myself").click()
    expect(page.get_by_text("Kept as it is now.")).to_be_visible()
    page.get_by_role("button", name="links").click()
    page.get_by_role("button", name="Make a link").click()
    link = page.get_by_label("The link").input_value()
    page.keyboard.press("Escape")
    page.get_by_role("button", name="Share with colleagues").click()
    page.get_by_label("Give it to").select_option(label="Joan Tern")
    page.get_by_role("button", name="Hand it over", exact=True).last.click()
    page.get_by_role("button", name="Yes, hand it over").click()
    expect(page.get_by_text("No workups yet")).to_be_visible()
    page.get_by_label("of the whole office").check()
    expect(page.get_by_text("Joan Tern’s · 12 homes kept")).to_be_visible()

    # the client reads the paper without an account, and nothing else
    client = opened(browser, office, link.removeprefix(office.url))
    expect(client.get_by_text("630 Hedgerow Terrace").first).to_be_visible()
    client.goto(f"{office.url}/workups")
    expect(client.get_by_role("button", name="Sign in")).to_be_visible()

    # who did what
    page.get_by_role("link", name="Settings").click()
    acts = page.get_by_role("table", name="Who did what")
    expect(acts.get_by_role("row", name=re.compile("Iris Vole handed over 630 Hedgerow Terrace"))).to_be_visible()
    expect(acts.get_by_role("row", name=re.compile("Joan Tern changed 630 Hedgerow Terrace"))).to_be_visible()


def test_who_is_signed_out_in_the_middle_signs_in_and_goes_on(browser: Browser, office: Server) -> None:
    porch = office.app.state.porch.porch
    accounts.make_first(porch, "Iris Vole", PASSWORD)
    page = opened(browser, office)
    sign_in(page, "Iris Vole")
    find_home(page, "630 hedgerow terrace")
    room(page, "Home")
    field = page.get_by_label("Correct Living area", exact=True)
    field.fill("1710")
    accounts.sign_out_everywhere(porch, 1)  # and what is typed goes out before the window has looked again
    field.press("Enter")
    expect(page.get_by_role("button", name="Sign in")).to_be_visible()
    expect(page.get_by_label("Name", exact=True)).to_be_focused()
    sign_in(page, "Iris Vole")
    # the change has waited behind the door, and goes out by itself
    expect(page.get_by_text(re.compile("^Saved: living area"))).to_be_visible()
    expect(field).to_have_value("1,710")
    page.get_by_role("button", name="Signed in as Iris Vole").click()
    page.get_by_role("button", name="Sign out everywhere").click()
    expect(page.get_by_role("button", name="Sign in")).to_be_visible()
    page.goto(f"{office.url}/workups")
    expect(page.get_by_role("button", name="Sign in")).to_be_visible()


def test_two_windows_see_each_other_s_saves_and_are_asked_where_they_clash(page: Page, server: Server) -> None:
    find_home(page, "630 hedgerow terrace")
    room(page, "Worth")
    other = page.context.new_page()
    other.set_default_timeout(30_000)
    other.goto(page.url)
    expect(other.get_by_role("heading", name="630 Hedgerow Terrace")).to_be_visible()
    price, others_price = (w.get_by_label("List", exact=True) for w in (page, other))
    price.fill("305,000")
    price.press("Enter")
    expect(page.get_by_text("Saved: list price set to 305,000")).to_be_visible()
    expect(other.get_by_text("In another window: list price set to 305,000")).to_be_visible(timeout=2_500)
    expect(others_price).to_have_value("305,000")

    # a window that has not looked yet: what leaves the other's alone is kept beside it, the same is asked about
    other.route("**/revision", lambda route: route.abort())
    price.fill("310,000")
    price.press("Enter")
    expect(page.get_by_text("Saved: list price set to 310,000")).to_be_visible()
    others_price.fill("299,000")
    others_price.press("Enter")
    told = other.get_by_role("alert").filter(has_text="changed the same meanwhile: list price set to 310,000")
    expect(told).to_be_visible()
    other.get_by_role("button", name="Mine instead").click()
    expect(other.get_by_text("Saved: list price set to 299,000")).to_be_visible()
    expect(price).to_have_value("299,000")
    other.close()
