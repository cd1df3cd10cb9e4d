"""Searches that the agent keeps by name, to lay them about another home."""

from __future__ import annotations

from ..core.search.relocation import carried
from ..core.search.search import Search
from ..core.search.sentence import sentence
from ..documents.search import SearchDoc
from ..documents.stored import SavedSearchDoc
from ..documents.versions import read, written
from ..store.porch import searches as store
from .around import LookAsk, searched, standpoint_of
from .office.agent import Agent
from .office.house_rules import rules_of
from .office.watches import stop_watching
from .workup.workups import open_workup


def saved_searches(agent: Agent) -> list[tuple[int, str, str]]:
    """(number, name, sentence) of each."""
    return [
        (n, name, sentence(read(SavedSearchDoc, held).search.search()))
        for n, name, held in store.listed(agent.porch, agent.owner)
    ]


def save_search(agent: Agent, workup_id: int, name: str) -> int:
    """Keep a workup's search under a name, with the home it lies about."""
    opened = open_workup(agent, workup_id)
    doc = SavedSearchDoc(
        search=opened.state.search, facts=dict(opened.subject.facts), home_kind=opened.subject.home_kind.value,
        home=opened.state.home, place=opened.state.place,
    )  # fmt: skip
    return store.keep(agent.porch, agent.account_id, name, written(doc))


def save_looked(agent: Agent, name: str, ask: LookAsk) -> int:
    """Keep a look's search under a name, with the home it lies about, if any."""
    standpoint = standpoint_of(agent.records, ask, rules_of(agent))
    subject = standpoint.subject
    doc = SavedSearchDoc(
        search=SearchDoc.of(searched(standpoint, ask)),
        facts=dict(subject.facts),
        home_kind=subject.home_kind.value if ask.home else "",
        home=ask.home,
        place=ask.place,
    )
    return store.keep(agent.porch, agent.account_id, name, written(doc))


def carried_to_look(agent: Agent, search_id: int, ask: LookAsk) -> tuple[Search, list[str]]:
    """A saved search for a look: about its home where it has one, else as it was saved."""
    held = read(SavedSearchDoc, store.read(agent.porch, agent.account_id, search_id)[1])
    if ask.home is None:
        return held.search.search(), []
    return carried(
        held.search.search(), held.facts, held.home_kind, standpoint_of(agent.records, ask, rules_of(agent)).subject
    )


def carried_search(agent: Agent, workup_id: int, search_id: int) -> tuple[Search, list[str]]:
    """A saved search about this workup's home, and what stayed behind."""
    held = read(SavedSearchDoc, store.read(agent.porch, agent.account_id, search_id)[1])
    return carried(held.search.search(), held.facts, held.home_kind, open_workup(agent, workup_id).subject)


def delete_search(agent: Agent, search_id: int) -> None:
    """Take a search away, and whoever watches it."""
    stop_watching(agent, "search", search_id)
    store.delete(agent.porch, agent.owner, search_id)
