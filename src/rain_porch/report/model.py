"""What the pages are made from: one workup frozen as plain data."""

from __future__ import annotations

import datetime as dt
from collections.abc import Mapping, Sequence
from dataclasses import dataclass, field
from typing import Any

from ..core.fields import PRIVATE
from ..core.money import dollars, half_up


@dataclass(frozen=True)
class Paper:
    """What the agent wants on paper. price: shown, hidden, or blank (a ruled line to be filled in by hand)."""

    pages: Sequence[str] = ("summary", "comps", "grid")
    price: str = "shown"
    formulas: bool = True
    pictures: bool = True
    ways_left_out: Sequence[str] = ()
    title: str = ""
    letter: str = ""
    market_letter: int | None = None


@dataclass(frozen=True)
class ReportInput:
    """A workup as its pages need it. subject, price, comps and around are the JSON documents of the same names.

    pictures: SVG by listing number, the subject's under "". past: what happened to the home. asking: the ask at the list
    price. sheets: net proceeds by scenario, lines of (label, amount). market: months of the place and kind.
    """

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
    paper: Paper = field(default_factory=Paper)
    agent: Mapping[str, str] = field(default_factory=dict)  # name, licence, contact
    pictures: Mapping[str, str] = field(default_factory=dict)
    past: Sequence[Mapping[str, Any]] = ()
    asking: Mapping[str, Any] | None = None
    recommendation: str = ""
    sheets: Sequence[Sequence[tuple[str, str]]] = ()
    market: Mapping[str, Any] | None = None
    market_place: str = ""
    market_letter: Sequence[dict[str, Any]] = ()  # pages of the letter that goes with the report

    def ways(self) -> list[list[str]]:
        """Label, formula and value of each way to the number that the client is to see; none where the price is not shown."""
        if self.paper.price != "shown":
            return []
        return [
            [m["label"], m["formula"] if self.paper.formulas else "", dollars(half_up(m["value"], 100))]
            for m in self.price["methods"]
            if m["name"] not in self.paper.ways_left_out
        ]

    def __post_init__(self) -> None:
        """No private field may ever come this far."""
        for record in (self.subject, *self.comps, *self.around):
            leaked = PRIVATE & set(record.get("facts", {}))
            if leaked:
                raise ValueError(f"private fields in a report: {sorted(leaked)}")
