"""The Home room: what lies around the home, what its improvements return, the agent's own pictures."""

from __future__ import annotations

from typing import Annotated

from fastapi import Path, Request, Response
from fastapi.concurrency import run_in_threadpool
from pydantic import BaseModel

from ...app.home import photos
from ...app.office import erasing, sharing
from ...app.pricing.opened import improvements_return
from ...app.workup.workups import open_workup
from ...core.facts.improvements import KINDS, QUALITIES
from ...documents.base import Worded
from ...records.pictures.photos import MAX_BYTES
from ...store.records.areas import near_features, streets_beside
from ..bodies import read_body
from ..routing import api_router
from ..state import Number, Porch

router = api_router("home")
FileName = Annotated[str, Path(pattern=r"^[0-9a-f]{32}\.(jpg|png|webp)$")]


class NearDoc(BaseModel):
    name: str
    kind: str
    feet: float


class ReturnedDoc(BaseModel):
    value: float
    formula: Worded


class AroundDoc(BaseModel):
    """near: what of the base map lies within half a mile; corner: the streets that meet at its lot; returned: what each improvement adds."""

    near: list[NearDoc]
    corner: list[str]
    returned: list[ReturnedDoc]
    kinds: list[str]
    qualities: list[str]


class KeptPhoto(BaseModel):
    file: str


@router.get("/workups/{workup_id}/around")
def around(porch: Porch, workup_id: Number) -> AroundDoc:
    opened = open_workup(porch.agent, workup_id)
    sums = improvements_return(opened.state, opened.standpoint.rules)
    here = (opened.subject.latitude, opened.subject.longitude)
    near = near_features(porch.records.db, *here) if opened.subject.placed else []
    beside = streets_beside(porch.records.db, *here) if opened.subject.placed else []
    return AroundDoc(
        near=[NearDoc(**x) for x in near],
        corner=beside if len(beside) > 1 else [],
        returned=[ReturnedDoc(value=value, formula=formula) for value, formula in sums],
        kinds=list(KINDS),
        qualities=list(QUALITIES),
    )


@router.post("/workups/{workup_id}/photos", status_code=201)
async def add_photo(porch: Porch, workup_id: Number, request: Request) -> KeptPhoto:
    """Keep a picture, sent as the body; a change of the workup then puts it in its place."""
    await run_in_threadpool(open_workup, porch.agent, workup_id)
    data = await read_body(request, MAX_BYTES, "picture")
    file = await run_in_threadpool(photos.keep_own, porch.records.folder, data)
    return KeptPhoto(file=await run_in_threadpool(sharing.note_file, porch.agent, file))


@router.delete("/workups/{workup_id}/photos/{file}", status_code=204)
def erase_photo(porch: Porch, workup_id: Number, file: FileName) -> None:
    """A picture for good: out of the workup, its earlier states, and off the disk."""
    erasing.erase_photo(porch.agent, workup_id, file)


@router.get("/workups/{workup_id}/photos/{file}", response_class=Response)
def own_photo(porch: Porch, workup_id: Number, file: FileName) -> Response:
    made, media = sharing.own_picture(porch.agent, file)
    return Response(made, media_type=media, headers={"Cache-Control": "private, max-age=3600"})
