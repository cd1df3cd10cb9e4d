"""Bulletins kept by name, and their parts made anew from the newest records, or from those of a past day."""

from __future__ import annotations

import datetime as dt
from collections.abc import Callable
from functools import partial
from typing import Any

from ...core.errors import BadInput, NotFound
from ...core.facts.dates import said
from ...core.market.market_rules import MarketRules
from ...core.market.measure_words import words_of
from ...core.market.measures import MEASURES, measure_label
from ...core.phrases import has_phrase, phrase
from ...documents.base import Doc, check_line
from ...documents.versions import read, written
from ...store.porch import kept
from ..market import closer_looks as looks
from ..market.views import ViewDoc, answer, place_words, year_so_far
from ..office.agent import Agent
from ..snapshot import Snapshot
from . import figures, places
from .documents import BulletinDoc, BulletinPartDoc, Ready, ready_parts
from .market_at import MarketAt


class KeptBulletinDoc(Doc):
    bulletin_id: int
    bulletin: BulletinDoc


def bulletins(agent: Agent) -> list[KeptBulletinDoc]:
    return [
        KeptBulletinDoc(bulletin_id=k.kept_id, bulletin=read(BulletinDoc, k.document))
        for k in kept.listed(agent.porch, agent.owner, kept.BULLETIN)
    ]


def read_bulletin(agent: Agent, bulletin_id: int) -> BulletinDoc:
    return read(BulletinDoc, kept.read(agent.porch, agent.owner, kept.BULLETIN, bulletin_id).document)


def bulletin_named(agent: Agent, title: str) -> BulletinDoc:
    held = {k.name: k.document for k in kept.listed(agent.porch, agent.owner, kept.BULLETIN)}
    if title not in held:
        raise NotFound(f"There is no bulletin “{title}”: there are {', '.join(held) or 'none yet'}.", name=title)
    return read(BulletinDoc, held[title])


def add_bulletin(agent: Agent, bulletin: BulletinDoc) -> int:
    """Keep a new bulletin; nothing is kept of one that cannot be made."""
    check(agent, bulletin)
    return kept.add(agent.porch, agent.owner, kept.BULLETIN, bulletin.title.strip(), written(bulletin))


def change_bulletin(agent: Agent, bulletin_id: int, bulletin: BulletinDoc) -> None:
    check(agent, bulletin)
    kept.write(agent.porch, agent.owner, kept.BULLETIN, bulletin_id, bulletin.title.strip(), written(bulletin))


def check(agent: Agent, bulletin: BulletinDoc) -> None:
    """Raises BadInput or NotFound for a bulletin that cannot be made."""
    check_line("title", bulletin.title)
    parts_of(agent.records, bulletin)


def delete_bulletin(agent: Agent, bulletin_id: int) -> None:
    kept.delete(agent.porch, agent.owner, kept.BULLETIN, bulletin_id)


def last_day(records: Snapshot, through: dt.date | None) -> dt.date:
    """The day to which a bulletin sees: that of the newest records, or a past one. Raises BadInput for one that is to come."""
    newest = records.through()
    if through is not None and through > newest:
        raise BadInput("through", f"The records end on {said(newest)}: choose that day or an earlier one.")
    return through or newest


def parts_of(
    records: Snapshot, bulletin: BulletinDoc, through: dt.date | None = None, last: dt.date | None = None
) -> list[dict[str, Any]]:
    """The bulletin's parts with their figures, as the paper's pages take them. through: as it all stood then; last: the day
    through which the bulletin was made last."""
    day = last_day(records, through)
    seen: dict[str, MarketAt] = {}  # one view's figures are worked out once
    out = []
    for part in bulletin.parts:
        key = part.view.model_dump_json()
        at = seen.setdefault(key, MarketAt(records, part.view, day))
        held = ("part of a bulletin", part.model_dump_json(), day, last)
        made = records.tables.get(held, partial(_answer, at, part, last))
        out.append(
            part.model_dump(include={"kind", "comment", "table", "periods", "page_break", "figures"})
            | {
                "title": part.title or _title(part, records.columns.rules),
                "answer": made.model_dump(),
                "view": part.view.model_dump(),
            }
        )
    return out


class WordsDoc(Doc):
    """words: (word, what it means by the house's rules)."""

    words: list[tuple[str, str]]


def _answer(at: MarketAt, part: BulletinPartDoc, last: dt.date | None) -> Doc:
    kind = part.kind
    if kind in figures.MONTHS_OF:
        return figures.months(at, kind)
    if kind in _PARTS:
        return _PARTS[kind](at)
    if kind == "heat":
        return figures.heat(at, part.view.measures[0])
    if kind == "since_last":
        return places.since(at, last)
    if kind == "so_far":
        return year_so_far(at.records, at.view, at.through)
    if kind == "bands":
        return looks.by_bands(at.records, looks.BandsAsk(view=at.view), at.through)
    if kind == "changed":
        since = at.through - dt.timedelta(days=part.days)
        return looks.changes(at.records, looks.ChangesAsk(view=at.view, since=since), at.through)
    return (
        WordsDoc(words=list(words_of(at.records.columns.rules).values()))
        if kind == "words"
        else answer(at.records, at.view, at.through)
    )


_PARTS: dict[str, Callable[[MarketAt], Doc]] = {
    "headline": figures.headline, "places": places.places, "years": figures.years, "sold": figures.sold_lately,
    "came_on": figures.came_on_lately, "market_conditions": figures.conditions,
}  # fmt: skip


def ready(layout: Ready, view: ViewDoc, title: str) -> BulletinDoc:
    """A ready layout for a view, not kept."""
    return BulletinDoc(title=title, parts=ready_parts(layout, view))


def _title(part: BulletinPartDoc, rules: MarketRules) -> str:
    """ "Median price in Lantern Hill", "The year so far within 1 mi of 14 Ferry Lane"."""
    measure = part.view.measures[0]
    label = measure_label(measure, rules) if measure in MEASURES else phrase("part-headline")
    own = f"part-{part.kind}"  # of parts that are called by what they are, not by their measure
    title = phrase(own, label=label) if has_phrase(own) else label
    place = "" if part.kind in ("words", "places") else place_words(part.view)
    return phrase("part-in-place", title=title, place=place) if place else title
