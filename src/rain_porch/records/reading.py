"""A file's cells read to values, a chunk at a time."""

from __future__ import annotations

import itertools
import marshal
from collections.abc import Sequence
from dataclasses import dataclass

from .layouts import LAYOUTS
from .mapping import Part, bind
from .parsing import Column, parse_column
from .readers import Numbered

BLOCK = 256  # rows


@dataclass(frozen=True)
class Read:
    """Rows of a file as values. Positions count from 0 in the chunk.

    numbers   the rows' numbers in the file
    cells     each row's cells, packed: `unpacked` gives them; equal rows are equal bytes
    came      field → values, None where nothing or nothing readable stands
    unread    field → positions of the cells that could not be read
    broken    position → why the row is no row of this file
    """

    numbers: list[int]
    cells: list[bytes]
    came: dict[str, Column]
    unread: dict[str, list[int]]
    broken: dict[int, str]


def unpacked(cells: bytes) -> list[str]:
    made: list[str] = marshal.loads(cells)
    return made


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
        for b in self.bound:
            values, bad = parse_column(b.field, b.texts(across, len(rows)))
            if b.part.times != 1.0:
                values = [v * b.part.times if isinstance(v, float) else v for v in values]
            came[b.field.name] = values
            if bad:
                unread[b.field.name] = bad
        # the older form has no references in it, so that equal rows are equal bytes
        packed = [marshal.dumps(cells, 2) for cells in rows]
        return Read([n for n, _ in chunk], packed, came, unread, self._broken(rows))

    def _broken(self, rows: Sequence[Sequence[str]]) -> dict[int, str]:
        width = len(self.columns)
        out = {}
        for n, cells in enumerate(rows):
            if len(cells) == 1 and cells[0][:1] == "\x00":
                out[n] = f"no readable row: {cells[0][1:]}"
            elif len(cells) > width and any(cells[width:]):
                out[n] = "more cells than columns"
        return out


def _across(rows: Sequence[Sequence[str]]) -> list[list[str]]:
    """Rows as columns; cells that are not there are empty. A block at a time, so that it stays in the processor's cache."""
    columns: list[list[str]] = [[] for _ in range(max(map(len, rows), default=0))]
    for first in range(0, len(rows), BLOCK):
        block = rows[first : first + BLOCK]
        for column, cells in itertools.zip_longest(columns, itertools.zip_longest(*block, fillvalue="")):
            column.extend(cells or ("",) * len(block))
    return columns
