from __future__ import annotations

import numpy as np
import pytest
from hypothesis import given
from hypothesis import strategies as st

from rain_porch.core.search.likeness import falling, likeness
from tests.made import market, sale, subject

area = st.floats(600, 6000)
year = st.integers(1900, 2025).map(float)
count = st.integers(0, 5).map(float)


def score(me, row, distance=0.0, days=0.0):
    return likeness(me, market([row]), np.array([0]), np.array([distance]), np.array([days]))


def facts(a, y, b, g):
    return {"living_area": a, "year_built": y, "bathrooms_full": b, "garage_spaces": g}


@given(area, year, count, count, area, year, count, count)
def test_the_physical_part_is_symmetric(a1, y1, b1, g1, a2, y2, b2, g2):
    one, two = facts(a1, y1, b1, g1), facts(a2, y2, b2, g2)
    there = score(subject(**one), sale(**two)).score[0]
    back = score(subject(**two), sale(**one)).score[0]
    assert there == pytest.approx(back)


@given(area, year, count, count)
def test_the_same_home_next_door_today_is_wholly_alike(a, y, b, g):
    out = score(subject(**facts(a, y, b, g)), sale(**facts(a, y, b, g)))
    assert out.score[0] == pytest.approx(100)


@given(st.floats(0, 3), st.floats(0, 3))
def test_farther_is_never_more_alike(one, two):
    near, far = sorted((one, two))
    assert score(subject(), sale(), near).score[0] >= score(subject(), sale(), far).score[0]


def test_each_part_falls_from_one_at_equality_to_nothing_at_its_tolerance():
    assert falling(np.array([0.0, 0.5, 1.0, 9.0]), 1.0) == pytest.approx([1, 0.5625, 0, 0])


def test_an_unknown_feature_is_left_out_and_its_weight_shared():
    known = score(subject(), sale())
    unknown = score(subject(), sale(garage_spaces=None, living_area=None))
    assert unknown.score[0] == pytest.approx(100)
    assert unknown.known[0] < known.known[0] == 1
    assert np.isnan(unknown.parts["living_area"][0])


def test_parts_can_be_shown_and_words_count_as_same_or_not():
    me = subject(subdivision_name="Alder North")
    out = likeness(
        me,
        market([sale(subdivision_name="alder north"), sale(subdivision_name="Birch")]),
        np.arange(2),
        np.zeros(2),
        np.zeros(2),
    )
    assert out.parts["subdivision_name"].tolist() == [1, 0] and out.score[0] > out.score[1]
    assert set(out.parts) > {"distance", "days_since", "living_area"}
