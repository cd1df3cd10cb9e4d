"""Tables whose columns stand at fixed places, with heads above them: told by the places that are blank in every line."""

from __future__ import annotations

import csv
import re
from collections.abc import Iterator, Sequence
from itertools import islice
from pathlib import Path

from .readers import encoding_of

LINES = 300  # that tell where the columns stand
_RULE = re.compile(r"^[\s\-=_+|]+$")
Span = tuple[int, int]


def _lines(path: Path, head: bytes) -> Iterator[str]:
    with path.open(encoding=encoding_of(path, head), errors="replace") as f:
        for line in f:
            yield line.rstrip("\r\n").expandtabs().removeprefix("\ufeff")


def _head(path: Path) -> bytes:
    with path.open("rb") as f:
        return f.read(65_536)


def is_fixed_width(path: Path) -> bool:
    """Whether no sign divides the columns, and blank places do."""
    head = _head(path)
    if b"\x00" in head or head.lstrip(b"\xef\xbb\xbf \r\n\t")[:1] in (b"[", b"{", b"<", b""):
        return False
    lines = [line for line in head.decode("latin-1").expandtabs().splitlines()[:60] if line.strip()]
    if len(lines) < 3:
        return False
    for sign in ",;|":
        counts = sorted(line.count(sign) for line in lines[1:])
        if counts[len(counts) // 4] >= 1 and (sign != "," or counts[len(counts) // 4] == counts[-len(counts) // 4]):
            return False
    if b"\t" in head:
        return False
    top, spans = columns_of(lines)
    return len(spans) >= 3 and sum(bool(re.search(r"\S {2,}\S", line)) for line in lines[top:]) > 0.6 * len(lines[top:])


def columns_of(lines: Sequence[str]) -> tuple[int, list[Span]]:
    """(which line has the heads, the spans of the columns)."""
    top = next((i for i, line in enumerate(lines) if len(re.split(r"\s{2,}", line.strip())) >= 3), 0)
    body = [line for line in lines[top:] if line.strip() and not _RULE.match(line)]
    if not body:
        return top, []
    usual = sorted(map(len, body))[len(body) // 2]
    body = [line for line in body if len(line) > usual * 0.5 or line is lines[top]]
    width = max(map(len, body))
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

    def bare(span: Span) -> bool:
        return not any(row[slice(*span)].strip() for row in rows)

    def headless(span: Span) -> bool:
        return not heads[slice(*span)].strip()

    out: list[Span] = []
    for span in spans:
        if out and (
            headless(span) or (span[0] - out[-1][1] <= 1 and (bare(out[-1]) or bare(span) or headless(out[-1])))
        ):
            out[-1] = (out[-1][0], span[1])
        else:
            out.append(span)
    return out


def to_csv(path: Path, out: Path) -> None:
    """The same table with commas, a line at a time."""
    top, spans = columns_of(list(islice(_lines(path, _head(path)), LINES)))
    starts = [0, *(start for start, _ in spans[1:])]
    columns = [slice(a, b) for a, b in zip(starts, [*starts[1:], None], strict=True)]
    with out.open("w", encoding="utf-8", newline="") as file:
        writer = csv.writer(file)
        for line in islice(_lines(path, _head(path)), top, None):
            if line.strip() and not _RULE.match(line):
                writer.writerow([line[column].strip() for column in columns])
