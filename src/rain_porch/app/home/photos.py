"""Pictures of a listing: photos that came in, else, for the demo, those of the stand-in for the photographer."""

from __future__ import annotations

import hashlib
from collections.abc import Iterable, Mapping
from pathlib import Path
from typing import Any

from ...core.errors import NotFound, Refused
from ...records.pictures.photos import MAX_BYTES, kind_of
from ...records.pictures.picture_files import fault_of, opened_picture
from ...standins import camera
from ...store.records import homes
from ..snapshot import Snapshot

DEMO_SOURCE, DEMO_MARK = "Demo", "demo.txt"  # what the sources of the demo begin with; the file in its folder
_MEDIA = {".jpg": "image/jpeg", ".png": "image/png", ".webp": "image/webp"}


def is_demo(folder: Path) -> bool:
    """Whether the folder was made by the demo."""
    return (folder / DEMO_MARK).is_file()


def _scene(records: Snapshot, listing_id: str) -> camera.Scene | None:
    """What the stand-in saw; None but of the demo's own listings: a source of anybody's may be called as ours are."""

    def seen() -> camera.Scene | None:
        record = homes.listing(records.db, listing_id)
        if record is None:
            raise NotFound(f"No listing has the number {listing_id}.", listing=listing_id)
        is_ours = records.remember("demo", lambda: is_demo(records.folder))
        ours = is_ours and homes.source_of(records.db, record).startswith(DEMO_SOURCE)
        return camera.scene_of(record) if ours else None

    return records.scenes.get(listing_id, seen)


def captions(records: Snapshot, listing_id: str) -> list[str]:
    """What the pictures of a listing show, in their order; none where it has none."""
    scene = _scene(records, listing_id)
    kept = homes.photos_of(records.db, listing_id)
    if kept:
        return [caption or f"Photo {place}" for place, _, caption in kept]
    return camera.captions(scene) if scene else []


def front_listing(records: Snapshot, listings: Iterable[Mapping[str, Any]]) -> str | None:
    """Of a home's listings, newest first, the one whose first picture shows its front; none where no sale has pictures."""
    return next(
        (str(x["listing_id"]) for x in listings if not x["is_lease"] and captions(records, x["listing_id"])), None
    )


def picture(records: Snapshot, listing_id: str, number: int) -> tuple[bytes, str]:
    """One picture, numbered from 1, and its media type. NotFound for one that is not there."""
    scene = _scene(records, listing_id)
    missing = NotFound(f"Listing {listing_id} has no picture {number}.")
    kept = homes.photos_of(records.db, listing_id)
    if kept:
        file = records.folder / "photos" / kept[number - 1][1] if number <= len(kept) else None
        if file is None or not file.is_file():
            raise missing
        return file.read_bytes(), _MEDIA[file.suffix]
    if scene is None or number > len(camera.captions(scene)):
        raise missing
    return camera.draw(scene, number).encode(), "image/svg+xml"


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
