from __future__ import annotations

import pytest

from rain_porch.core.facts.oddness import odd_fact, odd_price


@pytest.mark.parametrize(
    ("name", "value", "known", "asks"),
    [
        ("living_area", 15_200, 1_520, "where the records say 1,520"),
        ("living_area", 1_850, 1_520, None),
        ("living_area", 15_200, None, "unusually large"),
        ("living_area", 120, None, "unusually small"),
        ("lot_size_square_feet", 820, 8_200, "where the records say 8,200"),
        ("year_built", 2027, 1974, "Year built 2027 is still to come"),
        ("year_built", 2026, 1974, None),
        ("bathrooms_full", 2.5, 2, "half baths are counted apart"),
        ("bathrooms_full", 10, 2, "unusually many"),
        ("bathrooms_full", 3, 2, None),
        ("bedrooms_total", 3.5, 3, "whole numbers"),
        ("pool_private_yn", 1, 0, None),
    ],
)
def test_what_is_strange_is_asked_about(name, value, known, asks):
    question = odd_fact(name, value, known, 2026)
    assert question is None if asks is None else asks in question


@pytest.mark.parametrize(
    ("price", "usual", "asks"),
    [
        (3_890_000, 389_000, "is 10 times what the comps cost, about 389,000"),
        (38_900, 389_000, "is 10 % of what the comps cost"),
        (450_000, 389_000, None),
        (3_890_000, None, None),
    ],
)
def test_a_price_far_from_the_comps_is_asked_about(price, usual, asks):
    question = odd_price(price, usual)
    assert question is None if asks is None else asks in question
