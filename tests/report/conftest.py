"""One workup of the demo town, frozen once for all tests of the paper."""

from __future__ import annotations

from collections.abc import Iterator
from pathlib import Path

import pytest

from rain_porch.app.handover.report_input import report_input
from rain_porch.app.office.agent import Agent, folders_agent
from rain_porch.app.pricing.opened import found_candidates, suggested
from rain_porch.app.records import Records
from rain_porch.app.workup.workups import open_workup
from rain_porch.report.layouts import PAGES
from rain_porch.report.model import ReportInput
from tests.app.workup.test_changes import begun, change
from tests.conftest import NOW, copy_demo


@pytest.fixture(scope="package")
def agent(demo: Path, tmp_path_factory: pytest.TempPathFactory) -> Iterator[Agent]:
    """Workups that the package's tests share: each begins its own."""
    folder = tmp_path_factory.mktemp("paper")
    copy_demo(demo, folder)
    records = Records(folder, today=lambda: NOW.date())
    with folders_agent(records.snapshot(), now=lambda: NOW) as held:
        yield held
    records.close()


@pytest.fixture(scope="package")
def given(agent: Agent) -> ReportInput:
    n = begun(agent)
    change(agent, n, change="decide", listing_ids=suggested(open_workup(agent, n)), choice="kept")
    change(agent, n, change="set_list_price", list_price=309900)
    change(agent, n, change="set_client", client="Orla Grayle")
    return report_input(agent, n)


@pytest.fixture(scope="package")
def whole(agent: Agent) -> ReportInput:
    return whole_of(agent)


def whole_of(agent: Agent, street: str = "630 Hedgerow Terrace") -> ReportInput:
    """A workup for which every page has something to say."""
    n = begun(agent, street)
    opened = open_workup(agent, n)
    unsold = [c.listing_id for c in found_candidates(opened) if c.kind != "sold"]
    change(agent, n, change="decide", listing_ids=[*suggested(opened), *unsold[:3]], choice="kept")
    change(agent, n, change="decide", listing_ids=unsold[3:5], choice="set_aside", reason="on the highway")
    change(agent, n, change="set_list_price", list_price=349900)
    change(agent, n, change="set_client", client="Orla Grayle")
    change(agent, n, change="set_scenarios", scenarios=[{"price": "349900", "closing": "2026-12-15", "listing_side_pct": "2.5",
           "title_and_closing": "1800", "loans": [{"balance": "120000"}]}, {"price": "339900", "closing": "2026-12-15"}])  # fmt: skip
    change(agent, n, change="set_improvements", improvements=[{"kind": "kitchen", "year": 2024, "cost": 21000}])
    change(agent, n, change="set_paper", paper={"pages": [name for name in PAGES if name != "bulletin"]})
    return report_input(agent, n)
