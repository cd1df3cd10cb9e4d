"""A search carried to another home: its bands lie about it as they lay about the first, and come back the same."""

from __future__ import annotations

import pytest
from hypothesis import given
from hypothesis import strategies as st

from rain_porch.core.search.relocation import carried
from rain_porch.core.search.search import Criterion, Search, check
from rain_porch.core.search.shapes import Shape
from tests.made import subject

RING = ((-38.41, 41.19), (-38.39, 41.19), (-38.40, 41.21))
SEARCH = Search(
    home_kinds=("detached",),
    radius_miles=0.75,
    criteria=(
        Criterion("living_area", 1450, 1950),
        Criterion("year_built", 1960, None),
        Criterion("bathrooms_full", low=2),
        Criterion("architectural_style", words=("Ranch",)),
    ),
)
WAS = {"living_area": 1700.0, "year_built": 1975.0, "bathrooms_full": 2.0, "architectural_style": "Ranch"}


def test_bands_follow_the_home_in_proportion_or_by_difference():
    home = subject(living_area=2000.0, year_built=2001.0, bathrooms_full=3.0, architectural_style="Cottage")
    out, left = carried(SEARCH, WAS, "detached", home)
    assert left == [] and out.radius_miles == 0.75
    area, built, baths, style = out.criteria
    assert (area.low, area.high) == (1700, 2300)  # 1,705.9 and 2,294.1, to the step of 50; years to that of 5
    assert (built.low, built.high) == (1985, None) and baths.low == 3 and style.words == ("Cottage",)
    check(out)


def test_what_the_home_does_not_know_stays_as_it_was():
    out, _ = carried(SEARCH, WAS, "detached", subject(living_area=None, year_built=None))
    assert out.criteria[0] == SEARCH.criteria[0] and out.criteria[1] == SEARCH.criteria[1]


def test_what_belongs_to_a_place_stays_behind_and_is_named():
    from dataclasses import replace

    placed = replace(SEARCH, radius_miles=None, shapes=(Shape(RING),), areas=("Alder*",), parcels=(("01-1", "01-9"),))
    out, left = carried(placed, WAS, "detached", subject())
    assert left == ["named areas", "drawn areas", "parcel numbers"]
    assert (out.shapes, out.areas, out.parcels, out.radius_miles) == ((), (), (), 1.0)


@given(st.floats(700, 6000), st.floats(1900, 2020))
def test_carried_to_the_same_home_it_is_the_same_search(area, built):
    me = subject(living_area=area, year_built=built)
    search = Search(criteria=(Criterion("living_area", 1500, 2100), Criterion("year_built", 1950, 1990)))
    out, _ = carried(search, me.facts, me.home_kind.value, me)
    assert [(c.low, c.high) for c in out.criteria] == [
        (pytest.approx(1500, abs=1e-6), pytest.approx(2100, abs=1e-6)), (1950, 1990)
    ]  # fmt: skip
