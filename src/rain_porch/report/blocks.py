"""What pages are made of: each block is plain data that every paper (PDF, web page) knows how to lay out."""

from __future__ import annotations

from collections.abc import Sequence
from typing import Any

Block = dict[str, Any]


def page(name: str, title: str, *blocks: Block | None, lead: str = "", flow: bool = False) -> dict[str, Any]:
    """A page of blocks under a title; blocks that are None are left out.

    flow: short enough to stand under the page before it, where there is room.
    """
    kept = [b for b in blocks if b is not None]
    return {"page": "blocks", "name": name, "title": title, "lead": lead, "blocks": kept, "flow": flow}


def heading(text: str) -> Block:
    return {"kind": "heading", "text": text}


def para(text: str, small: bool = False) -> Block:
    return {"kind": "para", "text": text, "small": small}


def note(text: str) -> Block:
    """Something that asks for attention, or says what is missing."""
    return {"kind": "note", "text": text}


def table(
    head: Sequence[str], rows: Sequence[Sequence[str]], words: int = 1, widths: Sequence[float] = (), last: bool = False
) -> Block:
    """The first `words` columns hold words, the others figures. widths: shares. last: the last row is a total."""
    return {
        "kind": "table", "head": list(head), "rows": [list(r) for r in rows], "words": words,
        "widths": list(widths) or [2.0] * words + [1.0] * (len(head) - words), "last": last,
    }  # fmt: skip


def picture(svg: str, alt: str, caption: str = "", width: float = 1.0) -> Block:
    """A picture as SVG; width: share of the page's."""
    return {"kind": "picture", "svg": svg, "alt": alt, "caption": caption, "width": width}


def figures(items: Sequence[tuple[str, str, str]]) -> Block:
    """Large figures in a row: (label, figure, colour: moss, cedar or slate)."""
    return {"kind": "figures", "items": [list(i) for i in items]}


def ruled(label: str) -> Block:
    """A line to be filled in by hand."""
    return {"kind": "ruled", "label": label}


def homes(cards: Sequence[dict[str, Any]]) -> Block:
    """Homes three in a row: svg (or none), title, price, lines."""
    return {"kind": "homes", "cards": list(cards)}
