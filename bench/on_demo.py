"""Prices and papers on the demo town, beside plain ways to the same: pandas, statsmodels, Matplotlib."""

from __future__ import annotations

import itertools
import shutil
from collections.abc import Callable
from dataclasses import replace
from pathlib import Path
from typing import Any

import numpy as np

from bench.timing import Result, times
from rain_porch.app.handover.report_input import report_input
from rain_porch.app.home.homes import HomeRef
from rain_porch.app.office.agent import folders_agent
from rain_porch.app.pricing.candidates import most_alike
from rain_porch.app.pricing.pricing import Decided, price
from rain_porch.app.pricing.standpoint import Standpoint
from rain_porch.app.records import Records
from rain_porch.app.workup.changes import Decide
from rain_porch.app.workup.workups import begin_workup, change_workup, open_workup
from rain_porch.core.price.evidence import wide_fit
from rain_porch.report.layouts import LAYOUTS
from rain_porch.report.papers import page_pictures, pdf


def measured(demo: Path, work: Path) -> list[Result]:
    shutil.rmtree(work, ignore_errors=True)
    work.mkdir(parents=True)
    for name in ("records.db", "demo.txt"):
        shutil.copy(demo / name, work / name)
    if (demo / "photos").is_dir():
        shutil.copytree(demo / "photos", work / "photos")
    records = Records(work)
    row = records.live.execute(
        "SELECT parcel_number FROM parcels WHERE unparsed_address = '630 Hedgerow Terrace'"
    ).fetchone()
    with folders_agent(records.snapshot()) as agent:
        n = begin_workup(agent, HomeRef("parcel", row[0]))
        opened = open_workup(agent, n)
        standpoint = opened.standpoint
        comps = most_alike(standpoint, opened.state.search.search().with_days("sold", 730))
        out = prices(standpoint, comps)
        change_workup(agent, n, 1, Decide(change="decide", listing_ids=[c.listing_id for c in comps], choice="kept"))
        return [*out, *papers(lambda: report_input(agent, n), comps, work / "plain")]


def prices(standpoint: Standpoint, comps: list[Any]) -> list[Result]:
    on = f"{len(comps)} comps, demo"
    shared = wide_fit(standpoint.columns, standpoint.view, standpoint.subject)
    one = Decided(rates={"living_area": 90.0})
    facts = {k: v for k, v in standpoint.subject.facts.items() if isinstance(v, float)}
    rates = dict.fromkeys(facts, 10.0)
    return [
        Result("grid and value after one decision", on, *times([lambda: price(standpoint, comps, decided=one, shared=shared)] * 40),
               15, "plain pandas", times([lambda: plain_grid(comps, facts, rates)] * 20)[0]),
        Result("grid and value, fresh evidence", on, *times([lambda: price(standpoint, comps)] * 40), 35,
               "statsmodels and pandas", times([lambda: plain_evidence(standpoint, comps, facts)] * 20)[0],
               note="the peer fits one robust regression of the sales within a mile"),
    ]  # fmt: skip


def papers(gather: Callable[[], Any], comps: list[Any], out: Path) -> list[Result]:
    """Each run sets another client's report: what was just set is not set anew, and would measure nothing."""
    held = gather()
    clients = itertools.count()

    def fresh() -> Any:
        return replace(held, client=f"Client {next(clients)}")

    long = len(LAYOUTS["full"])
    return [
        Result("report, short, set", "demo", *times([lambda: pdf(fresh(), "three_pages")] * 8, warm=1), 1500, "Matplotlib tables",
               times([lambda: plain_report(comps, out.with_suffix(".pdf"), 3)] * 5, warm=1)[0]),
        Result(f"report, {long} parts and a sheet a home, set", "demo", *times([lambda: pdf(fresh(), "full")] * 8, warm=1), 1500,
               "Matplotlib tables", times([lambda: plain_report(comps, out.with_suffix(".pdf"), long)] * 5, warm=1)[0]),
        Result("one preview page, set", "demo", *times([lambda: page_pictures(fresh(), "full", 3, "svg")] * 12, warm=2), 300,
               "Matplotlib table", times([lambda: plain_report(comps, out.with_suffix(".png"), 1)] * 8, warm=1)[0]),
    ]  # fmt: skip


def plain_grid(comps: list[Any], subject: dict[str, float], rates: dict[str, float]) -> float:
    """The grid's arithmetic in plain pandas."""
    import pandas as pd

    frame = pd.DataFrame([{**c.facts, "close": c.price, "likeness": c.likeness} for c in comps])
    total = frame["close"].copy()
    for name, rate in rates.items():
        if name in frame and name in subject:
            total = total + (rate * (subject[name] - pd.to_numeric(frame[name]))).fillna(0)
    weight = frame["likeness"] ** 4
    return float((total * weight).sum() / weight.sum())


def plain_evidence(standpoint: Standpoint, comps: list[Any], subject: dict[str, float]) -> float:
    """Rates by statsmodels' robust regression of the two years' sales within a mile, then the grid in pandas."""
    import statsmodels.api as sm

    columns, view, me = standpoint.columns, standpoint.view, standpoint.subject
    rows = view.rows_since(0, view.day - 730)
    far = np.hypot((columns.lats[rows] - me.latitude) * 69, (columns.lons[rows] - me.longitude) * 52)
    rows = rows[(far <= 1) & (columns.home_kind[rows] == 0)]
    names = ["living_area", "lot_size_square_feet", "year_built", "bathrooms_full", "garage_spaces"]
    x = np.column_stack([*(columns.numbers[n][rows] for n in names), view.date[rows]])
    y = view.price[rows]
    good = np.isfinite(x).all(axis=1) & np.isfinite(y)
    fit = sm.RLM(y[good], sm.add_constant(x[good])).fit()
    return plain_grid(comps, subject, dict(zip(names, map(float, fit.params[1:-1]), strict=True)))


def plain_report(comps: list[Any], path: Path, pages: int) -> None:
    """Pages of one table each by Matplotlib, as a PDF or as a picture of one."""
    from matplotlib.backends.backend_agg import FigureCanvasAgg
    from matplotlib.backends.backend_pdf import PdfPages
    from matplotlib.figure import Figure

    def page() -> Figure:
        figure = Figure(figsize=(8.5, 11), dpi=150)
        axes = figure.add_subplot()
        axes.axis("off")
        axes.table([[c.listing_id, c.date, c.price, c.likeness] for c in comps], loc="center")
        return figure

    if path.suffix == ".png":
        FigureCanvasAgg(page()).print_png(path)  # type: ignore[no-untyped-call]
        return
    with PdfPages(path) as out:
        for _ in range(pages):
            out.savefig(page())
