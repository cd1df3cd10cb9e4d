"""What a computation looks from: the subject, the day, and the market as it was then."""

from __future__ import annotations

from collections.abc import Callable
from dataclasses import dataclass

import numpy as np

from ...core.facts.dates import date_of
from ...core.facts.homes import Subject
from ...core.facts.house_rules import USUAL, HouseRules
from ...core.facts.places.place import miles, near_miles
from ...core.market.columns import HOME_KINDS, SOLD, AsOf, Columns, Floats, Ints
from ...core.search import matching as mt
from ...core.search import proposed as pr
from ...core.search import search as sr
from ...core.search.likeness import Likeness, days_since, likeness
from ...core.statistics.summary import known
from ..snapshot import Snapshot


@dataclass(frozen=True)
class Standpoint:
    """Everything a computation stands on: the market, its view at a day, and the subject."""

    records: Snapshot
    columns: Columns
    view: AsOf
    subject: Subject
    distressed: float | None = None  # share of distressed sales, where it has been counted already
    rules: HouseRules = USUAL
    nowhere: bool = False  # no home and no place was named: the subject stands in the middle of what is found

    @classmethod
    def at(cls, records: Snapshot, subject: Subject, day: int, rules: HouseRules = USUAL) -> Standpoint:
        columns = records.columns
        return cls(records, columns, columns.as_of(day), columns.ranked(subject), rules=rules)

    @property
    def seen_from(self) -> Subject | None:
        """The subject as a search sees it: None where there is none."""
        return None if self.nowhere else self.subject

    def distressed_share(self) -> float:
        """Share of distressed ones among the year's sales of the subject's kind; 0 where there are none."""
        rows = self.view.rows_since(SOLD, self.view.day - 365)
        rows = rows[self.columns.home_kind[rows] == HOME_KINDS.index(self.subject.home_kind)]
        return float(self.columns.distressed[rows].mean()) if rows.size else 0.0

    def run(self, search: sr.Search) -> mt.Found:
        sr.check(search)
        return mt.run(search, self.columns, self.view, self.seen_from, self.records.masks_of(search))

    def likeness(self, rows: Ints) -> tuple[Floats, Floats, Floats]:
        """(score, known share, distance in miles) of rows."""
        like, far = self._likeness(rows)
        return like.score, like.known, far

    def likeness_roughly(self, rows: Ints) -> Floats:
        """The score by distances within 0.01 %, which take a third of the time: to weigh many searches by."""
        return self._likeness(rows, near_miles)[0].score

    def _likeness(self, rows: Ints, miles_of: Callable[..., Floats] = miles) -> tuple[Likeness, Floats]:
        s, c = self.subject, self.columns
        far = miles_of(s.latitude, s.longitude, c.lats[rows], c.lons[rows])
        if not s.placed:
            far = np.full(len(rows), np.nan)
        return likeness(s, c, rows, far, days_since(self.view.date[rows], self.view.day), self.rules), far

    def likeness_parts(self, row: int) -> dict[str, tuple[float | None, float]]:
        """Each part of one record's likeness, 0 to 1 (None where unknown), with its share of the whole weight."""
        like, _ = self._likeness(np.array([row], dtype=np.int64))
        whole = sum(like.weights.values())
        return {name: (known(float(part[0])), like.weights[name] / whole) for name, part in like.parts.items()}

    def proposed(self) -> sr.Search:
        share = self.distressed_share() if self.distressed is None else self.distressed
        return pr.proposed_search(self.subject, date_of(self.view.day).year, share, self.rules)
