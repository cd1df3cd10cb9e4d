"""What is watched, as it is kept: the work that looks, what was told already, and the news that were not looked at yet."""

from __future__ import annotations

import json
from typing import Any, Literal

from ...store.db import atomic
from ...store.porch import choices, due_work
from .agent import Agent

WATCH = "watch"  # the kind of work
Kind = Literal["search", "view"]


def works(agent: Agent) -> list[dict[str, Any]]:
    """The work of each watch, with `of` and `number` of what is watched."""
    return [
        {**row, **json.loads(row["details"])}
        for row in due_work.listed(agent.porch, agent.owner)
        if row["kind"] == WATCH
    ]


def stop_watching(agent: Agent, kind: Kind, number: int) -> None:
    """Look no more. Nothing happens where it was not watched."""
    with atomic(agent.porch):
        for row in works(agent):
            if (row["of"], row["number"]) == (kind, number):
                due_work.forget(agent.porch, agent.owner, row["work_id"])
        choices.write(agent.porch, agent.owner, _key(kind, number), None)


def _key(kind: Kind, number: int) -> str:
    return f"watched {kind} {number}"


def kept(agent: Agent, kind: Kind, number: int) -> dict[str, Any]:
    """seen: ids of what was told; news: of what was not looked at; at: when the last of these were found."""
    held: dict[str, Any] | None = choices.read(agent.porch, agent.owner, _key(kind, number))
    return held or {"seen": [], "news": [], "at": None}


def keep(agent: Agent, kind: Kind, number: int, value: dict[str, Any]) -> None:
    choices.write(agent.porch, agent.owner, _key(kind, number), value)
