"""A search as a document: its criteria, windows, drawn areas and fences."""

from __future__ import annotations

import datetime as dt
from typing import Annotated

from pydantic import Field

from ..core.errors import BadInput
from ..core.facts.dates import date_of, day_of
from ..core.facts.fields import BY_NAME, Kind
from ..core.facts.places import parcels as parcel_spans
from ..core.search import search as sr
from ..core.search.shapes import Fence, Point, Shape
from .base import Doc, FiniteNumber


class CriterionDoc(Doc):
    """One field's limits. The ends are numbers; of a field of dates they are dates."""

    field: str
    low: FiniteNumber | dt.date | None = None
    high: FiniteNumber | dt.date | None = None
    words: list[str] = []
    must_be_known: bool = False

    @classmethod
    def of(cls, c: sr.Criterion) -> CriterionDoc:
        low, high = ((date_of(int(x)) if _dated(c.field) and x is not None else x) for x in (c.low, c.high))
        return cls(field=c.field, low=low, high=high, words=list(c.words), must_be_known=c.must_be_known)

    def criterion(self) -> sr.Criterion:
        """The criterion as the core has it. Raises BadInput where a date stands for a number, or the other way round."""
        low, high = (self._end(x) for x in (self.low, self.high))
        return sr.Criterion(self.field, low, high, tuple(self.words), self.must_be_known)

    def _end(self, value: float | dt.date | None) -> float | None:
        if value is not None and isinstance(value, dt.date) != _dated(self.field):
            wanted = "a date, such as 2026-03-31" if _dated(self.field) else "a number"
            raise BadInput(f"criteria.{self.field}", f"“{value}” is no end of this field: give {wanted}.")
        return float(day_of(value)) if isinstance(value, dt.date) else value


def _dated(field: str) -> bool:
    return field in BY_NAME and BY_NAME[field].kind == Kind.DATE


class WindowDoc(Doc):
    """days back from the effective date, or dates (both included). only: standard statuses, where not the whole kind."""

    on: bool = True
    days: int | None = None
    since: dt.date | None = None
    until: dt.date | None = None
    only: Annotated[list[str], Field(max_length=9)] = []

    @classmethod
    def of(cls, w: sr.Window) -> WindowDoc:
        since, until = (None if day is None else date_of(day) for day in (w.since, w.until))
        return cls(on=w.on, days=w.days, since=since, until=until, only=list(w.only))

    def window(self) -> sr.Window:
        since, until = (None if day is None else day_of(day) for day in (self.since, self.until))
        return sr.Window(self.on, self.days, since, until, tuple(self.only))


Place = Annotated[list[FiniteNumber], Field(min_length=2, max_length=2)]


class ShapeDoc(Doc):
    """A drawn polygon, or with radius_miles a circle round its one point; points are [longitude, latitude].

    inside: look within it; else leave out what lies within it.
    """

    points: list[Place] = Field(min_length=1, max_length=5000)
    radius_miles: FiniteNumber | None = None
    inside: bool = True
    name: str = Field("", max_length=100)

    def shape(self) -> Shape:
        return Shape(_points(self.points), self.radius_miles, self.inside, self.name)


class FenceDoc(Doc):
    """Lines of [longitude, latitude] that the straight way from the home to a comp must not touch."""

    lines: list[list[Place]] = Field(min_length=1, max_length=500)
    name: str = Field("", max_length=100)


def _points(places: list[Place]) -> tuple[Point, ...]:
    return tuple((lon, lat) for lon, lat in places)


class SearchDoc(Doc):
    """A search; `find --json` gives it back under `search`, and `--search FILE` takes it."""

    home_kinds: list[str] = []
    radius_miles: FiniteNumber | None = 1.0
    areas: list[str] = []
    not_areas: list[str] = []
    shapes: list[ShapeDoc] = []
    fences: list[FenceDoc] = []
    parcels: Annotated[list[str], Field(min_length=2, max_length=2)] | None = None  # first and last
    parcel_numbers: str = Field(default="", max_length=4000)  # numbers, blocks and ranges as people type them
    windows: dict[str, WindowDoc] = {k.value: WindowDoc(on=w.on, days=w.days) for k, w in sr.DEFAULT_WINDOWS.items()}  # type: ignore[attr-defined]
    criteria: list[CriterionDoc] = []
    leave_out_new_construction: bool = True
    arms_length_only: bool = True
    leave_out_distressed: bool = False

    @classmethod
    def of(cls, search: sr.Search) -> SearchDoc:
        return cls(
            home_kinds=list(search.home_kinds),
            radius_miles=search.radius_miles,
            areas=list(search.areas),
            not_areas=list(search.not_areas),
            shapes=[
                ShapeDoc(points=[list(p) for p in s.points], radius_miles=s.radius_miles, inside=s.inside, name=s.name)
                for s in search.shapes
            ],
            fences=[FenceDoc(lines=[[list(p) for p in line] for line in f.lines], name=f.name) for f in search.fences],
            parcels=list(search.parcels[0]) if len(search.parcels) == 1 else None,
            parcel_numbers=parcel_spans.words(search.parcels) if len(search.parcels) > 1 else "",
            windows={str(k): WindowDoc.of(w) for k, w in search.windows.items()},
            criteria=[CriterionDoc.of(c) for c in search.criteria],
            leave_out_new_construction=search.leave_out_new_construction,
            arms_length_only=search.arms_length_only,
            leave_out_distressed=search.leave_out_distressed,
        )

    def search(self) -> sr.Search:
        """The search as the core has it. Raises BadInput for limits that make no sense."""
        out = sr.Search(
            home_kinds=tuple(self.home_kinds),
            radius_miles=self.radius_miles,
            areas=tuple(self.areas),
            not_areas=tuple(self.not_areas),
            shapes=tuple(s.shape() for s in self.shapes),
            fences=tuple(Fence(tuple(_points(line) for line in f.lines), f.name) for f in self.fences),
            parcels=(
                *([(self.parcels[0], self.parcels[1])] if self.parcels else []),
                *parcel_spans.read_spans(self.parcel_numbers),
            ),
            windows={k: w.window() for k, w in self.windows.items()},
            criteria=tuple(c.criterion() for c in self.criteria),
            leave_out_new_construction=self.leave_out_new_construction,
            arms_length_only=self.arms_length_only,
            leave_out_distressed=self.leave_out_distressed,
        )
        sr.check(out)
        return out
