"""Time against price: what became of homes that were first offered at such a distance from their worth.

Position of a listing = first list price ÷ its worth as it could be known on that day (worth_then.py). Time to a contract is
estimated with the unsold counted as censored (Kaplan–Meier). What would become of one home at a price is another question:
contract_chance.py.
"""

from __future__ import annotations

from collections.abc import Sequence
from dataclasses import dataclass

import numpy as np

from ...facts.dates import NO_DAY
from ...market.columns import FAILED, SOLD, UNDER_CONTRACT, AsOf, Bools, Columns, Floats, Ints
from ...phrases import phrase

GROUPS = (0.95, 1.00, 1.05, 1.10)
WITHIN_DAYS = (14, 30, 60, 90)
ENOUGH = 8
SEARCH_STEP = 25_000


@dataclass(frozen=True)
class Curve:
    """S(t), the share still unsold after t days: steps at `days`, (k,), each with the share left after it."""

    days: Floats
    left: Floats
    n: int

    def still_unsold(self, day: float) -> float:
        """S(day): 1 before the first contract."""
        at = int(np.searchsorted(self.days, day, side="right"))
        return 1.0 if at == 0 else float(self.left[at - 1])


def kaplan_meier(durations: Floats, ended: Bools) -> Curve:
    """S(t) = Π over contract days tᵢ ≤ t of (1 − dᵢ ÷ nᵢ): dᵢ contracts on that day, nᵢ homes still on the market.

    durations: days on the market, (n,). ended: whether they ended in a contract; others are censored, and at a tie stay
    at risk. The 6-MP group of Freireich et al. 1963 (from memory): S(6) 0.857, S(10) 0.753, S(23) 0.448.
    """
    order = np.argsort(durations, kind="stable")
    t, event = durations[order], ended[order]
    days = np.unique(t[event])
    at_risk = len(t) - np.searchsorted(t, days, side="left")
    deaths = np.array([int((event & (t == day)).sum()) for day in days])
    return Curve(days.astype(np.float64), np.cumprod(1 - deaths / np.maximum(at_risk, 1)).astype(np.float64), len(t))


@dataclass(frozen=True)
class Group:
    """Listings first offered from `low` to `high` times their worth: chance of a contract within 14, 30, 60, 90 days,
    median share of the list price that the sold ones got, share that failed. None below 8 listings."""

    low: float | None
    high: float | None
    n: int
    sold: int
    chances: tuple[float, ...] | None
    share_of_list: float | None
    failed: float | None
    curve: Curve | None


@dataclass(frozen=True)
class Outcomes:
    """What became of listings: position, days on the market, whether a contract came, whether it failed, share got."""

    position: Floats
    days: Floats
    contract: Bools
    failed: Bools
    share: Floats

    def where(self, chosen: Bools) -> Outcomes:
        """Some of the listings."""
        return Outcomes(
            self.position[chosen], self.days[chosen], self.contract[chosen], self.failed[chosen], self.share[chosen]
        )


def courses(columns: Columns, view: AsOf, rows: Ints) -> tuple[Floats, Ints, Ints, Bools, Bools]:
    """(first list price, first day, last day looked at, whether a contract ended it, whether it failed) of listings, (n,) each,
    as they stood on the view's day."""
    start = columns.on_market[rows].astype(np.int64)
    first = columns.numbers["original_list_price"][rows]
    first = np.where(np.isfinite(first), first, columns.numbers["list_price"][rows])
    kind = view.kind[rows]
    contract_day = columns.contract[rows]
    signed = np.isin(kind, (SOLD, UNDER_CONTRACT)) & (contract_day != NO_DAY) & (contract_day <= view.day)
    gone = (kind == FAILED) & (columns.off_market[rows] != NO_DAY)
    end = np.where(signed, contract_day, np.where(gone, columns.off_market[rows], view.day)).astype(np.int64)
    return first, start, end, signed, gone


def usable(columns: Columns, view: AsOf, rows: Ints) -> Bools:
    """Listings whose time is told, (n,): a closing or a contract without its day tells none."""
    first, start, end, signed, _ = courses(columns, view, rows)
    blind = np.isin(view.kind[rows], (SOLD, UNDER_CONTRACT)) & ~signed
    return np.asarray((start != NO_DAY) & (start <= view.day) & (end >= start) & (first > 0) & ~blind)


def outcomes(columns: Columns, view: AsOf, rows: Ints, worth: Floats) -> Outcomes:
    """The listings in `rows` as they stood on the view's day; `worth`: of each on the day it came on the market, (n,)."""
    first, start, end, signed, gone = courses(columns, view, rows)
    good = usable(columns, view, rows) & (worth > 0)
    share = columns.numbers["close_price"][rows] / view.list_price[rows]
    share = np.where(view.kind[rows] == SOLD, share, np.nan)
    position = np.where(good, first / np.where(worth > 0, worth, 1.0), np.nan)
    return Outcomes(position, (end - start).astype(np.float64), signed, gone, share).where(good)


def group_of(all_listings: Outcomes, low: float | None, high: float | None) -> Group:
    """One group by position, (low, high]."""
    chosen = np.ones(len(all_listings.position), dtype=np.bool_)
    if low is not None:
        chosen &= all_listings.position > low
    if high is not None:
        chosen &= all_listings.position <= high
    x = all_listings.where(chosen)
    n, sold = len(x.position), int(np.isfinite(x.share).sum())
    if n < ENOUGH:
        return Group(low, high, n, sold, None, None, None, None)
    curve = kaplan_meier(x.days, x.contract)
    known = x.share[np.isfinite(x.share)]
    over = x.contract | x.failed
    return Group(
        low, high, n, sold, tuple(1 - curve.still_unsold(d) for d in WITHIN_DAYS),
        float(np.median(known)) if known.size >= ENOUGH else None,
        float(x.failed[over].mean()) if over.sum() >= ENOUGH else None, curve,
    )  # fmt: skip


def by_position(all_listings: Outcomes) -> list[Group]:
    """Groups up to 0.95, to 1.00, to 1.05, to 1.10, and above."""
    edges: list[float | None] = [None, *GROUPS, None]
    return [group_of(all_listings, edges[i], edges[i + 1]) for i in range(len(edges) - 1)]


def thresholds(low: float, high: float) -> list[float]:
    """The round prices at which buyers' searches cut off, each 25,000, between two prices."""
    first = int(np.ceil(low / SEARCH_STEP))
    return [n * SEARCH_STEP for n in range(first, int(high // SEARCH_STEP) + 1)]


def against(price: float, named: Sequence[tuple[str, float]]) -> list[str]:
    """How a price stands against others, each base named: "7.0 % above the highest sold"."""
    out = []
    for name, base in named:
        pct = 100 * (price / base - 1)
        side = "above" if pct > 0.05 else "below" if pct < -0.05 else "equal"
        out.append(phrase(f"price-stands-{side}", pct=f"{abs(pct):.1f}", of=name))
    return out
