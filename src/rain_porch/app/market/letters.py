"""Market letters: views and sentences in an order, kept by name, made anew from the newest records each time."""

from __future__ import annotations

import datetime as dt
from typing import Any, ClassVar, Literal

from pydantic import Field

from ...core.errors import NotFound
from ...core.market.measures import MEASURES
from ...documents.base import Doc, StoredDoc, check_line
from ...documents.versions import read, written
from ...report.pages.letter import letter_pages
from ...report.papers import letter_document
from ...store.porch import kept
from ..agent import Agent
from ..choices import agent_card
from ..snapshot import Snapshot
from . import closer_looks as looks
from .views import ViewDoc, answer, place_words, year_so_far


class LetterItemDoc(Doc):
    """One part of a letter. table: figures under the chart of a view, of so many periods; days: how far back what changed looks."""

    kind: Literal["view", "so_far", "bands", "changed"] = "view"
    title: str = Field(default="", max_length=120)
    comment: str = Field(default="", max_length=4000)
    view: ViewDoc
    table: bool = True
    periods: int = Field(default=4, ge=1, le=120)
    days: int = Field(default=30, ge=1, le=366)


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
        raise NotFound(f"There is no letter “{title}”: there are {', '.join(held) or 'none yet'}.", name=title)
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
         "periods": item.periods,
         "answer": _answer(records, item).model_dump()}
        for item in letter.items
    ]  # fmt: skip


def letter_model(agent: Agent, letter: LetterDoc) -> dict[str, Any]:
    """The document model from which PDF, pictures and web page are made."""
    pages = letter_pages(letter.title, letter.comment, items_of(agent.records, letter))
    by = agent_card(agent).get("name", "")
    return letter_document(letter.title, by, agent.now().date(), agent.records.through(), pages)


def _answer(records: Snapshot, item: LetterItemDoc) -> Doc:
    if item.kind == "so_far":
        return year_so_far(records, item.view)
    if item.kind == "bands":
        return looks.by_bands(records, looks.BandsAsk(view=item.view))
    if item.kind == "changed":
        since = records.through() - dt.timedelta(days=item.days)
        return looks.changes(records, looks.ChangesAsk(view=item.view, since=since))
    return answer(records, item.view)


def _title(item: LetterItemDoc) -> str:
    """ "Median price in Lantern Hill", "The year so far within 1 mi of 14 Ferry Lane"."""
    named = {"so_far": "The year so far", "bands": "By size and price", "changed": "What changed"}
    measure = MEASURES.get(item.view.measures[0])
    title = named.get(item.kind) or (measure[0] if measure else "The market")
    place = place_words(item.view)
    return f"{title} {place}" if place else title
