"""Files that came in, kept so that their mapping can be mended without bringing them in again."""

from __future__ import annotations

import shutil
from contextlib import suppress
from pathlib import Path

from ...core.errors import NotFound, Refused
from ...store.db import Db
from ...store.records.incoming import imports as store

FOLDER, MOST_BYTES = "files", 4_000_000_000  # the oldest go when there is more
_LARGEST_SHARE = 0.5  # of the disk's free room: a file that would take more is not kept


def keep(folder: Path, import_id: int, file: Path) -> None:
    """Keep a file as it came in. A disk without room for it is no fault of the import."""
    size = file.stat().st_size
    if size > min(MOST_BYTES, _LARGEST_SHARE * shutil.disk_usage(folder).free):
        return
    into = folder / FOLDER
    part = into / f"{import_id}.part"
    try:
        into.mkdir(exist_ok=True)
        shutil.copyfile(file, part)
        part.replace(into / f"{import_id}{file.suffix.lower()}")
    except OSError:
        with suppress(OSError):
            part.unlink(missing_ok=True)
        return
    held = sorted((p for p in into.iterdir() if p.stem.isdigit()), key=lambda p: -int(p.stem))
    room = MOST_BYTES
    for old in held:
        room -= old.stat().st_size
        if room < 0:
            old.unlink()


def kept_numbers(folder: Path) -> set[int]:
    """The imports whose files are kept."""
    into = folder / FOLDER
    return {int(p.stem) for p in into.iterdir() if p.stem.isdigit()} if into.is_dir() else set()


def kept_file(folder: Path, import_id: int) -> Path:
    """The file of an import. NotFound where it is not kept."""
    found = next(iter((folder / FOLDER).glob(f"{import_id}.*")), None) if import_id > 0 else None
    if found is None or found.suffix == ".part":
        raise NotFound(f"The file of import {import_id} is not kept: bring it in again.", import_id=import_id)
    return found


def to_mend(db: Db, folder: Path, import_id: int) -> tuple[Path, str, str, str]:
    """(file, kind, source, name) of an import whose mapping is to be mended. NotFound for none, or whose file is not kept; Refused
    for one that was undone."""
    row = store.import_row(db, import_id)
    if row is None:
        raise NotFound(f"There is no import {import_id}.", import_id=import_id)
    if row["undone_at"]:
        raise Refused(f"Import {import_id} was undone on {row['undone_at'][:10]}: bring the file in again.")
    return kept_file(folder, import_id), row["kind"], row["source"], row["file_name"]
