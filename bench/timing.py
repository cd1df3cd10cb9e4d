"""Timing, and a table of what was measured."""

from __future__ import annotations

import time
from collections.abc import Callable, Sequence
from dataclasses import asdict, dataclass

import numpy as np


@dataclass(frozen=True)
class Result:
    """One measured thing. Times in milliseconds; budget in the same unit; peer times None where no peer fits."""

    name: str
    on: str
    median: float
    p95: float
    budget: float | None
    peer: str = ""
    peer_median: float | None = None
    unit: str = "ms"
    at_most_peer: bool = False
    note: str = ""

    @property
    def ratio(self) -> float | None:
        return None if not self.peer_median else self.median / self.peer_median

    @property
    def holds(self) -> bool | None:
        if self.budget is None:
            return None
        ok = self.p95 >= self.budget if self.unit.endswith("/s") else self.p95 <= self.budget
        return ok and not (self.at_most_peer and self.ratio is not None and self.ratio > 1)

    def as_json(self) -> dict[str, object]:
        return {**asdict(self), "ratio": self.ratio, "holds": self.holds}


def times(calls: Sequence[Callable[[], object]], warm: int = 3) -> tuple[float, float]:
    """(median, 95th percentile) in ms of calling each once, after calling the first few to warm up."""
    for call in calls[:warm]:
        call()
    took = []
    for call in calls:
        start = time.perf_counter()
        call()
        took.append((time.perf_counter() - start) * 1000)
    return spread(took)


def spread(took: Sequence[float]) -> tuple[float, float]:
    """(median, 95th percentile)"""
    return float(np.median(took)), float(np.percentile(took, 95))


def table(results: Sequence[Result]) -> str:
    rows = [("what", "on", "median", "p95", "budget", "peer", "peer median", "ratio", "holds", "note")]
    for r in results:
        rows.append(
            (
                r.name,
                r.on,
                f"{r.median:,.1f}",
                f"{r.p95:,.1f} {r.unit}",
                "" if r.budget is None else f"{r.budget:,g}",
                r.peer,
                "" if r.peer_median is None else f"{r.peer_median:,.1f}",
                "" if r.ratio is None else f"{r.ratio:.2f}",
                {None: "—", True: "yes", False: "NO"}[r.holds],
                r.note,
            )
        )
    widths = [max(len(row[i]) for row in rows) for i in range(len(rows[0]))]
    return "\n".join("  ".join(cell.ljust(w) for cell, w in zip(row, widths, strict=True)) for row in rows)
