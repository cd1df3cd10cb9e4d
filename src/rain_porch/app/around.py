"""What sold around here, with nothing kept: from any record, or with no home at all, by a search alone."""

from __future__ import annotations

import datetime as dt

from ..core.errors import BadInput
from ..core.facts.dates import date_of
from ..core.facts.homes import Subject
from ..core.facts.words import COUNTED, HomeKind
from ..core.market.columns import RECORD_KINDS, Ints
from ..core.market.home_figures import home_figures
from ..core.search import search as sr
from ..core.search.sentence import sentence
from ..core.statistics.summary import DISPLAY_STEP, summarise
from ..documents.base import Doc
from ..documents.search import SearchDoc
from ..documents.stored import HomeRefDoc
from ..documents.wire import CandidateDoc, SubjectDoc
from .homes import HomeRef, read_home
from .pricing.answers import candidate_docs, subject_doc
from .pricing.candidates import candidates, loosened
from .pricing.standpoint import Standpoint
from .snapshot import Snapshot

SHOWN = 500


class LookAsk(Doc):
    """home: the record to look around; search: in place of the proposed one. One of the two is needed."""

    home: HomeRefDoc | None = None
    search: SearchDoc | None = None


class FigureDoc(Doc):
    """One line of the statistics: `what` (price, price_per_sqft, living_area, days) of the homes of one kind."""

    kind: str
    what: str
    count: int
    low: float
    mean: float
    median: float
    modes: list[float]
    high: float


class LookDoc(Doc):
    """subject stands where the search finds, without facts, when no home was named. shown: how many homes are listed of
    all that were found."""

    effective_date: dt.date
    title: str
    subject: SubjectDoc
    sentence: str
    loosened: list[str]
    search: SearchDoc
    counts: dict[str, int]
    figures: list[FigureDoc]
    shown: int
    candidates: list[CandidateDoc]


def look_around(records: Snapshot, ask: LookAsk) -> LookDoc:
    """Counts, statistics and the homes themselves. Raises NotFound for a record, BadInput for a search that is none."""
    if ask.home is None and ask.search is None:
        raise BadInput("search", "Name a home to look around, or give a search: an area, a shape or a field.")
    columns, day = records.columns, records.effective_day(None)
    view = columns.as_of(day)
    search = ask.search.search() if ask.search else None
    said: list[str] = []
    if ask.home is not None:
        standpoint = Standpoint.at(records, read_home(records, HomeRef(ask.home.kind, ask.home.key)).subject, day)
        if search is None:
            search, said = loosened(standpoint, standpoint.proposed())
        rows = standpoint.run(search).rows
        title = standpoint.subject.address or ask.home.key
    else:
        assert search is not None
        rows = sr.run(search, columns, view, None, records.masks_of(search)).rows
        standpoint = Standpoint(records, columns, view, _middle(records, search, rows))
        title = "Homes by search"
    found = candidates(standpoint, rows, SHOWN)
    if ask.home is None:
        found.sort(key=lambda c: c.date or dt.date.min, reverse=True)
    return LookDoc(
        effective_date=date_of(day), title=title, subject=subject_doc(standpoint.subject), sentence=sentence(search),
        loosened=said, search=SearchDoc.of(search), counts=sr.counts_of(view, rows), figures=_figures(standpoint, rows),
        shown=len(found), candidates=candidate_docs(standpoint, found),
    )  # fmt: skip


def _middle(records: Snapshot, search: sr.Search, rows: Ints) -> Subject:
    """A place to look from where no home is named: the middle of what is found."""
    kind = HomeKind(search.home_kinds[0]) if search.home_kinds else HomeKind.UNKNOWN
    return Subject({}, *records.middle(rows), kind)


def _figures(standpoint: Standpoint, rows: Ints) -> list[FigureDoc]:
    view = standpoint.view
    told = home_figures(standpoint.columns, view, rows)
    values = {name: told[name] for name in ("price", "price_per_sqft", "living_area", "days_on_market")}
    out = []
    for kind in COUNTED:
        mine = view.kind[rows] == RECORD_KINDS.index(kind)
        for what, x in values.items():
            s = summarise(x[mine], DISPLAY_STEP[what])
            if s.count and s.low is not None and s.mean is not None and s.median is not None and s.high is not None:
                out.append(
                    FigureDoc(kind=kind.value, what=what, count=s.count, low=s.low, mean=s.mean, median=s.median,
                              modes=list(s.modes[:3]), high=s.high)
                )  # fmt: skip
    return out
