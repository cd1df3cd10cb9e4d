"""Searches to time, and the same rows and questions in DuckDB."""

from __future__ import annotations

from collections.abc import Sequence
from dataclasses import dataclass
from typing import Any

import duckdb
import numpy as np
import pandas as pd

from rain_porch.core.facts.dates import day_of
from rain_porch.core.facts.homes import Subject
from rain_porch.core.facts.words import COUNTED, HomeKind
from rain_porch.core.market.columns import RECORD_KINDS, STATUSES, AsOf, Columns
from rain_porch.core.market.measures import Period
from rain_porch.core.search import matching as mt
from rain_porch.core.search.search import Criterion, Search

_FIELDS = ("living_area", "bathrooms_full", "year_built", "garage_spaces", "bedrooms_total", "lot_size_square_feet")


@dataclass(frozen=True)
class Asked:
    search: Search
    subject: Subject


def searches(columns: Columns, n: int, place: bool, seed: int) -> list[Asked]:
    """Random searches round homes of the market, by place or over the whole of it, on one to three fields."""
    rng = np.random.default_rng(seed)
    out = []
    rows = rng.choice(np.flatnonzero(np.isfinite(columns.numbers["living_area"][:]) & np.isfinite(columns.lats)), n)
    for row in rows:
        facts = {f: float(columns.numbers[f][row]) for f in _FIELDS if np.isfinite(columns.numbers[f][row])}
        me = Subject(facts, float(columns.lats[row]), float(columns.lons[row]), HomeKind.DETACHED)
        search = Search(home_kinds=("detached",), radius_miles=float(rng.choice([0.5, 1, 2, 5])) if place else None)
        search = search.with_days("sold", int(rng.choice([90, 180, 365, 730])))
        for field in rng.choice(list(facts), min(len(facts), int(rng.integers(1, 4))), replace=False):
            value = facts[str(field)]
            search = search.with_criterion(Criterion(str(field), value * 0.85, value * 1.15))
        out.append(Asked(search, me))
    return out


def into_duckdb(columns: Columns, view: AsOf, rows: Any = None) -> Any:
    """The same rows (or some of them) as a table in memory, as of the same day."""
    frame = pd.DataFrame(
        {
            "kind": view.kind.astype(np.int32),
            "date": view.date.astype(np.int64),
            "lat": columns.lats,
            "lon": columns.lons,
            "home_kind": columns.home_kind.astype(np.int32),
            "usable": view.open_to_search,
            "arms_length": ~columns.not_arms_length,
            "lease": columns.lease,
            "new": columns.new_construction,
            "on_market": columns.on_market.astype(np.int64),
            "close": columns.close.astype(np.int64),
            "off_market": columns.off_market.astype(np.int64),
            "failed": np.isin(columns.status, [STATUSES.index(s) for s in ("Expired", "Withdrawn", "Canceled")]),
            "close_price": columns.numbers["close_price"][:],
            "list_price": columns.numbers["list_price"][:],
            **{f: columns.numbers[f][:] for f in _FIELDS},
        }
    )
    frame = frame if rows is None else frame.iloc[rows]
    con = duckdb.connect()
    con.register("frame", frame)
    con.execute("CREATE TABLE m AS SELECT * FROM frame")
    con.unregister("frame")
    return con


def as_sql(asked: Asked, view: AsOf) -> str:
    """The same question in SQL: a box, then the distance on a plane that touches here, and unknown values kept."""
    s, me = asked.search, asked.subject
    windows = []
    for code, kind in enumerate(RECORD_KINDS):
        w = s.windows.get(kind)
        if w is not None and w.on:
            since = "" if w.days is None else f" AND date BETWEEN {view.day - w.days} AND {view.day}"
            windows.append(f"(kind = {code}{since})")
    where = ["usable", "arms_length", "NOT new", "home_kind = 0", f"({' OR '.join(windows)})"]
    for c in s.criteria:
        where.append(f"({c.field} IS NULL OR isnan({c.field}) OR {c.field} BETWEEN {c.low} AND {c.high})")
    if s.radius_miles is not None:
        d = s.radius_miles / 68
        where.append(f"lat BETWEEN {me.latitude - d} AND {me.latitude + d}")
        where.append(f"lon BETWEEN {me.longitude - d / 0.7} AND {me.longitude + d / 0.7}")
        # miles a degree on the ellipsoid at the subject's latitude
        sine = np.sin(np.radians(me.latitude)) ** 2
        w = 1 - 0.00669437999014 * sine
        north = np.radians(6378137.0 * (1 - 0.00669437999014) / w**1.5) / 1609.344
        east = np.radians(6378137.0 * np.cos(np.radians(me.latitude)) / np.sqrt(w)) / 1609.344
        where.append(
            f"pow((lat - {me.latitude}) * {north}, 2) + pow((lon - {me.longitude}) * {east}, 2) <= {s.radius_miles**2}"
        )
    return f"SELECT kind, count(*) FROM m WHERE {' AND '.join(where)} GROUP BY kind"


def months_into(con: Any, spans: Sequence[Period]) -> str:
    """The query for eight figures by month; the months are a table of day ranges to join with, as ours are."""
    con.execute("CREATE TABLE months (first BIGINT, last BIGINT)")
    con.executemany("INSERT INTO months VALUES (?, ?)", [(day_of(s.start), day_of(s.end)) for s in spans])
    return f"""
        WITH sold AS (SELECT first, count(*), sum(close_price), avg(close_price), median(close_price),
                             avg(close_price / living_area) FROM m JOIN months ON close BETWEEN first AND last
                      WHERE NOT lease AND close >= {day_of(spans[0].start)} GROUP BY first),
             began AS (SELECT first, count(*) FROM m JOIN months ON on_market BETWEEN first AND last WHERE NOT lease GROUP BY first),
             ended AS (SELECT first, count(*) FROM m JOIN months ON off_market BETWEEN first AND last
                       WHERE failed AND NOT lease GROUP BY first),
             open AS (SELECT last, count(*) FROM m JOIN months ON on_market <= last
                      AND (close < 0 OR close > last) AND (off_market < 0 OR off_market > last) WHERE NOT lease GROUP BY last)
        SELECT (SELECT count(*) FROM sold), (SELECT count(*) FROM began), (SELECT count(*) FROM ended), (SELECT count(*) FROM open)
    """


def counts_agree(columns: Columns, view: AsOf, con: Any, asked: Asked) -> bool:
    """Whether both count the same, to within what a plane differs from the ellipsoid."""
    ours = mt.run(asked.search, columns, view, asked.subject).counts
    theirs = {RECORD_KINDS[k].value: n for k, n in con.execute(as_sql(asked, view)).fetchall()}
    exact = asked.search.radius_miles is None
    total = sum(ours.values())
    gap = sum(abs(ours[k] - theirs.get(k, 0)) for k in COUNTED)
    return gap == 0 if exact else gap <= max(2, 0.02 * total)
