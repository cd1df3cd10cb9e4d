"""How it goes with the home while it is for sale: its days and its price, what came and went around it, the chance now."""

from __future__ import annotations

from typing import Any

import numpy as np

from ...core.facts.dates import date_of, day_of
from ...core.market.columns import FOR_SALE
from ...core.market.listing_facts import days_on_market
from ...core.price.chances.list_price import WITHIN_DAYS
from ...core.price.chances.still_unsold import chance_after
from ..market.closer_looks import told_of
from ..pricing.ask import asked_as_data, asking
from ..pricing.opened import Opened, priced, rival_rows
from .since import events_since

NEXT_DAYS = 30
MOST_TOLD = 14  # things that happened, on paper


def while_for_sale(opened: Opened) -> dict[str, Any] | None:
    """Of the home's own listing that is for sale on the effective date; None where it is not for sale then.

    since; days; list_price and first_price; steps: (day, before, after) of its price; counts and told: what happened to homes that
    the search looks at since it came on, without what was set aside; chance: of a contract in the next 30 days at its price, after the days that it has been for sale; None where that is not known.
    """
    point = opened.standpoint
    columns, home = point.columns, opened.subject.home_id
    if home is None:
        return None
    rows = columns.rows_of_home(home)
    rows = rows[point.view.kind[rows] == FOR_SALE]
    if not rows.size:
        return None
    row = int(rows[np.argmax(columns.on_market[rows])])
    price, began = float(point.view.list_price[row]), int(columns.on_market[row])
    steps = _steps(opened, row, price)
    through = opened.state.effective_date
    _, _, events = events_since(opened, date_of(began))
    aside = {key for key, made in opened.state.decisions.items() if made.choice == "set_aside"}
    left = [
        e for e in events
        if began <= e.day <= day_of(through) and e.row != row and str(columns.keys[e.row]) not in aside
    ]  # fmt: skip
    told = told_of(point.records, date_of(began), left, through)
    days = int(days_on_market(columns, point.view, np.array([row]))[0])
    ask = asking(point, priced(opened), opened.state.search.search(), rival_rows(opened), price)
    here = next((p for p in ask.prices if p.price == price), None)
    return {
        "listing_id": str(columns.keys[row]),
        "since": date_of(began).isoformat(),
        "days": days,
        "list_price": price,
        "first_price": steps[0][1] if steps else price,
        "steps": steps,
        "counts": told.counts,
        "labels": told.labels,
        "told": [c.model_dump(mode="json") for c in told.changes[:MOST_TOLD]],
        "happened": len(told.changes),
        "chance": None
        if not here or not here.chances
        else chance_after([(d, c.pct / 100) for d, c in zip(WITHIN_DAYS, here.chances, strict=True)], days, NEXT_DAYS),
        "asking": asked_as_data(ask),
    }


def _steps(opened: Opened, row: int, now: float) -> list[tuple[str, float, float]]:
    """Changes of its price up to the effective date, (day, before, after), the first first."""
    changes, last = opened.standpoint.columns.changes, day_of(opened.state.effective_date)
    at = np.flatnonzero((changes.rows == row) & (changes.days <= last))
    days, old = changes.days[at].tolist(), changes.old[at].tolist()
    return [(date_of(d).isoformat(), o, n) for d, o, n in zip(days, old, [*old, now][1:], strict=True)]
