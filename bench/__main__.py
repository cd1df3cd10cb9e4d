"""Measure the budgets of the house, each beside its peer in the same run.

usage: python -m bench [--listings N] [--folder DIR] [--json FILE]
"""

from __future__ import annotations

import argparse
import datetime as dt
import json
import shutil
import subprocess
import sys
from collections.abc import Callable
from pathlib import Path
from typing import Any

import numpy as np

from bench import accuracy, market_rows
from bench.timing import Result, table, times
from rain_porch.core import market as mk
from rain_porch.core import search as sr
from rain_porch.core.columns import Columns
from rain_porch.core.dates import day_of
from rain_porch.core.words import HomeKind
from rain_porch.demo.crowd import write_crowd
from rain_porch.demo.town import prepare_demo
from rain_porch.report.papers import page_picture, pdf
from rain_porch.workups.homes import HomeRef
from rain_porch.workups.pricing import Decided, Setting, candidates, most_alike, price
from rain_porch.workups.records import Records
from rain_porch.workups.workups import Workups

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


def main() -> None:
    parser = argparse.ArgumentParser(prog="python -m bench")
    parser.add_argument("--listings", type=int, default=1_000_000)
    parser.add_argument("--folder", type=Path, default=Path(".bench"))
    parser.add_argument("--json", type=Path)
    parser.add_argument("--reuse", action="store_true", help="use records that an earlier run imported")
    args = parser.parse_args()
    demo = args.folder / "demo"
    prepare_demo(demo, say=print)
    file = args.folder / f"listings-{args.listings}.csv"
    if not file.is_file():
        print(f"Writing {args.listings:,} listings …")
        write_crowd(demo / "files/listings.csv", file, args.listings)
    results: list[Result] = []

    def told(*more: Result) -> None:
        results.extend(more)
        for r in more:
            print(f"  {r.name}, {r.on}: median {r.median:,.1f}, p95 {r.p95:,.1f} {r.unit}", flush=True)

    folder = args.folder / f"records-{args.listings}"
    if args.reuse and folder.is_dir():
        print("  import: not measured, the records are used again")
    else:
        told(import_speed(file, folder, args.folder / "plain"))
    columns = Records(folder).columns()
    on = f"{len(columns):,} listings"
    told(*counts(columns, on))
    told(candidate_speed(Records(folder), columns, on))
    told(*market_speed(columns, on))
    told(*on_the_demo(demo, args.folder / "work"))
    told(*accuracy_of(demo, args.folder / "ames"))
    print()
    print(table(results))
    missed = [r.name for r in results if r.holds is False]
    print("\nAll budgets hold." if not missed else f"\nNot held: {', '.join(missed)}.")
    out = args.json or args.folder / "results.json"
    out.write_text(json.dumps([r.as_json() for r in results], indent=1))


def import_speed(file: Path, folder: Path, plain: Path) -> Result:
    def run(way: str, target: Path) -> dict[str, float]:
        shutil.rmtree(target, ignore_errors=True)
        made = subprocess.run(
            [sys.executable, "-m", "bench.importing", way, str(file), str(target)],
            capture_output=True,
            text=True,
            check=True,
        )
        out: dict[str, float] = json.loads(made.stdout)
        return out

    theirs, ours = run("plain", plain), run("ours", folder)
    shutil.rmtree(plain, ignore_errors=True)
    return Result(
        "import, file to searchable", f"{ours['rows']:,.0f} rows", ours["rows_per_second"], ours["rows_per_second"], 10_000,
        "plain sqlite3", theirs["rows_per_second"], "rows/s", note=f"peak {ours['peak_mb']:.0f} MB (budget 600)",
    )  # fmt: skip


def counts(columns: Columns, on: str) -> list[Result]:
    view = columns.as_of(day_of(LAST))
    con = market_rows.into_duckdb(columns, view)
    out = []
    for name, place in (("live counts by place", True), ("live counts, whole market", False)):
        asked = market_rows.searches(columns, 200, place, seed=3)
        for a in asked[:30]:
            if not market_rows.counts_agree(columns, view, con, a):
                raise SystemExit(f"{name}: the peer counts otherwise; nothing is compared")
        ours = times([lambda a=a: sr.run(a.search, columns, view, a.subject) for a in asked])
        theirs = times([lambda a=a: con.execute(market_rows.as_sql(a, view)).fetchall() for a in asked])
        out.append(Result(name, on, *ours, 15, "DuckDB", theirs[0], at_most_peer=True))
    con.close()
    return out


def candidate_speed(records: Records, columns: Columns, on: str) -> Result:
    asked = market_rows.searches(columns, 60, True, seed=4)
    calls: list[Callable[[], object]] = []
    for a in asked:
        setting = Setting(records, columns, columns.as_of(day_of(LAST)), a.subject)
        calls.append(lambda s=setting, a=a: candidates(s, s.run(a.search).rows, 200))
    return Result("candidates, ranked, with facts", on, *times(calls), 60)


def market_speed(columns: Columns, on: str) -> list[Result]:
    through = day_of(LAST)
    spans = mk.periods("month", dt.date(2021, 11, 1), LAST, LAST)
    con = market_rows.into_duckdb(columns, columns.as_of(through))
    start = day_of(dt.date(2021, 11, 1))
    # the same eight figures by month; the months are joined as day ranges, as ours are
    con.execute("CREATE TABLE months (first BIGINT, last BIGINT)")
    con.executemany("INSERT INTO months VALUES (?, ?)", [(day_of(s.start), day_of(s.end)) for s in spans])
    query = f"""
        WITH sold AS (SELECT first, count(*), sum(close_price), avg(close_price), median(close_price),
                             avg(close_price / living_area) FROM m JOIN months ON close BETWEEN first AND last
                      WHERE NOT lease AND close >= {start} GROUP BY first),
             began AS (SELECT first, count(*) FROM m JOIN months ON on_market BETWEEN first AND last WHERE NOT lease GROUP BY first),
             ended AS (SELECT first, count(*) FROM m JOIN months ON off_market BETWEEN first AND last
                       WHERE failed AND NOT lease GROUP BY first),
             open AS (SELECT last, count(*) FROM m JOIN months ON on_market <= last
                      AND (close < 0 OR close > last) AND (off_market < 0 OR off_market > last) WHERE NOT lease GROUP BY last)
        SELECT (SELECT count(*) FROM sold), (SELECT count(*) FROM began), (SELECT count(*) FROM ended), (SELECT count(*) FROM open)
    """
    everything = np.arange(len(columns))
    town = np.flatnonzero((columns.words["city"].codes >= 0) & (columns.words["city"].codes < 5))[:25_000]

    def view(rows: Any) -> Callable[[], object]:
        return lambda: mk.series(mk.Market(columns, rows, through), MEASURES, spans)

    theirs = times([lambda: con.execute(query).fetchall()] * 5, warm=1)
    con.close()
    return [
        Result("market view, 5 years by month, 8 measures", f"{len(town):,} listings", *times([view(town)] * 10), 50),
        Result("market view, 5 years by month, 8 measures", on, *times([view(everything)] * 5, warm=1), 200, "DuckDB",
               theirs[0], at_most_peer=True),
    ]  # fmt: skip


def accuracy_of(demo: Path, ames: Path) -> list[Result]:
    """Median errors in percent, ours over the peer's; and how many sales a second a backtest prices."""
    shutil.rmtree(ames, ignore_errors=True)
    out = []
    for name, records, start, end, sample in (
        ("Ames, last 18 months", accuracy.ames(ames), dt.date(2009, 2, 1), dt.date(2010, 7, 31), None),
        ("demo, last 2 years", Records(demo), dt.date(2024, 11, 1), LAST, 800),
    ):
        r = accuracy.report(records, start, end, HomeKind.DETACHED, sample)
        ours, peer = 100 * r["ours_mdape"], 100 * r["peer_mdape"]
        note = (
            f"{r['subjects']} sales; {100 * r['better_than_per_sqft']:.0f} % nearer than mean price per sq ft; range held "
            f"{100 * r['hits']:.1f} %, by fifth {', '.join(f'{100 * h:.0f}' for h in r['hits_by_fifth'])}"
        )
        out.append(
            Result(
                "median error of adjusted comps",
                name,
                ours,
                ours,
                1.05 * peer,
                "gradient boosting",
                peer,
                "%",
                note=note,
            )
        )
        out.append(Result("backtest", name, r["per_second"], r["per_second"], 100, unit="sales/s"))
    return out


def plain_grid(comps: list[Any], subject: dict[str, float], rates: dict[str, float]) -> float:
    """The grid's arithmetic in plain pandas: the peer of the grid after one decision."""
    import pandas as pd

    frame = pd.DataFrame([{**c.facts, "close": c.price, "likeness": c.likeness} for c in comps])
    total = frame["close"].copy()
    for name, rate in rates.items():
        if name in frame and name in subject:
            total = total + (rate * (subject[name] - pd.to_numeric(frame[name]))).fillna(0)
    weight = frame["likeness"] ** 4
    return float((total * weight).sum() / weight.sum())


def plain_report(comps: list[Any], path: Path) -> None:
    """Three pages of tables by Matplotlib: the peer of the report."""
    from matplotlib.backends.backend_pdf import PdfPages
    from matplotlib.figure import Figure

    with PdfPages(path) as out:
        for _ in range(3):
            figure = Figure(figsize=(8.5, 11))
            axes = figure.add_subplot()
            axes.axis("off")
            axes.table([[c.listing_id, c.date, c.price, c.likeness] for c in comps], loc="center")
            out.savefig(figure)


def on_the_demo(demo: Path, work: Path) -> list[Result]:
    """Prices and papers on the demo town."""
    shutil.rmtree(work, ignore_errors=True)
    work.mkdir(parents=True)
    shutil.copy(demo / "records.db", work / "records.db")
    records = Records(work)
    row = records.db.execute(
        "SELECT parcel_number FROM parcels WHERE unparsed_address = '630 Hedgerow Terrace'"
    ).fetchone()
    with Workups(records) as workups:
        n = workups.create(HomeRef("parcel", row[0]))
        opened = workups.open(n)
        setting = opened.setting
        wide = opened.state.search.search().with_days("sold", 730)
        comps = most_alike(setting, wide)
        from rain_porch.core.evidence import wide_fit

        shared = wide_fit(setting.columns, setting.view, setting.subject)
        one = Decided(rates={"living_area": 90.0})
        after = times([lambda: price(setting, comps, decided=one, shared=shared)] * 40)
        fresh = times([lambda: price(setting, comps)] * 40)
        from rain_porch.workups.changes import Decide

        workups.change(n, 1, Decide(change="decide", listing_ids=[c.listing_id for c in comps], choice="kept"))
        given = workups.report_input(n)
        whole = times([lambda: pdf(given, "three_pages")] * 8, warm=1)
        page = times([lambda: page_picture(given, "three_pages", 1)] * 8, warm=1)
    on = f"{len(comps)} comps, demo"
    facts = {k: v for k, v in setting.subject.facts.items() if isinstance(v, float)}
    by_hand = times([lambda: plain_grid(comps, facts, dict.fromkeys(facts, 10.0))] * 20)[0]
    tables = times([lambda: plain_report(comps, work / "plain.pdf")] * 5, warm=1)[0]
    return [
        Result("grid and value after one decision", on, *after, 15, "plain pandas", by_hand),
        Result("grid and value, fresh evidence", on, *fresh, 35),
        Result("report, 3 pages", "demo", *whole, 1500, "Matplotlib tables", tables),
        Result("one preview page", "demo", *page, 300),
    ]


if __name__ == "__main__":
    main()
