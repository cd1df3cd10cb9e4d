"""`rain-porch import`, `mend`, `mappings`, `undo`, `feed` and `export`: records brought in, taken back, handed out."""

from __future__ import annotations

import argparse
import datetime as dt
import json
import sys
from pathlib import Path
from typing import Any

from ..app.incoming import outcomes
from ..app.incoming.fetching import line, post
from ..app.incoming.undoing import undo
from ..app.records import Records
from ..core.errors import Refused
from ..documents.imports import ColumnLeftDoc, ImportDoc
from ..records.exporting import KINDS as KINDS_OUT
from ..records.exporting import export
from ..records.feeds.feed import pull
from ..records.files import kept_files
from ..records.importing import import_file
from ..records.mapping.column_forms import FormsAsked
from ..records.mapping.layouts import LAYOUTS
from ..records.mapping.mapping import mapping_alone, name_of_mapping
from ..records.unpacking import unpacked
from ..settings import data_folder, folder_with_records
from ..store.records.incoming import imports as store
from .telling import show


def run_import(args: argparse.Namespace) -> int:
    records = Records(data_folder(args.data))
    columns = _mapping(records, args.mapping)
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


def _mapping(records: Records, given: Path | None) -> dict[str, Any] | None:
    """A mapping from a file, else the one that is kept under that name. Refused for neither."""
    if given is None:
        return None
    if not given.is_file():
        with records.connection() as db:
            named = {m["name"]: m["mapping"] for m in store.named_mappings(db)}
        if str(given) in named:
            return dict(named[str(given)])
        raise Refused(
            f"{given} is no file, and no mapping is kept under that name: {', '.join(named) or 'none is kept'}."
        )
    try:
        columns = json.loads(given.read_text(encoding="utf-8"))
    except (OSError, ValueError) as error:
        raise Refused(f"{given} is no mapping: {error}.") from None
    if not isinstance(columns, dict):
        raise Refused(f"{given} is no mapping: it must hold one JSON object.")
    return columns


def run_mend(args: argparse.Namespace) -> int:
    """An import's kept file, mapped anew: what the mapping gave before and does not now is cleared, what later imports said stays."""
    folder = folder_with_records(args.data)
    records = Records(folder)
    columns = _mapping(records, args.mapping)
    with records.connection() as db:
        file, kind, source, name = kept_files.to_mend(db, folder, args.import_id)
        result = import_file(
            db, file, folder=folder, now=dt.datetime.now(), kind=kind, source=source, columns=columns,
            keep=args.keep, mends=args.import_id, dry_run=args.dry_run,
        )  # fmt: skip
    doc = outcomes.import_doc(result)
    if args.json:
        print(json.dumps(doc.model_dump(mode="json"), ensure_ascii=False, indent=2))
    else:
        _tell_import(name, doc, args.dry_run)
    return 0


def run_mappings(args: argparse.Namespace) -> int:
    """The mappings that have a name; --save keeps one, --delete lets one go."""
    records = Records(folder_with_records(args.data))
    with records.connection() as db:
        if args.save is not None:
            if args.mapping is None or args.kind is None:
                raise Refused("Name the mapping's file with --mapping, and what files it is for with --kind.")
            document = mapping_alone(_mapping(records, args.mapping), LAYOUTS[args.kind].fields)
            store.save_mapping(
                db, name_of_mapping(args.save), args.kind, document, dt.datetime.now().isoformat(timespec="seconds")
            )
        if args.delete and not store.forget_mapping(db, args.delete):
            raise Refused(f"There is no mapping called “{args.delete}”.")
        held = store.named_mappings(db)
    if args.json:
        print(json.dumps(held, ensure_ascii=False, indent=2))
        return 0
    for m in held:
        print(
            f"{m['name']} ({m['kind']}, {m['saved_at'][:10]}): {', '.join(p['field'] for p in m['mapping']['parts'])}"
        )
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
    if column.why:
        return f"{column.column} ({column.why})"
    return column.column + (f" (perhaps {column.perhaps}, {column.sure:.0%})" if column.perhaps else "")


def run_undo(args: argparse.Namespace) -> int:
    records = Records(folder_with_records(args.data))
    with records.connection() as db:
        doc = outcomes.undo_doc(undo(records.folder, db, args.import_id, dt.datetime.now()))
    lines = [f"import {doc.import_id} undone: {doc.removed:,} records removed, {doc.restored:,} put back"]
    lines += [f"kept {k.key}: import {k.changed_by} changed it later; undo that one first" for k in doc.kept[:20]]
    return show(args, doc, "\n".join(lines))


def run_export(args: argparse.Namespace) -> int:
    records = Records(folder_with_records(args.data))
    if args.kind == "all":
        args.out.mkdir(parents=True, exist_ok=True)
        files = {k: args.out / f"{k}{'.geojson' if k == 'areas' else '.csv'}" for k in KINDS_OUT}
    else:
        files = {args.kind: args.out}
    with records.connection() as db:
        written = {kind: export(db, kind, path) for kind, path in files.items()}
    doc = [{"kind": kind, "file": str(files[kind]), "rows": rows} for kind, rows in written.items()]
    return show(args, doc, "\n".join(f"{d['file']}: {d['rows']:,} {d['kind']}" for d in doc))


def run_feed(args: argparse.Namespace) -> int:
    if args.stand_in:
        import uvicorn

        from ..standins.feed import TOKEN, create_feed

        if not args.stand_in.is_file():
            raise Refused(f"There is no file {args.stand_in}.")
        print(f"The feed is at http://127.0.0.1:{args.port}, its token {TOKEN}", flush=True)
        uvicorn.run(create_feed(args.stand_in), host="127.0.0.1", port=args.port, log_level="warning")
        return 0
    if not args.address:
        raise Refused("Give the feed's address, or --stand-in with a file of listings.")
    if args.tomorrow:
        post(f"{args.address.rstrip('/')}/tomorrow", args.token)
    records = Records(data_folder(args.data))
    with records.connection() as db:
        result = pull(
            db, args.address, args.token,
            folder=records.folder, now=dt.datetime.now(), source=args.source, **line(nearby=True),
        )  # fmt: skip
    doc = outcomes.import_doc(result)
    told = f"{doc.rows:,} listings: {doc.new:,} new, {doc.changed:,} changed, {doc.same:,} same"
    return show(args, doc, "\n".join([told, *(f"  {note}" for note in doc.notes)]))
