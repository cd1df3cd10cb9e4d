"""What makes a value suspect: out of all reason, against another date, or outside the county."""

from __future__ import annotations

import datetime as dt
import statistics
from collections.abc import Sequence

from ..core.fields import Field
from .layouts import Layout, Row

FAR_DEGREES = 1.5
TIMES_USUAL = 10.0
ENOUGH = 20
_DATES = ("on_market_date", "purchase_contract_date", "close_date", "off_market_date")
_NEEDED = {"listings": ("close_price", "close_date", "latitude", "longitude"), "transfers": ("price",)}


def out_of_reason(f: Field, values: Sequence[object]) -> list[int]:
    """Positions of values outside what the catalogue believes of the field."""
    low, high = f.low, f.high
    if low is None or high is None:
        return []
    return [n for n, v in enumerate(values) if v is not None and not low <= v <= high]  # type: ignore[operator]


class Checker:
    """Learns what is usual from the first rows of a file, then marks what is not.

    needed: fields in which an unreadable value refuses the row.
    """

    def __init__(self, layout: Layout, today: dt.date) -> None:
        self.latest = today.isoformat()
        self.needed = frozenset(_NEEDED.get(layout.kind, ()))
        self.dated = layout.kind == "listings"
        self._usual: dict[str, float] | None = None

    def learn(self, rows: Sequence[Row]) -> None:
        """What is usual, from the first rows of a file; too few rows tell nothing."""
        if self._usual is None:
            self._usual = {}
            for name in ("latitude", "longitude", "living_area"):
                known = [v for row in rows if isinstance(v := row.get(name), float)]
                if len(known) >= ENOUGH:
                    self._usual[name] = statistics.median(known)

    def suspects(self, row: Row, odd: list[str]) -> list[str]:
        """Names of the fields of this row that are not to be believed; `odd` are those out of all reason already."""
        out = list(odd)
        usual_of = self._usual or {}
        for name in ("latitude", "longitude"):
            value = row.get(name)
            usual = usual_of.get(name)
            if isinstance(value, float) and usual is not None and name not in out and abs(value - usual) > FAR_DEGREES:
                out.append(name)
        area, usual = row.get("living_area"), usual_of.get("living_area")
        if isinstance(area, float) and usual is not None and area > TIMES_USUAL * usual and "living_area" not in out:
            out.append("living_area")
        if self.dated:
            out += self._dates(row)
        return out

    def _dates(self, row: Row) -> list[str]:
        out = []
        start, contract, close, off = (row.get(name) for name in _DATES)
        for name, value in zip(_DATES, (start, contract, close, off), strict=True):
            if isinstance(value, str) and not "1900-01-01" <= value <= self.latest:
                out.append(name)
        for name, value in (("close_date", close), ("off_market_date", off)):
            late = contract if name == "close_date" and isinstance(contract, str) else start
            if isinstance(value, str) and isinstance(late, str) and value < late and name not in out:
                out.append(name)
        return out
