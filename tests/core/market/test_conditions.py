from __future__ import annotations

import numpy as np
import pytest

from rain_porch.core.errors import BadInput
from rain_porch.core.market.conditions import condition_mask, read_condition, values_of
from tests.made import market, sale


@pytest.mark.parametrize(
    ("text", "rows"),
    [
        ("living_area >= 1800", [0, 1]),
        ("LivingArea < 1,800", [2]),
        ("bedrooms_total in 3, 4", [0, 2]),
        ("bedrooms_total != 3", [1, 2]),
        ("city = ALDER", [0]),
        ("city != alder", [1]),
        ("city in (alder, birch)", [0, 1]),
        ("city like b%", [1]),
        ("home_kind = attached", [2]),
        ("pool_private_yn = yes", [1]),
    ],
)
def test_conditions_choose_rows_and_the_unknown_never_fits(text, rows):
    columns = market(
        [
            sale(living_area=1800.0, bedrooms_total=3.0, city="Alder", pool_private_yn=0.0),
            sale(living_area=2500.0, bedrooms_total=2.0, city="Birch", pool_private_yn=1.0),
            sale(living_area=1200.0, bedrooms_total=4.0, home_kind="attached"),
        ]
    )
    assert np.flatnonzero(condition_mask(read_condition(text), columns)).tolist() == rows


OPPOSITE = {"=": "!=", "<": ">=", ">": "<="}


@pytest.mark.parametrize("op", OPPOSITE)
@pytest.mark.parametrize("value", [800, 1800, 2500])
def test_a_condition_and_its_opposite_share_the_known_rows_between_them(op, value):
    columns = market([sale(living_area=a) for a in (900.0, 1800.0, 2500.0, None)])
    one = condition_mask(read_condition(f"living_area {op} {value}"), columns)
    two = condition_mask(read_condition(f"living_area {OPPOSITE[op]} {value}"), columns)
    assert (one ^ two).tolist() == [True, True, True, False] and not (one & two).any()


@pytest.mark.parametrize(
    "text",
    [
        "living_area",
        "race = x",
        "living_area ~ 3",
        "private_remarks like x",
        "close_date > 3",
        "public_remarks = pool",
        "",
    ],
)
def test_what_is_no_condition_is_refused_in_words(text):
    with pytest.raises(BadInput) as told:
        read_condition(text)
    assert told.value.field == "where" and told.value.message.endswith(".")


@pytest.mark.parametrize("text", ["living_area = big", "living_area like 2%", "city > Alder", "living_area in 1, two"])
def test_a_value_of_the_wrong_kind_is_refused_with_what_would_fit(text):
    with pytest.raises(BadInput) as told:
        condition_mask(read_condition(text), market([sale(city="Alder")]))
    assert told.value.field == "where"


def test_price_is_what_was_paid_else_what_is_asked_and_sellers_are_told_apart():
    columns = market(
        [
            sale(price=400_000),
            {**sale(price=1), "close_price": None, "list_price": 350_000.0, "status": "Active"},
            sale(special_listing_conditions="Real Estate Owned"),
            sale(new_construction=True),
        ]
    )
    assert values_of(columns, "price")[:2].tolist() == [400_000, 350_000]
    sellers = {
        s: np.flatnonzero(condition_mask(read_condition(f"seller = {s}"), columns)).tolist()
        for s in ("owner", "builder")
    }
    assert sellers == {"owner": [0, 1], "builder": [3]}
