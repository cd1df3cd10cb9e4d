"""How close prices come, on data that the defaults were not tuned on; beside gradient boosting and price per square foot.

Ames (De Cock 2011, in tests/reference/data): "Normal" single-family sales of the last 18 months, each priced from
earlier sales only. The peer is scikit-learn's HistGradientBoostingRegressor on the same fields, fitted anew each month.
"""

from __future__ import annotations

import datetime as dt
import shutil
import time
from pathlib import Path
from typing import Any

import numpy as np

from bench.timing import Result
from bench.whole_market import LAST
from rain_porch.app.pricing.backtesting import BacktestResult, backtest
from rain_porch.app.records import Records
from rain_porch.app.snapshot import Snapshot
from rain_porch.core.facts.dates import NO_DAY
from rain_porch.core.facts.place import near_miles
from rain_porch.core.facts.words import HomeKind
from rain_porch.core.market.columns import Columns
from rain_porch.core.market.features import features_of
from rain_porch.core.market.listing_facts import recent_sale_rows
from rain_porch.records.importing import import_file

AMES = Path(__file__).parent.parent / "tests/reference/data/ames.csv"
AMES_MAPPING = {
    "parts": [
        {"field": "property_sub_type", "columns": ["Bldg_Type"],
         "values": {"OneFam": "Single Family Residence", "TwnhsE": "Townhouse", "Twnhs": "Townhouse", "TwoFmCon": "Duplex"}},
        {"field": "special_listing_conditions", "columns": ["Sale_Condition"],
         "values": {"AdjLand": "Not Arms Length", "Alloca": "Not Arms Length", "Abnorml": "Not Arms Length"}},
        {"field": "close_date", "columns": ["Year_Sold", "Mo_Sold"], "how": "date"},
        {"field": "below_grade_finished_area", "columns": ["Total_Bsmt_SF", "Bsmt_Unf_SF"], "how": "difference"},
        *(
            {"field": field, "columns": [column]}
            for field, column in (
                ("close_price", "Sale_Price"), ("latitude", "Latitude"), ("longitude", "Longitude"),
                ("living_area", "Gr_Liv_Area"), ("lot_size_square_feet", "Lot_Area"), ("year_built", "Year_Built"),
                ("year_remodelled", "Year_Remod_Add"), ("bathrooms_full", "Full_Bath"), ("bathrooms_half", "Half_Bath"),
                ("bedrooms_total", "Bedroom_AbvGr"), ("garage_spaces", "Garage_Cars"), ("fireplaces_total", "Fireplaces"),
                ("property_condition", "Overall_Cond"), ("subdivision_name", "Neighborhood"),
                ("architectural_style", "House_Style"),
            )
        ),
    ]
}  # fmt: skip
FIELDS = (
    "living_area", "lot_size_square_feet", "year_built", "year_remodelled", "bathrooms_full", "bathrooms_half",
    "bedrooms_total", "garage_spaces", "fireplaces_total", "below_grade_finished_area", "condition_grade", "latitude",
    "longitude",
)  # fmt: skip


def ames(folder: Path) -> Snapshot:
    """The Ames sales as records of their own, in an empty folder."""
    records = Records(folder)
    if not len(records.snapshot().columns):
        with records.connection() as db:
            import_file(db, AMES, folder=folder, now=dt.datetime(2010, 12, 31), kind="listings", columns=AMES_MAPPING)
    return records.snapshot()


def boosted(columns: Columns, result: BacktestResult, home_kind: HomeKind) -> np.ndarray[Any, Any]:
    """The peer's predictions for the same cases: refitted each month on the sales known when the month began."""
    from sklearn.ensemble import HistGradientBoostingRegressor

    rows = np.array([columns.row_of[c.listing_id] for c in result.cases])
    names = [n for n in FIELDS if n in columns.numbers and np.isfinite(columns.numbers[n][:]).any()]
    assert {*features_of(home_kind)} & {*names}

    def table(of: np.ndarray[Any, Any], day: float | None = None) -> np.ndarray[Any, Any]:
        sold = np.where(columns.contract[of] != NO_DAY, columns.contract[of], columns.close[of]).astype(float)
        when = sold if day is None else np.full(len(of), day)
        return np.column_stack([*(columns.numbers[n][of] for n in names), when])

    out = np.zeros(len(rows))
    months = np.array([c.day for c in result.cases]).astype("datetime64[D]").astype("datetime64[M]")
    for month in np.unique(months):
        day = int(month.astype("datetime64[D]").astype(int))
        known = recent_sale_rows(columns, columns.as_of(day - 1))
        known = known[columns.home_kind[known] == columns.home_kind[rows[0]]]
        fit = HistGradientBoostingRegressor(random_state=1).fit(
            table(known), np.log(columns.numbers["close_price"][known])
        )
        mine = months == month
        out[mine] = np.exp(fit.predict(table(rows[mine], float(day))))
    return out


def report(
    records: Snapshot, start: dt.date, end: dt.date, kind: HomeKind, sample: int | None = None
) -> dict[str, Any]:
    """Median errors of ours, the peer's and price per square foot, their ratios, and how the range held."""
    from rain_porch.core.facts.homes import Subject

    columns = records.columns
    known = columns.home_kind == list(HomeKind).index(kind)
    near = Subject({}, float(np.nanmedian(columns.lats[known])), float(np.nanmedian(columns.lons[known])), kind)
    result = backtest(records, start, end, sample or 10**6, 1, near=near)
    actual = np.array([c.actual for c in result.cases])
    for line in where_it_fails(columns, result):
        print(f"    {line}", flush=True)
    peer = float(np.median(np.abs(boosted(columns, result, kind) / actual - 1)))
    ours, per_sqft = result.methods["adjusted_comps"], result.methods["mean_price_per_sqft"]
    return {
        "subjects": len(result.cases),
        "ours_mdape": ours.mdape, "model_mdape": result.methods["model"].mdape, "peer_mdape": peer,
        "per_sqft_mdape": per_sqft.mdape, "ratio_to_peer": ours.mdape / peer,
        "better_than_per_sqft": 1 - ours.mdape / per_sqft.mdape, "pe10": ours.pe10, "bias": ours.bias,
        "hits": result.range.hits, "hits_by_fifth": [round(f.hits, 3) for f in result.range.by_fifth],
        "median_width": result.range.median_width,
        "per_second": (len(result.cases) + len(result.before)) / result.seconds,
    }  # fmt: skip


def plain_per_second(columns: Columns) -> float:
    """Sales priced a second by the mean price per square foot of the half year's like sales within a mile, in pandas."""
    import pandas as pd

    frame = pd.DataFrame(
        {"day": columns.close, "lat": columns.lats, "lon": columns.lons, "area": columns.numbers["living_area"][:],
         "price": columns.numbers["close_price"][:]}
    ).dropna()  # fmt: skip
    frame = frame[frame["day"] != NO_DAY].sort_values("day")
    asked = frame.iloc[-100:]
    start = time.perf_counter()
    for s in asked.itertuples():
        near = frame[
            (frame["day"] < s.day) & (frame["day"] >= s.day - 183)
            & (np.hypot((frame["lat"] - s.lat) * 69, (frame["lon"] - s.lon) * 52) <= 1)
            & frame["area"].between(0.85 * s.area, 1.15 * s.area)
        ]  # fmt: skip
        float((near["price"] / near["area"]).mean() * s.area)
    return len(asked) / (time.perf_counter() - start)


def where_it_fails(columns: Columns, result: BacktestResult) -> list[str]:
    """Median error and share inside 10 % by thirds of size, price, age and of how many sales a year lie within a mile."""
    rows = np.array([columns.row_of[c.listing_id] for c in result.cases])
    errors = np.array([c.value / c.actual - 1 for c in result.cases])
    days = np.array([c.day for c in result.cases])
    sold = np.flatnonzero((columns.close != NO_DAY) & np.isfinite(columns.numbers["close_price"][:]) & ~columns.lease)
    near = []
    for row, day in zip(rows, days, strict=True):
        late = sold[(columns.close[sold] < day) & (columns.close[sold] >= day - 365)]
        near.append(
            (near_miles(columns.lats[row], columns.lons[row], columns.lats[late], columns.lons[late]) <= 1).sum()
        )
    out = []
    for name, values in (
        ("sq ft", columns.numbers["living_area"][rows]),
        ("price", np.array([c.value for c in result.cases])),
        ("year built", columns.numbers["year_built"][rows]),
        ("sales a year within a mile", np.array(near, dtype=float)),
    ):
        low, high = np.nanpercentile(values, [100 / 3, 200 / 3])
        parts = []
        for words, mask in (
            (f"up to {low:.0f}", values <= low), (f"to {high:.0f}", (values > low) & (values <= high)),
            ("above", values > high),
        ):  # fmt: skip
            e = errors[mask]
            parts.append(
                f"{words}: {100 * np.median(np.abs(e)):.1f} % ({100 * (np.abs(e) <= 0.1).mean():.0f} % within 10, "
                f"bias {100 * np.median(e):+.1f})"
            )
        out.append(f"{name}: " + "; ".join(parts))
    return out


def measured(demo: Path, folder: Path) -> list[Result]:
    """Median errors in percent, ours over the peer's; and how many sales a second a backtest prices."""
    shutil.rmtree(folder, ignore_errors=True)
    out = []
    for name, records, start, end, sample in (
        ("Ames, last 18 months", ames(folder), dt.date(2009, 2, 1), dt.date(2010, 7, 31), None),
        ("demo, last 2 years", Records(demo).snapshot(), dt.date(2024, 11, 1), LAST, 800),
    ):
        r = report(records, start, end, HomeKind.DETACHED, sample)
        ours, peer = 100 * r["ours_mdape"], 100 * r["peer_mdape"]
        note = (
            f"{r['subjects']} sales; {100 * r['better_than_per_sqft']:.0f} % nearer than mean price per sq ft; range held "
            f"{100 * r['hits']:.1f} %, by fifth {', '.join(f'{100 * h:.0f}' for h in r['hits_by_fifth'])}"
        )
        out.append(
            Result(
                "median error of adjusted comps",
                name,
                ours,
                ours,
                1.05 * peer,
                "gradient boosting",
                peer,
                "%",
                note=note,
            )
        )
        out.append(
            Result("backtest", name, r["per_second"], r["per_second"], 100, "plain pandas", plain_per_second(records.columns),
                   unit="sales/s", note="the peer means the price per sq ft of like sales nearby, no rates and no range")
        )  # fmt: skip
    return out
