"""How close prices come, on data that the defaults were not tuned on; beside gradient boosting and price per square foot.

Ames (De Cock 2011, in tests/reference/data): "Normal" single-family sales of the last 18 months, each priced from
earlier sales only. The peer is scikit-learn's HistGradientBoostingRegressor on the same fields, fitted anew each month.
"""

from __future__ import annotations

import datetime as dt
from pathlib import Path
from typing import Any

import numpy as np

from rain_porch.core.columns import Columns
from rain_porch.core.dates import NO_DAY, day_of
from rain_porch.core.evidence import features_of
from rain_porch.core.listing_facts import recent_sale_rows
from rain_porch.core.words import HomeKind
from rain_porch.records.importing import import_file
from rain_porch.workups.backtesting import BacktestResult, backtest
from rain_porch.workups.records import Records

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


def ames(folder: Path) -> Records:
    """The Ames sales as records of their own, in an empty folder."""
    records = Records(folder)
    if not len(records.columns()):
        import_file(
            records.db, AMES, folder=folder, now=dt.datetime(2010, 12, 31), kind="listings", columns=AMES_MAPPING
        )
    return records


def boosted(columns: Columns, result: BacktestResult, home_kind: HomeKind) -> np.ndarray[Any, Any]:
    """The peer's predictions for the same cases: refitted each month on the sales known when the month began."""
    from sklearn.ensemble import HistGradientBoostingRegressor

    rows = np.array([columns.row_of[c.listing_id] for c in result.cases])
    names = [n for n in FIELDS if n in columns.numbers and np.isfinite(columns.numbers[n]).any()]
    assert {f.name for f in features_of(home_kind)} & {*names}

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


def report(records: Records, start: dt.date, end: dt.date, kind: HomeKind, sample: int | None = None) -> dict[str, Any]:
    """Median errors of ours, the peer's and price per square foot, their ratios, and how the range held."""
    from rain_porch.core.homes import Subject

    columns = records.columns()
    known = columns.home_kind == list(HomeKind).index(kind)
    near = Subject({}, float(np.nanmedian(columns.lats[known])), float(np.nanmedian(columns.lons[known])), kind)
    result = backtest(records, start, end, sample or 10**6, 1, near=near)
    actual = np.array([c.actual for c in result.cases])
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


def day_range(columns: Columns) -> tuple[dt.date, dt.date]:
    last = dt.date(1970, 1, 1) + dt.timedelta(days=int(columns.close.max()))
    assert day_of(last) == int(columns.close.max())
    return last - dt.timedelta(days=548), last
