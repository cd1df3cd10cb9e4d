"""What a search finds, would find and could be, as documents: the same for a workup and for a look with nothing kept."""

from __future__ import annotations

from .base import Doc, Worded
from .candidates import CandidateDoc
from .search import CriterionDoc, SearchDoc


class PhraseDoc(Doc):
    text: Worded
    part: str | None


class StepDoc(Doc):
    words: Worded
    counts: dict[str, int]


class WhatIfDoc(Doc):
    part: str
    looser: StepDoc | None
    tighter: StepDoc | None
    without: dict[str, int] | None


class SearchFault(Doc):
    """Why a search cannot be run, and which part of it is to blame, "" where none can be named."""

    part: str
    message: Worded


class CountsDoc(Doc):
    """crossings: where drawn outlines cross themselves, (longitude, latitude). fault: why nothing could be counted."""

    counts: dict[str, int]
    unknown: dict[str, int]
    sentence: list[PhraseDoc]
    what_if: list[WhatIfDoc]
    crossings: list[list[float]]
    fault: SearchFault | None = None


class CandidatesDoc(CountsDoc):
    """kept_elsewhere: chosen homes that the search does not find. suggested: what Rain Porch would keep."""

    candidates: list[CandidateDoc]
    kept_elsewhere: list[CandidateDoc]
    suggested: list[str]
    sold_within: dict[int, int]


class FieldSpreadDoc(Doc):
    """bins: counts from low to high, the outer ones with all beyond; words: counts of each."""

    low: float | None
    high: float | None
    bins: list[int]
    words: dict[str, int]
    unknown: int


class HelpDoc(Doc):
    words: Worded
    search: SearchDoc
    sold: int


class ProposalsDoc(Doc):
    """fields: for each field the criterion that homes like this one meet; helps: where too few or many are found."""

    proposed: SearchDoc
    everything: SearchDoc
    fields: dict[str, CriterionDoc]
    helps: HelpDoc | None


class LikenessPartDoc(Doc):
    """likeness: 0 to 1, None where it is unknown on either side. weight: share of the whole."""

    field: str
    label: str
    likeness: float | None
    weight: float
