"""Areas and the lines of the base map come in as GeoJSON features with a name and a kind."""

from __future__ import annotations

import datetime as dt
import json
import sqlite3
from pathlib import Path
from typing import Any

import shapely
from shapely.geometry import shape

from ..core.errors import Refused
from ..store import imports as store
from .readers import read_json

MAX_POINTS = 200_000


def is_geojson(path: Path) -> bool:
    """Whether the file starts as a GeoJSON feature collection."""
    if not path.is_file():
        return False
    with path.open("rb") as f:
        head = f.read(4096)
    return b'"FeatureCollection"' in head


def import_areas(db: sqlite3.Connection, path: Path, source: str, now: dt.datetime, dry_run: bool) -> dict[str, Any]:
    """Bring in a feature collection; a feature without a name, a kind or a usable shape is rejected and told."""
    data = read_json(path)
    features = data.get("features") if isinstance(data, dict) else None
    if not isinstance(features, list):
        raise Refused(f"{path.name} is no GeoJSON feature collection: it has no list of features.")
    held = store.areas_by_key(db)
    out: dict[str, Any] = dict.fromkeys(("new", "changed", "same", "suspect", "rejected"), 0)
    reasons: dict[str, int] = {}
    rows: dict[str, tuple[str, str, str, str]] = {}
    for feature in features:
        row, why = _row(feature)
        if row is None or row[0] in rows:
            why = why or "the same name, kind and number twice"
            out["rejected"] += 1
            reasons[why] = reasons.get(why, 0) + 1
            continue
        before = held.get(row[0])
        out["new" if before is None else "same" if before == row[1:] else "changed"] += 1
        rows[row[0]] = row
    out |= {"kind": "areas", "rows": len(features), "reasons": reasons, "import_id": None}
    if not dry_run:
        changed = [row for key, row in rows.items() if held.get(key) != row[1:]]
        record = {
            **out,
            "source_id": store.source_id(db, source),
            "file_name": path.name,
            "finished_at": now.isoformat(timespec="seconds"),
        }
        out["import_id"] = store.replace_areas(db, record, changed)
    return out


def _row(feature: Any) -> tuple[tuple[str, str, str, str] | None, str | None]:
    """(key, name, kind, geometry text) of a feature, or why it cannot be used."""
    if not isinstance(feature, dict) or not isinstance(feature.get("properties"), dict):
        return None, "no properties"
    facts = {str(k).lower(): v for k, v in feature["properties"].items()}
    name, kind = str(facts.get("name") or "").strip(), str(facts.get("kind") or "area").strip().lower()
    if not name:
        return None, "no name"
    try:
        geometry = shape(feature.get("geometry"))
    except Exception:  # shapely raises a dozen kinds for malformed geometry
        return None, "no readable geometry"
    if geometry.is_empty or shapely.get_num_coordinates(geometry) > MAX_POINTS:
        return None, "an empty shape, or one of too many points"
    if geometry.geom_type in ("Polygon", "MultiPolygon") and not geometry.is_valid:
        geometry = shapely.make_valid(geometry)
        if geometry.geom_type not in ("Polygon", "MultiPolygon"):
            return None, "a polygon that crosses itself and cannot be mended"
    number = feature.get("id", facts.get("id", ""))
    return (f"{kind}|{name}|{number}", name, kind, json.dumps(json.loads(shapely.to_geojson(geometry)))), None
