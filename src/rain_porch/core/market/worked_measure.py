"""How one figure of a market was worked out, with the counts and sums filled in."""

from __future__ import annotations

import datetime as dt

import numpy as np

from ..facts.dates import DAYS_PER_MONTH, add_months, date_of, day_of, said
from ..facts.money import dollars
from ..phrases import phrase
from .columns import list_price_at
from .measures import CLOSING_VALUES, FROM_CLOSINGS, MEASURES, Market
from .view_reading import shown

_COUNTED = frozenset((
    "new_listings", "back_on_market", "contracts", "closings", "failed", "failed_for_sale", "failed_under_contract", "put_on_hold",
))  # fmt: skip


def worked_measure(market: Market, measure: str, start: int, end: int) -> str:
    """The measure of the days [start, end], both inside, as a formula in figures; "" where it has no value. end: no later than the
    day to which the records run."""
    end = min(end, market.through)
    value = MEASURES[measure][1](market, start, end)
    if value.value is None:
        return ""
    result = shown(value.value, MEASURES[measure][0])
    span = phrase("search-from-to", first=said(date_of(start)), last=said(date_of(end)))
    if measure in _COUNTED:
        return phrase(f"worked-{measure}", n=round(value.value), gap=market.columns.rules.back_within, span=span)
    if measure in FROM_CLOSINGS:
        of = measure.removeprefix("mean_").removeprefix("median_")
        x = CLOSING_VALUES[of](market, market.within("close", start, end))
        return _of_values(x[np.isfinite(x)], measure.startswith("median_"), of, MEASURES[measure][0], result, span)
    last = said(date_of(end))
    if measure in ("mean_list_price", "median_list_price"):
        x = list_price_at(market.columns, market.on_market_at(end), end)
        return _of_values(
            x[np.isfinite(x)], measure.startswith("median_"), "list_price", "$", result, phrase("worked-on", day=last)
        )
    return _of_its_own(market, measure, start, end, value.n, result, span, last)


def _of_values(x: np.ndarray, is_median: bool, of: str, unit: str, result: str, span: str) -> str:
    n = len(x)
    if is_median:
        low, high = np.sort(x)[[(n - 1) // 2, n // 2]]
        told = {"n": n, "of": phrase(f"worked-of-{of}"), "span": span, "result": result}
        if low == high:
            return phrase("worked-middle", **told)
        return phrase("worked-middle-between", **told, low=shown(float(low), unit), high=shown(float(high), unit))
    total = float(x.sum())
    whole = f"{100 * total:,.1f} %" if unit == "share" else f"{total:,.2f}" if unit == "$/sq ft" else dollars(total)
    return phrase("worked-mean", total=whole, n=n, of=phrase(f"worked-of-{of}"), span=span, result=result)


def _of_its_own(market: Market, measure: str, start: int, end: int, n: int, result: str, span: str, last: str) -> str:
    closed = len(market.within("close", start, end))
    if measure == "volume":
        return phrase("worked-volume", n=n, span=span, result=result)
    if measure == "for_sale":
        came, gone = market.until("came", end), market.until("ended", end)
        return phrase("worked-for_sale", came=came, gone=gone, last=last, result=result)
    if measure == "under_contract":
        under, gone = market.until("under", end), market.until("gone", end)
        return phrase("worked-under_contract", under=under, gone=gone, last=last, result=result)
    if measure == "share_that_sells":
        failed = len(market.within("off", start, end))
        return phrase("worked-share_that_sells", closed=closed, failed=failed, span=span, result=result)
    if measure == "months_of_supply":
        months = market.columns.rules.supply_months
        since = day_of(add_months(date_of(end) + dt.timedelta(days=1), -months))
        sold = len(market.within("close", since, end))
        pace = market.columns.rules.pace_of
        return phrase("worked-months_of_supply", n=n, last=last, sold=sold, pace=pace, months=months, result=result)
    if measure == "absorption":
        months_of_span = f"{(end - start + 1) / DAYS_PER_MONTH:.1f}"
        return phrase("worked-absorption", closed=closed, months=months_of_span, span=span, result=result)
    if measure == "share_with_price_cut":
        there = market.on_market_at(end)
        cut = list_price_at(market.columns, there, end) < market.columns.numbers["original_list_price"][there]
        return phrase("worked-share_with_price_cut", cut=int(cut.sum()), n=n, last=last, result=result)
    return phrase("worked-same_home_price", closed=closed, span=span, result=result)
