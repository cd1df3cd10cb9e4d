"""Homes of the demo, looked at as of the records' newest day."""

from __future__ import annotations

from collections.abc import Callable

import numpy as np
import pytest

from rain_porch.app.pricing.backtesting import subject_of
from rain_porch.app.pricing.standpoint import Standpoint
from rain_porch.app.snapshot import Snapshot


@pytest.fixture(scope="session")
def looking_from(demo_records: Snapshot) -> Callable[[int], Standpoint]:
    """The n-th of a drawn row of detached homes that have sold."""
    columns = demo_records.columns
    sold = np.flatnonzero(
        (columns.home_kind == 0) & (columns.close > 20_000) & ~columns.deed & ~columns.lease & np.isfinite(columns.lats)
    )
    rows = np.random.default_rng(11).permutation(sold)
    return lambda n: Standpoint.at(demo_records, subject_of(columns, int(rows[n])), columns.last_day())
