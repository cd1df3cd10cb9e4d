"""Market statistics: a slow twin that walks every home and day, the identities of the books, and check values."""

from __future__ import annotations

import datetime as dt
import statistics
from typing import Any

import numpy as np
import pandas as pd
import pytest
from hypothesis import given, settings
from hypothesis import strategies as st

from rain_porch.core.errors import BadInput
from rain_porch.core.market import measures as mk
from rain_porch.core.market.conditions import condition_mask, read_condition
from rain_porch.core.market.market_rules import MarketRules
from tests.made import DAY, TODAY, market, sale
from tests.made_market import START, crowd, run


def iso(day: dt.date | None) -> dt.date | None:
    return day


def slow(rows: list[dict[str, Any]], span: mk.Period, rules: MarketRules) -> dict[str, Any]:
    """The same figures, one home and one condition at a time."""

    def inside(d: dt.date | None) -> bool:
        return d is not None and span.start <= d <= min(span.end, TODAY)

    end = min(span.end, TODAY)
    closed = [r for r in rows if r["status"] == "Closed" and inside(r["close_date"])]
    contracts = [
        r
        for r in rows
        if r["status"] in ("Closed", "Pending") and inside(r.get("purchase_contract_date") or r.get("close_date"))
    ]

    def followed(r: dict[str, Any]) -> dict[str, Any] | None:
        """The failed listing of the same home that this one follows; ties in the start go by the order of the records."""
        earlier = [
            (x["on_market_date"], i, x)
            for i, x in enumerate(rows)
            if x["home"] == r["home"] and x is not r and (x["on_market_date"], i) < (r["on_market_date"], rows.index(r))
        ]
        last = max(earlier, key=lambda e: e[:2])[2] if earlier else None
        if last is None or last["status"] != "Expired":
            return None
        return last if 0 <= (r["on_market_date"] - last["off_market_date"]).days < rules.gap_days else None

    def cumulative(r: dict[str, Any]) -> int | None:
        end = r.get("off_market_date") or r.get("purchase_contract_date")
        before = followed(r)
        own = None if end is None else (end - r["on_market_date"]).days
        added = 0 if before is None else cumulative(before)
        return None if own is None or added is None else own + added

    fresh = sum(inside(r["on_market_date"]) and followed(r) is None for r in rows)
    together = [c for r in closed if (c := cumulative(r)) is not None]

    def over(r: dict[str, Any]) -> bool:
        dates = [r.get("purchase_contract_date"), r.get("close_date"), r.get("off_market_date")]
        return any(d is not None and d <= end for d in dates)

    for_sale = [r for r in rows if r["on_market_date"] <= end and not over(r)]
    under = [
        r
        for r in rows
        if r["status"] in ("Closed", "Pending")
        and (c := r.get("purchase_contract_date")) is not None
        and c <= end
        and not (r.get("close_date") is not None and r["close_date"] <= end)
    ]
    prices = [r["close_price"] for r in closed]
    return {
        "closings": len(closed),
        "volume": sum(prices),
        "contracts": len(contracts),
        "new_listings": fresh,
        "for_sale": len(for_sale),
        "under_contract": len(under),
        "failed": sum(r["status"] == "Expired" and inside(r["off_market_date"]) for r in rows),
        "median_price": statistics.median(prices) if prices else None,
        "mean_price": statistics.fmean(prices) if prices else None,
        "share_with_price_cut": statistics.fmean(r["list_price"] < r["original_list_price"] for r in for_sale)
        if for_sale
        else None,
        "mean_cumulative_days": statistics.fmean(together) if together else None,
        "median_cumulative_days": statistics.median(together) if together else None,
        "median_days": statistics.median(days)
        if (
            days := [
                (r["purchase_contract_date"] - r["on_market_date"]).days for r in closed if r["purchase_contract_date"]
            ]
        )
        else None,
    }


def in_pandas(rows: list[dict[str, Any]], span: mk.Period, rules: MarketRules) -> dict[str, float | None]:
    """The other measures as anybody would write them in pandas; None where there is nothing to say."""
    end = min(span.end, TODAY)
    f = pd.DataFrame(rows).reindex(
        columns=["status", "on_market_date", "purchase_contract_date", "close_date", "off_market_date", "close_price", "list_price",
                 "original_list_price", "living_area"]
    )  # fmt: skip
    for name in ("on_market_date", "purchase_contract_date", "close_date", "off_market_date"):
        f[name] = pd.to_datetime(f[name])
    first, last = pd.Timestamp(span.start), pd.Timestamp(end)
    sold = f[(f.status == "Closed") & f.close_date.between(first, last)]
    over = f[["purchase_contract_date", "close_date", "off_market_date"]].min(axis=1)
    there = f[(f.on_market_date <= last) & ~(over <= last)]
    failed = f[(f.status == "Expired") & f.off_market_date.between(first, last)]
    # a year to the last day of a month is twelve whole months
    since = (last + pd.Timedelta(days=1)) - pd.DateOffset(months=rules.supply_months)
    lately = f[(f.status == "Closed") & f.close_date.between(since, last)]
    days = (sold.purchase_contract_date - sold.on_market_date).dt.days
    told = {
        "mean_price_per_sqft": (sold.close_price / sold.living_area).mean(),
        "median_price_per_sqft": (sold.close_price / sold.living_area).median(),
        "share_of_list": (sold.close_price / sold.list_price).mean(),
        "median_share_of_list": (sold.close_price / sold.list_price).median(),
        "share_of_original": (sold.close_price / sold.original_list_price).mean(),
        "median_share_of_original": (sold.close_price / sold.original_list_price).median(),
        "mean_days": days.mean(),
        "mean_list_price": there.list_price.mean(),
        "median_list_price": there.list_price.median(),
        "share_that_sells": len(sold) / (len(sold) + len(failed)) if len(sold) + len(failed) else np.nan,
        "months_of_supply": len(there) / (len(lately) / rules.supply_months) if len(lately) else np.nan,
        "absorption": len(sold) / (((last - first).days + 1) / (365.25 / 12)),
    }
    return {name: None if pd.isna(v) else float(v) for name, v in told.items()}


@settings(max_examples=25, deadline=None)
@given(
    st.integers(0, 10_000),
    st.sampled_from(["month", "quarter", "year"]),
    st.sampled_from([90, 30, 1]),
    st.sampled_from([12, 6, 3, 1]),
)
def test_every_measure_agrees_with_the_slow_twin_by_the_rules_of_any_house(seed, by, gap_days, supply_months):
    rows, rules = crowd(seed), MarketRules(gap_days, supply_months)
    spans = mk.periods(by, START, TODAY, TODAY)
    for point in run(rows, spans, rules=rules):
        for name, wanted in (slow(rows, point.period, rules) | in_pandas(rows, point.period, rules)).items():
            got = point.values[name].value
            assert got is None if wanted is None else got == pytest.approx(wanted), (name, point.period.name)


@settings(max_examples=20, deadline=None)
@given(st.integers(0, 10_000))
def test_groups_by_size_add_up_to_the_whole(seed):
    columns = market(crowd(seed))
    spans = mk.periods("quarter", START, TODAY, TODAY)
    counts = ["closings", "for_sale", "failed", "contracts", "under_contract", "volume"]
    small = condition_mask(read_condition("living_area < 1500"), columns)
    parts = [mk.series(mk.Market(columns, np.flatnonzero(m), DAY), counts, spans) for m in (small, ~small)]
    whole = mk.series(mk.Market(columns, np.arange(len(columns)), DAY), counts, spans)
    for w, a, b in zip(whole, *parts, strict=True):
        for name in counts:
            assert w.values[name].value == pytest.approx(a.values[name].value + b.values[name].value)


def test_months_without_closings_stay_on_the_axis_and_the_unfinished_one_is_marked():
    points = run(
        [sale(200), sale(3)],
        mk.periods("month", START, TODAY + dt.timedelta(days=9), TODAY),
        ["closings", "median_price"],
    )
    assert [p.period.name for p in points][:2] == ["2024-02", "2024-03"]
    assert points[0].values["median_price"] == mk.Value(None, 0)
    assert not points[-1].period.finished and points[-1].values["closings"].n == 0
    assert all(p.period.finished for p in points[:-1])


def test_year_to_date_compares_the_same_days_and_29_february_counts_with_the_28th():
    spans = mk.periods("ytd", dt.date(2022, 1, 1), dt.date(2024, 2, 29), dt.date(2024, 3, 1))
    assert [(s.start.isoformat(), s.end.isoformat()) for s in spans] == [
        ("2022-01-01", "2022-02-28"),
        ("2023-01-01", "2023-02-28"),
        ("2024-01-01", "2024-02-29"),
    ]


def test_leases_and_family_sales_never_count_and_deeds_only_when_asked():
    rows = [sale(10), sale(10, lease=True), sale(10, not_arms_length=True), sale(10, deed=True)]
    columns = market(rows)
    spans = mk.periods("year", TODAY, TODAY, TODAY)
    plain = mk.series(mk.Market(columns, np.arange(4), DAY), ["closings"], spans)
    with_deeds = mk.series(mk.Market(columns, np.arange(4), DAY, deeds=True), ["closings"], spans)
    assert (plain[0].values["closings"].n, with_deeds[0].values["closings"].n) == (1, 2)


def test_check_values_of_change_and_absorption():
    assert mk.change_of(45, 50, "").words == "−10.0 %"
    assert mk.change_of(0.98, 0.982, "share").words == "−0.2 points"
    assert mk.change_of(0.98, 0.98004, "share").words == "0.0 points"
    assert mk.change_of(45, 0, "") is None and mk.change_of(None, 50, "") is None
    rows = [sale(1 + 7 * i) for i in range(24)] + [
        {**sale(100), "status": "Active", "close_date": None, "purchase_contract_date": None} for _ in range(20)
    ]
    half = mk.Period("half", TODAY - dt.timedelta(days=182), TODAY, True)
    point = run(rows, [half], ["absorption", "for_sale", "months_of_supply"])[0]
    assert point.values["absorption"].value == pytest.approx(4.0, abs=0.02)
    assert point.values["for_sale"].value / point.values["absorption"].value == pytest.approx(5.0, abs=0.02)
    assert point.values["months_of_supply"].value == pytest.approx(10.0)


@pytest.mark.parametrize(
    ("call", "field"),
    [
        (lambda: mk.periods("week", START, TODAY, TODAY), "by"),
        (lambda: mk.periods("month", TODAY, START, TODAY), "from"),
        (lambda: run([sale()], mk.periods("year", TODAY, TODAY, TODAY), ["happiness"]), "measure"),
        (lambda: read_condition("living_area"), "where"),
        (lambda: read_condition("list_agent_full_name = x"), "where"),
        (lambda: condition_mask(read_condition("living_area > big"), market([sale()])), "where"),
        (lambda: condition_mask(read_condition("living_area like 2"), market([sale()])), "where"),
        (lambda: condition_mask(read_condition("city < 2"), market([sale()])), "where"),
    ],
)
def test_questions_that_make_no_sense_are_refused(call, field):
    with pytest.raises(BadInput) as error:
        call()
    assert error.value.field == field
