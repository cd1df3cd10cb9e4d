"""One listing: its pictures, its remarks, what happened to it. Nothing private."""

from __future__ import annotations

import datetime as dt
from typing import Annotated

from fastapi import Path, Response

from ...app.home import photos
from ...app.home.full_record import FullRecordDoc, full_record
from ..routing import api_router
from ..state import Number, Porch

router = api_router("listings")
ListingId = Annotated[str, Path(max_length=200)]


@router.get("/listings/{listing_id:path}/pictures/{number}", response_class=Response)
def picture(porch: Porch, listing_id: ListingId, number: Number) -> Response:
    made, media = photos.picture(porch.records, listing_id, number)
    return Response(made, media_type=media, headers={"Cache-Control": "private, max-age=3600"})


@router.get("/listings/{listing_id:path}")
def listing(porch: Porch, listing_id: ListingId, until: dt.date | None = None) -> FullRecordDoc:
    """A listing or a deed sale (its number after "deed:") as it stood on a day."""
    return full_record(porch.records, listing_id, until)
