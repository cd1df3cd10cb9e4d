from __future__ import annotations

from dataclasses import replace

import numpy as np
import pytest

from rain_porch.core.facts.fields import CATALOGUE
from rain_porch.core.market.differences import differences
from tests.made import market, sale, subject


def test_differences_are_said_in_words_the_weightiest_first():
    row = sale(
        living_area=2020.0,
        bathrooms_full=1.0,
        bathrooms_half=2.0,
        garage_spaces=0.0,
        year_built=2001.0,
        lot_size_square_feet=12_000.0,
        pool_private_yn=1.0,
        architectural_style="Ranch",
    )
    said = differences(market([row]), np.array([0]), subject(architectural_style="Colonial", pool_private_yn=0.0))[0]
    assert said == (
        "220 sq ft larger",
        "built 16 years later",
        "1 full bath fewer",
        "lot 4,000 sq ft larger",
        "2 garage spaces fewer",
        "1 half bath more",
        "ranch",
        "a pool",
    )
    assert differences(market([sale()]), np.array([0]), subject())[0] == ()
    assert differences(market([sale(living_area=None)]), np.array([0]), subject())[0] == ()


@pytest.mark.parametrize(
    ("theirs", "mine", "words"),
    [
        ({"stories": 1.5}, {"stories": 1.0}, "half a storey more"),
        ({"stories": 1.5}, {"stories": 2.0}, "half a storey fewer"),
        ({"stories": 2.0}, {"stories": 1.0}, "1 storey more"),
        ({"stories": 2.5}, {"stories": 1.0}, "1.5 storeys more"),
        ({"below_grade_finished_area": 600.0}, {"below_grade_finished_area": 0.0}, "a finished basement"),
        ({"below_grade_finished_area": 0.0}, {"below_grade_finished_area": 600.0}, "no finished basement"),
        (
            {"below_grade_finished_area": 900.0},
            {"below_grade_finished_area": 600.0},
            "300 sq ft more finished below grade",
        ),
    ],
)
def test_storeys_and_basement_are_differences_in_words_and_halves_stay_halves(theirs, mine, words):
    assert differences(market([sale(**theirs)]), np.array([0]), subject(**mine))[0] == (words,)


NUMBERS = [f.name for f in CATALOGUE if f.apart and f.numeric and f.stored]


@pytest.mark.parametrize("name", NUMBERS)
def test_a_difference_seen_from_the_other_side_says_the_opposite(name):
    """Whatever field a difference is told of: nothing at equality, and more here is fewer there."""
    few, many = (0.0, 1.0) if name.endswith("_yn") else (1960.0, 1990.0) if name == "year_built" else (2000.0, 9000.0)
    if name in ("bedrooms_total", "bathrooms_full", "bathrooms_half", "garage_spaces", "stories"):
        few, many = 1.0, 3.0

    def said(theirs: float, mine: float) -> tuple[str, ...]:
        return differences(market([sale(**{name: theirs})]), np.array([0]), subject(**{name: mine}))[0]

    assert said(many, many) == ()
    (more,), (fewer,) = said(many, few), said(few, many)
    assert more != fewer and "{" not in more + fewer
    opposite = {"larger": "smaller", "more": "fewer", "later": "earlier"}
    words = [w for w in opposite if w in more.split()]
    for word in words:
        assert opposite[word] in fewer or "less" in fewer
    assert words or name.endswith("_yn")


def test_condition_is_told_by_what_the_other_is():
    record = market([sale()])
    record = replace(record, numbers={**record.numbers, "condition_grade": np.array([4.0])})
    assert "well kept" in differences(record, np.array([0]), subject(property_condition="Poor"))[0]
    assert differences(record, np.array([0]), subject(property_condition="Good"))[0] == ()
