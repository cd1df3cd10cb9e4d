from __future__ import annotations

from dataclasses import replace

import pytest
from hypothesis import given
from hypothesis import strategies as st

from rain_porch.core.facts.dates import day_of
from rain_porch.core.facts.fields import FIELDS
from rain_porch.core.facts.words import RecordKind
from rain_porch.core.search.search import Criterion, Search, Window
from rain_porch.core.search.sentence import criterion_words, parts, sentence
from tests.made import TODAY

NUMBERS = [f.name for f in FIELDS if f.numeric and f.searched and f.kind != "date"]


@given(st.sampled_from(NUMBERS), st.none() | st.integers(0, 5000), st.none() | st.integers(0, 5000), st.booleans())
def test_every_limit_can_be_said_and_its_numbers_stand_in_it(name, low, high, known):
    words = criterion_words(Criterion(name, low, high, must_be_known=known))
    assert words and "None" not in words and "nan" not in words and not words.startswith(" ")
    digits = words.replace(",", "")
    assert all(str(end) in digits for end in (low, high) if end is not None)
    assert words.endswith(", known") is known


@pytest.mark.parametrize(
    ("window", "words"),
    [
        (Window(days=1), "sold in the last 1 day"),
        (Window(days=None), "sold at any time"),
        (Window(since=day_of(TODAY.replace(month=1, day=1))), "sold since Jan 1, 2025"),
        (Window(until=day_of(TODAY)), "sold up to Jun 30, 2025"),
        (Window(since=day_of(TODAY.replace(day=1)), until=day_of(TODAY)), "sold from Jun 1, 2025 to Jun 30, 2025"),
    ],
)
def test_windows_are_said_as_days_or_as_dates(window, words):
    search = Search(windows={RecordKind.SOLD: window})
    assert f"; {words}." in sentence(search)
    assert any(p.part == "windows.sold" and p.text == words for p in parts(search))


def test_what_stands_now_is_said_together_and_opens_in_one_place():
    on = Window(days=None)
    search = Search(windows={RecordKind.UNDER_CONTRACT: on, RecordKind.FOR_SALE: on})
    assert sentence(search).endswith("; under contract and for sale now.")
    assert sum(p.part == "windows.now" for p in parts(search)) == 1


def test_a_limit_can_be_one_and_then_it_is_said_in_the_singular():
    assert criterion_words(Criterion("bathrooms_full", 1, 1)) == "1 full bath"
    assert criterion_words(Criterion("bathrooms_full", 1, 2)) == "1–2 full baths"


def test_the_sentence_begins_with_the_kind_and_ends_with_a_stop():
    for search in (Search(), replace(Search(), home_kinds=("detached", "attached")), Search(radius_miles=0.5)):
        text = sentence(search)
        assert text[0].isupper() and text.endswith(".") and "  " not in text and ",." not in text
