from __future__ import annotations

from hypothesis import given
from hypothesis import strategies as st

from rain_porch.core.facts.keys import made_key, number_words

PARTS = st.lists(st.text(st.characters(exclude_characters="|"), max_size=12), min_size=2, max_size=4)


@given(PARTS, PARTS)
def test_other_facts_make_another_key(one, two):
    assert (made_key(*one) == made_key(*two)) == ("|".join(one) == "|".join(two))


def test_a_key_is_the_same_for_ever_and_a_number_is_written_as_files_write_it():
    assert made_key("a", 1) == made_key("a", "1") and len(made_key("a")) == 16
    assert made_key("Alder Lane 3", 410000) == "8c96a20a26a2beff"
    assert (number_words(410000.0), number_words(2.5), number_words("x"), number_words(None)) == (
        "410000",
        2.5,
        "x",
        None,
    )
