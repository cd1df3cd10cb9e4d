"""What makes a value suspect: out of all reason, or against another date. Places: places.py."""

from __future__ import annotations

import datetime as dt
import statistics
from collections.abc import Sequence

from .mapping.layouts import Held, Layout

TIMES_USUAL = 10.0
ENOUGH = 20
_DATES = ("on_market_date", "purchase_contract_date", "close_date", "off_market_date")
_NEEDED = {"listings": ("close_price", "close_date", "latitude", "longitude"), "transfers": ("price",)}
Odd = dict[int, list[str]]


class Checker:
    """Learns what is usual from the first rows of a file, then marks what is not.

    needed: fields in which an unreadable value refuses the row.
    """

    def __init__(self, layout: Layout, today: dt.date) -> None:
        self.latest = today.isoformat()
        self.needed = frozenset(_NEEDED.get(layout.kind, ()))
        self.believed = [(f.name, f.low, f.high) for f in layout.fields if f.low is not None and f.high is not None]
        self.dated = layout.kind == "listings"
        self._usual: dict[str, float] | None = None

    def learn(self, came: Held) -> None:
        """What is usual, from the first rows of a file; too few rows tell nothing."""
        if self._usual is None:
            self._usual = {}
            known = [v for v in came.get("living_area", ()) if isinstance(v, float)]
            if len(known) >= ENOUGH:
                self._usual["living_area"] = statistics.median(known)

    def suspects(self, came: Held, held: Held) -> Odd:
        """Position → names of fields not to be believed. `came`: what the file brought; `held`: with what was there."""
        out: Odd = {}

        def mark(n: int, name: str) -> None:
            names = out.setdefault(n, [])
            if name not in names:
                names.append(name)

        usual = self._usual or {}
        for name, low, high in self.believed:
            top = min(high, TIMES_USUAL * usual[name]) if name == "living_area" and name in usual else high
            for n in _outside(came.get(name, ()), low, top):
                mark(n, name)
        if self.dated:
            for n, dates in enumerate(zip(*(held[name] for name in _DATES), strict=True)):
                for name in self._odd_dates(*dates):
                    mark(n, name)
        return out

    def _odd_dates(self, start: str | None, contract: str | None, close: str | None, off: str | None) -> Sequence[str]:
        latest, out = self.latest, None
        if (
            (start is None or "1900-01-01" <= start <= latest)
            and (contract is None or "1900-01-01" <= contract <= latest)
            and (close is None or ("1900-01-01" <= close <= latest and (contract or start or "") <= close))
            and (off is None or ("1900-01-01" <= off <= latest and (start or "") <= off))
        ):
            return ()
        dates = (start, contract, close, off)
        out = [n for n, v in zip(_DATES, dates, strict=True) if v is not None and not "1900-01-01" <= v <= latest]
        for name, value, late in (("close_date", close, contract or start), ("off_market_date", off, start)):
            if value is not None and late is not None and value < late and name not in out:
                out.append(name)
        return out


def _outside(values: Sequence[object], low: float, high: float) -> Sequence[int]:
    """Positions of the known values that are not within low and high; quick where there are none."""
    known: list[float] = [v for v in values if v is not None]  # type: ignore[misc]
    if not known or (min(known) >= low and max(known) <= high):
        return ()
    return [n for n, v in enumerate(values) if v is not None and not low <= v <= high]  # type: ignore[operator]
