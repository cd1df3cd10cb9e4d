"""`rain-porch backup`, `restore` and `check`."""

from __future__ import annotations

import argparse
import datetime as dt

from ..settings import data_folder, folder_with_records
from ..store import backups
from .telling import show


def run_backup(args: argparse.Namespace) -> int:
    made = backups.back_up(folder_with_records(args.data), args.out, dt.datetime.now())
    return show(args, {"file": str(made), "bytes": made.stat().st_size}, f"{made}: {made.stat().st_size / 1e6:.1f} MB")


def run_restore(args: argparse.Namespace) -> int:
    folder = data_folder(args.data)
    kept = backups.restore(folder, args.file, dt.datetime.now())
    aside = f"; what was there before is in {kept}" if kept else ""
    return show(args, {"folder": str(folder), "before": str(kept) if kept else None}, f"{folder} restored{aside}")


def run_check(args: argparse.Namespace) -> int:
    folder = data_folder(args.data)
    faults = backups.check(folder)
    notes: list[str] = []
    if not faults:
        faults, notes = backups.check_photos(folder)
    told = {"ok": not faults, "faults": faults, **({"notes": notes} if notes else {})}
    show(args, told, "\n".join([*(faults or ["all is well"]), *notes]))
    return 1 if faults else 0
