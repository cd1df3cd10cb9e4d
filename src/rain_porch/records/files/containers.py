"""What a file holds: plain tables and feature collections, taken out of zip, gz, workbooks and map files.

A container is unpacked into a folder, one plain file a table, sheet or layer; what is plain already stays where it is. All
that comes after (mapping, checking, undo) reads plain files alone.
"""

from __future__ import annotations

import csv
import datetime as dt
import gzip
import re
import shutil
import zipfile
from collections.abc import Callable, Iterator
from dataclasses import dataclass
from pathlib import Path
from typing import Protocol

from ...core.errors import Refused
from ...core.intake.parsing import written
from .fixed_width import is_fixed_width, to_csv
from .map_files import layers_of

MAX_UNPACKED = 8_000_000_000  # bytes that a container may come to
MAX_WORKBOOK = 900_000_000  # bytes of its sheets before they are compressed: a workbook is read whole
MAX_MEMBERS = 2_000
_BLOCK = 1 << 20
_TABLES = {
    ".csv",
    ".txt",
    ".tsv",
    ".tab",
    ".json",
    ".geojson",
    ".xlsx",
    ".xlsm",
    ".xls",
    ".ods",
    ".gz",
    ".gpkg",
    ".shp",
    ".kml",
    ".kmz",
    ".dat",
    ".prn",
    ".asc",
}
_BESIDE = {".dbf", ".shx", ".prj", ".cpg", ".sbn", ".sbx", ".qix", ".xml"}  # what lies beside a Shapefile


class Readable(Protocol):
    """What can be read a block at a time."""

    def read(self, size: int, /) -> bytes: ...


Progress = Callable[[int], None]


@dataclass(frozen=True)
class Piece:
    """One plain file: where it is, how it is called to people, and its kind where the container tells. given: its place among
    the files as they were given, whatever the order in which they come in."""

    path: Path
    name: str
    kind: str | None = None
    given: int = 0


def pieces(path: Path, into: Path, progress: Progress | None = None) -> list[Piece]:
    """The plain files of which a file or folder is made; `into` takes those that must be unpacked, and is made when needed.
    progress: told how many bytes were unpacked so far; what it raises stops the unpacking.

    Raises Refused for what is broken, swells out of reason, or holds nothing that can be used.
    """
    return list(_Unpacking(into, progress).of(path, path.name))


def is_plain(path: Path) -> bool:
    """Whether a file is a table or a feature collection as it is."""
    return path.is_file() and _form(path) is None


def _form(path: Path) -> str | None:
    with path.open("rb") as f:
        head = f.read(4096)
    if head.startswith(b"\x1f\x8b"):
        return "gz"
    if head.startswith(b"PK\x03\x04"):
        return "zip"
    if head.startswith(b"\xd0\xcf\x11\xe0"):
        return "workbook"
    if head.startswith((b"SQLite format 3\x00", b"\x00\x00'\n")) or b"<kml" in head:
        return "map"
    return "fixed" if is_fixed_width(path) else None


class _Unpacking:
    def __init__(self, into: Path, progress: Progress | None) -> None:
        self.into, self.left, self.made, self.progress = into, MAX_UNPACKED, 0, progress

    def of(self, path: Path, name: str, depth: int = 0) -> Iterator[Piece]:
        if depth > 3:
            raise Refused(f"{name}: files within files within files; unpack it and bring in what it holds.")
        if path.is_dir():
            yield from self._folder(path, name, depth)
            return
        if not path.is_file():
            raise Refused(f"There is no file {path}.")
        form = _form(path)
        if form == "gz":
            yield from self._gz(path, name, depth)
        elif form == "zip":
            yield from self._zip(path, name, depth)
        elif form == "workbook":
            yield from self._workbook(path, name)
        elif form == "map":
            yield from self._map(path, name)
        elif form == "fixed":
            to = self._place(Path(name).stem + ".csv")
            to_csv(path, to)
            yield Piece(to, name)
        elif (
            path.suffix.lower() in (".geojson", ".json")
            and (layers := layers_of(path, name, self._place("layers", folder=True))) is not None
        ):
            for to, shown, kind in layers:
                yield Piece(to, shown, kind)
        else:
            yield Piece(path, name)

    def _folder(self, path: Path, name: str, depth: int) -> Iterator[Piece]:
        files = [
            f
            for f in sorted(path.iterdir())
            if f.is_file() and f.suffix.lower() in _TABLES and not f.name.startswith(".")
        ]
        if not files:
            yield Piece(path, name, "photos")
            return
        for file in files:
            yield from self.of(file, file.name, depth + 1)

    def _gz(self, path: Path, name: str, depth: int) -> Iterator[Piece]:
        inner = name[:-3] if name.lower().endswith(".gz") else name
        to = self._place(inner)
        try:
            with gzip.open(path) as source:
                self._copy(source, to, name)
        except (OSError, EOFError, ValueError) as error:
            if isinstance(error, OSError) and error.errno:
                raise
            raise Refused(f"{name} is no complete gz file: {error}.") from None
        yield from self.of(to, inner, depth + 1)

    def _zip(self, path: Path, name: str, depth: int) -> Iterator[Piece]:
        try:
            with zipfile.ZipFile(path) as bundle:
                members = [
                    m
                    for m in bundle.infolist()
                    if not m.is_dir() and not Path(m.filename).name.startswith((".", "__MACOSX"))
                ]
                names = {m.filename for m in bundle.infolist()}
                if "[Content_Types].xml" in names or "mimetype" in names:
                    if sum(m.file_size for m in members) > MAX_WORKBOOK:
                        raise Refused(f"{name} is too large for a workbook: save its sheets as CSV and bring those in.")
                    yield from self._workbook(path, name)
                    return
                wanted = [m for m in members if Path(m.filename).suffix.lower() in _TABLES | _BESIDE]
                if not any(Path(m.filename).suffix.lower() in _TABLES for m in wanted):
                    yield Piece(path, name, "photos")
                    return
                if len(wanted) > MAX_MEMBERS:
                    raise Refused(
                        f"{name} holds {len(wanted):,} files, more than {MAX_MEMBERS:,}: bring it in in parts."
                    )
                folder = self._place(Path(name).stem + "-files", folder=True)
                held: list[Path] = []
                for member in wanted:
                    to = folder / re.sub(r"[^\w .()-]+", "_", Path(member.filename).name)
                    if to.exists():
                        to = folder / f"{len(held)}-{to.name}"
                    with bundle.open(member) as source:
                        self._copy(source, to, name)
                    held.append(to)
        except (zipfile.BadZipFile, NotImplementedError, RuntimeError, EOFError) as error:
            raise Refused(f"{name} is no zip file that can be read: {error}.") from None
        for file in sorted(held):
            if file.suffix.lower() in _TABLES:
                yield from self.of(file, f"{Path(name).name}: {file.name}" if len(held) > 1 else file.name, depth + 1)

    def _workbook(self, path: Path, name: str) -> Iterator[Piece]:
        from python_calamine import CalamineError, CalamineWorkbook, SheetVisibleEnum

        found = []
        try:
            book = CalamineWorkbook.from_path(str(path))
            for told in book.sheets_metadata:
                if told.visible != SheetVisibleEnum.Visible:
                    continue
                rows = book.get_sheet_by_name(told.name).to_python(skip_empty_area=True)
                if sum(1 for row in rows[:50] if sum(c not in ("", None) for c in row) >= 2) < 2:
                    continue  # a sheet of notes
                to = self._place(f"{Path(name).stem} {told.name}.csv")
                with to.open("w", encoding="utf-8", newline="") as out:
                    csv.writer(out).writerows([_cell(c) for c in row] for row in rows)
                found.append((to, told.name))
        except (CalamineError, OSError, ValueError) as error:
            raise Refused(f"{name} is no workbook that can be read: {error}.") from None
        if not found:
            raise Refused(f"{name} has no sheet with a table: a row of heads, and rows under it.")
        for to, sheet in found:
            yield Piece(to, f"{name}: {sheet}" if len(found) > 1 else name)

    def _map(self, path: Path, name: str) -> Iterator[Piece]:
        layers = layers_of(path, name, self._place("layers", folder=True))
        if not layers:
            raise Refused(f"{name} holds no layer with features.")
        for to, shown, kind in layers:
            yield Piece(to, shown, kind)

    def _place(self, name: str, folder: bool = False) -> Path:
        """A place in `into` for a file of this name, each in a folder of its own."""
        self.made += 1
        safe = re.sub(r"[^\w .()-]+", "_", name).strip(" .")[-120:] or "table"
        to = self.into / str(self.made) / safe
        (to if folder else to.parent).mkdir(parents=True, exist_ok=True)
        return to

    def _copy(self, source: Readable, to: Path, name: str) -> None:
        with to.open("wb") as out:
            while block := source.read(_BLOCK):
                self.left -= len(block)
                if self.left < 0 or shutil.disk_usage(self.into).free < 200_000_000:
                    raise Refused(f"{name} comes to more than can be unpacked here: bring it in in parts.")
                out.write(block)
                if self.progress:
                    self.progress(MAX_UNPACKED - self.left)


def _cell(value: object) -> str:
    if value is None:
        return ""
    if isinstance(value, bool):
        return "yes" if value else "no"
    if isinstance(value, dt.datetime):
        return value.date().isoformat() if value.time() == dt.time() else value.isoformat(timespec="seconds")
    return written(value) if isinstance(value, float) else str(value)


ORDER = ("areas", "parcels", "assessments", "transfers", "listings", "history", "series", "photos")


def in_order(found: list[tuple[Piece, str]]) -> list[tuple[Piece, str]]:
    """Pieces with their kinds in the order in which they build on one another: parcels before what names them."""
    return sorted(found, key=lambda pair: ORDER.index(pair[1]) if pair[1] in ORDER else len(ORDER))
