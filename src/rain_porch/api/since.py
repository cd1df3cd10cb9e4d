"""What has happened around workups since their effective dates."""

from __future__ import annotations

from fastapi import APIRouter

from ..workups.since import LeftBehindDoc, SinceDoc, left_behind, since_then
from .errors import RESPONSES
from .state import Number, Porch

router = APIRouter(tags=["workups"], responses=RESPONSES)


@router.get("/left-behind")
def behind(porch: Porch) -> list[LeftBehindDoc]:
    """Of the newest workups those around which something has happened since their effective date."""
    return left_behind(porch.workups)


@router.get("/workups/{workup_id}/since")
def since(porch: Porch, workup_id: Number) -> SinceDoc:
    """What has happened since the effective date to the home, its comps, and all that its search looks at."""
    return since_then(porch.workups, porch.workups.open(workup_id))
