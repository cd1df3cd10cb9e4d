"""Which records meet a search, and the counts.

Each part of a search (place, time, kind of home, one criterion …) is a mask over the market. A row is found when
no mask refuses it; what-if counts need only know which rows exactly one part refuses.
"""

from __future__ import annotations

from collections.abc import Callable, Mapping
from dataclasses import dataclass, field

import numpy as np
from numpy.typing import NDArray

from ..errors import BadInput
from ..facts.homes import Subject
from ..facts.places.place import within_radius
from ..facts.words import COUNTED
from ..market.columns import HOME_KINDS, KIND_CODE, RECORD_KINDS, STATUSES, AsOf, Bools, Columns, Ints
from .search import Criterion, Search, Window
from .shapes import across_any, in_shapes

# rows that two parts refuse are dropped where there are many rows and the share that stays is this small; else dropping
# costs more than it spares
_FEW, _WORTH = 5000, 0.7


def criterion_mask(c: Criterion, columns: Columns, rows: Ints) -> Bools:
    """Which of `rows` the criterion lets through."""
    x = columns.values(c.field, rows)
    if x is not None:
        ok = np.ones(len(x), dtype=np.bool_)
        if c.low is not None:
            ok &= ~(x < c.low)
        if c.high is not None:
            ok &= ~(x > c.high)
        return ok & np.isfinite(x) if c.must_be_known else ok
    word = columns.words.get(c.field)
    if word is None:
        raise BadInput("criteria", f"“{c.field}” is not held in these records.")
    ok = word.mask(frozenset(w.casefold() for w in c.words), rows) if c.words else np.ones(len(rows), dtype=np.bool_)
    return ok if c.must_be_known else ok | (word.codes[rows] < 0)


def unknown_mask(c: Criterion, columns: Columns, rows: Ints) -> Bools:
    """Which of `rows`, (n,), do not know the criterion's field."""
    x = columns.values(c.field, rows)
    if x is not None:
        return np.asarray(np.isnan(x))
    return np.asarray(columns.words[c.field].codes[rows] < 0)


def _span(window: Window, day: int) -> tuple[int | None, int]:
    """First day (None for no limit) and last day of a window."""
    if window.since is not None or window.until is not None:
        return window.since, min(day, day if window.until is None else window.until)
    return (None if window.days is None else day - window.days), day


def window_rows(search: Search, columns: Columns, view: AsOf) -> Ints:
    """Rows of a kind that is asked for, whose date lies in that kind's window (both ends included), and that any
    search may find. The rest of a search looks at these alone.
    """
    found = [
        view.rows_between(code, *_span(window, view.day))
        for code, kind in enumerate(RECORD_KINDS)
        if (window := search.windows.get(kind)) is not None and window.on
    ]
    rows = np.concatenate(found) if found else np.zeros(0, dtype=np.int64)
    for code, kind in enumerate(RECORD_KINDS):
        window = search.windows.get(kind)
        if window is not None and window.on and window.only:
            rows = rows[(view.kind[rows] != code) | _of_statuses(window.only, code, columns, rows)]
    return rows


def _of_statuses(only: tuple[str, ...], code: int, columns: Columns, rows: Ints) -> Bools:
    """Rows whose status is among some, or that are of this kind no longer."""
    wanted = np.array([s.value in only for s in STATUSES])
    status = columns.status[rows]
    return np.asarray(wanted[status] | (KIND_CODE[status] != code))


Part = Callable[[Ints], Bools]
Masks = Mapping[str, Bools]
NO_MASKS: Masks = {}


def parts(search: Search, columns: Columns, subject: Subject | None, masks: Masks) -> dict[str, Part]:
    """The parts of a search by name, each telling which of some rows it lets through: home_kinds, radius_miles, areas,
    criteria by field, and the rest. `masks` are the parts that were looked up in the records (areas, parcels, text)."""
    out: dict[str, Part] = {}
    if subject is not None and not subject.placed and (search.radius_miles is not None or search.fences):
        raise BadInput(
            "radius_miles" if search.radius_miles is not None else "fences",
            "It is not known where this home stands, so that no distance can be told: take the radius and the fences out of "
            "the search, or set the home's place on the map in Home.",
        )
    if search.radius_miles is not None and subject is not None:
        lat, lon, radius = subject.latitude, subject.longitude, search.radius_miles
        out["radius_miles"] = lambda rows: within_radius(lat, lon, radius, columns.lats[rows], columns.lons[rows])
    if search.shapes:
        out["shapes"] = lambda rows: in_shapes(search.shapes, columns.lats[rows], columns.lons[rows])
    for name, mask in masks.items():
        out[name] = lambda rows, mask=mask: np.asarray(mask[rows])  # type: ignore[misc]
    if search.home_kinds:
        wanted = np.array([k in search.home_kinds for k in HOME_KINDS], dtype=np.bool_)
        out["home_kinds"] = lambda rows: wanted[columns.home_kind[rows]]
    for c in (c for c in search.criteria if c.field not in masks):
        out[c.field] = lambda rows, c=c: criterion_mask(c, columns, rows)  # type: ignore[misc]
    if search.leave_out_new_construction:
        out["leave_out_new_construction"] = lambda rows: ~columns.new_construction[rows]
    if search.leave_out_distressed:
        out["leave_out_distressed"] = lambda rows: ~columns.distressed[rows]
    if search.arms_length_only:
        out["arms_length_only"] = lambda rows: ~columns.not_arms_length[rows]
    if search.fences and subject is not None:  # the dearest part comes last, when few rows are left
        at = subject.latitude, subject.longitude
        out["fences"] = lambda rows: ~across_any(search.fences, *at, columns.lats[rows], columns.lons[rows])
    return out


def not_the_home(columns: Columns, rows: Ints, subject: Subject | None) -> Ints:
    """The rows without the subject's own home."""
    if subject is None:
        return rows
    if subject.home_id is not None:
        rows = rows[columns.home_id[rows] != subject.home_id]
    if (own := columns.row(subject.own_listing)) is not None:
        rows = rows[rows != own]
    return rows


def counts_of(view: AsOf, rows: Ints) -> dict[str, int]:
    """How many of `rows` there are of each kind of record."""
    n = np.bincount(view.kind[rows], minlength=len(RECORD_KINDS))
    return {kind.value: int(n[RECORD_KINDS.index(kind)]) for kind in COUNTED}


def let_through(
    search: Search, columns: Columns, rows: Ints, subject: Subject | None = None, masks: Masks = NO_MASKS
) -> Ints:
    """Those of some rows that a search lets through, whatever their kind and date; never the subject's own home."""
    rows = not_the_home(columns, rows, subject)
    for part in parts(search, columns, subject, masks).values():
        rows = rows[part(rows)]
    return rows


@dataclass(frozen=True)
class Refusals:
    """rows: of the windows, without those that two parts refuse; times: how many parts refuse each; by: the place in `names` of the
    one that does; all (n,)."""

    rows: Ints
    times: NDArray[np.int8]
    by: NDArray[np.int8]
    names: tuple[str, ...]

    @property
    def found(self) -> Ints:
        """The rows that no part refuses, in the order of the records."""
        return np.sort(self.rows[self.times == 0])

    def by_alone(self, name: str) -> Ints:
        """The rows that this part refuses and no other; none of a part that the search has not."""
        by = self.names.index(name) if name in self.names else len(self.names)
        return np.asarray(self.rows[(self.times == 1) & (self.by == by)])


def refusals(search: Search, columns: Columns, view: AsOf, subject: Subject | None, masks: Masks) -> Refusals:
    """Which parts of a search refuse which rows of its windows."""
    rows = not_the_home(columns, window_rows(search, columns, view), subject)
    refused = np.zeros(len(rows), dtype=np.int8)
    by = np.zeros(len(rows), dtype=np.int8)
    named = parts(search, columns, subject, masks)
    for k, lets_through in enumerate(named.values()):
        fails = ~lets_through(rows)
        refused += fails
        np.putmask(by, fails, k)
        if len(rows) > _FEW:
            still = refused < 2  # what two parts refuse is found by leaving out neither
            if np.count_nonzero(still) < _WORTH * len(rows):
                rows, refused, by = rows[still], refused[still], by[still]
    once = refused < 2
    return Refusals(rows[once], refused[once], by[once], tuple(named))


@dataclass(frozen=True)
class Found:
    """rows: found rows. counts: by kind of record. unknown: found rows whose value a criterion could not see. without: counts without
    each part; refused: by which part what else is refused."""

    rows: Ints
    counts: Mapping[str, int]
    unknown: Mapping[str, int]
    without: Mapping[str, Mapping[str, int]]
    refused: Refusals = field(repr=False)


def run(search: Search, columns: Columns, view: AsOf, subject: Subject | None = None, masks: Masks = NO_MASKS) -> Found:
    """Find the rows, count them by kind, count unknowns, and count what each part's absence would find."""
    refused = refusals(search, columns, view, subject, masks)
    found = refused.found
    counts = counts_of(view, found)
    once = refused.times == 1
    kinds, names = len(RECORD_KINDS), refused.names
    places = refused.by[once].astype(np.int64) * kinds + view.kind[refused.rows[once]]
    gained = np.bincount(places, minlength=len(names) * kinds)
    without = {
        name: {kind.value: counts[kind.value] + int(gained[k * kinds + RECORD_KINDS.index(kind)]) for kind in COUNTED}
        for k, name in enumerate(names)
    }
    unknown = {c.field: int(unknown_mask(c, columns, found).sum()) for c in search.criteria if c.field not in masks}
    return Found(found, counts, {k: n for k, n in unknown.items() if n}, without, refused)
