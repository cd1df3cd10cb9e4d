from __future__ import annotations

import pytest

from rain_porch.core.facts.condition import grade_of, said


@pytest.mark.parametrize("grade", range(1, 7))
def test_each_word_of_the_scale_is_its_grade_and_each_grade_its_word(grade):
    assert grade_of(said(grade)) == grade
    assert grade_of(f"C{7 - grade}") == grade_of(f"c{7 - grade}") == grade


@pytest.mark.parametrize(
    ("word", "grade"), [("Above_Average", 3.5), ("GOOD", 4.0), ("needs work", 2.0), ("Very Poor", 1.0)]
)
def test_words_of_sources_stand_between_the_steps(word, grade):
    assert grade_of(word) == grade


@pytest.mark.parametrize("word", [None, "", "blue", "C7", "C0", "C", "6"])
def test_a_word_that_says_nothing_is_no_grade(word):
    assert grade_of(word) is None


def test_between_two_words_the_better_is_said_and_none_lies_outside():
    assert (said(3.5), said(3.49), said(0.2), said(9.0)) == ("well kept", "ordinary wear", "damaged", "new")
