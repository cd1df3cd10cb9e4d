"""The seller's page while the home is for sale: told from its own listing and from what happened around it, nothing set aside in it."""

from __future__ import annotations

import numpy as np
import pytest

from rain_porch.app.handover.report_input import report_input
from rain_porch.app.home.homes import HomeRef
from rain_porch.app.pricing.opened import suggested
from rain_porch.app.workup.while_for_sale import while_for_sale
from rain_porch.app.workup.workups import begin_workup, open_workup
from rain_porch.core.facts.dates import date_of
from rain_porch.core.market.columns import FOR_SALE
from rain_porch.report.blocks import Nothing
from rain_porch.report.layouts import LAYOUTS
from rain_porch.report.pages.while_for_sale import while_for_sale_page
from tests.app.workup.test_changes import begun, change


@pytest.fixture
def offered(agent):
    """A workup of a detached home that is for sale, with a price that was cut."""
    columns = agent.records.columns
    view = columns.as_of(columns.last_day())
    cut = np.isin(np.arange(len(columns)), columns.changes.rows)
    row = int(np.flatnonzero((view.kind == FOR_SALE) & (columns.home_kind == 0) & cut & np.isfinite(columns.lats) & (columns.on_market < columns.last_day() - 20) & (columns.on_market > columns.last_day() - 58))[0])  # fmt: skip
    n = begin_workup(agent, HomeRef("listing", str(columns.keys[row])))
    change(agent, n, change="decide", listing_ids=suggested(open_workup(agent, n)), choice="kept")
    return n, row


def test_it_tells_the_listing_and_what_happened_around_it(agent, offered):
    n, row = offered
    columns = agent.records.columns
    told = while_for_sale(open_workup(agent, n))
    assert (
        told["listing_id"] == str(columns.keys[row])
        and told["since"] == date_of(int(columns.on_market[row])).isoformat()
    )
    assert told["days"] == columns.last_day() - int(columns.on_market[row])
    assert told["list_price"] == float(columns.numbers["list_price"][row]) and told["steps"]
    way = [told["first_price"], *(after for _, _, after in told["steps"])]
    assert [before for _, before, _ in told["steps"]] == way[:-1] and way[-1] == told["list_price"], (
        "each step begins where the last ended"
    )
    assert told["happened"] == sum(told["counts"].values()) > 0
    assert all(told["since"] <= c["date"] and c["record"]["listing_id"] != told["listing_id"] for c in told["told"])
    own = next(p for p in told["asking"]["prices"] if p["own"])
    assert 0 < told["chance"] < 1
    assert len(own["chances"]) == 4

    page = while_for_sale_page(report_input(agent, n, "while_for_sale"))
    text = str(page)
    assert (
        f"'{told['days']}'" in text
        and told["told"][0]["record"]["address"] in text
        and f"{100 * told['chance']:.0f} %" in text
    )
    assert "Proposed" not in text
    change(agent, n, change="set_list_price", list_price=told["list_price"] - 5000)
    both = str(while_for_sale_page(report_input(agent, n, "while_for_sale")))
    assert "Asked now" in both and "Proposed" in both, "two prices of one home are told apart"


def test_what_was_set_aside_stands_nowhere_and_a_home_that_is_not_for_sale_has_no_such_page(agent, offered):
    n, _ = offered
    gone = while_for_sale(open_workup(agent, n))["told"][0]["record"]
    change(agent, n, change="decide", listing_ids=[gone["listing_id"]], choice="set_aside", reason="too far")
    left = while_for_sale(open_workup(agent, n))
    assert all(c["record"]["listing_id"] != gone["listing_id"] for c in left["told"])
    assert gone["address"] not in str(while_for_sale_page(report_input(agent, n, "while_for_sale")))
    change(agent, n, change="set_paper", paper={"pages": list(LAYOUTS["while_for_sale"]), "price": "hidden"})
    assert isinstance(while_for_sale_page(report_input(agent, n)), Nothing)
    columns = agent.records.columns
    steady = np.flatnonzero((columns.as_of(columns.last_day()).kind == FOR_SALE) & (columns.home_kind == 0) & ~np.isin(np.arange(len(columns)), columns.changes.rows))  # fmt: skip
    never_cut = begin_workup(agent, HomeRef("listing", str(columns.keys[steady[-1]])))
    assert while_for_sale(open_workup(agent, never_cut))["steps"] == []
    other = begun(agent)
    assert while_for_sale(open_workup(agent, other)) is None
    assert isinstance(while_for_sale_page(report_input(agent, other, "while_for_sale")), Nothing)
