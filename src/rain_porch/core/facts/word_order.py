"""The order of a field's words, from least to most, where plain English tells it: what an office has said of its words comes first.

The ladders are plain English and the scales of tax rolls and builders: quality and extent. Letters are left alone: a
zone A is no grade.
"""

from __future__ import annotations

from collections.abc import Iterable

from .words import plain

_LADDERS = (
    ("very poor", "poor", "fair", "below average", "average typical standard ordinary normal", "above average", "good", "very good", "excellent",
     "very excellent"),
    ("none no", "minimal minimum slight low small partial", "moderate medium some", "high large full severe major"),
)  # fmt: skip
_TWO_WORDS = ("very", "below", "above")
LEAST_WORDS, LEAST_SHARE = 3, 0.98  # that differ in rank; share of a field's records that stand on one ladder


def _words_of(rung: str) -> list[str]:
    return [plain(rung)] if rung.split()[0] in _TWO_WORDS else rung.split()


_RUNG = {
    word: (ladder, rung)
    for ladder, rungs in enumerate(_LADDERS)
    for rung, words in enumerate(rungs)
    for word in _words_of(words)
}


def order_told(counted: Iterable[tuple[str, int]]) -> tuple[str, ...]:
    """The words of a field, each with how many records bear it, from least to most; none where they stand on no one ladder.

    Good 90, Fair 20, Typical 300 → Fair, Typical, Good.
    """
    words = [(word, n, _RUNG.get(plain(word))) for word, n in counted if n]
    every = sum(n for _, n, _ in words)
    best: list[tuple[int, str]] = []
    for ladder in range(len(_LADDERS)):
        on = [(at[1], word, n) for word, n, at in words if at is not None and at[0] == ladder]
        if len({rung for rung, _, _ in on}) >= LEAST_WORDS and sum(n for *_, n in on) >= LEAST_SHARE * every:
            best = [(rung, word) for rung, word, _ in on]
    return tuple(word for _, word in sorted(best))
