"""What every router of the service has in common."""

from __future__ import annotations

from collections.abc import Callable
from functools import wraps
from inspect import iscoroutinefunction
from typing import Any

from fastapi import APIRouter, Depends
from fastapi.routing import APIRoute

from ..app.office.local_form import form_of_office
from ..documents.telling import told_document
from .errors import RESPONSES
from .who import may


class ToldRoute(APIRoute):
    """A route whose answer is told in the office's form of figures."""

    def __init__(self, path: str, endpoint: Callable[..., Any], **how: Any) -> None:
        super().__init__(path, _told(endpoint), **how)


def _told(endpoint: Callable[..., Any]) -> Callable[..., Any]:
    """The same function; what it gives told in the form of the office that it was asked for, by its argument `porch`."""
    if iscoroutinefunction(endpoint):
        return endpoint  # they take bodies in, and answer without figures

    @wraps(endpoint)
    def told(*given: Any, **named: Any) -> Any:
        answer, asked = endpoint(*given, **named), named.get("porch")
        return answer if asked is None else told_document(answer, form_of_office(asked.agent.porch).form())

    return told


def api_router(tag: str) -> APIRouter:
    """For the routes of one subject, under /api and behind the one door. They are complete as they are written down: an
    application takes them as they are, and builds none again (what `include_router` does, half a second for all)."""
    return APIRouter(prefix="/api", tags=[tag], responses=RESPONSES, dependencies=[Depends(may)], route_class=ToldRoute)
