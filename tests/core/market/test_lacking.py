from __future__ import annotations

import datetime as dt

import numpy as np
import pytest

from rain_porch.core.market.lacking import lacking
from rain_porch.core.market.measures import Market
from tests.made import DAY, market

START, END = dt.date(2025, 1, 1), dt.date(2025, 6, 30)


def told(measures: list[str], without: int, name: str) -> list[str]:
    """Of forty closings, `without` lack a fact."""
    whole = {"status": "Closed", "on_market_date": "2025-02-01", "purchase_contract_date": "2025-03-01", "close_date": "2025-04-01",
             "close_price": 300_000, "living_area": 1_500}  # fmt: skip
    rows = [{**whole, **({name: None} if i < without else {})} for i in range(40)]
    columns = market(rows)
    return lacking(Market(columns, np.arange(40), DAY), measures, START, END)


@pytest.mark.parametrize(
    ("measure", "name", "words"),
    [
        ("median_price_per_sqft", "living_area", "Median price per sq ft: 25% of the closings lack what it is made from"),
        ("new_listings", "on_market_date", "New listings: 25% of the listings have no on-market date"),
        ("contracts", "purchase_contract_date", "Contracts: 25% of the closings have no contract date"),
    ],
)  # fmt: skip
def test_what_is_left_out_is_said_with_its_share(measure, name, words):
    (said,) = told([measure], 10, name)
    assert said.startswith(words)
    assert told([measure], 0, name) == [] == told(["closings"], 10, name)
