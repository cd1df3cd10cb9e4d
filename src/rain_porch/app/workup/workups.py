"""The agent's workups: made from a home, changed step by step, opened on the records, undone."""

from __future__ import annotations

import datetime as dt
import json
from dataclasses import replace
from typing import Any

import numpy as np

from ...core.errors import BadInput, Clash, NotFound, Odd, OutOfDate, Refused
from ...core.facts.dates import said
from ...core.facts.fields import BY_NAME, Kind
from ...core.facts.homes import Subject
from ...core.facts.house_rules import HouseRules
from ...core.facts.oddness import odd_fact, odd_price
from ...core.market.market_rules import market_rules
from ...core.search.matching import unknown_mask
from ...core.search.search import Search, check
from ...documents.prices import PriceDoc
from ...documents.search import SearchDoc
from ...documents.stored import DecisionDoc, HomeRefDoc, PaperDoc, WorkupDoc
from ...documents.versions import read, written
from ...store.db import atomic
from ...store.porch import deliveries as delivered
from ...store.porch import shares
from ...store.porch import workups as store
from ..home.homes import Home, HomeRef, read_home
from ..office.agent import Agent
from ..office.house_rules import rules_for, rules_of
from ..pricing.opened import Opened
from ..pricing.standpoint import Standpoint
from ..snapshot import Snapshot
from . import changes
from .changes import Change
from .merging import merged

TRIES = 5  # of a save among others' saves
NO_ROWS = np.zeros(0, dtype=np.int64)


def begin_workup(agent: Agent, ref: HomeRef, as_of: dt.date | None = None) -> int:
    """A workup with the proposed search, as of the records' newest day unless another is given."""
    records = agent.records
    if as_of is not None:
        _not_to_come(records, as_of)
    home = read_home(records, ref)
    standpoint = Standpoint.at(records, home.subject, records.effective_day(as_of), rules_of(agent))
    state = WorkupDoc(
        home=HomeRefDoc.model_validate({"kind": home.ref.kind, "key": home.ref.key}),
        address=home.subject.address or ref.key,
        effective_date=as_of or records.through(),
        search=SearchDoc.of(standpoint.proposed()),
    )
    return _begun(agent, state, "workup begun")


def begin_looked(agent: Agent, ref: HomeRef, search: SearchDoc | None, ticked: list[str]) -> int:
    """A workup that goes on where a look has come to: with its search, and what was ticked kept. Raises what a search that cannot
    be run raises; homes that the records do not have, and the home itself, are left out."""
    records = agent.records
    home = read_home(records, ref)
    standpoint = Standpoint.at(records, home.subject, records.effective_day(None), rules_of(agent))
    if search is not None:
        _check_search(records, search.search())
    columns, own = standpoint.columns, home.subject.home_id
    there = [k for k in ticked if (row := columns.row_of.get(k)) is not None and columns.home_id[row] != own]
    state = WorkupDoc(
        home=HomeRefDoc.model_validate({"kind": home.ref.kind, "key": home.ref.key}),
        address=home.subject.address or ref.key,
        effective_date=records.through(),
        search=search or SearchDoc.of(standpoint.proposed()),
        decisions={key: DecisionDoc(choice="kept") for key in there},
    )
    return _begun(agent, state, "begun from a look")


def begin_priced(agent: Agent, home: Home, doc: PriceDoc, comps: list[str]) -> int:
    """A workup of a price found on the command line, with its comps kept."""
    state = WorkupDoc(
        home=HomeRefDoc.model_validate({"kind": home.ref.kind, "key": home.ref.key}),
        address=home.subject.address or home.ref.key,
        effective_date=doc.effective_date,
        search=doc.search,
        decisions={key: DecisionDoc(choice="kept") for key in comps},
    )
    return _begun(agent, state, "priced")


def _begun(agent: Agent, state: WorkupDoc, what: str) -> int:
    return store.create(agent.porch, agent.owner, state.address, written(state), what, agent.stamp())


def keep_rules(agent: Agent, workup_id: int) -> None:
    """Let a workup keep the house's rules as they stand, whatever the house chooses later: it is being delivered. One that keeps some
    already keeps those."""
    held = store.read(agent.porch, agent.owner, workup_id)
    state = read(WorkupDoc, held["document"])
    if state.rules is None:
        kept = changes.KeepRules(change="keep_rules", rules=dict(rules_of(agent).changed))
        change_workup(agent, workup_id, held["revision"], kept)


def change_workup(agent: Agent, workup_id: int, revision: int, change: Change) -> tuple[int, str]:
    """Apply one change that was made on the revision that was read; returns the new revision and what was done.

    What others changed since stays where the change leaves it alone. Raises Clash where it does not, OutOfDate where what was
    read has been taken back since.
    """
    if isinstance(change, changes.SetDate):
        _not_to_come(agent.records, change.effective_date)
    for _ in range(TRIES):
        held = store.read(agent.porch, agent.owner, workup_id)
        before = read(WorkupDoc, held["document"])
        ours = change if held["revision"] == revision else _on_newer(agent, workup_id, revision, before, change)
        state, what = _changed(agent, before, ours)
        text = written(state)
        if ours is not change and text == held["document"]:
            return held["revision"], what  # sent again because its answer was lost
        try:
            number = store.save(
                agent.porch, agent.owner, workup_id, held["revision"], held["title"], text, what, agent.stamp(),
                agent.account_id,
            )  # fmt: skip
        except OutOfDate:
            continue  # another came between reading and saving
        return number, what
    raise OutOfDate(f"Workup {workup_id} is being changed all the time: read it again and repeat the change.")


def _changed(agent: Agent, before: WorkupDoc, change: Change) -> tuple[WorkupDoc, str]:
    records = agent.records
    state, what = changes.apply(before, change)
    if isinstance(change, changes.CorrectFact):
        home = read_home(records, HomeRef(state.home.kind, state.home.key)).subject
        _ask_about_fact(change, home, state.effective_date.year)
        state = _search_follows(records, home, before, state, rules_for(agent, before))
    if isinstance(change, changes.SetListPrice):
        _ask_about_price(records, change, state)
    if isinstance(change, changes.SetSearch):
        _check_search(records, state.search.search())
    return state, what


def _on_newer(agent: Agent, workup_id: int, revision: int, now: WorkupDoc, change: Change) -> Change:
    """A change that was made on an earlier revision, as it is on the newest."""
    text = store.document_at(agent.porch, agent.owner, workup_id, revision)
    standing = store.standing(agent.porch, agent.owner, workup_id)
    if text is None:
        raise OutOfDate(
            f"Workup {workup_id} was changed in the meantime: it is at revision {standing['revision']}, not {revision}. "
            "Read it again and repeat the change.",
            revision=standing["revision"],
        )
    base = read(WorkupDoc, text)
    mine, _ = changes.apply(base, change)
    both, clashes = merged(*(json.loads(doc.model_dump_json()) for doc in (base, mine, now)))
    if clashes:
        mine_too = standing["by_account"] in (None, agent.account_id)
        who = "Another window of yours" if mine_too else standing["who"]
        raise Clash(
            f"{who} changed the same meanwhile: {standing['what']}. Is yours to take its place?",
            revision=standing["revision"],
        )
    update: dict[str, Any] = {}
    if isinstance(change, changes.SetSearch):
        update = {"search": SearchDoc.model_validate(both["search"])}
    elif isinstance(change, changes.SetPaper):
        update = {"paper": PaperDoc.model_validate(both["paper"])}
    return change.model_copy(update=update)


def standing_of(agent: Agent, workup_id: int) -> dict[str, Any]:
    """The newest revision, what was done last, and by whom."""
    return store.standing(agent.porch, agent.owner, workup_id)


def undo_change(agent: Agent, workup_id: int, revision: int) -> tuple[int, str | None]:
    """Take back the last change of the revision that was read; the new revision, and what was undone."""
    return store.undo(agent.porch, agent.owner, workup_id, revision, agent.stamp())


def history_of(agent: Agent, workup_id: int) -> list[dict[str, Any]]:
    store.read(agent.porch, agent.owner, workup_id)
    return store.history(agent.porch, agent.owner, workup_id)


def copy_workup(agent: Agent, workup_id: int) -> int:
    """A workup of the asker's own that begins where this one stands; its number."""
    held = store.read(agent.porch, agent.owner, workup_id)
    state = read(WorkupDoc, held["document"])
    with atomic(agent.porch):
        number = store.create(
            agent.porch, agent.account_id, f"{held['title']}, copy", held["document"], "copied", agent.stamp()
        )
        for photo in state.photos:
            shares.note_file(agent.porch, agent.account_id, photo.file)
    return number


def archive_workup(agent: Agent, workup_id: int, away: bool) -> None:
    """Put a workup away: it stands in no list until it is looked for. Or take it out again."""
    store.archive(agent.porch, agent.owner, workup_id, agent.stamp() if away else None)


def delete_workup(agent: Agent, workup_id: int) -> None:
    store.delete(agent.porch, agent.owner, workup_id)


def list_workups(agent: Agent, every: bool = False, archived: bool = False, words: str = "") -> list[dict[str, Any]]:
    """The agent's workups with where they stand, newest change first; then those that are shared with them, or for a manager
    `every` other one: those at hand, or those put away, with `words` in title, address or client. whose: None for one's own."""
    others = store.listed_for(agent.porch, agent.owner, every and agent.is_manager, archived, words)
    rows: list[dict[str, Any]] = [
        *({**row, "whose": None, "may_edit": True} for row in store.listed(agent.porch, agent.owner, archived, words)),
        *(_of_another(agent, row) for row in others),
    ]
    return _where_they_stand(agent, rows)


def _of_another(agent: Agent, row: dict[str, Any]) -> dict[str, Any]:
    return {**{k: v for k, v in row.items() if k != "owner"}, "may_edit": agent.is_manager or bool(row["may_edit"])}


def _where_they_stand(agent: Agent, rows: list[dict[str, Any]]) -> list[dict[str, Any]]:
    out = []
    given: dict[int, str] = {}
    for d in delivered.listed(agent.porch, agent.owner):
        to = f" to {d['client'] or d['email']}" if d["client"] or d["email"] else ""
        given.setdefault(d["workup_id"], f"delivered{to} on {said(d['made_at'])}")
    for row in rows:
        delivery = given.get(row["workup_id"])
        try:
            state = read(WorkupDoc, row.pop("document"))
        except Refused as error:  # one that cannot be read hides none of the others
            out.append({**row, "kept": 0, "list_price": None, "effective_date": None, "client": "", "delivered": delivery,
                        "fault": error.message})  # fmt: skip
            continue
        out.append({**row, "kept": len(state.kept()), "list_price": state.list_price,
                    "effective_date": state.effective_date.isoformat(), "client": state.client, "delivered": delivery})  # fmt: skip
    return out


def titles(agent: Agent) -> list[tuple[int, str]]:
    """(number, title) of every workup of theirs or shared with them, newest change first; no document is read for it."""
    return [*store.titled(agent.porch, agent.owner), *store.titled_for(agent.porch, agent.owner)]


def open_workup(agent: Agent, workup_id: int, rules: HouseRules | None = None) -> Opened:
    """Raises NotFound for a workup, or a home of one, that is not there any more. rules: to be tried in place of those that stand."""
    held = store.read(agent.porch, agent.owner, workup_id)
    state = read(WorkupDoc, held["document"])
    rules = rules_for(agent, state) if rules is None else rules
    records = agent.records.by(market_rules(rules))
    ref = HomeRef(state.home.kind, state.home.key)
    try:
        home = records.remember(("home", ref), lambda: read_home(records, ref))
    except NotFound as error:
        remedy = "The workup is kept: it opens again when the records hold its home, so bring its file in again."
        raise NotFound(f"{error.message} {remedy}", **error.values) from error
    subject = home.subject.corrected(state.corrections)
    if state.place is not None:
        subject = replace(subject, longitude=state.place[0], latitude=state.place[1], placed=True)
    standpoint = Standpoint.at(records, subject, records.effective_day(state.effective_date), rules)
    return Opened(workup_id, int(held["revision"]), held["document"], state, home, subject, standpoint)


# --- what a change is held against before it is saved


def _ask_about_fact(change: changes.CorrectFact, home: Subject, year: int) -> None:
    """Raises Odd for a fact that is possible but strange, unless the agent is sure."""
    if change.sure or not isinstance(change.value, float):
        return
    if question := odd_fact(change.field, change.value, home.number(change.field), year):
        raise Odd(change.field, f"{question} Is it so?")


def _ask_about_price(records: Snapshot, change: changes.SetListPrice, state: WorkupDoc) -> None:
    """Raises Odd for a list price far from the comps', unless the agent is sure."""
    if change.sure or change.list_price is None:
        return
    if question := odd_price(change.list_price, _usual_price(records, state)):
        raise Odd("list_price", f"{question} Is it so?")


def _usual_price(records: Snapshot, state: WorkupDoc) -> float | None:
    """The middle of what the kept comps cost; None before any is kept."""
    columns = records.columns
    rows = [row for key in state.kept() if (row := columns.row_of.get(key)) is not None]
    prices = columns.as_of(records.effective_day(state.effective_date)).price[rows]
    prices = prices[np.isfinite(prices)]
    return float(np.median(prices)) if prices.size else None


def _search_follows(
    records: Snapshot, home: Subject, before: WorkupDoc, state: WorkupDoc, rules: HouseRules
) -> WorkupDoc:
    """A search that is still the proposed one is proposed anew when the home's facts change."""
    day = records.effective_day(state.effective_date)

    def proposed(of: WorkupDoc) -> SearchDoc:
        return SearchDoc.of(Standpoint.at(records, home.corrected(of.corrections), day, rules).proposed())

    if before.search != proposed(before):
        return state
    return state.model_copy(update={"search": proposed(state)})


def _check_search(records: Snapshot, search: Search) -> None:
    """Raises BadInput or NotFound for a search that could not be run."""
    check(search)
    records.masks_of(search)
    for c in (c for c in search.criteria if BY_NAME[c.field].kind != Kind.TEXT):
        unknown_mask(c, records.columns, NO_ROWS)


def _not_to_come(records: Snapshot, day: dt.date) -> None:
    if day > records.today():
        raise BadInput("effective_date", f"{said(day)} is still to come: choose today or an earlier day.")
