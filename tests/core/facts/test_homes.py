from __future__ import annotations

from hypothesis import given
from hypothesis import strategies as st

from rain_porch.core.facts.homes import Subject
from tests.made import subject

NAMES = st.sampled_from(["living_area", "year_built", "garage_spaces", "city"])
VALUES = st.none() | st.floats(1, 5000) | st.sampled_from(["Alder", "Birch"])


@given(st.dictionaries(NAMES, VALUES))
def test_a_correction_stands_and_what_it_replaced_is_kept(corrections):
    home = subject(city="Alder")
    mended = home.corrected(corrections)
    for name, value in corrections.items():
        assert mended.facts.get(name) == value
        assert mended.originals[name] == home.facts.get(name)
    untouched = home.facts.keys() - corrections.keys()
    assert all(mended.facts[n] == home.facts[n] for n in untouched)
    assert home.originals == {}, "the home itself is as it was"


def test_numbers_are_read_as_numbers_and_words_as_words():
    home = subject(city="Alder", bathrooms_full=2.0, bathrooms_half=1.0, property_condition="Good")
    assert home.number("city") is None and home.word("living_area") is None and home.word("city") == "Alder"
    assert home.number("bathrooms_total") == 3.0 and home.number("condition_grade") == 4.0
    assert subject(bathrooms_full=None).number("bathrooms_total") is None
    assert subject(bathrooms_half=None).number("bathrooms_total") == 2.0


def test_a_corrected_assessment_is_of_no_known_year_and_a_corrected_fact_is_no_longer_the_leases():
    home = Subject(
        {"tax_assessed_value": 3e5}, 0, 0, assessed_year=2025, from_lease=frozenset({"living_area", "year_built"})
    )
    assert home.corrected({"living_area": 1500.0}).from_lease == {"year_built"}
    assert home.corrected({"living_area": 1500.0}).assessed_year == 2025
    assert home.corrected({"tax_assessed_value": 2e5}).assessed_year is None
