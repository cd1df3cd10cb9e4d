"""A bulletin from its figures to the PDF, of a town and of the whole market, beside the setting of its pages alone."""

from __future__ import annotations

import datetime as dt
import time

import numpy as np

from bench.timing import Result
from rain_porch.app.bulletin.documents import BulletinDoc
from rain_porch.app.bulletin.kept import ready
from rain_porch.app.handover.bulletin_papers import bulletin_model
from rain_porch.app.market.views import ViewDoc
from rain_porch.app.office.agent import folders_agent
from rain_porch.app.snapshot import Snapshot
from rain_porch.report import typesetting
from rain_porch.report.papers import as_pdf, as_pictures

AGAIN = 5


def measured(records: Snapshot) -> list[Result]:
    """Each time nothing is kept from the time before: no figure, no page."""
    city = records.columns.words["city"]
    rows = np.bincount(city.codes[city.codes >= 0], minlength=len(city.words))
    towns = [w for w, n in zip(city.words, np.cumsum(rows), strict=True) if n <= 25_000]
    of_town = ViewDoc(measures=["median_price"], places=towns[:6], together=True)
    asked = [
        (f"{int(rows[: len(of_town.places)].sum()):,} listings", of_town, 1000.0),
        (f"{len(records.columns):,} listings", ViewDoc(measures=["median_price"]), 3000.0),
    ]
    out = []
    with folders_agent(records, now=lambda: dt.datetime(2026, 11, 2, 9)) as agent:
        for where, view, budget in asked:
            made: BulletinDoc = ready("four_pages", view, "A bulletin")
            ours, pages = [], []
            for _ in range(1 + AGAIN):  # the first reads what a start leaves unread
                _forget(records)
                start = time.perf_counter()
                model = bulletin_model(agent, made)
                half = time.perf_counter()
                as_pdf(model)
                end = time.perf_counter()
                ours.append(1000 * (end - start))
                pages.append(1000 * (end - half))
            out.append(
                Result("four-page bulletin, figures to PDF", where, float(np.median(ours[1:])), float(np.percentile(ours[1:], 95)), budget,
                       "setting the pages alone", float(np.median(pages[1:])))
            )  # fmt: skip
            shown = []
            for _ in range(AGAIN):
                typesetting._set_before.cache_clear()
                start = time.perf_counter()
                as_pictures(bulletin_model(agent, made), "svg")
                shown.append(1000 * (time.perf_counter() - start))
            out.append(
                Result(
                    "preview of a bulletin whose words changed",
                    where,
                    float(np.median(shown)),
                    float(np.percentile(shown, 95)),
                    300.0,
                )
            )
    return out


def _forget(records: Snapshot) -> None:
    for memo in (records.tables, records._memo, records.papers):
        memo._made.clear()
    typesetting._set_before.cache_clear()
