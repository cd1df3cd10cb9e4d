"""The map beside the records: streets and pictures from the air, from an address or a file."""

from __future__ import annotations

from typing import Annotated

from fastapi import Path, Response

from ...app.office import map_sources as sources
from ...app.office.map_sources import Layer, MapSourcesDoc, ShownMapDoc
from ..routing import api_router
from ..state import Porch

router = api_router("map")
Zoom = Annotated[int, Path(ge=0, le=24)]
Number = Annotated[int, Path(ge=0, le=2**24)]
A_DAY = "private, max-age=86400"


@router.get("/map/sources")
def map_sources(porch: Porch) -> MapSourcesDoc:
    """As the office has set them up."""
    return sources.map_sources(porch.agent)


@router.put("/map/sources", status_code=204)
def set_map_sources(porch: Porch, body: MapSourcesDoc) -> None:
    """Set them up for the whole office; pages that are opened from then on show them."""
    sources.set_map_sources(porch.agent, body)


@router.get("/map/files")
def map_files(porch: Porch) -> list[str]:
    """Tile files in the folder `map` of the data folder."""
    return sources.files(porch.agent)


@router.get("/map/shown")
def shown_map(porch: Porch) -> ShownMapDoc:
    """What the map shows beside the records."""
    return sources.shown_map(porch.agent)


@router.get("/map/tiles/{layer}/{z}/{x}/{y}", response_class=Response)
def tile(porch: Porch, layer: Layer, z: Zoom, x: Number, y: Number) -> Response:
    """One tile of a file."""
    data, kind = sources.tile(porch.agent, layer, z, x, y)
    return Response(data, media_type=kind, headers={"Cache-Control": A_DAY})
