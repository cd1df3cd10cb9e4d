"""The sales that a search finds, and those that each of its next steps would add, told from one look at the market."""

from __future__ import annotations

from collections.abc import Callable, Sequence
from dataclasses import dataclass, replace

import numpy as np

from ..facts.homes import Subject
from ..facts.words import RecordKind
from ..market.columns import AsOf, Columns, Ints
from .matching import Masks, let_through, parts, refusals, window_rows
from .search import Search, check
from .steps import Step

_WINDOW = "windows.sold"


@dataclass(frozen=True)
class MarketSales:
    """Sales of one market at one day, as searches from one home find them. masks_of: the parts that are looked up in the records."""

    columns: Columns
    view: AsOf
    subject: Subject | None
    masks_of: Callable[[Search], Masks]

    def found(self, search: Search) -> Ints:
        """The sales that a search finds, in the order of the records."""
        check(search)
        only = _sales_alone(search)
        rows = window_rows(only, self.columns, self.view)
        return np.sort(let_through(only, self.columns, rows, self.subject, self.masks_of(search)))

    def added(self, search: Search, options: Sequence[Step]) -> list[Ints]:
        """What each step adds to a search, in the order of the records: of a part, those that it alone refuses and that its
        looser self lets through; of the window, those of the days that it gains."""
        refused = refusals(_sales_alone(search), self.columns, self.view, self.subject, self.masks_of(search))
        return [np.sort(self._added(search, step, refused.by_alone)) for step in options]

    def _added(self, search: Search, step: Step, by_alone: Callable[[str], Ints]) -> Ints:
        if step.part == _WINDOW:
            now = search.windows[RecordKind.SOLD].days
            assert now is not None  # a window with days is what this step widens
            rows = window_rows(_sales_alone(step.search), self.columns, self.view)
            rows = rows[self.view.date[rows] < self.view.day - now]
            return let_through(step.search, self.columns, rows, self.subject, self.masks_of(step.search))
        rows = by_alone(step.part)
        looser = parts(step.search, self.columns, self.subject, self.masks_of(step.search)).get(step.part)
        return rows if looser is None else np.asarray(rows[looser(rows)])


def _sales_alone(search: Search) -> Search:
    return replace(search, windows={k: w for k, w in search.windows.items() if k == RecordKind.SOLD})
