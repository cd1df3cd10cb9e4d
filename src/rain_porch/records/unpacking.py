"""The plain files of which files and folders are made, for as long as a block lasts, in the order in which they come in."""

from __future__ import annotations

import os
import shutil
import time
from collections.abc import Iterator, Sequence
from contextlib import contextmanager
from dataclasses import replace
from pathlib import Path

from ..core.errors import Refused
from ..core.intake.cells import profiles_of
from . import areas
from .files import containers
from .pictures import photos
from .previewing import first_rows, kind_of_table


@contextmanager
def unpacked(
    paths: Sequence[Path], folder: Path, kind: str | None = None, progress: containers.Progress | None = None
) -> Iterator[list[containers.Piece]]:
    """The plain files of which these are made, in the order in which they build on one another; what was unpacked is gone
    when the block ends. kind: what they are said to be. progress: told the bytes unpacked so far."""
    into = folder / f"unpacked-{os.getpid()}-{time.monotonic_ns()}"
    try:
        found: list[tuple[containers.Piece, str]] = []
        for path in paths:
            if kind == "photos" or (path.is_dir() and kind is not None):
                found.append((containers.Piece(path, path.name, kind), kind))
                continue
            found += [(piece, kind or piece.kind or "") for piece in containers.pieces(path, into, progress)]
        found = [(replace(piece, given=i), known) for i, (piece, known) in enumerate(found)]
        if len(found) > 1:
            found = containers.in_order([(piece, known or kind_of_piece(piece)) for piece, known in found])
        yield [piece for piece, _ in found]
    finally:
        shutil.rmtree(into, ignore_errors=True)


def kind_of_piece(piece: containers.Piece) -> str:
    """The kind of a plain file; "" where it is none that is known, or cannot be read."""
    path = piece.path
    if photos.are_in(path):
        return "photos"
    if areas.is_geojson(path):
        return "areas"
    try:
        columns, sample = first_rows(path)
    except Refused:
        return ""
    return kind_of_table(columns, profiles_of(len(columns), sample)) or ""
