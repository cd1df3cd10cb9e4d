"""A file before anything is read of it in earnest: its kind, its first rows, how it would be mapped."""

from __future__ import annotations

import json
import sqlite3
from collections import Counter
from collections.abc import Mapping, Sequence
from dataclasses import dataclass, field, replace
from pathlib import Path
from typing import Any

from ..core.errors import Refused
from ..core.facts.fields import Field, own_field
from ..core.facts.keys import made_key
from ..core.facts.people import WHO_LIVES_THERE, tells_who_lives_there
from ..core.facts.words import plain
from ..core.intake.cells import Profile, profiles_of
from ..core.intake.kinds import kind_of
from ..store.records.incoming import imports as store
from . import areas
from .files import readers
from .import_result import ColumnLeft, ColumnTaken, WordRead, words_read
from .mapping import column_forms, mapping, proposing
from .mapping.column_forms import FormRead, FormsAsked
from .mapping.layouts import LAYOUTS, Layout, recognise
from .pictures import photos

SAMPLE_ROWS = 1000


@dataclass(frozen=True)
class Preview:
    """A file before anything is read of it in earnest: its kind, its first rows, and how it would be mapped.

    remembered: the mapping is the one last used for this source and these columns. usual: the forms of its columns then.
    """

    kind: str
    columns: list[str]
    sample: list[list[str]]
    parts: tuple[mapping.Part, ...]
    guesses: list[proposing.Guess]
    remembered: bool
    usual: Mapping[str, str] = field(default_factory=dict)
    profiles: Sequence[Profile] = ()


def fields_of(kind: str) -> tuple[Field, ...]:
    return LAYOUTS[kind].fields if kind in LAYOUTS else ()


def preview(
    db: sqlite3.Connection, path: Path, source: str, kind: str | None = None, chosen: Mapping[str, Any] | None = None
) -> Preview:
    """How a file would be read. chosen: the mapping that was looked at last, in place of one that is remembered. Raises Refused for one that cannot be used."""
    if kind == "photos" or (kind is None and photos.are_in(path)):
        return Preview("photos", [], [], (), [], False)
    if kind == "areas" or (kind is None and areas.is_geojson(path)):
        return Preview("areas", [], [], (), [], False)
    columns, sample = first_rows(path)
    profiles = profiles_of(len(columns), sample)
    kind = kind or kind_of_table(columns, profiles)
    if kind is None or kind not in LAYOUTS:
        raise Refused(
            f"{path.name}: its columns ({', '.join(columns[:12])} …) are those of no kind of file; "
            f"say which it is: {', '.join([*LAYOUTS, 'areas', 'photos'])}."
        )
    fields = LAYOUTS[kind].fields
    guesses = proposing.Proposal(columns, fields, profiles, kind).guesses()
    held = store.remembered_mapping(db, source, kind, columns_key(columns))
    parts = _chosen(chosen, columns, fields)
    if not parts:
        parts = mapping.read_mapping(json.loads(held), columns, fields) if held else proposing.taken(guesses)
    usual = {p.field: p.form for p in parts if p.form}
    parts = tuple(replace(p, form="") for p in parts)  # judged anew: a source may change its ways
    return Preview(kind, columns, sample, parts, guesses, held is not None and chosen is None, usual, profiles)


def _chosen(
    chosen: Mapping[str, Any] | None, columns: Sequence[str], fields: Sequence[Field]
) -> tuple[mapping.Part, ...]:
    """The parts of a mapping that was looked at; none where it was refused."""
    try:
        return mapping.read_mapping(chosen, columns, fields) if chosen else ()
    except Refused:
        return ()


def forms_of_preview(path: Path, seen: Preview) -> list[FormRead]:
    """How the numbers and dates of the columns would be read, as far as the first rows tell."""
    if seen.kind not in LAYOUTS:
        return []
    judged = column_forms.ColumnForms(path, LAYOUTS[seen.kind], seen.parts, seen.columns, FormsAsked(), seen.usual)
    judged.judge_by(seen.sample)
    return judged.read()


def words_of_preview(seen: Preview) -> list[WordRead]:
    """What the words of the first rows for statuses and kinds of home would be taken for."""
    if seen.kind not in ("listings", "parcels"):
        return []
    counted: Counter[tuple[str, str]] = Counter()
    across = [[row[i] if i < len(row) else "" for row in seen.sample] for i in range(len(seen.columns))]
    for bound in mapping.bind(seen.parts, seen.columns, LAYOUTS[seen.kind].fields):
        if bound.field.name in ("standard_status", "property_sub_type"):
            told = (
                zip(bound.texts(across, len(seen.sample)), across[bound.places[0]], strict=True) if bound.places else ()
            )
            for means, word in told:
                if word.strip():
                    counted[bound.field.name, means.strip()] += 1
    return words_read(counted)


def columns_key(columns: Sequence[str]) -> str:
    """Names a set of columns, so that a mapping can be kept for it."""
    return made_key(*columns)


def first_rows(path: Path) -> tuple[list[str], list[list[str]]]:
    """(columns, the first rows that can be read)."""
    table = readers.read_table(path, SAMPLE_ROWS)
    first = next(table.chunks, [])
    return table.columns, [cells for _, cells in first if cells and not cells[0].startswith("\x00")]


def kind_of_table(columns: Sequence[str], profiles: Sequence[Profile]) -> str | None:
    """The kind of a file: by its native columns, else by what its columns would be, whatever they are called."""
    return recognise([plain(c) for c in columns if own_field(c) is None]) or kind_of(columns, profiles)


_SAMPLES = 3


def taken_and_left(
    seen: Preview, layout: Layout, parts: Sequence[mapping.Part], said: bool
) -> tuple[list[ColumnTaken], list[ColumnLeft]]:
    """What each field was taken from, surest last, and the columns of which nothing was taken."""
    guesses = {g.part.field: g for g in seen.guesses}
    place = {c: i for i, c in enumerate(seen.columns)}
    own = (own_field(p.field) for p in parts)
    labels = {f.name: f.label for f in (*layout.fields, *(f for f in own if f is not None))}

    def samples(columns: Sequence[str]) -> list[str]:
        cells = (" · ".join(row[place[c]].strip() for c in columns if place[c] < len(row)) for row in seen.sample)
        return list(dict.fromkeys(c[:60] for c in cells if c.strip(" ·")))[:_SAMPLES]

    taken = []
    for part in parts:
        guess = guesses.get(part.field)
        sure, why = (guess.sure, guess.why) if guess and guess.part.columns == part.columns else (1.0, "")
        why = "as you said" if said else "as the last time" if seen.remembered else why
        taken.append(ColumnTaken(part.field, labels[part.field], list(part.columns), sure, why, samples(part.columns)))
    used = {c for part in parts for c in part.columns}
    perhaps: dict[str, proposing.Guess] = {}
    for guess in seen.guesses:
        for column in guess.part.columns:
            perhaps.setdefault(column, guess)
    left = []
    for column in seen.columns:
        if column not in used:
            guess = perhaps.get(column)
            why = WHO_LIVES_THERE if tells_who_lives_there(column) else ""
            field, sure = (guess.part.field, guess.sure) if guess else (None, 0.0)
            left.append(ColumnLeft(column, samples([column]), field, sure, why))
    return sorted(taken, key=lambda t: t.sure), left
