"""What is left of a chance after days without a contract: exact where homes sell at an even rate, never more than all."""

from __future__ import annotations

import math

import pytest
from hypothesis import given
from hypothesis import strategies as st

from rain_porch.core.price.chances.still_unsold import chance_after

DAYS = (14, 30, 60, 90)


@given(rate=st.floats(0.001, 0.05), unsold=st.floats(0, 60), more=st.floats(0.5, 30))
def test_at_an_even_rate_it_does_not_matter_how_long_it_has_been_for_sale(rate, unsold, more):
    within = [(d, 1 - math.exp(-rate * d)) for d in DAYS]
    assert chance_after(within, unsold, more) == pytest.approx(1 - math.exp(-rate * more))


@given(chances=st.lists(st.floats(0.01, 0.97), min_size=4, max_size=4).map(sorted), unsold=st.floats(0, 90))
def test_it_is_a_chance_and_follows_from_parts(chances, unsold):
    within = list(zip(DAYS, chances, strict=True))
    told = chance_after(within, unsold, 20)
    if unsold > 70:
        assert told is None, "nobody was watched for so long"
        return
    assert 0 <= told < 1
    first, then = chance_after(within, unsold, 8), chance_after(within, unsold + 8, 12)
    assert 1 - told == pytest.approx((1 - first) * (1 - then)), (
        "to stay unsold for twenty days is eight, and then twelve"
    )


def test_from_the_first_day_it_is_the_chance_itself_and_where_all_were_sold_none():
    within = [(14, 0.2), (30, 0.4), (60, 0.6), (90, 0.7)]
    assert chance_after(within, 0, 30) == pytest.approx(0.4)
    assert chance_after(within, 47, 30) == pytest.approx(1 - (0.4 ** (13 / 30) * 0.3 ** (17 / 30)) / (0.6 ** (13 / 30) * 0.4 ** (17 / 30)))  # fmt: skip
    assert chance_after([(14, 0.5), (30, 1.0)], 0, 14) is None
