"""`rain-porch report`, `workups` and `schema`."""

from __future__ import annotations

import argparse
import json

from ..app.handover.report_input import report_input
from ..app.office.agent import folders_agent
from ..app.office.sharing import agent_for_workup
from ..app.processors import on_one_processor
from ..app.records import Records
from ..app.schemas import SCHEMAS
from ..app.workup.workups import list_workups
from ..report.papers import write_report
from ..settings import folder_with_records
from .telling import show


def run_report(args: argparse.Namespace) -> int:
    with folders_agent(Records(folder_with_records(args.data)).snapshot(), user=args.user) as asking:
        agent = agent_for_workup(asking, args.workup, editing=False, own=False)
        with on_one_processor():
            data = report_input(agent, args.workup, args.layout)
        pages = write_report(data, args.layout, args.out)
    return show(args, {"file": str(args.out), "pages": pages}, f"{args.out}: {pages} pages")


def run_workups(args: argparse.Namespace) -> int:
    with folders_agent(Records(folder_with_records(args.data)).snapshot(), user=args.user) as agent:
        rows = list_workups(agent)
    return show(
        args, rows, "\n".join(f"{r['workup_id']:>4}  {r['changed_at']}  {r['title']}" for r in rows) or "no workups"
    )


def run_schema(args: argparse.Namespace) -> int:
    print(json.dumps(SCHEMAS[args.name].model_json_schema(), indent=2))
    return 0
