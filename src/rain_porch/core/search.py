"""A search for candidates: its parts, how they are tested on the columns, counts, and what-if steps.

Each part of a search (place, time, kind of home, one criterion …) is a mask over the market. A row is found when
no mask refuses it; what-if counts need only know which rows exactly one part refuses.
"""

from __future__ import annotations

from collections.abc import Callable, Mapping
from dataclasses import dataclass, field, replace

import numpy as np

from .columns import HOME_KINDS, NOTHING, RECORD_KINDS, AsOf, Bools, Columns, Ints
from .dates import NO_DAY
from .errors import BadInput
from .fields import BY_NAME
from .homes import Subject
from .place import within_radius
from .words import COUNTED, HomeKind, RecordKind

RADIUS_STEPS = (0.25, 0.5, 0.75, 1.0, 1.25, 1.5, 2.0, 3.0, 5.0, 10.0, 15.0, 25.0)
DAYS_STEPS = (30, 60, 90, 120, 180, 270, 365, 545, 730, 1095, 1460, 1825, 3650)
MAX_RADIUS = RADIUS_STEPS[-1]
AIM_LOW, AIM_HIGH = 6, 15


@dataclass(frozen=True)
class Criterion:
    """One field's limits: a range (either end open) or words. Unknown values pass unless `must_be_known`."""

    field: str
    low: float | None = None
    high: float | None = None
    words: tuple[str, ...] = ()
    must_be_known: bool = False


@dataclass(frozen=True)
class Window:
    """How far back a kind of record may lie: `days` before the effective date, None for no limit."""

    on: bool = True
    days: int | None = None


DEFAULT_WINDOWS: Mapping[str, Window] = {
    RecordKind.SOLD: Window(days=180),
    RecordKind.DEED_SALE: Window(on=False, days=180),
    RecordKind.UNDER_CONTRACT: Window(),
    RecordKind.FOR_SALE: Window(),
    RecordKind.FAILED: Window(days=180),
}


@dataclass(frozen=True)
class Search:
    home_kinds: tuple[str, ...] = ()
    radius_miles: float | None = 1.0
    areas: tuple[str, ...] = ()
    windows: Mapping[str, Window] = field(default_factory=lambda: dict(DEFAULT_WINDOWS))
    criteria: tuple[Criterion, ...] = ()
    leave_out_new_construction: bool = True
    arms_length_only: bool = True

    def criterion(self, name: str) -> Criterion | None:
        return next((c for c in self.criteria if c.field == name), None)

    def with_criterion(self, criterion: Criterion) -> Search:
        """The same search with this criterion in the place of the field's earlier one."""
        if self.criterion(criterion.field) is None:
            return replace(self, criteria=self.criteria + (criterion,))
        return replace(self, criteria=tuple(criterion if c.field == criterion.field else c for c in self.criteria))

    def without_criterion(self, name: str) -> Search:
        return replace(self, criteria=tuple(c for c in self.criteria if c.field != name))

    def with_days(self, kind: str, days: int | None) -> Search:
        old = self.windows.get(kind, Window(on=False))
        return replace(self, windows={**self.windows, kind: replace(old, days=days)})


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
    if len(search.criteria) > 60:
        raise BadInput("criteria", f"{len(search.criteria)} criteria are more than 60: leave some out.")
    for c in search.criteria:
        f = BY_NAME.get(c.field)
        if f is None or not f.searched:
            raise BadInput("criteria", f"“{c.field}” is no field that can be searched.")
        if c.low is not None and c.high is not None and c.low > c.high:
            raise BadInput(f"criteria.{c.field}", f"{f.label}: {c.low:g} to {c.high:g} is upside down; swap the two.")


# --- the proposed search -------------------------------------------------------------------------------------

_BANDS = ((1000, 200), (2000, 250), (3000, 300), (4000, 400), (5000, 500))


def area_band(living_area: float) -> tuple[float, float]:
    """Living-area band of the proposed search, in sq ft (common practice). 1,600 → 1,350–1,850."""
    half = next((h for limit, h in _BANDS if living_area < limit), 1000)
    return max(0.0, living_area - half), living_area + half


def share_band(value: float, percent: float) -> tuple[float, float]:
    """A band in percent of a value: 4,000 at 15 % → 3,400–4,600."""
    return value * (1 - percent / 100), value * (1 + percent / 100)


def proposed_search(subject: Subject, effective_year: int) -> Search:
    """The search that a home itself suggests: same kind, 1 mile, sold in 180 days, area band, full baths."""
    criteria: list[Criterion] = []
    area, lot, baths = (subject.number(n) for n in ("living_area", "lot_size_square_feet", "bathrooms_full"))
    if subject.home_kind in (HomeKind.LAND, HomeKind.ACREAGE):
        if lot:
            criteria.append(Criterion("lot_size_square_feet", *share_band(lot, 15)))
    else:
        if area:
            criteria.append(Criterion("living_area", *area_band(area)))
        if baths:
            criteria.append(Criterion("bathrooms_full", low=baths - 1 if baths >= 3 else baths))
    built = subject.number("year_built")
    return Search(
        home_kinds=(subject.home_kind.value,),
        criteria=tuple(criteria),
        leave_out_new_construction=built is None or built < effective_year - 1,
    )


# --- running it ----------------------------------------------------------------------------------------------


@dataclass(frozen=True)
class Found:
    """rows: found rows. counts: by kind of record. unknown: found rows whose value a criterion could not see."""

    rows: Ints
    counts: Mapping[str, int]
    unknown: Mapping[str, int]
    without: Mapping[str, Mapping[str, int]]


def criterion_mask(c: Criterion, columns: Columns) -> Bools:
    """Rows that the criterion lets through."""
    if c.field in columns.numbers:
        x = columns.numbers[c.field]
        ok = np.ones(len(x), dtype=np.bool_)
        if c.low is not None:
            ok &= ~(x < c.low)
        if c.high is not None:
            ok &= ~(x > c.high)
        return ok & np.isfinite(x) if c.must_be_known else ok
    word = columns.words.get(c.field)
    if word is None:
        raise BadInput("criteria", f"“{c.field}” is not held in these records.")
    ok = word.mask(frozenset(w.casefold() for w in c.words)) if c.words else np.ones(len(columns), dtype=np.bool_)
    return ok if c.must_be_known else ok | (word.codes < 0)


def unknown_mask(c: Criterion, columns: Columns) -> Bools:
    if c.field in columns.numbers:
        return np.isnan(columns.numbers[c.field])
    return np.asarray(columns.words[c.field].codes < 0)


def window_mask(search: Search, view: AsOf) -> Bools:
    """Rows of a kind that is asked for, whose date lies in that kind's window (both ends included)."""
    ok = np.zeros(len(view.kind), dtype=np.bool_)
    for code, kind in enumerate(RECORD_KINDS):
        window = search.windows.get(kind)
        if window is None or not window.on:
            continue
        rows = view.kind == code
        if window.days is not None:
            rows &= (view.date >= view.day - window.days) & (view.date != NO_DAY)
        ok |= rows
    return ok


def parts(
    search: Search, columns: Columns, view: AsOf, subject: Subject | None, area: Bools | None
) -> dict[str, Bools]:
    """The mask of each part by name: radius_miles, areas, windows, home_kinds, criteria by field, and the rest."""
    out: dict[str, Bools] = {}
    if search.home_kinds:
        wanted = np.array([k in search.home_kinds for k in HOME_KINDS], dtype=np.bool_)
        out["home_kinds"] = wanted[columns.home_kind]
    if search.radius_miles is not None and subject is not None:
        out["radius_miles"] = within_radius(
            subject.latitude, subject.longitude, search.radius_miles, columns.lats, columns.lons
        )
    if area is not None:
        out["areas"] = area
    out["windows"] = window_mask(search, view)
    for c in search.criteria:
        out[c.field] = criterion_mask(c, columns)
    if search.leave_out_new_construction and columns.new_construction.any():
        out["leave_out_new_construction"] = ~columns.new_construction
    if search.arms_length_only and columns.not_arms_length.any():
        out["arms_length_only"] = ~columns.not_arms_length
    return out


def base_mask(columns: Columns, view: AsOf, subject: Subject | None) -> Bools:
    """Rows that any search may find: there at the date, no lease, priced, and not the subject's own home."""
    ok = (view.kind != NOTHING) & ~columns.lease & np.isfinite(view.price)
    if subject is not None:
        if subject.home_id is not None:
            ok &= columns.home_id != subject.home_id
        if subject.own_listing is not None and (row := columns.row_of.get(subject.own_listing)) is not None:
            ok[row] = False
    return np.asarray(ok)


def counts_of(view: AsOf, rows: Ints) -> dict[str, int]:
    n = np.bincount(view.kind[rows], minlength=len(RECORD_KINDS))
    return {kind.value: int(n[RECORD_KINDS.index(kind)]) for kind in COUNTED}


def run(
    search: Search, columns: Columns, view: AsOf, subject: Subject | None = None, area: Bools | None = None
) -> Found:
    """Find the rows, count them by kind, count unknowns, and count what each part's absence would find."""
    masks = parts(search, columns, view, subject, area)
    ok = base_mask(columns, view, subject)
    refused = np.zeros(len(columns), dtype=np.int8)
    for mask in masks.values():
        refused += ~mask
    found = np.flatnonzero(ok & (refused == 0))
    once = ok & (refused == 1)
    without = {
        name: counts_of(view, np.concatenate([found, np.flatnonzero(once & ~mask)]))
        for name, mask in masks.items()
        if name != "windows"
    }
    unknown = {c.field: int(unknown_mask(c, columns)[found].sum()) for c in search.criteria}
    return Found(found, counts_of(view, found), {k: n for k, n in unknown.items() if n}, without)


# --- one step looser or tighter ------------------------------------------------------------------------------


@dataclass(frozen=True)
class Step:
    """One change of a search: which part, what was, what would be, in words, and the search after it."""

    part: str
    words: str
    search: Search


def _next(ladder: tuple[float, ...], value: float, up: bool) -> float | None:
    if up:
        return next((v for v in ladder if v > value + 1e-9), None)
    return next((v for v in reversed(ladder) if v < value - 1e-9), None)


def steps(search: Search, looser: bool) -> list[Step]:
    """Every single step of loosening (or tightening) that the search allows."""
    out: list[Step] = []
    if search.radius_miles is not None and (r := _next(RADIUS_STEPS, search.radius_miles, looser)) is not None:
        out.append(Step("radius_miles", f"within {r:g} mi", replace(search, radius_miles=r)))
    sold = search.windows.get(RecordKind.SOLD)
    if sold and sold.on and sold.days is not None:
        days = _next(tuple(float(d) for d in DAYS_STEPS), sold.days, looser)
        if days is not None:
            out.append(Step("windows.sold", f"sold in the last {days:.0f} days", search.with_days("sold", int(days))))
    for c in search.criteria:
        wider = _stepped(c, looser)
        if wider is not None:
            out.append(Step(c.field, criterion_words(wider), search.with_criterion(wider)))
        elif looser:
            out.append(Step(c.field, f"any {BY_NAME[c.field].label.lower()}", search.without_criterion(c.field)))
    if looser and search.leave_out_new_construction:
        out.append(
            Step(
                "leave_out_new_construction",
                "new construction let in",
                replace(search, leave_out_new_construction=False),
            )
        )
    return out


def _stepped(c: Criterion, looser: bool) -> Criterion | None:
    """A range moved out (in) by its field's step at both ends; None where no step is left."""
    f = BY_NAME[c.field]
    step = f.step
    if c.low is not None and c.high is not None:
        middle, half = (c.low + c.high) / 2, (c.high - c.low) / 2
        if not looser and half <= step:
            return None
        if looser and half > max(middle, step * 10):
            return None
        step = max(step, round(half * 0.2 / step) * step)
    elif looser and c.low is not None and c.low - step <= 0:
        return None
    sign = 1 if looser else -1
    return replace(
        c,
        low=None if c.low is None else max(0.0, c.low - sign * step),
        high=None if c.high is None else c.high + sign * step,
    )


@dataclass(frozen=True)
class WhatIf:
    part: str
    looser: tuple[str, Mapping[str, int]] | None
    tighter: tuple[str, Mapping[str, int]] | None
    without: Mapping[str, int] | None


def what_if(
    search: Search, columns: Columns, view: AsOf, subject: Subject | None = None, area: Bools | None = None
) -> dict[str, WhatIf]:
    """For each part of the search, the counts one step looser, one tighter, and without it, all else equal."""

    def counted(step: Step | None) -> tuple[str, Mapping[str, int]] | None:
        return None if step is None else (step.words, run(step.search, columns, view, subject, area).counts)

    without = run(search, columns, view, subject, area).without
    looser = {s.part: s for s in steps(search, True)}
    tighter = {s.part: s for s in steps(search, False)}
    return {
        part: WhatIf(part, counted(looser.get(part)), counted(tighter.get(part)), without.get(part))
        for part in dict.fromkeys([*looser, *tighter])
    }


def loosened_until_enough(
    search: Search,
    find_sold: Callable[[Search], Ints],
    likeness_of: Callable[[Ints], np.ndarray[tuple[int], np.dtype[np.float64]]],
    aim: int = AIM_LOW,
) -> tuple[Search, list[str]]:
    """Loosen one step at a time until at least `aim` sales are found; returns the search and each step in words.

    Of the steps that can be taken, the one that adds the most alike sales is: the largest total likeness of the
    best sales that it adds, counting no more than are still missing. Steps that add nothing are taken together
    when none adds anything.
    """
    said: list[str] = []
    rows = find_sold(search)
    for _ in range(40):
        missing = aim - rows.size
        if missing <= 0:
            break
        options = steps(search, looser=True)
        if not options:
            break
        best: tuple[float, Step, Ints] | None = None
        for step in options:
            after = find_sold(step.search)
            added = np.setdiff1d(after, rows, assume_unique=True)
            if added.size:
                gain = float(np.sort(likeness_of(added))[::-1][:missing].sum())
                if best is None or gain > best[0]:
                    best = (gain, step, after)
        if best is None:
            for step in options:
                search = _merge(search, step)
                said.append(step.words)
            rows = find_sold(search)
            continue
        _, step, rows = best
        search = step.search
        said.append(step.words)
    return search, said


def _merge(search: Search, step: Step) -> Search:
    """Apply the one part that `step` changes to a search that other steps have changed already."""
    if step.part == "radius_miles":
        return replace(search, radius_miles=step.search.radius_miles)
    if step.part == "windows.sold":
        return replace(search, windows={**search.windows, "sold": step.search.windows["sold"]})
    if step.part == "leave_out_new_construction":
        return replace(search, leave_out_new_construction=False)
    wider = step.search.criterion(step.part)
    return search.with_criterion(wider) if wider else search.without_criterion(step.part)


def criterion_words(c: Criterion) -> str:
    """A criterion as it is said in the sentence: "1,562–2,062 sq ft", "2+ full baths"."""
    f = BY_NAME[c.field]

    def show(value: float) -> str:
        return f"{value:.0f}" if f.kind == "year" else f"{value:,.10g}"

    money = "$" if f.unit == "$" else ""
    unit = f" {f.unit}" if f.unit and not money else ""
    tail = unit if c.field == "living_area" else f"{unit} {f.label.lower()}"
    known = ", known" if c.must_be_known else ""
    if c.words:
        return f"{f.label.lower()} {' or '.join(c.words)}{known}"
    if c.low is not None and c.high is not None:
        same = c.low == c.high
        return f"{money}{show(c.low)}{'' if same else f'–{money}{show(c.high)}'}{tail}{known}"
    if c.low is not None:
        if f.kind == "year":
            return (
                f"built {show(c.low)} or later{known}"
                if c.field == "year_built"
                else f"{f.label.lower()} from {show(c.low)}{known}"
            )
        return f"{money}{show(c.low)}+{tail}{known}"
    if c.high is not None:
        return f"up to {money}{show(c.high)}{tail}{known}"
    return f"any {f.label.lower()}{known}"
