"""Map tiles from one file, in both open formats; what is damaged or holds something else is refused with why."""

from __future__ import annotations

import gzip
import io
import sqlite3
from contextlib import closing
from pathlib import Path

import pytest
from PIL import Image
from pmtiles.tile import Compression, TileType, zxy_to_tileid
from pmtiles.writer import Writer

from rain_porch.core.errors import Refused
from rain_porch.store.tile_files import FOLDER, listed, tile_file

TILES = {(0, 0, 0): "red", (1, 1, 0): "green", (2, 3, 1): "blue"}  # (z, x, y) from the north-west


def picture(colour: str) -> bytes:
    out = io.BytesIO()
    Image.new("RGB", (256, 256), colour).save(out, "PNG")
    return out.getvalue()


def mb_file(path: Path, tiles: dict[tuple[int, int, int], bytes], form: str = "png", attribution: str = "") -> Path:
    path.parent.mkdir(exist_ok=True)
    with closing(sqlite3.connect(path)) as db, db:
        db.execute("CREATE TABLE metadata (name TEXT, value TEXT)")
        db.execute("CREATE TABLE tiles (zoom_level INTEGER, tile_column INTEGER, tile_row INTEGER, tile_data BLOB)")
        db.executemany("INSERT INTO metadata VALUES (?, ?)", [("format", form), ("attribution", attribution)])
        db.executemany("INSERT INTO tiles VALUES (?, ?, ?, ?)", [(z, x, 2**z - 1 - y, data) for (z, x, y), data in tiles.items()])  # fmt: skip
    return path


def pm_file(path: Path, tiles: dict[tuple[int, int, int], bytes], kind: TileType) -> Path:
    path.parent.mkdir(exist_ok=True)
    with path.open("wb") as file:
        writer = Writer(file)
        for (z, x, y), data in sorted(tiles.items(), key=lambda t: zxy_to_tileid(*t[0])):
            writer.write_tile(zxy_to_tileid(z, x, y), data)
        head = {
            "tile_type": kind, "tile_compression": Compression.GZIP if kind == TileType.MVT else Compression.NONE,
            "min_lon_e7": 0, "min_lat_e7": 0, "max_lon_e7": 0, "max_lat_e7": 0, "center_zoom": 0, "center_lon_e7": 0, "center_lat_e7": 0,
        }  # fmt: skip
        writer.finalize(head, {"attribution": '<a href="https://maps.example">&copy; Ellery Maps</a>'})
    return path


def test_tiles_are_found_where_the_web_numbers_them(tmp_path):
    folder = tmp_path / FOLDER
    pictures = {at: picture(colour) for at, colour in TILES.items()}
    mb_file(folder / "streets.mbtiles", pictures, attribution="Town survey")
    pm_file(folder / "air.pmtiles", pictures, TileType.PNG)
    (folder / "notes.txt").write_text("no tiles")
    assert listed(tmp_path) == ["air.pmtiles", "streets.mbtiles"]
    for name, whose in (("streets.mbtiles", "Town survey"), ("air.pmtiles", "© Ellery Maps")):
        file = tile_file(tmp_path, name)
        assert (file.form, file.is_vector, file.least_zoom, file.most_zoom, file.attribution) == ("png", False, 0, 2, whose)  # fmt: skip
        assert {at: file.tile(*at) for at in TILES} == pictures and file.tile(2, 0, 0) is None


def test_vector_tiles_come_unpacked(tmp_path):
    packed = {(0, 0, 0): gzip.compress(b"a tile")}
    mb_file(tmp_path / FOLDER / "v.mbtiles", packed, form="pbf")
    pm_file(tmp_path / FOLDER / "v.pmtiles", packed, TileType.MVT)
    for name in ("v.mbtiles", "v.pmtiles"):
        file = tile_file(tmp_path, name)
        assert file.is_vector and file.tile(0, 0, 0) == b"a tile"


def test_what_is_no_tile_file_is_refused_with_why(tmp_path):
    folder = tmp_path / FOLDER
    whole = mb_file(folder / "whole.mbtiles", {(0, 0, 0): b"x"}).read_bytes()
    (folder / "cut.mbtiles").write_bytes(whole[:5000])
    (folder / "cut.pmtiles").write_bytes(
        pm_file(folder / "p.pmtiles", {(0, 0, 0): b"x"}, TileType.PNG).read_bytes()[:90]
    )
    (folder / "words.pmtiles").write_text("These are no tiles, but words, and many of them. " * 20)
    mb_file(folder / "none.mbtiles", {})
    mb_file(folder / "odd.mbtiles", {(0, 0, 0): b"x"}, form="grid")
    for name in ("cut.mbtiles", "cut.pmtiles", "words.pmtiles", "none.mbtiles", "odd.mbtiles"):
        with pytest.raises(Refused, match=f"^{name} is no tile file"):
            tile_file(tmp_path, name)
    for name in ("../porch.db", "gone.mbtiles"):
        with pytest.raises(Refused, match="There is no tile file"):
            tile_file(tmp_path, name)
