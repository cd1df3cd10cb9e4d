"""Photos come in as a folder or a zip file, matched to listings by the number at the start of their names, or as a list of addresses.

`BF100500_2.jpg`, `BF100500-2.jpg` and `BF100500/2.jpg` are all the second photo of listing BF100500.
"""

from __future__ import annotations

import hashlib
import re
import sqlite3
import zipfile
from collections import Counter
from collections.abc import Callable, Iterator, Mapping
from dataclasses import dataclass
from pathlib import Path
from typing import Any

from ...core.errors import Refused
from ...store.db import atomic
from ...store.records import pictures as store_pictures
from ...store.records.incoming import imports as store
from ...store.records.incoming import photo_undo
from ...store.records.incoming.changed import new_state
from . import picture_lists
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


@dataclass(frozen=True)
class Offered:
    """One picture that a file offers. row: from 1; name: what the file calls it; place: among the listing's, from 1. It comes as a
    file of the photos folder or by its address, the other is "". fault: why it cannot be taken in."""

    row: int
    name: str
    listing: str
    place: int
    file: str
    address: str
    caption: str | None
    fault: str

    @property
    def kept(self) -> tuple[str, str | None, str | None]:
        """As photos holds it: file_name, address, caption."""
        return self.file, self.address or None, self.caption


def are_in(path: Path) -> bool:
    """Whether a file or folder brings pictures: their files, or a list of their addresses."""
    return is_bundle(path) or picture_lists.is_list(path)


def plan(db: sqlite3.Connection, path: Path, folder: Path) -> tuple[Counted, Callable[[Mapping[str, Any]], int]]:
    """What a bundle or a list would bring, and what takes it in. Refused for a zip file that is broken or swells out of reason,
    and for a list without the columns that it needs."""
    known = {r[0] for r in db.execute("SELECT listing_id FROM listings")}
    held = store_pictures.held(db)
    counts: Counter[str] = Counter(rows=0, new=0, changed=0, same=0, suspect=0, rejected=0)
    reasons: Counter[str] = Counter()
    rejected: list[tuple[int, str, str]] = []
    wanted: dict[tuple[str, int], Offered] = {}
    for x in _bundled(path) if is_bundle(path) else _listed(path):
        counts["rows"] += 1
        place = (x.listing, x.place)
        fault = x.fault or ("no such listing" if x.listing not in known else "")
        if not fault and place in wanted:
            fault = "the same listing and number twice"
        if fault:
            counts["rejected"] += 1
            reasons[fault] += 1
            shown = f"no listing {x.listing[:40]}" if fault == "no such listing" else fault
            rejected.append((x.row, shown, x.name))
            continue
        wanted[place] = x
        counts["new" if place not in held else "same" if _stands(held[place], x) else "changed"] += 1
    fresh = {place: x for place, x in wanted.items() if place not in held or not _stands(held[place], x)}

    def take(record: Mapping[str, Any]) -> int:
        if is_bundle(path):
            _keep_files(path, folder / "photos", {x.name: x.file for x in fresh.values()})
        with atomic(db):
            number = store.write_record(db, record)
            photo_undo.note_replaced(db, number, {place: held[place] for place in fresh if place in held})
            store_pictures.write(db, number, {place: x.kept for place, x in fresh.items()})
            db.executemany(
                "INSERT INTO import_rows VALUES (?, ?, 'rejected', json_array(?), json_object('File', ?))",
                [(number, row, why, name) for row, why, name in rejected],
            )
            new_state(db)
        return number

    return {**counts, "reasons": dict(reasons)}, take


def _stands(held: store_pictures.Kept, x: Offered) -> bool:
    """Whether what is held in a place is the picture that is offered; what says no caption leaves the one that is there."""
    return (held[0], held[1] or "") == (x.file, x.address) and x.caption in (None, held[2])


def _bundled(path: Path) -> Iterator[Offered]:
    for row, (name, head, digest, fault) in enumerate(_read(path), start=1):
        match = _NAME.match("/".join(Path(name).parts[-2:])) or _NAME.match(Path(name).name)
        kind = kind_of(head)
        why = (
            "a name that gives no listing and number: write LISTING_1.jpg" if match is None
            else "no JPEG, PNG or WebP picture" if kind is None
            else fault.partition(" of ")[0] if fault else ""
        )  # fmt: skip
        listing, place = (Path(match["listing"]).name, int(match["place"])) if match else ("", 0)
        yield Offered(row, name, listing, place, f"{digest}{kind}", "", None, why)


def _listed(path: Path) -> Iterator[Offered]:
    for x in picture_lists.listed(path):
        yield Offered(x.row, x.address[:200], x.listing, x.place, "", x.address, x.caption, x.fault)


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
