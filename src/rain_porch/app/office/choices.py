"""What the agent has chosen once for all workups: the card that goes on paper, the columns of the table of homes."""

from __future__ import annotations

from typing import Any

from ...store.porch import choices as store
from .agent import Agent


def agent_card(agent: Agent) -> dict[str, Any]:
    """The agent's name, licence and contact, as they go on paper."""
    held: dict[str, Any] = store.read(agent.porch, agent.owner, store.AGENT_CARD) or {}
    return held


def set_agent_card(agent: Agent, card: dict[str, Any]) -> None:
    store.write(agent.porch, agent.owner, store.AGENT_CARD, card)


def chosen_columns(agent: Agent) -> tuple[list[str], list[str]]:
    """Columns of the table of homes, and of the table of land; none where none were chosen."""
    built, land = (store.read(agent.porch, agent.owner, name) or [] for name in (store.COLUMNS, store.LAND_COLUMNS))
    return built, land


def choose_columns(agent: Agent, built: list[str], land: list[str]) -> None:
    store.write(agent.porch, agent.owner, store.COLUMNS, built)
    store.write(agent.porch, agent.owner, store.LAND_COLUMNS, land)
