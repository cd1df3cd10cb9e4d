"""How one figure of a market was worked out, with the counts and sums filled in."""

from __future__ import annotations

import datetime as dt

import numpy as np

from ..facts.dates import DAYS_PER_MONTH, add_months, date_of, day_of, said
from ..facts.money import dollars
from .columns import list_price_at
from .measures import CLOSING_VALUES, FROM_CLOSINGS, MEASURES, Market
from .view_reading import shown

# what is counted, as it follows on a number; {gap} for what the house has chosen
_COUNTED = {
    "new_listings": "came on for the first time, or {gap} or more after the home had failed", "back_on_market": "came back",
    "contracts": "went under contract", "closings": "closed", "failed": "expired, were withdrawn or cancelled",
    "failed_for_sale": "failed while for sale", "failed_under_contract": "failed while under contract", "put_on_hold": "were put on hold",
}  # fmt: skip
_OF = {
    "price": "prices paid", "price_per_sqft": "prices by the square foot of living area", "days": "days from coming on to the contract",
    "cumulative_days": "days over listings that followed each other", "share_of_list": "shares of the last list price",
    "share_of_original": "shares of the first list price",
}  # fmt: skip


def worked_measure(market: Market, measure: str, start: int, end: int) -> str:
    """The measure of the days [start, end], both inside, as a formula in figures; "" where it has no value. end: no later than the
    day to which the records run."""
    end = min(end, market.through)
    value = MEASURES[measure][2](market, start, end)
    if value.value is None:
        return ""
    result, span = shown(value.value, MEASURES[measure][1]), f"from {said(date_of(start))} to {said(date_of(end))}"
    if measure in _COUNTED:
        counted = _COUNTED[measure].format(gap=market.columns.rules.back_within)
        return f"{value.value:,.0f} {counted} {span}"
    if measure in FROM_CLOSINGS:
        of = measure.removeprefix("mean_").removeprefix("median_")
        x = CLOSING_VALUES[of](market, market.within("close", start, end))
        return _of_values(x[np.isfinite(x)], measure.startswith("median_"), _OF[of], MEASURES[measure][1], result, span)
    last = said(date_of(end))
    if measure in ("mean_list_price", "median_list_price"):
        x = list_price_at(market.columns, market.on_market_at(end), end)
        return _of_values(x[np.isfinite(x)], measure.startswith("median_"), "list prices", "$", result, f"on {last}")
    return _of_its_own(market, measure, start, end, value.n, result, span, last)


def _of_values(x: np.ndarray, is_median: bool, of: str, unit: str, result: str, span: str) -> str:
    n = len(x)
    if is_median:
        low, high = np.sort(x)[[(n - 1) // 2, n // 2]]
        between = f", between {shown(float(low), unit)} and {shown(float(high), unit)}" if low != high else ""
        return f"the middle one of {n:,} {of} {span}{between} = {result}"
    total = float(x.sum())
    whole = f"{100 * total:,.1f} %" if unit == "share" else f"{total:,.2f}" if unit == "$/sq ft" else dollars(total)
    return f"{whole} ÷ {n:,} {of} {span} = {result}"


def _of_its_own(market: Market, measure: str, start: int, end: int, n: int, result: str, span: str, last: str) -> str:
    closed = len(market.within("close", start, end))
    if measure == "volume":
        return f"the prices of {n:,} closings {span}, added up = {result}"
    if measure == "for_sale":
        came, gone = market.until("came", end), market.until("ended", end)
        return (
            f"{came:,} times a home came on until {last} − {gone:,} times one was sold, withdrawn or expired = {result}"
        )
    if measure == "under_contract":
        return f"{market.until('under', end):,} went under contract until {last} − {market.until('gone', end):,} closed or fell through = {result}"
    if measure == "share_that_sells":
        failed = len(market.within("off", start, end))
        return f"{closed:,} closed ÷ ({closed:,} closed + {failed:,} failed) {span} = {result}"
    if measure == "months_of_supply":
        months = market.columns.rules.supply_months
        since = day_of(add_months(date_of(end) + dt.timedelta(days=1), -months))
        sold = len(market.within("close", since, end))
        return f"{n:,} for sale on {last} ÷ ({sold:,} closings of {market.columns.rules.pace_of} ÷ {months}) = {result}"
    if measure == "absorption":
        return f"{closed:,} closings ÷ {(end - start + 1) / DAYS_PER_MONTH:.1f} months {span} = {result}"
    if measure == "share_with_price_cut":
        there = market.on_market_at(end)
        cut = list_price_at(market.columns, there, end) < market.columns.numbers["original_list_price"][there]
        return f"{int(cut.sum()):,} that ask less than at first ÷ {n:,} for sale on {last} whose prices are known = {result}"
    return f"what one and the same home would have brought, from {closed:,} closings {span} and all others of this market = {result}"
