"""For an appraiser alone: what was left out, and why."""

from __future__ import annotations

from typing import Any

from ...core.facts.local_form import OwnWords
from ..blocks import Nothing, page, table
from ..model import ReportInput
from ..wording import many
from .telling import asked_or_paid, facts_line_short, name_of, status_of


def set_aside_page(given: ReportInput) -> dict[str, Any] | Nothing:
    """What the agent set aside, with the reasons; it stands on no other page."""
    if not given.aside:
        return Nothing("Nothing was set aside.")
    rows = [
        [
            name_of(c),
            facts_line_short(c),
            f"{status_of(c)}, {asked_or_paid(c)}",
            OwnWords(c.get("reason") or "no reason given"),
        ]
        for c in given.aside
    ]
    n = len(rows)
    return page(
        "set_aside", "What was left out, and why", table(["home", "", "", "why"], rows, words=4, widths=(1.4, 1.6, 1.7, 2)),
        lead=f"{many(n, 'home')} that the search finds {'was' if n == 1 else 'were'} set aside: in no figure, on no map.", flow=True,
    )  # fmt: skip
