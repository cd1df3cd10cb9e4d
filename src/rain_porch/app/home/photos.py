"""Pictures of a listing, as they came in: files that are here, and addresses from which a picture is fetched when it is looked at."""

from __future__ import annotations

import hashlib
from collections.abc import Iterable, Mapping
from pathlib import Path
from typing import Any

from ...core.errors import NotFound, Refused
from ...records.pictures.by_address import picture_at
from ...records.pictures.photos import MAX_BYTES, kind_of
from ...records.pictures.picture_files import fault_of, opened_picture
from ...settings import feeds_nearby
from ...standins import camera
from ...store.records import homes, pictures
from ..incoming.fetching import fetch_data, fetch_data_from_afar
from ..snapshot import Snapshot

DEMO_MARK = "demo.txt"  # the file in the demo's folder
_MEDIA = {".jpg": "image/jpeg", ".png": "image/png", ".webp": "image/webp"}


def is_demo(folder: Path) -> bool:
    """Whether the folder was made by the demo."""
    return (folder / DEMO_MARK).is_file()


def captions(records: Snapshot, listing_id: str) -> list[str]:
    """What the pictures of a listing show, in their order; none where it has none."""
    kept = pictures.of_listing(records.db, listing_id)
    return [caption or f"Photo {n}" for n, (_, _, caption) in enumerate(kept, start=1)]


def front_listing(records: Snapshot, listings: Iterable[Mapping[str, Any]]) -> str | None:
    """Of a home's listings, newest first, the one whose first picture shows its front; none where no sale has pictures."""
    return next(
        (str(x["listing_id"]) for x in listings if not x["is_lease"] and captions(records, x["listing_id"])), None
    )


def picture(records: Snapshot, listing_id: str, number: int) -> tuple[bytes, str]:
    """One picture, numbered from 1, and its media type. NotFound for one that is not there, or that its address does not give."""
    missing = NotFound(f"Listing {listing_id} has no picture {number}.")
    kept = pictures.of_listing(records.db, listing_id)
    if number > len(kept):
        raise missing
    name, address, _ = kept[number - 1]
    if address and address.startswith(camera.SCHEME):
        return camera.drawn_at(address).encode(), "image/svg+xml"
    if address:
        data = picture_at(records.folder, address, fetch_data if feeds_nearby() else fetch_data_from_afar)
        if data is None:
            raise NotFound(f"The address of picture {number} of listing {listing_id} gives no picture now.")
        return data, _MEDIA[kind_of(data[:12]) or ".jpg"]
    file = records.folder / "photos" / name
    if not file.is_file():
        raise missing
    return file.read_bytes(), _MEDIA[file.suffix]


def keep_own(folder: Path, data: bytes) -> str:
    """Keep a picture that the agent added; its file's name. Refused for what is no picture, or too large."""
    kind = kind_of(data[:16])
    if kind is None:
        raise Refused("This is no JPEG, PNG or WebP picture: save it as one of these and drop it again.")
    if len(data) > MAX_BYTES:
        raise Refused(
            f"The picture has {len(data) / 1e6:.0f} MB, more than {MAX_BYTES // 1_000_000}: make it smaller first."
        )
    if fault := fault_of(data):
        raise Refused(f"This is {fault}." if "save" in fault else f"This is {fault}: save it anew and drop it again.")
    if opened_picture(data, (64, 64)) is None:
        raise Refused("This is a damaged picture: save it anew and drop it again.")
    name = hashlib.blake2b(data, digest_size=16).hexdigest() + kind
    target = folder / "photos" / name
    target.parent.mkdir(parents=True, exist_ok=True)
    part = target.with_suffix(".part")
    part.write_bytes(data)
    part.replace(target)
    return name


def own_picture(folder: Path, name: str) -> tuple[bytes, str]:
    """One of the agent's own pictures and its media type. NotFound."""
    file = folder / "photos" / Path(name).name
    if not file.is_file():
        raise NotFound(f"The picture {name} is not there any more.")
    return file.read_bytes(), _MEDIA[file.suffix]


def price_history(records: Snapshot, listing_id: str) -> list[dict[str, Any]]:
    """What happened to a listing, oldest first, with the direction and size of each price change in percent."""
    out = []
    for event in homes.events_of(records.db, listing_id):
        change = None
        if event["event"] == "Price Change":
            try:
                old, new = float(event["old_value"]), float(event["new_value"])
                change = round(100 * (new - old) / old, 1) if old else None
            except (TypeError, ValueError):
                change = None
        out.append(
            {"date": event["at"][:10], "what": event["event"].lower(), "to": event["new_value"], "change_pct": change}
        )
    return out
