"""A look on paper: one page is one page, a packet has a sheet a home and nobody's name, tables hold the same figures."""

from __future__ import annotations

import csv
import io

import openpyxl
import pytest

from rain_porch.app.around import LookAsk, look_around
from rain_porch.app.handover.look_papers import LookPaper, paper_of_look
from rain_porch.app.office.agent import folders_agent
from rain_porch.app.records import Records
from rain_porch.core.errors import BadInput
from tests.conftest import NOW
from tests.pdf_text import words_on_pages

SEARCH = {"areas": ["Lantern Hill"], "radius_miles": None, "home_kinds": ["detached"]}


@pytest.fixture
def agent(town):
    records = Records(town, today=lambda: NOW.date()).snapshot()
    with folders_agent(records, now=lambda: NOW) as made:
        yield made


def found(agent):
    return look_around(agent.records, LookAsk.model_validate({"search": SEARCH}))


def paper(agent, form: str, **parts) -> bytes:
    return paper_of_look(agent, form, LookPaper.model_validate({"search": SEARCH, **parts}))[0]


@pytest.mark.parametrize("n", [0, 1, 4, 40])
def test_one_page_is_one_page_and_says_of_which_homes_it_speaks(agent, n):
    homes = found(agent).candidates
    ticked = [c.listing_id for c in homes[:n]]
    pages = words_on_pages(paper(agent, "pdf", ticked=ticked))
    assert len(pages) == 1
    flat = " ".join(pages[0].split())
    assert (f"The {n} chosen of {len(homes)} found" if n else f"All {len(homes)} found") in flat
    assert homes[0].address in flat and ("And " in flat) == (n in (0, 40))


def test_a_packet_has_the_figures_the_map_a_line_and_a_sheet_a_home_and_nobodys_name(agent):
    homes = [c for c in found(agent).candidates if c.kind == "sold"][:3]
    pages = words_on_pages(paper(agent, "pdf", ticked=[c.listing_id for c in homes], layout="packet"))
    assert len(pages) == 2 + len(homes)
    prices = sorted(c.price for c in homes)
    flat = " ".join(pages[0].split())
    assert f"{prices[1]:,.0f}" in flat and f"{sum(prices) / 3:,.0f}" in flat
    for c, page in zip(homes, pages[2:], strict=True):
        assert c.address in page and f"{c.price:,.0f}" in page
    whole = "\n".join(pages)
    for name, office in agent.records.db.execute(
        "SELECT DISTINCT list_agent_full_name, list_office_name FROM listings"
    ):
        assert not name or name not in whole
        assert not office or office not in whole


def test_tables_hold_what_was_found(agent):
    homes = found(agent).candidates
    rows = list(csv.DictReader(io.StringIO(paper(agent, "csv").decode())))
    assert [r["Listing"] for r in rows] == [c.listing_id for c in homes]
    assert [float(r["Price"]) for r in rows] == [c.price for c in homes]
    order = [c.listing_id for c in reversed(homes)]
    turned = list(csv.DictReader(io.StringIO(paper(agent, "csv", order=order).decode())))
    assert [r["Listing"] for r in turned] == order, "in the order of the screen"
    book = openpyxl.load_workbook(io.BytesIO(paper(agent, "xlsx", ticked=order[:4])))
    assert book.sheetnames == ["Homes", "Figures", "Criteria"] and book["Homes"].max_row == 5
    cells = [c.value for row in book["Criteria"].iter_rows() for c in row]
    assert any("Detached homes in Lantern Hill" in str(c) for c in cells)


def test_nothing_found_and_no_search_that_can_be_run(agent):
    with pytest.raises(BadInput, match="finds no home"):
        paper(agent, "pdf", search={**SEARCH, "criteria": [{"field": "living_area", "low": 90_000}]})
    with pytest.raises(BadInput, match="Nowhere"):
        paper(agent, "csv", search={**SEARCH, "areas": ["Nowhere"]})
