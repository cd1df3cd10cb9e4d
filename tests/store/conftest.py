"""A porch.db of its own."""

from __future__ import annotations

from collections.abc import Iterator
from pathlib import Path

import pytest

from rain_porch.store.db import PORCH, Database


@pytest.fixture
def porch(tmp_path: Path) -> Iterator[Database]:
    held = Database(tmp_path, PORCH)
    yield held
    held.close()
