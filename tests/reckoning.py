"""Formulas as people read them, worked out again: “61 for sale on Oct 31, 2026 ÷ (142 closings of the last 12 months ÷ 12) = 5.2”."""

from __future__ import annotations

import re

_NO_PART = re.compile(r"[A-Z][a-z]{2} \d{1,2}, \d{4}|the last \d+ months?|within \d+ days?|nearest [\d,]+")
_SIGNS = str.maketrans({"÷": "/", "×": "*", "−": "-", "–": "-"})


def both_sides(formula: str) -> tuple[float, float]:
    """What stands left of the last “=”, reckoned from the figures in it, and the figure to its right."""
    left, _, right = _NO_PART.sub(" ", formula).rpartition("=")
    left = left.translate(_SIGNS).replace(",", "").replace("$", "")
    left = re.sub(r"([\d.]+)\s*%", r"(\1/100)", left)
    terms = re.findall(r"[\d.]*\d|[()/*+-]", re.sub(r"[A-Za-z’']+(?:-[A-Za-z]+)*", " ", left))
    found = re.search(r"([\d,]*\.?\d+)\s*(%?)", right)
    assert terms and found, formula
    value = float(found[1].replace(",", "")) / (100 if found[2] else 1)
    return float(eval("".join(terms), {"__builtins__": {}})), value
