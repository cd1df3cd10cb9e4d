"""What works on a folder is killed at chance moments; `python -m bench.kills` does it two hundred times."""

from __future__ import annotations

import random

import pytest
from bench.kills import WORK, trial


@pytest.mark.parametrize("mode", WORK)
def test_nothing_acknowledged_is_lost_and_nothing_is_half_done(mode, town):
    assert trial(mode, town, 2, random.Random(7)) == []
