"""A look on paper: frozen as plain data, laid out as one page or a packet, a workbook or a table."""

from __future__ import annotations

from typing import Any, Literal

from pydantic import Field

from ...core.errors import BadInput
from ...core.facts.dates import said
from ...core.phrases import LANGUAGE, phrase
from ...documents.base import Line
from ...report.local import in_form
from ...report.pages import look as pages
from ...report.papers import as_pdf
from ...report.workbooks.look_workbook import look_csv, look_workbook
from ..around import LookAsk, LookDoc, figures_around, look_around
from ..office.agent import Agent
from ..office.choices import agent_card
from ..office.house_rules import rules_of
from .branding import brand
from .pictures import front_picture

MOST, PICTURED = 200, 40  # homes on paper, pictures


class LookPaper(LookAsk):
    """layout: one page, or a packet. of: which homes it speaks of; the ticked where any are, unless all found are asked for.
    order: the homes' numbers as they stand on the screen; those not named follow."""

    layout: Literal["page", "packet"] = "page"
    of: Literal["chosen", "found"] = "chosen"
    title: Line = ""
    order: list[str] = Field([], max_length=2000)


def paper_of_look(agent: Agent, form: Literal["pdf", "xlsx", "csv"], ask: LookPaper) -> tuple[bytes, str]:
    """(the file, its title). BadInput where there is no home to speak of, or the search cannot be run."""
    records, rules = agent.records, rules_of(agent)
    plain = LookAsk(**ask.model_dump(include={*LookAsk.model_fields}))
    found = look_around(records, plain, rules)
    if found.fault is not None:
        raise BadInput(found.fault.part or "search", found.fault.message)
    chosen = ask.of == "chosen" and bool(ask.ticked)
    homes = _spoken_of(found, ask, chosen)
    if not homes:
        raise BadInput("search", "This search finds no home: there is nothing to put on paper.")
    title = ask.title.strip() or (found.title if ask.home else phrase("look-title"))
    foot = phrase(
        "look-foot", through=said(records.through()), day=said(found.effective_date), made=said(agent.now().date())
    )
    look = brand(agent)
    given = pages.LookInput(
        title=title, sentence=found.words,
        subject=found.subject.model_dump(mode="json") | ({} if ask.home else {"placed": None}),
        homes=homes, found=sum(found.counts.values()), chosen=chosen,
        summaries=figures_around(records, plain, rules).model_dump(mode="json"), asks=found.asks,
        search=found.search.model_dump(mode="json"), base_map=records.base_map(),
        pictures={h["listing_id"]: drawn for h in homes[:PICTURED] if (drawn := front_picture(records, h["listing_id"]))}
        if form == "pdf" and ask.layout == "packet"
        else {},
        form=look.form,
    )  # fmt: skip
    if form == "csv":
        return look_csv(given), title
    if form == "xlsx":
        return look_workbook(given, foot), title
    model = {
        "language": LANGUAGE, "title": title, "address": title, "by": str(agent_card(agent).get("name") or ""), "foot": foot, "accent": look.colour,
        "paper": look.size, "pages": pages.one_page(given) if ask.layout == "page" else pages.packet(given),
    }  # fmt: skip
    return as_pdf(in_form(model, look.form)), title


def _spoken_of(found: LookDoc, ask: LookPaper, chosen: bool) -> list[dict[str, Any]]:
    """The homes on paper, in the order asked for."""
    listed = {c.listing_id: c for c in (*found.kept_elsewhere, *found.candidates)}
    wanted = [k for k in ask.ticked if k in listed] if chosen else [c.listing_id for c in found.candidates]
    place = {k: i for i, k in enumerate(ask.order)}
    wanted.sort(key=lambda k: place.get(k, len(place)))
    return [listed[k].model_dump(mode="json") for k in wanted[:MOST]]
