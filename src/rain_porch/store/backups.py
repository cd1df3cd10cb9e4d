"""Backups: both databases and the photos in one zip file, brought back whole, and checked."""

from __future__ import annotations

import datetime as dt
import shutil
import sqlite3
import tempfile
import zipfile
from contextlib import closing
from pathlib import Path

from ..core.errors import Refused
from . import own_files
from .db import PORCH, RECORDS, connect, newest_schema, not_ours
from .folder_lock import LOCK, held

NAMES = (f"{RECORDS}.db", f"{PORCH}.db")
WHOLE = "restored-whole"  # in a folder that is being restored: all of it is there and was checked
DAILY, DAYS = "backups/daily", 7  # where the daily ones lie; so many of them are kept


def back_up(folder: Path, out: Path | None, now: dt.datetime) -> Path:
    """Copy what the folder holds into a zip file, each database as it stands at one moment. Refused for no folder, and for one
    that is damaged: what would be saved could not be relied on."""
    if not any((folder / name).is_file() for name in NAMES):
        raise Refused(f"{folder} holds no records and no workups: nothing to back up.")
    target = out or folder / "backups" / f"rain-porch-{now:%Y-%m-%d-%H%M%S}.zip"
    target.parent.mkdir(parents=True, exist_ok=True)
    part = target.with_name(target.name + ".part")
    with tempfile.TemporaryDirectory() as space, zipfile.ZipFile(part, "w", zipfile.ZIP_DEFLATED) as bundle:
        for name in NAMES:
            if (folder / name).is_file():
                copy = Path(space) / name
                copy_database(folder / name, copy)
        if faults := check(Path(space)):
            bundle.close()
            part.unlink()
            raise Refused(f"{folder} is damaged, no backup was made: {faults[0]}. An earlier one may be whole.")
        for name in NAMES:
            if (Path(space) / name).is_file():
                bundle.write(Path(space) / name, name)
        for photo in sorted((folder / "photos").glob("*")):
            bundle.write(photo, f"photos/{photo.name}")
    with zipfile.ZipFile(part) as bundle:
        if bad := bundle.testzip():
            part.unlink()
            raise Refused(f"The backup could not be written whole ({bad}): is there room in {target.parent}?")
    part.replace(target)
    return target


def back_up_daily(folder: Path, now: dt.datetime) -> Path:
    """A backup beside those of the days before, of which the seven newest are kept. One that fails takes none of them away."""
    made = back_up(folder, folder / DAILY / f"rain-porch-{now:%Y-%m-%d-%H%M%S}.zip", now)
    for old in sorted((folder / DAILY).glob("rain-porch-*.zip"))[:-DAYS]:
        old.unlink()
    return made


def copy_database(source: Path, target: Path) -> None:
    """Copy a database as it stands at one moment, whatever of it is still in its log."""
    db, copy = sqlite3.connect(source), sqlite3.connect(target)
    try:
        db.backup(copy)
    finally:
        db.close()
        copy.close()


def restore(folder: Path, file: Path, now: dt.datetime) -> Path | None:
    """Bring a backup back; what the folder held is kept beside it, in the folder returned. Refused, and nothing changed,
    for what is no whole backup, and while the folder is served: what is saved meanwhile would be lost."""
    if not folder.exists():
        return _restored(folder, file, now)
    with held(folder, "restoring a backup", now):
        return _restored(folder, file, now)


def _restored(folder: Path, file: Path, now: dt.datetime) -> Path | None:
    fresh = folder.with_name(f"{folder.name}.restoring")
    shutil.rmtree(fresh, ignore_errors=True)
    try:
        with zipfile.ZipFile(file) as bundle:
            names = bundle.namelist()
            odd = [n for n in names if n not in NAMES and not (n.startswith("photos/") and "/" not in n[7:] and n[7:])]
            if odd or not set(names) & set(NAMES):
                raise Refused(f"{file} is no backup of Rain Porch" + (f": it holds {odd[0]}." if odd else "."))
            bundle.extractall(fresh)
    except (OSError, zipfile.BadZipFile) as error:
        shutil.rmtree(fresh, ignore_errors=True)
        raise Refused(f"{file} cannot be read as a backup: {error}.") from None
    if faults := check(fresh):
        shutil.rmtree(fresh, ignore_errors=True)
        raise Refused(f"{file} is damaged: {faults[0]}.")
    (fresh / WHOLE).touch()
    before = None
    if folder.exists():
        before = folder.with_name(f"{folder.name}.before-{now:%Y-%m-%d-%H%M%S}")
        folder.rename(before)
        (before / LOCK).unlink(missing_ok=True)
    _put_in_place(fresh, folder)
    return before


def _put_in_place(fresh: Path, folder: Path) -> None:
    fresh.rename(folder)
    (folder / WHOLE).unlink(missing_ok=True)


def finish_restore(folder: Path) -> None:
    """A restore that was stopped between moving the old folder aside and putting the new one in its place is ended."""
    fresh = folder.with_name(f"{folder.name}.restoring")
    if not folder.exists() and (fresh / WHOLE).is_file():
        _put_in_place(fresh, folder)


def check(folder: Path) -> list[str]:
    """What is wrong with a data folder, in words; nothing where all is well."""
    if not folder.is_dir():
        return [f"there is no folder {folder}"]
    if not any((folder / name).is_file() for name in NAMES):
        return [f"{folder} holds no records and no workups"]
    return [
        f"{name}: {fault}"
        for which, name in zip((RECORDS, PORCH), NAMES, strict=True)
        if (folder / name).is_file()
        for fault in _faults(which, folder / name)
    ]


def check_photos(folder: Path) -> tuple[list[str], list[str]]:
    """(photos that a listing names and that are not there, files that nothing names: no damage, but room that could be had)."""
    if not all((folder / name).is_file() for name in NAMES):
        return [], []
    with closing(connect(folder / f"{RECORDS}.db")) as records, closing(connect(folder / f"{PORCH}.db")) as porch:
        schemas = [int(db.execute("PRAGMA user_version").fetchone()[0]) for db in (records, porch)]
        if schemas != [newest_schema(RECORDS), newest_schema(PORCH)]:
            return [], []  # of an earlier version, which looking does not bring along
        theirs = {r[0] for r in records.execute("SELECT file_name FROM photos WHERE file_name <> ''")}
        before = {r[0] for r in records.execute("SELECT json_extract(before, '$.file_name') FROM import_changes")}
        own = own_files.named(porch)
    there = {p.name for p in (folder / "photos").glob("*")}
    return (
        [f"photos/{name} is named by a listing and not there" for name in sorted(theirs - there)],
        [f"photos/{name} is named by nothing" for name in sorted(there - theirs - before - own)],
    )


def _faults(which: str, file: Path) -> list[str]:
    """What is wrong with one database."""
    try:
        if wrong := not_ours(which, file):
            return [wrong]
        with closing(connect(file)) as db:
            version = int(db.execute("PRAGMA user_version").fetchone()[0])
            if not version:
                return ["is empty"]
            if version > newest_schema(which):
                return [f"written by a newer version (schema {version}): update Rain Porch"]
            lost = db.execute("PRAGMA foreign_key_check")
            return [
                *(str(r[0]) for r in db.execute("PRAGMA integrity_check(5)") if r[0] != "ok"),
                *(f"a row of {r[0]} names a {r[2]} that is not there" for r in lost),
            ]
    except sqlite3.DatabaseError as error:
        return [str(error)]
