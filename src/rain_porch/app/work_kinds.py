"""The kinds of work that wait for their time, each a function that says in one sentence what came of it."""

from __future__ import annotations

import sqlite3
from collections.abc import Callable, Iterator, Mapping
from contextlib import closing, contextmanager
from typing import Any

from ..core.errors import BadInput, Refused
from ..records.feeds.feed import pull
from ..records.inbox import take_in
from ..store import backups, db
from . import watching
from .handover.bulletin_sending import make_if_due
from .handover.delivering import post
from .incoming.fetching import line
from .office.accounts import read_account
from .office.agent import Agent

Work = Callable[[Agent, Mapping[str, Any]], str]


def back_up(agent: Agent, _: Mapping[str, Any]) -> str:
    made = backups.back_up_daily(agent.records.folder, agent.now())
    return f"Backed up to {made.name}, {made.stat().st_size / 1e6:,.1f} MB."


def send_message(agent: Agent, details: Mapping[str, Any]) -> str:
    return post(agent, details["delivery_id"])


@contextmanager
def _records(agent: Agent) -> Iterator[sqlite3.Connection]:
    """A connection of its own to the records, for an agent who may still change them; Refused for any other."""
    account = read_account(agent.porch, agent.owner)
    if not account.may_change_records:
        raise Refused(f"{account.name} may not change the records any more: a manager can let them, or take this away.")
    with closing(db.open_database(agent.records.folder, db.RECORDS)) as own:
        yield own


def pull_feed(agent: Agent, details: Mapping[str, Any]) -> str:
    """details: address, token, source as they were given when the feed was pulled by hand; nearby: from this network too."""
    with _records(agent) as own:
        result = pull(
            own, details["address"], details["token"],
            folder=agent.records.folder, now=agent.now(), source=details["source"] or None, **line(bool(details["nearby"])),
        )  # fmt: skip
    told = f"{result.new:,} new, {result.changed:,} changed, {result.rejected:,} rejected."
    return " ".join([told, *(f"{note}." for note in result.notes)])


def look_into_inbox(agent: Agent, _: Mapping[str, Any]) -> str:
    with _records(agent) as own:
        looked = take_in(own, agent.records.folder, agent.now())
    held = sum(x.held for x in looked)
    return f"{len(looked) - held} files came in, {held} wait for you." if looked else "Nothing new."


# kind → (what it is called, what it does; it raises one of our errors where nothing came of it, the details that it needs)
KINDS: dict[str, tuple[str, Work, frozenset[str]]] = {
    "backup": ("Back up everything", back_up, frozenset()),
    "message": ("Send a message", send_message, frozenset({"delivery_id"})),
    "bulletin": ("Make a bulletin and send it", make_if_due, frozenset({"bulletin_id", "day"})),
    "inbox": ("Look into the watched folder", look_into_inbox, frozenset()),
    "watch": ("Look at what is watched", watching.look, frozenset({"of", "number"})),
    "feed": ("Pull a feed of listings", pull_feed, frozenset({"address", "token", "source", "nearby"})),
}


def check(kind: str, details: Mapping[str, Any]) -> None:
    """Raises BadInput for a kind that is none, or details that are not its own."""
    if kind not in KINDS:
        raise BadInput("kind", f"There is no work called “{kind}”: it is one of {', '.join(KINDS)}.")
    if (wanted := KINDS[kind][2]) != set(details):
        raise BadInput("details", f"“{kind}” needs {', '.join(sorted(wanted)) or 'no details'}: give just these.")
    if kind == "feed" and not all(isinstance(x, str | bool) and len(str(x)) <= 2000 for x in details.values()):
        raise BadInput("details", "A feed's address, token and source are texts of up to 2,000 signs.")
    if kind == "bulletin" and not all(isinstance(x, int) for x in details.values()):
        raise BadInput("details", "A bulletin and its day are named by their numbers.")
    if kind == "watch":
        watching.check(details)
    if kind == "message" and not isinstance(details["delivery_id"], int):
        raise BadInput("details", "A delivery is named by its number.")
