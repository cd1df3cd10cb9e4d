"""A file comes in: read, mapped, checked, compared with what is there, staged, and taken in all at once."""

from __future__ import annotations

import datetime as dt
import gc
import itertools
import json
import os
import sqlite3
import time
from collections import Counter
from collections.abc import Callable, Iterator, Mapping, Sequence
from dataclasses import dataclass, field
from operator import itemgetter
from pathlib import Path
from typing import Any

from ..core.errors import Refused
from ..core.words import plain
from ..store import imports as store
from . import areas, mapping, readers
from .checking import Checker, out_of_reason
from .layouts import LAYOUTS, Layout, Row, recognise
from .parsing import parse_column

CHUNK = 10_000


@dataclass
class ImportResult:
    """What an import did, or would do. reasons: how often each fault occurred."""

    import_id: int | None
    kind: str
    rows: int = 0
    new: int = 0
    changed: int = 0
    same: int = 0
    suspect: int = 0
    rejected: int = 0
    reasons: dict[str, int] = field(default_factory=dict)
    seconds: float = 0.0


def import_file(
    db: sqlite3.Connection,
    path: Path,
    *,
    folder: Path,
    now: dt.datetime,
    kind: str | None = None,
    source: str | None = None,
    columns: Mapping[str, str] | None = None,
    dry_run: bool = False,
    progress: Callable[[int], None] | None = None,
) -> ImportResult:
    """Bring one file in, all at once or not at all.

    folder: where the staging file may stand. now: dates after it are suspect. columns: {column: field} in place
    of the proposed mapping. progress: told the rows read so far. Raises Refused for a file that cannot be used.
    """
    started = time.monotonic()
    if kind == "areas" or (kind is None and areas.is_geojson(path)):
        counted = areas.import_areas(db, path, source or path.stem, now, dry_run)
        return ImportResult(**counted, seconds=round(time.monotonic() - started, 3))
    table = readers.read_table(path)
    kind = kind or recognise([plain(c) for c in table.columns])
    if kind is None or kind not in LAYOUTS:
        raise Refused(
            f"{path.name}: its columns ({', '.join(table.columns[:12])} …) are those of no kind of file; "
            f"say which it is: {', '.join([*LAYOUTS, 'areas'])}."
        )
    layout = LAYOUTS[kind]
    fields = layout.fields
    chosen = mapping.given(table.columns, fields, columns) if columns else mapping.propose(table.columns, fields)
    _refuse_without_needed(path, layout, set(chosen.values()), table.columns)
    staging = folder / f"staging-{os.getpid()}-{time.monotonic_ns()}.db"
    store.open_staging(db, staging, layout.columns)
    collecting = gc.isenabled()
    gc.disable()  # millions of small values and no cycles among them: looking for cycles only costs
    try:
        work = _Work(db, layout, chosen, table.columns, now.date())
        for chunk in _chunks(table.rows):
            work.take(chunk)
            if progress:
                progress(work.result.rows)
        result = work.result
        result.reasons = dict(work.reasons.most_common())
        if not dry_run:
            record = {
                "source_id": store.source_id(db, source or path.stem),
                "kind": kind,
                "file_name": path.name,
                "finished_at": now.isoformat(timespec="seconds"),
                **{k: getattr(result, k) for k in ("rows", "new", "changed", "same", "suspect", "rejected", "reasons")},
            }
            result.import_id = store.apply(db, layout.table, layout.key_column, layout.columns, record)
    finally:
        if collecting:
            gc.enable()
        store.close_staging(db, staging)
    result.seconds = round(time.monotonic() - started, 3)
    return result


def _refuse_without_needed(path: Path, layout: Layout, have: set[str], columns: Sequence[str]) -> None:
    for group in layout.needs:
        if not have & set(group):
            names = {f.name: f.reso for f in layout.fields}
            wanted = " or ".join(names[g] for g in group)
            raise Refused(
                f"{path.name} has no column for {wanted}, which {layout.kind} need. Its columns: {', '.join(columns[:30])}."
            )


def _chunks(rows: Iterator[tuple[int, list[str]]]) -> Iterator[list[tuple[int, list[str]]]]:
    while chunk := list(itertools.islice(rows, CHUNK)):
        yield chunk


class _Work:
    """Takes a file chunk by chunk into staging and keeps the count."""

    def __init__(
        self, db: sqlite3.Connection, layout: Layout, chosen: Mapping[int, str], columns: Sequence[str], today: dt.date
    ) -> None:
        self.db, self.layout, self.columns = db, layout, columns
        by_name = {f.name: f for f in layout.fields}
        self.chosen = [(i, by_name[name]) for i, name in chosen.items()]
        self.checker = Checker(layout, today)
        self.empty = store.is_empty(db, layout.table)
        self.blank: Row = dict.fromkeys(layout.columns)
        self.pick = itemgetter(*layout.columns)
        self.seen: dict[str, int] = {}
        self.result = ImportResult(None, layout.kind)
        self.reasons: Counter[str] = Counter()

    def take(self, chunk: list[tuple[int, list[str]]]) -> None:
        self.result.rows += len(chunk)
        width = len(self.columns)
        faults: list[list[str]] = [[] for _ in chunk]
        refused: list[str | None] = [None] * len(chunk)
        for n, (_, cells) in enumerate(chunk):
            if cells and cells[0].startswith("\x00"):
                refused[n] = f"no readable row: {cells[0][1:]}"
            elif len(cells) > width and any(cells[width:]):
                refused[n] = "more cells than columns"
        across = list(itertools.zip_longest(*(cells for _, cells in chunk), fillvalue=""))
        blank = ("",) * len(chunk)
        columns: list[list[object]] = []
        odd: list[list[str]] = [[] for _ in chunk]
        for i, f in self.chosen:
            values, bad = parse_column(f, across[i] if i < len(across) else blank)
            columns.append(values)
            for n in bad:
                faults[n].append(f"unreadable {f.reso}")
                if f.name in self.checker.needed:
                    refused[n] = refused[n] or f"unreadable {f.reso}"
            for n in out_of_reason(f, values):
                odd[n].append(f.name)
        names = [f.name for _, f in self.chosen]
        rows: list[Row] = [dict(zip(names, values, strict=True)) for values in zip(*columns, strict=True)]
        self.checker.learn(rows)
        self._keys(chunk, rows, refused)
        self._stage(chunk, rows, faults, odd, refused)

    def _keys(self, chunk: list[tuple[int, list[str]]], rows: list[Row], refused: list[str | None]) -> None:
        """Give every row its key; a key that stands twice with different facts refuses the later row."""
        key_column = self.layout.key_column
        for n, row in enumerate(rows):
            if refused[n]:
                continue
            given = row.get(key_column)
            key = str(given) if given is not None else self.layout.make_key(row)
            if key is None:
                refused[n] = "nothing that names the row"
                continue
            facts = hash(tuple(chunk[n][1]))
            if given is None:
                copy = 1
                base = key
                while self.seen.get(key, facts) != facts:
                    copy += 1
                    key = f"{base}_{copy}"
            if key in self.seen:
                if self.seen[key] != facts:
                    refused[n] = "its key stands twice in the file with different facts"
                else:
                    refused[n] = ""  # the same row again
                continue
            self.seen[key] = facts
            row[key_column] = key

    def _stage(
        self,
        chunk: list[tuple[int, list[str]]],
        rows: list[Row],
        faults: list[list[str]],
        odd: list[list[str]],
        refused: list[str | None],
    ) -> None:
        layout, columns, result = self.layout, self.layout.columns, self.result
        keys = [str(row[layout.key_column]) for row, why in zip(rows, refused, strict=True) if why is None]
        held = {} if self.empty else store.existing(self.db, layout.table, layout.key_column, columns, keys)
        ready: list[tuple[Any, ...]] = []
        reported: list[tuple[int, str, str, str]] = []
        for (number, cells), row, fault, strange, why in zip(chunk, rows, faults, odd, refused, strict=True):
            if why == "":
                result.same += 1
                continue
            before: tuple[Any, ...] | None = None
            suspect: list[str] = []
            if why is None:
                key = str(row[layout.key_column])
                before = held.get(key)
                if before is not None:
                    strange = [*_suspect_before(before[0], row), *strange]
                    row = {**dict(zip(columns, before[1:], strict=True)), **row}
                else:
                    row = {**self.blank, **row}
                why = layout.derive(row)
            if why is None:
                suspect = self.checker.suspects(row, strange)
            else:
                result.rejected += 1
                self.reasons[why] += 1
                reported.append((number, "rejected", json.dumps([why, *fault]), _original(self.columns, cells)))
                continue
            for text in [*fault, *(f"suspect {name}" for name in suspect)]:
                self.reasons[text] += 1
            if suspect:
                result.suspect += 1
            if suspect or fault:
                reasons = [*fault, *(f"suspect {name}" for name in suspect)]
                outcome = "suspect" if suspect else "blanked"
                reported.append((number, outcome, json.dumps(reasons), _original(self.columns, cells)))
            after = (json.dumps(suspect) if suspect else None, *self.pick(row))
            if before is None:
                result.new += 1
                ready.append((key, "new", None, *after))
            elif before != after:
                result.changed += 1
                ready.append((key, "changed", json.dumps(before), *after))
            else:
                result.same += 1
        store.stage(self.db, columns, ready)
        store.report_rows(self.db, reported)


def _suspect_before(stored: str | None, row: Row) -> list[str]:
    """What was suspect in the stored record and does not come in anew with this row."""
    return [name for name in json.loads(stored) if name not in row] if stored else []


def _original(columns: Sequence[str], cells: Sequence[str]) -> str:
    return json.dumps(dict(zip(columns, (c[:2000] for c in cells), strict=False)), ensure_ascii=False)
