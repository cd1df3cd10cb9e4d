"""A link by which one delivered report is read until a day, by whoever has it."""

from __future__ import annotations

import datetime as dt
import secrets
from typing import Any

from ...core.errors import NotFound
from ...store.db import Database
from ...store.porch import deliveries
from ...store.porch import links as store
from ..office.accounts import digest
from ..office.agent import Agent


def make(agent: Agent, delivery_id: int, days: int) -> tuple[int, str, dt.datetime]:
    """(number, the link's secret text, until when it opens the paper). Only what the text comes to is kept."""
    deliveries.read(agent.porch, agent.owner, delivery_id)
    token, now = secrets.token_urlsafe(24), agent.now()
    until = now + dt.timedelta(days=days)
    stamps = (t.isoformat(timespec="seconds") for t in (now, until))
    return store.add(agent.porch, agent.owner, delivery_id, digest(token), *stamps), token, until


def listed(agent: Agent, delivery_id: int) -> list[dict[str, Any]]:
    deliveries.read(agent.porch, agent.owner, delivery_id)
    return store.listed(agent.porch, agent.owner, delivery_id)


def withdraw(agent: Agent, link_id: int) -> None:
    """Raises NotFound for a link of somebody else's."""
    store.withdraw(agent.porch, agent.owner, link_id)


def paper(porch: Database, token: str, form: str, now: dt.datetime) -> bytes:
    """Raises NotFound for a link that was never made, has run out or was withdrawn: they are not told apart."""
    data = store.read_by(porch, digest(token), form, now.isoformat(timespec="seconds"))
    if data is None:
        raise NotFound("This link opens nothing, or no longer: ask whoever sent it for another.")
    return data
