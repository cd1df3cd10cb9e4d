"""A market split into bands of size, price or age, with round edges that hold about equally many homes each."""

from __future__ import annotations

from dataclasses import dataclass

import numpy as np

from ..errors import BadInput
from ..phrases import phrase
from .columns import Bools, Floats

STEPS = {"living_area": 250.0, "price": 25_000.0, "year_built": 10.0, "lot_size_square_feet": 2_500.0}
MOST = 5


@dataclass(frozen=True)
class Band:
    """low ≤ value < high; None: open on that side."""

    label: str
    low: float | None
    high: float | None

    def holds(self, value: float) -> bool:
        """Whether a known value lies in the band."""
        return (self.low is None or value >= self.low) and (self.high is None or value < self.high)

    def among(self, values: Floats) -> Bools:
        """Which of some values (n,) lie in the band; what is unknown lies in none that has an edge."""
        inside = np.ones(values.shape, dtype=np.bool_)
        if self.low is not None:
            inside &= values >= self.low
        if self.high is not None:
            inside &= values < self.high
        return inside

    def conditions(self, field: str) -> list[str]:
        """The band as conditions on the field; those without it fit neither."""
        known = [f"{field} >= {self.low:g}"] if self.low is not None else []
        return known + ([f"{field} < {self.high:g}"] if self.high is not None else [])


def bands(field: str, values: Floats) -> list[Band]:
    """At most five bands of a field by its values (n,): edges at their quintiles, rounded to the field's step.

    >>> [b.label for b in bands("living_area", np.arange(900.0, 3000.0, 10))]
    ['under 1,250 sq ft', '1,250–1,750 sq ft', '1,750–2,250 sq ft', '2,250–2,500 sq ft', '2,500 sq ft and more']
    """
    if field not in STEPS:
        raise BadInput("split", f"“{field}” is not split into bands: use one of {', '.join(STEPS)}.")
    known = values[np.isfinite(values)]
    if not known.size:
        return []
    cuts = np.percentile(known, np.linspace(0, 100, MOST + 1)[1:-1])
    step = STEPS[field]
    edges = sorted({float(step * round(c / step)) for c in cuts} - {0.0})
    inner: list[tuple[float | None, float | None]] = list(zip([None, *edges], [*edges, None], strict=True))
    return [Band(_label(field, low, high), low, high) for low, high in inner]


def _label(field: str, low: float | None, high: float | None) -> str:
    def shown(v: float) -> str:
        return f"{v:.0f}" if field == "year_built" else phrase(f"band-of-{field}", amount=f"{v:,.0f}")

    if low is None:
        year = field == "year_built"
        return phrase("band-all") if high is None else phrase("band-before" if year else "band-under", high=shown(high))
    if high is None:
        return phrase("band-and-later" if field == "year_built" else "band-and-more", low=shown(low))
    if field == "year_built":
        return f"{shown(low)}–{shown(high - 1)}"
    return f"{low:,.0f}–{shown(high)}"
