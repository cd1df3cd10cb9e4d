"""What improvements return: the worked sum, never more than the cost, less with the years."""

from __future__ import annotations

import pytest
from hypothesis import given
from hypothesis import strategies as st

from rain_porch.core.errors import BadInput
from rain_porch.core.facts.improvements import KINDS, QUALITIES, Improvement, check_improvement, returned


def test_the_worked_kitchen():
    value, words = returned(Improvement("kitchen", 2023, 40_000), 2026)
    assert value == pytest.approx(20_800)
    assert words == "40,000 × 65 % returned × 1 for good work × 80 % of its 15 years left = 20,800"


@given(
    st.sampled_from(sorted(KINDS)), st.integers(1950, 2026), st.floats(0, 5e6), st.sampled_from(sorted(QUALITIES)),
    st.floats(1.01, 3),
)  # fmt: skip
def test_a_part_of_the_cost_comes_back_and_less_with_the_years(kind, year, cost, quality, more):
    x = Improvement(kind, year, cost, quality)
    value = returned(x, 2026)[0]
    assert 0 <= value <= cost * 0.999 or cost == 0
    assert returned(x, 2027)[0] <= value
    assert returned(Improvement(kind, year, cost * more, quality), 2026)[0] == pytest.approx(more * value, abs=more), (
        "but for whole dollars"
    )
    if kind == "personal property":
        assert value == 0


@pytest.mark.parametrize(
    ("wrong", "field"),
    [
        (Improvement("moat", 2020, 1), "kind"),
        (Improvement("roof", 2027, 1), "year"),
        (Improvement("roof", 1900, 1), "year"),
        (Improvement("roof", 2020, -1), "cost"),
        (Improvement("roof", 2020, float("nan")), "cost"),
        (Improvement("roof", 2020, 1, "royal"), "quality"),
    ],
)
def test_what_makes_no_sense_is_named(wrong, field):
    with pytest.raises(BadInput) as refused:
        check_improvement(wrong, 2026)
    assert refused.value.values["field"] == field
