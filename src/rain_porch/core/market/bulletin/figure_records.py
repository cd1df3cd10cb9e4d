"""The records behind a market figure, and what happened in a market since a day."""

from __future__ import annotations

from collections.abc import Callable, Mapping
from dataclasses import dataclass

import numpy as np

from ...errors import BadInput
from ...phrases import phrase
from ..columns import Bools, Columns, Floats, Ints, list_price_at
from ..measures import CLOSING_VALUES, FROM_CLOSINGS, MEASURES, Market, measure_label

Rows = Callable[[Market, int, int], Ints]


def _happened(name: str) -> Rows:
    return lambda m, start, end: m.within(name, start, end)


def _new(m: Market, start: int, end: int) -> Ints:
    rows = m.within("start", start, end)
    return rows[~m.book.back[rows]]


def _back(m: Market, start: int, end: int) -> Ints:
    rows = m.within("start", start, end)
    return np.concatenate([rows[m.book.back[rows]], m.within("returned", start, end)])


def _for_sale(m: Market, start: int, end: int) -> Ints:
    return m.on_market_at(end)


def _under_contract(m: Market, start: int, end: int) -> Ints:
    standing = np.zeros(len(m.columns), dtype=np.int64)
    np.add.at(standing, m.dated("under").rows[: m.until("under", end)], 1)
    np.add.at(standing, m.dated("gone").rows[: m.until("gone", end)], -1)
    return np.flatnonzero(standing > 0)


def _ended(m: Market, start: int, end: int) -> Ints:
    return np.concatenate([m.within("close", start, end), m.within("off", start, end)])


_BEHIND: Mapping[str, Rows] = {
    "new_listings": _new, "back_on_market": _back, "contracts": _happened("contract"), "failed": _happened("off"),
    "failed_for_sale": _happened("off_sale"), "failed_under_contract": _happened("off_signed"),
    "put_on_hold": _happened("held"), "for_sale": _for_sale, "under_contract": _under_contract,
    "mean_list_price": _for_sale, "median_list_price": _for_sale, "months_of_supply": _for_sale,
    "share_with_price_cut": _for_sale, "share_that_sells": _ended,
}  # fmt: skip


def records_behind(market: Market, measure: str, start: int, end: int) -> Ints:
    """Rows from which a measure of the days [start, end] was made, each once; closings for all that is not counted else.

    Months of supply stand on the homes for sale at the end; the pace they are divided by is the closings' own measure.
    """
    if measure not in MEASURES:
        raise BadInput("measure", f"“{measure}” is no measure: use one of {', '.join(MEASURES)}.")
    rows = _BEHIND.get(measure, _happened("close"))(market, start, min(end, market.through))
    return np.asarray(list(dict.fromkeys(rows.tolist())), dtype=np.int64)


def values_behind(market: Market, measure: str, start: int, end: int) -> tuple[Ints, Floats]:
    """Rows behind a mean or median with what it is taken of, both (n,): dollars, days or shares of 1; what is unknown is left
    out. Raises BadInput for a measure that is no mean and no median."""
    rows = records_behind(market, measure, start, end)
    if measure in FROM_CLOSINGS:
        values = CLOSING_VALUES[measure.removeprefix("mean_").removeprefix("median_")](market, rows)
    elif measure in ("mean_list_price", "median_list_price"):
        values = list_price_at(market.columns, rows, min(end, market.through))
    else:
        raise BadInput(
            "measure",
            f"{measure_label(measure, market.columns.rules)} is no mean and no median: no spread of values lies behind it.",
        )
    known = np.isfinite(values)
    return rows[known], values[known]


@dataclass(frozen=True)
class Event:
    """Something that happened to a listing: what is one of KINDS; old and new are list prices where the price changed."""

    day: int
    what: str
    row: int
    old: float | None = None
    new: float | None = None


KINDS = ("new", "back", "price_up", "price_down", "contract", "closed", "failed", "held")


def event_label(what: str) -> str:
    """What happened, as a label: "Back on the market"."""
    return phrase(f"event-{what}")


def rows_touched(columns: Columns, since: int) -> Ints:
    """Rows to which anything may have happened on a day from `since` on: few of many, to be looked at closer."""
    touched = np.zeros(len(columns), dtype=np.bool_)
    for days in (columns.on_market, columns.contract, columns.close, columns.off_market):
        touched |= days >= since
    for told in (columns.changes, columns.statuses):
        touched[told.rows[told.days >= since]] = True
    return np.flatnonzero(touched)


def changed_since(market: Market, since: int) -> list[Event]:
    """All that happened in a market from a day to the newest day, newest first."""
    out: list[Event] = []
    through = market.through

    def add(what: str, name: str, keep: Callable[[Ints], Bools] | None = None) -> None:
        held = market.dated(name)
        rows, days = held.within(since, through), held.days()[held.until(since - 1) : held.until(through)]
        keeps = np.ones(rows.size, dtype=np.bool_) if keep is None else keep(rows)
        out.extend(Event(int(d), what, int(r)) for r, d in zip(rows[keeps], days[keeps], strict=True))

    add("new", "start", lambda rows: ~market.book.back[rows])
    add("back", "start", lambda rows: market.book.back[rows])
    add("back", "returned")
    add("contract", "signed")
    add("closed", "close")
    add("failed", "off")
    add("held", "held")
    out += _price_changes(market, since)
    return sorted(out, key=lambda e: (-e.day, e.what, e.row))


def _price_changes(market: Market, since: int) -> list[Event]:
    changes = market.columns.changes
    if not changes.rows.size:
        return []
    new = np.append(changes.old[1:], np.nan)  # what the next change of the same listing began with, else its price now
    last = np.append(np.diff(changes.rows) != 0, True)
    new[last] = market.columns.numbers["list_price"][changes.rows[last]]
    inside = (changes.days >= since) & (changes.days <= market.through) & market.chosen[changes.rows]
    inside &= np.isfinite(new) & (new != changes.old)
    return [
        Event(day, "price_up" if to > old else "price_down", row, old, to)
        for day, row, old, to in zip(
            *(x[inside].tolist() for x in (changes.days, changes.rows, changes.old, new)), strict=True
        )
    ]
