"""Links by which somebody without an account reads one delivered report, until a day."""

from __future__ import annotations

import datetime as dt
from typing import Literal

from fastapi import Request, Response
from pydantic import BaseModel, Field

from ...app.handover import reader_links
from ..attachments import MEDIA
from ..routing import api_router
from ..state import Number, Porch, State

router = api_router("clients")


class LinkAsk(BaseModel):
    days: int = Field(30, ge=1, le=365)


class LinkDoc(BaseModel):
    """times_read: how often the paper was opened by it."""

    link_id: int
    made_at: dt.datetime
    until: dt.datetime
    times_read: int
    last_read_at: dt.datetime | None


class MadeLink(BaseModel):
    """path: to be put behind the service's address. It is shown this once: what is kept opens nothing."""

    link_id: int
    path: str
    until: dt.datetime


@router.get("/deliveries/{delivery_id}/links")
def links(porch: Porch, delivery_id: Number) -> list[LinkDoc]:
    return [LinkDoc(**x) for x in reader_links.listed(porch.agent, delivery_id)]


@router.post("/deliveries/{delivery_id}/links", status_code=201)
def make_link(porch: Porch, delivery_id: Number, body: LinkAsk) -> MadeLink:
    number, token, until = reader_links.make(porch.agent, delivery_id, body.days)
    return MadeLink(link_id=number, path=f"/api/read/{token}.html", until=until)


@router.delete("/links/{link_id}", status_code=204)
def withdraw(porch: Porch, link_id: Number) -> None:
    """The link opens nothing from now on."""
    reader_links.withdraw(porch.agent, link_id)


@router.get("/read/{token}.{form}", response_class=Response)
def read(request: Request, token: str, form: Literal["html", "pdf"]) -> Response:
    """The paper of a link, for whoever has it."""
    state: State = request.app.state.porch
    data = reader_links.paper(state.porch, token, form, state.now())
    headers = {"Referrer-Policy": "no-referrer", "X-Robots-Tag": "noindex"}
    return Response(data, media_type=MEDIA[form], headers=headers)
