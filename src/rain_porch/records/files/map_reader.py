"""Layers of map files (GeoPackage, Shapefile, KML, GeoJSON of any properties), brought to WGS-84: `python -m` this module.

It is a process of its own (started by map_files.py): what a stranger's file does to the library that reads it does not touch the
application, and only the kinds of file above can be opened.

A layer whose columns are those of parcels or listings becomes a table, with a place for each feature; the outlines of parcels
come beside it as the lines of their lots. Any other becomes a feature collection of named areas or lines.
"""

from __future__ import annotations

import csv
import json
import math
import os
import re
import resource
import sys
from collections import Counter
from collections.abc import Callable, Iterator, Sequence
from pathlib import Path
from typing import Any

import numpy as np
import shapely

from ...core.errors import Refused
from ...core.facts.sizes import SQFT_PER_SQUARE_METRE
from ...core.intake.cells import Profile, profiles_of
from ...core.intake.heads import words_of
from ...core.intake.kinds import kind_of
from ...core.intake.matching import match
from ...core.intake.parsing import written

ALLOWED = frozenset({"GPKG", "ESRI Shapefile", "KML", "LIBKML", "GeoJSON"})
# all other kinds of file that the library can open: some of them name further files, or addresses, that it would read
SKIPPED = (
    "ADBC,AIVector,AVCBin,AVCE00,AmigoCloud,CSV,CSW,Carto,DGN,DXF,EDIGEO,EEDA,ESRIJSON,Elasticsearch,FlatGeobuf,GDALG,GML,GPSBabel,GPX,"
    "GTFS,GeoJSONSeq,GeoRSS,HTTP,Idrisi,JML,JSONFG,LVBAG,MBTiles,MEM,MVT,MapInfo File,MapML,MiraMonVector,NGW,OAPIF,ODS,OGCAPI,OGR_GMT,"
    "OGR_PDS,OGR_VRT,OSM,OpenFileGDB,PCIDSK,PDF,PDS4,PGDUMP,PLSCENES,PMTiles,S57,SQLite,SXF,Selafin,TopoJSON,VDV,VFK,VICAR,WAsP,WFS,XLSX"
)
MOST_MEMORY = 6_000_000_000  # bytes
JSON = (".json", ".geojson")
CHUNK = 20_000
SAMPLE = 400
Place = Callable[[str], Path]
Made = list[tuple[Path, str, str | None]]
_NAMES = (
    "name",
    "fullname",
    "label",
    "title",
    "street",
    "subdivision",
    "neighborhood",
    "plat",
    "district",
    "description",
)
_KINDS = (
    ("street", r"street|road|centerline|highway|route|lane|avenue"), ("water", r"water|river|lake|stream|creek|hydro|pond|canal"),
    ("park", r"park|green|open.?space|recreation"), ("fence", r"fence|barrier|rail"), ("school", r"school|attendance"),
    ("subdivision", r"subdiv|plat|addition|neighbo|community|development"), ("lot", r"lot|parcel"), ("postal code", r"zip|postal"), ("city", r"city|municip|town|limits"),
)  # fmt: skip


def layers_of(path: Path, name: str, place: Place) -> Made | None:
    """The layers of a map file as plain files: (path, shown name, kind); None for a GeoJSON file of named features, which is
    read as it is. Refused for what is no map file."""
    import pyogrio
    from pyogrio.errors import DataLayerError, DataSourceError

    try:
        told = pyogrio.list_layers(path)
        out: Made = []
        for layer, geometry in told:
            if geometry is not None:
                made = _layer(path, str(layer), name if len(told) == 1 else f"{name}: {layer}", place)
                if made is None:
                    return None
                out += made
        return out
    except (DataSourceError, DataLayerError, UnicodeError) as error:
        raise Refused(f"{name} is no map file that can be read: {str(error)[:200]}.") from None


def _layer(path: Path, layer: str, shown: str, place: Place) -> Made | None:
    import pyogrio

    info = pyogrio.read_info(path, layer=layer, force_total_bounds=True, force_feature_count=True)
    if not info["features"]:
        return []
    fields = [str(f) for f in info["fields"]]
    sample = next(_features(path, layer, info, SAMPLE), ([], []))
    columns = profiles_of(len(fields), sample[0])
    kind = kind_of(fields, columns)
    if kind in ("parcels", "listings"):
        found = {f.target for f in match(fields, columns, kind) if f.sure >= 0.7}
        to = place(f"{Path(shown.replace(': ', ' ')).stem if ':' not in shown else shown.replace(': ', ' ')}.csv")
        lots = place(f"{layer} lots.geojson") if kind == "parcels" else None
        number = next((f.column for f in match(fields, columns, kind) if f.target == "parcel_number"), None)
        outlined = _write_table(
            path,
            layer,
            info,
            fields,
            to,
            lots,
            number,
            not found & {"lot_size_square_feet", "part:acres"} and kind == "parcels",
        )
        made: Made = [(to, shown, kind)]
        return [*made, (lots, f"{shown}, lot lines", "areas")] if lots is not None and outlined else made
    if path.suffix.lower() in JSON and "name" in fields:
        return None
    to = place(f"{layer}.geojson")
    _write_areas(path, layer, info, fields, columns, to)
    return [(to, shown, "areas")]


def _features(
    path: Path, layer: str, info: dict[str, Any], chunk: int
) -> Iterator[tuple[list[list[str]], Sequence[Any]]]:
    """(cells, shapes in WGS-84) of the features, `chunk` at a time."""
    import pyogrio

    turned = _to_wgs84(info, path.name)
    done = 0
    while done < info["features"]:
        _, _, wkb, data = pyogrio.raw.read(path, layer=layer, skip_features=done, max_features=chunk)
        if wkb is None or not len(wkb):
            return
        shapes = turned(shapely.force_2d(shapely.from_wkb(wkb, on_invalid="ignore")))
        yield [[_text(v) for v in row] for row in zip(*data, strict=True)] if len(data) else [[] for _ in wkb], shapes
        done += len(wkb)


def _to_wgs84(info: dict[str, Any], name: str) -> Callable[[Any], Any]:
    import pyproj

    bounds = info.get("total_bounds")
    if not info.get("crs"):
        if bounds is not None and -180 <= bounds[0] <= bounds[2] <= 180 and -90 <= bounds[1] <= bounds[3] <= 90:
            return lambda shapes: shapes
        raise Refused(
            f"{name} does not say in which projection it is drawn: bring in its .prj file with it, in one zip."
        )
    transformer = pyproj.Transformer.from_crs(info["crs"], "EPSG:4326", always_xy=True)
    return lambda shapes: shapely.transform(shapes, transformer.transform, interleaved=False)


def _text(value: Any) -> str:
    if (
        value is None
        or (isinstance(value, (float, np.floating)) and math.isnan(value))
        or (isinstance(value, np.datetime64) and np.isnat(value))
    ):
        return ""
    if isinstance(value, np.datetime64):
        return str(value)[:10] if str(value)[10:] in ("", "T00:00:00", "T00:00:00.000") else str(value)[:19]
    if isinstance(value, (float, np.floating)):
        return written(float(value))
    return str(value)


def _write_table(
    path: Path,
    layer: str,
    info: dict[str, Any],
    fields: Sequence[str],
    to: Path,
    lots: Path | None,
    number: int | None,
    sized: bool,
) -> bool:
    """The features as a table with the place of each; outlines of parcels to `lots`, where there are any."""
    drawn = False
    extra = ["Latitude", "Longitude", *(["LotSizeSquareFeet"] if sized else [])]
    hidden = {i for i, f in enumerate(fields) if set(words_of(f)) & {"latitude", "longitude"}}
    with to.open("w", encoding="utf-8", newline="") as file:
        writer = csv.writer(file)
        writer.writerow([*(f"{f} (given)" if i in hidden else f for i, f in enumerate(fields)), *extra])
        collection = _Collection(lots)
        for cells, shapes in _features(path, layer, info, CHUNK):
            inside = shapely.point_on_surface(shapes)
            x, y = shapely.get_x(inside), shapely.get_y(inside)
            for row, shape, lon, lat in zip(cells, shapes, x, y, strict=True):
                polygon = shape is not None and shape.geom_type in ("Polygon", "MultiPolygon")
                size = [f"{_square_feet(shape):.0f}" if polygon else ""] if sized else []
                writer.writerow([*row, *(("", "") if np.isnan(lat) else (f"{lat:.7f}", f"{lon:.7f}")), *size])
                if polygon and number is not None and row[number]:
                    collection.add(row[number], "lot", shape, row[number])
                    drawn = True
        collection.close()
    return drawn


def _square_feet(shape: Any) -> float:
    """Area on the ellipsoid."""
    from pyproj import Geod

    return float(abs(Geod(ellps="WGS84").geometry_area_perimeter(shape)[0]) * SQFT_PER_SQUARE_METRE)


class _Collection:
    """A feature collection written one feature at a time."""

    def __init__(self, to: Path | None) -> None:
        self.file = to.open("w", encoding="utf-8") if to is not None else None
        self.first = True
        if self.file:
            self.file.write('{"type": "FeatureCollection", "features": [')

    def add(self, name: str, kind: str, shape: Any, number: object) -> None:
        if self.file:
            feature = {
                "type": "Feature",
                "properties": {"name": name, "kind": kind, "id": number},
                "geometry": json.loads(shapely.to_geojson(shape)),
            }
            self.file.write(("" if self.first else ",\n") + json.dumps(feature, ensure_ascii=False))
            self.first = False

    def close(self) -> None:
        if self.file:
            self.file.write("]}")
            self.file.close()


def _write_areas(
    path: Path, layer: str, info: dict[str, Any], fields: Sequence[str], columns: Sequence[Profile], to: Path
) -> None:
    named = _column_of(fields, _NAMES, columns)
    said = next((i for i, f in enumerate(fields) if f.lower() in ("kind", "type", "class", "category")), None)
    usual = next((kind for kind, words in _KINDS if re.search(words, f"{layer} {path.stem}", re.IGNORECASE)), None)
    collection = _Collection(to)
    n = 0
    met: Counter[str] = Counter()
    for cells, shapes in _features(path, layer, info, CHUNK):
        for row, shape in zip(cells, shapes, strict=True):
            n += 1
            if shape is None or shape.is_empty:
                continue
            line = "Line" in shape.geom_type
            kind = (
                usual or (row[said].lower() if said is not None and row[said] else "") or ("street" if line else "area")
            )
            name = row[named] if named is not None else ""
            name = name or f"{kind} {n}"
            met[name] += 1  # a second feature of one name is numbered
            collection.add(name, kind, shape, met[name] if met[name] > 1 else "")
    collection.close()


def _column_of(fields: Sequence[str], names: Sequence[str], columns: Sequence[Profile]) -> int | None:
    """The column that names the features: by its head, else the first of words."""
    lows = [f.lower() for f in fields]
    for name in names:
        for i, low in enumerate(lows):
            if (
                (low == name or low.startswith(name) or low.endswith("name"))
                and not columns[i].empty
                and columns[i].lettered > 0.3
            ):
                return i
    return next((i for i, p in enumerate(columns) if not p.empty and p.lettered > 0.6 and p.length < 60), None)


def main() -> None:
    """Read {path, name, into} from standard input; write the layers made, or {refused}, to standard output."""
    os.environ["GDAL_SKIP"] = SKIPPED
    os.environ["CPL_VSIL_CURL_ALLOWED_EXTENSIONS"] = "none"
    resource.setrlimit(resource.RLIMIT_AS, (MOST_MEMORY, MOST_MEMORY))
    import pyogrio

    asked = json.load(sys.stdin)
    made = 0

    def place(name: str) -> Path:
        nonlocal made
        made += 1
        to = Path(asked["into"]) / str(made) / (re.sub(r"[^\w .()-]+", "_", name).strip(" .")[-120:] or "layer")
        to.parent.mkdir(parents=True)
        return to

    try:
        if other := {*pyogrio.list_drivers()} - ALLOWED:
            raise Refused(f"Map files are not read here: the library would open {', '.join(sorted(other))} too.")
        layers = layers_of(Path(asked["path"]), asked["name"], place)
        print(json.dumps({"layers": layers and [(str(to), shown, kind) for to, shown, kind in layers]}))
    except Refused as error:
        print(json.dumps({"refused": error.message}))


if __name__ == "__main__":
    main()
