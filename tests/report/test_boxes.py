"""Nothing is printed over anything and nothing over the edge, however many homes, however long their names."""

from __future__ import annotations

import itertools

import pytest

from rain_porch.report.papers import pdf
from tests.report.boxes import faults
from tests.report.cases import COUNTS, with_homes

LEAST = 8.4  # points; captions are nine, pictures on the narrower paper shrink a little


@pytest.mark.parametrize("n", COUNTS)
@pytest.mark.parametrize(("long", "pictures"), [*itertools.product((False, True), repeat=2)])
def test_nothing_lies_on_anything_or_over_the_edge(whole, n, long, pictures):
    for size, backwards in (("us-letter", False), ("a4", True)):
        found = faults(pdf(with_homes(whole, n, long, pictures, size, backwards)), LEAST)
        assert not found, "\n".join(found[:20])
