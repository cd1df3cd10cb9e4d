"""Tables whose columns stand at fixed places, with heads above them: told by the places that are blank in every line."""

from __future__ import annotations

import csv
import re
from collections.abc import Sequence
from itertools import islice
from pathlib import Path

LINES = 300
_RULE = re.compile(r"^[\s\-=_+|]+$")
Span = tuple[int, int]


def _lines(path: Path, n: int | None) -> list[str]:
    for encoding in ("utf-8-sig", "cp1252"):
        try:
            with path.open(encoding=encoding) as f:
                return [line.rstrip("\r\n").expandtabs() for line in islice(f, n)]
        except (UnicodeDecodeError, UnicodeError):
            continue
    return []


def is_fixed_width(path: Path) -> bool:
    """Whether no sign divides the columns, and blank places do."""
    with path.open("rb") as f:
        head = f.read(65_536)
    if b"\x00" in head or head.lstrip(b"\xef\xbb\xbf \r\n\t")[:1] in (b"[", b"{", b"<", b""):
        return False
    lines = [line for line in _lines(path, 60) if line.strip()]
    if len(lines) < 3:
        return False
    for sign in ",;\t|":
        counts = sorted(line.count(sign) for line in lines[1:])
        if counts[len(counts) // 4] >= 1 and (sign != "," or counts[len(counts) // 4] == counts[-len(counts) // 4]):
            return False
    top, spans = columns_of(lines)
    return len(spans) >= 3 and sum(bool(re.search(r"\S {2,}\S", line)) for line in lines[top:]) > 0.6 * len(lines[top:])


def columns_of(lines: Sequence[str]) -> tuple[int, list[Span]]:
    """(which line has the heads, the spans of the columns)."""
    body = [line for line in lines if line.strip() and not _RULE.match(line)]
    top = next((i for i, line in enumerate(lines) if len(re.split(r"\s{2,}", line.strip())) >= 3), 0)
    body = [line for line in lines[top:] if line.strip() and not _RULE.match(line)]
    usual = sorted(map(len, body))[len(body) // 2]
    body = [line for line in body if len(line) > usual * 0.5 or line is lines[top]]
    width = max(map(len, body), default=0)
    blank = [all(x >= len(line) or line[x] == " " for line in body) for x in range(width)]
    spans: list[Span] = []
    start = None
    for x in range(width + 1):
        if x < width and not blank[x]:
            start = x if start is None else start
        elif start is not None:
            spans.append((start, x))
            start = None
    return top, _merged(spans, lines[top], body[1:])


def _merged(spans: Sequence[Span], heads: str, rows: Sequence[str]) -> list[Span]:
    """Spans of which one has a head and no cells, or cells and no head, joined with their neighbour one blank away."""
    out: list[Span] = []
    for span in spans:
        if out and span[0] - out[-1][1] <= 1:
            before = out[-1]
            bare = not any(row[before[0] : before[1]].strip() for row in rows) or not any(
                row[span[0] : span[1]].strip() for row in rows
            )
            headless = not heads[span[0] : span[1]].strip() or not heads[before[0] : before[1]].strip()
            if bare or headless:
                out[-1] = (before[0], span[1])
                continue
        elif out and not heads[span[0] : span[1]].strip():
            out[-1] = (out[-1][0], span[1])
            continue
        out.append(span)
    return out


def to_csv(path: Path, out: Path) -> None:
    """The same table with commas."""
    lines = _lines(path, None)
    top, spans = columns_of(lines[:LINES])
    bounds = [spans[0][0] and 0, *(start for start, _ in spans[1:])]
    with out.open("w", encoding="utf-8", newline="") as file:
        writer = csv.writer(file)
        for line in lines[top:]:
            if line.strip() and not _RULE.match(line):
                ends = [*bounds[1:], None]
                writer.writerow([_cell(line, a, b, span) for a, b, span in zip(bounds, ends, spans, strict=True)])


def _cell(line: str, start: int, end: int | None, span: Span) -> str:
    return line[start:end].strip()
