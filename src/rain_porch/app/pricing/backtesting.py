"""Past sales priced as if they were not known: the proposed search, ranking, adjustment and weighting, untouched."""

from __future__ import annotations

import datetime as dt
import itertools
import multiprocessing
import os
import time
from collections import Counter
from collections.abc import Callable, Iterator, Mapping
from dataclasses import dataclass, replace
from typing import Any

import numpy as np
from threadpoolctl import threadpool_limits

from ...core.errors import BadInput, NotEnough
from ...core.facts.dates import date_of, day_of
from ...core.facts.homes import Subject
from ...core.facts.places.place import near_miles
from ...core.facts.words import LAND_KINDS
from ...core.market.columns import HOME_KINDS, Columns, Floats, Ints
from ...core.market.listing_facts import price_days, recent_sale_rows
from ...core.price import evidence as ev
from ...core.price.backtest import Case, KindScore, RangeReport, Score, by_kind, check_ranges, score
from ...core.price.evidence import Evidence, Rate
from ...core.price.grid import adjusted_prices
from ...core.price.location import at_its_own_spot, location_pct
from ...core.price.range_width import half_width
from ...core.price.weights import beside_model, model_weight, weigh
from ...core.price.wide_model import ModelWorth, WideModel
from ...core.price.worth import per_sqft_values
from ...store.db import Readers, WritableDb, connect
from ...store.records import backtests
from ..home.homes import FACT_FIELDS
from ..snapshot import Snapshot
from .candidates import loosened, sold_rows
from .rates import rates_for_rows
from .standpoint import Standpoint
from .wide_models import model_worths, quarter, told_by_others

CALIBRATE, CALIBRATE_DAYS = 400, 730
SHARED_SALES = 20_000
Progress = Callable[[int, int], None]


@dataclass(frozen=True)
class BacktestResult:
    """cases: the predicted sales. before: earlier ones, from which the first ranges were measured."""

    cases: list[Case]
    before: list[Case]
    skipped: dict[str, int]
    methods: dict[str, Score]
    range: RangeReport
    kinds: list[KindScore]
    seconds: float
    start: dt.date
    end: dt.date


def backtest(
    records: Snapshot,
    start: dt.date,
    end: dt.date,
    sample: int | None = None,
    seed: int = 1,
    *,
    near: Subject | None = None,
    workers: int | None = None,
    progress: Progress | None = None,
) -> BacktestResult:
    """Price the sales closed from `start` to `end`, each from what was known before its contract (else its closing).

    sample: so many of them, drawn by `seed`. near: only sales of that home's kind, the nearest ones in place `sample`
    of. Sales of up to two years before are priced as well, to measure the first ranges. BadInput, NotEnough.
    """
    if end < start:
        raise BadInput("to", f"The period ends on {end} before it starts on {start}: swap the two.")
    if sample is not None and sample < 1:
        raise BadInput("sample", "Give a sample of at least 1.")
    began = time.monotonic()
    columns = records.columns
    rows, skipped = _eligible(columns, day_of(start), day_of(end), near)
    if not rows.size:
        raise NotEnough(f"No sale from {start} to {end} can be tested: {_say(skipped)}.")
    rng = np.random.default_rng(seed)
    rows = _drawn(columns, rows, sample, rng, near)
    earlier, _ = _eligible(columns, day_of(start) - CALIBRATE_DAYS, day_of(start) - 1, near)
    most = CALIBRATE if sample is None else max(150, min(CALIBRATE, 2 * sample))
    earlier = _drawn(columns, earlier, most, rng, near)
    cases, before = [], []
    first_day = day_of(start)
    for case, why in _run(records, np.concatenate([rows, earlier]), workers, progress):
        if case is None:
            skipped[why] += 1
        elif case.close_day >= first_day:
            cases.append(case)
        else:
            before.append(case)
    cases.sort(key=lambda c: (c.day, c.listing_id))
    names = ("adjusted_comps", "mean_price_per_sqft", "median_price_per_sqft", "model")
    ranges = check_ranges(cases, before)
    return BacktestResult(
        cases,
        before,
        dict(skipped),
        {name: s for name in names if (s := score(cases, name)) is not None},
        ranges,
        by_kind(cases, before, ranges),
        time.monotonic() - began,
        start,
        end,
    )


def _say(skipped: Counter[str]) -> str:
    return "; ".join(f"{n:,} {why}" for why, n in skipped.items()) or "there is none in the records"


def _eligible(columns: Columns, first: int, last: int, near: Subject | None) -> tuple[Ints, Counter[str]]:
    """Closed listings of the days that can be tested, and why others cannot."""
    closed = (columns.close >= first) & (columns.close <= last) & ~columns.deed
    if near is not None:
        closed &= columns.home_kind == HOME_KINDS.index(near.home_kind)
    skipped: Counter[str] = Counter()
    land = np.isin(columns.home_kind, [HOME_KINDS.index(k) for k in LAND_KINDS])
    size = np.where(land, columns.numbers["lot_size_square_feet"][:], columns.numbers["living_area"][:])
    for why, bad in (
        ("leases", columns.lease),
        ("no close price, or one out of reason", ~(columns.numbers["close_price"][:] > 1000)),
        ("not at arm's length", columns.not_arms_length),
        ("distressed sales", columns.distressed),
        ("no place", ~np.isfinite(columns.lats) | ~np.isfinite(columns.lons)),
        ("no size", ~(size > 0)),
    ):
        if n := int((closed & bad).sum()):
            skipped[why] = n
        closed &= ~bad
    return np.flatnonzero(closed), skipped


def _drawn(columns: Columns, rows: Ints, n: int | None, rng: np.random.Generator, near: Subject | None) -> Ints:
    if n is None or rows.size <= n:
        return rows
    if near is not None:
        far = near_miles(near.latitude, near.longitude, columns.lats[rows], columns.lons[rows])
        return rows[np.argsort(far, kind="stable")[:n]]
    return np.sort(rng.choice(rows, n, replace=False))


Outcome = tuple[Case | None, str]
# the records that forked workers inherit
_inherited: dict[str, Snapshot] = {}


def _run(records: Snapshot, rows: Ints, workers: int | None, progress: Progress | None) -> Iterator[Outcome]:
    columns = records.columns
    tasks = [list(same) for _, same in itertools.groupby(_by_month(columns, rows), key=lambda t: (t[1], quarter(t[0])))]
    workers = min(workers or os.cpu_count() or 1, len(tasks))
    done = 0

    def told(outcomes: list[Outcome]) -> list[Outcome]:
        nonlocal done
        done += len(outcomes)
        if progress:
            progress(done, rows.size)
        return outcomes

    if workers <= 1 or rows.size < 60:
        with threadpool_limits(1):  # as in a worker: sums of several threads differ in their last digits
            for task in tasks:
                yield from told(_price_quarter(records, task))
        return
    _inherited["records"] = records
    try:
        with multiprocessing.get_context("fork").Pool(workers, initializer=_alone) as pool:
            for outcomes in pool.imap_unordered(_price_inherited, tasks):
                yield from told(outcomes)
    finally:
        _inherited.clear()


def _alone() -> None:
    """One thread a worker: side by side they would wait for each other's."""
    threadpool_limits(1)


Months = list[tuple[int, int, Ints]]  # of one quarter and kind of home: they share a wide model


def _price_quarter(records: Snapshot, months: Months) -> list[Outcome]:
    return [outcome for month in months for outcome in _price_month(records, *month)]


def _price_inherited(task: Months) -> list[Outcome]:
    held = _inherited["records"]
    if "own" not in _inherited:  # a database is never read over a parent's connection
        own = Readers([connect(held.folder / "records.db", cache=6000)])
        _inherited["own"] = replace(held, db=own)
    return _price_quarter(_inherited["own"], task)


def _by_month(columns: Columns, rows: Ints) -> Iterator[tuple[int, int, Ints]]:
    """(first day of a month, kind of home, the rows whose price was agreed in it): one shared fit for each."""
    days = price_days(columns, rows) - 1
    months = days.astype("datetime64[D]").astype("datetime64[M]").astype("datetime64[D]").astype(np.int64)
    kinds = columns.home_kind[rows].astype(np.int64)
    order = np.lexsort((months, kinds))
    cuts = np.flatnonzero(np.diff(months[order]) | np.diff(kinds[order])) + 1
    for part in np.split(order, cuts):
        if part.size:
            yield int(months[part[0]]), int(kinds[part[0]]), rows[part]


def subject_of(columns: Columns, row: int) -> Subject:
    """The home of a listing as its own record describes it, without anything that its sale tells."""
    facts: dict[str, float | str] = {}
    for name in (*(f.name for f in FACT_FIELDS), *columns.own):
        value = columns.fact(row, name) if name in columns.numbers or name in columns.words else None
        if value is not None:
            facts[name] = value
    return columns.ranked(Subject(
        facts, float(columns.lats[row]), float(columns.lons[row]), HOME_KINDS[columns.home_kind[row]],
        home_id=int(columns.home_id[row]), own_listing=str(columns.keys[row]),
    ))  # fmt: skip


def _price_month(records: Snapshot, month: int, kind: int, rows: Ints) -> list[Outcome]:
    """Price the sales of one month and kind; the wider market's fit is made once, as of the month's first day."""
    columns = records.columns
    subjects = [subject_of(columns, int(r)) for r in rows]
    middle = Subject({}, float(np.median(columns.lats[rows])), float(np.median(columns.lons[rows])), HOME_KINDS[kind])
    days = price_days(columns, rows) - 1
    around = ev.wide_rows(columns, columns.as_of(month), middle, False, SHARED_SALES)
    others = told_by_others(records, (HOME_KINDS[kind],), month, around, keep=False)
    shared = ev.fit_sales(columns, around, month, middle, others=others)
    view = columns.as_of(int(days.max()))
    distressed = Standpoint(records, columns, view, middle).distressed_share()
    said = model_worths(records, subjects, month)
    return [
        _price_one(
            Standpoint(records, columns, view.sales_until(int(day)), subject, distressed), int(row), shared, *spoken
        )
        for subject, row, day, spoken in zip(subjects, rows, days, said, strict=True)
    ]


def _price_one(
    standpoint: Standpoint, row: int, shared: ev.WideFit | None, model: WideModel | None, worth: ModelWorth | None
) -> Outcome:
    columns, subject, day = standpoint.columns, standpoint.subject, standpoint.view.day
    if shared is None:
        return None, "fewer than five sales before it"
    search, _ = loosened(standpoint, standpoint.proposed())
    found_rows = sold_rows(standpoint, search)
    if not found_rows.size:
        return None, "no comps before it"
    likeness = standpoint.likeness(found_rows)[0]
    best = np.argsort(-likeness, kind="stable")[: standpoint.rules.whole("search.taken")]
    comps, likeness = found_rows[best], likeness[best]
    ages = day - price_days(columns, comps)
    window = int(max(180, ages.max()))
    found = ev.evidence(columns, standpoint.view, subject, window, shared=shared, model=model, worth=worth)
    if found is None:
        return None, "fewer than five sales before it"
    rates = rates_for_rows(standpoint, found, comps)
    value, width = value_of(standpoint, comps, likeness, found, rates)
    predicted = {"adjusted_comps": value}
    if found.model_value is not None:
        predicted["model"] = found.model_value
    predicted |= per_sqft_values(
        columns.numbers["close_price"][comps] / columns.numbers["living_area"][comps], subject.number("living_area")
    )
    return Case(
        str(columns.keys[row]), day, int(columns.close[row]), float(columns.numbers["close_price"][row]), predicted,
        width, subject.latitude, subject.longitude, subject.home_kind.value,
    ), ""  # fmt: skip


def value_of(
    standpoint: Standpoint, comps: Ints, likeness: Floats, found: Evidence, rates: Mapping[str, Rate]
) -> tuple[float, float]:
    """The indicated value of the subject from the sales in `comps`, (n,), by the grid's rules and worth's weights; half the width
    of its range, in logarithms, before past prices have measured it."""
    columns, subject = standpoint.columns, standpoint.subject
    ages = (standpoint.view.day - price_days(columns, comps)).astype(np.float64)
    facts = {name: columns.numbers[name][comps] for name in rates if name in columns.numbers}
    if found.surface is not None:
        facts["location"] = location_pct(found.surface, subject, columns.lats[comps], columns.lons[comps], comps)
    adjusted = adjusted_prices(
        at_its_own_spot(subject), columns.numbers["close_price"][comps], ages,
        columns.numbers["concessions_amount"][comps], facts, rates, found.market_change.pct_per_month,
    )  # fmt: skip
    weights = weigh(adjusted.prices, adjusted.gross_pct, likeness, ages, found.model_value)
    said = float(adjusted.prices @ weights)
    width = half_width(found, subject, said, float(adjusted.gross_pct @ weights))
    voice = model_weight(said, found.model_value) if found.model is not None else 0.0
    weights, share = beside_model(weights, voice, {})
    return float(adjusted.prices @ weights) + share * (found.model_value or 0.0), width


def keep(
    db: WritableDb, columns: Columns, result: BacktestResult, document: Mapping[str, Any], now: dt.datetime
) -> int:
    """Keep a backtest with the records: ranges around its sales are measured by it from now on."""
    rows = (
        (c.listing_id, HOME_KINDS[columns.home_kind[columns.row_of[c.listing_id]]].value, c.latitude, c.longitude,
         c.day, c.close_day, c.actual, c.value, c.width)
        for c in [*result.before, *result.cases]
    )  # fmt: skip
    return backtests.save(db, now.isoformat(timespec="seconds"), document, rows)


def last_sales(records: Snapshot, subject: Subject, day: int, n: int) -> tuple[dt.date, dt.date]:
    """The period of the last sales of the subject's kind that holds about `n` of those nearest: up to three years."""
    columns = records.columns
    rows = recent_sale_rows(columns, columns.as_of(day))
    rows = rows[columns.home_kind[rows] == HOME_KINDS.index(subject.home_kind)]
    close = np.sort(columns.close[rows])
    close = close[close >= day - 3 * 365]
    if not close.size:
        raise NotEnough("No sale of this kind in the last three years: there is nothing to test the method on.")
    first = int(close[max(0, close.size - 3 * n)])
    return date_of(first), date_of(day)
