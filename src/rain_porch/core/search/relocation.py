"""A search carried from one home to another: its bands lie about the new home as they lay about the old one."""

from __future__ import annotations

from collections.abc import Mapping
from dataclasses import replace

from ..facts.fields import BY_NAME, Field
from ..facts.homes import Subject, Value
from .search import Criterion, Search


def carried(search: Search, was: Mapping[str, Value], was_kind: str, to: Subject) -> tuple[Search, list[str]]:
    """The search for another home, and what could not come along, in words.

    was: the facts of the home it was made for. A band follows the fact it lay about: in proportion where the field is
    compared so (areas, lots), else by the same difference; 1,450–1,950 about 1,700 becomes 1,706–2,294 about 2,000,
    rounded to the field's step. Drawn areas, fences, named areas and parcel numbers belong to their place and stay
    behind.
    """
    left: list[str] = []
    for part, words in (("areas", "named areas"), ("not_areas", "areas left out"), ("shapes", "drawn areas"),
                        ("fences", "fences"), ("parcels", "parcel numbers")):  # fmt: skip
        if getattr(search, part):
            left.append(words)
    criteria = tuple(_carried(c, was, to) for c in search.criteria)
    kinds = (to.home_kind.value,) if search.home_kinds == (was_kind,) else search.home_kinds
    out = replace(search, areas=(), not_areas=(), shapes=(), fences=(), parcels=(), criteria=criteria, home_kinds=kinds)
    return (replace(out, radius_miles=1.0) if left and out.radius_miles is None else out), left


def _carried(c: Criterion, was: Mapping[str, Value], to: Subject) -> Criterion:
    f = BY_NAME.get(c.field)
    old, new = was.get(c.field), to.facts.get(c.field)
    if f is None or (c.low is None and c.high is None):
        if isinstance(old, str) and isinstance(new, str) and c.words == (old,):
            return replace(c, words=(new,))
        return c
    if not isinstance(old, float | int) or not isinstance(new, float | int):
        return c

    def moved(limit: float | None) -> float | None:
        if limit is None:
            return None
        there = limit * new / old if f.relative and old else limit + new - old
        return max(0.0, _stepped(there, f))

    return replace(c, low=moved(c.low), high=moved(c.high))


def _stepped(value: float, f: Field) -> float:
    return round(value / f.step) * f.step if f.step else value
