from __future__ import annotations

import datetime as dt

import numpy as np
import pytest

from rain_porch.core.facts.dates import said
from rain_porch.core.market.book import Book, with_earlier
from rain_porch.core.market.listing_facts import (
    days_on_market,
    flags,
    price_per_sqft,
    prices_of,
    share,
    status_said,
)
from tests.made import DAY, TODAY, market, sale


def test_price_per_square_foot_check_value():
    assert price_per_sqft(412_500, 1875) == 220.0
    assert price_per_sqft(412_500, None) is None and price_per_sqft(None, 1875) is None
    assert share(406_000, 415_000) == pytest.approx(0.9783, abs=1e-4)


def test_days_run_to_the_contract_never_to_the_closing():
    rows = [
        sale(30),  # 35 days from market to contract
        sale(30, purchase_contract_date=None),
        {
            **sale(),
            "status": "Active",
            "close_date": None,
            "purchase_contract_date": None,
            "on_market_date": TODAY - dt.timedelta(days=12),
        },
        {
            **sale(),
            "status": "Withdrawn",
            "close_date": None,
            "on_market_date": TODAY - dt.timedelta(days=90),
            "off_market_date": TODAY - dt.timedelta(days=20),
        },
        sale(30, on_market_date=None),
    ]
    columns = market(rows)
    days = days_on_market(columns, columns.as_of(DAY), np.arange(5))
    assert np.nan_to_num(days, nan=-1).tolist() == [35, -1, 12, 70, -1]


def test_flags_name_the_record_that_caused_them():
    rows = [
        sale(400, 310_000.0, home=1),
        sale(100, 420_000.0, home=1, concessions_amount=5000.0),
        sale(50, new_construction=True, distressed=True),
    ]
    columns = market(rows)
    view = columns.as_of(DAY)
    bought = said(TODAY - dt.timedelta(days=400))
    assert flags(columns, view, 1) == (f"quick resale: 310,000 on {bought}", "concessions 5,000")
    assert flags(columns, view, 2) == ("new construction", "distressed sale")
    assert flags(columns, view, 0) == ()


def test_cumulative_days_go_back_over_the_listings_that_one_follows():
    def ago(days: int) -> dt.date:
        return TODAY - dt.timedelta(days=days)

    def failed(start: int, end: int, **more) -> dict:
        dates = {"on_market_date": ago(start), "off_market_date": ago(end)}
        return {**sale(), "status": "Expired", "close_date": None, "purchase_contract_date": None, **dates, **more}

    now = {**sale(), "status": "Active", "close_date": None, "purchase_contract_date": None, "on_market_date": ago(12)}
    rows = [
        failed(700, 400, home=1),  # more than 90 days before the next: a story of its own
        failed(300, 200, home=1),
        failed(190, 60, home=1),
        {**now, "home": 1},
        {**now, "home": 2},
    ]
    columns = market(rows)
    at = np.arange(5)
    own = days_on_market(columns, columns.as_of(DAY), at)
    assert own.tolist() == [300, 100, 130, 12, 12]
    assert with_earlier(columns, at, own).tolist() == [300, 100, 230, 242, 12]
    # the market's book tells the same of those that are over; those still for sale have no end there
    assert np.nan_to_num(Book(columns).cumulative, nan=-1).tolist() == [300, 100, 230, -1, -1]


def test_days_withdrawn_count_neither_in_a_listings_days_nor_in_its_cumulative_ones():
    def ago(days: int) -> dt.date:
        return TODAY - dt.timedelta(days=days)

    rows = [{**sale(10), "on_market_date": ago(100), "purchase_contract_date": ago(40),
             "way": [(ago(80), "Withdrawn"), (ago(60), "Active")]}]  # fmt: skip
    columns = market(rows)
    at = np.arange(1)
    own = days_on_market(columns, columns.as_of(DAY), at)
    assert own.tolist() == [40.0] == with_earlier(columns, at, own).tolist() == Book(columns).cumulative.tolist()


def test_prices_of_a_listing_are_what_a_pocket_calculator_gives():
    rows = [
        sale(30, 396_000, list_price=400_000.0, original_list_price=440_000.0, living_area=2000.0, lot_size_square_feet=10_890.0),
        {**sale(), "status": "Active", "close_date": None, "close_price": None, "purchase_contract_date": None},
    ]  # fmt: skip
    columns = market(rows)
    view, at = columns.as_of(DAY), np.arange(2)
    sold, listed = prices_of(columns, view, at, days_on_market(columns, view, at))
    assert sold == pytest.approx({
        "list_price_per_sqft": 200.0, "price_per_lot_sqft": 396_000 / 10_890, "price_per_acre": 1_584_000.0,
        "share_of_list": 0.99, "share_of_original": 0.9, "cumulative_days_on_market": 35.0,
    })  # fmt: skip
    assert "share_of_list" not in listed, "nothing was paid"
    assert [status_said(columns, view, r) for r in at] == ["Closed", "Active"]
    assert status_said(columns, columns.as_of(DAY - 60), 0) == "", "it was under contract then, and how is not known"
