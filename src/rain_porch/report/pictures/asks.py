"""What homes ask, and how that moved: first list price to the newest, against the list price of this home."""

from __future__ import annotations

from collections.abc import Mapping, Sequence
from typing import Any

from ...core.facts.money import dollars
from ...core.phrases import phrase
from . import ink
from .scale import along
from .spread import numbered

ROW, ASKS = 19.0, 12  # height of a row; how many homes a picture holds


def asks_svg(
    homes: Sequence[tuple[int | None, Mapping[str, Any]]],
    list_price: float | None,
    width: float = ink.WIDE,
    most: int = ASKS,
) -> str:
    """homes: (number, document) with price, days_on_market and facts' original_list_price; a row each, at most `most`, from the
    cheapest. "" for none."""
    rows = sorted((h for h in homes if h[1]["price"]), key=lambda h: h[1]["price"])[:most]
    if not rows:
        return ""
    first = [float(c["facts"].get("original_list_price") or c["price"]) for _, c in rows]
    ends = [*first, *(c["price"] for _, c in rows), *([list_price] if list_price else [])]
    left, right, top = 128.0, width - 118.0, 24.0 if list_price else 8.0
    foot = top + ROW * len(rows)

    at = along(ends, left, right)
    body = []
    if list_price:
        x = at(list_price)
        words = phrase("asks-this-home", price=dollars(list_price))
        body.append(
            f'<path d="M{x:.1f} {top - 4}V{foot:.1f}" stroke="{ink.CEDAR}" stroke-width="1.6" stroke-dasharray="4 2"/>'
        )
        body.append(ink.text(min(max(x, 60), width - 60), top - 10, words, 9, ink.CEDAR, weight=600))
    for i, ((n, c), before) in enumerate(zip(rows, first, strict=True)):
        y = top + ROW * (i + 0.5)
        name = str(c["address"] or c["listing_id"])
        body.append(ink.text(0, y + 3, name if len(name) <= 24 else name[:23] + "…", 9, ink.SLATE, "start"))
        body.append(f'<path d="M{left} {y:.1f}H{right}" stroke="{ink.LINE}" stroke-width="0.4"/>')
        x = at(c["price"])
        if before != c["price"]:
            body.append(
                f'<path d="M{at(before):.1f} {y - 5:.1f}v5H{x:.1f}" fill="none" stroke="{ink.RAIN}" stroke-width="1.2"/>'
            )
        body += numbered(c["kind"], x, y, n) if n is not None else [ink.mark(c["kind"], x, y, 4.2)]
        days, told = c["days_on_market"], dollars(c["price"])
        if days is not None:
            told = phrase("asks-and-days", price=told, n=days)
        body.append(ink.text(width, y + 3, told, 9, ink.SLATE, "end"))
    return ink.svg(width, foot + 4, body)


def asks_words(homes: int) -> str:
    """What stands under the picture of so many homes."""
    return phrase("asks-words-cheapest", n=ASKS, homes=homes) if homes > ASKS else phrase("asks-words")
