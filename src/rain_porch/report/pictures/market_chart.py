"""A market view drawn for paper: lines for prices and shares, bars for counts, two axes where it has two measures."""

from __future__ import annotations

from collections.abc import Sequence
from typing import Any

from ...core.facts.dates import period_mark
from ...core.market.measures import SMALL
from ...core.market.view_reading import bare
from ...core.phrases import phrase
from . import ink
from .scale import rounded_span

COLOURS = (ink.RAIN, ink.SLATE, ink.CEDAR, ink.MOSS, ink.CLAY, ink.GREY)
DASHES = ("", "7 4", "2 3", "10 3 2 3", "1 5", "14 4")
COUNTS = frozenset(("closings", "new_listings", "contracts", "failed", "for_sale", "under_contract", "volume"))
LEFT, RIGHT, TOP, BOTTOM = 58.0, 52.0, 26.0, 22.0


def view_svg(
    periods: Sequence[dict[str, Any]], lines: Sequence[dict[str, Any]], width: float = 540, height: float = 220
) -> str:
    """The lines of a view's answer; a period not finished, and a value from fewer than five homes, is hollow."""
    two = any(line["axis"] == 1 for line in lines)
    right = width - (RIGHT if two else 10.0)
    step = (right - LEFT) / max(1, len(periods))
    body: list[str] = []
    spans = {axis: _span([line for line in lines if line["axis"] == axis], lines) for axis in (0, 1, 2)}
    for axis in (0, 1) if two else (0,):
        low, high = spans[axis]
        unit = next(line["unit"] for line in lines if line["axis"] == axis)
        for k in range(5):
            v = low + (high - low) * k / 4
            y = _y(v, (low, high), height)
            if axis == 0:
                body.append(f'<path d="M{LEFT} {y:.1f}H{right:.1f}" stroke="{ink.LINE}" stroke-width="0.5"/>')
            x, anchor = (LEFT - 5, "end") if axis == 0 else (right + 5, "start")
            body.append(ink.text(x, y + 3, _tick(v, unit), 9, ink.GREY, anchor))
    for i, p in enumerate(periods):
        name = p["period"]
        if len(periods) <= 14 or name.endswith(("-01", "-Q1")):
            body.append(ink.text(LEFT + step * (i + 0.5), height - 8, period_mark(name), 9, ink.GREY))
    order = sorted(range(len(lines)), key=lambda k: not _is_bar(lines[k], lines))
    for k in order:
        draw = _bars if _is_bar(lines[k], lines) else _line
        body += draw(lines[k], periods, spans[lines[k]["axis"]], step, height, COLOURS[k % 6], DASHES[k % 6])
    body += _legend(lines, right)
    return ink.svg(width, height, body)


def _is_bar(line: dict[str, Any], lines: Sequence[dict[str, Any]]) -> bool:
    return line["measure"] in COUNTS and sum(x["measure"] == line["measure"] for x in lines) == 1


def _span(mine: Sequence[dict[str, Any]], lines: Sequence[dict[str, Any]]) -> tuple[float, float]:
    known = [p["value"] for line in mine for p in line["points"] if p is not None and p["value"] is not None]
    if not known:
        return 0.0, 1.0
    low, high = min(known), max(known)
    if any(_is_bar(line, lines) for line in mine):
        low = 0.0
    return rounded_span((low, high))


def _y(value: float, span: tuple[float, float], height: float) -> float:
    return height - BOTTOM - (height - BOTTOM - TOP) * (value - span[0]) / (span[1] - span[0])


def _tick(value: float, unit: str) -> str:
    if unit == "$":
        return f"{value:,.0f}" if value < 1e6 else phrase("chart-millions", amount=f"{value / 1e6:,.1f}")
    return f"{value:.2f}" if unit == "series" else bare(value, unit).removeprefix("$")


def _hollow(point: dict[str, Any], period: dict[str, Any], line: dict[str, Any]) -> bool:
    few = line["measure"] != "series" and line["unit"] != "" and point["n"] < SMALL
    return few or not period["finished"]


def _line(
    line: dict[str, Any], periods: Sequence[dict[str, Any]], span: tuple[float, float], step: float, height: float,
    colour: str, dash: str,
) -> list[str]:  # fmt: skip
    path, dots, pen = "", [], "M"
    for i, (point, period) in enumerate(zip(line["points"], periods, strict=True)):
        if point is None or point["value"] is None:
            pen = "M"
            continue
        x, y = LEFT + step * (i + 0.5), _y(point["value"], span, height)
        path += f"{pen}{x:.1f} {y:.1f}"
        pen = "L"
        if line["measure"] != "series":
            fill = ink.PAPER if _hollow(point, period, line) else colour
            dots.append(
                f'<circle cx="{x:.1f}" cy="{y:.1f}" r="1.8" fill="{fill}" stroke="{colour}" stroke-width="0.8"/>'
            )
    return (
        [f'<path d="{path}" fill="none" stroke="{colour}" stroke-width="1.3" stroke-dasharray="{dash}"/>', *dots]
        if path
        else []
    )


def _bars(
    line: dict[str, Any], periods: Sequence[dict[str, Any]], span: tuple[float, float], step: float, height: float,
    colour: str, dash: str,
) -> list[str]:  # fmt: skip
    out = []
    for i, (point, period) in enumerate(zip(line["points"], periods, strict=True)):
        if point is None or not point["value"]:
            continue
        y = _y(point["value"], span, height)
        fill = "none" if not period["finished"] else f"{colour}66"
        out.append(
            f'<rect x="{LEFT + step * (i + 0.18):.1f}" y="{y:.1f}" width="{step * 0.64:.1f}" '
            f'height="{max(0.0, height - BOTTOM - y):.1f}" fill="{fill}" stroke="{colour}" stroke-width="0.5"/>'
        )
    return out


def _legend(lines: Sequence[dict[str, Any]], right: float) -> list[str]:
    out, x = [], LEFT
    for k, line in enumerate(lines):
        name = line["name"] or line["label"]
        if line["axis"] == 2:
            name = phrase("chart-own-scale", name=name)
        colour = COLOURS[k % 6]
        if _is_bar(line, lines):
            out.append(
                f'<rect x="{x:.1f}" y="6" width="16" height="7" fill="{colour}66" stroke="{colour}" stroke-width="0.5"/>'
            )
        else:
            out.append(
                f'<path d="M{x:.1f} 9.5h16" stroke="{colour}" stroke-width="1.6" stroke-dasharray="{DASHES[k % 6]}"/>'
            )
        out.append(ink.text(x + 20, 12.5, name, 9, ink.SLATE, "start"))
        x += 32 + 4.9 * len(name)
        if x > right - 60:
            break
    return out
