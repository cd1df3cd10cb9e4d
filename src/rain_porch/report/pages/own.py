"""The agent's own pages: a PDF or a picture, placed anywhere among the others."""

from __future__ import annotations

from typing import Any

from ...core.facts.local_form import OwnWords
from ...core.phrases import phrase
from ..blocks import Nothing, card, homes, page, para
from ..model import ReportInput

OWN = "own:"  # what the name of such a page begins with


def own_pages(given: ReportInput, name: str) -> list[dict[str, Any]] | Nothing:
    """One page for each of the file's."""
    held = given.own_pages.get(name)
    if held is None:
        return Nothing(phrase("own-page-gone"))
    if held.words is not None:
        cards = [card(svg, "", alt=held.title) for svg in held.pictures]
        words = [para(OwnWords(p.strip())) for p in held.words.split("\n\n") if p.strip()]
        return [page(name, OwnWords(held.title), *words, homes(cards, 1 if len(cards) == 1 else 2))]
    return [
        {"page": "own", "name": name, "title": held.title, "path": held.path, "number": n + 1}
        for n in range(held.pages)
    ]
