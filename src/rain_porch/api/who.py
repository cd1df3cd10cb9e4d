"""Who asks, and whether they may: the one door of every request, before its route is entered.

Nobody has to sign in while no account has a password and the service listens on this machine alone: whoever sits here works
as the folder's owner. As soon as one has, or where others could reach the service, everybody signs in.
"""

from __future__ import annotations

import logging
import sqlite3
from dataclasses import dataclass

from fastapi import Request

from ..app.office import accounts
from ..app.office.accounts import Account
from ..app.office.agent import FOLDERS_OWNER, Agent
from ..app.office.sharing import agent_for_delivery, agent_for_workup, note_act
from ..core.errors import NotAllowed, NotSignedIn
from .act_words import act_in_words
from .rights import RIGHTS, Right, path_of_route
from .state import State

COOKIE = "rain_porch_session"
FORWARDED = ("forwarded", "x-forwarded-for", "x-real-ip", "via")
OWN = frozenset({Right.OWN_WORKUP})
EDITING = frozenset({Right.EDIT_WORKUP, Right.OWN_WORKUP})
OF_WORKUP = frozenset({Right.READ_WORKUP, Right.EDIT_WORKUP, Right.OWN_WORKUP})
# no acts: what only asks, and what sets a person's own view of things
ASKS = ("/counts", "/market/", "/around", "/columns", "/plan", "/preview")


@dataclass(frozen=True)
class Asker:
    """account: None for somebody who has not signed in. by_itself: nobody has to sign in here."""

    account: Account | None
    by_itself: bool


def asker(request: Request) -> Asker:
    """Who asks, by their cookie, or by sitting at this machine where that is enough."""
    state: State = request.app.state.porch
    if state.is_open_here and not accounts.somebody_signs_in(state.porch):
        beyond = any(name in request.headers for name in FORWARDED)
        return Asker(None if beyond else accounts.read_account(state.porch, FOLDERS_OWNER), not beyond)
    token = request.cookies.get(COOKIE, "")
    return Asker(accounts.account_of(state.porch, token, state.now()) if token else None, False)


def signed_in(request: Request) -> Account:
    """The account that asks. Raises NotSignedIn for nobody."""
    account = asker(request).account
    if account is None:
        raise NotSignedIn("Sign in first.")
    return account


def right_of(request: Request) -> Right | None:
    return RIGHTS.get((request.method, path_of_route(request.scope)))


def may(request: Request) -> None:
    """Let the request in, with its agent, or refuse it: 401 for who has not signed in, 403 for who may not, and 404 for what is
    another's, which to them is not there."""
    state: State = request.app.state.porch
    right = right_of(request)
    if right is Right.ANYONE:
        return
    account = signed_in(request)
    agent = Agent.on(
        state.records.snapshot(), account.account_id, state.porch, state.now, is_manager=account.is_manager
    )
    if right is None or (right is Right.MANAGER and not account.is_manager):
        raise NotAllowed("Only a manager of the office may do that.")
    if right is Right.RECORDS and not account.may_change_records:
        raise NotAllowed("Your account may not change the records: ask the office's manager.")
    if right in OF_WORKUP and (workup := _number(request, "workup_id")) is not None:
        agent = agent_for_workup(agent, workup, right in EDITING, right in OWN)
        state.working_on.note(agent.owner, workup, page="/pages/" in request.url.path)
    if right is Right.OWN_DELIVERY and (delivery := _number(request, "delivery_id")) is not None:
        agent = agent_for_delivery(agent, delivery)
    request.state.agent = agent


def _number(request: Request, name: str) -> int | None:
    text = str(request.path_params.get(name, ""))
    return int(text) if text.isascii() and text.isdigit() and len(text) < 16 else None


def note(request: Request, status: int) -> None:
    """Keep who did what, where something was done."""
    agent: Agent | None = getattr(request.state, "agent", None)
    path = request.url.path
    if agent is None or status >= 400 or request.method == "GET" or any(x in path for x in ASKS):
        return
    state: State = request.app.state.porch
    what, of_what = act_in_words(request.method, path_of_route(request.scope), request.path_params)
    try:
        note_act(state.porch, agent.account_id, what, of_what, state.now())
    except sqlite3.Error:  # what was done is done, and answered
        logging.getLogger(__name__).exception("what was done could not be noted")
