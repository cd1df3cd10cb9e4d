"""How columns agree with each other: list and close price lie together, dates follow one another, what is known together."""

from __future__ import annotations

from collections.abc import Callable, Mapping, Sequence

import numpy as np

from .cells import Profile
from .units import unit_of
from .vocabulary import Target

Numbers = np.ndarray
_Holds = Callable[[Numbers, Numbers], Numbers]


def _ratio(low: float, high: float) -> _Holds:
    return lambda a, b: (b >= low * a) & (b <= high * a)


def _not_more(a: Numbers, b: Numbers) -> Numbers:
    return np.asarray(a <= b * 1.001 + 1e-9)


_NUMBERS_AGREE: tuple[tuple[str, str, _Holds], ...] = (
    ("list_price", "close_price", _ratio(0.55, 1.6)),
    ("original_list_price", "close_price", _ratio(0.45, 1.7)),
    ("list_price", "original_list_price", _ratio(0.6, 1.8)),
    ("bathrooms_full", "part:baths", _not_more),
    ("bathrooms_half", "part:baths", _not_more),
    ("year_built", "year_remodelled", _not_more),
    ("above_grade_finished_area", "living_area", _not_more),
    ("land_value", "total_value", _not_more),
    ("improvement_value", "total_value", _not_more),
    ("days_on_market", "cumulative_days_on_market", _not_more),
    ("tax_annual_amount", "tax_assessed_value", _ratio(4.0, 1e5)),
)
_DATES_FOLLOW: tuple[tuple[str, str], ...] = (
    ("on_market_date", "purchase_contract_date"),
    ("on_market_date", "close_date"),
    ("on_market_date", "off_market_date"),
    ("purchase_contract_date", "close_date"),
    ("sale_date", "recording_date"),
)
_KNOWN_TOGETHER = (("close_price", "close_date"),)
_ENOUGH = 8


def agreement(
    chosen: Mapping[int, int],
    scores: np.ndarray,
    columns: Sequence[Profile],
    targets: Sequence[Target],
    heads: Sequence[str],
) -> tuple[np.ndarray, dict[tuple[int, int], list[float]]]:
    """For each column and target how well they agree with the columns that are chosen for the others, from 0.6 to 1; and
    with what shares of rows."""
    place = {target.name: t for t, target in enumerate(targets)}
    column_of = {t: c for c, t in chosen.items()}
    shares: dict[tuple[int, int], list[float]] = {}

    def judge(c: int, t: int, share: float | None) -> None:
        if share is not None:
            shares.setdefault((c, t), []).append(share)

    for first, second, holds in _NUMBERS_AGREE:
        for a, b, turned in ((first, second, False), (second, first, True)):
            if a in place and b in place and (other := column_of.get(place[b])) is not None:
                for c in np.flatnonzero(scores[:, place[a]] > 0).tolist():
                    if c != other:
                        x = columns[c].numbers * unit_of(heads[c], a, columns[c])
                        y = columns[other].numbers * unit_of(heads[other], b, columns[other])
                        judge(c, place[a], _share(holds, *((y, x) if turned else (x, y))))
    for first, second in _DATES_FOLLOW:
        for a, b, turned in ((first, second, False), (second, first, True)):
            if a in place and b in place and (other := column_of.get(place[b])) is not None:
                for c in np.flatnonzero(scores[:, place[a]] > 0).tolist():
                    if c != other:
                        pair = (columns[other], columns[c]) if turned else (columns[c], columns[other])
                        judge(c, place[a], _follow(*pair))
    for a, b in _KNOWN_TOGETHER:
        for mine, theirs in ((a, b), (b, a)):
            if mine in place and theirs in place and (other := column_of.get(place[theirs])) is not None:
                for c in np.flatnonzero(scores[:, place[mine]] > 0).tolist():
                    if c != other:
                        judge(c, place[mine], _together(columns[c], columns[other]))
    out = np.ones(scores.shape)
    for (c, t), told in shares.items():
        out[c, t] = 0.6 + 0.4 * float(np.mean(told)) if np.mean(told) < 0.9 else 1.0
    return out, shares


def _together(a: Profile, b: Profile) -> float | None:
    """How often both hold something or neither does."""
    both = [bool(x) == bool(y) for x, y in zip(a.cells, b.cells, strict=True)]
    return sum(both) / len(both) if len(both) >= _ENOUGH and not b.empty else None


def _share(holds: _Holds, a: Numbers, b: Numbers) -> float | None:
    known = np.isfinite(a) & np.isfinite(b) & (a != 0) & (b != 0)
    return float(holds(a[known], b[known]).mean()) if known.sum() >= _ENOUGH else None


def _follow(a: Profile, b: Profile) -> float | None:
    pairs = [(x, y) for x, y in zip(a.dates, b.dates, strict=True) if x and y]
    return sum(x <= y for x, y in pairs) / len(pairs) if len(pairs) >= _ENOUGH else None
