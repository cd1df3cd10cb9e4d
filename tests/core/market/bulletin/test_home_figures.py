from __future__ import annotations

import numpy as np
import pytest

from rain_porch.core.market.bulletin.home_figures import home_figures
from tests.made import DAY, market, sale


def test_each_figure_is_the_homes_own_and_unknown_is_no_number():
    rows = [
        {**sale(price=400_000), "list_price": 410_000.0, "original_list_price": 420_000.0},
        sale(living_area=None, purchase_contract_date=None),
        sale(living_area=0.0),
    ]
    columns = market(rows)
    told = home_figures(columns, columns.as_of(DAY), np.arange(3))
    assert told["price"].tolist() == [400_000] * 3 and told["list_price"][0] == 410_000
    assert told["price_per_sqft"] == pytest.approx([400_000 / 1800, np.nan, np.nan], nan_ok=True)
    assert told["days_on_market"] == pytest.approx([35, np.nan, 35], nan_ok=True)
    assert told["share_of_list"][0] == pytest.approx(400 / 410) and told["share_of_original"][0] == pytest.approx(
        400 / 420
    )


def test_rows_are_told_in_the_order_in_which_they_are_asked():
    columns = market([sale(price=p) for p in (1e5, 2e5, 3e5)])
    told = home_figures(columns, columns.as_of(DAY), np.array([2, 0]))
    assert told["price"].tolist() == [3e5, 1e5] and all(len(x) == 2 for x in told.values())
