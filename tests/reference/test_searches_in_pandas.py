"""Counts of combined searches on the Ames data against a plain pandas computation, hundreds of random searches."""

from __future__ import annotations

import datetime as dt
from pathlib import Path

import numpy as np
import pandas as pd
import pytest
from geographiclib.geodesic import Geodesic
from hypothesis import given, settings
from hypothesis import strategies as st

from rain_porch.core.facts.dates import day_of
from rain_porch.core.facts.homes import Subject
from rain_porch.core.facts.places.place import METRES_PER_MILE
from rain_porch.core.facts.words import HomeKind
from rain_porch.core.search import matching as mt
from rain_porch.core.search import search as sr
from tests.made import market

LAST = dt.date(2010, 7, 31)
FIELDS = {
    "living_area": "Gr_Liv_Area",
    "year_built": "Year_Built",
    "bathrooms_full": "Full_Bath",
    "garage_spaces": "Garage_Cars",
    "lot_size_square_feet": "Lot_Area",
    "bedrooms_total": "Bedroom_AbvGr",
}


def frame() -> pd.DataFrame:
    """Ames, with every ninth garage made unknown so that unknown values are met."""
    a = pd.read_csv(Path(__file__).parent / "data/ames.csv", keep_default_na=False)
    out = pd.DataFrame({ours: a[theirs].astype(float) for ours, theirs in FIELDS.items()})
    out.loc[::9, "garage_spaces"] = np.nan
    out["style"] = a.Bldg_Type
    out["lat"], out["lon"], out["price"] = a.Latitude, a.Longitude, a.Sale_Price.astype(float)
    out["close"] = [dt.date(y, m, 15) for y, m in zip(a.Year_Sold, a.Mo_Sold, strict=True)]
    return out


AMES = frame()
COLUMNS = market(
    [
        {
            "key": str(i),
            "home": i,
            "close_date": r.close,
            "close_price": r.price,
            "latitude": r.lat,
            "longitude": r.lon,
            "architectural_style": r.style,
            **{f: None if np.isnan(getattr(r, f)) else getattr(r, f) for f in FIELDS},
        }
        for i, r in enumerate(AMES.itertuples())
    ]
)
VIEW = COLUMNS.as_of(day_of(LAST))


def exact_miles(lat: float, lon: float) -> np.ndarray:
    return np.array(
        [
            Geodesic.WGS84.Inverse(lat, lon, a, b)["s12"] / METRES_PER_MILE
            for a, b in zip(AMES.lat, AMES.lon, strict=True)
        ]
    )


# a few subjects, their distances worked out once by GeographicLib
SUBJECTS = {i: exact_miles(AMES.lat[i], AMES.lon[i]) for i in (3, 700, 1500, 2400)}


@st.composite
def asked(draw):
    who = draw(st.sampled_from(sorted(SUBJECTS)))
    search = sr.Search(
        radius_miles=draw(st.sampled_from([None, 0.25, 0.5, 1.0, 2.0, 5.0])), leave_out_new_construction=False
    ).with_days("sold", draw(st.sampled_from([60, 180, 365, 1000, None])))
    for field in draw(st.lists(st.sampled_from(sorted(FIELDS)), max_size=4, unique=True)):
        values = AMES[field].dropna()
        low, high = sorted(values.quantile([draw(st.floats(0, 1)), draw(st.floats(0, 1))]))
        ends = draw(st.sampled_from(["both", "low", "high"]))
        search = search.with_criterion(
            sr.Criterion(
                field,
                float(low) if ends != "high" else None,
                float(high) if ends != "low" else None,
                must_be_known=draw(st.booleans()),
            )
        )
    if draw(st.booleans()):
        words = tuple(
            draw(st.lists(st.sampled_from(sorted(AMES["style"].unique())), min_size=1, max_size=3, unique=True))
        )
        search = search.with_criterion(sr.Criterion("architectural_style", words=words))
    return who, search


def in_pandas(who: int, search: sr.Search) -> tuple[set[int], dict[str, int]]:
    rows = AMES[AMES.index != who]
    if search.radius_miles is not None:
        rows = rows[SUBJECTS[who][rows.index] <= search.radius_miles]
    days = search.windows["sold"].days
    rows = rows[rows.close <= LAST]
    if days is not None:
        rows = rows[rows.close >= LAST - dt.timedelta(days=days)]
    unknown = {}
    for c in search.criteria:
        if c.field == "architectural_style":
            rows = rows[rows["style"].isin(c.words)]
            continue
        known = rows[c.field].notna()
        fits = known.copy()
        if c.low is not None:
            fits &= rows[c.field] >= c.low
        if c.high is not None:
            fits &= rows[c.field] <= c.high
        rows = rows[fits if c.must_be_known else fits | ~known]
    for c in search.criteria:
        if c.field != "architectural_style" and (n := int(rows[c.field].isna().sum())):
            unknown[c.field] = n
    return set(rows.index), unknown


@settings(max_examples=250)
@given(asked())
def test_what_is_found_is_what_pandas_finds(given_):
    who, search = given_
    me = Subject({}, AMES.lat[who], AMES.lon[who], HomeKind.DETACHED, own_listing=str(who))
    found = mt.run(search, COLUMNS, VIEW, me)
    rows, unknown = in_pandas(who, search)
    assert set(found.rows.tolist()) == rows
    assert found.counts["sold"] == len(rows) and dict(found.unknown) == unknown


@settings(max_examples=60)
@given(asked())
def test_the_count_without_a_part_is_that_of_leaving_it_out(given_):
    who, search = given_
    me = Subject({}, AMES.lat[who], AMES.lon[who], HomeKind.DETACHED, own_listing=str(who))
    without = mt.run(search, COLUMNS, VIEW, me).without
    for c in search.criteria:
        assert without[c.field]["sold"] == len(in_pandas(who, search.without_criterion(c.field))[0])


def test_the_data_have_what_the_searches_ask_for():
    assert len(AMES) == len(COLUMNS) == 2930 and AMES["garage_spaces"].isna().sum() == 326
    assert all(len(m) == 2930 and m.min() == pytest.approx(0, abs=1e-6) for m in SUBJECTS.values())
