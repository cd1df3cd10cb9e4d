"""What each command of the command line does with its arguments; every one returns an exit code."""

from __future__ import annotations

import argparse
import datetime as dt
import json
import os
import sys
from pathlib import Path
from typing import Any

from pydantic import BaseModel, ValidationError

from .app import homes
from .app.agent import folders_agent
from .app.handover.report_input import report_input
from .app.incoming import outcomes
from .app.incoming.fetching import line, post
from .app.incoming.undoing import undo
from .app.pricing import answers
from .app.pricing.backtesting import backtest, keep
from .app.records import Records
from .app.schemas import SCHEMAS
from .app.sharing import agent_for_workup
from .app.snapshot import Snapshot
from .app.workups import begin_priced, list_workups
from .core.errors import BadInput, Refused
from .core.facts.money import dollars
from .core.facts.words import HOME_PLURAL, HomeKind
from .documents.search import SearchDoc
from .documents.wire import KindScoreDoc
from .records.exporting import KINDS as KINDS_OUT
from .records.exporting import export
from .records.feed import pull
from .settings import data_folder, folder_with_records, setting
from .store import backups

FEED_PORT, MAIL_PORT = 8041, 8042


def show(args: argparse.Namespace, document: Any, text: str) -> int:
    """Print the document as JSON where asked, else the text for people."""
    if args.json:
        data = document.model_dump(mode="json") if isinstance(document, BaseModel) else document
        print(json.dumps(data, ensure_ascii=False, indent=2, allow_nan=False))
    else:
        print(text)
    return 0


def read_search(path: Path | None) -> Any:
    if path is None:
        return None
    try:
        data = json.loads(path.read_text(encoding="utf-8"))
        if isinstance(data, dict) and "search" in data:
            data = data["search"]
        return SearchDoc.model_validate(data).search()
    except (OSError, json.JSONDecodeError) as error:
        raise Refused(f"{path} is no search file: {error}.") from None
    except ValidationError as error:
        first = error.errors()[0]
        where = ".".join(str(part) for part in first["loc"])
        raise BadInput(where, f"{path}: {where}: {first['msg']}.") from None


def named_home(records: Snapshot, args: argparse.Namespace) -> homes.Home:
    ref = homes.locate(records, address=args.address, parcel=args.parcel, listing=args.listing, place=args.place)
    return homes.read_home(records, ref)


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

        from .standins.feed import TOKEN, create_feed

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


def run_find(args: argparse.Namespace) -> int:
    records = Records(folder_with_records(args.data)).snapshot()
    doc = answers.find_doc(records, named_home(records, args), args.as_of, read_search(args.search))
    lines = [doc.sentence, "  ".join(f"{n} {k.replace('_', ' ')}" for k, n in doc.counts.items())]
    lines += [f"loosened: {step}" for step in doc.loosened]
    for c in doc.candidates[:40]:
        far = "  ?  " if c.distance_miles is None else f"{c.distance_miles:5.2f}"
        lines.append(
            f"{c.likeness:5.1f}  {c.kind:<14} {far} mi  {c.date or ''!s:<10}  {dollars(c.price):>11}  "
            f"{c.address or c.listing_id}  {', '.join(c.differences)}"
        )
    return show(args, doc, "\n".join(lines))


def run_price(args: argparse.Namespace) -> int:
    records = Records(folder_with_records(args.data)).snapshot()
    home = named_home(records, args)
    search = read_search(args.search)
    doc, comps = answers.price_doc(records, home, args.as_of, search, args.exclude_self)
    if args.save:
        with folders_agent(records, user=args.user) as agent:
            doc.workup_id = begin_priced(agent, home, doc, comps)
    lines = [doc.subject.address or "the home", doc.sentence, *(f"loosened: {s}" for s in doc.loosened), ""]
    for c in doc.comps:
        lines.append(
            f"{c.weight * 100:5.1f} %  {c.close_date}  {dollars(c.close_price):>11} → {dollars(c.adjusted_price):>11}  "
            f"net {c.net_pct:+.1f} %  gross {c.gross_pct:.1f} %  {c.address or c.listing_id}"
        )
    lines.append("")
    for m in doc.methods:
        lines.append(f"{m.label}: {dollars(m.value)}")
    if doc.range:
        note = "measured" if doc.range.measured else "not yet measured"
        lines.append(
            f"Indicated {dollars(doc.indicated_value)} · likely {dollars(doc.range.low)}–{dollars(doc.range.high)} ({note})"
        )
    lines += [f"note: {w}" for w in doc.warnings]
    return show(args, doc, "\n".join(lines))


def run_backtest(args: argparse.Namespace) -> int:
    held = Records(folder_with_records(args.data))
    records = held.snapshot()

    def say(done: int, of: int) -> None:
        print(f"\r{done:,} of {of:,} sales", end="", file=sys.stderr, flush=True)

    progress = say if sys.stderr.isatty() else None
    result = backtest(records, args.start, args.end, args.sample, args.seed, workers=args.workers, progress=progress)
    doc = answers.backtest_doc(result)
    keep(held.live, records.columns, result, doc.model_dump(mode="json"), dt.datetime.now())
    lines = [f"{doc.subjects:,} sales from {doc.start} to {doc.end}, in {doc.seconds:.1f} s"]
    lines += [f"  {n:,} left out: {why}" for why, n in doc.skipped.items()]
    for name, s in doc.methods.items():
        lines.append(
            f"{name:<24} median error {s.mdape:6.1%}   within 10 % {s.pe10:4.0%}   20 % {s.pe20:4.0%}   bias {s.bias:+.1%}"
        )
    if doc.range.hits is not None and doc.range.median_width is not None:
        lines.append(f"the 80 % range held {doc.range.hits:.1%}, its width {doc.range.median_width:.0%} of the value")
        lines += [f"  {f.low:>11,.0f} – {f.high:<11,.0f} {f.hits:6.1%} of {f.n}" for f in doc.range.by_fifth]
    if len(doc.kinds) > 1:
        lines.append("by kind of home")
        lines += [f"  {_kind_score(k)}" for k in doc.kinds]
    return show(args, doc, "\n".join(lines))


def _kind_score(k: KindScoreDoc) -> str:
    """A kind of home's line of a backtest; where too few sold, that alone."""
    start = f"{HOME_PLURAL[HomeKind(k.kind)]:<26}{k.n:>6,}"
    if k.few or k.hits is None or k.median_width is None:
        return f"{start}  too few to tell"
    told = f"median error {k.mdape:6.1%}   within 10 % {k.pe10:4.0%}   bias {k.bias:+.1%}"
    return f"{start}  {told}   range held {k.hits:.0%}, {k.median_width:.0%} wide"


def run_report(args: argparse.Namespace) -> int:
    from .report.papers import write_report

    with folders_agent(Records(folder_with_records(args.data)).snapshot(), user=args.user) as asking:
        agent = agent_for_workup(asking, args.workup, editing=False, own=False)
        pages = write_report(report_input(agent, args.workup, args.layout), args.layout, args.out)
    return show(args, {"file": str(args.out), "pages": pages}, f"{args.out}: {pages} pages")


def run_workups(args: argparse.Namespace) -> int:
    with folders_agent(Records(folder_with_records(args.data)).snapshot(), user=args.user) as agent:
        rows = list_workups(agent)
    return show(
        args, rows, "\n".join(f"{r['workup_id']:>4}  {r['changed_at']}  {r['title']}" for r in rows) or "no workups"
    )


def run_serve(args: argparse.Namespace) -> int:
    from .api.serve import serve

    serve(data_folder(args.data), args.host, args.port)
    return 0


def run_demo(args: argparse.Namespace) -> int:
    from .demo.town import prepare_demo

    folder = data_folder(args.data or ".demo")
    prepare_demo(folder, say=lambda text: print(text, flush=True))
    if args.no_serve:
        return 0
    from .standins.feed import TOKEN, serve_beside

    if address := serve_beside(folder / "files/listings.csv", FEED_PORT):
        print(f"A listing feed stands beside it at {address}, its token {TOKEN}", flush=True)
    from .standins.mail import serve_mail

    if not setting("RAIN_PORCH_SMTP") and (server := serve_mail(folder / "mail", MAIL_PORT)):
        os.environ["RAIN_PORCH_SMTP"] = server
        print(f"Messages go to a stand-in at {server}, which lays them down in {folder / 'mail'}", flush=True)
    return run_serve(argparse.Namespace(data=str(folder), host=args.host, port=args.port))


def run_schema(args: argparse.Namespace) -> int:
    print(json.dumps(SCHEMAS[args.name].model_json_schema(), indent=2))
    return 0


def run_backup(args: argparse.Namespace) -> int:
    made = backups.back_up(folder_with_records(args.data), args.out, dt.datetime.now())
    return show(args, {"file": str(made), "bytes": made.stat().st_size}, f"{made}: {made.stat().st_size / 1e6:.1f} MB")


def run_restore(args: argparse.Namespace) -> int:
    folder = data_folder(args.data)
    kept = backups.restore(folder, args.file, dt.datetime.now())
    aside = f"; what was there before is in {kept}" if kept else ""
    return show(args, {"folder": str(folder), "before": str(kept) if kept else None}, f"{folder} restored{aside}")


def run_check(args: argparse.Namespace) -> int:
    folder = data_folder(args.data)
    faults = backups.check(folder)
    notes: list[str] = []
    if not faults:
        faults, notes = backups.check_photos(folder)
    told = {"ok": not faults, "faults": faults, **({"notes": notes} if notes else {})}
    show(args, told, "\n".join([*(faults or ["all is well"]), *notes]))
    return 1 if faults else 0
