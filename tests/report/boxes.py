"""What stands where on a set page: every run of text with its box, and what lies on what or over the edge."""

from __future__ import annotations

import ctypes
from collections.abc import Iterator
from dataclasses import dataclass

import pypdfium2
from pypdfium2 import raw

SLACK = 1.0  # points by which glyph boxes of neighbouring lines may touch
HEADING, FOOT = 13.0, 48.0  # points: the type of a heading within a page; how far up the page's foot reaches
EDGE = 20.0  # points of the page's rim where nothing may stand


@dataclass(frozen=True)
class Run:
    """A run of text; left, top, right, bottom in points from the page's upper left; size of its type in points;
    heads: a heading within a page."""

    text: str
    left: float
    top: float
    right: float
    bottom: float
    size: float
    heads: bool = False


def pages_of(pdf: bytes) -> Iterator[tuple[float, float, list[Run]]]:
    """Width, height and runs of each page."""
    held = pypdfium2.PdfDocument(pdf)
    for page in held:
        wide, tall = page.get_size()
        yield wide, tall, _runs(page.get_textpage(), tall)
    held.close()


def _runs(text: pypdfium2.PdfTextPage, tall: float) -> list[Run]:
    out = []
    for i in range(text.count_rects()):
        left, bottom, right, top = text.get_rect(i)
        words = text.get_text_bounded(left, bottom, right, top).strip()
        if right - left < 0.5 or not words:
            continue
        at = raw.FPDFText_GetCharIndexAtPos(text, (left + right) / 2, (bottom + top) / 2, 3, 3)
        matrix = raw.FS_MATRIX()
        size = 0.0
        if at >= 0 and raw.FPDFText_GetMatrix(text, at, ctypes.byref(matrix)):
            size = raw.FPDFText_GetFontSize(text, at) * abs(matrix.d or matrix.b)
        font = _font(text, at)
        heads = abs(size - HEADING) < 0.1 and "Serif" in font and "Semi" in font
        out.append(Run(words, left, tall - top, right, tall - bottom, size, heads))
    return out


def _font(text: pypdfium2.PdfTextPage, at: int) -> str:
    held = ctypes.create_string_buffer(128)
    raw.FPDFText_GetFontInfo(text, at, held, len(held), ctypes.byref(ctypes.c_int()))
    return held.value.decode("latin-1")


def faults(pdf: bytes, least: float = 0.0) -> list[str]:
    """What lies on what, over the edge, is set smaller than `least` points, or heads nothing; empty where nothing does."""
    out = []
    for number, (wide, tall, runs) in enumerate(pages_of(pdf), 1):
        for a in runs:
            if a.left < EDGE or a.top < EDGE or a.right > wide - EDGE or a.bottom > tall - EDGE:
                out.append(f"page {number}: “{a.text}” over the edge at {a.left:.0f}, {a.top:.0f}")
            if 0 < a.size < least:
                out.append(f"page {number}: “{a.text}” in {a.size:.1f} points")
        runs.sort(key=lambda r: r.top)
        told = [r for r in runs if r.bottom < tall - FOOT]
        out += [f"page {number}: “{r.text}” heads nothing" for r in told[-1:] if r.heads]
        for i, a in enumerate(runs):
            for b in runs[i + 1 :]:
                if b.top >= a.bottom - SLACK:
                    break
                if _lies_on(a, b):
                    out.append(f"page {number}: “{a.text}” on “{b.text}” at {b.left:.0f}, {b.top:.0f}")
    return out


def _lies_on(a: Run, b: Run) -> bool:
    if a.text.endswith(b.text) and abs(a.right - b.right) < SLACK and abs(a.bottom - b.bottom) < SLACK:
        return False  # the end of a run that the reader tells a second time, at a ligature
    across = min(a.right, b.right) - max(a.left, b.left)
    return across > SLACK and min(a.bottom, b.bottom) - max(a.top, b.top) > SLACK
