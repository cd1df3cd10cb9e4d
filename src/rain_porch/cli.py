"""The command line: `rain-porch COMMAND … [--data DIR] [--json]`. Exit codes: 0, 1 refused, 2 usage."""

from __future__ import annotations

import argparse
import datetime as dt
import gc
import json
import os
import sqlite3
import sys
from collections.abc import Callable, Container, Iterator, Sequence
from importlib import import_module
from pathlib import Path
from typing import Any

from .core.errors import RainPorchError
from .settings import FEED_PORT, SETTINGS, data_folder
from .store.backups import finish_restore
from .store.db import unreadable

# most of what a command reads in stays to its end: it need not be looked through so often
gc.set_threshold(50_000, 20, 50)
# nobody has Pydantic do otherwise than it does: looking for who would takes as long as all documents of a command
os.environ.setdefault("PYDANTIC_DISABLE_PLUGINS", "__all__")

# what changes what an office shares, as the list of who did what says it
ACTS = {
    "import": "took a file into the records", "undo": "took back", "feed": "pulled a feed", "user": "changed accounts",
    "backup": "backed everything up", "restore": "brought a backup back",
}  # fmt: skip
CHANGING = ("import", "mend", "mappings", "undo", "feed")  # of the records: not everybody may


class Named(Container[str]):
    """Names that may be chosen, read from the module that has them only when they are asked for: most commands need few modules."""

    def __init__(self, module: str, name: str, *more: str) -> None:
        self._module, self._name, self._more = module, name, more

    def __iter__(self) -> Iterator[str]:
        return iter((*getattr(import_module(f"rain_porch.{self._module}"), self._name), *self._more))

    def __contains__(self, asked: object) -> bool:
        return asked in tuple(self)


LAYOUTS = Named("records.mapping.layouts", "LAYOUTS")


def date_argument(text: str) -> dt.date:
    try:
        return dt.date.fromisoformat(text)
    except ValueError:
        raise argparse.ArgumentTypeError(f"“{text}” is no date: write it as 2026-05-31") from None


def place_argument(text: str) -> tuple[float, float]:
    try:
        lat, lon = (float(part) for part in text.split(","))
    except ValueError:
        raise argparse.ArgumentTypeError(f"“{text}” is no place: write LAT,LON") from None
    if not (-90 <= lat <= 90 and -180 <= lon <= 180):
        raise argparse.ArgumentTypeError(f"“{text}” is no place: latitude −90 to 90, longitude −180 to 180")
    return lat, lon


def parser() -> argparse.ArgumentParser:
    top = argparse.ArgumentParser(
        prog="rain-porch",
        description="Prices homes from listing and tax records.",
        epilog="Settings, from the environment: " + "; ".join(f"{s.name} ({s.help}; {s.default})" for s in SETTINGS),
    )
    common = argparse.ArgumentParser(add_help=False)
    common.add_argument("--data", metavar="DIR", help="folder of records and workups")
    common.add_argument("--json", action="store_true", help="print a JSON document")
    common.add_argument("--user", metavar="NAME", help="work as this account; unless given, as the folder's owner")
    home = argparse.ArgumentParser(add_help=False)
    named = home.add_mutually_exclusive_group(required=True)
    named.add_argument("--address", metavar="TEXT")
    named.add_argument("--parcel", metavar="NUMBER")
    named.add_argument("--listing", metavar="ID")
    named.add_argument("--place", metavar="LAT,LON", type=place_argument)
    home.add_argument("--as-of", type=date_argument, metavar="DATE", help="effective date")
    home.add_argument("--search", type=Path, metavar="FILE", help="a search as find --json returns it")
    commands = top.add_subparsers(dest="command", required=True, metavar="COMMAND")

    p = commands.add_parser("import", parents=[common], help="bring files in")
    p.add_argument("files", nargs="+", type=Path, metavar="FILE")
    p.add_argument(
        "--kind", choices=Named("records.exporting", "KINDS", "photos"), metavar="KIND", help="one of %(choices)s"
    )
    p.add_argument("--source", metavar="NAME")
    p.add_argument(
        "--mapping", type=Path, metavar="FILE", help="JSON: {column: field}, or parts; or the name of one that is kept"
    )
    p.add_argument(
        "--decimal",
        choices=Named("core.intake.forms", "NUMBERS"),
        metavar="FORM",
        help="what stands before the decimals of the file's numbers: %(choices)s",
    )
    p.add_argument(
        "--dates",
        choices=Named("core.intake.forms", "DATES"),
        metavar="FORM",
        help="what stands first in the file's dates: month (mdy) or day (dmy)",
    )
    p.add_argument(
        "--places",
        choices=["swap", "new"],
        default="",
        help="swap: put right places that look swapped; new: believe places far from everything held",
    )
    p.add_argument(
        "--keep", action="append", default=[], metavar="COLUMN",
        help="keep a column as a field of your own: a criterion, a column, a fact; “all” keeps all that are left out",
    )  # fmt: skip
    p.add_argument(
        "--whole", action="store_true", help="the file has all that its source has: what it has no more, goes"
    )
    p.add_argument("--dry-run", action="store_true")
    p.set_defaults(run="incoming.run_import")

    p = commands.add_parser("mend", parents=[common], help="map the kept file of an import anew")
    p.add_argument("import_id", type=_number, metavar="IMPORT_ID")
    p.add_argument("--mapping", type=Path, metavar="FILE", help="as with import; without one it is proposed as it was")
    p.add_argument("--keep", action="append", default=[], metavar="COLUMN", help="as with import")
    p.add_argument("--dry-run", action="store_true")
    p.set_defaults(run="incoming.run_mend")

    p = commands.add_parser("mappings", parents=[common], help="mappings that have a name")
    p.add_argument("--save", metavar="NAME", help="keep the one of --mapping under this name")
    p.add_argument("--kind", choices=LAYOUTS, metavar="KIND", help="what files it is for: %(choices)s")
    p.add_argument("--mapping", type=Path, metavar="FILE")
    p.add_argument("--delete", metavar="NAME")
    p.set_defaults(run="incoming.run_mappings")

    p = commands.add_parser("undo", parents=[common], help="take an import back")
    p.add_argument("import_id", type=_number, metavar="IMPORT_ID")
    p.set_defaults(run="incoming.run_undo")

    p = commands.add_parser("export", parents=[common], help="write records out: .csv, .json, .geojson, .xlsx")
    p.add_argument(
        "--kind",
        choices=Named("records.exporting", "KINDS", "all"),
        default="all",
        metavar="KIND",
        help="one of %(choices)s",
    )
    p.add_argument("--out", type=Path, required=True, metavar="FILE", help="a file, or a folder for all kinds")
    p.set_defaults(run="incoming.run_export")

    p = commands.add_parser("feed", parents=[common], help="pull listings from a feed, or run the stand-in for one")
    p.add_argument("address", nargs="?", metavar="ADDRESS", help="of the feed, http:// or https://")
    p.add_argument("--token", default=os.environ.get("RAIN_PORCH_FEED_TOKEN", ""), metavar="TEXT")
    p.add_argument("--source", metavar="NAME")
    p.add_argument("--tomorrow", action="store_true", help="let a day pass at the stand-in first")
    p.add_argument("--stand-in", type=Path, metavar="LISTINGS.csv", help="serve these listings as a feed")
    p.add_argument("--port", type=int, default=FEED_PORT)
    p.set_defaults(run="incoming.run_feed")

    p = commands.add_parser("find", parents=[common, home], help="candidates around a home")
    p.set_defaults(run="pricing.run_find")

    p = commands.add_parser("price", parents=[common, home], help="comps, adjustments, value and range")
    p.add_argument(
        "--exclude-self", action="store_true", help="hide the home's own sale and stand on its contract date"
    )
    p.add_argument("--save", action="store_true", help="make a workup of it")
    p.set_defaults(run="pricing.run_price")

    p = commands.add_parser("backtest", parents=[common], help="how close prices would have come on past sales")
    p.add_argument("--from", dest="start", type=date_argument, required=True, metavar="DATE")
    p.add_argument("--to", dest="end", type=date_argument, required=True, metavar="DATE")
    p.add_argument("--sample", type=int, metavar="N", help="so many of the period's sales")
    p.add_argument("--seed", type=int, default=1, metavar="S")
    p.add_argument("--workers", type=int, metavar="N", help="processes; all cores by default")
    p.set_defaults(run="pricing.run_backtest")

    p = commands.add_parser("market", parents=[common], help="market statistics")
    p.add_argument("--measure", nargs="+", action="extend", default=[], metavar="NAME")
    p.add_argument("--by", choices=["month", "quarter", "year", "ytd"], default="month")
    p.add_argument("--from", dest="start", type=date_argument, metavar="DATE")
    p.add_argument("--to", dest="end", type=date_argument, metavar="DATE")
    p.add_argument("--area", metavar="NAME")
    p.add_argument("--where", nargs="+", action="extend", default=[], metavar="'FIELD OP VALUE'")
    p.add_argument("--deeds", action="store_true", help="count deed sales among the closings")
    p.add_argument("--csv", action="store_true")
    way = p.add_mutually_exclusive_group()
    way.add_argument("--view", metavar="NAME", help="a saved view, up to the newest records")
    way.add_argument("--behind", metavar="PERIOD", help="the records behind one measure in one period")
    way.add_argument("--changed-since", type=date_argument, metavar="DATE", help="what happened since a day")
    way.add_argument("--so-far", action="store_true", help="this year against the same days of the last, all measures")
    way.add_argument("--bands", action="store_true", help="by size and by price, over the last twelve months")
    way.add_argument(
        "--bulletin",
        "--letter",
        dest="bulletin",
        metavar="NAME",
        help="a saved bulletin, made anew, or one_page, four_pages, year_in_review, appraiser, this_home of the area asked for; "
        "with --out, as it stood on a past day with --to",
    )
    p.add_argument(
        "--out",
        type=Path,
        metavar="FILE",
        help="with --view an .xlsx; with --bulletin .pdf, .html, .xlsx, .csv, .square.png or .wide.png",
    )
    p.set_defaults(run="market.run_market", usage=p.error)

    p = commands.add_parser("report", parents=[common], help="the report of a workup")
    p.add_argument("--workup", type=_number, required=True, metavar="ID")
    p.add_argument("--layout", metavar="NAME", help="the workup's own pages unless given")
    p.add_argument("--out", type=Path, required=True, metavar="FILE.pdf|.html|.xlsx")
    p.set_defaults(run="papers.run_report")

    p = commands.add_parser("workups", parents=[common], help="list the workups")
    p.set_defaults(run="papers.run_workups")

    p = commands.add_parser("serve", parents=[common], help="start the application")
    p.add_argument("--host")
    p.add_argument("--port", type=int)
    p.set_defaults(run="serving.run_serve")

    p = commands.add_parser("demo", parents=[common], help="make the demo records and start the application on them")
    p.add_argument("--no-serve", action="store_true", help="only make and import the records")
    p.add_argument("--host")
    p.add_argument("--port", type=int)
    p.set_defaults(run="serving.run_demo")

    p = commands.add_parser("backup", parents=[common], help="copy records, workups and photos into one file")
    p.add_argument("--out", type=Path, metavar="FILE.zip", help="unless given, in the data folder's backups")
    p.set_defaults(run="keeping.run_backup")

    p = commands.add_parser("restore", parents=[common], help="bring a backup back; what is there is kept aside")
    p.add_argument("file", type=Path, metavar="FILE.zip")
    p.set_defaults(run="keeping.run_restore")

    p = commands.add_parser("user", parents=[common], help="accounts: who may sign in, and what they may do")
    p.add_argument("act", choices=["add", "list", "password", "disable", "enable"])
    p.add_argument("name", nargs="?", metavar="NAME")
    p.add_argument(
        "--role",
        choices=Named("app.office.accounts", "ROLES"),
        metavar="ROLE",
        help="one of %(choices)s",
        default="agent",
    )
    p.add_argument("--may-import", action="store_true", help="may bring records in and take imports back")
    p.add_argument("--password-stdin", action="store_true", help="read the password from the standard input")
    p.set_defaults(run="users.run_user")

    p = commands.add_parser("check", parents=[common], help="look for damage in the data folder")
    p.set_defaults(run="keeping.run_check")

    p = commands.add_parser("schema", parents=[common], help="the JSON schema of a document")
    p.add_argument("name", choices=Named("app.schemas", "SCHEMAS"), metavar="NAME", help="one of %(choices)s")
    p.set_defaults(run="papers.run_schema")
    return top


def _number(text: str) -> int:
    """A number that Rain Porch has given: of an import, of a workup."""
    if not text.isascii() or not text.isdigit() or len(text) > 15:
        raise argparse.ArgumentTypeError(f"“{text[:40]}” is no such number: they are given as 1, 2, 3 …")
    return int(text)


def _of(name: str) -> Callable[..., Any]:
    """A function of the commands, MODULE.NAME; its module is read now."""
    module, function = name.split(".")
    found: Callable[..., Any] = getattr(import_module(f"rain_porch.commands.{module}"), function)
    return found


def main(argv: Sequence[str] | None = None) -> int:
    args = parser().parse_args(argv)
    try:
        finish_restore(data_folder(args.data))
        if args.command in CHANGING:
            _of("users.may_change_records")(data_folder(args.data), args.user)
        code = int(_of(args.run)(args))
        if code == 0 and args.command in ACTS:
            _of("users.note_act")(data_folder(args.data), args, ACTS[args.command])
        return code
    except RainPorchError as error:
        print(f"rain-porch: {error.message}", file=sys.stderr)
        if args.json:
            print(
                json.dumps({"error": error.message, **error.values}, default=str),
                file=sys.stderr,
            )
        return 1
    except BrokenPipeError:
        return 0
    except (sqlite3.DatabaseError, OSError) as error:
        folder = data_folder(getattr(args, "data", None))
        print(f"rain-porch: {unreadable(folder, error)}", file=sys.stderr)
        return 1


if __name__ == "__main__":
    sys.exit(main())
