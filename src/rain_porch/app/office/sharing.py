"""A workup shown to a colleague, to read or to edit, or handed over; and who did what."""

from __future__ import annotations

import datetime as dt
from typing import Any

from ...core.errors import BadInput, NotAllowed, NotFound
from ...store.db import Database
from ...store.porch import accounts, acts
from ...store.porch import shares as store
from ...store.porch import workups as workup_store
from ..home import photos
from .agent import FOLDERS_OWNER, Agent

SAME_WITHIN = dt.timedelta(minutes=10)  # the same act again is the same line of who did what


def shared_with(agent: Agent, workup_id: int) -> list[dict[str, Any]]:
    workup_store.read(agent.porch, agent.owner, workup_id)
    return store.listed(agent.porch, agent.owner, workup_id)


def share(agent: Agent, workup_id: int, account_id: int, may_edit: bool | None) -> None:
    """Show a workup to a colleague; `may_edit` None takes it back. Raises BadInput for its owner, NotFound."""
    _colleague(agent, account_id)
    store.share(agent.porch, agent.owner, workup_id, account_id, may_edit)


def hand_over(agent: Agent, workup_id: int, account_id: int) -> None:
    """Give a workup to a colleague, who owns it from now on."""
    _colleague(agent, account_id)
    store.hand_over(agent.porch, agent.owner, workup_id, account_id)


def _colleague(agent: Agent, account_id: int) -> None:
    colleague = accounts.read(agent.porch, account_id)
    if colleague.disabled:
        raise BadInput("account_id", f"The account {colleague.name} is disabled: choose another colleague.")
    if account_id == agent.owner:
        raise BadInput("account_id", f"The workup is {colleague.name}'s already: choose another colleague.")


def colleagues(agent: Agent) -> list[accounts.Account]:
    """Everybody who can be shown a workup, the agent too."""
    return [a for a in accounts.listed(agent.porch) if not a.disabled]


def agent_for_workup(agent: Agent, workup_id: int, editing: bool, own: bool) -> Agent:
    """The agent through whom a workup is read or changed: its owner, with the hand of whoever asks.

    A manager may do what the owner may. Raises NotFound for a workup that is not theirs and not shared with them: to them it
    is not there; NotAllowed where it is shared for less.
    """
    share = store.of_workup_for(agent.porch, workup_id, agent.account_id)
    if share is not None and share.owner == agent.account_id:
        return agent
    if share is not None and agent.is_manager:
        return agent.in_place_of(share.owner)
    if share is None or share.may_edit is None:
        raise NotFound(f"There is no workup {workup_id}.", workup_id=workup_id)
    if own:
        raise NotAllowed("This workup is shared with you: only whose it is may do that.")
    if editing and not share.may_edit:
        raise NotAllowed("This workup is shared with you to read: ask whose it is to let you edit it.")
    return agent.in_place_of(share.owner, share.may_edit)


def whose(agent: Agent) -> str | None:
    """The name of the colleague whose workup this is; None where it is the agent's own."""
    return None if agent.owner == agent.account_id else accounts.read(agent.porch, agent.owner).name


def agent_for_delivery(agent: Agent, delivery_id: int) -> Agent:
    """The same for what was delivered: its owner's, and a manager's."""
    owner = store.owner_of_delivery(agent.porch, delivery_id)
    if owner == agent.account_id:
        return agent
    if owner is None or not agent.is_manager:
        raise NotFound(f"There is no delivery {delivery_id}.", delivery_id=delivery_id)
    return agent.in_place_of(owner)


def note_file(agent: Agent, name: str) -> str:
    """A picture or page that the agent has brought in is theirs."""
    store.note_file(agent.porch, agent.owner, name)
    return name


def own_picture(agent: Agent, name: str) -> tuple[bytes, str]:
    """One of the agent's own pictures and its media type. Raises NotFound, also for one that is another's."""
    if not store.has_file(agent.porch, agent.owner, name, FOLDERS_OWNER):
        raise NotFound(f"The picture {name} is not there any more.")
    return photos.own_picture(agent.records.folder, name)


def note_act(porch: Database, account_id: int, what: str, of_what: str, now: dt.datetime) -> None:
    """Who did what: the same again within ten minutes is counted on."""
    at, since = (t.isoformat(timespec="seconds") for t in (now, now - SAME_WITHIN))
    acts.note(porch, account_id, what, of_what, at, since)


def who_did_what(agent: Agent, account_id: int | None) -> list[dict[str, Any]]:
    return acts.listed(agent.porch, account_id)
