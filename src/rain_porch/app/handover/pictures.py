"""Pictures for paper: as SVG of one shape, photos made as small as paper needs, damaged ones left out."""

from __future__ import annotations

import base64
import io
from collections.abc import Iterable, Mapping, Sequence
from typing import Any

from ...core.errors import NotFound
from ...records.pictures.picture_files import opened_picture
from ...store.records.homes import DEED
from ..home import photos
from ..office.agent import Agent
from ..pricing.opened import Opened
from ..snapshot import Snapshot

PICTURED, INSIDE = 60, 4  # homes with a picture; pictures from inside each
PAPER_PIXELS = (1200, 800)  # a picture seven inches wide at 170 dots an inch


def fronts(agent: Agent, opened: Opened, wanted: Iterable[str]) -> dict[str, str]:
    """The first picture of each home as SVG, this home's under ""; none for those that have none."""
    records = agent.records
    out: dict[str, str] = {}
    if opened.state.photos:
        out[""] = _held(records, ("own", opened.state.photos[0].file))
    elif key := photos.front_listing(records, opened.home.listings):
        out[""] = _held(records, (key, 1))
    for key in dict.fromkeys(wanted):
        if len(out) > PICTURED:
            break
        out[key] = front_picture(records, key)
    return {key: svg for key, svg in out.items() if svg}


def insides(agent: Agent, opened: Opened, wanted: Sequence[str]) -> dict[str, list[tuple[str, str]]]:
    """(caption, SVG) of a home's pictures after the first, this home's under ""."""
    records = agent.records
    if opened.state.photos:
        told = [(p.caption, _held(records, ("own", p.file))) for p in opened.state.photos[1 : 1 + INSIDE]]
    else:
        key = photos.front_listing(records, opened.home.listings)
        told = _inside(records, key) if key else []
    out = {"": told, **{key: _inside(records, key) for key in wanted[:PICTURED] if not key.startswith(DEED)}}
    return {key: kept for key, part in out.items() if (kept := [(c, svg) for c, svg in part if svg])}


def damaged(agent: Agent, opened: Opened, pictures: Mapping[str, str], homes: Sequence[Mapping[str, Any]]) -> list[str]:
    """The homes whose first picture is there and cannot be read; this home's own as its address."""
    records = agent.records
    own = opened.state.photos or photos.front_listing(records, opened.home.listings)
    out = [opened.state.address] if own and "" not in pictures else []
    for c in homes[:PICTURED]:
        key = c["listing_id"]
        if (
            key not in pictures
            and not key.startswith(DEED)
            and photos.captions(records, key)
            and not front_picture(records, key)
        ):
            out.append(c["address"] or key)
    return list(dict.fromkeys(out))


def _inside(records: Snapshot, key: str) -> list[tuple[str, str]]:
    told = photos.captions(records, key)[1 : 1 + INSIDE]
    return [(caption, _held(records, (key, number))) for number, caption in enumerate(told, start=2)]


def front_picture(records: Snapshot, key: str) -> str:
    """A listing's first picture as SVG, "" where it has none."""
    if key.startswith(DEED):
        return ""
    return _held(records, (key, 1)) if photos.captions(records, key) else ""


def kept_picture(records: Snapshot, file: str) -> str:
    """A picture that the agent added, as SVG; "" where it is gone or damaged."""
    return _held(records, ("own", file))


def _held(records: Snapshot, which: tuple[str, int | str]) -> str:
    """One picture as SVG, made once for these records; "" where it is gone or damaged."""

    def made() -> str:
        if which[0] == "own":
            return framed(*photos.own_picture(records.folder, str(which[1])))
        return framed(*photos.picture(records, which[0], int(which[1])))

    try:
        return records.pictures.get(str(which), made)
    except NotFound:  # and asked for again the next time
        return ""


def framed(data: bytes, media: str) -> str:
    """Any picture as SVG, cut to three by two: a drawn one as it is, a photo upright, no larger than paper needs, in a frame; ""
    for one that cannot be read."""
    if media == "image/svg+xml":
        return data.decode()
    picture = opened_picture(data, PAPER_PIXELS)
    if picture is None:
        return ""
    out = io.BytesIO()
    picture.convert("RGB").save(out, "JPEG", quality=82)
    inside = f"data:image/jpeg;base64,{base64.b64encode(out.getvalue()).decode()}"
    return (
        '<svg xmlns="http://www.w3.org/2000/svg" viewBox="0 0 600 400" width="600" height="400">'
        f'<image href="{inside}" width="600" height="400" preserveAspectRatio="xMidYMid slice"/></svg>'
    )
