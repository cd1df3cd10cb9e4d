"""Pictures of a listing. The demo's are drawn by the stand-in for the photographer; other records have none yet."""

from __future__ import annotations

from typing import Any

from ..core.errors import NotFound
from ..standins import camera
from ..store import homes
from .records import Records

DEMO_SOURCE = "Demo"


def _scene(records: Records, listing_id: str) -> camera.Scene | None:
    record = homes.listing(records.db, listing_id)
    if record is None:
        raise NotFound(f"No listing has the number {listing_id}.", listing=listing_id)
    return camera.scene_of(record) if homes.source_of(records.db, record).startswith(DEMO_SOURCE) else None


def captions(records: Records, listing_id: str) -> list[str]:
    """What the pictures of a listing show, in their order; none where it has none."""
    scene = _scene(records, listing_id)
    return camera.captions(scene) if scene else []


def picture(records: Records, listing_id: str, number: int) -> str:
    """One picture as SVG, numbered from 1. NotFound for one that is not there."""
    scene = _scene(records, listing_id)
    if scene is None or not 1 <= number <= len(camera.captions(scene)):
        raise NotFound(f"Listing {listing_id} has no picture {number}.")
    return camera.draw(scene, number)


def price_history(records: Records, listing_id: str) -> list[dict[str, Any]]:
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
