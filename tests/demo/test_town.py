"""The demo town is held to its laws: the same every time, a market with its troubles, rates that can be recovered."""

from __future__ import annotations

import csv
import datetime as dt
import itertools
import json
from collections import Counter, defaultdict
from pathlib import Path

import numpy as np
import pytest
import statsmodels.api as sm

from rain_porch.app.home.homes import HomeRef, read_home
from rain_porch.core.facts.dates import day_of
from rain_porch.core.price import evidence as ev
from rain_porch.demo import truth
from rain_porch.demo.crowd import write_crowd
from rain_porch.demo.plan import NEIGHBOURHOODS, lay_out
from rain_porch.demo.town import make_town, prepare_demo


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
    columns, mask = demo_records.columns, demo_records.area_mask(("Heron Reach",))
    last_year = columns.close > day_of(truth.LAST_DAY) - 365
    assert 0 <= (mask & last_year & ~columns.deed & ~columns.lease).sum() <= 2


def test_an_outside_fit_recovers_rates_and_trend_from_the_clean_rows(demo_records):
    """statsmodels OLS on detached sales, with the truth's own trend and season taken off."""
    c = demo_records.columns
    ok = (c.home_kind == 0) & ~c.deed & ~c.lease & ~c.distressed & ~c.new_construction & (c.close > 0)
    names = [
        "living_area",
        "bathrooms_full",
        "bathrooms_half",
        "garage_spaces",
        "lot_size_square_feet",
        "year_built",
        "below_grade_finished_area",
        "pool_private_yn",
        "waterfront_yn",
    ]
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
    slope = sm.OLS(
        y - X @ fit.params[: len(names)] - dummies @ fit.params[len(names) :] - truth.season(days),
        sm.add_constant(np.column_stack([truth.trend(days)])),
    ).fit()
    assert slope.params[1] == pytest.approx(1.0, abs=0.06), "prices follow the trend one for one"


@pytest.fixture(scope="module")
def known(demo: Path) -> dict:
    return json.loads((demo / "truth.json").read_text())


def test_every_trouble_has_its_share(files, known):
    listings = files["listings"]
    n = len(listings)
    lease = sum(r["PropertyType"] == "Residential Lease" for r in listings)
    bank = sum(r["SpecialListingConditions"] == "Real Estate Owned" for r in listings)
    new = sum(r["NewConstructionYN"] == "Y" for r in listings)
    land = sum(r["PropertyType"] in ("Land", "Farm") for r in listings)
    conceded = sum(float(r["ConcessionsAmount"] or 0) > 0 for r in listings)
    for what, got, low, high in (
        ("leases", lease, 0.01, 0.05),
        ("bank sales", bank, 0.001, 0.03),
        ("new houses", new, 0.03, 0.20),
        ("land", land, 0.03, 0.15),
        ("concessions", conceded, 0.10, 0.30),
        ("renovated", len(known["renovations"]), 0.005, 0.08),
    ):
        assert low < got / n < high, (what, got / n)
    kinds = Counter(f["kind"] for f in known["faults"])
    assert kinds["missing"] > 400 and kinds["absurd"] >= 5 and kinds["wrong place"] >= 5
    words = {r["MlsStatus"] for r in listings}
    assert {"Contingent", "Sold"} <= words, "the source has words of its own"


def test_the_faults_are_told_and_found_by_the_import(demo_records, known):
    """Absurd values and wrong places are marked suspect; what was left clean is not."""
    suspect = {
        r["listing_id"]: json.loads(r["suspect"])
        for r in demo_records.db.execute("SELECT listing_id, suspect FROM listings WHERE suspect IS NOT NULL")
    }
    bad = {f["listing"] for f in known["faults"] if f["kind"] in ("absurd", "wrong place")}
    assert len(bad - set(suspect)) <= 0.15 * len(bad), (
        "a small home twelve times too large may still pass for a large one"
    )
    assert len(set(suspect) - bad) <= 3


def test_prices_move_both_ways_and_contracts_fall_through(files):
    moves = [float(r["NewValue"]) - float(r["OldValue"]) for r in files["history"] if r["Event"] == "Price Change"]
    assert 0.02 < sum(m > 0 for m in moves) / len(moves) < 0.3
    back = sum(
        r["Event"] == "Status Change" and r["OldValue"] == "Active Under Contract" and r["NewValue"] == "Active"
        for r in files["history"]
    )
    assert back > 100


def test_homes_come_back_to_the_market_after_failing(files):
    spells = defaultdict(list)
    for r in files["listings"]:
        spells[r["ParcelNumber"]].append(r)
    gaps = []
    for listed in spells.values():
        listed.sort(key=lambda r: r["OnMarketDate"])
        for a, b in itertools.pairwise(listed):
            if a["StandardStatus"] in ("Expired", "Withdrawn", "Canceled"):
                gaps.append((dt.date.fromisoformat(b["OnMarketDate"]) - dt.date.fromisoformat(a["OffMarketDate"])).days)
    assert sum(g < 90 for g in gaps) > 50 and sum(g >= 90 for g in gaps) > 10


def test_overpriced_homes_wait_longer_and_fail_more_often(files, known):
    """The law of truth.py: a listing's price against its true worth decides its fate."""
    days, failed = defaultdict(list), defaultdict(list)
    for r in files["listings"]:
        if r["PropertyType"] in ("Land", "Farm", "Residential Lease") or r["SpecialListingConditions"] != "Standard":
            continue
        if r["ParcelNumber"] in known["renovations"] or r["NewConstructionYN"] == "Y":
            continue
        start = day_of(dt.date.fromisoformat(r["OnMarketDate"]))
        worth = known["log_worth"][r["ParcelNumber"]] + float(truth.trend(start) + truth.season(start))
        over = np.log(float(r["OriginalListPrice"])) - worth
        group = "low" if over < 0 else "high" if over > 0.08 else "middle"
        if r["StandardStatus"] in ("Closed", "Expired", "Withdrawn", "Canceled"):
            failed[group].append(r["StandardStatus"] != "Closed")
        if r["PurchaseContractDate"]:
            days[group].append(day_of(dt.date.fromisoformat(r["PurchaseContractDate"])) - start)
    assert np.median(days["low"]) < np.median(days["middle"]) < np.median(days["high"])
    assert np.mean(failed["low"]) < np.mean(failed["middle"]) < np.mean(failed["high"])


def test_renovated_homes_were_bought_worn_and_are_sold_again_within_a_year(demo_records, known):
    db = demo_records.db
    quick = 0
    for parcel in known["renovations"]:
        sold = [
            r[0]
            for r in db.execute(
                "SELECT close_date FROM listings WHERE parcel_number = :p AND standard_status = 'Closed' AND NOT is_lease ORDER BY close_date",
                {"p": parcel},
            )
        ]
        assert known["condition"][parcel] >= 5
        quick += any(
            (dt.date.fromisoformat(b) - dt.date.fromisoformat(a)).days <= 365 for a, b in itertools.pairwise(sold)
        )
    assert quick > 0.4 * len(known["renovations"])


def test_the_mortgage_rate_leads_the_market(files):
    rates = files["mortgage rates"]
    assert len(rates) > 500 and all(0 < float(r["Value"]) < 12 for r in rates)
    days = np.array([day_of(dt.date.fromisoformat(r["Date"])) for r in rates])
    value = np.array([float(r["Value"]) for r in rates])
    growth = truth.trend(days + 182 + 90) - truth.trend(days + 182 - 90)
    assert np.corrcoef(value, growth)[0, 1] < -0.9


def test_remarks_agree_with_the_facts(files):
    for r in files["listings"]:
        words = r["PublicRemarks"]
        assert ("Pool" in words) == (r["PoolPrivateYN"] == "Y")
        if r["LivingArea"] and float(r["LivingArea"]) < 8000:
            assert f"{float(r['LivingArea']):,.0f} square feet" in words
        if "Needs work" in words:
            assert r["PropertyCondition"] in ("Worn", "Damaged")


def test_no_street_of_the_town_is_written_as_real_places_are(files):
    """Postal codes are ones that are not assigned, and the town lies in open ocean."""
    assert {r["PostalCode"] for r in files["parcels"]} == {"00011", "00012", "00013"}
    places = np.array([[float(r["Latitude"]), float(r["Longitude"])] for r in files["parcels"]])
    assert (
        places[:, 0].min() > 41
        and places[:, 0].max() < 41.4
        and places[:, 1].min() > -38.6
        and places[:, 1].max() < -38.2
    )


def test_a_crowd_is_as_large_as_asked_and_no_two_rows_are_alike(demo, tmp_path):
    file = write_crowd(demo / "files/listings.csv", tmp_path / "crowd.csv", 13_000)
    with file.open() as f:
        rows = list(csv.DictReader(f))
    assert len(rows) == len({r["ListingId"] for r in rows}) == 13_000
    assert len({r["City"] for r in rows}) == 3
    assert file.read_bytes() == write_crowd(demo / "files/listings.csv", tmp_path / "again.csv", 13_000).read_bytes()


def test_our_evidence_recovers_the_towns_rates_and_market_change(demo_records):
    row = demo_records.db.execute(
        "SELECT parcel_number FROM parcels WHERE home_kind = 'detached' AND subdivision_name LIKE 'Alder%' LIMIT 1 OFFSET 50"
    ).fetchone()
    home = read_home(demo_records, HomeRef("parcel", row[0]))
    columns = demo_records.columns
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
    days = [day_of(dt.date.fromisoformat(d)) for d in ("2020-06-01", "2022-06-01", "2023-07-01", "2026-10-31")]
    a, b, c, d = truth.trend(days)
    assert a < b > c < d == 0
    assert truth.season(days[0]) == pytest.approx(truth.season(days[0] + 365.25))
