"""How alike a candidate is to the subject, 0 to 100, with its parts.

A weighted mean of per-feature likenesses, each 1 at equality and falling smoothly to 0 at the field's tolerance
(the catalogue's `tolerance` and `weight`). A feature unknown on either side is left out and its weight shared
among the rest. Every physical part depends on the absolute difference alone, so that part is symmetric.
"""

from __future__ import annotations

from collections.abc import Mapping
from dataclasses import dataclass

import numpy as np

from ..facts.dates import NO_DAY
from ..facts.fields import CATALOGUE, Field
from ..facts.homes import Subject
from ..facts.house_rules import USUAL, HouseRules, tolerance_of
from ..market.columns import Columns, Days, Floats, Ints


@dataclass(frozen=True)
class Likeness:
    """score: 0–100, shape (n,). known: share of the weight that was known, shape (n,). parts: 0–1 by feature, NaN where
    unknown; weights: of the parts."""

    score: Floats
    known: Floats
    parts: Mapping[str, Floats]
    weights: Mapping[str, float]


def falling(gap: Floats, tolerance: float) -> Floats:
    """(1 − (gap ÷ tolerance)²)², 0 beyond the tolerance: 1 at no gap, smooth everywhere."""
    near = np.clip(1 - (gap / tolerance) ** 2, 0, None)
    return np.asarray(near**2)


def feature_likeness(f: Field, mine: float | str, columns: Columns, rows: Ints, tolerance: float) -> Floats:
    """Likeness of one field, shape (len(rows),); NaN where the candidate's value is unknown."""
    if f.numeric:
        theirs = columns.numbers[f.name][rows]
        value = float(mine)
        if f.relative:
            ok = (theirs > 0) & (value > 0)
            gap = np.abs(np.log(np.where(ok, theirs, 1.0) / (value if value > 0 else 1.0)))
            return np.where(ok, falling(gap, tolerance), np.nan)
        return falling(np.abs(theirs - value), tolerance)
    word = columns.words[f.name]
    same = word.mask(frozenset({str(mine).casefold()}), rows).astype(np.float64)
    return np.where(word.codes[rows] < 0, np.nan, same)


def likeness(
    subject: Subject, columns: Columns, rows: Ints, distance: Floats, days_since: Floats, rules: HouseRules = USUAL
) -> Likeness:
    """Likeness of the candidates in `rows` to the subject.

    distance: miles, shape (n,). days_since: days from each record's date to the effective day, NaN if unknown.
    """
    parts: dict[str, Floats] = {
        "distance": falling(distance, rules["likeness.distance.tolerance"]),
        "days_since": falling(np.clip(days_since, 0, None), rules["likeness.days.tolerance"]),
    }
    weights = {"distance": rules["likeness.distance.weight"], "days_since": rules["likeness.days.weight"]}
    for f in CATALOGUE:
        if not f.weight or not (f.name in columns.numbers or f.name in columns.words):
            continue
        mine = subject.facts.get(f.name) if f.stored else subject.number(f.name)
        if mine is not None:
            parts[f.name] = feature_likeness(f, mine, columns, rows, tolerance_of(f, rules))
            weights[f.name] = rules[f"likeness.{f.name}.weight"]
    total = np.zeros(len(rows))
    known = np.zeros(len(rows))
    for name, part in parts.items():
        there = np.isfinite(part)
        total += np.where(there, part, 0) * weights[name]
        known += there * weights[name]
    everything = sum(weights.values()) or 1.0
    score = np.where(known > 0, 100 * total / np.where(known > 0, known, 1), 0.0)
    return Likeness(score, known / everything, parts, weights)


def days_since(columns_date: Days, day: int) -> Floats:
    """Days from each date to `day`; NaN where the date is unknown."""
    return np.where(columns_date == NO_DAY, np.nan, day - columns_date.astype(np.float64))
