"""The main job against sources outside the project; each check names its own."""

from __future__ import annotations

import datetime as dt
import json
from pathlib import Path

import numpy as np
import pandas as pd
import pytest
import statsmodels.api as sm
from geographiclib.geodesic import Geodesic

from rain_porch.core.facts.dates import day_of
from rain_porch.core.facts.homes import Subject
from rain_porch.core.facts.places.place import METRES_PER_MILE, miles
from rain_porch.core.facts.words import HomeKind
from rain_porch.core.market import measures as mk
from rain_porch.core.market.columns import Columns
from rain_porch.core.search import matching as mt
from rain_porch.core.search import search as sr
from rain_porch.core.statistics import regression
from rain_porch.core.statistics.regression import Fit, robust_fit
from rain_porch.core.statistics.summary import summarise
from tests.made import market

DATA = Path(__file__).parent / "data"
CHECKS = json.loads((DATA / "ames-checks.json").read_text())


def test_distance_agrees_with_geographiclib_to_a_metre_up_to_25_miles():
    """GeographicLib (C. F. F. Karney, Algorithms for geodesics, J. Geodesy 87, 2013) on 500 random pairs."""
    rng = np.random.default_rng(11)
    for _ in range(500):
        lat, lon = rng.uniform(-75, 75), rng.uniform(-180, 180)
        there = Geodesic.WGS84.Direct(lat, lon, rng.uniform(0, 360), rng.uniform(0, 25) * METRES_PER_MILE)
        ours = miles(lat, lon, there["lat2"], there["lon2"])[0] * METRES_PER_MILE
        assert ours == pytest.approx(there["s12"], abs=1.0)


@pytest.fixture(scope="module")
def ames() -> pd.DataFrame:
    return pd.read_csv(DATA / "ames.csv", keep_default_na=False)


@pytest.fixture(scope="module")
def ames_columns(ames: pd.DataFrame) -> Columns:
    return market(
        [
            {
                "key": str(i),
                "home": i,
                "close_date": dt.date(r.Year_Sold, r.Mo_Sold, 15),
                "close_price": float(r.Sale_Price),
                "living_area": float(r.Gr_Liv_Area),
                "latitude": r.Latitude,
                "longitude": r.Longitude,
                "architectural_style": r.Bldg_Type,
                "property_condition": r.Sale_Condition,
            }
            for i, r in enumerate(ames.itertuples(), start=1)
        ]
    )


@pytest.mark.parametrize("check", CHECKS["radius_searches"], ids=lambda c: f"row {c['subject_row']}")
def test_radius_searches_on_the_ames_data(ames, ames_columns, check):
    """ames-checks.json: pandas and pyproj (WGS-84 geodesic)."""
    row = check["subject_row"]
    facts = ames.iloc[row - 1]
    me = Subject({}, facts.Latitude, facts.Longitude, HomeKind.DETACHED, own_listing=str(row))
    search = sr.Search(radius_miles=check["radius_miles"], leave_out_new_construction=False)
    search = search.with_days("sold", check["closed_within_days"])
    if (band := check["living_area_within_sqft"]) is not None:
        area = float(facts.Gr_Liv_Area)
        search = search.with_criterion(sr.Criterion("living_area", area - band, area + band))
    if check["same_bldg_type"]:
        search = search.with_criterion(sr.Criterion("architectural_style", words=(facts.Bldg_Type,)))
    view = ames_columns.as_of(day_of(dt.date.fromisoformat(check["as_of"])))
    found = mt.run(search, ames_columns, view, me)
    assert [int(k) for k in ames_columns.keys[found.rows]] == check["rows"]
    assert found.counts["sold"] == check["count"]
    ordinary = [r for r in found.rows if ames_columns.words["property_condition"][r] in ("Normal", "Partial")]
    assert [int(ames_columns.keys[r]) for r in ordinary] == check["ordinary_rows"]
    far = miles(me.latitude, me.longitude, ames_columns.lats[found.rows], ames_columns.lons[found.rows])
    nearest = sorted(zip(far, ames_columns.keys[found.rows], strict=True))[: len(check["nearest"])]
    for (m, key), wanted in zip(nearest, check["nearest"], strict=True):
        assert (int(key), m) == (wanted["row"], pytest.approx(wanted["miles"], abs=1e-5))
    for name, values in (
        ("price", view.price[found.rows]),
        ("price_per_sqft", view.price[found.rows] / ames_columns.numbers["living_area"][found.rows]),
    ):
        s = summarise(values)
        if check[name] is not None:
            told = {k: getattr(s, k) for k in check[name]}
            assert told == pytest.approx(check[name], abs=0.006)


def test_monthly_series_on_the_ames_data(ames_columns):
    """ames-checks.json: pandas, every row."""
    last = dt.date(2010, 7, 31)
    spans = mk.periods("month", dt.date(2006, 1, 1), last, last)
    names = ["closings", "mean_price", "median_price", "mean_price_per_sqft", "median_price_per_sqft", "volume"]
    points = mk.series(mk.Market(ames_columns, np.arange(len(ames_columns)), day_of(last)), names, spans)
    wanted = {m["month"]: m for m in CHECKS["monthly"]}
    assert len(points) == 55
    for p in points:
        w = wanted[p.period.name]
        assert [p.values[n].value for n in names] == pytest.approx(
            [
                w["closed"],
                w["mean_price"],
                w["median_price"],
                w["mean_price_per_sqft"],
                w["median_price_per_sqft"],
                w["volume"],
            ],
            abs=0.006,
        )


def test_monthly_series_of_ordinary_sales_on_the_ames_data(ames_columns):
    last = dt.date(2010, 7, 31)
    spans = mk.periods("month", dt.date(2006, 1, 1), last, last)
    rows = np.flatnonzero(ames_columns.words["property_condition"].mask(frozenset({"normal", "partial"})))
    points = mk.series(mk.Market(ames_columns, rows, day_of(last)), ["closings", "median_price"], spans)
    for p, w in zip(points, CHECKS["monthly_ordinary"], strict=True):
        assert (p.period.name, p.values["closings"].value, p.values["median_price"].value) == (
            w["month"],
            w["closed"],
            w["median_price"],
        )


def test_year_to_date_on_the_ames_data(ames_columns):
    last = dt.date(2010, 7, 31)
    spans = mk.periods("ytd", dt.date(2009, 1, 1), last, last)
    names = {"closed": "closings", "mean_price": "mean_price", "median_price": "median_price"}
    before, now = mk.series(
        mk.Market(ames_columns, np.arange(len(ames_columns)), day_of(last)), list(names.values()), spans
    )
    for theirs, ours in names.items():
        w = CHECKS["year_to_date_through_july"][theirs]
        a, b = now.values[ours].value, before.values[ours].value
        assert (a, b) == pytest.approx((w["y2010"], w["y2009"]))
        assert mk.change_of(a, b, "").size == pytest.approx(w["change_pct"], abs=0.001)


def first_round(X, y) -> Fit:
    """The fit that production makes where no residual counts as odd: least squares."""
    with pytest.MonkeyPatch.context() as patch:
        patch.setattr(regression, "HUBER", np.inf)
        return robust_fit(X, y, rounds=1)


def _agrees(fit, wanted, rel=1e-5):
    """Errors too: production scales them by the residuals' middle, R by their mean square; that apart they are the same."""
    terms = list(wanted["terms"].values())
    mean_square = np.sqrt(fit.residuals @ fit.residuals / (fit.n - len(terms)))
    assert fit.coef == pytest.approx([t["coef"] for t in terms], rel=rel)
    assert fit.se / fit.scale * mean_square == pytest.approx([t["se"] for t in terms], rel=rel)
    assert fit.n == wanted["n"]


def test_least_squares_agrees_with_r_on_windsor():
    """R 4.2 lm; the model of Anglin and Gençay (1996) in its linear part."""
    w = pd.read_csv(DATA / "windsor.csv")
    yes = [(w[c] == "yes").astype(float) for c in ("driveway", "recreation", "fullbase", "gasheat", "aircon")]
    logs = [np.log(w[c]) for c in ("lotsize", "bedrooms", "bathrooms", "stories")]
    X = np.column_stack([np.ones(len(w)), *yes, w.garage, (w.prefer == "yes").astype(float), *logs])
    fit = first_round(X, np.log(w.price))
    _agrees(fit, CHECKS["hedonic_fits"]["windsor_log_price"])
    y = np.log(w.price)
    r2 = 1 - (fit.residuals @ fit.residuals) / ((y - y.mean()) @ (y - y.mean()))
    assert r2 == pytest.approx(CHECKS["hedonic_fits"]["windsor_log_price"]["r2"], abs=1e-5)


def test_least_squares_agrees_with_r_on_ames(ames):
    """R 4.2 lm on detached ordinary sales under 4,000 sq ft."""
    a = ames[(ames.Bldg_Type == "OneFam") & (ames.Sale_Condition == "Normal") & (ames.Gr_Liv_Area < 4000)]
    t = (a.Year_Sold - 2006) * 12 + a.Mo_Sold
    one = np.ones(len(a))
    plain = np.column_stack(
        [
            one,
            a.Gr_Liv_Area,
            a.Lot_Area,
            a.Year_Built,
            a.Full_Bath,
            a.Half_Bath,
            a.Garage_Cars,
            a.Total_Bsmt_SF,
            a.Fireplaces,
            t,
        ]
    )
    _agrees(first_round(plain, a.Sale_Price), CHECKS["hedonic_fits"]["ames_price"], rel=2e-5)
    log = np.column_stack([one, np.log(a.Gr_Liv_Area), a.Year_Built, a.Full_Bath, a.Half_Bath, a.Garage_Cars, t])
    _agrees(first_round(log, np.log(a.Sale_Price)), CHECKS["hedonic_fits"]["ames_log_price"], rel=2e-5)


def test_the_robust_fit_agrees_with_statsmodels(ames):
    """statsmodels RLM with HuberT and the MAD scale, run to convergence."""
    a = ames[(ames.Bldg_Type == "OneFam") & (ames.Gr_Liv_Area < 4000)]
    X = np.column_stack([np.ones(len(a)), np.log(a.Gr_Liv_Area), (a.Year_Built - 1970) / 10, a.Garage_Cars])
    y = np.log(a.Sale_Price)
    theirs = sm.RLM(y, X, M=sm.robust.norms.HuberT(1.345)).fit(tol=1e-12, maxiter=300, scale_est="mad")
    ours = robust_fit(X, y, rounds=300, tolerance=1e-12)
    assert ours.coef == pytest.approx(theirs.params.to_numpy(), rel=2e-4)
