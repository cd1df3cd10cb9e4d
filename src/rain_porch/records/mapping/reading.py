"""A file's cells read to values, a chunk at a time."""

from __future__ import annotations

import itertools
import re
from collections.abc import Sequence
from dataclasses import dataclass

from ...core.intake.forms import DATES, NUMBERS, Evidence, evidence_of, forms_of
from ...core.intake.parsing import Column, parse_column
from ..files.readers import Numbered
from .layouts import LAYOUTS
from .mapping import MADE, Bound, Part, bind

BLOCK = 256  # rows


@dataclass(frozen=True)
class Read:
    """Rows of a file as values. Positions count from 0 in the chunk.

    numbers   the rows' numbers in the file
    cells     each row's cells as one text: `unpacked` gives them; equal rows are equal texts
    came      field → values, None where nothing or nothing readable stands
    unread    field → positions of the cells that could not be read
    broken    position → why the row is no row of this file
    seen      field → what its cells say of their form, where that is not known yet
    """

    numbers: list[int]
    cells: list[str]
    came: dict[str, Column]
    unread: dict[str, list[int]]
    broken: dict[int, str]
    seen: dict[str, Evidence]


SEPARATORS = ("\x1f", "\x1e", "\x1d", "\x1c", "\ue000")


def packed(cells: Sequence[str]) -> str:
    """Cells as one text, which begins with what stands between them: a mark that is in none of them."""
    for mark in SEPARATORS:
        text = mark.join(cells)
        if text.count(mark) == len(cells) - 1:
            return mark + text
    return mark + mark.join(c.replace(mark, " ") for c in cells)


def unpacked(text: str) -> list[str]:
    return text[1:].split(text[0])


class Reader:
    """Reads chunks of one file by its mapping."""

    def __init__(self, kind: str, parts: Sequence[Part], columns: Sequence[str]) -> None:
        self.columns = columns
        self.bound = bind(parts, columns, LAYOUTS[kind].fields)

    def read(self, chunk: Sequence[Numbered]) -> Read:
        rows = [cells for _, cells in chunk]
        across = _across(rows)
        came: dict[str, Column] = {}
        unread: dict[str, list[int]] = {}
        seen = self.evidence(across, [b for b in self.bound if not b.part.form])
        for b in self.bound:
            values, bad = parse_column(b.field, b.texts(across, len(rows)), b.form)
            if b.part.times != 1.0:
                values = [round(v * b.part.times, 6) if isinstance(v, float) else v for v in values]
            came[b.field.name] = values
            if bad:
                unread[b.field.name] = bad
        return Read([n for n, _ in chunk], [packed(cells) for cells in rows], came, unread, self._broken(rows), seen)

    def look(self, chunk: Sequence[Numbered]) -> dict[str, Evidence]:
        """What the cells of a chunk say of the forms of all columns; nothing is read."""
        return self.evidence(_across([cells for _, cells in chunk]), self.bound)

    def evidence(self, across: Sequence[Sequence[str]], bound: Sequence[Bound]) -> dict[str, Evidence]:
        """Field → what its columns' cells say of their form; without those that say nothing."""
        out: dict[str, Evidence] = {}
        for b in bound:
            kinds = forms_of(b.field)
            if kinds is None or b.part.how == "date" or b.part.take in MADE:
                continue
            for place in b.places:
                cells = across[place] if place < len(across) else ()
                if not _tells(kinds, cells):
                    continue
                said = evidence_of(b.field, cells, b.part.times)
                if said.any:
                    out.setdefault(b.field.name, Evidence()).add(said)
        return out

    def _broken(self, rows: Sequence[Sequence[str]]) -> dict[int, str]:
        width = len(self.columns)
        out = {}
        for n, cells in enumerate(rows):
            if len(cells) == 1 and cells[0][:1] == "\x00":
                out[n] = f"no readable row: {cells[0][1:]}"
            elif len(cells) > width and any(cells[width:]):
                out[n] = "more cells than columns"
        return out


_LOCAL = re.compile(r"(?:^|\n)\s*\d{1,2}[/.\-]\d")


def _tells(kinds: tuple[str, str], cells: Sequence[str]) -> bool:
    """Whether any of the cells may say something of its form; quick where none does."""
    if kinds is DATES:
        return _LOCAL.search("\n".join(set(cells))) is not None
    text = "".join(cells)
    return kinds is NUMBERS and ("." in text or "," in text)


def _across(rows: Sequence[Sequence[str]]) -> list[list[str]]:
    """Rows as columns; cells that are not there are empty. A block at a time, so that it stays in the processor's cache."""
    columns: list[list[str]] = [[] for _ in range(max(map(len, rows), default=0))]
    for first in range(0, len(rows), BLOCK):
        block = rows[first : first + BLOCK]
        for column, cells in itertools.zip_longest(columns, itertools.zip_longest(*block, fillvalue="")):
            column.extend(cells or ("",) * len(block))
    return columns
