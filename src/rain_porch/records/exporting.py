"""Records out again: CSV and JSON in our records format, GeoJSON for places, XLSX for people.

What is written as CSV, JSON or GeoJSON (areas) is just what the import reads: bringing it in again changes nothing.
"""

from __future__ import annotations

import csv
import json
import sqlite3
from collections.abc import Iterator
from pathlib import Path
from typing import Any

import xlsxwriter

from ..core.errors import Refused
from ..core.facts.fields import BY_NAME, Field, Kind
from ..core.intake.parsing import guarded, written
from ..store.records import exports
from .mapping.layouts import LAYOUTS

FORMATS = (".csv", ".json", ".geojson", ".xlsx")
KINDS = (*LAYOUTS, "areas")
SHEET_ROWS = 1_000_000


def export(db: sqlite3.Connection, kind: str, path: Path) -> int:
    """Write all records of a kind; the ending of the path says how. Returns the rows. Refused for what cannot be."""
    way = path.suffix.lower()
    if kind not in KINDS:
        raise Refused(f"There are no records of a kind “{kind}”: name one of {', '.join(KINDS)}.")
    if way not in FORMATS:
        raise Refused(f"{path.name}: records are written as {', '.join(FORMATS)}; give the file one of these endings.")
    if kind == "areas":
        if way != ".geojson":
            raise Refused("Areas are shapes: write them to a .geojson file.")
        return _geojson(path, exports.areas(db))
    layout = LAYOUTS[kind]
    fields = (*layout.fields, *(BY_NAME[name] for name in exports.own_names(db, layout.table)))
    rows = exports.records(db, layout.table, [f.name for f in fields])
    if way == ".csv":
        return _csv(path, fields, rows)
    if way == ".json":
        return _json(path, fields, rows)
    if way == ".xlsx":
        return _workbook(path, kind, fields, rows)
    if "latitude" not in {f.name for f in fields}:
        raise Refused(f"{kind} have no places: write them as .csv, .json or .xlsx.")
    return _geojson(path, _points(fields, rows))


def _words(f: Field, value: Any) -> str:
    """A value as a file has it: whole numbers without a point, yes and no as Y and N."""
    if value is None:
        return ""
    if f.kind == Kind.YES_NO:
        return "Y" if value else "N"
    if isinstance(value, float):
        return written(value)
    return guarded(str(value))


def _csv(path: Path, fields: tuple[Field, ...], rows: Iterator[tuple[Any, ...]]) -> int:
    n = 0
    with path.open("w", newline="", encoding="utf-8") as out:
        writer = csv.writer(out)
        writer.writerow([f.reso for f in fields])
        for row in rows:
            writer.writerow([_words(f, v) for f, v in zip(fields, row, strict=True)])
            n += 1
    return n


def _json_value(f: Field, value: Any) -> Any:
    if f.kind == Kind.YES_NO:
        return bool(value)
    return int(value) if isinstance(value, float) and value == int(value) else value


def _document(fields: tuple[Field, ...], row: tuple[Any, ...]) -> dict[str, Any]:
    return {f.reso: _json_value(f, v) for f, v in zip(fields, row, strict=True) if v is not None}


def _json(path: Path, fields: tuple[Field, ...], rows: Iterator[tuple[Any, ...]]) -> int:
    return _array(path, "[\n", (_document(fields, row) for row in rows), "\n]\n")


def _points(fields: tuple[Field, ...], rows: Iterator[tuple[Any, ...]]) -> Iterator[dict[str, Any]]:
    for row in rows:
        facts = _document(fields, row)
        lat, lon = facts.get("Latitude"), facts.get("Longitude")
        point = None if lat is None or lon is None else {"type": "Point", "coordinates": [lon, lat]}
        yield {"type": "Feature", "properties": facts, "geometry": point}


def _geojson(path: Path, features: Iterator[dict[str, Any]]) -> int:
    return _array(path, '{"type": "FeatureCollection", "features": [\n', features, "\n]}\n")


def _array(path: Path, head: str, items: Iterator[dict[str, Any]], foot: str) -> int:
    n = 0
    with path.open("w", encoding="utf-8") as out:
        out.write(head)
        for item in items:
            out.write((",\n" if n else "") + json.dumps(item, ensure_ascii=False))
            n += 1
        out.write(foot)
    return n


def _workbook(path: Path, kind: str, fields: tuple[Field, ...], rows: Iterator[tuple[Any, ...]]) -> int:
    """For people: labels, widths, a head that stays. No cell ever starts a formula or a link."""
    options = {
        "strings_to_formulas": False,
        "strings_to_urls": False,
        "constant_memory": True,
        "nan_inf_to_errors": True,
    }
    n = 0
    with xlsxwriter.Workbook(path, options) as book:
        sheet = book.add_worksheet(kind.capitalize())
        head = book.add_format({"bold": True, "bottom": 1, "text_wrap": True, "valign": "top"})
        forms = {
            Kind.MONEY: book.add_format({"num_format": "#,##0"}),
            Kind.NUMBER: book.add_format({"num_format": "#,##0.##"}),
        }
        for i, f in enumerate(fields):
            sheet.set_column(i, i, 34 if f.kind == Kind.TEXT else 14)
            sheet.write_string(0, i, f.label + (f", {f.unit}" if f.unit and f.unit != "$" else ""), head)
        sheet.freeze_panes(1, 1)
        for n, row in enumerate(rows, start=1):
            if n > SHEET_ROWS:
                raise Refused(f"A sheet holds {SHEET_ROWS:,} rows and there are more {kind}: write them as .csv.")
            for i, (f, v) in enumerate(zip(fields, row, strict=True)):
                if isinstance(v, float):
                    if f.kind == Kind.YES_NO:
                        sheet.write_string(n, i, "yes" if v else "no")
                    else:
                        sheet.write_number(n, i, v, None if f.name in ("latitude", "longitude") else forms.get(f.kind))
                elif v is not None:
                    sheet.write_string(n, i, str(v)[:32_000])
    return n
