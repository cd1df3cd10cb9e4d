"""One workup of the demo town, frozen once for all tests of the paper."""

from __future__ import annotations

import shutil
from collections.abc import Iterator
from pathlib import Path

import pytest

from rain_porch.app.agent import Agent, folders_agent
from rain_porch.app.handover.report_input import report_input
from rain_porch.app.pricing.opened import suggested
from rain_porch.app.records import Records
from rain_porch.app.workups import open_workup
from rain_porch.report.model import ReportInput
from tests.app.test_changes import begun, change
from tests.conftest import NOW


@pytest.fixture(scope="package")
def agent(demo: Path, tmp_path_factory: pytest.TempPathFactory) -> Iterator[Agent]:
    """Workups that the package's tests share: each begins its own."""
    folder = tmp_path_factory.mktemp("paper")
    for name in ("records.db", "demo.txt"):
        shutil.copy(demo / name, folder / name)
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
