"""Measure the budgets of the house, each beside its peer in the same run.

usage: python -m bench [--listings N] [--folder DIR] [--json FILE] [--reuse] [--only PART …]
"""

from __future__ import annotations

import argparse
import datetime as dt
import json
import os
import shutil
import subprocess
import sys
from pathlib import Path

from bench import (
    accuracy,
    bulletins,
    commands,
    county,
    kinds,
    many_clients,
    many_services,
    meanwhile,
    memory,
    office,
    on_demo,
    one_change,
    screen,
    whole_market,
)
from bench.timing import Result, table
from rain_porch.app.records import Records
from rain_porch.demo.crowd import write_crowd
from rain_porch.demo.town import RECIPE, prepare_demo

# what a whole run does; a run names those that it wants by --only
PARTS = (
    "import", "market", "bulletins", "memory", "meanwhile", "county", "commands", "demo", "screen", "change", "clients", "office", "services",
    "accuracy", "kinds",
)  # fmt: skip
AN_OFFICE, A_HOME = 25_000, "terrace"


def main() -> None:
    parser = argparse.ArgumentParser(prog="python -m bench")
    parser.add_argument("--listings", type=int, default=1_000_000)
    parser.add_argument("--folder", type=Path, default=Path(".bench"))
    parser.add_argument("--json", type=Path)
    parser.add_argument("--reuse", action="store_true", help="use records that an earlier run imported")
    parser.add_argument("--only", nargs="+", choices=PARTS, default=PARTS)
    args = parser.parse_args()
    demo = args.folder / "demo"
    prepare_demo(demo, say=print, with_work=False)
    results: list[Result] = []

    def told(more: list[Result]) -> None:
        results.extend(more)
        for r in more:
            print(f"  {r.name}, {r.on}: median {r.median:,.1f}, p95 {r.p95:,.1f} {r.unit}", flush=True)

    folder = args.folder / f"records-{args.listings}"
    if "import" in args.only and not (args.reuse and folder.is_dir()):
        told([import_speed(crowd(args.folder, args.listings), folder, args.folder / "plain")])
    elif {"market", "bulletins", "memory", "meanwhile", "county"} & {*args.only} and not folder.is_dir():
        raise SystemExit(f"There are no records of {args.listings:,} listings yet: run with “import” first.")
    market = Records(folder).snapshot()
    if "market" in args.only:
        told(whole_market.measured(market))
    if "bulletins" in args.only:
        told(bulletins.measured(market))
    if "memory" in args.only:
        told([memory.measured(folder, args.listings)])
    if "meanwhile" in args.only:
        alone = whole_market.counts_alone(market)
        told(meanwhile.measured(market, crowd(args.folder, 200_000), demo, args.folder / "work", alone))
    if "county" in args.only:
        told(county.measured(folder, args.folder / "work"))
    offices = args.folder / f"records-{AN_OFFICE}"
    if {"commands", "change", "office", "services"} & {*args.only} and not offices.is_dir():
        import_speed(crowd(args.folder, AN_OFFICE), offices, args.folder / "plain")
    if offices.is_dir():
        Records(offices).snapshot()  # this program's columns are kept from now on
    if "commands" in args.only:
        told(commands.measured(offices, args.folder / "work"))
    if "change" in args.only:
        told(one_change.results(offices, A_HOME))
        told(one_change.results(folder, A_HOME) if folder.is_dir() else [])
    if "clients" in args.only:
        told(many_clients.results(demo, args.folder / "work"))
    if "office" in args.only:
        told(office.results(offices, crowd(args.folder, 200_000), args.folder / "work"))
    if "services" in args.only:
        told(many_services.results(offices, args.folder / "work"))
    if "demo" in args.only:
        told(on_demo.measured(demo, args.folder / "work"))
    if "screen" in args.only:
        told(screen.measured(demo))
        told(screen.dragged(folder, A_HOME, f"{args.listings:,} listings") if folder.is_dir() else [])
    if "accuracy" in args.only:
        told(accuracy.measured(demo, args.folder))
    if "kinds" in args.only:
        told(kinds.measured(args.folder / f"city-{RECIPE}-{kinds.TOWN}"))
    print()
    print(
        f"{dt.date.today():%d %B %Y}, {os.cpu_count()} processors, load {os.getloadavg()[1]:.1f} over the last five minutes"
    )
    print(table(results))
    missed = [r.name for r in results if r.holds is False]
    print("\nAll budgets hold." if not missed else f"\nNot held: {', '.join(missed)}.")
    out = args.json or args.folder / "results.json"
    out.write_text(json.dumps([r.as_json() for r in results], indent=1))


def crowd(folder: Path, listings: int) -> Path:
    file = folder / f"listings-{listings}.csv"
    if not file.is_file():
        print(f"Writing {listings:,} listings …")
        write_crowd(folder / "demo/files/listings.csv", file, listings)
    return file


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


if __name__ == "__main__":
    main()
