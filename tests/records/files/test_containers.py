"""Files in every wrapping: workbooks, gz, zip, fixed width, old encodings, map files made by other libraries."""

from __future__ import annotations

import datetime as dt
import gzip
import json
import zipfile

import numpy as np
import openpyxl
import pyogrio
import pyproj
import pytest
import shapely

from rain_porch.core.errors import Refused
from rain_porch.records.files import containers
from rain_porch.records.importing import import_file
from rain_porch.records.unpacking import unpacked
from rain_porch.store.db import RECORDS, open_database
from tests.records.head_styles import as_csv, listings, table

NOW = dt.datetime(2026, 6, 30)
ROWS = listings(60)


@pytest.fixture
def bring(tmp_path):
    """Bring files in as the command line does: (results by kind, the database)."""
    folder = tmp_path / "data"
    folder.mkdir()
    db = open_database(folder, RECORDS)

    def run(*paths):
        out = {}
        with unpacked(paths, folder) as found:
            for piece in found:
                result = import_file(db, piece.path, folder=folder, now=NOW, kind=piece.kind)
                out[result.kind] = result
        assert not list(folder.glob("unpacked-*")) and not list(folder.glob("staging-*"))
        return out, db

    yield run
    db.close()


def listings_of(db):
    names = "listing_id, standard_status, unparsed_address, close_date, close_price, living_area"
    return [tuple(r) for r in db.execute(f"SELECT {names} FROM listings ORDER BY listing_id")]


def expected():
    return sorted(
        (r["id"], r["status"], " ".join(filter(None, (r["number"], r["dir"], r["street"], r["type"]))), r["close"] and r["close"].isoformat(), r["price"], r["area"])
        for r in ROWS
    )  # fmt: skip


STYLE = "number sign and dollars"


def test_a_workbook_of_two_sheets_comes_in_as_two_kinds(tmp_path, bring):
    book = openpyxl.Workbook()
    sheet = book.active
    sheet.title = "Sold and for sale"
    sheet.append(["Our spring export"])
    sheet.append([])
    lines = table(STYLE, ROWS)
    days = [i for i, head in enumerate(lines[0]) if "Date" in head]
    sheet.append(lines[0])
    for line in lines[1:]:
        cells = [dt.datetime.strptime(c, "%m/%d/%Y") if i in days and c else c for i, c in enumerate(line)]
        sheet.append([float(c) if isinstance(c, str) and c.isdigit() and len(c) < 5 else c for c in cells])
    other = book.create_sheet("Parcels")
    for line in table("assessor", ROWS):
        other.append(line)
    notes = book.create_sheet("Read me")
    notes.append(["Prices are in dollars."])
    file = tmp_path / "office.xlsx"
    book.save(file)
    out, db = bring(file)
    assert list(out) == ["parcels", "listings"] and out["listings"].new == len(ROWS) == out["parcels"].new
    assert listings_of(db) == expected()


@pytest.mark.parametrize("encoding", ["utf-8-sig", "cp1252", "utf-16", "mac_roman"])
def test_any_encoding_is_told(tmp_path, bring, encoding):
    rows = [{**r, "city": "Château-Brême", "street": "Bäckerhöhe"} for r in ROWS]
    file = tmp_path / "letters.csv"
    file.write_bytes(as_csv(table(STYLE, rows)).encode(encoding))
    _, db = bring(file)
    assert {r[0] for r in db.execute("SELECT DISTINCT city FROM listings")} == {"Château-Brême"}


def test_gz_zip_and_a_folder_hold_the_same(tmp_path, bring):
    text = as_csv(table(STYLE, ROWS)).encode()
    folder = tmp_path / "folder"
    folder.mkdir()
    (folder / "sales.csv.gz").write_bytes(gzip.compress(text))
    with zipfile.ZipFile(tmp_path / "all.zip", "w") as bundle:
        bundle.writestr("deep/sales.csv", text)
        bundle.writestr("deep/deeds.txt", as_csv(table("recorder", ROWS), "\t"))
        bundle.writestr("read me.pdf", b"%PDF-1.4")
    out, db = bring(folder)
    assert out["listings"].new == len(ROWS) and listings_of(db) == expected()
    out, _ = bring(tmp_path / "all.zip")
    assert list(out) == ["transfers", "listings"]
    assert (out["listings"].same, out["listings"].new, out["transfers"].new) == (len(ROWS), 0, len(ROWS))


def test_columns_at_fixed_places_are_told_by_their_blanks(tmp_path, bring):
    lines = table("capitals", ROWS)
    widths = [max(len(row[i]) for row in lines) + 2 for i in range(len(lines[0]))]
    file = tmp_path / "fixed.txt"
    file.write_text("\n".join("".join(c.ljust(w) for c, w in zip(row, widths, strict=True)).rstrip() for row in lines))
    out, db = bring(file)
    assert out["listings"].new == len(ROWS) and listings_of(db) == expected()


def parcels(crs):
    """Squares of 30 m around the listings' places, drawn in a projection: (shapes, places)."""
    turn = pyproj.Transformer.from_crs("EPSG:4326", crs, always_xy=True)
    x, y = turn.transform([r["lon"] for r in ROWS], [r["lat"] for r in ROWS])
    side = 15 if pyproj.CRS(crs).axis_info[0].unit_name != "degree" else 15 / 111_000
    return shapely.box(np.array(x) - side, np.array(y) - side, np.array(x) + side, np.array(y) + side)


@pytest.mark.parametrize(
    ("name", "driver", "crs"),
    [("parcels.gpkg", "GPKG", "EPSG:32625"), ("parcels.shp", "ESRI Shapefile", "EPSG:32625"), ("parcels.kml", "KML", "EPSG:4326"), ("parcels.geojson", "GeoJSON", "EPSG:4326")],
)  # fmt: skip
def test_map_files_bring_parcels_with_their_places_and_lots(tmp_path, bring, name, driver, crs):
    file = tmp_path / name
    columns = {
        "PIN": [r["parcel"] for r in ROWS], "SITE_ADDR": [f"{r['number']} {r['street']} {r['type']}" for r in ROWS], "YR_BUILT": [r["year"] or 0 for r in ROWS],
        "LIV_AREA": [r["area"] for r in ROWS], "SITE_CITY": [r["city"] for r in ROWS],
    }  # fmt: skip
    data = [np.array(v) if isinstance(v[0], int) else np.array(v, dtype=object) for v in columns.values()]
    pyogrio.raw.write(
        file, shapely.to_wkb(parcels(crs)), data, list(columns), crs=crs, geometry_type="Polygon", driver=driver
    )
    if driver == "ESRI Shapefile":
        with zipfile.ZipFile(tmp_path / "parcels.zip", "w") as bundle:
            for part in tmp_path.glob("parcels.*"):
                if part.suffix != ".zip":
                    bundle.write(part, part.name)
        file = tmp_path / "parcels.zip"
    out, db = bring(file)
    assert (out["parcels"].new, out["parcels"].suspect, out["areas"].new) == (
        len(ROWS),
        sum(r["year"] is None for r in ROWS),
        len(ROWS),
    )
    row = dict(db.execute("SELECT * FROM parcels WHERE parcel_number = :p", {"p": ROWS[0]["parcel"]}).fetchone())
    assert (row["living_area"] == ROWS[0]["area"] and row["year_built"] == ROWS[0]["year"]) or row["suspect"]
    assert row["latitude"] == pytest.approx(ROWS[0]["lat"], abs=1e-5)
    assert row["lot_size_square_feet"] == pytest.approx(900 * 10.7639, rel=0.45)  # a degree is shorter east to west
    kind, geometry = db.execute("SELECT kind, geometry FROM areas WHERE name = :p", {"p": ROWS[0]["parcel"]}).fetchone()
    assert kind == "lot" and shapely.from_geojson(geometry).geom_type in ("Polygon", "MultiPolygon")


def test_lines_and_areas_of_a_map_file_are_named_and_of_a_kind(tmp_path, bring):
    file = tmp_path / "town.gpkg"
    lines = shapely.to_wkb(shapely.linestrings([[(-38.4, 41.2), (-38.39, 41.21)], [(-38.4, 41.22), (-38.39, 41.2)]]))
    pyogrio.raw.write(file, lines, [np.array(["Ferry Lane", "Mill Street"], dtype=object)], ["FULLNAME"], layer="road_centerlines", crs="EPSG:4326", geometry_type="LineString", driver="GPKG")  # fmt: skip
    areas = shapely.to_wkb(shapely.box([-38.41, -38.4], [41.19, 41.2], [-38.4, -38.39], [41.2, 41.21]))
    pyogrio.raw.write(file, areas, [np.array(["Heron Park", "Old Mill"], dtype=object)], ["SUBNAME"], layer="subdivisions", crs="EPSG:4326", geometry_type="Polygon", driver="GPKG", append=True)  # fmt: skip
    _, db = bring(file)
    held = {(r[0], r[1]) for r in db.execute("SELECT name, kind FROM areas")}
    assert held == {("Ferry Lane", "street"), ("Mill Street", "street"), ("Heron Park", "subdivision"), ("Old Mill", "subdivision")}  # fmt: skip


def test_a_projection_that_is_not_told_is_asked_for(tmp_path):
    file = tmp_path / "bare.shp"
    pyogrio.raw.write(file, shapely.to_wkb(parcels("EPSG:32625")), [np.array(["x"] * len(ROWS), dtype=object)], ["NAME"], geometry_type="Polygon", driver="ESRI Shapefile")  # fmt: skip
    with pytest.raises(Refused, match=r"bring in its \.prj"):
        containers.pieces(file, tmp_path / "into")


@pytest.mark.parametrize(
    ("name", "data"),
    [
        ("cut.csv.gz", gzip.compress(b"a,b\n1,2\n" * 999, mtime=0)[:-20]),
        ("cut.zip", b"PK\x03\x04" + b"x" * 300),
        ("none.xlsx", None),
        ("cut.gpkg", b"SQLite format 3\x00" + b"y" * 4000),
        ("old.xls", b"\xd0\xcf\x11\xe0" + b"z" * 600),
        ("cut.kml", b"<?xml version='1.0'?><kml><Document><Placemark>"),
    ],
)
def test_what_is_broken_is_refused_in_a_sentence(tmp_path, name, data):
    file = tmp_path / name
    if data is None:
        openpyxl.Workbook().save(file)
    else:
        file.write_bytes(data)
    with pytest.raises(Refused, match=name.split(".")[0]):
        containers.pieces(file, tmp_path / "into")


@pytest.mark.parametrize(
    "text",
    [
        '<OGRVRTDataSource><!-- <kml --><OGRVRTLayer name="secret"><SrcDataSource>{secret}</SrcDataSource>'
        '<GeometryField encoding="PointFromColumns" x="X" y="X"/></OGRVRTLayer></OGRVRTDataSource>',
        '<OGRWFSDataSource><!-- <kml --><URL>http://127.0.0.1:9/wfs</URL></OGRWFSDataSource>',
        '{{"type": "FeatureCollection", "x": "<OGRVRTDataSource><OGRVRTLayer name=\\"secret\\"><SrcDataSource>{secret}</SrcDataSource></OGRVRTLayer></OGRVRTDataSource>"}}',
    ],
)  # fmt: skip
def test_a_file_that_names_another_does_not_bring_it(tmp_path, text):
    secret = tmp_path / "secret.csv"
    secret.write_text("Name,X\nhidden,1\n")
    file = tmp_path / ("evil.kml" if text.startswith("<") else "evil.geojson")
    file.write_text(text.format(secret=secret))
    with pytest.raises(Refused, match="evil"):
        containers.pieces(file, tmp_path / "into")
    assert not [p for p in (tmp_path / "into").rglob("*") if p.is_file()]


def test_areas_with_a_name_each_are_read_as_they_are(tmp_path, bring):
    file = tmp_path / "hoods.geojson"
    square = json.loads(shapely.to_geojson(shapely.box(-38.4, 41.2, -38.39, 41.21)))
    one = {"type": "Feature", "properties": {"name": "Old Mill"}, "geometry": square}
    file.write_text(json.dumps({"type": "FeatureCollection", "features": [{**one, "id": 4}, {**one, "id": 9}]}))
    out, db = bring(file)
    assert out["areas"].new == 2 and {r[0] for r in db.execute("SELECT area_key FROM areas")} == {
        "area|Old Mill|4", "area|Old Mill|9",
    }  # fmt: skip


def test_two_features_of_one_name_are_both_kept(tmp_path, bring):
    file = tmp_path / "subdivisions.gpkg"
    shapes = shapely.to_wkb(shapely.box([-38.41, -38.4], [41.19, 41.2], [-38.4, -38.39], [41.2, 41.21]))
    pyogrio.raw.write(file, shapes, [np.array(["Old Mill", "Old Mill"], dtype=object)], ["SUBNAME"], crs="EPSG:4326", geometry_type="Polygon", driver="GPKG")  # fmt: skip
    out, _ = bring(file)
    assert (out["areas"].new, out["areas"].rejected) == (2, 0)
    out, _ = bring(file)
    assert out["areas"].same == 2


def test_a_bomb_is_not_unpacked(tmp_path, monkeypatch):
    monkeypatch.setattr(containers, "MAX_UNPACKED", 100_000)
    file = tmp_path / "bomb.csv.gz"
    file.write_bytes(gzip.compress(b"0" * 5_000_000))
    with pytest.raises(Refused, match="comes to more"):
        containers.pieces(file, tmp_path / "into")


def test_a_list_of_records_in_json_is_no_map_file(tmp_path, bring):
    file = tmp_path / "sales.json"
    lines = table("snake", ROWS)
    file.write_text(json.dumps([dict(zip(lines[0], line, strict=True)) for line in lines[1:]]))
    out, db = bring(file)
    assert out["listings"].new == len(ROWS) and listings_of(db) == expected()
