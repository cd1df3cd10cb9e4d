"""Every kind of home priced against the worth with which it was made, in larger made towns that have many of each.

Three towns of seeds of their own: what a dozen sales of the newest quarter happened to bring moves the level of one town's open land by a
percent or two either way, whoever prices it. 300 parcels a kind in each, drawn with its seed, as they stand on the town's last day; no
listing of theirs is looked at, as for a home that comes to market now. A range is to hold 80 % of prices, and a price has chance in it that a worth has not: each parcel's is drawn around its worth
as the generator draws them (`truth.SALE_NOISE`). Ranges are measured first, kind by kind, by a backtest of the last two years.
"""

from __future__ import annotations

import datetime as dt
import json
import math
import multiprocessing
from dataclasses import dataclass, replace
from pathlib import Path

import numpy as np
from threadpoolctl import threadpool_limits

from bench.timing import Result
from rain_porch.app.home.homes import HomeRef, read_home
from rain_porch.app.pricing.backtest_document import backtest_doc
from rain_porch.app.pricing.backtesting import backtest, keep
from rain_porch.app.pricing.price_document import price_doc
from rain_porch.app.records import Records
from rain_porch.app.snapshot import Snapshot
from rain_porch.core.errors import RainPorchError
from rain_porch.demo import truth
from rain_porch.demo.files import write_town
from rain_porch.demo.houses import build
from rain_porch.demo.plan import EDGE, NEIGHBOURHOODS, lay_out
from rain_porch.demo.trading import Market
from rain_porch.records.importing import import_file
from rain_porch.store.db import Readers, connect

KINDS = ("detached", "attached", "condominium", "small_multi_family", "acreage", "land")
EACH, SEEDS = 300, (12, 13, 14)
TOWN = 4  # how the larger towns are made: another number makes them anew
NOW = dt.datetime(2026, 11, 2, 9, 0)
BIAS_PCT, HELD = 1.5, (77.0, 85.0)
TESTED = 6000  # sales of the last two years that measure the ranges
# open land seldom changes hands, each strip with a tenth of worth that no record tells
ACRES_TURNOVER = 0.14


def city(folder: Path, seed: int) -> Snapshot:
    """The records of a larger town, made and imported once."""
    records = Records(folder)
    if len(records.snapshot().columns):
        return records.snapshot()
    rng = np.random.default_rng(seed)
    hoods = [
        replace(h, attached=0.28, two_family=0.2, condo_buildings=14, turnover=max(h.turnover, 0.04),
                years=(2010, 2046) if h.name == "Foxglove Meadow" else h.years)
        for h in NEIGHBOURHOODS
    ]  # fmt: skip
    west, south, east, _ = EDGE.box
    edges = [
        replace(EDGE, box=(west + 0.75 * k, south - 2, east + 0.75 * k, south + 5), turnover=ACRES_TURNOVER) for k in range(5)
    ]  # fmt: skip
    plan = lay_out(rng, hoods, edges)
    houses = build(plan, rng)
    files = write_town(folder / "files", plan, houses, Market(rng).run(houses), rng)
    for path in files:
        with records.connection() as db:
            import_file(db, path, folder=folder, now=NOW)
    measured = backtest(records.snapshot(), dt.date(2024, 11, 1), dt.date(2026, 10, 31), TESTED)
    now = records.snapshot()
    keep(records.live, now.columns, measured, backtest_doc(measured).model_dump(mode="json"), NOW)
    return records.snapshot()


@dataclass(frozen=True)
class Priced:
    seed: int
    kind: str
    error: float  # log of value ÷ worth
    holds_worth: bool
    holds_price: bool
    width: float


def measured(folder: Path) -> list[Result]:
    """A row a kind: bias in percent against ± 1.5, and the share of prices inside the range. folder: that of the first town's records
    without its seed."""
    told: list[Priced] = []
    for seed in SEEDS:
        place = folder.with_name(f"{folder.name}-{seed}")
        records = city(place, seed)
        _shared["records"], _shared["seed"] = records, seed
        _shared["worths"] = json.loads((place / "truth.json").read_text(encoding="utf-8"))
        with multiprocessing.get_context("fork").Pool(2, initializer=_alone) as pool:
            told += [p for p in pool.imap_unordered(_priced, _drawn(records, seed), chunksize=40) if p is not None]
    out = []
    for kind in KINDS:
        mine = [p for p in told if p.kind == kind]
        errors = np.array([p.error for p in mine])
        bias, off = 100 * float(np.median(np.expm1(errors))), 100 * float(np.median(np.abs(np.expm1(errors))))
        held = 100 * float(np.mean([p.holds_price for p in mine]))
        worths_held = 100 * float(np.mean([p.holds_worth for p in mine]))
        by_town = ", ".join(
            f"{100 * float(np.median(np.expm1([p.error for p in mine if p.seed == seed]))):+.1f}" for seed in SEEDS
        )
        note = (
            f"{len(mine)} parcels, by town {by_town}; worst twentieth {100 * float(np.percentile(np.abs(np.expm1(errors)), 95)):.0f} % off; range's median width "
            f"{float(np.median([p.width for p in mine])):.3f}, held {held:.1f} % of prices, {worths_held:.1f} % of worths"
        )
        out += [
            Result(
                "bias against the made worth",
                kind,
                abs(bias),
                abs(bias),
                BIAS_PCT,
                unit="%",
                note=f"{bias:+.1f} %; {note}",
            ),
            Result("median error against the made worth", kind, off, off, None, unit="%"),
        ]
    return out


_shared: dict[str, object] = {}


def _alone() -> None:
    threadpool_limits(1)
    records = _shared["records"]
    assert isinstance(records, Snapshot)
    _shared["records"] = replace(records, db=Readers([connect(records.folder / "records.db", cache=6000)]))


def _drawn(records: Snapshot, seed: int) -> list[tuple[str, str]]:
    rng = np.random.default_rng(seed)
    out: list[tuple[str, str]] = []
    for kind in KINDS:
        rows = records.db.execute(
            "SELECT parcel_number FROM parcels WHERE home_kind = ? ORDER BY parcel_number", (kind,)
        ).fetchall()
        names = [r["parcel_number"] for r in rows]
        chosen = names if len(names) <= EACH else list(rng.choice(names, EACH, replace=False))
        out += [(kind, str(name)) for name in chosen]
    return out


def _priced(asked: tuple[str, str]) -> Priced | None:
    kind, parcel = asked
    records, worths, seed = _shared["records"], _shared["worths"], _shared["seed"]
    assert isinstance(records, Snapshot) and isinstance(worths, dict) and isinstance(seed, int)
    home = read_home(records, HomeRef("parcel", parcel))
    try:
        doc, _ = price_doc(records, home, None, None)
    except RainPorchError:
        return None
    known = worths["log_land"] if kind == "land" else worths["log_worth"]
    log_worth = known[parcel]
    if kind != "land":
        made = worths["condition"][parcel]
        since = worths["renovations"].get(parcel)
        log_worth += truth.CONDITION_STEP * ((since[-1][1] if since else made) - made)
    worth = math.exp(log_worth)
    noise = truth.LOT_SALE_NOISE if kind == "land" else truth.SALE_NOISE
    price = worth * math.exp(float(np.random.default_rng([seed, *parcel.encode()]).normal(0, noise)))
    if doc.indicated_value is None or doc.range is None:
        return None
    low, high = doc.range.low, doc.range.high
    error = math.log(doc.indicated_value / worth)
    return Priced(seed, kind, error, low <= worth <= high, low <= price <= high, (high - low) / doc.indicated_value)
