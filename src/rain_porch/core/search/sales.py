"""The sales that a search finds, and those that each of its next steps would add, told from one look at the market."""

from __future__ import annotations

from collections.abc import Callable, Sequence
from dataclasses import dataclass, replace

import numpy as np

from ..facts.homes import Subject
from ..facts.words import RecordKind
from ..market.columns import AsOf, Columns, Ints
from .matching import Masks, let_through, refusals, window_rows
from .search import Search, check
from .steps import Step, gained


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
        """What each step adds to a search, in the order of the records."""
        only, masks = _sales_alone(search), self.masks_of(search)
        refused = refusals(only, self.columns, self.view, self.subject, masks)
        return [np.sort(gained(only, step, refused, self.columns, self.view, self.subject, masks)) for step in options]


def _sales_alone(search: Search) -> Search:
    return replace(search, windows={k: w for k, w in search.windows.items() if k == RecordKind.SOLD})
