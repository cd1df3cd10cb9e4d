"""What has happened around a home since its workup's effective date: to the kept comps, in its search, to itself."""

from __future__ import annotations

import datetime as dt

import numpy as np
from pydantic import Field

from ..core.columns import Ints
from ..core.dates import day_of
from ..core.market import Market
from ..core.market_records import changed_since, rows_touched
from ..core.money import half_up
from ..core.search import let_through
from .documents import Doc
from .market_looks import ChangesDoc, told_since
from .workups import Opened, Workups


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


def since_then(workups: Workups, opened: Opened) -> SinceDoc:
    """Everything since the effective date that the workup's search, its comps or its home have to do with."""
    columns, first = opened.setting.columns, _first_day(opened)
    own, kept, rows = _rows(workups, opened)
    market = Market(columns, rows, day_of(workups.records.through()), deeds=True)
    told = told_since(workups.records, market, first)

    def keys(of: Ints) -> list[str]:
        there = {e.row for e in changed_since(market, day_of(first))}
        return [str(columns.keys[row]) for row in of.tolist() if row in there]

    return SinceDoc(**dict(told), kept=keys(kept), own=keys(own))


def standing(workups: Workups, workup_id: int) -> StandingDoc:
    """Worked out once for a revision of the workup and a version of the records."""
    opened = workups.open(workup_id)
    stamp = opened.revision, opened.setting.columns.version
    held = workups.standings.get(workup_id)
    if held is None or held[0] != stamp:
        held = workups.standings[workup_id] = stamp, _standing(workups, opened)
    out: StandingDoc = held[1]
    return out


def _standing(workups: Workups, opened: Opened) -> StandingDoc:
    value = workups.priced(opened).value if opened.state.kept() else None
    _, kept, rows = _rows(workups, opened)
    market = Market(opened.setting.columns, rows, day_of(workups.records.through()), deeds=True)
    touched = [e.row for e in changed_since(market, day_of(_first_day(opened)))]
    return StandingDoc(
        workup_id=opened.workup_id, effective_date=opened.state.effective_date,
        indicated_value=None if value is None else half_up(value, 100),
        changes=len(touched), kept=len(set(touched) & set(kept.tolist())),
    )  # fmt: skip


def _first_day(opened: Opened) -> dt.date:
    return opened.state.effective_date + dt.timedelta(days=1)


def _rows(workups: Workups, opened: Opened) -> tuple[Ints, Ints, Ints]:
    """Rows to which something may have happened: (the home's own, kept comps, these and all that the search looks at)."""
    columns, search = opened.setting.columns, opened.state.search.search()
    touched = rows_touched(columns, day_of(_first_day(opened)))
    found = let_through(search, columns, touched, opened.subject, workups.records.masks_of(search))
    own = np.zeros(0, dtype=np.int64)
    if opened.subject.home_id is not None:
        own = np.intersect1d(columns.rows_of_home(opened.subject.home_id), touched)
    rows = (columns.row(key) for key in opened.state.kept())
    kept = np.intersect1d(np.array([row for row in rows if row is not None], dtype=np.int64), touched)
    return own, kept, np.unique(np.concatenate([own, kept, found]))
