"""One workup of the demo town, frozen once for all tests of the paper."""

from __future__ import annotations

import shutil
from collections.abc import Iterator
from pathlib import Path

import pytest

from rain_porch.report.model import ReportInput
from rain_porch.workups.records import Records
from rain_porch.workups.workups import Workups
from tests.conftest import NOW
from tests.workups.test_changes import begun, change


@pytest.fixture(scope="package")
def workups(demo: Path, tmp_path_factory: pytest.TempPathFactory) -> Iterator[Workups]:
    """Workups that the package's tests share: each begins its own."""
    folder = tmp_path_factory.mktemp("paper")
    shutil.copy(demo / "records.db", folder / "records.db")
    records = Records(folder, today=lambda: NOW.date())
    with Workups(records, now=lambda: NOW) as held:
        yield held
    records.close()


@pytest.fixture(scope="package")
def given(workups: Workups) -> ReportInput:
    n = begun(workups)
    change(workups, n, change="decide", listing_ids=workups.suggested(workups.open(n)), choice="kept")
    change(workups, n, change="set_list_price", list_price=309900)
    change(workups, n, change="set_client", client="Orla Grayle")
    return workups.report_input(n)
