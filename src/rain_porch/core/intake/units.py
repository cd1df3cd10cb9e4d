"""What a column's numbers are to be multiplied by: acres or square metres to square feet, thousands to dollars."""

from __future__ import annotations

import numpy as np

from ..facts.fields import BY_NAME
from ..facts.sizes import SQFT_PER_ACRE, SQFT_PER_SQUARE_METRE
from .cells import Profile
from .heads import words_of


def unit_of(head: str, target: str, profile: Profile) -> float:
    """What the numbers are to be multiplied by: acres or square metres to square feet, thousands to dollars."""
    words = set(words_of(head))
    low = head.lower()
    if target in (
        "lot_size_square_feet",
        "living_area",
        "above_grade_finished_area",
        "below_grade_finished_area",
        "part:acres",
    ):
        if "sqm" in words:
            return SQFT_PER_SQUARE_METRE / (SQFT_PER_ACRE if target == "part:acres" else 1.0)
        if target == "lot_size_square_feet" and ("acres" in words or _looks_like_acres(words, profile)):
            return SQFT_PER_ACRE
        return 1.0
    f = BY_NAME.get(target)
    money = f is not None and f.unit == "$" and (f.low or 0) >= 200
    if money or target in ("price", "land_value", "improvement_value", "total_value"):
        said = "000" in low or "thousand" in low or low.rstrip(")").endswith("$k") or "($k" in low
        if said and np.isfinite(profile.middle) and profile.middle < 20_000:
            return 1000.0
    return 1.0


def _looks_like_acres(words: set[str], profile: Profile) -> bool:
    """A lot's size with no unit said, whose numbers are those of acres: small, with decimals."""
    return not words & {"sqft", "feet"} and not profile.empty and profile.middle < 60 and profile.whole < 0.6
