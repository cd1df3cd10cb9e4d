"""A bulletin on paper: its parts with what they need to be drawn, under the agent's name and colours."""

from __future__ import annotations

import datetime as dt
from typing import Any

from ...core.facts.local_form import LocalForm
from ...report.pages.bulletin import bulletin_pages
from ...report.papers import bulletin_document
from ...report.pictures import ink
from ...report.pictures.base_lines import base_lines
from ...report.webpage import web_page
from ..bulletin.documents import BulletinDoc
from ..bulletin.kept import last_day, parts_of
from ..office.agent import Agent
from ..office.choices import agent_card
from ..snapshot import Snapshot
from .branding import brand
from .pictures import front_picture

Parts = list[dict[str, Any]]


def drawn_parts(records: Snapshot, parts: Parts, form: LocalForm, width: float = ink.WIDE) -> Parts:
    """A bulletin's parts with pictures of the homes in them and the lines of the map. form: in whose units
    charts are drawn; width: of pictures as wide as the page, in points."""
    return [part | _drawn(records, part) | {"width": width, "form": form} for part in parts]


def _drawn(records: Snapshot, part: dict[str, Any]) -> dict[str, Any]:
    if part["kind"] in ("sold", "came_on") and not part["table"]:
        listed = [h["listing_id"] for h in part["answer"]["homes"]]
        return {"pictures": {key: svg for key in listed if (svg := front_picture(records, key))}}
    if part["kind"] == "places":
        return {"lines": records.remember("lines of the map", lambda: base_lines(records.base_map()))}
    return {}


def bulletin_html(
    agent: Agent, bulletin: BulletinDoc, through: dt.date | None = None, last: dt.date | None = None
) -> bytes:
    """The bulletin as one web page, its pictures drawn for a phone too."""
    return html_of(agent, bulletin, parts_of(agent.records, bulletin, through, last), through)


def bulletin_model(
    agent: Agent, bulletin: BulletinDoc, through: dt.date | None = None, last: dt.date | None = None
) -> dict[str, Any]:
    """The document model from which PDF, pictures and web page are made. through: as it all stood then, else today; last: the day
    through which it was made last."""
    return model_of(agent, bulletin, parts_of(agent.records, bulletin, through, last), through)


def model_of(
    agent: Agent, bulletin: BulletinDoc, parts: Parts, through: dt.date | None, width: float = ink.WIDE
) -> dict[str, Any]:
    look = brand(agent)
    pages = bulletin_pages(bulletin.title, bulletin.comment, drawn_parts(agent.records, parts, look.form, width))
    day = last_day(agent.records, through)
    return bulletin_document(bulletin.title, agent_card(agent), look, agent.now().date(), day, pages)


def html_of(agent: Agent, bulletin: BulletinDoc, parts: Parts, through: dt.date | None) -> bytes:
    return web_page(*(model_of(agent, bulletin, parts, through, width) for width in (ink.WIDE, ink.NARROW))).encode()
