"""A search for candidates: its parts, and what is refused of them."""

from __future__ import annotations

from collections.abc import Mapping
from dataclasses import dataclass, field, replace

from ..errors import BadInput
from ..facts.dates import date_of, said
from ..facts.fields import BY_NAME, Kind
from ..facts.places.parcels import Span, check_spans
from ..facts.words import KIND_OF_STATUS, TOLD_APART, RecordKind, record_words
from ..market.columns import HOME_KINDS, RECORD_KINDS
from .shapes import Fence, Shape, check_shapes


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
    return [status.value for status in TOLD_APART if KIND_OF_STATUS[status] == kind]


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
            raise BadInput(f"windows.{kind}", f"{record_words(RecordKind(kind))}: the dates end before they start.")
        for status in window.only:
            of_kind = statuses_of(kind)
            if status not in of_kind:
                can_be = f"use {', '.join(of_kind)}" if of_kind else "it has none of its own"
                raise BadInput(
                    f"windows.{kind}.only", f"{record_words(RecordKind(kind))}: no status “{status}”; {can_be}."
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
