"""What pages are made of: each block is plain data that every paper (PDF, web page) knows how to lay out."""

from __future__ import annotations

from collections.abc import Callable, Sequence
from dataclasses import dataclass
from functools import cache, partial
from typing import Any

from ..core.phrases import phrase

Block = dict[str, Any]


@dataclass(frozen=True)
class Nothing:
    """A page that has nothing to say to a client: it is not printed. why: told to the agent, with the remedy."""

    why: str


def page(name: str, title: str, *blocks: Block | None, lead: str = "", flow: bool = False) -> dict[str, Any]:
    """A page of blocks under a title and one sentence (lead); blocks that are None are left out.

    flow: short enough to stand under the page before it, where there is room.
    """
    kept = [b for b in blocks if b is not None]
    return {"page": "blocks", "name": name, "title": title, "lead": lead, "blocks": kept, "flow": flow}


def heading(text: str) -> Block:
    return {"kind": "heading", "text": text}


def para(text: str, small: bool = False, large: bool = False) -> Block:
    return {"kind": "para", "text": text, "small": small, "large": large}


def listed(items: Sequence[str]) -> Block | None:
    """Sentences one under the other."""
    return {"kind": "list", "items": list(items)} if items else None


def table(
    head: Sequence[str], rows: Sequence[Sequence[str]], words: int = 1, widths: Sequence[float] = (), last: bool = False,
    share: float = 1.0,
) -> Block:  # fmt: skip
    """The first `words` columns hold words, the others figures. widths: shares of each other; share: of the page's width.
    last: the last row is a total."""
    return {
        "kind": "table", "head": list(head), "rows": [list(r) for r in rows], "words": words,
        "widths": list(widths) or [2.0] * words + [1.0] * (len(head) - words), "last": last, "share": share,
    }  # fmt: skip


def pairs(items: Sequence[tuple[str, str]], columns: int = 1) -> Block | None:
    """Names with their values, in so many columns."""
    return {"kind": "pairs", "items": [list(i) for i in items], "columns": columns} if items else None


def picture(svg: str, alt: str, caption: str = "", width: float = 1.0) -> Block:
    """A picture as SVG; width: share of the page's."""
    return {"kind": "picture", "svg": svg, "alt": alt, "caption": caption, "width": width}


def filling(
    draw: Callable[[float], str],
    heights: Sequence[float],
    alt: str,
    caption: str = "",
    needed: bool = True,
    title: str = "",
) -> Block:
    """A picture of the page's width that takes the height that is left: drawn for each of these heights, the tallest that fits is
    set. needed: where not, it is left out with its title, rather than pushed to the next page. It is drawn when the page is laid out, not when it is
    only asked whether the page has something to say."""
    sizes = [{"height": h, "svg": cache(partial(draw, h))} for h in sorted(heights)]
    return {"kind": "filling", "sizes": sizes, "alt": alt, "caption": caption, "needed": needed, "title": title}


def figures(items: Sequence[tuple[str, str, str]], stacked: bool = False) -> Block:
    """Large figures in a row, or one under another: (label, figure, colour: moss, cedar, rain or slate). The first is the largest."""
    return {"kind": "figures", "items": [list(i) for i in items], "stacked": stacked}


def keys(items: Sequence[tuple[str, str, str, str]]) -> Block:
    """Key figures in a row: (label, figure, its change in words, a small chart as SVG or "")."""
    return {
        "kind": "keys",
        "items": [
            {"label": a, "value": b, "change": c, "svg": d, "alt": phrase("by-month-alt", label=a)}
            for a, b, c, d in items
        ],
    }


def ruled(label: str) -> Block:
    """A line to be filled in by hand."""
    return {"kind": "ruled", "label": label}


def columns(parts: Sequence[Sequence[Block | None]], widths: Sequence[float]) -> Block:
    """Blocks beside each other."""
    return {"kind": "columns", "parts": [[b for b in p if b is not None] for p in parts], "widths": list(widths)}


def card(
    svg: str, title: str, price: str = "", lines: Sequence[str] = (), number: int | None = None, alt: str = ""
) -> dict[str, Any]:
    return {"svg": svg, "title": title, "price": price, "lines": list(lines), "number": number, "alt": alt or title}


def homes(cards: Sequence[dict[str, Any]], across: int = 3) -> Block | None:
    """Homes (cards), so many in a row."""
    return {"kind": "homes", "cards": list(cards), "across": across} if cards else None


def glance(rows: Sequence[dict[str, Any]], head: Sequence[str], thumb: float = 66, first: bool = True) -> Block:
    """One row a home: number, svg ("" for none), title, facts, price, status, pace, differs. head: what stands over its four columns.
    thumb: width of a picture in points. first: whether it begins where it stands, not on a page of its own."""
    return {"kind": "glance", "rows": list(rows), "head": list(head), "thumb": thumb, "first": first}


def head_of_column(number: int | None, title: str, svg: str) -> dict[str, Any]:
    """alt: told in the place of the home's picture."""
    return {"number": number, "title": title, "svg": svg, "alt": phrase("front-of", home=title)}


def line_of(cells: Sequence[str], strong: bool = False, line: bool = False) -> dict[str, Any]:
    """A row of a matrix. strong: stands out; line: a rule above it."""
    return {"cells": list(cells), "strong": strong, "line": line}


def matrix(
    heads: Sequence[dict[str, Any]], rows: Sequence[dict[str, Any]], most: int, mine: str = "", over: str = ""
) -> Block:
    """Homes across, lines down, one cell more than heads + 1 in each row: the second column is this home's (named `mine`) or
    holds what `over` says. most: how many homes a block of this page holds, so that all blocks have the same columns."""
    return {
        "kind": "matrix", "heads": list(heads), "rows": list(rows), "most": most, "mine": mine, "over": over,
        "second": 1.05 if mine or over else 0.01,
    }  # fmt: skip


def contents(rows: Sequence[tuple[str, str, str]], title: str) -> Block | None:
    """What follows: (name of the page, its title, in words), each a link. title: of the list."""
    return {"kind": "contents", "rows": [list(r) for r in rows], "title": title} if rows else None
