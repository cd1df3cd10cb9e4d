"""How a figure was worked out is told so that it can be worked out again, by hand, to the figure that is shown."""

from __future__ import annotations

import datetime as dt
import re

import numpy as np
import pytest
from hypothesis import given, settings
from hypothesis import strategies as st

from rain_porch.core.facts.dates import day_of
from rain_porch.core.market import measures as mk
from rain_porch.core.market.listing_facts import days_on_market, prices_of
from rain_porch.core.market.market_rules import MarketRules
from rain_porch.core.market.view_reading import shown
from rain_porch.core.market.worked_measure import worked_measure
from rain_porch.core.market.worked_record import worked_record
from tests.made import DAY, TODAY, market
from tests.made_market import START, crowd, wanderers
from tests.reckoning import both_sides

RECKONED = {name for name in mk.MEASURES if name.startswith(("mean_", "share_"))} | {
    "months_of_supply",
    "absorption",
    "for_sale",
    "under_contract",
}


@settings(max_examples=20, deadline=None)
@given(st.integers(0, 10_000), st.sampled_from([12, 3, 1]), st.integers(20, 480))
def test_a_measure_comes_out_of_its_own_formula(seed, months, days):
    columns = market([*crowd(seed), *wanderers(seed, 20)]).by(MarketRules(90, months))
    held = mk.Market(columns, np.arange(len(columns)), DAY)
    start, end = day_of(START), day_of(START + dt.timedelta(days=days))
    for name, (unit, measure) in mk.MEASURES.items():
        value, told = measure(held, start, end).value, worked_measure(held, name, start, end)
        assert (value is None) == (not told), name
        if value is None:
            continue
        assert "nan" not in told and "None" not in told, told
        if name in RECKONED:
            assert both_sides(told)[0] == pytest.approx(value, rel=2e-3, abs=0.06), told
        assert shown(value, unit) in told, told


@settings(max_examples=20, deadline=None)
@given(st.integers(0, 10_000), st.sampled_from([90, 30]))
def test_a_listing_s_figures_come_out_of_their_own_formulas(seed, gap_days):
    columns = market([*crowd(seed), *wanderers(seed, 20)]).by(MarketRules(gap_days))
    view, rows = columns.as_of(DAY), np.arange(len(columns))
    own = days_on_market(columns, view, rows)
    prices = prices_of(columns, view, rows, own)
    seen = set()
    for row in rows.tolist():
        told = worked_record(columns, view, row)
        seen |= {*told}
        known = prices[row] | {"cumulative_days": prices[row].get("cumulative_days_on_market")}
        for name in ("share_of_list", "share_of_original", "cumulative_days"):
            if name in told:
                left, right = both_sides(told[name].partition(";")[0])
                assert left == pytest.approx(known[name], abs=6e-4) and right == pytest.approx(known[name], abs=6e-4), (
                    told[name]
                )
        if np.isnan(own[row]):
            assert told.get("days", "unknown").startswith("unknown: "), told
        else:
            assert told["days"].endswith(f"= {own[row]:,.0f}") and ("withdrawn" in told["days"]) == (
                _off(columns, view, row, own[row]) > 0
            )
    assert seen >= {"days", "share_of_list"}


def _off(columns, view, row: int, own: float) -> float:
    """Days between the two dates of a formula that did not count."""
    told = worked_record(columns, view, row)["days"]
    first, last = (dt.datetime.strptime(d, "%b %d, %Y") for d in _dates(told))
    return (last - first).days - own


def _dates(told: str) -> list[str]:
    return re.findall(r"[A-Z][a-z]{2} \d{1,2}, \d{4}", told)[:2]


def test_days_that_are_not_known_say_which_date_is_missing():
    row = {
        "on_market_date": TODAY - dt.timedelta(days=90),
        "status": "Closed",
        "close_date": TODAY,
        "close_price": 3e5,
        "home": 1,
        "list_price": 3e5,
    }
    columns = market([row, {**row, "on_market_date": None, "home": 2}])
    told = [worked_record(columns, columns.as_of(DAY), i)["days"] for i in (0, 1)]
    assert "no record tells its contract; the closing never stands in for it" in told[0]
    assert "no record tells when it came on" in told[1]
