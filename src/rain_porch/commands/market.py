"""`rain-porch market`: series, saved views, the records behind a figure, what changed, the year so far, bands."""

from __future__ import annotations

import argparse
import csv
import datetime as dt
import sys

from ..app.market import closer_looks as looks
from ..app.market.market_document import market_doc
from ..app.market.saved_views import saved_views
from ..app.market.view_tables import table_of
from ..app.market.views import PointDoc, ViewDoc, answer, year_so_far
from ..app.office.agent import folders_agent
from ..app.snapshot import Snapshot
from ..core.errors import BadInput, NotFound
from ..core.market.measures import MEASURES, periods
from ..core.market.view_reading import shown
from .opening import records_and_rules
from .telling import show


def run_market(args: argparse.Namespace) -> int:
    measures = [name for text in args.measure for name in text.replace(",", " ").split()]
    others = (
        (args.view, _view),
        (args.bulletin, _bulletin),
        (args.changed_since, _changes),
        (args.so_far, _so_far),
        (args.bands, _bands),
    )
    if not measures and not any(asked for asked, _ in others):
        args.usage(f"name a --measure: one of {', '.join(MEASURES)}")
    records, _ = records_and_rules(args)
    for asked, run in others:
        if asked:
            return run(args, records)
    if args.behind:
        return _behind(args, records, measures)
    doc = market_doc(records, measures, args.by, args.start, args.end, args.area, args.where, deeds=args.deeds)
    if args.csv:
        writer = csv.writer(sys.stdout)
        writer.writerow(["period", "start", "end", "finished", *(x for m in doc.measures for x in (m, f"{m}_n"))])
        for p in doc.periods:
            cells = [x for m in doc.measures for x in (p.values[m].value, p.values[m].n)]
            writer.writerow([p.period, p.start, p.end, p.finished, *cells])
        return 0
    lines = ["period    " + "  ".join(f"{m:>22}" for m in doc.measures)]
    for p in doc.periods:
        values = "  ".join(
            f"{'—' if (v := p.values[m].value) is None else f'{v:,.4g}' if abs(v) < 100 else f'{v:,.0f}':>22}"
            for m in doc.measures
        )
        lines.append(f"{p.period:<9}{' ' if p.finished else '*'}{values}")
    return show(args, doc, "\n".join(lines))


def _asked(args: argparse.Namespace) -> ViewDoc:
    return ViewDoc(places=[args.area] if args.area else [], where=args.where, deeds=args.deeds)


def _value(point: PointDoc | None, unit: str) -> str:
    if point is None or point.value is None:
        return "—"
    return f"{point.value:.2f}" if unit == "series" else shown(point.value, unit)


def _view(args: argparse.Namespace, records: Snapshot) -> int:
    from ..report.workbooks.market_workbook import market_workbook

    with folders_agent(records, user=args.user) as agent:
        held: dict[str, ViewDoc] = {v["name"]: v["view"] for v in saved_views(agent)}
    if args.view not in held:
        raise NotFound(
            f"There is no saved view “{args.view}”: there are {', '.join(held) or 'none yet'}.", name=args.view
        )
    told = answer(records, held[args.view])
    if args.out is not None:
        if args.out.suffix.lower() != ".xlsx":
            raise BadInput("out", f"{args.out.name}: a view is written as .xlsx, or printed with --csv.")
        plain = told.model_dump()
        args.out.write_bytes(market_workbook(told.sentence, plain["periods"], plain["lines"]))
    if args.csv:
        csv.writer(sys.stdout).writerows(table_of(told))
        return 0
    lines = [told.sentence, "period     " + "  ".join(f"{(line.name or line.label)[:24]:>24}" for line in told.lines)]
    for i, p in enumerate(told.periods):
        cells = [f"{_value(line.points[i], line.unit):>24}" for line in told.lines]
        lines.append(f"{p.period:<10}{' ' if p.finished else '*'}" + "  ".join(cells))
    return show(args, told, "\n".join(lines))


def _bulletin(args: argparse.Namespace, records: Snapshot) -> int:
    from ..app.bulletin.documents import READY
    from ..app.bulletin.kept import bulletin_named, ready
    from ..app.handover.bulletin_files import FORMS, bulletin_file

    form = next((f for f in FORMS if args.out is not None and args.out.name.lower().endswith(f".{f}")), None)
    if form is None:
        endings = ", ".join(f".{f}" for f in FORMS)
        raise BadInput("out", f"A bulletin is written to a file: name one with --out, ending in one of {endings}.")
    with folders_agent(records, user=args.user) as agent:
        if args.bulletin in READY:
            made = ready(args.bulletin, _asked(args), args.area or "The market")
        else:
            made = bulletin_named(agent, args.bulletin)
        args.out.write_bytes(bulletin_file(agent, made, form, args.end))
    return show(args, {"file": str(args.out), "title": made.title}, f"{args.out}: {made.title}")


def _behind(args: argparse.Namespace, records: Snapshot, measures: list[str]) -> int:
    if len(measures) != 1:
        raise BadInput("measure", "Records stand behind one measure at a time: name one.")
    through = records.through()
    spans = {p.name: p for p in periods(args.by, dt.date(through.year - 30, 1, 1), through, through)}
    if args.behind not in spans:
        raise BadInput("behind", f"“{args.behind}” is no {args.by} of the records: write it as {list(spans)[-1]}.")
    span = spans[args.behind]
    ask = looks.BehindAsk(view=_asked(args), measure=measures[0], place=args.area or "", start=span.start, end=span.end)
    doc = looks.behind(records, ask)
    lines = [f"{doc.label}, {span.name}: {_value(doc.value, doc.unit)}, from {doc.count}"]
    lines += [
        f"  {r.listing_id:<14} {r.kind.replace('_', ' '):<15} {r.date or ''!s:<11} {r.price or 0:>12,.0f}  {r.address}"
        for r in doc.records
    ]
    return show(args, doc, "\n".join(lines))


def _changes(args: argparse.Namespace, records: Snapshot) -> int:
    doc = looks.changes(records, looks.ChangesAsk(view=_asked(args), since=args.changed_since))
    lines = [f"Since {doc.since}, to {doc.through}:"]
    lines += [f"  {n:>5} {doc.labels[what].lower()}" for what, n in doc.counts.items()]
    for c in doc.changes:
        price = f"{c.old:,.0f} → {c.new:,.0f}" if c.old and c.new else f"{c.price or 0:,.0f}"
        lines.append(f"  {c.date} {doc.labels[c.what]:<20} {price:>20}  {c.record.address}")
    return show(args, doc, "\n".join(lines))


def _so_far(args: argparse.Namespace, records: Snapshot) -> int:
    doc = year_so_far(records, _asked(args))
    lines = [f"This year to {doc.end}, against the same days of {doc.end.year - 1}"]
    for r in doc.rows:
        change = "" if r.change is None else r.change.words
        lines.append(f"  {r.label:<36} {_value(r.now, r.unit):>16} {_value(r.before, r.unit):>16} {change:>12}")
    return show(args, doc, "\n".join(lines))


def _bands(args: argparse.Namespace, records: Snapshot) -> int:
    doc = looks.by_bands(records, looks.BandsAsk(view=_asked(args)))
    lines = [f"The twelve months to {doc.end}"]
    for rows in (doc.size, doc.price):
        names = list(rows[0].values) if rows else []
        lines.append(f"{'':<26}" + "".join(f"{doc.labels[n][0][:22]:>24}" for n in names))
        for r in rows:
            lines.append(f"  {r.label:<24}" + "".join(f"{_value(r.values[n], doc.labels[n][1]):>24}" for n in names))
    return show(args, doc, "\n".join(lines))
