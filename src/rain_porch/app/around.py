"""A look with nothing kept: from any record, from a place, or from nowhere by a search alone.

It answers with what a workup's Comps room has: the homes, counts and what-ifs, figures of all found and of those ticked.
"""

from __future__ import annotations

import datetime as dt
from dataclasses import replace
from typing import Annotated
from urllib.parse import quote

import numpy as np
from pydantic import Field

from ..core.errors import BadInput, NotFound
from ..core.facts.dates import date_of
from ..core.facts.homes import Subject
from ..core.facts.house_rules import USUAL, HouseRules
from ..core.facts.words import HomeKind
from ..core.market.columns import Ints
from ..core.search import search as sr
from ..core.search.sentence import sentence
from ..documents.base import Doc, Worded
from ..documents.finding import CandidatesDoc
from ..documents.search import Place, SearchDoc
from ..documents.stored import HomeRefDoc
from ..documents.subject import SubjectDoc
from .home.homes import Home, HomeRef, read_home
from .home.photos import front_listing
from .pricing import finding
from .pricing.candidates import candidates, loosened
from .pricing.find_document import candidate_docs, subject_doc
from .pricing.standpoint import Standpoint
from .pricing.summaries import SummariesDoc, own_figures, summaries
from .snapshot import Snapshot

SHOWN = 2000  # homes listed at most, as in a workup


class LookAsk(Doc):
    """home: the record to look around; place: [longitude, latitude] to look around where no home is named; search: in place of
    the proposed one. One of the three is needed. ticked: homes whose figures are wanted beside those of all found."""

    home: HomeRefDoc | None = None
    place: Place | None = None
    search: SearchDoc | None = None
    ticked: list[Annotated[str, Field(max_length=200)]] = Field([], max_length=500)


class LookDoc(CandidatesDoc):
    """subject stands at the place, or where the search finds, without facts, when no home was named. picture: of the home's
    front, where there is one. asks: the home's own figures where it is now for sale. words: the search as one sentence."""

    effective_date: dt.date
    title: str
    words: Worded
    subject: SubjectDoc
    picture: str | None
    loosened: list[Worded]
    search: SearchDoc
    asks: dict[str, float]


def look_around(records: Snapshot, ask: LookAsk, rules: HouseRules = USUAL) -> LookDoc:
    """The homes found and what is known of them, by the house's rules. Raises NotFound for a record, BadInput for nothing to look from; a search that
    cannot be run is answered with its fault."""
    standpoint = standpoint_of(records, ask, rules)
    try:
        # all of the answer that no tick changes is worked out once
        key = ("look", ask.model_dump_json(exclude={"ticked"}), rules.changed)
        told = records.tables.get(key, lambda: _found_around(standpoint, ask))
    except (BadInput, NotFound) as error:
        search = searched(standpoint, ask)
        told = _told(standpoint, ask, search, [], finding.faulty(search, error))
    held = {c.listing_id for c in told.candidates}
    elsewhere = finding.by_key(standpoint, [k for k in ask.ticked if k not in held])
    return told.model_copy(update={"kept_elsewhere": elsewhere})


def _found_around(standpoint: Standpoint, ask: LookAsk) -> LookDoc:
    said: list[str] = []
    search = searched(standpoint, ask)
    if ask.search is None and ask.home is not None:
        search, said = loosened(standpoint, search)
    ran = standpoint.run(search)
    standpoint = _in_the_middle(standpoint, ran.rows)
    found = candidates(standpoint, ran.rows, SHOWN)
    if standpoint.nowhere:
        found.sort(key=lambda c: c.date or dt.date.min, reverse=True)
    listed = CandidatesDoc(
        **finding.counts_of(standpoint, search, ran).model_dump(), candidates=candidate_docs(standpoint, found),
        suggested=[], kept_elsewhere=[], sold_within=finding.sold_within(standpoint, search),
    )  # fmt: skip
    return _told(standpoint, ask, search, said, listed)


def _told(standpoint: Standpoint, ask: LookAsk, search: sr.Search, said: list[str], listed: CandidatesDoc) -> LookDoc:
    return LookDoc(
        **listed.model_dump(), effective_date=date_of(standpoint.view.day), title=_title(standpoint, ask), words=sentence(search),
        subject=subject_doc(standpoint.subject), picture=_picture(standpoint.records, ask.home) if ask.home else None,
        loosened=said, search=SearchDoc.of(search), asks=own_figures(standpoint, None),
    )  # fmt: skip


def figures_around(records: Snapshot, ask: LookAsk, rules: HouseRules = USUAL) -> SummariesDoc:
    """Figures of all found, and of those ticked."""
    standpoint = standpoint_of(records, ask, rules)
    try:
        rows = standpoint.run(searched(standpoint, ask)).rows
    except (BadInput, NotFound):
        rows = np.zeros(0, dtype=np.int64)
    row_of = standpoint.columns.row_of
    ticked = np.array([row_of[k] for k in dict.fromkeys(ask.ticked) if k in row_of], dtype=np.int64)
    return summaries(standpoint, rows, ticked)


def standpoint_of(records: Snapshot, ask: LookAsk, rules: HouseRules = USUAL) -> Standpoint:
    """What the look is taken from. NotFound for a record that is none, BadInput for nothing to look from."""
    day = records.effective_day(None)
    if ask.home is not None:
        return Standpoint.at(records, _home(records, ask.home).subject, day, rules)
    kinds = ask.search.home_kinds if ask.search else []
    kind = HomeKind(kinds[0]) if kinds and kinds[0] in {*HomeKind} else HomeKind.UNKNOWN
    if ask.place is not None:
        lon, lat = ask.place
        if abs(lat) > 90 or abs(lon) > 180:
            raise BadInput("place", f"{lat:g}, {lon:g} is no place: latitudes run to 90, longitudes to 180.")
        return Standpoint.at(records, Subject({}, lat, lon, kind), day, rules)
    if ask.search is None:
        raise BadInput(
            "search", "Name a home or a place to look around, or give a search: an area, a shape or a field."
        )
    return replace(Standpoint.at(records, Subject({}, *records.middle(), kind), day, rules), nowhere=True)


def searched(standpoint: Standpoint, ask: LookAsk) -> sr.Search:
    """The search that is asked for, else the one that the home proposes."""
    return ask.search.search() if ask.search else standpoint.proposed()


def _in_the_middle(standpoint: Standpoint, rows: Ints) -> Standpoint:
    """Where there is nothing to look from, the middle of what is found."""
    if not standpoint.nowhere:
        return standpoint
    return replace(standpoint, subject=Subject({}, *standpoint.records.middle(rows), standpoint.subject.home_kind))


def _title(standpoint: Standpoint, ask: LookAsk) -> str:
    if ask.home is not None:
        return standpoint.subject.address or ask.home.key
    return "Around a place" if ask.place is not None else "Homes by search"


def _home(records: Snapshot, named: HomeRefDoc) -> Home:
    ref = HomeRef(named.kind, named.key)
    return records.remember(("home", ref), lambda: read_home(records, ref))


def _picture(records: Snapshot, named: HomeRefDoc) -> str | None:
    listing = front_listing(records, _home(records, named).listings)
    return None if listing is None else f"/api/listings/{quote(listing, safe='')}/pictures/1"
