"""`rain-porch find`, `price` and `backtest`."""

from __future__ import annotations

import argparse
import datetime as dt
import json
import sys
from pathlib import Path
from typing import Any

from pydantic import ValidationError

from ..app.home import homes
from ..app.office.agent import folders_agent
from ..app.pricing.find_document import find_doc
from ..app.processors import on_one_processor
from ..app.records import Records
from ..app.snapshot import Snapshot
from ..core.errors import BadInput, Refused
from ..core.facts.money import dollars
from ..core.facts.words import home_plural
from ..documents.backtests import KindScoreDoc
from ..documents.search import SearchDoc
from ..settings import folder_with_records
from .opening import records_and_rules
from .telling import show


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


def run_find(args: argparse.Namespace) -> int:
    records, rules = records_and_rules(args)
    doc = find_doc(records, named_home(records, args), args.as_of, read_search(args.search), rules)
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
    from ..app.pricing.price_document import price_doc  # what only finds homes does not wait for it to be read

    records, rules = records_and_rules(args)
    home = named_home(records, args)
    search = read_search(args.search)
    with on_one_processor():
        doc, comps = price_doc(records, home, args.as_of, search, args.exclude_self, rules)
    if args.save:
        from ..app.workup.workups import begin_priced

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
    from ..app.pricing.backtest_document import backtest_doc
    from ..app.pricing.backtesting import backtest, keep

    held = Records(folder_with_records(args.data))
    records = held.snapshot()

    def say(done: int, of: int) -> None:
        print(f"\r{done:,} of {of:,} sales", end="", file=sys.stderr, flush=True)

    progress = say if sys.stderr.isatty() else None
    result = backtest(records, args.start, args.end, args.sample, args.seed, workers=args.workers, progress=progress)
    doc = backtest_doc(result)
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
    start = f"{home_plural(k.kind):<26}{k.n:>6,}"
    if k.few or k.hits is None or k.median_width is None:
        return f"{start}  too few to tell"
    told = f"median error {k.mdape:6.1%}   within 10 % {k.pe10:4.0%}   bias {k.bias:+.1%}"
    return f"{start}  {told}   range held {k.hits:.0%}, {k.median_width:.0%} wide"
