"""Whom the agent works for."""

from __future__ import annotations

from collections.abc import Mapping, Sequence
from typing import Any

from ...store.porch import clients as store
from .agent import Agent


def list_clients(agent: Agent) -> list[dict[str, Any]]:
    return store.listed(agent.porch, agent.owner)


def add_clients(agent: Agent, given: Sequence[Mapping[str, str]]) -> list[int]:
    return store.add(agent.porch, agent.owner, given)


def change_client(agent: Agent, client_id: int, person: Mapping[str, str]) -> None:
    store.change(agent.porch, agent.owner, client_id, person)


def delete_client(agent: Agent, client_id: int) -> None:
    store.delete(agent.porch, agent.owner, client_id)
