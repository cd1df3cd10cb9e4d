"""A bulletin on paper: its parts with what they need to be drawn, under the agent's name and colours."""

from __future__ import annotations

from typing import Any

from ...report.pages.letter import letter_pages
from ...report.papers import letter_document
from ...report.pictures import ink
from ...report.pictures.base_lines import base_lines
from ...report.webpage import web_page
from ..agent import Agent
from ..choices import agent_card
from ..market.letters import LetterDoc, items_of
from ..snapshot import Snapshot
from .branding import brand
from .pictures import front_picture


def drawn_items(records: Snapshot, letter: LetterDoc, width: float = ink.WIDE) -> list[dict[str, Any]]:
    """The bulletin's parts with their figures of today, pictures of what sold, and the lines of the map. width: of pictures as wide
    as the page, in points."""
    return [item | _drawn(records, item) | {"width": width} for item in items_of(records, letter)]


def _drawn(records: Snapshot, item: dict[str, Any]) -> dict[str, Any]:
    if item["kind"] == "sold":
        keys = [h["listing_id"] for h in item["answer"]["homes"]]
        return {"pictures": {key: svg for key in keys if (svg := front_picture(records, key))}}
    if item["kind"] == "places":
        return {"lines": records.remember("lines of the map", lambda: base_lines(records.base_map()))}
    return {}


def letter_html(agent: Agent, letter: LetterDoc) -> bytes:
    """The bulletin as one web page, its pictures drawn for a phone too."""
    return web_page(letter_model(agent, letter), letter_model(agent, letter, ink.NARROW)).encode()


def letter_model(agent: Agent, letter: LetterDoc, width: float = ink.WIDE) -> dict[str, Any]:
    """The document model from which PDF, pictures and web page are made."""
    pages = letter_pages(letter.title, letter.comment, drawn_items(agent.records, letter, width))
    return letter_document(
        letter.title, agent_card(agent), brand(agent), agent.now().date(), agent.records.through(), pages
    )
