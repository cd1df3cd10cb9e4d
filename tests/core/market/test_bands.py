from __future__ import annotations

import itertools

import numpy as np
import pytest
from hypothesis import given
from hypothesis import strategies as st

from rain_porch.core.errors import BadInput
from rain_porch.core.market.bands import MOST, STEPS, bands
from rain_porch.core.market.conditions import condition_mask, read_condition
from tests.made import market, sale


@pytest.mark.parametrize("field", STEPS)
@given(values=st.lists(st.floats(500, 900_000) | st.just(float("nan")), max_size=60))
def test_every_known_value_lies_in_exactly_one_band(field, values):
    made = bands(field, np.array(values))
    known = [v for v in values if np.isfinite(v)]
    assert (not made) == (not known) and len(made) <= MOST
    for v in known:
        assert sum(b.holds(v) for b in made) == 1
    for below, above in itertools.pairwise(made):
        assert below.high == above.low and below.high % STEPS[field] == 0


def test_a_band_as_conditions_chooses_the_rows_that_it_holds():
    columns = market([sale(living_area=float(a)) for a in range(900, 3000, 70)] + [sale(living_area=None)])
    areas = columns.numbers["living_area"]
    for band in bands("living_area", areas):
        mask = np.ones(len(columns), dtype=bool)
        for text in band.conditions("living_area"):
            mask &= condition_mask(read_condition(text), columns)
        assert mask.tolist() == [bool(np.isfinite(a)) and band.holds(a) for a in areas]


@pytest.mark.parametrize(
    ("field", "values", "labels"),
    [
        (
            "year_built",
            [1950, 1960, 1970, 1980, 1990, 2000],
            ["before 1960", "1960–1969", "1970–1979", "1980–1989", "1990 and later"],
        ),
        ("price", [300_000] * 9, ["under 300,000", "300,000 and more"]),
        ("living_area", [], []),
    ],
)
def test_bands_are_said_as_people_say_them(field, values, labels):
    assert [b.label for b in bands(field, np.array(values, dtype=float))] == labels


def test_a_field_without_bands_is_refused_with_those_that_have_some():
    with pytest.raises(BadInput, match="living_area, price") as told:
        bands("city", np.zeros(3))
    assert told.value.field == "split"
