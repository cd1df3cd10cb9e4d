"""Photos come in as a folder or a zip file, matched to listings by the number at the start of their names.

`BF100500_2.jpg`, `BF100500-2.jpg` and `BF100500/2.jpg` are all the second photo of listing BF100500.
"""

from __future__ import annotations

import hashlib
import re
import sqlite3
import zipfile
from collections import Counter
from collections.abc import Callable, Iterator, Mapping
from pathlib import Path
from typing import Any

from ...core.errors import Refused
from ...store.db import atomic
from ...store.records import imports as store
from ...store.records import photo_undo
from .picture_files import fault_of

MAX_BYTES, MAX_PHOTOS, MAX_RATIO = 25_000_000, 100_000, 200
_KINDS = {b"\xff\xd8\xff": ".jpg", b"\x89PNG\r\n\x1a\n": ".png", b"RIFF": ".webp"}
_NAME = re.compile(r"^(?P<listing>.+?)[_\-/ ](?P<place>\d{1,3})\.(?:jpe?g|png|webp)$", re.IGNORECASE)
Counted = dict[str, Any]


def is_bundle(path: Path) -> bool:
    return path.is_dir() or (path.suffix.lower() == ".zip" and path.is_file())


def kind_of(head: bytes) -> str | None:
    """The ending for a picture's first bytes, None where it is no JPEG, PNG or WebP."""
    return next((ext for magic, ext in _KINDS.items() if head.startswith(magic)), None)


def plan(db: sqlite3.Connection, path: Path, folder: Path) -> tuple[Counted, Callable[[Mapping[str, Any]], int]]:
    """What a bundle would bring, and what takes it in. Refused for a zip file that is broken or swells out of reason."""
    known = {r[0] for r in db.execute("SELECT listing_id FROM listings")}
    held = {(r[0], r[1]): r[2] for r in db.execute("SELECT listing_id, place, file_name FROM photos")}
    counts: Counter[str] = Counter(rows=0, new=0, changed=0, same=0, suspect=0, rejected=0)
    reasons: Counter[str] = Counter()
    rejected: list[tuple[int, str, str]] = []
    wanted: dict[tuple[str, int], tuple[str, str]] = {}
    for number, (name, head, digest, fault) in enumerate(_read(path), start=1):
        counts["rows"] += 1
        match = _NAME.match("/".join(Path(name).parts[-2:])) or _NAME.match(Path(name).name)
        kind = kind_of(head)
        listing = Path(match["listing"]).name if match else ""
        why = None
        if match is None:
            why = "a name that gives no listing and number: write LISTING_1.jpg"
        elif kind is None:
            why = "no JPEG, PNG or WebP picture"
        elif fault is not None:
            why = fault.partition(" of ")[0]
        elif listing not in known:
            why = f"no listing {listing[:40]}"
        elif (listing, int(match["place"])) in wanted:
            why = "the same listing and number twice"
        if why is not None or match is None or kind is None:
            counts["rejected"] += 1
            reasons[
                re.sub(r"listing .*", "such listing", why or "") if (why or "").startswith("no listing") else str(why)
            ] += 1
            rejected.append((number, str(why), name))
            continue
        place = (listing, int(match["place"]))
        file = f"{digest}{kind}"
        wanted[place] = (file, name)
        counts["new" if place not in held else "same" if held[place] == file else "changed"] += 1
    fresh = {place: x for place, x in wanted.items() if held.get(place) != x[0]}

    def take(record: Mapping[str, Any]) -> int:
        _keep_files(path, folder / "photos", {name: file for file, name in fresh.values()})
        with atomic(db):
            number = store.write_record(db, record)
            photo_undo.note_replaced(db, number, {place: held[place] for place in fresh if place in held})
            db.executemany(
                "INSERT INTO photos (listing_id, place, file_name, first_import, last_import) VALUES (?, ?, ?, ?, ?) "
                "ON CONFLICT (listing_id, place) DO UPDATE SET file_name = excluded.file_name, "
                "last_import = excluded.last_import",
                [(listing, place, file, number, number) for (listing, place), (file, _) in fresh.items()],
            )
            db.executemany(
                "INSERT INTO import_rows VALUES (?, ?, 'rejected', json_array(?), json_object('File', ?))",
                [(number, row, why, name) for row, why, name in rejected],
            )
            store.bump_version(db)
        return number

    return {**counts, "reasons": dict(reasons)}, take


def _read(path: Path) -> Iterator[tuple[str, bytes, str, str | None]]:
    """(name, first bytes, digest, why it cannot be kept) of each picture; too large ones have no bytes."""
    for name, data in _contents(path):
        fault = fault_of(data) if kind_of(data[:12]) else None
        yield name, data[:12], hashlib.blake2b(data, digest_size=16).hexdigest(), fault


def _contents(path: Path) -> Iterator[tuple[str, bytes]]:
    if path.is_dir():
        for n, file in enumerate(sorted(p for p in path.rglob("*") if p.is_file() and not p.is_symlink())):
            _not_too_many(path, n)
            yield str(file.relative_to(path)), file.read_bytes() if file.stat().st_size <= MAX_BYTES else b""
        return
    try:
        with zipfile.ZipFile(path) as bundle:
            entries = [e for e in bundle.infolist() if not e.is_dir()]
            _not_too_many(path, len(entries))
            for entry in entries:
                if entry.file_size > MAX_BYTES or entry.file_size > MAX_RATIO * max(entry.compress_size, 1):
                    raise Refused(
                        f"{path.name}: {entry.filename[:80]} swells to {entry.file_size:,} bytes; photos may have up to "
                        f"{MAX_BYTES // 1_000_000} MB. Take it out of the zip file."
                    )
                with bundle.open(entry) as f:
                    data = f.read(MAX_BYTES + 1)  # the size that a zip file tells may be a lie
                if len(data) > MAX_BYTES:
                    raise Refused(
                        f"{path.name}: {entry.filename[:80]} is larger than it says: the zip file is no good."
                    )
                yield entry.filename, data
    except (zipfile.BadZipFile, EOFError, OSError, RuntimeError, NotImplementedError) as error:
        raise Refused(f"{path.name} is no zip file that can be read: {error}.") from None


def _not_too_many(path: Path, n: int) -> None:
    if n > MAX_PHOTOS:
        raise Refused(f"{path.name} holds more than {MAX_PHOTOS:,} files: bring them in parts.")


def _keep_files(path: Path, folder: Path, wanted: Mapping[str, str]) -> None:
    """Write the wanted pictures under names made of their contents: no name of the bundle's reaches the disk."""
    folder.mkdir(exist_ok=True)
    for name, data in _contents(path):
        if name in wanted:
            (folder / wanted[name]).write_bytes(data)
