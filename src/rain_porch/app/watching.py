"""Saved searches and market views that are watched: what is new in them is told on the desk, and by a letter to the agent.

What was told once is not told again, by what happened and not by when it came in: a record that arrives late is told too.
"""

from __future__ import annotations

import datetime as dt
import json
from collections.abc import Mapping, Sequence
from typing import Any

import numpy as np
from pydantic import Field

from ..core.errors import BadInput, NotFound, Refused
from ..core.facts.dates import date_of, day_of, said
from ..core.facts.local_form import USUAL, LocalForm
from ..core.facts.local_form import told as in_form
from ..core.market.bulletin.figure_records import Event, changed_since, event_label, rows_touched
from ..core.market.measures import Market
from ..core.search.matching import let_through
from ..core.search.sentence import sentence
from ..documents.base import Doc, Worded
from ..documents.stored import SavedSearchDoc
from ..documents.versions import read
from ..store.db import atomic
from ..store.porch import due_work, searches, views
from .around import LookAsk, standpoint_of
from .handover.mail import NotNow
from .handover.own_mail import write_to_oneself
from .market.closer_looks import ChangesDoc, told_of
from .market.views import ViewDoc, first_places, market_of
from .office.agent import Agent
from .office.house_rules import rules_of
from .office.local_form import local_form
from .office.watches import WATCH, Kind, keep, kept, stop_watching, works

LOOKED_BACK = 45  # days: what happened earlier than this is told no more, when it comes in
MOST_NEWS = 500  # that stand on the desk, as many as a table of changes shows
IN_A_LETTER = 40
DAY, WEEK = 24 * 60, 7 * 24 * 60


class WatchDoc(Doc):
    """every_minutes: how often it is looked at. told_at: when something new was found last; news: what, as it stands now; in_words:
    the same in a line."""

    kind: Kind
    number: int
    name: str
    words: Worded
    every_minutes: int
    due_at: dt.datetime
    told_at: dt.datetime | None = None
    news: ChangesDoc | None = None
    in_words: Worded = ""
    last_said: Worded = Field("", description="what came of the last look")


def watch(agent: Agent, kind: Kind, number: int, every_minutes: int) -> None:
    """Look at a saved search or view again and again; what stands there now counts as told. NotFound where there is none."""
    _, events = _found(agent, kind, number)
    due = agent.now() + dt.timedelta(minutes=every_minutes)
    if every_minutes >= DAY:
        due = due.replace(hour=7, minute=0, second=0, microsecond=0)
    with atomic(agent.porch):
        stop_watching(agent, kind, number)
        details = json.dumps({"of": kind, "number": number})
        due_work.add(agent.porch, agent.owner, WATCH, details, every_minutes, due.isoformat(timespec="seconds"))
        keep(agent, kind, number, {"seen": _ids(agent, events), "news": [], "at": None})


def watched(agent: Agent) -> list[WatchDoc]:
    """All that is watched, what has news first; one whose search or view was deleted is left out."""
    out = []
    for row in works(agent):
        kind, number = row["of"], row["number"]
        try:
            name, words = named(agent, kind, number)
        except NotFound:
            continue
        held = kept(agent, kind, number)
        news = _told(agent, held["news"])
        out.append(
            WatchDoc(
                kind=kind, number=number, name=name, words=words, every_minutes=row["every_minutes"], due_at=row["due_at"],
                told_at=held["at"], news=news, in_words=in_words(news.counts) if news else "", last_said=row["last_said"],
            )
        )  # fmt: skip
    out.sort(key=lambda w: w.name)
    return sorted(out, key=lambda w: w.told_at or dt.datetime.min, reverse=True)


def seen_by_agent(agent: Agent, kind: Kind, number: int, told_at: dt.datetime) -> None:
    """The agent has looked at the news of that time: they go from the desk, unless more have come since."""
    with atomic(agent.porch):
        held = kept(agent, kind, number)
        if held["at"] == told_at.isoformat(timespec="seconds"):
            keep(agent, kind, number, {**held, "news": [], "at": None})


def look(agent: Agent, details: Mapping[str, Any]) -> str:
    """Tell what is new, as work that waits: on the desk, and by a letter where mail is set up. What could not be sent is told again."""
    kind, number = details["of"], details["number"]
    try:
        name, events = _found(agent, kind, number)
    except NotFound:
        stop_watching(agent, kind, number)
        return "It is there no longer."
    held = kept(agent, kind, number)
    seen = set(held["seen"])
    fresh = [e for e in events if _id(agent, e) not in seen]
    if not fresh:
        keep(agent, kind, number, {**held, "seen": _ids(agent, events)})
        return "Nothing new."
    news = [_id(agent, e) for e in fresh]
    stands = {"news": list(dict.fromkeys(news + held["news"]))[:MOST_NEWS], "at": agent.stamp()}
    keep(agent, kind, number, {"seen": held["seen"], **stands})  # on the desk also where no letter can go out
    told = _told(agent, news)
    sent = _write(agent, name, told) if told else ""
    # what was looked at while the letter went out stays so
    keep(agent, kind, number, {**kept(agent, kind, number), "seen": _ids(agent, events)})
    return f"{in_words(told.counts) if told else ''}. {sent}".strip()


def check(details: Mapping[str, Any]) -> None:
    if details["of"] not in ("search", "view") or not isinstance(details["number"], int):
        raise BadInput("details", "What is watched is a search or a view, named by its number.")


def in_words(counts: Mapping[str, int]) -> str:
    """As “2 new on the market, 1 price down”."""
    return ", ".join(f"{n:,} {event_label(what).lower()}" for what, n in counts.items())


def letter(name: str, told: ChangesDoc, form: LocalForm = USUAL) -> str:
    """What is new in plain words, the newest first; of many a part, and how many more."""
    lines = []
    for c in told.changes[:IN_A_LETTER]:
        price = c.new or c.price
        before = f" (before: {c.old:,.0f})" if c.old and c.new else ""
        at = f", {price:,.0f}{before}" if price else ""
        lines.append(f"{said(c.date)}: {told.labels[c.what].lower()}, {c.record.address or c.record.listing_id}{at}")
    if (more := sum(told.counts.values()) - IN_A_LETTER) > 0:
        lines.append(f"and {more:,} more, which stand on your desk.")
    return "\n".join(
        [f"New in “{name}”: {in_form(in_words(told.counts), form)}.", "", *(in_form(x, form) for x in lines), ""]
    )


def _write(agent: Agent, name: str, told: ChangesDoc) -> str:
    """Raises NotNow where the letter is to be tried again."""
    form = local_form(agent).form()
    try:
        to = write_to_oneself(agent, f"New in {name}: {in_form(in_words(told.counts), form)}", letter(name, told, form))
    except NotNow:
        raise
    except Refused as error:
        return f"No letter: {error.message}"
    return f"A letter went to {to}."


def _found(agent: Agent, kind: Kind, number: int) -> tuple[str, list[Event]]:
    """(its name, what happened in it lately), newest first: up to today, since what an import sees change is dated by its day."""
    records, today = agent.records, agent.now().date()
    since = day_of(records.through()) - LOOKED_BACK
    if kind == "view":
        name, view = _view(agent, number)
        return name, changed_since(market_of(records, view, first_places(view), through=today), since)
    name, held = _search(agent, number)
    if held.facts and held.home is None and held.place is None:
        raise Refused(f"“{name}” was kept without its home: save it once more under its name to have it watched.")
    home = None if held.place else held.home  # where the home was moved on the map, that counts
    ask = LookAsk(home=home, place=held.place, search=held.search, ticked=[])
    subject = standpoint_of(records, ask, rules_of(agent)).subject
    search, touched = held.search.search(), rows_touched(records.columns, since)
    rows = let_through(search, records.columns, touched, subject, records.masks_of(search))
    return name, changed_since(Market(records.columns, rows.astype(np.int64), day_of(today), deeds=True), since)


def named(agent: Agent, kind: Kind, number: int) -> tuple[str, str]:
    """(name, the search as a sentence). Raises NotFound."""
    if kind == "view":
        return _view(agent, number)[0], "A market view."
    name, held = _search(agent, number)
    return name, sentence(held.search.search())


def _view(agent: Agent, number: int) -> tuple[str, ViewDoc]:
    name, held = views.read(agent.porch, agent.owner, number)
    return name, read(ViewDoc, held)


def _search(agent: Agent, number: int) -> tuple[str, SavedSearchDoc]:
    name, held = searches.read(agent.porch, agent.owner, number)
    return name, read(SavedSearchDoc, held)


# What happened, in a text that stays the same whatever comes in later: listing, what, day, prices before and after.
def _id(agent: Agent, event: Event) -> str:
    key = str(agent.records.columns.keys[event.row])
    return json.dumps([key, event.what, event.day, event.old, event.new])


def _ids(agent: Agent, events: Sequence[Event]) -> list[str]:
    return [_id(agent, e) for e in events]


def _told(agent: Agent, ids: Sequence[str]) -> ChangesDoc | None:
    """What happened, as the records stand now; None where nothing did, or its records have gone."""
    events = []
    for text in ids:
        key, what, day, old, new = json.loads(text)
        if (row := agent.records.columns.row(key)) is not None:
            events.append(Event(day, what, row, old, new))
    if not events:
        return None
    # as the records stand, with days as every other screen counts them
    return told_of(agent.records, date_of(min(e.day for e in events)), sorted(events, key=lambda e: -e.day))
