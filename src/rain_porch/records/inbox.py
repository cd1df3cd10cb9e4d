"""The folder that is watched: `inbox/SOURCE/FILE` in the data folder comes in by itself, mapped as the source's files were.

A file is looked at again when it has changed. Where its heads are no longer those that the source had, and nothing in it tells a
field that they told, it is held until a person has looked at it.
"""

from __future__ import annotations

import datetime as dt
import json
import sqlite3
import time
from collections.abc import Callable
from dataclasses import dataclass
from pathlib import Path

from ..core.errors import RainPorchError, Refused
from ..core.facts.fields import own_field
from ..store.records.incoming import imports as store
from ..store.records.incoming import inbox
from .files.containers import Piece
from .importing import import_file
from .mapping.layouts import LAYOUTS
from .previewing import preview
from .unpacking import unpacked

SETTLED_SECONDS = 5.0  # a file that changed later than this may still be written


@dataclass(frozen=True)
class Looked:
    """What came of one file; held: it waits for a person."""

    source: str
    name: str
    outcome: str
    held: bool


def folder_of(data: Path) -> Path:
    return data / "inbox"


def take_in(
    db: sqlite3.Connection, data: Path, now: dt.datetime, clock: Callable[[], float] = time.time
) -> list[Looked]:
    """Bring in all that is new or changed in the watched folder; each file all at once or not at all."""
    out = []
    for place in sorted(p for p in folder_of(data).glob("*") if p.is_dir()):
        for file in sorted(p for p in place.iterdir() if p.is_file() and not p.name.startswith(".")):
            told = file.stat()
            stamp = f"{told.st_size}-{told.st_mtime_ns}"
            if clock() - told.st_mtime < SETTLED_SECONDS or inbox.stamp_of(db, place.name, file.name) == stamp:
                continue
            looked = _take(db, data, now, place.name, file)
            inbox.looked(
                db, looked.source, looked.name, stamp, now.isoformat(timespec="seconds"), looked.outcome, looked.held
            )
            out.append(looked)
    return out


def _take(db: sqlite3.Connection, data: Path, now: dt.datetime, source: str, file: Path) -> Looked:
    try:
        with unpacked([file], data) as pieces:
            said = [(piece, *_heads(db, source, piece)) for piece in pieces]
            if lost := [f"{piece.name}: {_of(piece.name, why)}" for piece, why, stops in said if stops]:
                told = "; ".join(lost) if len(said) > 1 else _of(file.name, lost[0])
                return Looked(source, file.name, told, True)
            outcomes = [_brought(db, data, now, source, piece, why) for piece, why, _ in said]
    except RainPorchError as error:
        return Looked(source, file.name, _of(file.name, error.message), True)
    return Looked(source, file.name, "; ".join(outcomes), False)


def _of(name: str, said: str) -> str:
    """What is said of a file that is named already."""
    return said.removeprefix(f"{name}: ").removesuffix(".")


def _brought(db: sqlite3.Connection, data: Path, now: dt.datetime, source: str, piece: Piece, why: str) -> str:
    done = import_file(db, piece.path, folder=data, now=now, kind=piece.kind, source=source)
    told = f"{done.new:,} new, {done.changed:,} changed, {done.same:,} the same, {done.rejected:,} rejected {done.kind}"
    return f"{told} ({why})" if why else told


def _heads(db: sqlite3.Connection, source: str, piece: Piece) -> tuple[str, bool]:
    """(what is to be said of a file's heads, whether it is held): against the mapping that the source had last."""
    if piece.kind in ("areas", "photos"):
        return "", False
    try:
        seen = preview(db, piece.path, source, piece.kind)
    except Refused as error:
        return error.message, True
    before = store.newest_mapping(db, source, seen.kind)
    if seen.remembered or before is None or seen.kind not in LAYOUTS:
        return "", False
    names = {f.name: f.reso for f in LAYOUTS[seen.kind].fields}
    now = {p.field: p.columns for p in seen.parts}
    then = {p["field"]: tuple(p.get("columns") or ()) for p in json.loads(before)["parts"]}
    lost = [names.get(f, f) for f in then if f not in now and own_field(f) is None]
    if lost:
        return f"its heads have changed, and nothing tells {', '.join(lost)} any more: bring it in by hand once", True
    other = [f"{names.get(f, f)} is now “{' + '.join(now[f])}”" for f in then if f in now and now[f] != then[f]]
    return (f"its heads have changed: {', '.join(other[:6])}" if other else "its heads have changed"), False
