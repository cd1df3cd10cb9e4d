"""From where the map's streets and its pictures from the air come, where the office has more than what its records bring."""

from __future__ import annotations

import re
from typing import Annotated, Literal
from urllib.parse import urlsplit

from pydantic import Field

from ...core.errors import BadInput, NotAllowed, NotFound, Refused
from ...documents.base import Doc, as_known
from ...store import tile_files
from ...store.db import Db
from ...store.porch import choices
from .agent import FOLDERS_OWNER, Agent

Layer = Literal["streets", "aerial"]
_NAME = "map sources"
_HOST = re.compile(r"[a-z0-9-]+(\.[a-z0-9-]+)*(:\d{1,5})?")


class MapSourceDoc(Doc):
    """A layer's tiles: from an address with {z}, {x} and {y} in it, or from a file of the data folder's `map`. form: vector for tiles
    in the Mapbox Vector Tile form; what a file holds is told by itself. attribution: by whom the map is, shown on it."""

    address: Annotated[str, Field(max_length=500)] = ""
    file: Annotated[str, Field(max_length=200)] = ""
    form: Literal["raster", "vector"] = "raster"
    attribution: Annotated[str, Field(max_length=200)] = ""
    most_zoom: Annotated[int, Field(ge=1, le=24)] = 19


class MapSourcesDoc(Doc):
    """None: what the records bring, and no pictures from the air."""

    streets: MapSourceDoc | None = None
    aerial: MapSourceDoc | None = None


class ShownLayerDoc(Doc):
    """A layer as the map asks for it. path: with {z}, {x} and {y}."""

    path: str
    form: Literal["raster", "vector"]
    attribution: str
    least_zoom: int
    most_zoom: int


class ShownMapDoc(Doc):
    """What the map has beside the records. fault: why a layer that was set up is not among it."""

    streets: ShownLayerDoc | None
    aerial: ShownLayerDoc | None
    fault: str = ""


def map_sources(agent: Agent) -> MapSourcesDoc:
    """As the office has set them up."""
    return _sources(agent.porch)


def set_map_sources(agent: Agent, sources: MapSourcesDoc) -> None:
    """For the whole office. NotAllowed for who is no manager, BadInput for an address that is none, Refused for a file that is none."""
    if not agent.is_manager:
        raise NotAllowed("Only a manager sets up the map for the office.", field="streets")
    for layer, source in (("streets", sources.streets), ("aerial", sources.aerial)):
        if source is not None:
            _check(agent, layer, source)
    choices.write(agent.porch, FOLDERS_OWNER, _NAME, sources.model_dump(mode="json"))


def shown_map(agent: Agent) -> ShownMapDoc:
    """What the map asks for; a file that has gone or is damaged since is left out, with why."""
    sources, faults = map_sources(agent), []
    shown: dict[str, ShownLayerDoc | None] = {}
    for layer, source in (("streets", sources.streets), ("aerial", sources.aerial)):
        try:
            shown[layer] = None if source is None else _shown(agent, layer, source)
        except Refused as error:
            shown[layer] = None
            faults.append(error.message)
    return ShownMapDoc(**shown, fault=" ".join(faults))


def tile(agent: Agent, layer: Layer, z: int, x: int, y: int) -> tuple[bytes, str]:
    """(a tile of a file, its content type). NotFound where the file has none there."""
    source = getattr(map_sources(agent), layer)
    if source is None or not source.file:
        raise NotFound("This map comes from no file.", layer=layer)
    try:
        file = tile_files.tile_file(agent.records.folder, source.file)
    except Refused as error:
        raise NotFound(error.message, layer=layer) from error
    if not (0 <= x < 2**z and 0 <= y < 2**z) or (data := file.tile(z, x, y)) is None:
        raise NotFound("There is no tile there.", layer=layer)
    return data, tile_files.KINDS[file.form]


def files(agent: Agent) -> list[str]:
    """Tile files that lie in the data folder."""
    return tile_files.listed(agent.records.folder)


def tile_hosts(porch: Db) -> list[str]:
    """From where the interface's page fetches tiles, as “https://tiles.place.example”."""
    sources = _sources(porch)
    told = [s.address for s in (sources.streets, sources.aerial) if s is not None and s.address]
    return sorted({f"{u.scheme}://{u.netloc}" for u in map(urlsplit, told)})


def _check(agent: Agent, layer: str, source: MapSourceDoc) -> None:
    if bool(source.address) == bool(source.file):
        raise BadInput(layer, "Give an address of tiles or a file, one of the two.")
    if source.file:
        tile_files.tile_file(agent.records.folder, source.file)
        return
    parts = urlsplit(source.address)
    if parts.scheme not in ("http", "https") or not _HOST.fullmatch(parts.netloc.lower()):
        raise BadInput(layer, f"“{source.address[:80]}” is no address of tiles: write https://tiles.place.example/{{z}}/{{x}}/{{y}}.png.")  # fmt: skip
    if missing := [p for p in ("{z}", "{x}", "{y}") if p not in source.address]:
        raise BadInput(layer, f"The address has no {' and no '.join(missing)}: where they stand, the number of each tile is put.")  # fmt: skip
    if not source.attribution.strip():
        raise BadInput(layer, "Say by whom the map is: its makers ask for it, and it stands on the map.")


def _shown(agent: Agent, layer: str, source: MapSourceDoc) -> ShownLayerDoc:
    if source.address:
        return ShownLayerDoc(
            path=source.address, form=source.form, attribution=source.attribution, least_zoom=0, most_zoom=source.most_zoom
        )  # fmt: skip
    file = tile_files.tile_file(agent.records.folder, source.file)
    return ShownLayerDoc(
        path=f"/api/map/tiles/{layer}/{{z}}/{{x}}/{{y}}", form="vector" if file.is_vector else "raster",
        attribution=source.attribution or file.attribution, least_zoom=file.least_zoom, most_zoom=file.most_zoom,
    )  # fmt: skip


def _sources(porch: Db) -> MapSourcesDoc:
    return as_known(MapSourcesDoc, choices.read(porch, FOLDERS_OWNER, _NAME))
