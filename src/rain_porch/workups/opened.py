"""A workup with what it stands on, and what follows from both: its price, computed once however many parts ask for it."""

from __future__ import annotations

from dataclasses import dataclass

import numpy as np

from ..core.grid import Own
from ..core.homes import Subject
from ..core.improvements import returned
from . import changes
from .homes import Home
from .pricing import Decided, Pricing, Setting, candidates, most_alike, price
from .stored import WorkupDoc


@dataclass(frozen=True)
class Opened:
    """document: the text of the state, which names all that is computed from it on one snapshot of the records."""

    workup_id: int
    revision: int
    document: str
    state: WorkupDoc
    home: Home
    subject: Subject
    setting: Setting


def priced(opened: Opened) -> Pricing:
    """Grid and worth of the kept comps, in the order in which they were kept."""
    return opened.setting.records.remember(("price", opened.document), lambda: _priced(opened))


def _priced(opened: Opened) -> Pricing:
    columns, state = opened.setting.columns, opened.state
    rows = [columns.row_of[key] for key in state.kept() if key in columns.row_of]
    found = {c.listing_id: c for c in candidates(opened.setting, np.array(rows, dtype=np.int64))}
    kept = [found[key] for key in state.kept() if key in found]
    decided = Decided(rates=state.rates, cells=state.cells, weights=state.weights, conditions=state.conditions,
                      own=own_lines(state))  # fmt: skip
    return price(opened.setting, kept, decided=decided)


def suggested(opened: Opened) -> list[str]:
    """The most alike sales of the search as it stands: what Rain Porch would keep."""
    return [c.listing_id for c in most_alike(opened.setting, opened.state.search.search())]


def own_lines(state: WorkupDoc) -> list[Own]:
    """Lines of the grid for the home's own features and for what its improvements return."""
    out = [
        Own(
            changes.OWN + f.label,
            f.amount,
            "left to judgement: type an amount" if f.amount is None else "as the agent says",
        )
        for f in state.features
    ]
    if state.improvements:
        year = state.effective_date.year
        parts = [returned(x.improvement(), year) for x in state.improvements]
        out.append(Own("improvements", sum(value for value, _ in parts), "; ".join(words for _, words in parts)))
    return out
