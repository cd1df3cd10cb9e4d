"""Pages of a bulletin: its parts under each other, begun on a page of their own where they say so. Pure functions of their answers."""

from __future__ import annotations

from collections.abc import Callable, Mapping, Sequence
from typing import Any

from ...core.facts.local_form import OwnWords
from ...core.phrases import phrase
from ..blocks import Block, heading, page, para
from . import bulletin_parts as parts_of
from . import bulletin_tables as tables
from .bulletin_tables import Part

_OF: Mapping[str, Callable[[Part], list[Block | None]]] = {
    "headline": parts_of.headline_part, "prices": parts_of.prices_part, "places": parts_of.places_part, "years": parts_of.years_part,
    **dict.fromkeys(("price_ways", "pace", "flow", "shares"), parts_of.charts_part), "heat": parts_of.heat_part,
    **dict.fromkeys(("sold", "came_on"), parts_of.homes_part), "market_conditions": parts_of.conditions_part, "words": parts_of.words_part,
    "view": tables.view_part, "so_far": tables.so_far_part, "bands": tables.bands_part, "changed": tables.changed_part,
    "since_last": tables.since_part,
}  # fmt: skip


def bulletin_pages(title: str, comment: str, parts: Sequence[Part]) -> list[dict[str, Any]]:
    """The bulletin as pages: its title and words, then its parts under each other; one that begins a page stands on top of one."""
    opening = [para(text) for text in _paragraphs(comment)]
    if not parts:
        return [page("bulletin", title, *opening, para(phrase("bulletin-empty")))]
    return _pages(title, parts, opening)


def part_pages(parts: Sequence[Part]) -> list[dict[str, Any]]:
    """The parts alone, as they stand in a client's report: the first gives the page its title."""
    return _pages("", parts, []) if parts else []


CROWDED = 4  # parts on one page from which their pictures are drawn lower
_LONG = frozenset(("places", "words"))  # parts that take the room of two
# points that a part takes at most, and on a crowded page; what is not named takes a page
_TALL: Mapping[str, tuple[float, float]] = {
    "headline": (330, 190), "price_ways": (200, 190), "pace": (230, 134), "flow": (235, 220), "shares": (235, 220), "bands": (140, 112),
    "places": (330, 270), "years": (230, 230), "heat": (140, 140), "sold": (345, 120), "came_on": (345, 150), "words": (205, 205),
    "market_conditions": (240, 240),
}  # fmt: skip
_PAGE, _COMMENT = 611.0, 14.0  # points under a title and two lines of lead; of a line of a comment


def _left(group: Sequence[Part], crowded: bool) -> float:
    """Points of a page that are surely left for its prices by month."""
    others = [_TALL.get(p["kind"], (_PAGE, _PAGE))[crowded] for p in group if p["kind"] != "prices"]
    comments = sum(_COMMENT * (1 + len(p["comment"]) / 90) for p in group if p["comment"])
    again = sum(_PAGE for p in group if p["kind"] == "prices") - _PAGE  # a second of them has no room of its own
    return _PAGE - sum(others) - comments - max(0.0, again)


def _pages(title: str, parts: Sequence[Part], opening: Sequence[Block | None]) -> list[dict[str, Any]]:
    groups: list[list[Part]] = [[]]
    for part in parts:
        if part.get("page_break") and (groups[-1] or opening):
            groups.append([])
        groups[-1].append(part)
    out = []
    for n, group in enumerate(groups):
        crowded = sum(2 if part["kind"] in _LONG else 1 for part in group) >= CROWDED
        left = _left(group, crowded) - (_PAGE / 2 if opening and not n else 0.0)
        name, blocks, lead = OwnWords(title) if not n else "", list(opening) if not n else [], ""
        for k, part in enumerate(group):
            if part["kind"] == "headline" and not lead and not k:
                lead = part["answer"]["headline"]
            elif name:
                blocks.append(heading(part["title"]))
            name = name or part["title"]
            made = _OF[part["kind"]](part | {"crowded": crowded, "left": left})
            blocks += [*made, *(para(t) for t in _paragraphs(part["comment"]))]
        out.append(page(f"bulletin {n}", name, *blocks, lead=lead))
    return out


def _paragraphs(text: str) -> list[str]:
    return [OwnWords(part.strip()) for part in text.split("\n\n") if part.strip()]
