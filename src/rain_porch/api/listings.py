"""One listing: its pictures, its remarks, what happened to it. Nothing private."""

from __future__ import annotations

import datetime as dt
from typing import Annotated

from fastapi import APIRouter, Path, Response
from pydantic import BaseModel

from ..core.errors import NotFound
from ..store import homes
from ..workups import photos
from .errors import RESPONSES
from .state import Number, Porch

router = APIRouter(tags=["listings"], responses=RESPONSES)
ListingId = Annotated[str, Path(max_length=200)]


class EventDoc(BaseModel):
    date: dt.date
    what: str
    to: str | None
    change_pct: float | None


class ListingDoc(BaseModel):
    listing_id: str
    status: str
    remarks: str
    pictures: list[str]
    history: list[EventDoc]


@router.get("/listings/{listing_id}")
def listing(porch: Porch, listing_id: ListingId) -> ListingDoc:
    record = homes.listing(porch.records.db, listing_id)
    if record is None:
        raise NotFound(f"No listing has the number {listing_id}.")
    return ListingDoc(
        listing_id=listing_id,
        status=record["local_status"] or record["standard_status"],
        remarks=record["public_remarks"] or "",
        pictures=photos.captions(porch.records, listing_id),
        history=[EventDoc(**e) for e in photos.price_history(porch.records, listing_id)],
    )


@router.get("/listings/{listing_id}/pictures/{number}", response_class=Response)
def picture(porch: Porch, listing_id: ListingId, number: Number) -> Response:
    made, media = photos.picture(porch.records, listing_id, number)
    return Response(made, media_type=media, headers={"Cache-Control": "max-age=3600"})
