"""The records on which a command works, by the rules of the house."""

from __future__ import annotations

import argparse
from contextlib import AbstractContextManager

from threadpoolctl import threadpool_limits

from ..app.office.agent import folders_agent
from ..app.office.house_rules import rules_of
from ..app.records import Records
from ..app.snapshot import Snapshot
from ..core.facts.house_rules import USUAL, HouseRules
from ..settings import folder_with_records


def on_one_processor() -> AbstractContextManager[object]:
    """Linear algebra on one processor, as in the service: sums of several differ in their last digits, and of homes around one
    home they take more time together than one alone."""
    limits: AbstractContextManager[object] = threadpool_limits(1, user_api="blas")
    return limits


def records_and_rules(args: argparse.Namespace) -> tuple[Snapshot, HouseRules]:
    """The newest records, and the rules of whom the command works for; the usual ones where nobody has kept anything yet."""
    records = Records(folder_with_records(args.data)).snapshot()
    if not (records.folder / "porch.db").is_file():
        return records, USUAL
    with folders_agent(records, user=args.user) as agent:
        return agent.records, rules_of(agent)
