"""What has happened around a home since its workup's effective date: to the kept comps, in its search, to itself."""

from __future__ import annotations

import datetime as dt

import numpy as np
from pydantic import Field

from ..core.columns import Ints
from ..core.dates import day_of
from ..core.market import Market
from ..core.market_records import changed_since, rows_touched
from ..core.search import let_through
from .documents import Doc
from .market_looks import ChangesDoc, told_since
from .workups import Opened, Workups

MOST = 12


class SinceDoc(ChangesDoc):
    """since: the day after the effective date. kept: listings among them that are comps; own: that are the home itself."""

    kept: list[str] = Field(default=[])
    own: list[str] = Field(default=[])


class LeftBehindDoc(Doc):
    """A workup that the records have left behind, and how much has happened since."""

    workup_id: int
    effective_date: dt.date
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


def left_behind(workups: Workups) -> list[LeftBehindDoc]:
    """The newest workups whose effective date lies before the records' last day, and to which something happened."""
    out = []
    through = workups.records.through()
    for row in workups.rows()[:MOST]:
        if dt.date.fromisoformat(row["effective_date"]) < through:
            opened = workups.open(row["workup_id"])
            _, kept, rows = _rows(workups, opened)
            market = Market(opened.setting.columns, rows, day_of(through), deeds=True)
            events = changed_since(market, day_of(_first_day(opened)))
            if events:
                held = set(kept.tolist())
                out.append(
                    LeftBehindDoc(
                        workup_id=row["workup_id"], effective_date=opened.state.effective_date, changes=len(events),
                        kept=len({e.row for e in events} & held),
                    )
                )  # fmt: skip
    return out


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
