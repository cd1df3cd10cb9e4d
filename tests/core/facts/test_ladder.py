from __future__ import annotations

import pytest
from hypothesis import given
from hypothesis import strategies as st

from rain_porch.core.facts.ladder import LADDERS, on_a_ladder, step_of, word_of

EVERY = [(name, i, word) for name, rungs in LADDERS.items() for i, rung in enumerate(rungs, 1) for word in rung]


@pytest.mark.parametrize(("name", "step", "word"), EVERY)
def test_each_word_stands_on_one_step_and_is_read_however_it_is_written(name, step, word):
    assert step_of(word) == step == step_of(word.title().replace(" ", "_"))
    assert word_of(step, word) == LADDERS[name][step - 1][0]


@pytest.mark.parametrize(
    ("counted", "ordered"),
    [
        ([("Fair", 20), ("Typical", 300), ("Good", 90), ("Excellent", 12)], True),
        ([("Fair", 20), ("Typical", 300)], False),  # two steps are a yes or no
        ([("Good", 50), ("Brick", 40), ("Poor", 30), ("Fair", 9)], False),
        ([("A", 3), ("B", 4), ("C", 5)], True),
        ([("None", 5), ("Good", 5), ("A", 5)], False),  # three ladders
        ([], False),
    ],
)
def test_a_field_has_an_order_where_nearly_all_its_words_stand_on_one_ladder(counted, ordered):
    assert on_a_ladder(counted) is ordered


@given(st.text(max_size=20))
def test_what_is_on_no_ladder_has_no_step(word):
    assert step_of(word) is None or word_of(step_of(word), word)
    assert step_of(None) is None and word_of(2.0, None) == "2"
