"""Map tiles from one file: MBTiles (a database of SQLite) or PMTiles. Both are open formats; tiles are numbered as the web does it,
from the north-west corner."""

from __future__ import annotations

import gzip
import sqlite3
import struct
import zlib
from collections.abc import Mapping
from contextlib import closing
from dataclasses import dataclass
from functools import lru_cache
from pathlib import Path
from typing import Any, BinaryIO

from pmtiles.reader import MmapSource, Reader
from pmtiles.tile import Compression, MagicNumberNotFound, TileType

from ..core.errors import Refused

FOLDER = "map"  # of the data folder, in which tile files lie
ENDINGS = (".mbtiles", ".pmtiles")
_FAULTS = (
    sqlite3.Error,
    OSError,
    ValueError,
    KeyError,
    IndexError,
    EOFError,
    AttributeError,
    struct.error,
    zlib.error,
    MagicNumberNotFound,
)
_OF_TYPE = {
    TileType.MVT: "pbf",
    TileType.PNG: "png",
    TileType.JPEG: "jpg",
    TileType.WEBP: "webp",
    TileType.AVIF: "avif",
}
KINDS = {
    "pbf": "application/vnd.mapbox-vector-tile", "png": "image/png", "jpg": "image/jpeg", "jpeg": "image/jpeg",
    "webp": "image/webp", "avif": "image/avif",
}  # fmt: skip


@dataclass(frozen=True)
class TileFile:
    """form: "pbf" for vector tiles, else the form of its pictures. attribution: whom the map is by, as the file says it."""

    path: Path
    form: str
    least_zoom: int
    most_zoom: int
    attribution: str

    @property
    def is_vector(self) -> bool:
        return self.form == "pbf"

    def tile(self, z: int, x: int, y: int) -> bytes | None:
        """One tile, not packed; None where the file has none there. Raises Refused where the file is damaged."""
        try:
            return (_mb_tile if self.path.suffix == ".mbtiles" else _pm_tile)(self.path, z, x, y)
        except _FAULTS as error:
            raise Refused(f"{self.path.name} cannot be read: {error}.") from error


def listed(folder: Path) -> list[str]:
    """Names of the tile files of a data folder."""
    return sorted(p.name for p in (folder / FOLDER).glob("*") if p.suffix in ENDINGS)


def tile_file(folder: Path, name: str) -> TileFile:
    """A tile file of a data folder by its name. Raises Refused where there is none, or it holds no tiles that a map can show."""
    path = folder / FOLDER / name
    if name not in listed(folder):
        raise Refused(f"There is no tile file “{name}” in {folder / FOLDER}: put it there first.", field="file")
    return _opened(path, path.stat().st_mtime_ns)


@lru_cache(maxsize=8)
def _opened(path: Path, _: int) -> TileFile:
    try:
        return (_mb_file if path.suffix == ".mbtiles" else _pm_file)(path)
    except _FAULTS as error:
        raise Refused(
            f"{path.name} is no tile file that can be read{f': {error}' if str(error) else ''}.", field="file"
        ) from error


def _mb_file(path: Path) -> TileFile:
    with closing(_database(path)) as db:
        told: Mapping[str, str] = dict(db.execute("SELECT name, value FROM metadata").fetchall())
        least, most = db.execute("SELECT min(zoom_level), max(zoom_level) FROM tiles").fetchone()
    if least is None:
        raise ValueError("it holds no tiles")
    return TileFile(path, _form(told.get("format", "png")), int(least), int(most), _plain(told.get("attribution", "")))


def _mb_tile(path: Path, z: int, x: int, y: int) -> bytes | None:
    with closing(_database(path)) as db:
        row = db.execute(
            "SELECT tile_data FROM tiles WHERE zoom_level = :z AND tile_column = :x AND tile_row = :y",
            {"z": z, "x": x, "y": 2**z - 1 - y},
        ).fetchone()  # its rows count from the south
    return None if row is None else _unpacked(bytes(row[0]))


def _database(path: Path) -> sqlite3.Connection:
    return sqlite3.connect(f"{path.resolve().as_uri()}?mode=ro&immutable=1", uri=True)


def _reader(file: BinaryIO) -> Any:
    source: Any = MmapSource
    made: Any = Reader
    return made(source(file))


def _pm_file(path: Path) -> TileFile:
    with path.open("rb") as file:
        reader = _reader(file)
        head, told = reader.header(), reader.metadata()
    form = _form(_OF_TYPE.get(head["tile_type"], ""))
    return TileFile(path, form, int(head["min_zoom"]), int(head["max_zoom"]), _plain(str(told.get("attribution", ""))))


def _pm_tile(path: Path, z: int, x: int, y: int) -> bytes | None:
    with path.open("rb") as file:
        reader = _reader(file)
        packing = reader.header()["tile_compression"]
        held = reader.get(z, x, y)
    if held is not None and packing not in (Compression.NONE, Compression.GZIP, Compression.UNKNOWN):
        raise ValueError("its tiles are packed in a way that is not known here")
    return None if held is None else _unpacked(bytes(held))


def _form(told: str) -> str:
    if told not in KINDS:
        raise ValueError(f"its tiles are “{told}”, which no map here can show")
    return told


def _unpacked(data: bytes) -> bytes:
    return gzip.decompress(data) if data[:2] == b"\x1f\x8b" else data


def _plain(text: str) -> str:
    """Words without the links that many files have in them."""
    out, inside = [], False
    for c in text:
        inside = c == "<" or (inside and c != ">")
        if not inside and c != ">":
            out.append(c)
    return "".join(out).replace("&copy;", "©").strip()[:200]
