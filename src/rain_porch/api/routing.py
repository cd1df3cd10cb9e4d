"""What every router of the service has in common."""

from __future__ import annotations

from fastapi import APIRouter, Depends

from .errors import RESPONSES
from .who import may


def api_router(tag: str) -> APIRouter:
    """For the routes of one subject, under /api and behind the one door. They are complete as they are written down: an
    application takes them as they are, and builds none again (what `include_router` does, half a second for all)."""
    return APIRouter(prefix="/api", tags=[tag], responses=RESPONSES, dependencies=[Depends(may)])
