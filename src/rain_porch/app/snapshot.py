"""The records as they stood at one moment: one value that every part of a request reads, and that never changes."""

from __future__ import annotations

import datetime as dt
import threading
from collections.abc import Callable, Hashable, Mapping
from contextlib import AbstractContextManager
from dataclasses import dataclass, field, replace
from fnmatch import fnmatchcase
from functools import partial
from pathlib import Path
from typing import Any, Literal, TypeVar, cast

import numpy as np

from ..core.errors import NotEnough, NotFound
from ..core.facts.dates import NO_DAY, date_of, day_of
from ..core.facts.fields import BY_NAME, Kind
from ..core.facts.places.parcels import Span, inside
from ..core.facts.places.place import in_area
from ..core.market.columns import Bools, Columns, Ints
from ..core.market.market_rules import MarketRules
from ..core.memo import Memo
from ..core.search.matching import Masks
from ..core.search.search import Search
from ..store import health
from ..store.array_file import leave_pages
from ..store.db import Readers
from ..store.records import areas, homes, series

T = TypeVar("T")
_NOT_MADE: Any = object()
Line = Literal["worths", "chances"]  # in which long work waits for its turn
Turns = Mapping[Line, AbstractContextManager[Any]]
# so many are kept of each: a fit takes some 2 MB, a table up to 4
MASKS, REMEMBERED, FITS, TABLES, COUNTS, PICTURES, PAPERS = 60, 400, 160, 60, 60, 300, 24

# what else may be named as an area, beside the polygons of the map: field → how it is called
_PLACE_WORDS = {
    "subdivision_name": "subdivision",
    "building_name": "building or project",
    "city": "city",
    "postal_code": "postal code",
}


@dataclass(frozen=True)
class Snapshot:
    """Columns and readers of one version of records.db, and what has been worked out from them.

    `today` is asked for only to keep the effective date from the future. Masks are as long as the columns, always: both
    belong to one snapshot. It goes with the last one who reads it; its readers are closed then.
    """

    folder: Path
    stamp: tuple[int, int]  # version of the records, number of the last backtest
    columns: Columns
    db: Readers
    today: Callable[[], dt.date]
    mark: str = ""  # of the records' state, by which a file knows what it was made from
    turns: Turns = field(repr=False, compare=False, default_factory=lambda: new_turns())
    fits: Memo = field(repr=False, compare=False, default_factory=lambda: Memo(FITS))
    _masks: Memo = field(init=False, repr=False, compare=False, default_factory=lambda: Memo(MASKS))
    _memo: Memo = field(init=False, repr=False, compare=False, default_factory=lambda: Memo(REMEMBERED))
    tables: Memo = field(init=False, repr=False, compare=False, default_factory=lambda: Memo(TABLES))
    counts: Memo = field(init=False, repr=False, compare=False, default_factory=lambda: Memo(COUNTS))
    pictures: Memo = field(init=False, repr=False, compare=False, default_factory=lambda: Memo(PICTURES))
    papers: Memo = field(init=False, repr=False, compare=False, default_factory=lambda: Memo(PAPERS))

    def by(self, rules: MarketRules) -> Snapshot:
        """The same records, their market counted by other rules of the house; itself by its own. Long fits, which hang on none of
        these rules, are shared."""
        if rules == self.columns.rules:
            return self

        return self.remember(("by", rules), lambda: replace(self, columns=self.columns.by(rules)))

    def remember(self, key: Hashable, make: Callable[[], T]) -> T:
        """What is dear to work out from this snapshot; the key says all else that it depends on."""
        return self._memo.get(key, make)

    def fitted(self, key: Hashable, make: Callable[[], T], line: Line = "worths") -> T:
        """The same for long work, which may ask for more of it: of each line one after the other, whoever asks, so that short answers
        come between; a worth does not wait for another home's chances. The turn is taken before the key's own lock, by all: two that
        need each other's work would wait for ever otherwise. Chances may ask for worths, never the other way round."""
        kept = self.fits.peek(key, _NOT_MADE)
        if kept is not _NOT_MADE:
            return cast(T, kept)
        with self.turns[line]:
            return self.fits.get(key, make)

    def give_way(self) -> None:
        """Newer records serve from now on: what was worked out of these goes, though some who read them may not have ended. The fits
        stay, by which it is known what was asked for."""
        self.columns.give_way()
        leave_pages(self.columns.close)
        for memo in (self._masks, self._memo, self.tables, self.counts, self.pictures, self.papers):
            memo.clear()

    def middle(self, rows: Ints | None = None) -> tuple[float, float]:
        """(latitude, longitude) in the middle of some records, or of all where none of them has a place; 0, 0 of none."""
        for some in (rows, None):
            lats, lons = (x if some is None else x[some] for x in (self.columns.lats, self.columns.lons))
            if np.isfinite(lats).any():
                return float(np.nanmedian(lats)), float(np.nanmedian(lons))
        return 0.0, 0.0

    def through(self) -> dt.date:
        """The day through which the records run: their newest event, never later than today; today where none of them has a
        day. NotEnough when empty."""
        day = self.remember("last day", self.columns.last_day)
        if day == NO_DAY and len(self.columns):
            return self.today()
        if day == NO_DAY:
            raise NotEnough(
                "There are no records yet: bring in a file of listings first (Records, or rain-porch import)."
            )
        return date_of(min(day, day_of(self.today())))

    def effective_day(self, given: dt.date | None) -> int:
        return day_of(given or self.through())

    def address_terms(self) -> tuple[str, ...]:
        """The words of all addresses, to tell slips by."""
        return self.remember("words of addresses", lambda: homes.address_terms(self.db))

    def area_mask(self, names: tuple[str, ...]) -> Bools | None:
        """Rows in any of the named areas (`*` stands for any letters); None when no area is asked for.

        NotFound for a name that is nowhere.
        """
        if not names:
            return None
        out = np.zeros(len(self.columns), dtype=np.bool_)
        for name in names:
            out |= self._masks.get(("area", name), partial(self._one_area, name))
        return out

    def _one_area(self, name: str) -> Bools:
        shape = areas.area_shape(self.db, name)
        if shape is not None:
            return in_area(shape, self.columns.lats, self.columns.lons)
        for of in _PLACE_WORDS:
            words = self.columns.words[of]
            wanted = {w.casefold() for w in words.words if fnmatchcase(w.casefold(), areas.pattern(name))}
            if wanted and (mask := words.mask(frozenset(wanted))).any():
                return mask
        known = [a["name"] for a in areas.named_areas(self.db)]
        raise NotFound(
            f"There is no area, subdivision, building, city or postal code “{name}” in the records"
            + (f": known areas are {', '.join(known[:12])}." if known else "."),
            name=name,
        )

    def _listed(self, key: Hashable, keys: Callable[[], list[str]]) -> Bools:
        """Rows of the listings that a query names."""

        def make() -> Bools:
            out = np.zeros(len(self.columns), dtype=np.bool_)
            out[[row for k in keys() if (row := self.columns.row_of.get(k)) is not None]] = True
            return out

        return self._masks.get(key, make)

    def masks_of(self, search: Search) -> Masks:
        """The parts of a search that are looked up in the records: areas, parcel numbers, words in texts."""
        out: dict[str, Bools] = {}
        if (inside := self.area_mask(search.areas)) is not None:
            out["areas"] = inside
        if (outside := self.area_mask(search.not_areas)) is not None:
            out["not_areas"] = ~outside
        if search.parcels:
            out["parcels"] = self._listed(("parcels", search.parcels), partial(self._in_parcels, search.parcels))
        for c in search.criteria:
            if BY_NAME[c.field].kind == Kind.TEXT:
                out[c.field] = self._listed(
                    ("text", repr(c)), partial(homes.with_words, self.db, c.field, c.words, c.must_be_known)
                )
        return out

    def _in_parcels(self, spans: tuple[Span, ...]) -> list[str]:
        return [key for key, number in homes.with_parcels(self.db) if inside(number, spans)]

    def named_places(self) -> list[dict[str, str]]:
        """Everything that may be named as an area: polygons of the map, then subdivisions, buildings, cities, postal codes."""
        return self.remember("named places", self._named_places)

    def _named_places(self) -> list[dict[str, str]]:
        out = areas.named_areas(self.db)
        known = {a["name"].casefold() for a in out}
        for of, kind in _PLACE_WORDS.items():
            for word in sorted(self.columns.words[of].words):
                if word.casefold() not in known:
                    known.add(word.casefold())
                    out.append({"area_key": f"{of}:{word}", "name": word, "kind": kind})
        return out

    def base_map(self) -> dict[str, Any]:
        """What is drawn under the marks, as GeoJSON; not to be changed."""
        return self.remember("base map", lambda: areas.base_map(self.db))

    def series_names(self) -> list[str]:
        return series.names(self.db)


def new_turns() -> Turns:
    """For each line a lock that who holds it may take again."""
    return {"worths": threading.RLock(), "chances": threading.RLock()}


def freshness(records: Snapshot) -> dict[str, Any]:
    """How many records of each kind there are, and the day through which they run."""
    counts = health.counts(records.db)
    return {"counts": counts, "through": records.through().isoformat() if counts["listings"] else None}
