"""What the agent set aside leaves the house on no paper: not in words, not on a map, not in a figure."""

from __future__ import annotations

import base64
import io
import json
import re

import openpyxl
import pytest

from rain_porch.app.handover.delivering import DeliverAsk, deliver, delivered_paper
from rain_porch.app.handover.report_input import report_input
from rain_porch.app.pricing.opened import found_candidates, suggested
from rain_porch.app.workup.workups import open_workup
from rain_porch.documents.versions import written
from rain_porch.report import papers
from rain_porch.report.layouts import LAYOUTS, PAGES
from rain_porch.report.pictures.maps import map_svg
from rain_porch.store.db import atomic
from rain_porch.store.porch import workups
from tests.app.workup.test_changes import begun, change
from tests.pdf_text import words_on_pages


@pytest.fixture
def workup(agent):
    """Its number, and two homes that are set aside: a sale that was kept before, and a home for sale."""
    n = begun(agent)
    opened = open_workup(agent, n)
    found = found_candidates(opened)
    sales, rivals = suggested(opened), [c.listing_id for c in found if c.kind == "for_sale"]
    change(agent, n, change="decide", listing_ids=sales, choice="kept")
    change(
        agent, n, change="decide", listing_ids=[sales[2], rivals[0]], choice="set_aside", reason="backs on the railway"
    )
    change(agent, n, change="set_list_price", list_price=349900)
    return n, [sales[2], rivals[0]]


def words_of_pdf(data):
    return " ".join(words_on_pages(data))


def words_of_html(data):
    """All words, those within pictures too."""
    text = data.decode()
    for inside in re.findall(r"base64,([A-Za-z0-9+/=]+)", text):
        held = base64.b64decode(inside)
        text += held.decode() if held.startswith(b"<svg") else ""
    return text


def words_of_sheets(data):
    book = openpyxl.load_workbook(io.BytesIO(data))
    return " ".join(str(c.value) for sheet in book for row in sheet.iter_rows() for c in row if c.value is not None)


def test_a_home_that_was_set_aside_stands_in_no_output(agent, workup):
    n, aside = workup
    opened = open_workup(agent, n)
    addresses = {c.listing_id: str(c.facts.get("address") or "") for c in found_candidates(opened)}
    shown = report_input(agent, n, "appraiser")
    named = {c["listing_id"]: c["address"] for c in shown.aside}
    assert set(named) == set(aside) and all(named.values())
    every = [*aside, *named.values(), "backs on the railway"]
    for layout in (*(name for name in LAYOUTS if name != "appraiser"), None):
        given = report_input(agent, n, layout)
        told = [words_of_pdf(papers.pdf(given, layout))]
        if layout == "full":  # the web page has the same words, the workbook the same sheets for every layout
            told += [words_of_html(papers.html(given, layout)), words_of_sheets(papers.xlsx(given, layout))]
        for text in told:
            assert not [w for w in every if w in text], layout
    change(
        agent,
        n,
        change="set_paper",
        paper={"pages": [p for p in PAGES if p != "set_aside"], "speaks_of": {"for_sale": "found", "sold": "found"}},
    )
    given = report_input(agent, n)
    assert not [w for w in every if w in words_of_pdf(papers.pdf(given))] and addresses
    number = deliver(agent, n, DeliverAsk(client="Orla Grayle", email="orla@grayle.example"))
    for form in ("pdf", "html", "json", "eml"):
        held = delivered_paper(agent, number, form)
        assert not [w for w in every if w.encode() in held], form


def test_a_home_that_was_set_aside_is_on_no_map_and_in_no_count(agent, workup):
    n, aside = workup
    given = report_input(agent, n)
    found = found_candidates(open_workup(agent, n))
    assert sum(given.counts.values()) == len(found) - len(aside) == len(given.around)
    assert not {c["listing_id"] for c in (*given.around, *given.chosen)} & set(aside)
    drawn = map_svg(given.subject, given.around, given.chosen, {"features": []}, {})
    assert drawn.count("<text") == len(given.chosen) + 1, "a number each, and the scale"
    rivals = [c for c in given.around if c["kind"] == "for_sale"]
    assert given.counts["for_sale"] == len(rivals) == sum(c.kind == "for_sale" for c in found) - 1


def test_a_search_that_can_no_longer_be_run_leaves_the_chosen_on_paper(agent, workup):
    """Its area has gone with an import, say."""
    n, _ = workup
    state = open_workup(agent, n)
    gone = state.state.model_copy(
        update={"search": state.state.search.model_copy(update={"areas": ["Nowhere at all"]})}
    )
    with atomic(agent.porch):
        workups.save(
            agent.porch, agent.owner, n, state.revision, state.state.address, written(gone), "area gone", agent.stamp()
        )
    given = report_input(agent, n)
    assert given.around == [] and len(given.chosen) == len(suggested(state)) - 1
    text = words_of_pdf(papers.pdf(given, "short"))
    assert all(c["address"] in text for c in given.chosen) and "the search as it is now finds none" in text


def test_the_appraisers_packet_alone_lists_it_with_the_reason(agent, workup):
    n, aside = workup
    given = report_input(agent, n, "appraiser")
    page = papers.document(given, "appraiser")["pages"]
    (listed,) = [p for p in page if p["name"] == "set_aside"]
    rows = next(b for b in listed["blocks"] if b["kind"] == "table")["rows"]
    assert len(rows) == len(aside) and all(r[-1] == "backs on the railway" for r in rows)
    assert report_input(agent, n).aside == [] and "railway" not in json.dumps(given.around)


def test_chosen_homes_stay_on_paper_whatever_the_search_becomes(agent, workup):
    n, _ = workup
    opened = open_workup(agent, n)
    rival = next(
        c.listing_id for c in found_candidates(opened) if c.kind == "for_sale" and c.listing_id not in workup[1]
    )
    change(agent, n, change="decide", listing_ids=[rival], choice="kept")
    before = report_input(agent, n)
    narrow = opened.state.search.model_dump(mode="json") | {"radius_miles": 0.1}
    change(agent, n, change="set_search", search=narrow)
    after = report_input(agent, n)
    assert [c["listing_id"] for c in after.chosen] == [c["listing_id"] for c in before.chosen]
    assert len(after.around) < len(before.around)
    text = words_of_pdf(papers.pdf(after, "short"))
    assert all(c["address"] in text for c in after.chosen)
