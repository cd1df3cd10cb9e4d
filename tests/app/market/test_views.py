"""Market views against the command line's own answer and against pandas; what is asked wrongly is refused."""

from __future__ import annotations

import datetime as dt
import re

import pandas as pd
import pytest

from rain_porch.app.market.market_document import market_doc
from rain_porch.app.market.views import ViewDoc, answer, year_so_far
from rain_porch.core.errors import BadInput, NotFound
from rain_porch.store.records import series


def test_a_view_is_the_series_of_its_places(demo_records):
    view = ViewDoc(
        measures=["median_price", "closings"], years=2, places=["Quarry Bend", "Lantern Hill"], home_kind="detached"
    )
    told = answer(demo_records, view)
    assert [(line.name, line.axis) for line in told.lines][:2] == [
        ("Quarry Bend · Median price", 0),
        ("Quarry Bend · Closings", 1),
    ]
    start, end = told.periods[0].start, told.periods[-1].end
    for place, line in zip(("Quarry Bend", "Lantern Hill"), told.lines[::2], strict=True):
        doc = market_doc(demo_records, ["median_price"], "month", start, end, place, ["home_kind = detached"])
        assert [p.values["median_price"].value for p in doc.periods] == [x.value for x in line.points]
    assert "in Quarry Bend" in told.sentence and told.newest


def test_smoothing_overlay_and_an_outside_series_agree_with_pandas(demo_records):
    plain = answer(demo_records, ViewDoc(measures=["closings"], years=6))
    smooth = answer(demo_records, ViewDoc(measures=["closings"], years=3, smooth=12))
    want = pd.Series([p.value for p in plain.lines[0].points]).rolling(12).mean()[-len(smooth.periods) :]
    assert [p.value for p in smooth.lines[0].points] == pytest.approx(want.tolist())

    laid = answer(demo_records, ViewDoc(measures=["closings"], years=3, overlay=True))
    assert [p.period for p in laid.periods] == [f"{m:02d}" for m in range(1, 13)]
    by_month = {p.period: x.value for p, x in zip(plain.periods, plain.lines[0].points, strict=True)}
    for line in laid.lines:
        for month, x in zip(laid.periods, line.points, strict=True):
            held = by_month.get(f"{line.name}-{month.period}")
            assert (x is None and held is None) or x.value == held

    name = "Demo mortgage rates"
    told = answer(demo_records, ViewDoc(measures=["median_price"], years=2, series=name))
    rates = pd.Series(dict(series.values(demo_records.db, name)))
    rates.index = pd.to_datetime(rates.index)
    monthly = rates.groupby(rates.index.strftime("%Y-%m")).mean()
    for p, x in zip(told.periods, told.lines[-1].points, strict=True):
        assert (x is None and p.period not in monthly) or x.value == pytest.approx(monthly[p.period])


def test_the_year_so_far_compares_the_same_days(demo_records):
    told = year_so_far(demo_records, ViewDoc(home_kind="detached"))
    rows = {r.measure: r for r in told.rows}
    end = told.end
    for measure in ("closings", "new_listings", "median_price"):
        for year, point in ((end.year, rows[measure].now), (end.year - 1, rows[measure].before)):
            doc = market_doc(
                demo_records,
                [measure],
                "ytd",
                dt.date(year, 1, 1),
                end.replace(year=year),
                None,
                ["home_kind = detached"],
            )
            assert doc.periods[-1].values[measure].value == point.value
    for measure, row in rows.items():
        now, before = row.now.value, row.before.value
        if now is None or not before:
            continue
        points = 100 * (now - before)
        size, unit = (points, "points") if row.unit == "share" else (points / before, "%")
        assert (row.change.size, row.change.unit) == (pytest.approx(size), unit), measure


@pytest.mark.parametrize(
    ("by", "years", "n"), [("month", 5, 60), ("month", 3, 36), ("quarter", 3, 12), ("year", 5, 5), ("month", 1, 12)]
)
def test_years_are_twelve_months_each(demo_records, by, years, n):
    told = answer(demo_records, ViewDoc(by=by, years=years))
    assert len(told.periods) == n
    assert told.periods[-1].start <= told.through <= told.periods[-1].end


def test_each_figure_called_by_a_measures_name_says_over_what(demo_records):
    told = answer(demo_records, ViewDoc(measures=["median_price", "closings"], smooth=3))
    assert {line.label for line in told.lines} == {"Median price, mean of 3 months", "Closings, mean of 3 months"}
    assert re.fullmatch(r"12 months to [A-Z][a-z]{2} \d{4}", told.newest_over)
    standing = answer(demo_records, ViewDoc(measures=["for_sale"]))
    assert standing.newest_over.startswith("at the end of ") and standing.newest == standing.lines[0].points[-1].value


@pytest.mark.parametrize(
    ("view", "error"),
    [
        (ViewDoc(measures=["happiness"]), BadInput),
        (ViewDoc(places=["Atlantis"]), NotFound),
        (ViewDoc(home_kind="castle"), BadInput),
        (ViewDoc(series="tides"), NotFound),
        (ViewDoc(by="year", overlay=True), BadInput),
        (ViewDoc(where=["agent = x"]), BadInput),
    ],
)
def test_what_is_asked_wrongly_is_refused(demo_records, view, error):
    with pytest.raises(error):
        answer(demo_records, view)
