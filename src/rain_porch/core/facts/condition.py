"""Condition as a grade: 6 as new to 1 damaged, the published scale C1–C6 turned round so that more is better.

Scale: UAD C1–C6 (definitions from memory). Words that sources use stand between its steps where they say less.
"""

from __future__ import annotations

import re

from ..phrases import phrase
from .words import plain

_WORDS = {
    "new": 6.0, "newconstruction": 6.0, "tobebuilt": 6.0, "underconstruction": 6.0, "veryexcellent": 5.5,
    "likenew": 5.0, "renovated": 5.0, "updatedremodeled": 5.0, "remodeled": 5.0, "excellent": 5.0, "verygood": 4.5,
    "wellkept": 4.0, "good": 4.0, "wellmaintained": 4.0, "abovegood": 4.3, "aboveaverage": 3.5, "average": 3.0,
    "typical": 3.0, "ordinarywear": 3.0, "ordinary": 3.0, "resale": 3.0, "belowaverage": 2.5, "worn": 2.0, "fair": 2.0,
    "needswork": 2.0, "fixer": 1.5, "poor": 1.5, "damaged": 1.0, "verypoor": 1.0, "uninhabitable": 1.0,
}  # fmt: skip
_CODE = re.compile(r"^c([1-6])$")


def grade_of(text: str | None) -> float | None:
    """ "Well kept" → 4.0; "C3" → 4.0; "Above_Average" → 3.5; a word that says nothing → None."""
    word = plain(text or "")
    code = _CODE.match(word)
    return 7.0 - int(code[1]) if code else _WORDS.get(word)


def said(grade: float) -> str:
    """A grade as people read it everywhere, never as a digit: 4.0 → "well kept"; between two words, the better: 3.5 too."""
    return phrase(f"condition-{min(6, max(1, int(grade + 0.5)))}")
