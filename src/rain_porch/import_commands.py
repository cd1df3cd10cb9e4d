"""`rain-porch import`: files brought in, and what they were taken for."""

from __future__ import annotations

import argparse
import datetime as dt
import json
import sys

from .app.incoming import outcomes
from .app.records import Records
from .core.errors import Refused
from .documents.wire import ColumnLeftDoc, ImportDoc
from .records.column_forms import FormsAsked
from .records.importing import import_file
from .records.unpacking import unpacked
from .settings import data_folder


def run_import(args: argparse.Namespace) -> int:
    records = Records(data_folder(args.data))
    columns = None
    if args.mapping:
        try:
            columns = json.loads(args.mapping.read_text(encoding="utf-8"))
        except (OSError, json.JSONDecodeError) as error:
            raise Refused(f"{args.mapping} is no mapping: {error}.") from None
        if not isinstance(columns, dict):
            raise Refused(f"{args.mapping} is no mapping: it must hold one JSON object.")
    out: list[tuple[int, ImportDoc]] = []
    with unpacked(args.files, records.folder, args.kind) as found:
        several = len(found) > 1
        for piece in found:
            try:
                with records.connection() as db:
                    result = import_file(
                        db, piece.path, folder=records.folder, now=dt.datetime.now(), kind=args.kind or piece.kind,
                        source=args.source, columns=columns, dry_run=args.dry_run,
                        forms=FormsAsked(args.decimal or "", args.dates or ""), places=args.places, keep=args.keep, whole=args.whole,
                    )  # fmt: skip
            except Refused as error:
                if not several or len(args.files) > 1:
                    raise
                print(f"{piece.name} is left out: {error.message}", file=sys.stderr)  # a sheet of notes among others
                continue
            doc = outcomes.import_doc(result)
            out.append((piece.given, doc))
            if not args.json:
                _tell_import(piece.name, doc, args.dry_run)
    if not out:
        raise Refused("Nothing of it could be brought in.")
    if args.json:
        data = [doc.model_dump(mode="json") for _, doc in sorted(out, key=lambda x: x[0])]
        print(json.dumps(data[0] if len(data) == 1 else data, ensure_ascii=False, indent=2))
    return 0


def _tell_import(name: str, doc: ImportDoc, dry_run: bool) -> None:
    print(
        f"{name}: {doc.rows:,} {doc.kind}: {doc.new:,} new, {doc.changed:,} changed, {doc.same:,} same, "
        f"{doc.suspect:,} suspect, {doc.rejected:,} rejected in {doc.seconds:.1f} s"
    )
    for reason, n in doc.reasons.items():
        print(f"  {n:,} × {reason}")
    for read in doc.forms:
        cell = read.samples[0]
        print(f"  {', '.join(read.columns)}: {read.words} ({read.why}): “{cell.text}” is {cell.value}")
    if dry_run:
        for taken in doc.columns:
            print(
                f"  {', '.join(taken.columns)} → {taken.label} ({taken.sure:.0%}: {taken.why}): {', '.join(taken.samples)}"
            )
    if doc.left_out:
        print(f"  left out: {', '.join(_left(c) for c in doc.left_out)}")
    for word in doc.words:
        if word.means is None or dry_run:
            print(f"  “{word.word}” in {word.rows:,} rows: {word.means or 'not known; say what it means in a mapping'}")


def _left(column: ColumnLeftDoc) -> str:
    return column.column + (f" (perhaps {column.perhaps}, {column.sure:.0%})" if column.perhaps else "")
