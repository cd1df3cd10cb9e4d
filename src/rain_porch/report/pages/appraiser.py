"""For an appraiser alone: what was left out, and why."""

from __future__ import annotations

from typing import Any

from ...core.facts.local_form import OwnWords
from ...core.phrases import phrase, phrases_of
from ..blocks import Nothing, page, table
from ..model import ReportInput
from .telling import asked_or_paid, facts_line_short, name_of, status_of


def set_aside_page(given: ReportInput) -> dict[str, Any] | Nothing:
    """What the agent set aside, with the reasons; it stands on no other page."""
    if not given.aside:
        return Nothing(phrase("set-aside-none"))
    rows = [
        [
            name_of(c),
            facts_line_short(c),
            phrase("set-aside-status", status=status_of(c), price=asked_or_paid(c)),
            OwnWords(c.get("reason") or phrase("set-aside-no-reason")),
        ]
        for c in given.aside
    ]
    return page(
        "set_aside", phrase("set-aside-title"), table(phrases_of("head-home", "", "", "head-why"), rows, words=4, widths=(1.4, 1.6, 1.7, 2)),
        lead=phrase("set-aside-lead", n=len(rows)), flow=True,
    )  # fmt: skip
