"""How close prices come, beside gradient boosting on the same fields and price per square foot as it is done by hand.

Early county: the sales of 1995 and 1996, on whose even half the defaults were tuned. Ames (De Cock 2011): "Normal" single-family sales
of the last 18 months. Both in tests/reference/data, each sale priced from earlier ones only.
"""

from __future__ import annotations

import datetime as dt
import gzip
import shutil
import time
from pathlib import Path
from typing import Any

import numpy as np

from bench.boosting import Peers, peers
from bench.failing import drawn, failing, floor
from bench.timing import Result, table
from bench.whole_market import LAST
from rain_porch.app.pricing.backtesting import backtest
from rain_porch.app.records import Records
from rain_porch.app.snapshot import Snapshot
from rain_porch.core.facts.dates import NO_DAY
from rain_porch.core.facts.fields import own_name
from rain_porch.core.facts.words import HomeKind
from rain_porch.core.market.columns import Columns
from rain_porch.records.importing import import_file

DATA = Path(__file__).parent.parent / "tests/reference/data"
AMES, COUNTY = DATA / "ames.csv", DATA / "county-early.csv.gz"
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


# what an office would keep of that file beside the catalogue's fields
OWN_COLUMNS = (
    ("number", ("Total_Bsmt_SF", "Mas_Vnr_Area", "Wood_Deck_SF", "Open_Porch_SF", "Screen_Porch", "Lot_Frontage", "Kitchen_AbvGr",
                "Bsmt_Full_Bath", "Garage_Area", "First_Flr_SF")),
    ("words", ("Exterior_1st", "Foundation", "Bsmt_Exposure", "Mas_Vnr_Type", "Garage_Finish", "BsmtFin_Type_1", "Heating_QC", "Exter_Cond",
               "Functional", "Condition_1", "MS_Zoning", "Central_Air")),
)  # fmt: skip


def ames(folder: Path, own: bool = False) -> Snapshot:
    """The Ames sales as records of their own, in an empty folder. own: with fields of the office's own."""
    records = Records(folder)
    more = (
        [{"field": own_name(kind, head), "columns": [head]} for kind, heads in OWN_COLUMNS for head in heads]
        if own
        else []
    )
    mapping = {"parts": [*AMES_MAPPING["parts"], *more]}
    if not len(records.snapshot().columns):
        with records.connection() as db:
            import_file(db, AMES, folder=folder, now=dt.datetime(2010, 12, 31), kind="listings", columns=mapping)
    return records.snapshot()


def county(folder: Path) -> Snapshot:
    """The early county's sales as records of their own, in an empty folder."""
    records = Records(folder)
    if not len(records.snapshot().columns):
        folder.mkdir(parents=True, exist_ok=True)
        plain = folder / "county-early.csv"
        plain.write_bytes(gzip.decompress(COUNTY.read_bytes()))
        with records.connection() as db:
            import_file(db, plain, folder=folder, now=dt.datetime(1996, 12, 31))
    return records.snapshot()


def report(
    records: Snapshot, start: dt.date, end: dt.date, kind: HomeKind, sample: int | None = None
) -> dict[str, Any]:
    """Errors of ours, of the peers and of price per square foot, their ratios, and how the ranges held."""
    from rain_porch.core.facts.homes import Subject

    columns = records.columns
    known = columns.home_kind == list(HomeKind).index(kind)
    near = Subject({}, float(np.nanmedian(columns.lats[known])), float(np.nanmedian(columns.lons[known])), kind)
    result = backtest(records, start, end, sample or 10**6, 1, near=near)
    actual = np.array([c.actual for c in result.cases])
    alongs = failing(columns, result)
    for along in alongs:
        print(
            f"    {along.name}: "
            + ", ".join(f"{v:,.4g}: {e:.1f} %" for v, e in zip(along.middles, along.errors, strict=True)),
            flush=True,
        )
    low, pairs = floor(columns, np.array([columns.row_of[c.listing_id] for c in result.cases]))
    print(f"    floor: twins on one street differ by {low:.1f} % each ({pairs} pairs)", flush=True)
    other = peers(columns, result)
    mine = np.array([c.value for c in result.cases])
    told = {"ours": mine, "lightgbm": other.lightgbm, "boosting": other.boosting}
    losses = {name: _loss(values, actual) for name, values in told.items()}
    for name, values in told.items():
        print(f"    {name}: {_said(values, actual)}", flush=True)
    low, high = _interval(losses["ours"] - np.minimum.reduce([losses["lightgbm"], losses["boosting"]]))
    print(
        f"    mean loss, ours less the better peer's of each sale: between {low:+.3f} and {high:+.3f} in 95 of 100 redrawn samples",
        flush=True,
    )
    for name in ("lightgbm", "boosting"):
        low, high = _interval(losses["ours"] - losses[name])
        print(f"    mean loss, ours less {name}'s: {low:+.3f} to {high:+.3f} in 95 of 100 redrawn samples", flush=True)
    held = (actual >= other.low) & (actual <= other.high)
    even = _evened(other, actual)
    print(
        f"    ranges: ours {100 * (result.range.hits or 0):.1f} % held, median width {result.range.median_width:.3f}; LightGBM's quantiles "
        f"{100 * held.mean():.1f} %, {np.median((other.high - other.low) / other.lightgbm):.3f}; widened until they hold 80 %: {even:.3f}",
        flush=True,
    )
    ours, per_sqft = result.methods["adjusted_comps"], result.methods["mean_price_per_sqft"]
    return {
        "subjects": len(result.cases),
        "ours_mdape": ours.mdape, "model_mdape": result.methods["model"].mdape,
        "lightgbm_mdape": _mdape(other.lightgbm, actual), "boosting_mdape": _mdape(other.boosting, actual),
        "per_sqft_mdape": per_sqft.mdape, "better_than_per_sqft": 1 - ours.mdape / per_sqft.mdape, "pe10": ours.pe10,
        "lightgbm_pe10": _within(other.lightgbm, actual), "loss": float(losses["ours"].mean()),
        "lightgbm_loss": float(losses["lightgbm"].mean()), "boosting_loss": float(losses["boosting"].mean()), "bias": ours.bias,
        "hits": result.range.hits, "hits_by_fifth": [round(f.hits, 3) for f in result.range.by_fifth],
        "median_width": result.range.median_width, "lightgbm_width": even,
        "alongs": alongs, "floor": low,
        "per_second": (len(result.cases) + len(result.before)) / result.seconds,
    }  # fmt: skip


Values = np.ndarray[Any, Any]


def _mdape(values: Values, actual: Values) -> float:
    return float(np.median(np.abs(values / actual - 1)))


def _within(values: Values, actual: Values) -> float:
    return float((np.abs(values / actual - 1) <= 0.1).mean())


def _loss(values: Values, actual: Values) -> Values:
    """log(1 + (e ÷ 0.12)²) of each: what prices are tuned to, steadier than the median."""
    return np.asarray(np.log1p(((values / actual - 1) / 0.12) ** 2))


def _said(values: Values, actual: Values) -> str:
    return (
        f"median {100 * _mdape(values, actual):.2f} %, loss {_loss(values, actual).mean():.3f}, mean log error "
        f"{np.abs(np.log(values / actual)).mean():.4f}, within 10 % {100 * _within(values, actual):.1f} %, "
        f"bias {100 * (np.median(values / actual) - 1):+.1f} %"
    )


def _interval(differences: Values) -> tuple[float, float]:
    """Where the mean lies in 95 of 100 samples redrawn from these (bootstrap, seed 1)."""
    rng = np.random.default_rng(1)
    n = differences.size
    means = [float(differences[rng.integers(0, n, n)].mean()) for _ in range(2000)]
    return float(np.percentile(means, 2.5)), float(np.percentile(means, 97.5))


def _evened(other: Peers, actual: Values) -> float:
    """Median width of the quantiles when they are stretched, in logarithms, by what makes them hold 80 % of these very sales."""
    middle = (np.log(other.low) + np.log(other.high)) / 2
    half = np.maximum((np.log(other.high) - np.log(other.low)) / 2, 0.01)
    half = half * np.quantile(np.abs(np.log(actual) - middle) / half, 0.8)
    return float(np.median((np.exp(middle + half) - np.exp(middle - half)) / other.lightgbm))


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


def measured(demo: Path, folder: Path) -> list[Result]:
    """Median errors in percent and mean losses, ours over the peers'; the range; how many sales a second a backtest prices."""
    out, pictures = [], []
    for name, records, start, end, sample, most in (
        (
            "early county, 1995 and 1996",
            county(_emptied(folder / "county")),
            dt.date(1995, 1, 1),
            dt.date(1996, 12, 31),
            None,
            0.92,
        ),
        (
            "Ames, last 18 months",
            ames(_emptied(folder / "ames")),
            dt.date(2009, 2, 1),
            dt.date(2010, 7, 31),
            None,
            1.05,
        ),
        (
            "Ames, with 22 own fields",
            ames(_emptied(folder / "ames-own"), own=True),
            dt.date(2009, 2, 1),
            dt.date(2010, 7, 31),
            None,
            1.05,
        ),
        ("demo, last 2 years", Records(demo).snapshot(), dt.date(2024, 11, 1), LAST, 800, 1.05),
    ):
        r = report(records, start, end, HomeKind.DETACHED, sample)
        ours = 100 * r["ours_mdape"]
        note = (
            f"{r['subjects']} sales; {100 * r['better_than_per_sqft']:.0f} % nearer than mean price per sq ft; range held "
            f"{100 * r['hits']:.1f} %, by fifth {', '.join(f'{100 * h:.0f}' for h in r['hits_by_fifth'])}"
        )
        for peer in ("lightgbm", "boosting"):
            theirs = 100 * r[f"{peer}_mdape"]
            out.append(
                Result(
                    "median error of adjusted comps",
                    name,
                    ours,
                    ours,
                    most * theirs,
                    PEERS[peer],
                    theirs,
                    "%",
                    note=note,
                )
            )
        best = min(("lightgbm", "boosting"), key=lambda p: r[f"{p}_loss"])
        out += [
            Result("1000 × mean log(1 + (error ÷ 0.12)²)", name, 1000 * r["loss"], 1000 * r["loss"], 1000 * r[f"{best}_loss"], PEERS[best],
                   1000 * r[f"{best}_loss"], ""),
            Result("range's median width", name, 100 * r["median_width"], 100 * r["median_width"], 100 * r["lightgbm_width"],
                   "LightGBM's quantiles, widened to hold 80 %", 100 * r["lightgbm_width"], "% of the price"),
            Result("backtest", name, r["per_second"], r["per_second"], 100, "plain pandas", plain_per_second(records.columns),
                   unit="sales/s", note="the peer means the price per sq ft of like sales nearby, no rates and no range"),
        ]  # fmt: skip
        print(table(out), flush=True)
        pictures.append((name, r["alongs"], r["floor"]))
    drawn(pictures, folder / "where-it-fails.png")
    print(f"Where it fails: {folder / 'where-it-fails.png'}", flush=True)
    return out


PEERS = {"lightgbm": "LightGBM", "boosting": "histogram gradient boosting"}


def _emptied(folder: Path) -> Path:
    shutil.rmtree(folder, ignore_errors=True)
    return folder
