"""Market views that the agent keeps by name."""

from __future__ import annotations

from typing import Any

from ...core.errors import Refused
from ...documents.versions import read, written
from ...store.db import atomic
from ...store.porch import views as store
from ..office.agent import Agent
from ..office.watches import stop_watching
from .views import ViewDoc


def saved_views(agent: Agent) -> list[dict[str, Any]]:
    """By name: view_id, name, pinned, view."""
    return [
        {"view_id": r["view_id"], "name": r["name"], "pinned": bool(r["pinned"]),
         "view": read(ViewDoc, r["document"])}
        for r in store.listed(agent.porch, agent.owner)
    ]  # fmt: skip


def save_view(agent: Agent, name: str, view: ViewDoc, pinned: bool, replace_it: bool = False) -> int:
    """Refused where another view has the name, unless that one is to be replaced."""
    with atomic(agent.porch):
        if not replace_it:
            _free_name(agent, name)
        return store.keep(agent.porch, agent.owner, name, written(view), pinned)


def change_view(agent: Agent, view_id: int, name: str, view: ViewDoc, pinned: bool) -> None:
    """Raises Refused where another view has the name, NotFound where there is no such view."""
    with atomic(agent.porch):
        _free_name(agent, name, besides=view_id)
        store.change(agent.porch, agent.owner, view_id, name, written(view), pinned)


def delete_view(agent: Agent, view_id: int) -> None:
    """Take a view away, and whoever watches it."""
    stop_watching(agent, "view", view_id)
    store.delete(agent.porch, agent.owner, view_id)


def _free_name(agent: Agent, name: str, besides: int | None = None) -> None:
    if any(v["name"] == name and v["view_id"] != besides for v in saved_views(agent)):
        raise Refused(f"A view is called “{name}” already: give another name, or replace it.", field="name")
