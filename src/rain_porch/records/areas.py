"""Areas and the lines of the base map come in as GeoJSON features with a name and a kind."""

from __future__ import annotations

import itertools
import json
import sqlite3
from collections.abc import Iterator, Sequence
from dataclasses import dataclass
from pathlib import Path
from typing import Any

import shapely
from shapely.geometry import shape

from ..core.errors import Refused
from ..store.records.incoming import imports as store
from .files.readers import CHUNK_ROWS, read_json
from .tally import Tally

MAX_POINTS = 200_000
MOST_CROSSING = (
    5_000  # points of an outline that crosses itself: to mend one takes as long as all its lines with each other
)


@dataclass(frozen=True)
class AreaLayout:
    kind: str = "areas"
    table: str = "areas"
    key_column: str = "area_key"


LAYOUT = AreaLayout()


def is_geojson(path: Path) -> bool:
    """Whether the file starts as a GeoJSON feature collection."""
    if not path.is_file():
        return False
    with path.open("rb") as f:
        head = f.read(4096)
    return b'"FeatureCollection"' in head


def feature_chunks(path: Path) -> Iterator[list[tuple[int, Any]]]:
    """The features of a collection, numbered from 1. Refused for a file that is no collection."""
    data = read_json(path)
    features = data.get("features") if isinstance(data, dict) else None
    if not isinstance(features, list):
        raise Refused(f"{path.name} is no GeoJSON feature collection: it has no list of features.")
    rows = iter(enumerate(features, start=1))
    return iter(lambda: list(itertools.islice(rows, CHUNK_ROWS)), [])


class AreaWork:
    """Takes features into staging; one without a name, a kind or a usable shape is rejected and told."""

    staged = ("name", "kind", "geometry")

    def __init__(self, db: sqlite3.Connection) -> None:
        self.db, self.tally = db, Tally()
        self.seen: set[str] = set()

    def settle(self) -> None:
        """Nothing is left to judge when all features are taken."""

    def take(self, chunk: Sequence[tuple[int, Any]]) -> None:
        tally = self.tally
        tally.rows += len(chunk)
        reported: list[tuple[int, str, str, str]] = []
        rows: dict[str, tuple[str, str, str]] = {}
        number_of: dict[str, int] = {}
        for number, feature in chunk:
            row, why = _row(feature)
            if row is None or row[0] in self.seen:
                why = why or "the same name, kind and number twice"
                tally.rejected += 1
                tally.reasons[why] += 1
                reported.append((number, "rejected", json.dumps([why]), json.dumps(_facts(feature))))
                continue
            self.seen.add(row[0])
            rows[row[0]] = row[1:]
            number_of[row[0]] = number
        there = store.existing(self.db, "areas", "area_key", self.staged, list(rows))
        ready: list[tuple[Any, ...]] = []
        for key, facts in rows.items():
            old = there.get(key)
            if old is None:
                tally.new += 1
                ready.append((number_of[key], key, "new", None, None, *facts))
                continue
            changed = {name: old[name] for name, value in zip(self.staged, facts, strict=True) if old[name] != value}
            if changed:
                tally.changed += 1
                tally.changes.update(changed)
                ready.append((number_of[key], key, "changed", json.dumps(changed), None, *facts))
            else:
                tally.same += 1
        store.stage(self.db, self.staged, ready)
        store.report_rows(self.db, reported)


def _facts(feature: Any) -> dict[str, str]:
    facts = feature.get("properties") if isinstance(feature, dict) else None
    return (
        {str(k): str(v)[:500] for k, v in facts.items()} if isinstance(facts, dict) else {"feature": str(feature)[:500]}
    )


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
    west, south, east, north = geometry.bounds
    if not (-180 <= west <= east <= 180 and -90 <= south <= north <= 90):
        return None, "a place off the earth: longitude comes first, then latitude, in degrees"
    if geometry.geom_type in ("Polygon", "MultiPolygon") and not geometry.is_valid:
        if shapely.get_num_coordinates(geometry) > MOST_CROSSING:
            return (
                None,
                f"an outline of more than {MOST_CROSSING:,} points that crosses itself: mend it where it was drawn",
            )
        geometry = shapely.make_valid(geometry)
        if geometry.geom_type not in ("Polygon", "MultiPolygon"):
            return None, "a polygon that crosses itself and cannot be mended"
    number = feature.get("id", facts.get("id", ""))
    return (f"{kind}|{name}|{number}", name, kind, json.dumps(json.loads(shapely.to_geojson(geometry)))), None
