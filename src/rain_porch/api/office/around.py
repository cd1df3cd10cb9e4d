"""A look around with nothing kept."""

from __future__ import annotations

from fastapi import APIRouter

from ...app.around import LookAsk, LookDoc, look_around
from ..errors import RESPONSES
from ..state import Porch

router = APIRouter(tags=["around"], responses=RESPONSES)


@router.post("/around")
def around(porch: Porch, body: LookAsk) -> LookDoc:
    """What a search finds around a record, or anywhere, with its statistics; nothing is saved."""
    return look_around(porch.records, body)
