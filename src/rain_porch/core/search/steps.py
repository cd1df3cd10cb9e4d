"""A search one step looser or tighter: what-if counts, and loosening until enough is found."""

from __future__ import annotations

from collections.abc import Callable, Mapping, Sequence
from dataclasses import dataclass, replace
from typing import Protocol

import numpy as np

from ..facts.fields import BY_NAME, Kind
from ..facts.homes import Subject
from ..facts.house_rules import USUAL
from ..facts.words import RecordKind, record_words
from ..market.columns import SOLD, AsOf, Columns, Floats, Ints
from ..phrases import phrase
from .matching import NO_MASKS, Found, Masks, Refusals, counts_of, let_through, parts, run, window_rows
from .search import Criterion, Search
from .sentence import any_words, criterion_words, last_days, within_words

_WINDOW = "windows.sold"
RADIUS_STEPS = (0.25, 0.5, 0.75, 1.0, 1.25, 1.5, 2.0, 3.0, 5.0, 10.0, 15.0, 25.0)
DAYS_STEPS = (30, 60, 90, 120, 180, 270, 365, 545, 730, 1095, 1460, 1825, 3650)


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
        out.append(Step("radius_miles", within_words(r), replace(search, radius_miles=r)))
    sold = search.windows.get(RecordKind.SOLD)
    if sold and sold.on and sold.days is not None and sold.since is None and sold.until is None:
        days = _next(tuple(float(d) for d in DAYS_STEPS), sold.days, looser)
        if days is not None:
            out.append(
                Step(
                    _WINDOW,
                    phrase("search-when", what=record_words(RecordKind.SOLD), when=last_days(int(days))),
                    search.with_days("sold", int(days)),
                )
            )
    for c in search.criteria:
        wider = _stepped(c, looser)
        if wider is not None:
            out.append(Step(c.field, criterion_words(wider), search.with_criterion(wider)))
        elif looser:
            out.append(Step(c.field, any_words(c.field), search.without_criterion(c.field)))
    if looser and search.leave_out_new_construction:
        let_in = replace(search, leave_out_new_construction=False)
        out.append(Step("leave_out_new_construction", phrase("step-new-construction"), let_in))
    if looser and search.leave_out_distressed:
        let_in = replace(search, leave_out_distressed=False)
        out.append(Step("leave_out_distressed", phrase("step-distressed-sales"), let_in))
    return out


def _stepped(c: Criterion, looser: bool) -> Criterion | None:
    """A range moved out (in) by its field's step at both ends; None where no step is left, as for words."""
    f = BY_NAME[c.field]
    step = 30.0 if f.kind == Kind.DATE else f.step
    if c.low is None and c.high is None:
        return None
    if c.low is not None and c.high is not None:
        half = (c.high - c.low) / 2
        if not looser and half <= step:
            return None
        step = max(step, round(half * 0.2 / step) * step)
        if looser and c.low - step <= 0:
            return None
    elif looser and c.low is not None and c.low - step <= 0:
        return None
    sign = 1 if looser else -1
    return replace(
        c,
        low=None if c.low is None else max(0.0, c.low - sign * step),
        high=None if c.high is None else c.high + sign * step,
    )


WITHOUT_STEPS = ("shapes", "fences", "areas", "not_areas", "parcels")  # parts that can be let go, not loosened


@dataclass(frozen=True)
class WhatIf:
    """What one part's next looser and tighter step, and no limit at all, would find: words and counts by kind."""

    part: str
    looser: tuple[str, Mapping[str, int]] | None
    tighter: tuple[str, Mapping[str, int]] | None
    without: Mapping[str, int] | None


def what_if(
    search: Search,
    columns: Columns,
    view: AsOf,
    subject: Subject | None = None,
    masks: Masks = NO_MASKS,
    found: Found | None = None,
) -> dict[str, WhatIf]:
    """For each part of the search, the counts one step looser, one tighter, and without it, all else equal.

    found: what the search itself finds, where that is known already. Its steps are told from that.
    """
    found = found or run(search, columns, view, subject, masks)
    looser = {s.part: s for s in steps(search, True)}
    tighter = {s.part: s for s in steps(search, False)}

    def more(step: Step) -> tuple[str, Mapping[str, int]]:
        rows = gained(search, step, found.refused, columns, view, subject, masks)
        return step.words, counts_of(view, np.concatenate([found.rows, rows]))

    def fewer(step: Step) -> tuple[str, Mapping[str, int]]:
        return step.words, counts_of(view, _left(step, found.rows, columns, view, subject, masks))

    return {
        part: WhatIf(
            part,
            more(looser[part]) if part in looser else None,
            fewer(tighter[part]) if part in tighter else None,
            found.without.get(part),
        )
        for part in dict.fromkeys([*looser, *tighter, *(p for p in found.without if p in WITHOUT_STEPS)])
    }


def gained(
    search: Search, step: Step, refused: Refusals, columns: Columns, view: AsOf, subject: Subject | None, masks: Masks
) -> Ints:
    """What a looser step adds to a search, in no order: of a part, what it alone refuses and its looser self lets through; of the
    window of sales, those of the days that it gains. refused, masks: of the search."""
    if step.part != _WINDOW:
        return _passing(step, refused.by_alone(step.part), columns, subject, masks)
    window = search.windows[RecordKind.SOLD]
    was, now = window.days, step.search.windows[RecordKind.SOLD].days
    assert was is not None and now is not None  # a window with days is what this step widens
    days = replace(window, days=None, since=view.day - now, until=view.day - was - 1)
    more = replace(search, windows={RecordKind.SOLD: days})
    return let_through(more, columns, window_rows(more, columns, view), subject, masks)


def _left(step: Step, rows: Ints, columns: Columns, view: AsOf, subject: Subject | None, masks: Masks) -> Ints:
    """What a tighter step leaves of what a search finds."""
    if step.part != _WINDOW:
        return _passing(step, rows, columns, subject, masks)
    now = step.search.windows[RecordKind.SOLD].days
    assert now is not None
    return np.asarray(rows[(view.kind[rows] != SOLD) | (view.date[rows] >= view.day - now)])


def _passing(step: Step, rows: Ints, columns: Columns, subject: Subject | None, masks: Masks) -> Ints:
    """Those of some rows that the stepped part lets through; all where it has been let go."""
    others = {name: mask for name, mask in masks.items() if name != step.part}
    part = parts(step.search, columns, subject, others).get(step.part)
    return rows if part is None else np.asarray(rows[part(rows)])


class Sales(Protocol):
    """The sales that searches find, in the order of the records, and those that each of some steps adds to a search."""

    def found(self, search: Search) -> Ints: ...
    def added(self, search: Search, options: Sequence[Step]) -> list[Ints]: ...


def loosened_until_enough(
    search: Search, sales: Sales, likeness_of: Callable[[Ints], Floats], aim: int = USUAL.whole("search.fewest")
) -> tuple[Search, list[str]]:
    """Loosen one step at a time until at least `aim` sales are found; returns the search and each step in words.

    Of the steps that can be taken, the one that adds the most alike sales is: the largest total likeness of the
    best sales that it adds, counting no more than are still missing. Steps that add nothing are taken together
    when none adds anything.
    """
    said: list[str] = []
    count = sales.found(search).size
    for _ in range(40):
        missing = aim - count
        options = steps(search, looser=True) if missing > 0 else []
        if not options:
            break
        added = sales.added(search, options)
        best = adds_most_alike(added, missing, likeness_of)
        if best is None:
            for step in options:
                search = _merge(search, step)
                said.append(step.words)
            count = sales.found(search).size
            continue
        count += added[best].size
        search = options[best].search
        said.append(options[best].words)
    return search, said


def adds_most_alike(added: Sequence[Ints], missing: int, likeness_of: Callable[[Ints], Floats]) -> int | None:
    """Which of several sets of sales has the largest total likeness of its best, no more of them than are missing; None where all
    are empty."""
    every = np.unique(np.concatenate(added)) if added else np.zeros(0, dtype=np.int64)
    if not every.size:
        return None
    score = likeness_of(every)
    gains = [float(np.sort(score[np.searchsorted(every, rows)])[::-1][:missing].sum()) for rows in added]
    return max((k for k, rows in enumerate(added) if rows.size), key=lambda k: gains[k])


def _merge(search: Search, step: Step) -> Search:
    """Apply the one part that `step` changes to a search that other steps have changed already."""
    if step.part == "radius_miles":
        return replace(search, radius_miles=step.search.radius_miles)
    if step.part == _WINDOW:
        return replace(search, windows={**search.windows, "sold": step.search.windows["sold"]})
    if step.part == "leave_out_new_construction":
        return replace(search, leave_out_new_construction=False)
    if step.part == "leave_out_distressed":
        return replace(search, leave_out_distressed=False)
    wider = step.search.criterion(step.part)
    return search.with_criterion(wider) if wider else search.without_criterion(step.part)
