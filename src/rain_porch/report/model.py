"""What the pages are made from: one workup frozen as plain data."""

from __future__ import annotations

import datetime as dt
from collections.abc import Mapping, Sequence
from dataclasses import dataclass, field
from functools import cached_property
from typing import Any

from ..core.facts.fields import PRIVATE
from ..core.facts.local_form import USUAL, LocalForm
from ..core.facts.money import dollars
from .pictures import ink
from .pictures.base_lines import BaseLine


@dataclass(frozen=True)
class Paper:
    """What the agent wants on paper. price: shown, hidden, or blank (a ruled line to be filled in by hand)."""

    pages: Sequence[str] = ("summary", "comps", "grid")
    price: str = "shown"
    formulas: bool = True
    pictures: bool = True
    ways_left_out: Sequence[str] = ()
    title: str = ""
    letter: str = ""
    bulletin: int | None = None
    cover_price: bool = True
    facts: Sequence[str] = ()  # of the subject, in this order; none: as usual
    statistics: Sequence[str] = ()  # lines of the statistics table; none: all
    notes: Mapping[str, str] = field(default_factory=dict)  # page → a comment at its foot
    speaks_of: Mapping[str, str] = field(default_factory=dict)  # page → chosen or found; chosen where nothing is said


@dataclass(frozen=True)
class Brand:
    """How the agent's papers look. colour: the accent, made dark enough to be read; logo and portrait as SVG; form: in which figures are
    told."""

    colour: str = ink.CEDAR
    logo: str = ""
    portrait: str = ""
    size: str = "us-letter"
    form: LocalForm = USUAL


@dataclass(frozen=True)
class OwnPages:
    """What the agent adds to reports: a PDF's pages, one picture, or a page that was written (words), with pictures as SVG."""

    title: str
    path: str
    pages: int
    words: str | None = None
    pictures: Sequence[str] = ()


@dataclass(frozen=True)
class ReportInput:
    """A workup as its pages need it. subject, price, comps and around are the JSON documents of the same names.

    comps: the sales kept. chosen: all that are kept, the comps first, then those under contract, for sale and failed; a home's
    place in it is its number on every page. around: all that the search finds except what was set aside, the most alike first.
    counts: of all found by kind, without what was set aside. aside: what was, with its reason: given to the appraiser's page
    alone. pictures: SVG by listing number, the subject's under "". inside: (caption, SVG) by listing number, the subject's under
    "". past: what happened to the home. asking: the ask at the list price. sheets: net proceeds by scenario, lines of (label,
    amount). market: parts of a bulletin of the home's own place and kind.
    """

    title: str
    client: str
    made_on: dt.date
    subject: Mapping[str, Any]
    price: Mapping[str, Any]
    comps: Sequence[Mapping[str, Any]]
    around: Sequence[Mapping[str, Any]]
    counts: Mapping[str, int]
    grid: Sequence[Mapping[str, Any]]
    list_price: float | None
    through: dt.date
    base_map: Mapping[str, Any] | Sequence[BaseLine]
    chosen: Sequence[Mapping[str, Any]] = ()
    aside: Sequence[Mapping[str, Any]] = ()
    inside: Mapping[str, Sequence[tuple[str, str]]] = field(default_factory=dict)
    damaged: Sequence[str] = ()  # homes whose picture cannot be read: told to the agent, never printed
    done: Sequence[str] = ()  # what was done to the home, in words
    assumed: Sequence[Sequence[str]] = ()  # what the net proceeds stand on: a label, and its value in each scenario
    paper: Paper = field(default_factory=Paper)
    agent: Mapping[str, str] = field(default_factory=dict)  # name, licence, phone, email, contact
    pictures: Mapping[str, str] = field(default_factory=dict)
    past: Sequence[Mapping[str, Any]] = ()
    asking: Mapping[str, Any] | None = None
    recommendation: str = ""
    knows_listings: bool = (
        True  # whether the records hold homes for sale at all: where not, that none is found says nothing
    )
    width: float = ink.WIDE  # of the pictures as wide as the page, in points
    own_words: str = ""  # the recommendation, where the agent wrote one
    sheets: Sequence[Sequence[tuple[str, str]]] = ()
    market: Sequence[Mapping[str, Any]] = ()
    sources: Sequence[str] = ()  # where the records came from, with the newest day of each
    tour: Mapping[str, Any] | None = None
    housing: Mapping[str, Any] | None = None
    while_for_sale: Mapping[str, Any] | None = None  # app/workup/while_for_sale.py; none where it is not for sale
    brand: Brand = field(default_factory=lambda: Brand())
    own_pages: Mapping[str, OwnPages] = field(default_factory=dict)
    bulletin: Sequence[dict[str, Any]] = ()  # pages of the letter that goes with the report

    def ways(self) -> list[list[str]]:
        """Label, formula and value of each way to the number that the client is to see; none where the price is not shown."""
        if self.paper.price != "shown":
            return []
        return [
            [m["label"], m["formula"] if self.paper.formulas else "", dollars(m["shown"])]
            for m in self.price["methods"]
            if m["name"] not in self.paper.ways_left_out
        ]

    def number_of(self, listing_id: str) -> int | None:
        """The number of a chosen home on every page; None for one that is not chosen."""
        return self.numbers.get(listing_id)

    @cached_property
    def numbers(self) -> dict[str, int]:
        """Number by listing of each chosen home."""
        return {c["listing_id"]: n for n, c in enumerate(self.chosen, 1)}

    def front_of(self, listing_id: str) -> str:
        """A home's picture, "" where there is none or none is wanted."""
        return self.pictures.get(listing_id, "") if self.paper.pictures else ""

    def __post_init__(self) -> None:
        """No private field may ever come this far."""
        for record in (self.subject, *self.comps, *self.chosen, *self.around, *self.aside):
            leaked = PRIVATE & set(record.get("facts", {}))
            if leaked:
                raise ValueError(f"private fields in a report: {sorted(leaked)}")
