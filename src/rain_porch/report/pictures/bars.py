"""How a comp's price is brought to the home: a bar for each difference, from where the one before ended."""

from __future__ import annotations

from collections.abc import Sequence

from ...core.facts.money import dollars, signed
from ...core.phrases import phrase
from . import ink
from .scale import along

ROW, WORDS, AMOUNT = 15.0, 104.0, 50.0


def bars_svg(paid: float, steps: Sequence[tuple[str, float]], adjusted: float, width: float = ink.WIDE) -> str:
    """paid: the close price. steps: (name, amount). The bars of plus and minus end at the adjusted price."""
    running, edges = paid, [paid, adjusted]
    for _, amount in steps:
        running += amount
        edges.append(running)
    at = along(edges, WORDS + 6, width - AMOUNT, 0.06)
    height = ROW * (len(steps) + 2) + 4
    body: list[str] = []

    def row(i: int, name: str, amount: str, colour: str, bold: bool) -> float:
        y = ROW * i + ROW / 2 + 2
        body.append(ink.text(0, y + 3, _short(name), 9, ink.SLATE if bold else ink.GREY, "start", 600 if bold else 400))
        body.append(ink.text(width, y + 3, amount, 9, colour, "end", 600 if bold else 500))
        return y

    y = row(0, phrase("line-sold-for"), dollars(paid), ink.SLATE, True)
    body.append(f'<path d="M{at(paid):.1f} {y - 5:.1f}v10" stroke="{ink.SLATE}" stroke-width="3"/>')
    value = paid
    for i, (name, amount) in enumerate(steps, 1):
        colour = ink.MOSS if amount > 0 else ink.CLAY
        y = row(i, name, signed(amount), colour, False)
        a, b = sorted((at(value), at(value + amount)))
        hatch = "" if amount > 0 else f'<path d="M{a:.1f} {y:.1f}H{b:.1f}" stroke="{ink.PAPER}" stroke-width="1.2"/>'
        body.append(
            f'<rect x="{a:.1f}" y="{y - 4:.1f}" width="{max(0.8, b - a):.1f}" height="8" fill="{colour}"/>{hatch}'
        )
        body.append(
            f'<path d="M{at(value):.1f} {y - ROW + 5:.1f}V{y - 5:.1f}" stroke="{ink.LINE}" stroke-width="0.8"/>'
        )
        value += amount
    y = row(len(steps) + 1, phrase("line-as-this-home"), dollars(adjusted), ink.MOSS, True)
    body.append(f'<path d="M{at(adjusted):.1f} {y - 5:.1f}v10" stroke="{ink.MOSS}" stroke-width="3"/>')
    return ink.svg(width, height, body)


def _short(name: str) -> str:
    return name if len(name) <= 21 else name[:20] + "…"
