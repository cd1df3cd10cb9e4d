"""What came of homes that were priced: offered at, lost, sold at; and how near the prices came.

Worth told 409,000, sold for 418,000: 409 ÷ 418 − 1 = −2.2 %. Over several, the middle of |told ÷ sold − 1|, and the middle of
told ÷ sold − 1 with its sign; the same of the list price that was named. No fewer than three sales are told of.
"""

from __future__ import annotations

from collections.abc import Sequence
from dataclasses import dataclass

import numpy as np

from ..facts.dates import NO_DAY
from ..facts.homes import Subject
from ..market.columns import HOME_KINDS, RECORD_KINDS, SOLD, AsOf, Columns, Ints
from ..market.own_sale import sales_of_the_thing

ENOUGH, LATEST = 3, 20


@dataclass(frozen=True)
class Came:
    """What became of a home after a day. listed: the day it came on, first_list: for how much at first; kind: of its newest listing
    since; sold: the day the price was closed, price: what was paid. NO_DAY and None where nothing of the kind happened."""

    listed: int = NO_DAY
    first_list: float | None = None
    last_list: float | None = None
    kind: str = ""
    sold: int = NO_DAY
    price: float | None = None


def came_of(columns: Columns, view: AsOf, subject: Subject, after: int) -> Came | None:
    """What the records tell of a home after a day, as they are known in a view; None where they tell nothing."""
    if subject.home_id is None:
        return None
    rows = columns.rows_of_home(subject.home_id)
    rows = rows[(columns.home_kind[rows] == HOME_KINDS.index(subject.home_kind)) & ~columns.lease[rows]]
    came = _sale(columns, view, rows, subject, after)
    since = rows[~columns.deed[rows] & (columns.on_market[rows] > after) & (columns.on_market[rows] <= view.day)]
    if not since.size:
        return came
    since = since[np.argsort(columns.on_market[since], kind="stable")]
    first, last = int(since[0]), int(since[-1])
    at_first = float(columns.numbers["original_list_price"][first])
    return Came(
        int(columns.on_market[first]),
        at_first if np.isfinite(at_first) else _known(view.list_price[first]),
        _known(view.list_price[last]),
        RECORD_KINDS[int(view.kind[last])].value if view.kind[last] >= 0 else "",
        came.sold if came else NO_DAY,
        came.price if came else None,
    )


def _sale(columns: Columns, view: AsOf, rows: Ints, subject: Subject, after: int) -> Came | None:
    """The first sale of the home at arm's length that closed after a day, and was agreed after it where that is known."""
    sold = rows[sales_of_the_thing(columns, view, rows, subject.number("year_built"))]
    agreed = np.where(columns.contract[sold] == NO_DAY, columns.close[sold], columns.contract[sold])
    sold = sold[(columns.close[sold] > after) & (agreed > after)]
    if not sold.size:
        return None
    row = int(sold[np.argmin(columns.close[sold])])
    return Came(kind=RECORD_KINDS[SOLD].value, sold=int(columns.close[row]), price=float(view.price[row]))


def _known(x: float) -> float | None:
    return float(x) if np.isfinite(x) else None


@dataclass(frozen=True)
class TrackRecord:
    """n: homes that sold. off_pct: middle of the misses of the worth, bias_pct: with their sign; list_pct: of the list prices named,
    listed: of how many."""

    n: int
    off_pct: float
    bias_pct: float
    listed: int
    list_pct: float | None


def track_record(told: Sequence[tuple[float, float | None, float]]) -> TrackRecord | None:
    """(worth told, list price named, price paid) of homes that sold, the newest first; None below three."""
    if len(told) < ENOUGH:
        return None
    worth, paid = np.array([t[0] for t in told[:LATEST]]), np.array([t[2] for t in told[:LATEST]])
    asked = np.array([(t[1] or np.nan) / t[2] - 1 for t in told[:LATEST]])
    named = asked[np.isfinite(asked)]
    return TrackRecord(
        len(worth),
        100 * float(np.median(np.abs(worth / paid - 1))),
        100 * float(np.median(worth / paid - 1)),
        int(named.size),
        100 * float(np.median(named)) if named.size >= ENOUGH else None,
    )


def said_of(record: TrackRecord) -> str:
    """ "Your last 20 that sold: 3.1 % off in the middle, 0.8 % too low; list prices 1.8 % above what was paid." """
    way = "too high" if record.bias_pct > 0 else "too low"
    out = f"Your last {record.n} that sold: {record.off_pct:.1f} % off in the middle"
    out += (
        f", {abs(record.bias_pct):.1f} % {way}" if round(abs(record.bias_pct), 1) else ", as often too high as too low"
    )
    if record.list_pct is not None:
        beside = "above" if record.list_pct > 0 else "below"
        out += f"; list prices {abs(record.list_pct):.1f} % {beside} what was paid"
    return f"{out}."
