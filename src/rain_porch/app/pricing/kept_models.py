"""Wide models kept in files beside the records: whoever starts the service, or asks on the command line, finds them made."""

from __future__ import annotations

import hashlib
from collections.abc import Callable, Hashable
from contextlib import suppress
from pathlib import Path
from typing import Any

from ...core.market.features import Feature
from ...core.parts import Arrays, put_together, taken_apart
from ...core.price.model_columns import ModelColumns
from ...core.price.wide_model import Usual, WideModel
from ...store.array_file import read_arrays, write_arrays
from ...store.records.kept_columns import code_digest
from ..snapshot import Snapshot

FILES = "records.model."
MOST = 16  # files: those that were made longest ago go first
_KINDS: dict[str, type] = {kind.__name__: kind for kind in (WideModel, ModelColumns, Usual, Feature)}


def kept_model(records: Snapshot, key: Hashable, make: Callable[[], WideModel | None]) -> WideModel | None:
    """The model under a key as it was made from just these records by this code; else made, and kept where it is one."""
    made_from = f"{records.mark} {code_digest()} {key}"
    path = records.folder / f"{FILES}{hashlib.blake2b(repr(key).encode(), digest_size=8).hexdigest()}"
    if (held := read_arrays(path, made_from)) is not None:
        read: WideModel = put_together(*held, _KINDS)
        return read
    made = make()
    if made is not None:
        arrays: Arrays = {}
        told: dict[str, Any] = taken_apart(made, arrays)
        write_arrays(path, made_from, told, arrays)
        _let_go(records.folder)
    return made


def _let_go(folder: Path) -> None:
    with suppress(OSError):
        files = [f for f in folder.glob(f"{FILES}*") if f.suffix != ".part"]
        for old in sorted(files, key=lambda f: f.stat().st_mtime, reverse=True)[MOST:]:
            old.unlink()
