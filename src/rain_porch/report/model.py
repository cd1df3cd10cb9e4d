"""What the pages are made from: one workup frozen as plain data."""

from __future__ import annotations

import datetime as dt
from collections.abc import Mapping, Sequence
from dataclasses import dataclass
from typing import Any

from ..core.fields import PRIVATE


@dataclass(frozen=True)
class ReportInput:
    """A workup as its pages need it. subject, price, comps and around are the JSON documents of the same names."""

    title: str
    client: str
    made_on: dt.date
    subject: Mapping[str, Any]
    price: Mapping[str, Any]
    comps: Sequence[Mapping[str, Any]]
    around: Sequence[Mapping[str, Any]]
    counts: Mapping[str, int]
    grid: Sequence[Mapping[str, Any]]
    list_price: float | None
    through: dt.date
    base_map: Mapping[str, Any]

    def __post_init__(self) -> None:
        """No private field may ever come this far."""
        for record in (self.subject, *self.comps, *self.around):
            leaked = PRIVATE & set(record.get("facts", {}))
            if leaked:
                raise ValueError(f"private fields in a report: {sorted(leaked)}")
