"""The records on which a command works, by the rules of the house."""

from __future__ import annotations

import argparse

from ..app.office.agent import folders_agent
from ..app.office.house_rules import rules_of
from ..app.records import Records
from ..app.snapshot import Snapshot
from ..core.facts.house_rules import USUAL, HouseRules
from ..settings import folder_with_records


def records_and_rules(args: argparse.Namespace) -> tuple[Snapshot, HouseRules]:
    """The newest records, and the rules of whom the command works for; the usual ones where nobody has kept anything yet."""
    records = Records(folder_with_records(args.data)).snapshot()
    if not (records.folder / "porch.db").is_file():
        return records, USUAL
    with folders_agent(records, user=args.user) as agent:
        return agent.records, rules_of(agent)
