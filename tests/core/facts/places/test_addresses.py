from __future__ import annotations

import pytest
from hypothesis import given
from hypothesis import strategies as st

from rain_porch.core.facts.places import addresses


@pytest.mark.parametrize(
    "text",
    [
        "14 North Ferry Lane Apt 3",
        "14 N Ferry Ln #3",
        "14 n. ferry ln. unit 3",
        "14 N FERRY LANE, APARTMENT 3",
        "14 North Ferry Ln, Suite 3",
    ],
)
def test_one_address_in_many_spellings_is_one(text):
    assert addresses.words(text) == ["14", "n", "ferry", "ln", "unit3"]
    assert addresses.key(text, None, "Alder", "00011-1234") == "14 n ferry ln unit3|00011"


def test_addresses_without_words_have_no_key_and_units_are_told_apart():
    assert addresses.key("", "3", "Alder", None) is None and addresses.key(None, None, None, None) is None
    assert addresses.key("14 Ferry Ln", "3", "Alder", None) != addresses.key("14 Ferry Ln", "4", "Alder", None)


@pytest.mark.parametrize(
    ("a", "b", "same"),
    [
        ("ferry", "ferry", True),
        ("fery", "ferry", True),
        ("ferrry", "ferry", True),
        ("frery", "ferry", True),
        ("berry", "ferry", True),
        ("ferr", "ferry", True),
        ("fear", "ferry", False),
        ("yrref", "ferry", False),
    ],
)
def test_one_slip(a, b, same):
    assert addresses.one_slip(a, b) is same and addresses.one_slip(b, a) is same


WORDS = st.sampled_from(
    ["north", "ferry", "mill", "street", "ave", "court", "apt", "unit", "#", "no", "14", "3b", "o'hara"]
)


@given(st.lists(WORDS, min_size=1, max_size=7))
def test_folding_what_is_folded_changes_nothing_and_case_and_commas_never_matter(parts):
    text = " ".join(parts)
    once = addresses.words(text)
    assert addresses.words(text.upper().replace(" ", ", ")) == once
    assert addresses.key(text, None, "Alder", None) == addresses.key(text.title(), None, "ALDER", None)
    assert all(w == w.lower() and " " not in w for w in once)


def test_a_unit_is_the_same_wherever_it_stands_and_never_doubled():
    inside = addresses.key("14 Ferry Ln Apt 3", None, None, "00011")
    assert (
        inside
        == addresses.key("14 Ferry Ln", "3", None, "00011")
        == addresses.key("14 Ferry Ln", "#3", "Alder", "00011")
    )
    assert addresses.key("14 Ferry Ln Apt 3", "3", None, "00011") == inside
    assert addresses.folded("14 Ferry Ln", None, "New Alder", "00011-2222") == "14 ferry ln new alder 00011"


@pytest.mark.parametrize(
    ("text", "among"),
    [
        ("14 ferry 3", ["14", "ferry", "unit3"]),
        ("14 mill stone st", ["14", "millstone", "st"]),
        ("14 n ferry ln", ["14", "ferry"]),
    ],
)
def test_other_readings_of_what_fits_no_address(text, among):
    assert among in addresses.readings(addresses.words(text))


def test_words_with_a_slip_or_without_their_end_are_told():
    assert "ter" in addresses.slips_of_usual("terace") and addresses.slips_of_usual("ferry") == []
    assert addresses.unfinished("la") == ["ln"] and set(addresses.unfinished("no")) >= {"n"}
