"""What stands in a column: how many of its cells are numbers, dates, addresses, known words, and between which values."""

from __future__ import annotations

from collections import Counter
from collections.abc import Callable, Sequence
from functools import cached_property

import numpy as np

from .cell_forms import COMPACT, EMPTY, LEADING, MONTH, SERIAL, date_of, number_of

LOOKED_AT = 500  # cells


class Profile:
    """One column's first cells. Shares are of the cells that hold something."""

    def __init__(self, cells: Sequence[str]) -> None:
        self.cells = [c.strip() for c in cells[:LOOKED_AT]]
        self.known = [c for c in self.cells if c.lower() not in EMPTY]
        self.counts = Counter(self.known)

    @property
    def empty(self) -> bool:
        return not self.known

    @cached_property
    def filled(self) -> float:
        return len(self.known) / max(1, len(self.cells))

    def share(self, good: Callable[[str], object]) -> float:
        return sum(n for text, n in self.counts.items() if good(text)) / max(1, len(self.known))

    @cached_property
    def numbers(self) -> np.ndarray:
        """The cells that are numbers, NaN for the others, in the order of `cells`."""
        read = {c: number_of(c) for c in self.counts}
        return np.array([np.nan if (v := read.get(c)) is None else v for c in self.cells], dtype=np.float64)

    @cached_property
    def dates(self) -> list[str | None]:
        read = {c: date_of(c) for c in self.counts}
        return [read.get(c) for c in self.cells]

    @cached_property
    def numeric(self) -> float:
        return float(np.isfinite(self.numbers).sum() / max(1, len(self.known)))

    @cached_property
    def middle(self) -> float:
        known = self.numbers[np.isfinite(self.numbers)]
        return float(np.median(known)) if len(known) else float("nan")

    @cached_property
    def whole(self) -> float:
        known = self.numbers[np.isfinite(self.numbers)]
        return float((known == np.floor(known)).mean()) if len(known) else 0.0

    @cached_property
    def lettered(self) -> float:
        return self.share(lambda c: any(x.isalpha() for x in c))

    @cached_property
    def dated(self) -> float:
        if self.numeric > 0.9 and not self.share(lambda c: len(c) == 8 and c[:2] in ("19", "20")) > 0.9:
            return (
                self.share(lambda c: COMPACT.match(c) or SERIAL.match(c))
                if self.share(SERIAL.match) > 0.95 or self.share(COMPACT.match) > 0.95
                else 0.0
            )
        return self.share(lambda c: date_of(c) is not None or MONTH.match(c))

    @cached_property
    def marked(self) -> bool:
        """Whether numbers come with signs of money."""
        return self.share(lambda c: "$" in c) > 0.5

    @cached_property
    def distinct(self) -> float:
        return len(self.counts) / max(1, len(self.known))

    @cached_property
    def length(self) -> float:
        return sum(len(c) * n for c, n in self.counts.items()) / max(1, len(self.known))

    def within(self, low: float, high: float) -> float:
        """The share of cells that begin with a number from low to high."""
        ok = 0
        for text, n in self.counts.items():
            value = number_of(text)
            if value is None and (found := LEADING.match(text)):
                value = number_of(found[1])
            ok += n if value is not None and low <= value <= high else 0
        return ok / max(1, len(self.known))


def profiles_of(columns: int, rows: Sequence[Sequence[str]]) -> list[Profile]:
    """The columns of a table's first rows; cells that are not there are empty."""
    return [Profile([row[i] if i < len(row) else "" for row in rows]) for i in range(columns)]
