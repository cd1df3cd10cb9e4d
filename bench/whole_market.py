"""Counts, candidates and market views over the whole market, each beside DuckDB on the same rows."""

from __future__ import annotations

import datetime as dt
from collections.abc import Callable, Sequence
from dataclasses import replace
from typing import Any

import numpy as np

from bench import market_rows
from bench.market_rows import Asked
from bench.timing import Result, times
from rain_porch.app.pricing.candidates import candidates
from rain_porch.app.pricing.standpoint import Standpoint
from rain_porch.app.snapshot import Snapshot
from rain_porch.core.facts.dates import day_of
from rain_porch.core.market import measures as mk
from rain_porch.core.market.columns import AsOf, Columns
from rain_porch.core.search import matching as mt
from rain_porch.core.search import steps
from rain_porch.core.search.shapes import Shape

LAST = dt.date(2026, 10, 31)
MEASURES = (
    "closings",
    "new_listings",
    "failed",
    "volume",
    "mean_price",
    "median_price",
    "mean_price_per_sqft",
    "for_sale",
)


def measured(records: Snapshot) -> list[Result]:
    columns = records.columns
    on = f"{len(columns):,} listings"
    view = columns.as_of(day_of(LAST))
    con = market_rows.into_duckdb(columns, view)
    near, everywhere = (market_rows.searches(columns, 200, place, seed=3) for place in (True, False))
    out = [
        counts("live counts by place", near, columns, view, con, on),
        counts("live counts, whole market", everywhere, columns, view, con, on),
        *what_if(near[:60], columns, view, con, on),
        in_an_outline(near[:60], columns, view, con, on),
        ranked(records, columns, view, con, on),
    ]
    con.close()
    return [*out, *market_views(columns, on)]


def counts_alone(records: Snapshot) -> float:
    """Median ms of the counts by place with nothing beside."""
    columns = records.columns
    view = columns.as_of(day_of(LAST))
    asked = market_rows.searches(columns, 200, True, seed=3)
    return times([lambda a=a: mt.run(a.search, columns, view, a.subject) for a in asked])[0]


def counts(name: str, asked: Sequence[Asked], columns: Columns, view: AsOf, con: Any, on: str) -> Result:
    for a in asked[:30]:
        if not market_rows.counts_agree(columns, view, con, a):
            raise SystemExit(f"{name}: the peer counts otherwise; nothing is compared")
    ours = times([lambda a=a: mt.run(a.search, columns, view, a.subject) for a in asked])
    theirs = times([lambda a=a: con.execute(market_rows.as_sql(a, view)).fetchall() for a in asked])
    return Result(name, on, *ours, 15, "DuckDB", theirs[0], at_most_peer=True)


def what_if(asked: Sequence[Asked], columns: Columns, view: AsOf, con: Any, on: str) -> list[Result]:
    """Every part of a search one step looser, tighter, and without it; the peer is asked once for each of them."""
    ours = times([lambda a=a: steps.what_if(a.search, columns, view, a.subject) for a in asked])
    stepped = [[s.search for way in (True, False) for s in steps.steps(a.search, way)] for a in asked]
    theirs = times(
        [
            lambda a=a, each=each: [con.execute(market_rows.as_sql(Asked(s, a.subject), view)).fetchall() for s in each]
            for a, each in zip(asked[:20], stepped, strict=False)
        ]
    )
    parts = [next(iter(steps.steps(a.search, True))).part for a in asked]
    ways = [
        [a.search, *(s.search for way in (True, False) for s in steps.steps(a.search, way) if s.part == part)]
        for a, part in zip(asked, parts, strict=True)
    ]
    one = times(
        [
            lambda a=a, each=each: [mt.run(s, columns, view, a.subject).counts for s in each]
            for a, each in zip(asked, ways, strict=True)
        ]
    )
    note = f"{np.mean([len(s) for s in stepped]):.0f} other searches each; the peer without the counts “without”"
    return [
        Result("what-if counts of one part", on, *one, 60, note="without it, one step looser, one tighter"),
        Result("what-if counts of a whole search", on, *ours, None, "DuckDB", theirs[0], note=note),
    ]


def in_an_outline(asked: Sequence[Asked], columns: Columns, view: AsOf, con: Any, on: str) -> Result:
    """Counts within a drawn outline of 200 corners; the peer takes its box, and Matplotlib tells who is inside."""
    from matplotlib.path import Path as Outline

    around = np.linspace(0, 2 * np.pi, 200, endpoint=False)
    ours: list[Callable[[], object]] = []
    theirs: list[Callable[[], object]] = []

    def peer(box: str, outline: Outline) -> Any:
        found = con.execute(box).fetchnumpy()
        return outline.contains_points(np.column_stack([found["lon"], found["lat"]])).sum()

    for a in asked:
        far = (0.7 + 0.25 * np.sin(5 * around)) * 2 / 69
        ring = np.column_stack([a.subject.longitude + far * np.cos(around), a.subject.latitude + far * np.sin(around)])
        anywhere = replace(a.search, radius_miles=None)
        drawn = replace(anywhere, shapes=(Shape(tuple((float(x), float(y)) for x, y in ring)),))
        (west, south), (east, north) = ring.min(axis=0), ring.max(axis=0)
        box = market_rows.as_sql(Asked(anywhere, a.subject), view).replace("SELECT kind, count(*)", "SELECT lon, lat")
        box = box.replace(" GROUP BY kind", f" AND lat BETWEEN {south} AND {north} AND lon BETWEEN {west} AND {east}")
        outline = Outline(ring)
        ours.append(lambda drawn=drawn, a=a: mt.run(drawn, columns, view, a.subject))
        theirs.append(lambda box=box, outline=outline: peer(box, outline))
        if abs(len(mt.run(drawn, columns, view, a.subject).rows) - peer(box, outline)) > 1:
            raise SystemExit("The peer finds others in the outline; nothing is compared")
    peers = times(theirs)
    return Result(
        "live counts in a drawn outline", on, *times(ours), 15, "DuckDB and Matplotlib", peers[0], at_most_peer=True
    )


def ranked(records: Snapshot, columns: Columns, view: AsOf, con: Any, on: str) -> Result:
    """Found, ranked by likeness, 200 with all their facts; the peer sorts by distance and gives six facts."""
    asked = market_rows.searches(columns, 60, True, seed=4)

    def ours(a: Asked) -> object:
        standpoint = Standpoint(records, columns, view, a.subject)
        return candidates(standpoint, standpoint.run(a.search).rows, 200)

    def theirs(a: Asked) -> object:
        facts = market_rows.as_sql(a, view).replace("SELECT kind, count(*)", "SELECT *").replace(" GROUP BY kind", "")
        far = f"pow(lat - {a.subject.latitude}, 2) + pow((lon - {a.subject.longitude}) * 0.75, 2)"
        return con.execute(f"{facts} ORDER BY {far} LIMIT 200").fetchall()

    peer = times([lambda a=a: theirs(a) for a in asked])
    note = "the peer ranks by distance alone"
    return Result(
        "candidates, ranked, with facts",
        on,
        *times([lambda a=a: ours(a) for a in asked]),
        60,
        "DuckDB",
        peer[0],
        note=note,
    )


def market_views(columns: Columns, on: str) -> list[Result]:
    everything = np.arange(len(columns))
    city = columns.words["city"].codes
    town = np.flatnonzero((city >= 0) & (city < 5))[:25_000]
    name = "market view, 5 years by month, 8 measures"
    through = day_of(LAST)
    spans = mk.periods("month", dt.date(2021, 11, 1), LAST, LAST)
    out = []
    for rows, where, budget, again in ((town, f"{len(town):,} listings", 50, 20), (everything, on, 200, 5)):
        ours = times([lambda r=rows: mk.series(mk.Market(columns, r, through), MEASURES, spans)] * again, warm=1)
        con = market_rows.into_duckdb(columns, columns.as_of(through), rows)
        query = market_rows.months_into(con, spans)
        theirs = times([lambda q=query, con=con: con.execute(q).fetchall()] * again, warm=1)
        con.close()
        out.append(Result(name, where, *ours, budget, "DuckDB", theirs[0], at_most_peer=True))
    return out
