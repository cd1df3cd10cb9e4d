"""The demo town is held to its laws: the same every time, a market with its troubles, rates that can be recovered."""

from __future__ import annotations

import csv
from collections import Counter, defaultdict
from pathlib import Path

import numpy as np
import pytest
import statsmodels.api as sm

from rain_porch.core import evidence as ev
from rain_porch.core.dates import day_of, parse_date
from rain_porch.demo import truth
from rain_porch.demo.plan import NEIGHBOURHOODS, lay_out
from rain_porch.demo.town import make_town, prepare_demo
from rain_porch.workups.homes import HomeRef, read_home


@pytest.fixture(scope="module")
def files(demo: Path) -> dict[str, list[dict[str, str]]]:
    out = {}
    for path in (demo / "files").glob("*.csv"):
        with path.open() as f:
            out[path.stem] = list(csv.DictReader(f))
    return out


def test_the_same_seed_makes_the_same_bytes_and_another_does_not(demo, tmp_path):
    again = make_town(tmp_path / "again")
    for path in again:
        assert path.read_bytes() == (demo / "files" / path.name).read_bytes(), path.name
    one, two = (lay_out(np.random.default_rng(seed)).streets[0] for seed in (1, 2))
    assert one != two


def test_the_town_has_the_size_that_it_should(files):
    assert 8_500 <= len(files["parcels"]) <= 9_700
    hoods = Counter(r["SubdivisionName"].rsplit(" ", 1)[0] for r in files["parcels"])
    assert {h.name for h in NEIGHBOURHOODS} <= set(hoods)
    days = [r["OnMarketDate"] for r in files["listings"]]
    assert min(days) < "2016-09-01" and max(days) <= "2026-10-31"
    status = Counter(r["StandardStatus"] for r in files["listings"])
    assert set(status) == {"Active", "Active Under Contract", "Pending", "Closed", "Expired", "Withdrawn", "Canceled"}
    sold = status["Closed"]
    failed = status["Expired"] + status["Withdrawn"] + status["Canceled"]
    assert 0.06 < failed / (failed + sold) < 0.25


def test_every_date_price_and_key_hangs_together(files):
    parcels = {r["ParcelNumber"] for r in files["parcels"]}
    assert len(parcels) == len(files["parcels"])
    for r in files["listings"]:
        assert r["ParcelNumber"] in parcels
        dates = [r[n] for n in ("OnMarketDate", "PurchaseContractDate", "CloseDate") if r[n]]
        assert dates == sorted(dates) and dates[-1] <= "2026-10-31"
        assert bool(r["CloseDate"]) == (r["StandardStatus"] == "Closed") == bool(r["ClosePrice"])
    listed = {r["ListingId"] for r in files["listings"]}
    assert len(listed) == len(files["listings"])
    assert {r["ListingId"] for r in files["history"]} <= listed


def test_a_parcel_is_on_the_market_once_at_a_time(files):
    spells = defaultdict(list)
    for r in files["listings"]:
        if r["PropertyType"] != "Residential Lease":
            spells[r["ParcelNumber"]].append((r["OnMarketDate"], r["CloseDate"] or r["OffMarketDate"] or "9999"))
    overlaps = sum(b[0] < a[1] for s in spells.values() for a, b in zip(sorted(s), sorted(s)[1:], strict=False))
    assert overlaps == 0


def test_most_listed_sales_have_their_deed_and_some_deeds_no_listing(demo_records):
    db = demo_records.db
    matched, alone = (
        db.execute(
            f"SELECT count(*) FROM transfers WHERE not_arms_length IS NULL AND listing_id IS {w} NULL"
        ).fetchone()[0]
        for w in ("NOT", "")
    )
    sold = db.execute("SELECT count(*) FROM listings WHERE standard_status = 'Closed' AND NOT is_lease").fetchone()[0]
    assert matched > 0.9 * sold and 0.05 < alone / (alone + matched) < 0.2


def test_the_thin_neighbourhood_is_thin(demo_records):
    columns, mask = demo_records.columns(), demo_records.area_mask(("Heron Reach",))
    last_year = columns.close > day_of(truth.LAST_DAY) - 365
    assert 0 <= (mask & last_year & ~columns.deed & ~columns.lease).sum() <= 2


def test_an_outside_fit_recovers_rates_and_trend_from_the_clean_rows(demo_records):
    """statsmodels OLS on detached sales, with the truth's own trend and season taken off."""
    c = demo_records.columns()
    ok = (c.home_kind == 0) & ~c.deed & ~c.lease & ~c.distressed & ~c.new_construction & (c.close > 0)
    names = ["living_area", "bathrooms_full", "bathrooms_half", "garage_spaces", "lot_size_square_feet", "year_built",
             "below_grade_finished_area", "pool_private_yn", "waterfront_yn"]  # fmt: skip
    for name in (*names, "close_price"):
        ok &= np.isfinite(c.numbers[name])
    rows = np.flatnonzero(ok & (c.contract > 0))
    X = np.column_stack(
        [
            np.log(c.numbers[n][rows]) if n in ("living_area", "lot_size_square_feet") else c.numbers[n][rows]
            for n in names
        ]
    )
    hoods = c.words["subdivision_name"].codes[rows]
    dummies = (hoods[:, None] == np.unique(hoods)[None, :]).astype(float)
    days = c.contract[rows].astype(float)
    y = np.log(c.numbers["close_price"][rows] - np.nan_to_num(c.numbers["concessions_amount"][rows]))
    fit = sm.OLS(y - truth.trend(days) - truth.season(days), np.column_stack([X, dummies])).fit()
    for j, name in enumerate(names):
        assert abs(fit.params[j] - truth.RATES[name]) < 4 * fit.bse[j] + 0.1 * truth.RATES[name], name
    slope = sm.OLS(y - X @ fit.params[: len(names)] - dummies @ fit.params[len(names) :] - truth.season(days),
                   sm.add_constant(np.column_stack([truth.trend(days)]))).fit()  # fmt: skip
    assert slope.params[1] == pytest.approx(1.0, abs=0.06), "prices follow the trend one for one"


def test_our_evidence_recovers_the_towns_rates_and_market_change(demo_records):
    row = demo_records.db.execute(
        "SELECT parcel_number FROM parcels WHERE home_kind = 'detached' AND subdivision_name LIKE 'Alder%' LIMIT 1 OFFSET 50"
    ).fetchone()
    home = read_home(demo_records, HomeRef("parcel", row[0]))
    columns = demo_records.columns()
    day = day_of(truth.LAST_DAY)
    e = ev.evidence(columns, columns.as_of(day), home.subject)
    area = home.subject.number("living_area")
    for name, per in (
        ("living_area", e.model_value / area),
        ("bathrooms_full", e.model_value),
        ("garage_spaces", e.model_value),
    ):
        assert abs(e.rates[name].dollars - truth.RATES[name] * per) < 3 * e.rates[name].se, name
    true = 100 * np.expm1((truth.trend(day) - truth.trend(day - 365)) / (365 / 30.4375))
    assert e.market_change.pct_per_month == pytest.approx(true, abs=0.25)


def test_a_demo_folder_is_used_again_and_other_folders_are_left_alone(demo, tmp_path):
    said: list[str] = []
    prepare_demo(demo, say=said.append)
    assert said == [f"Demo records are in {demo}."]
    (tmp_path / "mine.db").write_text("x")
    with pytest.raises(SystemExit, match="no demo"):
        prepare_demo(tmp_path)
    assert (tmp_path / "mine.db").read_text() == "x"


def test_the_trend_turns_and_seasons_return():
    days = [day_of(parse_date(d)) for d in ("2020-06-01", "2022-06-01", "2023-07-01", "2026-10-31")]
    a, b, c, d = truth.trend(days)
    assert a < b > c < d == 0
    assert truth.season(days[0]) == pytest.approx(truth.season(days[0] + 365.25))
