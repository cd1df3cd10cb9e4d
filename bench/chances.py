"""How true the stated chances of a contract are, on listings later than those they were learnt from, in made towns.

usage: python -m bench.chances [--towns N] [--noise X …]   prints the tables of docs/accuracy.md, “Time against price”

Each town is made from its own seed by the demo's generator, where a home's worth and the seller's asking above it are known.
For each of the last four quarters but the last 90 days, the model is fitted to what was known on the quarter's first day;
what it states of each listing that came in the quarter is set against what became of it.
"""

from __future__ import annotations

import argparse
import datetime as dt
import math
import multiprocessing
import tempfile
from dataclasses import dataclass
from pathlib import Path

import numpy as np
from numpy.typing import NDArray
from scipy.stats import rankdata

from rain_porch.app.pricing.past_listings import listings_around, market_of, seen_of
from rain_porch.app.pricing.standpoint import Standpoint
from rain_porch.app.records import Records
from rain_porch.app.snapshot import Snapshot
from rain_porch.core.facts.dates import date_of
from rain_porch.core.facts.homes import Subject
from rain_porch.core.facts.words import HomeKind
from rain_porch.core.market.columns import HOME_KINDS
from rain_porch.core.price.chances import contract_chance as cc
from rain_porch.core.price.chances import list_price as lp
from rain_porch.core.price.chances.contract_fit import ODD, fit
from rain_porch.core.price.chances.worth_then import worths_then
from rain_porch.core.price.evidence import wide_fit
from rain_porch.demo import truth
from rain_porch.demo.files import write_town
from rain_porch.demo.houses import build
from rain_porch.demo.plan import lay_out
from rain_porch.demo.trading import LAST_DAY, Market
from rain_porch.records.importing import import_file

WITHIN = (30, 60, 90)
QUARTERS = 6
NOISIER = 1.8  # times the noise of homes and of sales
BANDS = ((None, 0.95), (0.95, 1.00), (1.00, 1.05), (1.05, 1.10), (1.10, None))
Floats = NDArray[np.float64]


@dataclass(frozen=True)
class Told:
    """Later listings, (n,) each: ratio to what was known of the worth, to the true worth, stated chances (n, 3) by either,
    their standard errors, the plain share (n, 3), and what became of them (n, 3)."""

    ratio: Floats
    true_ratio: Floats
    by_ratio: Floats
    by_truth: Floats
    error_by_ratio: Floats
    error_by_truth: Floats
    plain: Floats
    became: Floats

    def where(self, chosen: NDArray[np.bool_]) -> Told:
        return Told(*(getattr(self, name)[chosen] for name in self.__dataclass_fields__))


def town(seed: int, noise: float) -> Told:
    rng = np.random.default_rng(seed)
    plan = lay_out(rng)
    houses = build(plan, rng)
    more = truth.HOME_NOISE * math.sqrt(max(noise**2 - 1, 0.0))
    for house, extra in zip(houses, np.random.default_rng(seed + 1000).normal(0, 1, len(houses)), strict=True):
        house.log_worth += more * float(extra)
    market = Market(rng, sale_noise=truth.SALE_NOISE * noise)
    trade = market.run(houses)
    with tempfile.TemporaryDirectory() as folder:
        records = Records(Path(folder))
        for path in write_town(Path(folder) / "files", plan, houses, trade, rng):
            with records.connection() as db:
                import_file(db, path, folder=Path(folder), now=dt.datetime(2027, 1, 1), source=path.stem)
        true = {x.listing_id: math.log(market.worth(x.house, x.start)) for x in trade.listings}
        out = measured(records.snapshot(), true)
        records.close()
    return out


def measured(records: Snapshot, true: dict[str, float]) -> Told:
    columns = records.columns
    last = int(columns.last_day())
    detached = columns.home_kind == HOME_KINDS.index(HomeKind.DETACHED)
    centre = Subject(
        {}, float(np.nanmedian(columns.lats[detached])), float(np.nanmedian(columns.lons[detached])), HomeKind.DETACHED
    )
    parts: list[Told] = []
    now = columns.as_of(last)
    for k in range(QUARTERS, 0, -1):
        first = last - 90 - 91 * k
        standpoint = Standpoint(records, columns, columns.as_of(first), centre)
        known = listings_around(standpoint)
        worth = worths_then(columns, standpoint.view, centre, known)
        known, worth = known[np.isfinite(worth)], worth[np.isfinite(worth)]
        wide = wide_fit(columns, standpoint.view, centre)
        seen = seen_of(standpoint, wide, known, worth)
        model = fit(seen.where(lp.usable(columns, standpoint.view, known)))
        if model is None:
            continue
        held = lp.outcomes(columns, standpoint.view, known, np.exp(worth))
        plain = lp.kaplan_meier(held.days, held.contract)
        good = detached & ~columns.lease & ~columns.deed & ~columns.not_arms_length & ~columns.distressed
        rows = np.flatnonzero(good & (columns.on_market >= first) & (columns.on_market < first + 91))
        worth = worths_then(columns, now, centre, rows)
        asked, start, end, signed, _ = lp.courses(columns, now, rows)
        above = np.log(asked) - np.array([true[str(columns.keys[r])] for r in rows])
        r = np.log(asked) - worth
        fits = np.isfinite(r) & (np.abs(r) < ODD) & lp.usable(columns, now, rows)
        rows, r, above, start, end, signed = (x[fits] for x in (rows, r, above, start, end, signed))
        turns = 2 * np.pi * start / 365.25
        assert wide is not None
        market = float(market_of(wide, np.array([first]), first)[0])
        when = [cc.When(float(t), market) for t in turns]
        by_r = [model.of_those_seen_at(float(x), w, WITHIN) for x, w in zip(r, when, strict=True)]
        by_t = [model.at(float(x), w, WITHIN) for x, w in zip(above, when, strict=True)]
        became = np.array([signed & (end - start <= d) for d in WITHIN]).T.astype(float)
        parts.append(
            Told(
                np.exp(r - model.bias), np.exp(above), _shares(by_r), _shares(by_t), _errors(by_r), _errors(by_t),
                np.tile([1 - plain.still_unsold(d) for d in WITHIN], (len(rows), 1)), became,
            )
        )  # fmt: skip
    return joined(parts)


def _shares(told: list[list[cc.Chance]]) -> Floats:
    return np.array([[c.share for c in row] for row in told])


def _errors(told: list[list[cc.Chance]]) -> Floats:
    return np.array([[(c.high - c.low) / (2 * cc.Z80) for c in row] for row in told])


def joined(parts: list[Told]) -> Told:
    return Told(*(np.concatenate([getattr(p, name) for p in parts]) for name in Told.__dataclass_fields__))


def band_table(told: Told, by: str) -> list[str]:
    """Rows of a Markdown table: stated and seen by band, with the interval where a band holds fewer than 400."""
    ratio = told.ratio if by == "ratio" else told.true_ratio
    stated = told.by_ratio if by == "ratio" else told.by_truth
    error = told.error_by_ratio if by == "ratio" else told.error_by_truth
    out = []
    for low, high in BANDS:
        chosen = (ratio > (low or 0)) & (ratio <= (high or 99))
        n = int(chosen.sum())
        cells = []
        for k in range(len(WITHIN)):
            if not n:
                cells.append("—")
                continue
            p, seen = float(stated[chosen, k].mean()), float(told.became[chosen, k].mean())
            wide = 1.96 * math.sqrt(p * (1 - p) / n + float(error[chosen, k].mean()) ** 2)
            agrees = abs(p - seen) <= (0.05 if n >= 400 else wide)
            cells.append(f"{100 * p:.0f} / {100 * seen:.0f}{'' if agrees else ' **missed**'}")
        name = f"up to {high:.2f}" if low is None else f"above {low:.2f}" if high is None else f"{low:.2f}–{high:.2f}"
        out.append(f"| {name} | {n:,} | " + " | ".join(cells) + " |")
    return out


def discrimination(told: Told) -> list[str]:
    """Area under the curve and Brier score of the stated chance, beside the plain share's."""
    out = []
    for k, days in enumerate(WITHIN):
        y, p = told.became[:, k], told.by_ratio[:, k]
        ranks = rankdata(p)
        ones = y.sum()
        auc = (ranks[y == 1].sum() - ones * (ones + 1) / 2) / (ones * (len(y) - ones))
        brier, plain = (float(((x - y) ** 2).mean()) for x in (p, told.plain[:, k]))
        out.append(f"| {days} days | {auc:.3f} (0.5) | {brier:.4f} | {plain:.4f} |")
    return out


def main() -> None:
    parser = argparse.ArgumentParser(prog="python -m bench.chances")
    parser.add_argument("--towns", type=int, default=8)
    parser.add_argument("--noise", type=float, nargs="+", default=(1.0, NOISIER))
    args = parser.parse_args()
    for noise in args.noise:
        with multiprocessing.get_context("spawn").Pool(2) as pool:
            told = joined(pool.starmap(town, [(seed, noise) for seed in range(1, args.towns + 1)]))
        print(
            f"\n{args.towns} towns, noise × {noise:g}, {len(told.ratio):,} later listings, last day {date_of(LAST_DAY)}"
        )
        head = "| {} | listings | 30 days, stated / became | 60 days | 90 days |\n|---|---|---|---|---|"
        print(head.format("first price ÷ worth as known then"), *band_table(told, "ratio"), sep="\n")
        print(head.format("first price ÷ true worth"), *band_table(told, "truth"), sep="\n")
        print(
            "| | area under the curve (plain share) | Brier | plain share's |\n|---|---|---|---|",
            *discrimination(told),
            sep="\n",
        )


if __name__ == "__main__":
    main()
