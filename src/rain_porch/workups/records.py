"""The records as the application uses them: one open database, and its columns kept until the records change."""

from __future__ import annotations

import datetime as dt
import sqlite3
import threading
from collections import OrderedDict
from collections.abc import Callable, Hashable
from fnmatch import fnmatchcase
from functools import partial
from pathlib import Path
from typing import Any, TypeVar

import numpy as np

from ..core.columns import MANY, Bools, Columns, Ints
from ..core.dates import NO_DAY, date_of, day_of
from ..core.errors import NotEnough, NotFound
from ..core.fields import BY_NAME, Kind
from ..core.parcels import Span, inside
from ..core.place import in_area
from ..core.search import Masks, Search
from ..store import areas, columns, db, homes, series
from ..store.imports import records_version

KEEP_MASKS, REMEMBERED = 60, 24
T = TypeVar("T")


# what else may be named as an area, beside the polygons of the map: field → how it is called
_PLACE_WORDS = {
    "subdivision_name": "subdivision",
    "building_name": "building or project",
    "city": "city",
    "postal_code": "postal code",
}


class Records:
    """records.db of one data folder. `today` is asked for only to keep the effective date from the future."""

    def __init__(self, folder: Path, today: Callable[[], dt.date] = dt.date.today) -> None:
        self.folder = folder
        self.today = today
        self.db: sqlite3.Connection = db.open_database(folder, db.RECORDS)
        self._columns: Columns | None = None
        self._masks: dict[str, Bools] = {}
        self._remembered: OrderedDict[Hashable, Any] = OrderedDict()
        self._lock = threading.RLock()
        self._next: threading.Thread | None = None

    def remember(self, columns: Columns, key: Hashable, make: Callable[[], T]) -> T:
        """What is dear to work out from these columns and asked for again and again: the newest REMEMBERED are kept."""
        whole = (columns.version, key)
        with self._lock:
            if whole in self._remembered:
                self._remembered.move_to_end(whole)
                held: T = self._remembered[whole]
                return held
        made = make()
        with self._lock:
            self._remembered[whole] = made
            while len(self._remembered) > REMEMBERED:
                self._remembered.popitem(last=False)
        return made

    def columns(self) -> Columns:
        """The columns of the newest records.

        Where they are many, those of before an import go on being used for the moments in which the new are read.
        """
        with self._lock:
            if self._next is not None and not self._next.is_alive():
                self._next = None
            version = records_version(self.db)
            if self._columns is None or (self._columns.version != version and len(self._columns) < MANY):
                self._take(self._load())
            elif self._columns.version != version and self._next is None:
                self._next = threading.Thread(target=self._load_beside, daemon=True)
                self._next.start()
            assert self._columns is not None
            return self._columns

    def _load_beside(self) -> None:
        made = self._load()
        with self._lock:
            self._take(made)

    def _load(self) -> Columns:
        with db.snapshot(self.folder / "records.db") as beside:
            return columns.load_columns(beside)

    def _take(self, made: Columns) -> None:
        self._columns = made
        self._masks.clear()

    def middle(self, rows: Ints | None = None) -> tuple[float, float]:
        """(latitude, longitude) in the middle of some records, or of all where none of them has a place; 0, 0 of none."""
        columns = self.columns()
        for some in (rows, None):
            lats, lons = (x if some is None else x[some] for x in (columns.lats, columns.lons))
            if np.isfinite(lats).any():
                return float(np.nanmedian(lats)), float(np.nanmedian(lons))
        return 0.0, 0.0

    def through(self) -> dt.date:
        """The day through which the records run: their newest event, never later than today. NotEnough when empty."""
        day = self.columns().last_day()
        if day == NO_DAY:
            raise NotEnough(
                "There are no records yet: bring in a file of listings first (Records, or rain-porch import)."
            )
        return date_of(min(day, day_of(self.today())))

    def effective_day(self, given: dt.date | None) -> int:
        return day_of(given or self.through())

    def area_mask(self, names: tuple[str, ...]) -> Bools | None:
        """Rows in any of the named areas (`*` stands for any letters); None when no area is asked for.

        NotFound for a name that is nowhere.
        """
        if not names:
            return None
        held = self.columns()
        out = np.zeros(len(held), dtype=np.bool_)
        for name in names:
            out |= self._kept(f"area {name}", partial(self._one_area, held, name))
        return out

    def _kept(self, name: str, make: Callable[[], Bools]) -> Bools:
        if name not in self._masks:
            if len(self._masks) >= KEEP_MASKS:
                self._masks.pop(next(iter(self._masks)))
            self._masks[name] = make()
        return self._masks[name]

    def _one_area(self, held: Columns, name: str) -> Bools:
        shape = areas.area_shape(self.db, name)
        if shape is not None:
            return in_area(shape, held.lats, held.lons)
        for field in _PLACE_WORDS:
            words = held.words[field]
            wanted = {w.casefold() for w in words.words if fnmatchcase(w.casefold(), areas.pattern(name))}
            if wanted and (mask := words.mask(frozenset(wanted))).any():
                return mask
        known = [a["name"] for a in areas.named_areas(self.db)]
        raise NotFound(
            f"There is no area, subdivision, building, city or postal code “{name}” in the records"
            + (f": known areas are {', '.join(known[:12])}." if known else "."),
            name=name,
        )

    def _listed(self, name: str, keys: Callable[[], list[str]]) -> Bools:
        """Rows of the listings that a query names."""

        def make() -> Bools:
            held = self.columns()
            out = np.zeros(len(held), dtype=np.bool_)
            out[[row for key in keys() if (row := held.row_of.get(key)) is not None]] = True
            return out

        return self._kept(name, make)

    def masks_of(self, search: Search) -> Masks:
        """The parts of a search that are looked up in the records: areas, parcel numbers, words in texts."""
        out: dict[str, Bools] = {}
        if (inside := self.area_mask(search.areas)) is not None:
            out["areas"] = inside
        if (outside := self.area_mask(search.not_areas)) is not None:
            out["not_areas"] = ~outside
        if search.parcels:
            out["parcels"] = self._listed(f"parcels {search.parcels}", partial(self._in_parcels, search.parcels))
        for c in search.criteria:
            if BY_NAME[c.field].kind == Kind.TEXT:
                out[c.field] = self._listed(
                    f"text {c}", partial(homes.with_words, self.db, c.field, c.words, c.must_be_known)
                )
        return out

    def _in_parcels(self, spans: tuple[Span, ...]) -> list[str]:
        return [key for key, number in homes.with_parcels(self.db) if inside(number, spans)]

    def named_places(self) -> list[dict[str, str]]:
        """Everything that may be named as an area: polygons of the map, then subdivisions, buildings, cities, postal codes."""
        columns = self.columns()
        return columns.keep("named places", lambda: self._named_places(columns))

    def _named_places(self, columns: Columns) -> list[dict[str, str]]:
        out = areas.named_areas(self.db)
        known = {a["name"].casefold() for a in out}
        for field, kind in _PLACE_WORDS.items():
            for word in sorted(columns.words[field].words):
                if word.casefold() not in known:
                    known.add(word.casefold())
                    out.append({"area_key": f"{field}:{word}", "name": word, "kind": kind})
        return out

    def series_names(self) -> list[str]:
        return series.names(self.db)

    def close(self) -> None:
        self.db.close()


def freshness(records: Records) -> dict[str, Any]:
    """How many records of each kind there are, and the day through which they run."""
    counts = {
        kind: int(records.db.execute(f"SELECT count(*) FROM {kind}").fetchone()[0])
        for kind in ("listings", "parcels", "transfers", "events", "assessments", "areas")
    }
    return {"counts": counts, "through": records.through().isoformat() if counts["listings"] else None}
