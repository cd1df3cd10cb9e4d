from __future__ import annotations

import random

import pytest
from hypothesis import given
from hypothesis import strategies as st

from rain_porch.core.facts.word_order import order_told


@pytest.mark.parametrize(
    ("counted", "order"),
    [
        ([("Typical", 300), ("Good", 90), ("Fair", 20), ("Excellent", 12)], ("Fair", "Typical", "Good", "Excellent")),
        ([("Very_Good", 3), ("Below_Average", 4), ("Poor", 5)], ("Poor", "Below_Average", "Very_Good")),
        ([("C", 9), ("A", 9), ("B", 9)], ()),  # a flood zone is no grade
        ([("None", 5), ("High", 3), ("Low", 9)], ("None", "Low", "High")),
        ([("Fair", 20), ("Typical", 300)], ()),  # two words are a yes or no
        ([("Average", 20), ("Typical", 300), ("Good", 9)], ()),  # two of them say the same
        ([("Good", 50), ("Brick", 40), ("Poor", 30), ("Fair", 9)], ()),
        ([("None", 5), ("Good", 5), ("Low", 5)], ()),  # two ladders
        ([], ()),
    ],
)
def test_words_have_an_order_where_nearly_all_stand_on_one_ladder(counted, order):
    assert order_told(counted) == order


@given(
    st.lists(st.sampled_from(["Poor", "Fair", "Average", "Good", "Excellent"]), min_size=3, unique=True), st.randoms()
)
def test_the_order_hangs_on_the_words_alone(words, rng):
    shuffled = random.Random(rng.random()).sample(words, len(words))
    assert order_told((w, rng.randint(1, 99)) for w in shuffled) == order_told((w, 1) for w in words)
