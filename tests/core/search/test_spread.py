from __future__ import annotations

import numpy as np
import pytest
from hypothesis import given
from hypothesis import strategies as st

from rain_porch.core.errors import BadInput
from rain_porch.core.search.spread import BINS, spread, words_of
from tests.made import market, sale


@given(st.lists(st.none() | st.floats(400, 9000), min_size=1, max_size=60))
def test_every_known_home_stands_in_a_bin_and_the_unknown_are_counted(areas):
    columns = market([sale(living_area=a) for a in areas])
    told = spread(columns, np.arange(len(areas)), "living_area")
    known = [a for a in areas if a is not None]
    assert sum(told.bins) == len(known) and told.unknown == len(areas) - len(known)
    if known:
        assert told.low % 50 == 0 and told.high % 50 == 0 and told.low < told.high and len(told.bins) <= BINS
        assert told.low <= np.percentile(known, 1) and told.high >= np.percentile(known, 99)


def test_words_and_yes_or_no_are_counted_as_words():
    rows = [sale(city=c, pool_private_yn=p) for c, p in [("Alder", 1.0), ("Alder", 0.0), ("Birch", None), (None, 0.0)]]
    columns = market(rows)
    assert dict(spread(columns, np.arange(4), "city").words) == {"Alder": 2, "Birch": 1}
    assert spread(columns, np.arange(4), "city").unknown == 1
    pools = spread(columns, np.arange(4), "pool_private_yn")
    assert (dict(pools.words), pools.unknown) == ({"yes": 1, "no": 2}, 1)


def test_a_field_without_numbers_or_words_cannot_be_counted():
    with pytest.raises(BadInput):
        spread(market([sale()]), np.arange(1), "public_remarks")
    with pytest.raises(BadInput):
        words_of(market([sale()]), "living_area", "", 5)


def test_words_that_begin_with_what_is_typed_come_before_those_that_hold_it():
    cities = ["Oldham", "Oldham", "Oldham", "Ham", "Hamlet", "Hamlet", "Birch"]
    columns = market([sale(city=c) for c in cities])
    assert list(words_of(columns, "city", "ham", 5)) == ["Hamlet", "Ham", "Oldham"]
    assert words_of(columns, "city", "", 2) == {"Oldham": 3, "Hamlet": 2}


@pytest.mark.parametrize("typed", ["north ames", "NORTH_AMES", "north-am", " North  Ames "])
def test_signs_between_the_words_of_a_name_are_typed_as_anybody_likes(typed):
    columns = market([sale(city=c) for c in ("North_Ames", "Åre-Östra", "Northridge")])
    assert list(words_of(columns, "city", typed, 5)) == ["North_Ames"]
    assert list(words_of(columns, "city", "åre östra", 5)) == ["Åre-Östra"]
