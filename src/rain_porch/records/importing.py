"""A file comes in: read, mapped, checked, compared with what is there, staged, and taken in all at once."""

from __future__ import annotations

import datetime as dt
import gc
import json
import os
import shutil
import sqlite3
import time
from collections import Counter
from collections.abc import Callable, Iterator, Mapping, Sequence
from contextlib import contextmanager, nullcontext
from dataclasses import dataclass, field, replace
from pathlib import Path
from typing import Any

from ..core.errors import Refused
from ..core.facts.fields import Field, own_field
from ..core.facts.keys import made_key
from ..core.facts.words import HomeKind, home_kind_of, plain
from ..core.intake.cells import Profile
from ..core.intake.matching import kind_of
from ..core.intake.status_words import means_status
from ..store.db import atomic
from ..store.records import imports as store
from . import areas, column_forms, containers, mapping, photos, proposing, readers
from .chunks import ChunkWork, Tally
from .column_forms import FormRead, FormsAsked
from .layouts import LAYOUTS, Layout, recognise
from .read_ahead import read_ahead

SAMPLE_ROWS = 1000
Progress = Callable[[int], None]


@dataclass(frozen=True)
class ColumnTaken:
    """Of which columns a field came, and why: `sure` from 0 to 1."""

    field: str
    label: str
    columns: list[str]
    sure: float
    why: str
    samples: list[str]


@dataclass(frozen=True)
class ColumnLeft:
    """A column that was left out; `perhaps` is the field that it may be, where one comes to mind."""

    column: str
    samples: list[str]
    perhaps: str | None
    sure: float


@dataclass(frozen=True)
class WordRead:
    """A source's own word, in how many rows, and what it was taken for; None where nobody can tell."""

    field: str
    word: str
    rows: int
    means: str | None


@dataclass
class ImportResult:
    """What an import did, or would do. reasons: how often each fault occurred; changes: how often each field changed;
    forms: how its numbers and dates were read, where they can be written in more than one form; columns, left_out, words:
    what its columns, and its words for statuses and kinds of home, were taken for."""

    import_id: int | None
    kind: str
    rows: int = 0
    new: int = 0
    changed: int = 0
    same: int = 0
    suspect: int = 0
    rejected: int = 0
    reasons: dict[str, int] = field(default_factory=dict)
    changes: dict[str, int] = field(default_factory=dict)
    seconds: float = 0.0
    forms: list[FormRead] = field(default_factory=list)
    columns: list[ColumnTaken] = field(default_factory=list)
    left_out: list[ColumnLeft] = field(default_factory=list)
    words: list[WordRead] = field(default_factory=list)


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


@dataclass(frozen=True)
class Prepared:
    """An import staged on its connection: `result` says what would happen; `accept` makes it so."""

    result: ImportResult
    columns: tuple[str, ...]
    accept: Callable[[], ImportResult]


def fields_of(kind: str) -> tuple[Field, ...]:
    return LAYOUTS[kind].fields if kind in LAYOUTS else ()


def preview(db: sqlite3.Connection, path: Path, source: str, kind: str | None = None) -> Preview:
    """How a file would be read. Raises Refused for one that cannot be used."""
    if kind == "photos" or (kind is None and photos.is_bundle(path)):
        return Preview("photos", [], [], (), [], False)
    if kind == "areas" or (kind is None and areas.is_geojson(path)):
        return Preview("areas", [], [], (), [], False)
    table = readers.read_table(path, SAMPLE_ROWS)
    columns, first = table.columns, next(table.chunks, [])
    sample = [cells for _, cells in first if cells and not cells[0].startswith("\x00")]
    kind = kind or recognise([plain(c) for c in columns if own_field(c) is None]) or likely_kind(columns, sample)
    if kind is None or kind not in LAYOUTS:
        raise Refused(
            f"{path.name}: its columns ({', '.join(columns[:12])} …) are those of no kind of file; "
            f"say which it is: {', '.join([*LAYOUTS, 'areas', 'photos'])}."
        )
    fields = LAYOUTS[kind].fields
    guesses = proposing.propose(columns, fields, sample, kind)
    held = store.remembered_mapping(db, source, kind, columns_key(columns))
    parts = mapping.read_mapping(json.loads(held), columns, fields) if held else proposing.taken(guesses)
    usual = {p.field: p.form for p in parts if p.form}
    parts = tuple(replace(p, form="") for p in parts)  # judged anew: a source may change its ways
    return Preview(kind, columns, sample, parts, guesses, held is not None, usual)


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


def likely_kind(columns: Sequence[str], sample: Sequence[Sequence[str]]) -> str | None:
    """The kind of a file by what its columns would be, whatever they are called."""
    profiles = [Profile([row[i] if i < len(row) else "" for row in sample]) for i in range(len(columns))]
    return kind_of(columns, profiles)


@contextmanager
def prepare(
    db: sqlite3.Connection,
    path: Path,
    *,
    folder: Path,
    now: dt.datetime,
    kind: str | None = None,
    source: str | None = None,
    columns: Mapping[str, Any] | None = None,
    forms: FormsAsked | None = None,
    places: str = "",
    keep: Sequence[str] = (),
    whole: bool = False,
    progress: Progress | None = None,
) -> Iterator[Prepared]:
    """Read, check and compare a file; nothing of the records changes until `accept` is called inside the block.

    folder: the data folder, where the staging file stands. now: dates after it are suspect. columns: a mapping in
    place of the remembered or proposed one. forms: how numbers and dates are written, where that is said. places:
    what to do about those not believed (places.ASKED). keep: columns to be kept as fields of the office's own. whole: the file has all that its source has: what it has
    not any more goes, and comes back with an undo. progress: told the rows read so far. Raises Refused for a file that cannot be used, or that can be read in two ways.
    """
    source = source or path.stem
    started = time.monotonic()
    staging = folder / f"staging-{os.getpid()}-{time.monotonic_ns()}.db"
    with _no_collecting():
        if kind == "photos" or (kind is None and photos.is_bundle(path)):
            counted, take = photos.plan(db, path, folder)
            result = ImportResult(None, "photos", **counted)

            def accept_photos() -> ImportResult:
                result.import_id = take(_record(db, result, source, path, now, ()))
                return result

            result.seconds = round(time.monotonic() - started, 3)
            yield Prepared(result, (), accept_photos)
            return
        if kind == "areas" or (kind is None and areas.is_geojson(path)):
            layout: Any = areas.LAYOUT
            parts: tuple[mapping.Part, ...] = ()
            names: list[str] = []
            judged = None
        else:
            seen = preview(db, path, source, kind)
            layout, names = LAYOUTS[seen.kind], seen.columns
            parts = mapping.read_mapping(columns, names, layout.fields) if columns else seen.parts
            parts = (*parts, *_kept(seen, parts, layout, keep))
            _refuse_without_needed(path, layout, {p.field for p in parts}, names)
            judged, parts = _judged(path, layout, parts, seen, forms or FormsAsked(), said=bool(columns))
        staged = False
        try:
            while True:
                if judged is None:
                    work: Any = areas.AreaWork(db)
                    reading: Any = nullcontext(areas.feature_chunks(path))
                else:
                    parts = judged.parts()
                    work = ChunkWork(db, layout, parts, names, now.date(), places, source)
                    reading = read_ahead(path, layout.kind, parts, names)
                store.open_staging(db, staging, work.staged)
                staged = True
                with reading as chunks:
                    settled = _take_all(chunks, work, judged, progress)
                if settled:
                    break
                store.close_staging(db, staging)
                staged = False
            result = _result(layout.kind, work.tally)
            if judged is not None:
                result.forms = judged.read()
                result.columns, result.left_out = _taken_and_left(seen, layout, parts, columns is not None)
                result.words = words_read(work.words)

            gone = _gone(db, layout, source, work, result) if whole else []

            def accept() -> ImportResult:
                with atomic(db):
                    record = _record(db, result, source, path, now, names)
                    result.import_id = store.apply(db, layout.table, layout.key_column, work.staged, record, gone)
                    if parts:
                        document = json.dumps({"parts": [p.as_json() for p in parts]})
                        store.remember_mapping(db, record["source_id"], layout.kind, columns_key(names), document)
                result.seconds = round(time.monotonic() - started, 3)
                return result

            result.seconds = round(time.monotonic() - started, 3)
            yield Prepared(result, work.staged, accept)
        finally:
            if staged:
                store.close_staging(db, staging)


def _take_all(
    chunks: Iterator[Any], work: Any, judged: column_forms.ColumnForms | None, progress: Progress | None
) -> bool:
    """Check and stage all chunks; False where a later one tells that the earlier ones were read in the wrong form."""
    for chunk in chunks:
        if judged is not None and chunk.seen and not judged.still_holds(chunk.seen):
            return False
        work.take(chunk)
        if progress:
            progress(work.tally.rows)
    work.settle()
    return True


def import_file(
    db: sqlite3.Connection,
    path: Path,
    *,
    folder: Path,
    now: dt.datetime,
    kind: str | None = None,
    source: str | None = None,
    columns: Mapping[str, Any] | None = None,
    forms: FormsAsked | None = None,
    places: str = "",
    keep: Sequence[str] = (),
    whole: bool = False,
    dry_run: bool = False,
    progress: Progress | None = None,
) -> ImportResult:
    """Bring one file in, all at once or not at all; see `prepare` for what it takes."""
    with prepare(
        db,
        path,
        folder=folder,
        now=now,
        kind=kind,
        source=source,
        columns=columns,
        forms=forms,
        places=places,
        keep=keep,
        whole=whole,
        progress=progress,
    ) as made:
        return made.result if dry_run else made.accept()


# what a file of a kind is brought in for: a column of these that can be read two ways is asked
_NEEDED = frozenset(
    {"list_price", "close_price", "on_market_date", "purchase_contract_date", "close_date", "off_market_date", "living_area", "latitude",
     "longitude", "price", "sale_date", "recording_date", "tax_year", "total_value", "date", "value", "at", "lot_size_square_feet"}
)  # fmt: skip


def _judged(
    path: Path, layout: Layout, parts: Sequence[mapping.Part], seen: Preview, asked: FormsAsked, said: bool
) -> tuple[column_forms.ColumnForms, tuple[mapping.Part, ...]]:
    """The forms of the columns, and the parts that are taken: of those that nobody named, one that can be read two ways and is
    not needed is left out. Refused where a needed one can be, or one that was named."""
    made = column_forms.ColumnForms(path, layout, parts, seen.columns, asked, seen.usual)
    try:
        made.look_at(seen.sample)
    except Refused as error:
        unsure = {*error.values.get("fields", ())}
        if said or seen.remembered or not unsure or unsure & _NEEDED:
            raise
        parts = tuple(p for p in parts if p.field not in unsure)
        made = column_forms.ColumnForms(path, layout, parts, seen.columns, asked, seen.usual)
        made.look_at(seen.sample)
    return made, tuple(parts)


def _kept(seen: Preview, parts: Sequence[mapping.Part], layout: Layout, keep: Sequence[str]) -> Iterator[mapping.Part]:
    """Columns to be kept as fields of the office's own; “all” keeps all that nothing else is taken from."""
    if not keep:
        return
    if not mapping.takes_own(layout.fields):
        raise Refused(
            f"Columns of {layout.kind} cannot be kept as fields of their own: those of listings and parcels can."
        )
    used = {c for part in parts for c in part.columns}
    for column in keep:
        if column != "all" and column not in seen.columns:
            raise Refused(
                f"--keep names a column “{column}” that the file does not have: {', '.join(seen.columns[:40])}."
            )
    have = {part.field for part in parts}
    for i, column in enumerate(seen.columns):
        if column in keep or ("all" in keep and column not in used):
            profile = Profile([row[i] if i < len(row) else "" for row in seen.sample])
            name = proposing.own_of(column, profile)
            if name not in have and not ("all" in keep and profile.empty):
                have.add(name)
                yield mapping.Part(name, (column,))


MOST_GONE = 0.5  # of what a source had: more than that is no day's work but a file cut short


def _gone(db: sqlite3.Connection, layout: Layout, source: str, work: Any, result: ImportResult) -> list[str]:
    """Keys of the source's records that its file does not have any more. Refused where that would be most of them."""
    number = store.source_id_of(db, source)
    if number is None:
        return []
    held = store.keys_of_source(db, layout.table, layout.key_column, number)
    own = f" ({source})"  # after a number that another source gave to another home
    gone = [key for key in held if key not in work.seen and key.removesuffix(own) not in work.seen]
    if len(gone) > max(20, MOST_GONE * len(held)):
        raise Refused(
            f"{len(gone):,} of {len(held):,} {layout.kind} of “{source}” are not in this file: that looks like a file cut short. "
            "Bring it in without --whole, or the whole of it."
        )
    if gone:
        result.reasons[f"no longer at the source: {'goes' if len(gone) == 1 else 'go'}"] = len(gone)
    return gone


_SAMPLES = 3


def _taken_and_left(
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
            left.append(
                ColumnLeft(column, samples([column]), guess.part.field if guess else None, guess.sure if guess else 0.0)
            )
    return sorted(taken, key=lambda t: t.sure), left


_WORDS_SHOWN = 60


def words_read(counted: Mapping[tuple[str, str], int]) -> list[WordRead]:
    """What a source's words for statuses and kinds of home were taken for, those that nobody can tell first."""
    out = []
    for (name, word), rows in counted.items():
        if name == "standard_status":
            status = means_status(word)
            means = status.value if status else None
        else:
            kind = home_kind_of(None, word)
            means = None if kind is HomeKind.UNKNOWN else kind.value.replace("_", " ")
        if means is None or plain(means) != plain(word):
            out.append(WordRead(name, word[:80], rows, means))
    return sorted(out, key=lambda w: (w.means is not None, -w.rows))[:_WORDS_SHOWN]


def clear_staging(folder: Path) -> None:
    """Remove what a process that was killed has left of an import; nothing of it was in effect."""
    for left in folder.glob("staging-*.db*"):
        owner = left.name.split("-")[1]
        if not Path(f"/proc/{owner}").exists():
            left.unlink(missing_ok=True)
    for left in folder.glob("unpacked-*"):
        if not Path(f"/proc/{left.name.split('-')[1]}").exists():
            shutil.rmtree(left, ignore_errors=True)


@contextmanager
def unpacked(paths: Sequence[Path], folder: Path, kind: str | None = None) -> Iterator[list[containers.Piece]]:
    """The plain files of which these are made, in the order in which they build on one another; what was unpacked is gone
    when the block ends. kind: what they are said to be."""
    into = folder / f"unpacked-{os.getpid()}-{time.monotonic_ns()}"
    try:
        found: list[tuple[containers.Piece, str]] = []
        for path in paths:
            if kind == "photos" or (path.is_dir() and kind is not None):
                found.append((containers.Piece(path, path.name, kind), kind))
                continue
            found += [(piece, kind or piece.kind or "") for piece in containers.pieces(path, into)]
        if len(found) > 1:
            found = containers.in_order([(piece, known or kind_of_piece(piece)) for piece, known in found])
        yield [piece for piece, _ in found]
    finally:
        shutil.rmtree(into, ignore_errors=True)


def kind_of_piece(piece: containers.Piece) -> str:
    """The kind of a plain file; "" where it is none that is known, or cannot be read."""
    path = piece.path
    if photos.is_bundle(path):
        return "photos"
    if areas.is_geojson(path):
        return "areas"
    try:
        table = readers.read_table(path, SAMPLE_ROWS)
    except Refused:
        return ""
    first = next(table.chunks, [])
    sample = [cells for _, cells in first if cells and not cells[0].startswith("\x00")]
    return recognise([plain(c) for c in table.columns]) or likely_kind(table.columns, sample) or ""


@contextmanager
def _no_collecting() -> Iterator[None]:
    """Millions of small values and no cycles among them: looking for cycles only costs."""
    collecting = gc.isenabled()
    gc.disable()
    try:
        yield
    finally:
        if collecting:
            gc.enable()


def _result(kind: str, tally: Tally) -> ImportResult:
    counts = {name: getattr(tally, name) for name in store.COUNTS}
    return ImportResult(
        None, kind, **counts, reasons=dict(tally.reasons.most_common()), changes=dict(tally.changes.most_common())
    )


def _record(
    db: sqlite3.Connection, result: ImportResult, source: str, path: Path, now: dt.datetime, columns: Sequence[str]
) -> dict[str, Any]:
    return {
        "source_id": store.source_id(db, source),
        "kind": result.kind,
        "file_name": path.name,
        "finished_at": now.isoformat(timespec="seconds"),
        "columns": list(columns),
        **{name: getattr(result, name) for name in (*store.COUNTS, "reasons")},
    }


def _refuse_without_needed(path: Path, layout: Layout, have: set[str], columns: Sequence[str]) -> None:
    for group in layout.needs:
        if not have & set(group):
            names = {f.name: f.reso for f in layout.fields}
            wanted = " or ".join(names[g] for g in group)
            raise Refused(
                f"{path.name} has no column for {wanted}, which {layout.kind} need. Its columns: {', '.join(columns[:30])}."
            )
