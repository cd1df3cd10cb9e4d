"""A file comes in: read, mapped, checked, compared with what is there, staged, and taken in all at once."""

from __future__ import annotations

import datetime as dt
import gc
import json
import os
import shutil
import sqlite3
import time
from collections.abc import Callable, Container, Iterator, Mapping, Sequence
from contextlib import contextmanager, nullcontext
from dataclasses import dataclass
from pathlib import Path
from typing import Any

from ..core.errors import Refused
from ..store.db import atomic
from ..store.records.incoming import imports as store
from . import areas
from .chunks import ChunkWork
from .files import kept_files
from .import_result import ImportResult, words_read
from .mapping import column_forms, mapping, proposing
from .mapping.column_forms import FormsAsked
from .mapping.layouts import LAYOUTS, Layout
from .pictures import photos
from .previewing import Preview, columns_key, preview, taken_and_left
from .read_ahead import read_ahead
from .tally import Tally

Progress = Callable[[int], None]


@dataclass(frozen=True)
class Prepared:
    """An import staged on its connection: `result` says what would happen; `accept` makes it so."""

    result: ImportResult
    columns: tuple[str, ...]
    accept: Callable[[], ImportResult]


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
    mends: int | None = None,
    progress: Progress | None = None,
) -> Iterator[Prepared]:
    """Read, check and compare a file; nothing of the records changes until `accept` is called inside the block.

    folder: the data folder, where the staging file stands. now: dates after it are suspect. columns: a mapping in
    place of the remembered or proposed one. forms: how numbers and dates are written, where that is said. places:
    what to do about those not believed (places.ASKED). keep: columns to be kept as fields of the office's own. whole: the file has all that its source has: what it has
    not any more goes, and comes back with an undo. mends: the import whose kept file this is: fields that its mapping gave and
    this one does not are cleared, and what a later import said stands. progress: told the rows read so far. Raises Refused for a file that cannot be used, or that can be read in two ways.
    """
    source = source or path.stem
    started = time.monotonic()
    staging = folder / f"staging-{os.getpid()}-{time.monotonic_ns()}.db"
    with _no_collecting():
        if kind == "photos" or (kind is None and photos.are_in(path)):
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
            cleared = _cleared(db, source, layout, names, parts) if mends is not None else ()
        staged = False
        try:
            while True:
                if judged is None:
                    work: Any = areas.AreaWork(db)
                    reading: Any = nullcontext(areas.feature_chunks(path))
                else:
                    parts = judged.parts()
                    taken = (*parts, *cleared)
                    work = ChunkWork(db, layout, taken, names, now.date(), places, source, mends)
                    reading = read_ahead(path, layout.kind, taken, names)
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
                result.columns, result.left_out = taken_and_left(seen, layout, parts, columns is not None)
                result.words = words_read(work.words)

            gone = _gone(db, layout, source, work, result) if whole else []

            def accept() -> ImportResult:
                with atomic(db):
                    record = _record(db, result, source, path, now, names)
                    if mends is not None and (mended := store.import_row(db, mends)):
                        record["file_name"] = mended["file_name"]
                    result.import_id = store.apply(db, layout.table, layout.key_column, work.staged, record, gone)
                    if parts:
                        document = json.dumps({"parts": [p.as_json() for p in parts]})
                        store.remember_mapping(db, record["source_id"], layout.kind, columns_key(names), document)
                if parts and result.import_id is not None:
                    kept_files.keep(folder, result.import_id, path)
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
    mends: int | None = None,
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
        mends=mends,
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
            profile = seen.profiles[i]
            name = proposing.own_of(column, profile)
            if name is None:
                if column in keep:
                    raise Refused(
                        f"“{column}” tells who lives somewhere, which no figure here may hang on: leave it out of --keep."
                    )
                continue
            if name not in have and not ("all" in keep and profile.empty):
                have.add(name)
                yield mapping.Part(name, (column,))


def _cleared(
    db: sqlite3.Connection, source: str, layout: Layout, columns: Sequence[str], parts: Sequence[mapping.Part]
) -> tuple[mapping.Part, ...]:
    """Parts that clear what the file's mapping before this one gave and this one does not."""
    held = store.remembered_mapping(db, source, layout.kind, columns_key(columns))
    have = {part.field for part in parts}
    then = mapping.read_mapping(json.loads(held), columns, layout.fields) if held else ()
    return tuple(mapping.Part(p.field, constant="") for p in then if p.field not in have)


MOST_GONE = 0.5  # of what a source had: more than that is no day's work but a file cut short


def _gone(db: sqlite3.Connection, layout: Layout, source: str, work: Any, result: ImportResult) -> list[str]:
    """Keys of the source's records that its file does not have any more. Refused where that would be most of them."""
    gone = _not_standing(db, layout, source, work.seen, "are not in this file: that looks like a file cut short. Bring it in without --whole, or the whole of it.")  # fmt: skip
    if gone:
        result.reasons[f"no longer at the source: {'goes' if len(gone) == 1 else 'go'}"] = len(gone)
    return gone


def _not_standing(db: sqlite3.Connection, layout: Layout, source: str, standing: Container[str], why: str) -> list[str]:
    """Keys of a source's records that are not among those that still stand. Refused where that would be most of them."""
    number = store.source_id_of(db, source)
    if number is None:
        return []
    held = store.keys_of_source(db, layout.table, layout.key_column, number)
    own = f" ({source})"  # after a number that another source gave to another home
    gone = [key for key in held if key not in standing and key.removesuffix(own) not in standing]
    if len(gone) > max(20, MOST_GONE * len(held)):
        raise Refused(f"{len(gone):,} of {len(held):,} {layout.kind} of “{source}” {why}")
    return gone


def let_go(db: sqlite3.Connection, kind: str, source: str, standing: Container[str], now: dt.datetime) -> int:
    """Let go the records that a source does not have any more, as an import that can be taken back; how many. standing: the
    keys that it still has. Refused where most of them would go."""
    layout = LAYOUTS[kind]
    gone = _not_standing(
        db, layout, source, standing, "are no longer there, it says: that looks like a slip. None goes."
    )
    if gone:
        result = ImportResult(None, kind, reasons={"no longer at the source": len(gone)})
        record = _record(db, result, source, Path("no longer at the source"), now, ())
        store.apply_gone(db, layout.table, layout.key_column, record, gone)
    return len(gone)


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
