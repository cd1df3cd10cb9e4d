"""Homes that lie by a highway, as the records' base map has it."""

from __future__ import annotations

from typing import Any

import numpy as np
import shapely

from ...core.facts.homes import Subject
from ...core.facts.places.place import on_a_plane
from ...core.market.columns import Columns, Floats, Ints
from ...core.phrases import phrase
from ...store.records import areas
from ..snapshot import Snapshot

BY_MILES = 0.15  # some 800 feet: as far as its noise is heard


def by_roads(records: Snapshot, columns: Columns, subject: Subject, rows: Ints) -> list[str]:
    """For each of `rows`, (n,): "by Route 9" where it lies by a highway and the subject does not, "not by Route 9" where the
    subject does and it does not, else ""."""
    roads = records.remember("highways", lambda: _highways(records))
    if not roads or not rows.size or not subject.placed:
        return [""] * len(rows)
    mine = _beside(roads, np.array([subject.latitude]), np.array([subject.longitude]))[0]
    theirs = _beside(roads, columns.lats[rows], columns.lons[rows])
    return [
        "" if there == mine else phrase("lies-by", road=there) if there else phrase("lies-not-by", road=mine)
        for there in theirs
    ]


def _highways(records: Snapshot) -> list[tuple[str, Any]]:
    return [
        (
            b["name"] or phrase("a-highway"),
            shapely.MultiLineString([[(lon, lat) for lon, lat in line] for line in b["lines"]]),
        )
        for b in areas.barriers(records.db)
        if b["kind"] == "highway"
    ]


def _beside(roads: list[tuple[str, Any]], lats: Floats, lons: Floats) -> list[str]:
    """The highway by which each spot lies, (n,), "" where by none."""
    out = [""] * len(lats)
    placed = np.flatnonzero(np.isfinite(lats) & np.isfinite(lons))
    if not placed.size:
        return out
    about = float(np.median(lats[placed]))
    points = shapely.points(on_a_plane(lats[placed], lons[placed], about))
    for name, line in roads:
        flat = shapely.transform(line, lambda xy: on_a_plane(xy[:, 1], xy[:, 0], about))
        for i in placed[shapely.distance(points, flat) <= BY_MILES]:
            out[int(i)] = out[int(i)] or name
    return out
