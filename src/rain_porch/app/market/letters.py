"""Bulletins: views and sentences in an order, kept by name, made anew from the newest records each time."""

from __future__ import annotations

import datetime as dt
from collections.abc import Callable
from typing import Any, ClassVar, Literal

from pydantic import Field

from ...core.errors import NotFound
from ...core.market.measures import MEASURES
from ...documents.base import Doc, StoredDoc, check_line
from ...documents.versions import read, written
from ...store.porch import kept
from ..agent import Agent
from ..snapshot import Snapshot
from . import bulletins
from . import closer_looks as looks
from .views import ViewDoc, answer, place_words, year_so_far


class LetterItemDoc(Doc):
    """One part of a letter. table: figures under the chart of a view, of so many periods; days: how far back what changed looks.
    page_break: whether it begins a page."""

    kind: Literal["view", "so_far", "bands", "changed", "headline", "prices", "pace", "places", "years", "sold"] = (
        "view"
    )
    title: str = Field(default="", max_length=120)
    comment: str = Field(default="", max_length=4000)
    view: ViewDoc
    table: bool = True
    periods: int = Field(default=4, ge=1, le=120)
    days: int = Field(default=30, ge=1, le=366)
    page_break: bool = False


class LetterDoc(StoredDoc):
    """A letter as it is kept: no figure is, so that it always tells the newest."""

    form: ClassVar[str] = "letter"

    title: str = Field(min_length=1, max_length=120, pattern=r"\S")
    comment: str = Field(default="", max_length=8000)
    items: list[LetterItemDoc] = Field(default=[], max_length=20)


class KeptLetterDoc(Doc):
    letter_id: int
    letter: LetterDoc


def letters(agent: Agent) -> list[KeptLetterDoc]:
    return [
        KeptLetterDoc(letter_id=k.kept_id, letter=read(LetterDoc, k.document))
        for k in kept.listed(agent.porch, agent.owner, kept.LETTER)
    ]


def read_letter(agent: Agent, letter_id: int) -> LetterDoc:
    return read(LetterDoc, kept.read(agent.porch, agent.owner, kept.LETTER, letter_id).document)


def letter_named(agent: Agent, title: str) -> LetterDoc:
    held = {k.name: k.document for k in kept.listed(agent.porch, agent.owner, kept.LETTER)}
    if title not in held:
        raise NotFound(f"There is no bulletin “{title}”: there are {', '.join(held) or 'none yet'}.", name=title)
    return read(LetterDoc, held[title])


def add_letter(agent: Agent, letter: LetterDoc) -> int:
    """Keep a new letter; nothing is kept of one that cannot be made."""
    _check(agent, letter)
    return kept.add(agent.porch, agent.owner, kept.LETTER, letter.title.strip(), written(letter))


def change_letter(agent: Agent, letter_id: int, letter: LetterDoc) -> None:
    _check(agent, letter)
    kept.write(agent.porch, agent.owner, kept.LETTER, letter_id, letter.title.strip(), written(letter))


def _check(agent: Agent, letter: LetterDoc) -> None:
    """Raises BadInput or NotFound for a letter that cannot be made."""
    check_line("title", letter.title)
    items_of(agent.records, letter)


def delete_letter(agent: Agent, letter_id: int) -> None:
    kept.delete(agent.porch, agent.owner, kept.LETTER, letter_id)


def items_of(records: Snapshot, letter: LetterDoc) -> list[dict[str, Any]]:
    """The letter's parts with their figures of today, as the report's pages take them."""
    return [
        {"kind": item.kind, "title": item.title or _title(item), "comment": item.comment, "table": item.table,
         "periods": item.periods, "page_break": item.page_break,
         "answer": _answer(records, item).model_dump()}
        for item in letter.items
    ]  # fmt: skip


def _answer(records: Snapshot, item: LetterItemDoc) -> Doc:
    if item.kind == "so_far":
        return year_so_far(records, item.view)
    if item.kind == "bands":
        return looks.by_bands(records, looks.BandsAsk(view=item.view))
    if item.kind in _PARTS:
        return _PARTS[item.kind](records, item.view)
    if item.kind == "changed":
        since = records.through() - dt.timedelta(days=item.days)
        return looks.changes(records, looks.ChangesAsk(view=item.view, since=since))
    return answer(records, item.view)


_PARTS: dict[str, Callable[[Snapshot, ViewDoc], Doc]] = {
    "headline": bulletins.headline, "prices": bulletins.months, "pace": bulletins.months, "places": bulletins.places,
    "years": bulletins.years, "sold": bulletins.sold_lately,
}  # fmt: skip


def ready(layout: bulletins.Ready, view: ViewDoc, title: str) -> LetterDoc:
    """A ready layout for a view, not kept."""
    return LetterDoc(title=title, items=[LetterItemDoc(**part) for part in bulletins.ready_parts(layout, view)])


def _title(item: LetterItemDoc) -> str:
    """ "Median price in Lantern Hill", "The year so far within 1 mi of 14 Ferry Lane"."""
    named = {"so_far": "The year so far", "bands": "By size and price", "changed": "What changed", "headline": "The market",
             "prices": "Prices and closings", "pace": "How fast it goes", "places": "Place by place", "years": "Three years beside each other",
             "sold": "What sold last"}  # fmt: skip
    measure = MEASURES.get(item.view.measures[0])
    title = named.get(item.kind) or (measure[0] if measure else "The market")
    place = place_words(item.view)
    return f"{title} {place}" if place else title
