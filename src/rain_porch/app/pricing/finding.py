"""What a search finds from a standpoint, as documents: counts, what-ifs, spreads, proposals, the homes themselves.

The same for a workup and for a look with nothing kept.
"""

from __future__ import annotations

from collections.abc import Sequence
from dataclasses import replace
from typing import Any

import numpy as np

from ...core.errors import BadInput, NotFound
from ...core.facts.fields import BY_NAME, CATALOGUE, line_label
from ...core.facts.words import COUNTED
from ...core.market.columns import SOLD
from ...core.search import matching as mt
from ...core.search import search as sr
from ...core.search import steps
from ...core.search.proposals import helps_most, match_everything, matching
from ...core.search.sentence import parts
from ...core.search.shapes import crossings
from ...core.search.spread import spread
from ...documents.candidates import CandidateDoc
from ...documents.finding import (
    CandidatesDoc,
    CountsDoc,
    FieldSpreadDoc,
    HelpDoc,
    LikenessPartDoc,
    PhraseDoc,
    ProposalsDoc,
    SearchFault,
    StepDoc,
    WhatIfDoc,
)
from ...documents.search import CriterionDoc, SearchDoc
from .candidates import candidates, sales_of
from .find_document import candidate_docs
from .standpoint import Standpoint

THIN_DAYS = (90, 120, 180, 365, 730)


def counts_of(standpoint: Standpoint, search: sr.Search, found: mt.Found | None = None) -> CountsDoc:
    """What a search finds and would find. BadInput, NotFound for one that cannot be run. found: where it was run already."""
    found = found or standpoint.run(search)
    masks = standpoint.records.masks_of(search)
    what_if = steps.what_if(search, standpoint.columns, standpoint.view, standpoint.seen_from, masks, found)

    def step(given: Any) -> StepDoc | None:
        return None if given is None else StepDoc(words=given[0], counts=dict(given[1]))

    return CountsDoc(
        counts=dict(found.counts), unknown=dict(found.unknown),
        sentence=[PhraseDoc(text=p.text, part=p.part) for p in parts(search)],
        what_if=[
            WhatIfDoc(part=w.part, looser=step(w.looser), tighter=step(w.tighter), without=None if w.without is None else dict(w.without))
            for w in what_if.values()
        ],
        crossings=[list(p) for shape in search.shapes if shape.radius_miles is None for p in crossings(shape.points)],
    )  # fmt: skip


def faulty(search: sr.Search, error: BadInput | NotFound, elsewhere: Sequence[CandidateDoc] = ()) -> CandidatesDoc:
    """What is shown of a search that cannot be run: its sentence, why it fails, and what has been chosen."""
    if isinstance(error, BadInput):
        part = error.field.removeprefix("criteria.")
    else:
        part = "not_areas" if error.values.get("name") in search.not_areas else "areas"
    return CandidatesDoc(
        counts={kind.value: 0 for kind in COUNTED}, unknown={}, what_if=[], crossings=[],
        sentence=[PhraseDoc(text=p.text, part=p.part) for p in parts(search)],
        fault=SearchFault(part=part, message=error.message),
        candidates=[], kept_elsewhere=list(elsewhere), suggested=[], sold_within={},
    )  # fmt: skip


def by_key(standpoint: Standpoint, keys: Sequence[str]) -> list[CandidateDoc]:
    """Homes named by their numbers, whatever a search says; those that the records do not have are left out."""
    row_of = standpoint.columns.row_of
    rows = [row_of[k] for k in keys if k in row_of]
    found = candidates(standpoint, np.array(rows, dtype=np.int64)) if rows else []
    return candidate_docs(standpoint, found)


def sold_within(standpoint: Standpoint, search: sr.Search) -> dict[int, int]:
    """How many sales the search would find by how far back it looks: counted in one, the longest look."""
    longest = replace(search, windows={"sold": sr.Window(days=max(THIN_DAYS))})
    rows = standpoint.run(longest).rows
    ages = standpoint.view.day - standpoint.view.date[rows[standpoint.view.kind[rows] == SOLD]]
    return {days: int((ages <= days).sum()) for days in THIN_DAYS}


def spread_of(standpoint: Standpoint, search: sr.Search, field: str) -> FieldSpreadDoc:
    """One field over the homes that the search would find without its limit on it."""
    told = spread(standpoint.columns, standpoint.run(search.without_criterion(field)).rows, field)
    return FieldSpreadDoc(
        low=told.low, high=told.high, bins=list(told.bins), words=dict(told.words), unknown=told.unknown
    )


def proposals_for(standpoint: Standpoint, search: sr.Search) -> ProposalsDoc:
    """The search that the home itself suggests, one with every fact of it, and the change that helps most now."""
    best = helps_most(search, sales_of(standpoint), standpoint.likeness_roughly, standpoint.rules)
    subject, rules = standpoint.subject, standpoint.rules
    return ProposalsDoc(
        proposed=SearchDoc.of(standpoint.proposed()), everything=SearchDoc.of(match_everything(search, subject, rules)),
        fields={
            f.name: CriterionDoc.of(c)
            for f in (*CATALOGUE, *(BY_NAME[name] for name in standpoint.columns.own))
            if f.searched and (c := matching(f.name, f.kind, subject, rules))
        },
        helps=None if best is None else HelpDoc(words=best[0].words, search=SearchDoc.of(best[0].search), sold=best[1]),
    )  # fmt: skip


def likeness_of(standpoint: Standpoint, listing_id: str) -> list[LikenessPartDoc]:
    """How alike one home is, part by part, the weightiest first. NotFound for a number that is none."""
    row = standpoint.columns.row_of.get(listing_id)
    if row is None:
        raise NotFound(f"No listing has the number {listing_id}.", listing=listing_id)
    told = {"distance": "Distance", "days_since": "Days since the sale"}
    parts = [
        LikenessPartDoc(field=name, label=told.get(name) or line_label(name), likeness=like, weight=weight)
        for name, (like, weight) in standpoint.likeness_parts(row).items()
    ]
    return sorted(parts, key=lambda p: -p.weight)
