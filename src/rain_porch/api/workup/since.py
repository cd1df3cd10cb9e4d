"""Where workups stand, and what has happened around them since their effective dates."""

from __future__ import annotations

from ...app.workup.since import SinceDoc, StandingDoc, since_then, standing
from ...app.workup.workups import open_workup
from ..routing import api_router
from ..state import Number, Porch

router = api_router("workups")


@router.get("/workups/{workup_id}/standing")
def where_it_stands(porch: Porch, workup_id: Number) -> StandingDoc:
    return standing(porch.agent, workup_id)


@router.get("/workups/{workup_id}/since")
def since(porch: Porch, workup_id: Number) -> SinceDoc:
    """What has happened since the effective date to the home, its comps, and all that its search looks at."""
    return since_then(open_workup(porch.agent, workup_id))
