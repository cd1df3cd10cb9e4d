"""A bulletin as files: PDF, web page, workbook, CSV, pictures for posting."""

from __future__ import annotations

import datetime as dt
from collections.abc import Iterator, Mapping
from typing import Any, Literal

import numpy as np

from ...core.errors import BadInput
from ...core.facts.dates import day_of, said
from ...core.phrases import phrase
from ...report.papers import as_pdf
from ...report.posts import post
from ...report.workbooks.bulletin_rows import rows_of
from ...report.workbooks.bulletin_workbook import bulletin_csv, bulletin_workbook
from ..bulletin.documents import BulletinDoc, BulletinPartDoc
from ..bulletin.kept import last_day, parts_of
from ..bulletin.market_at import MarketAt
from ..market.closer_looks import records_of
from ..office.agent import Agent
from ..office.choices import agent_card
from .branding import brand
from .bulletin_papers import bulletin_html, bulletin_model

FORMS = ("pdf", "html", "xlsx", "csv", "square.png", "wide.png")
MOST_HOMES = 50_000  # listed in a workbook


def bulletin_file(
    agent: Agent, bulletin: BulletinDoc, form: str, through: dt.date | None = None, last: dt.date | None = None
) -> bytes:
    """The bulletin in one form. through: as it all stood then, else the newest; last: the day through which it was made last."""
    if form == "pdf":
        return as_pdf(bulletin_model(agent, bulletin, through, last))
    if form == "html":
        return bulletin_html(agent, bulletin, through, last)
    if form in ("square.png", "wide.png"):
        return _posted(agent, bulletin, "square" if form == "square.png" else "wide", through)
    rows = rows_of(parts_of(agent.records, bulletin, through, last))
    if form == "csv":
        return bulletin_csv(rows)
    if form == "xlsx":
        return bulletin_workbook(bulletin.title, rows, list(_homes(agent, bulletin, through)))
    raise BadInput("form", f"A bulletin is written as {', '.join(f'.{f}' for f in FORMS)}, not as .{form}.")


def _posted(agent: Agent, bulletin: BulletinDoc, shape: Literal["square", "wide"], through: dt.date | None) -> bytes:
    if not bulletin.parts:
        raise BadInput("parts", "Nothing is in this bulletin yet: add a part.")
    view = bulletin.parts[0].view
    shown = BulletinDoc(
        title=bulletin.title,
        parts=[BulletinPartDoc(kind="headline", view=view), BulletinPartDoc(kind="prices", view=view)],
    )
    foot = phrase("post-foot", through=said(last_day(agent.records, through)))
    parts = parts_of(agent.records, shown, through)
    return post(bulletin.title, parts, agent_card(agent), brand(agent), foot, shape)


def _homes(agent: Agent, bulletin: BulletinDoc, through: dt.date | None) -> Iterator[Mapping[str, Any]]:
    """The homes that the bulletin's views stand on: closed in the newest twelve whole months and the twelve before, for sale at
    their end, come on in the newest month."""
    day = last_day(agent.records, through)
    left = MOST_HOMES
    for view in {p.view.model_dump_json(): p.view for p in bulletin.parts}.values():
        at = MarketAt(agent.records, view, day)
        now, before = at.year
        end = day_of(now.end)
        for what, rows in (
            ("closed", at.market.within("close", day_of(before.start), end)),
            ("for sale", at.market.on_market_at(end)),
            ("came on", at.market.within("start", day_of(now.end.replace(day=1)), end)),
        ):
            for home in records_of(agent.records, np.unique(rows), day_of(day), left):
                yield {"what": what, "where": at.where, **home.model_dump()}
                left -= 1
