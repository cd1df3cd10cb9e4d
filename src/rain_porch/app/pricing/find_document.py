"""Homes found, as the documents that the command line prints and the interface reads."""

from __future__ import annotations

import datetime as dt
from collections.abc import Sequence

from ...core.facts.dates import date_of
from ...core.facts.homes import Candidate, Subject
from ...core.facts.house_rules import USUAL, HouseRules
from ...core.search import search as sr
from ...core.search.sentence import sentence
from ...core.statistics.summary import known
from ...documents.candidates import CandidateDoc, FindDoc
from ...documents.search import SearchDoc
from ...documents.subject import SubjectDoc
from ...store.records.homes import addresses_of
from ..home.homes import Home
from ..snapshot import Snapshot
from .candidates import candidates, loosened
from .standpoint import Standpoint


def candidate_docs(standpoint: Standpoint, found: Sequence[Candidate]) -> list[CandidateDoc]:
    shown = addresses_of(standpoint.records.db, [c.listing_id for c in found])
    lats, lons = standpoint.columns.lats, standpoint.columns.lons
    return [
        CandidateDoc(
            **{k: getattr(c, k) for k in (
                "listing_id", "kind", "distance_miles", "date", "price", "list_price", "days_on_market",
                "likeness", "known_share", "status", "paid_before_on",
            )},
            prices={name: round(value, 4) for name, value in c.prices.items()},
            price_per_sqft=None if c.price_per_sqft is None else round(c.price_per_sqft, 2),
            address=shown.get(c.listing_id, ""),
            latitude=known(lats[c.row]),
            longitude=known(lons[c.row]),
            facts=dict(c.facts),
            differences=list(c.differences),
            flags=list(c.flags),
        )
        for c in found
    ]  # fmt: skip


def subject_doc(subject: Subject) -> SubjectDoc:
    return SubjectDoc(
        address=subject.address,
        parcel_number=subject.parcel_number,
        home_kind=subject.home_kind.value,
        latitude=subject.latitude,
        longitude=subject.longitude,
        placed=subject.placed,
        facts=dict(subject.facts)
        | ({} if (baths := subject.number("bathrooms_total")) is None else {"bathrooms_total": baths}),
        assessed_year=subject.assessed_year,
    )


def find_doc(
    records: Snapshot, home: Home, as_of: dt.date | None, search: sr.Search | None, rules: HouseRules = USUAL
) -> FindDoc:
    """Candidates of a home: the given search as it is, or the proposed one, loosened until it finds enough."""
    standpoint = Standpoint.at(records, home.subject, records.effective_day(as_of), rules)
    said: list[str] = []
    if search is None:
        search, said = loosened(standpoint, standpoint.proposed())
    found = standpoint.run(search)
    return FindDoc(
        effective_date=date_of(standpoint.view.day),
        sentence=sentence(search),
        counts=dict(found.counts),
        unknown=dict(found.unknown),
        loosened=said,
        search=SearchDoc.of(search),
        candidates=candidate_docs(standpoint, candidates(standpoint, found.rows)),
    )
