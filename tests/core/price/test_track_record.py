"""What came of a home since it was priced, and how near prices came: only what happened after, only sales of the thing itself."""

from __future__ import annotations

import datetime as dt
from dataclasses import replace

import pytest
from hypothesis import given
from hypothesis import strategies as st

from rain_porch.core.facts.dates import NO_DAY, day_of
from rain_porch.core.price.track_record import came_of, said_of, track_record
from tests.made import DAY, TODAY, market, sale, subject

ME = replace(subject(), home_id=7)
THEN = DAY - 200  # the day of the workup


def came(*rows):
    columns = market([row | {"home": row.get("home", 7)} for row in rows])
    return came_of(columns, columns.as_of(DAY), ME, THEN)


def on(days_ago: int) -> dt.date:
    return TODAY - dt.timedelta(days=days_ago)


def test_a_home_that_was_offered_and_sold_since():
    told = came(sale(400, 300_000), sale(60, 418_000, original_list_price=430_000.0, list_price=425_000.0))
    assert (told.listed, told.first_list, told.last_list) == (day_of(on(130)), 430_000, 425_000)
    assert (told.kind, told.sold, told.price) == ("sold", day_of(on(60)), 418_000)


def test_a_home_that_failed_and_is_offered_again_has_no_price_yet():
    offer = {"original_list_price": 450_000.0, "list_price": 440_000.0, "home": 7}
    first = offer | {"status": "Expired", "on_market_date": on(150), "off_market_date": on(90)}
    again = offer | {"status": "Active", "on_market_date": on(40), "list_price": 420_000.0}
    told = came(first, again)
    assert (told.listed, told.first_list, told.last_list, told.kind) == (day_of(on(150)), 450_000, 420_000, "for_sale")
    assert told.sold == NO_DAY and told.price is None


@pytest.mark.parametrize(
    "row",
    [
        sale(250), sale(60, lease=True), sale(60, home=8), sale(60, home_kind="land"),
        sale(60, deed=True, not_arms_length=True, on_market_date=None, purchase_contract_date=None),
        sale(190, purchase_contract_date=on(230), on_market_date=on(260)),
    ],
    ids=["before", "leased", "another home", "the bare lot", "within the family", "agreed before"],
)  # fmt: skip
def test_what_is_no_outcome_tells_nothing(row):
    assert came(row) is None
    columns = market([row | {"home": 7}])
    assert came_of(columns, columns.as_of(DAY), replace(ME, home_id=None), THEN) is None


def test_a_sale_that_no_listing_tells_of_counts():
    told = came(sale(60, 390_000, deed=True, on_market_date=None, purchase_contract_date=None))
    assert (told.price, told.listed) == (390_000, NO_DAY)


def test_how_near_by_hand():
    record = track_record(
        [
            (409_000, 425_000, 418_000),
            (300_000, None, 290_000),
            (510_000, 505_000, 500_000),
            (200_000, 210_000, 200_000),
        ]
    )
    # −2.153 %, +3.448 %, +2 %, 0 %: middles 2.0766 and 1.0; list prices +1.675, +1, +5
    assert (record.n, record.listed) == (4, 3)
    assert record.off_pct == pytest.approx(2.0766, abs=1e-3) and record.bias_pct == pytest.approx(1.0, abs=1e-9)
    assert record.list_pct == pytest.approx(1.6746, abs=1e-3)
    assert (
        said_of(record)
        == "Your last 4 that sold: 2.1 % off in the middle, 1.0 % too high; list prices 1.7 % above what was paid."
    )
    assert track_record([(1.0, 1.0, 1.0)] * 2) is None


@given(
    st.lists(
        st.tuples(st.floats(5e4, 1e6), st.none() | st.floats(5e4, 1e6), st.floats(5e4, 1e6)), min_size=3, max_size=40
    )
)
def test_only_the_latest_twenty_count_and_a_scale_changes_nothing(told):
    record = track_record(told)
    assert record == track_record(told[:20]) and record.n == min(20, len(told))
    double = track_record([(a * 2, b and b * 2, c * 2) for a, b, c in told])
    assert double.off_pct == pytest.approx(record.off_pct) and double.bias_pct == pytest.approx(record.bias_pct)
    assert abs(record.bias_pct) <= max(abs(100 * (a / c - 1)) for a, _, c in told) + 1e-9
    assert said_of(record).endswith(".") and "nan" not in said_of(record)
