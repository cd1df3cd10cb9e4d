"""A search for candidates: its parts, how they are tested on the columns, and the counts.

Each part of a search (place, time, kind of home, one criterion …) is a mask over the market. A row is found when
no mask refuses it; what-if counts need only know which rows exactly one part refuses.
"""

from __future__ import annotations

from collections.abc import Callable, Mapping
from dataclasses import dataclass, field, replace

import numpy as np
from numpy.typing import NDArray

from ..errors import BadInput
from ..facts.dates import date_of, said
from ..facts.fields import BY_NAME, Kind
from ..facts.homes import Subject
from ..facts.places.parcels import Span, check_spans
from ..facts.places.place import within_radius
from ..facts.words import COUNTED, KIND_OF_STATUS, LAND_KINDS, RECORD_LABEL, STATUS_SAID, HomeKind, RecordKind
from ..market.columns import HOME_KINDS, KIND_CODE, RECORD_KINDS, STATUSES, AsOf, Bools, Columns, Ints
from .shapes import Fence, Shape, across_any, check_shapes, in_shapes


@dataclass(frozen=True)
class Criterion:
    """One field's limits: a range (either end open) or words. Unknown values pass unless `must_be_known`.

    The ends of a field of dates are days as dates.py counts them, both included.
    """

    field: str
    low: float | None = None
    high: float | None = None
    words: tuple[str, ...] = ()
    must_be_known: bool = False


@dataclass(frozen=True)
class Window:
    """How far back a kind of record may lie: `days` before the effective date, None for no limit.

    since, until: days counted as in dates.py, both included, where dates are given instead of a number of days.
    only: the standard statuses that are meant ("Expired", "Pending"), where it is not the whole kind. A record that has
    moved on since (the search looks back) no longer tells which it was, and passes.
    """

    on: bool = True
    days: int | None = None
    since: int | None = None
    until: int | None = None
    only: tuple[str, ...] = ()


DEFAULT_WINDOWS: Mapping[str, Window] = {
    RecordKind.SOLD: Window(days=180),
    RecordKind.DEED_SALE: Window(on=False, days=180),
    RecordKind.UNDER_CONTRACT: Window(),
    RecordKind.FOR_SALE: Window(),
    RecordKind.FAILED: Window(days=180),
}


@dataclass(frozen=True)
class Search:
    """What is looked for. Each part limits on its own; None or nothing limits not at all."""

    home_kinds: tuple[str, ...] = ()
    radius_miles: float | None = 1.0
    areas: tuple[str, ...] = ()
    not_areas: tuple[str, ...] = ()
    shapes: tuple[Shape, ...] = ()
    fences: tuple[Fence, ...] = ()
    parcels: tuple[Span, ...] = ()  # numbers, blocks and ranges of parcels
    windows: Mapping[str, Window] = field(default_factory=lambda: dict(DEFAULT_WINDOWS))
    criteria: tuple[Criterion, ...] = ()
    leave_out_new_construction: bool = True
    arms_length_only: bool = True
    leave_out_distressed: bool = False

    def criterion(self, name: str) -> Criterion | None:
        """The criterion on a field, None where there is none."""
        return next((c for c in self.criteria if c.field == name), None)

    def with_criterion(self, criterion: Criterion) -> Search:
        """The same search with this criterion in the place of the field's earlier one."""
        if self.criterion(criterion.field) is None:
            return replace(self, criteria=self.criteria + (criterion,))
        return replace(self, criteria=tuple(criterion if c.field == criterion.field else c for c in self.criteria))

    def without_criterion(self, name: str) -> Search:
        """The search without its limit on a field."""
        return replace(self, criteria=tuple(c for c in self.criteria if c.field != name))

    def with_days(self, kind: str, days: int | None) -> Search:
        """The same search looking so many days back for a kind, in place of dates where these were given."""
        held = self.windows.get(kind, Window(on=False))
        return replace(self, windows={**self.windows, kind: replace(held, days=days, since=None, until=None)})


def statuses_of(kind: str) -> list[str]:
    """The standard statuses of which a kind of record is made, where it is made of several that an agent tells apart."""
    return [status.value for status in STATUS_SAID if KIND_OF_STATUS[status] == kind]


def check(search: Search) -> None:
    """Raise BadInput, naming the part, for limits that make no sense."""
    if search.radius_miles is not None and not 0 < search.radius_miles <= 250:
        raise BadInput(
            "radius_miles",
            f"A radius of {search.radius_miles:g} miles finds nothing: give more than 0, at most 250.",
        )
    for kind in search.home_kinds:
        if kind not in HOME_KINDS:
            raise BadInput("home_kinds", f"“{kind}” is no kind of home: use one of {', '.join(HOME_KINDS)}.")
    for kind, window in search.windows.items():
        if kind not in RECORD_KINDS:
            raise BadInput("windows", f"“{kind}” is no kind of record: use one of {', '.join(RECORD_KINDS)}.")
        if window.days is not None and not 0 <= window.days <= 36_500:
            raise BadInput(f"windows.{kind}", f"{window.days} days: give between 0 and 36,500, or none for no limit.")
        if window.since is not None and window.until is not None and window.since > window.until:
            raise BadInput(f"windows.{kind}", f"{RECORD_LABEL[RecordKind(kind)]}: the dates end before they start.")
        for status in window.only:
            of_kind = statuses_of(kind)
            if status not in of_kind:
                can_be = f"use {', '.join(of_kind)}" if of_kind else "it has none of its own"
                raise BadInput(
                    f"windows.{kind}.only", f"{RECORD_LABEL[RecordKind(kind)]}: no status “{status}”; {can_be}."
                )
    check_shapes(search.shapes, search.fences)
    check_spans(search.parcels)
    if len(search.areas) + len(search.not_areas) > 60:
        raise BadInput("areas", "More than 60 areas are named: a wildcard (Heron*) may say it shorter.")
    if len(search.criteria) > 60:
        raise BadInput("criteria", f"{len(search.criteria)} criteria are more than 60: leave some out.")
    for c in search.criteria:
        f = BY_NAME.get(c.field)
        if f is None or f.private or not (f.searched or f.kind == Kind.TEXT):
            raise BadInput("criteria", f"“{c.field}” is no field that can be searched.")
        if c.low is not None and c.high is not None and c.low > c.high:
            low, high = (said(date_of(int(x))) if f.kind == Kind.DATE else f"{x:g}" for x in (c.low, c.high))
            raise BadInput(f"criteria.{c.field}", f"{f.label}: {low} to {high} is upside down; swap the two.")


# --- the proposed search -------------------------------------------------------------------------------------

_BANDS = ((1000, 200), (2000, 250), (3000, 300), (4000, 400), (5000, 500))


def area_band(living_area: float) -> tuple[float, float]:
    """Living-area band of the proposed search, in sq ft (common practice). 1,600 → 1,350–1,850."""
    half = next((h for limit, h in _BANDS if living_area < limit), 1000)
    return max(0.0, living_area - half), living_area + half


def share_band(value: float, percent: float) -> tuple[float, float]:
    """A band in percent of a value: 4,000 at 15 % → 3,400–4,600."""
    return value * (1 - percent / 100), value * (1 + percent / 100)


DISTRESSED_MARKET = 0.25


def _own_project(subject: Subject) -> list[Criterion]:
    """A unit is looked for inside its own building or project first."""
    for name_of in ("building_name", "subdivision_name"):
        name = subject.word(name_of)
        if name:
            return [Criterion(name_of, words=(name,))]
    return []


def proposed_search(subject: Subject, effective_year: int, distressed_share: float = 0.0) -> Search:
    """The search that a home itself suggests: same kind, 1 mile, sold in 180 days, area band, full baths; a unit starts
    inside its own project.

    distressed_share: of the year's sales; distressed ones are kept where they are a quarter of the market or more.
    """
    criteria: list[Criterion] = []
    area, lot, baths = (subject.number(n) for n in ("living_area", "lot_size_square_feet", "bathrooms_full"))
    if subject.home_kind in LAND_KINDS:
        if lot:
            criteria.append(Criterion("lot_size_square_feet", *share_band(lot, 15)))
    else:
        if subject.home_kind in (HomeKind.CONDOMINIUM, HomeKind.COOPERATIVE):
            criteria += _own_project(subject)
        if area:
            criteria.append(Criterion("living_area", *area_band(area)))
        if baths:
            criteria.append(Criterion("bathrooms_full", low=baths - 1 if baths >= 3 else baths))
    built = subject.number("year_built")
    if not subject.placed:
        return Search(
            home_kinds=(subject.home_kind.value,),
            radius_miles=None,
            criteria=(*_neighbourhood(subject), *criteria),
            leave_out_new_construction=built is None or built < effective_year - 1,
            leave_out_distressed=distressed_share < DISTRESSED_MARKET,
        )
    return Search(
        home_kinds=(subject.home_kind.value,),
        criteria=tuple(criteria),
        leave_out_new_construction=built is None or built < effective_year - 1,
        leave_out_distressed=distressed_share < DISTRESSED_MARKET,
    )


def _neighbourhood(subject: Subject) -> list[Criterion]:
    """What stands in the place of a radius where it is not known where the home stands: its postal code, else its city,
    else its subdivision."""
    for name in ("postal_code", "city", "subdivision_name"):
        if (word := subject.word(name)) is not None:
            return [Criterion(name, words=(word,))]
    return []


# --- running it ----------------------------------------------------------------------------------------------


# rows that two parts refuse are dropped where there are many rows and the share that stays is this small; else dropping
# costs more than it spares
_FEW, _WORTH = 5000, 0.7


@dataclass(frozen=True)
class Found:
    """rows: found rows. counts: by kind of record. unknown: found rows whose value a criterion could not see."""

    rows: Ints
    counts: Mapping[str, int]
    unknown: Mapping[str, int]
    without: Mapping[str, Mapping[str, int]]


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
    ok = word.mask(frozenset(w.casefold() for w in c.words))[rows] if c.words else np.ones(len(rows), dtype=np.bool_)
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
    """rows: of the windows, but for some that two parts refuse; times: how many parts refuse each; by: the place in `names` of the
    last one that does; all (n,)."""

    rows: Ints
    times: NDArray[np.int8]
    by: NDArray[np.int8]
    names: tuple[str, ...]

    @property
    def found(self) -> Ints:
        """The rows that no part refuses, in the order of the records."""
        return np.sort(self.rows[self.times == 0])

    def by_alone(self, name: str) -> Ints:
        """The rows that this part refuses and no other."""
        return np.asarray(self.rows[(self.times == 1) & (self.by == self.names.index(name))])


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
    return Refusals(rows, refused, by, tuple(named))


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
    return Found(found, counts, {k: n for k, n in unknown.items() if n}, without)
