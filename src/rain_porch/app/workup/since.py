"""What has happened around a home since its workup's effective date: to the kept comps, in its search, to itself."""

from __future__ import annotations

import datetime as dt

import numpy as np
from pydantic import Field

from ...core.facts.dates import day_of
from ...core.market.bulletin.figure_records import Event, changed_since, rows_touched
from ...core.market.measures import Market
from ...core.search.matching import let_through
from ...documents.base import Doc
from ..market.closer_looks import ChangesDoc, told_of
from ..office.agent import Agent
from ..pricing.opened import Opened, priced
from .workups import open_workup


class SinceDoc(ChangesDoc):
    """since: the day after the effective date. kept: listings among them that are comps; own: that are the home itself."""

    kept: list[str] = Field(default=[])
    own: list[str] = Field(default=[])


class StandingDoc(Doc):
    """Where a workup stands: what its comps indicate, and how much has happened since its effective date.

    changes: events; kept: comps among them. Both 0 where the records end on that date.
    """

    workup_id: int
    effective_date: dt.date
    indicated_value: float | None
    changes: int
    kept: int


def since_then(opened: Opened) -> SinceDoc:
    """Everything since the effective date that the workup's search, its comps or its home have to do with."""
    own, kept, events = events_since(opened, _first_day(opened))
    told = told_of(opened.standpoint.records, _first_day(opened), events)
    there = {e.row for e in events}

    def keys(of: set[int]) -> list[str]:
        return [str(opened.standpoint.columns.keys[row]) for row in sorted(of & there)]

    return SinceDoc(**dict(told), kept=keys(kept), own=keys(own))


def standing(agent: Agent, workup_id: int) -> StandingDoc:
    """Worked out once for a revision of the workup and a version of the records."""
    opened = open_workup(agent, workup_id)
    held = agent.records.remember(("standing", *opened.decided), lambda: _standing(opened))
    return held.model_copy(update={"workup_id": workup_id})


def _standing(opened: Opened) -> StandingDoc:
    value = priced(opened).shown if opened.state.kept() else None
    _, kept, events = events_since(opened, _first_day(opened))
    return StandingDoc(
        workup_id=opened.workup_id, effective_date=opened.state.effective_date,
        indicated_value=value,
        changes=len(events), kept=len({e.row for e in events} & kept),
    )  # fmt: skip


def _first_day(opened: Opened) -> dt.date:
    return opened.state.effective_date + dt.timedelta(days=1)


def events_since(opened: Opened, day: dt.date) -> tuple[set[int], set[int], list[Event]]:
    """(rows of the home itself, rows of the kept comps, what happened to these and to all that the search looks at from a day on)."""
    records, search, first = opened.standpoint.records, opened.state.search.search(), day_of(day)
    columns = records.columns
    touched = rows_touched(columns, first)
    found = let_through(search, columns, touched, opened.subject, records.masks_of(search))
    home = opened.subject.home_id
    own = set() if home is None else set(columns.rows_of_home(home).tolist())
    kept = {row for key in opened.state.kept() if (row := columns.row(key)) is not None}
    rows = np.array(sorted(own | kept | set(found.tolist())), dtype=np.int64)
    market = Market(columns, rows, day_of(records.through()), deeds=True)
    return own, kept, changed_since(market, first)
