"""The evidence on made markets whose rates are known, and on markets that can say nothing."""

from __future__ import annotations

import numpy as np
import pytest

from rain_porch.core.facts.places.place import miles
from rain_porch.core.facts.words import HomeKind
from rain_porch.core.market.features import FEATURES, features_of, matrix
from rain_porch.core.price.evidence import evidence, house_rate, wide_fit, wide_rows
from tests.made import CENTRE, DAY, market, sale, subject

TRUE = {"living_area": 0.6, "bathrooms_full": 0.05, "garage_spaces": 0.04, "year_built": 0.003}


def town(n: int = 500, seed: int = 5, pct_per_month: float = 0.5, noise: float = 0.05, **fixed) -> list[dict]:
    """Sales whose log price follows TRUE, a trend, and a place that grows dearer to the north."""
    rng = np.random.default_rng(seed)
    rows = []
    for _ in range(n):
        days = int(rng.integers(1, 900))
        facts = {
            "living_area": float(rng.integers(1100, 2800)),
            "bathrooms_full": float(rng.integers(1, 4)),
            "garage_spaces": float(rng.integers(0, 4)),
            "year_built": float(rng.integers(1950, 2020)),
            **fixed,
        }
        north = float(rng.normal(0, 0.5))
        log_price = (
            8.2
            - 0.003 * 1985
            + 0.15 * north
            + rng.normal(0, noise)
            - np.log1p(pct_per_month / 100) * (days + 35) / 30.4375
            + TRUE["living_area"] * np.log(facts["living_area"])
            + sum(TRUE[k] * (facts[k] or 0) for k in ("bathrooms_full", "garage_spaces", "year_built"))
        )
        where = {"latitude": CENTRE[0] + north / 69, "longitude": CENTRE[1] + rng.normal(0, 0.4) / 52}
        rows.append(sale(days, round(float(np.exp(log_price)), -2), **facts, **where, lot_size_square_feet=8000.0))
    return rows


def found(rows: list[dict], **facts):
    columns = market(rows)
    return evidence(columns, columns.as_of(DAY), subject(**facts))


def test_known_rates_are_recovered_inside_their_intervals():
    e = found(town())
    worth = e.model_value
    for name, true in TRUE.items():
        rate = e.rates[name]
        dollars = true * worth / (1800 if name == "living_area" else 1)
        assert abs(rate.dollars - dollars) < 3 * rate.se, name
        assert rate.se < 0.5 * dollars and not rate.weak and rate.n == 400


@pytest.mark.parametrize("pct", [-0.8, 0.0, 0.5, 1.2])
def test_market_change_is_recovered(pct):
    change = found(town(pct_per_month=pct)).market_change
    assert change.pct_per_month == pytest.approx(pct, abs=0.15)
    assert change.low < change.pct_per_month < change.high


def test_the_model_prices_the_subject_at_its_place():
    true = np.exp(8.2 + TRUE["living_area"] * np.log(1800) + 0.1 + 0.08)
    assert found(town()).model_value == pytest.approx(true, rel=0.03)


def test_odd_sales_do_not_move_the_rates():
    rows = town()
    for row in rows[::17]:
        row["close_price"] *= 3
    rows.append(sale(20, 1.0))
    e, calm = found(rows), found(town())
    assert e.rates["living_area"].dollars == pytest.approx(calm.rates["living_area"].dollars, rel=0.15)


def test_leases_family_sales_bank_sales_and_later_sales_are_no_evidence():
    rows = town(60)
    for flag in ("lease", "not_arms_length", "distressed"):
        rows += [sale(40, 9e6, **{flag: True}) for _ in range(30)]
    rows += [sale(-40, 9e6) for _ in range(30)]
    assert found(rows).n_wide == 60


def test_the_home_itself_can_be_left_out():
    rows = [*town(60), sale(100, 9e6, home=7)]
    columns = market(rows)
    from dataclasses import replace

    me = replace(subject(), home_id=7)
    with_own = wide_fit(columns, columns.as_of(DAY), me)
    without = wide_fit(columns, columns.as_of(DAY), me, leave_out_home=True)
    assert len(with_own.rows) == 61 and len(without.rows) == 60


# --- markets that can say little or nothing


def test_too_few_sales_give_no_evidence_at_all():
    assert found(town(4)) is None
    assert found([]) is None


def test_a_constant_feature_has_no_rate_and_an_unknown_one_neither():
    e = found(town(80, garage_spaces=2.0, bathrooms_full=None))
    assert "garage_spaces" not in e.rates and "bathrooms_full" not in e.rates
    assert np.isfinite(e.model_value)


def test_all_sales_alike_give_finite_answers():
    e = found([sale(30 + i, 400_000.0) for i in range(20)])
    assert e.rates == {} and e.model_value == pytest.approx(400_000, rel=0.01)
    assert np.isfinite(e.half_width) and e.half_width > 0


def test_collinear_features_stay_finite_and_near_what_they_earn_together():
    rows = town(200)
    for row in rows:
        row["bedrooms_total"] = row["bathrooms_full"]
        row["fireplaces_total"] = row["bathrooms_full"]
    e = found(rows, fireplaces_total=1.0)
    both = e.rates["bathrooms_full"].dollars + e.rates["fireplaces_total"].dollars
    assert both == pytest.approx(TRUE["bathrooms_full"] * e.model_value, rel=0.5)


def test_a_subject_ten_times_larger_than_all_others_gets_a_finite_number():
    e = found(town(100), living_area=19_000.0)
    assert np.isfinite(e.model_value) and e.model_value > 0


def test_a_feature_that_sells_for_less_is_weak_and_worth_nothing_here():
    rows = town(300, noise=0.02)
    for row in rows:
        row["pool_private_yn"] = float(row["living_area"] % 2)
        row["close_price"] *= 0.93 ** row["pool_private_yn"]
    rate = found(rows, pool_private_yn=0.0).rates["pool_private_yn"]
    assert rate.weak and rate.dollars == 0 and rate.source == "none" and rate.says


BUILT = features_of(HomeKind.DETACHED)


def test_house_rules_speak_where_no_sale_does():
    rate = house_rate(BUILT["garage_spaces"], 400_000, None)
    assert rate.source == "house rule" and rate.weak and rate.dollars == pytest.approx(16_000)
    area = house_rate(BUILT["living_area"], 400_000, 2000)
    assert area.dollars == pytest.approx(0.62 * 200)


def test_half_known_features_are_left_out_of_the_matrix():
    rows = [sale(30, garage_spaces=None if i % 3 else 2.0 + i % 2, year_built=1950.0 + i) for i in range(30)]
    columns = market(rows)
    kept, x = matrix(columns, np.arange(30), FEATURES)
    assert [f.name for f in kept] == ["year_built"] and x.shape == (30, 1)


@pytest.mark.parametrize(("worth", "line"), [(0.0, False), (0.05, True)])
def test_bedrooms_are_a_line_only_where_the_sales_tell_that_they_matter_beyond_the_area(worth, line):
    rows = town(450, seed=11)
    rng = np.random.default_rng(3)
    for row in rows:
        row["bedrooms_total"] = float(np.clip(round(row["living_area"] / 550 + rng.normal(0, 0.8)), 1, 6))
        row["close_price"] *= float(np.exp(worth * (row["bedrooms_total"] - 3)))
    rate = found(rows, bedrooms_total=3.0).rates["bedrooms_total"]
    if line:
        assert rate.dollars > 0 and not rate.weak
    else:
        assert (rate.dollars, rate.source) == (0.0, "none") and "No line: beyond the rest" in rate.says


@pytest.mark.parametrize("placed", [True, False])
def test_the_sales_around_a_home_are_those_that_a_look_at_each_finds(placed):
    rng = np.random.default_rng(3)
    rows = [
        sale(int(rng.integers(1, 3000)), price, living_area=size, latitude=lat, longitude=lon, home_kind=kind)
        for price, size, lat, lon, kind in zip(
            rng.choice([900.0, 250_000.0], 400, p=[0.1, 0.9]), rng.choice([0.0, 1500.0], 400, p=[0.1, 0.9]),
            CENTRE[0] + rng.uniform(-0.6, 0.6, 400), CENTRE[1] + rng.uniform(-0.8, 0.8, 400),
            rng.choice([HomeKind.DETACHED, HomeKind.CONDOMINIUM], 400, p=[0.8, 0.2]), strict=True,
        )
    ]  # fmt: skip
    columns, home = market(rows), subject(placed=placed)
    got = wide_rows(columns, columns.as_of(DAY), home, leave_out_home=False)
    far = miles(home.latitude, home.longitude, columns.lats, columns.lons)
    wanted = [
        row for row in range(len(columns))
        if columns.home_kind[row] == list(HomeKind).index(HomeKind.DETACHED) and DAY - columns.close[row] <= 5 * 365
        and columns.numbers["close_price"][row] > 1000 and columns.numbers["living_area"][row] > 0 and far[row] <= 25
    ]  # fmt: skip
    assert got.tolist() == wanted and 40 < len(wanted) < 200
