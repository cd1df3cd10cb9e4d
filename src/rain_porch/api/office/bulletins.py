"""Bulletins: kept by name, made anew from the newest records or as a past day saw them, sent to readers, kept as they were sent."""

from __future__ import annotations

import datetime as dt
import re
from typing import Annotated, Any

from fastapi import Path, Query, Response
from pydantic import BaseModel, Field

from ...app.bulletin import kept
from ...app.bulletin.documents import BulletinDoc, Ready
from ...app.bulletin.kept import KeptBulletinDoc
from ...app.handover import bulletin_sending as sending
from ...app.handover.bulletin_files import FORMS, bulletin_file
from ...app.handover.bulletin_papers import bulletin_model
from ...app.handover.bulletin_sending import EditionsDoc
from ...app.market.views import ViewDoc
from ...core.errors import BadInput
from ...documents.base import Doc, Line
from ...report.papers import PICTURE_MEDIA, PictureForm, as_pictures
from ..attachments import attached
from ..routing import api_router
from ..state import Number, Porch

router = api_router("bulletins")
Through = Annotated[dt.date | None, Query(description="as it all stood on that day; the newest records without it")]
Form = Annotated[str, Path(pattern=f"^({'|'.join(re.escape(form) for form in FORMS)})$")]


@router.get("/bulletins")
def bulletins(porch: Porch) -> list[KeptBulletinDoc]:
    return kept.bulletins(porch.agent)


@router.post("/bulletins", status_code=201)
def add_bulletin(porch: Porch, body: BulletinDoc) -> KeptBulletinDoc:
    sending.check_readers(body)
    number = kept.add_bulletin(porch.agent, body)
    sending.keep_plan(porch.agent, number, body.day_of_month)
    return KeptBulletinDoc(bulletin_id=number, bulletin=body)


class ReadyAsk(Doc):
    """A ready layout of parts for a view; title: the bulletin's."""

    layout: Ready
    view: ViewDoc
    title: Line = Field(min_length=1, max_length=120, pattern=r"\S")


@router.post("/bulletins/ready", status_code=201)
def add_ready(porch: Porch, body: ReadyAsk) -> KeptBulletinDoc:
    """A new bulletin with the parts of a ready layout, to be changed like any other."""
    made = kept.ready(body.layout, body.view, body.title)
    return KeptBulletinDoc(bulletin_id=kept.add_bulletin(porch.agent, made), bulletin=made)


@router.put("/bulletins/{bulletin_id}")
def change_bulletin(porch: Porch, bulletin_id: Number, body: BulletinDoc) -> KeptBulletinDoc:
    sending.check_readers(body)
    kept.change_bulletin(porch.agent, bulletin_id, body)
    sending.keep_plan(porch.agent, bulletin_id, body.day_of_month)
    return KeptBulletinDoc(bulletin_id=bulletin_id, bulletin=body)


@router.delete("/bulletins/{bulletin_id}", status_code=204)
def delete_bulletin(porch: Porch, bulletin_id: Number) -> None:
    """The bulletin and its day go; what was sent of it stays among the deliveries."""
    kept.delete_bulletin(porch.agent, bulletin_id)
    sending.keep_plan(porch.agent, bulletin_id, None)


@router.get("/bulletins/{bulletin_id}/bulletin.{form}", response_class=Response)
def bulletin(porch: Porch, bulletin_id: Number, form: Form, through: Through = None) -> Response:
    """The bulletin with the figures of today, or of a past day."""
    held = kept.read_bulletin(porch.agent, bulletin_id)
    last = sending.last_through(porch.agent, bulletin_id)
    return attached(bulletin_file(porch.agent, held, form, through, last), held.title, form)


@router.get("/bulletins/{bulletin_id}/sheets")
def sheets(porch: Porch, bulletin_id: Number, through: Through = None) -> int:
    """How many sheets the bulletin has."""
    return len(as_pictures(_model(porch, bulletin_id, through), "svg"))


def _model(porch: Porch, bulletin_id: int, through: dt.date | None) -> dict[str, Any]:
    held = kept.read_bulletin(porch.agent, bulletin_id)
    return bulletin_model(porch.agent, held, through, sending.last_through(porch.agent, bulletin_id))


@router.get("/bulletins/{bulletin_id}/sheets/{number}.{form}", response_class=Response)
def sheet(porch: Porch, bulletin_id: Number, number: Number, form: PictureForm, through: Through = None) -> Response:
    """One sheet as a picture."""
    made = as_pictures(_model(porch, bulletin_id, through), form)
    if number > len(made):
        raise BadInput("sheet", f"There is no sheet {number}: the bulletin has {len(made)}.")
    return Response(made[number - 1], media_type=PICTURE_MEDIA[form])


class EditionAsk(BaseModel):
    """send: to the bulletin's readers; else it is only kept as it is now."""

    send: bool = False


@router.get("/bulletins/{bulletin_id}/editions")
def editions(porch: Porch, bulletin_id: Number) -> EditionsDoc:
    """As it was made each time: the papers are among the deliveries, under the same number."""
    return sending.editions(porch.agent, bulletin_id)


@router.post("/bulletins/{bulletin_id}/editions", status_code=201)
def make_edition(porch: Porch, bulletin_id: Number, body: EditionAsk) -> EditionsDoc:
    """Keep it as it is now, and send it where that is asked for."""
    sending.make_edition(porch.agent, bulletin_id, body.send)
    porch.state.schedule.wake()
    return sending.editions(porch.agent, bulletin_id)
