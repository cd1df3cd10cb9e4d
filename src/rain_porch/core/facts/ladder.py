"""Words with an order, as steps: a field whose words stand on one ladder can be reckoned with like a number.

The ladders are plain English and the scales of tax rolls and builders: quality, extent, letter grades.
"""

from __future__ import annotations

from collections.abc import Iterable, Mapping

from .words import plain

LADDERS: Mapping[str, tuple[tuple[str, ...], ...]] = {
    "quality": (
        ("very poor",), ("poor",), ("fair",), ("below average",), ("average", "typical", "standard", "ordinary", "normal"), ("above average",),
        ("good",), ("very good",), ("excellent",), ("very excellent",),
    ),
    "extent": (
        ("none", "no"), ("minimal", "minimum", "slight", "low", "small", "partial"), ("moderate", "medium", "some"),
        ("high", "large", "full", "severe", "major"),
    ),
    "letters": (("f", "e"), ("d",), ("c",), ("b",), ("a",)),
}  # fmt: skip
_WHERE = {
    plain(word): (name, step) for name, rungs in LADDERS.items() for step, rung in enumerate(rungs, 1) for word in rung
}
LEAST_STEPS, LEAST_SHARE = (
    3,
    0.98,
)  # different steps that a field has, and the share of its records that stand on one ladder


def step_of(word: str | None) -> float | None:
    """ "Above_Average" → 6.0 of ten; None for a word that is on no ladder."""
    found = _WHERE.get(plain(word or ""))
    return None if found is None else float(found[1])


def word_of(steps: float, like: str | None) -> str:
    """The first word of a step on the ladder on which `like` stands, else its number."""
    name = (_WHERE.get(plain(like or "")) or ("", 0))[0]
    rungs = LADDERS.get(name, ())
    at = round(steps)
    return rungs[at - 1][0] if 1 <= at <= len(rungs) else f"{steps:g}"


def on_a_ladder(counted: Iterable[tuple[str, int]]) -> bool:
    """Whether words, each with how many records bear it, stand on one ladder and differ by at least three steps' worth of words."""
    by_ladder: dict[str, dict[int, int]] = {}
    every = 0
    for word, n in counted:
        every += n
        if n and (found := _WHERE.get(plain(word))):
            rungs = by_ladder.setdefault(found[0], {})
            rungs[found[1]] = rungs.get(found[1], 0) + n
    best = max(by_ladder.values(), key=lambda rungs: sum(rungs.values()), default={})
    return len(best) >= LEAST_STEPS and sum(best.values()) >= LEAST_SHARE * every
