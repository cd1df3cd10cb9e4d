"""Fits kept in files beside the records: whoever starts the service, asks on the command line or has newer records finds them made.

A fit stands on some sales and nothing else; its file says on which, by their fingerprint, so that it holds as long as none of these
is told otherwise, whatever else comes in.
"""

from __future__ import annotations

import hashlib
import os
from collections.abc import Callable, Hashable, Sequence
from contextlib import suppress
from dataclasses import replace
from pathlib import Path
from typing import TypeVar, cast

import numpy as np

from ...core.market.change.market_change import TimeBasis
from ...core.market.change.time_prior import TimeTold
from ...core.market.columns import Ints
from ...core.market.features import Feature
from ...core.market.fingerprint import fingerprint
from ...core.parts import Arrays, put_together, taken_apart
from ...core.price.evidence import WideFit
from ...core.price.model_columns import ModelColumns
from ...core.price.wide_model import Usual, WideModel
from ...core.statistics.regression import Fit
from ...store.array_file import read_arrays, write_arrays
from ...store.records.kept_columns import code_digest
from ..memory import give_back
from ..snapshot import Snapshot

FILES = "records.model."
MOST = 40  # files, some 2 MB each: those that were asked for longest ago go first
_KINDS: dict[str, type] = {
    kind.__name__: kind for kind in (WideModel, ModelColumns, Usual, Feature, WideFit, Fit, TimeBasis)
}

F = TypeVar("F", WideModel, WideFit)


def kept_fit(
    records: Snapshot, key: Hashable, rows: Ints, others: Sequence[TimeTold], make: Callable[[], F | None]
) -> F | None:
    """The fit under a key as this code made it from sales that told just the same; else made, and kept where it is one.

    rows: its sales; others: what else it was told. The key says all else that it hangs on.
    """
    made_from = f"{fingerprint(records.columns, rows, tuple(others))} {code_digest()} {key}"
    path = records.folder / f"{FILES}{hashlib.blake2b(made_from.encode(), digest_size=8).hexdigest()}"
    if (held := read_arrays(path, made_from)) is not None:
        with suppress(OSError):
            os.utime(path)
        return _at(cast(F, put_together(*held, _KINDS)), records, rows)
    made = make()
    if made is not None and (kept := _kept(made, path, made_from)) is not None:
        _let_go(records.folder)
        made = kept
    give_back()  # what the fit was made in
    return made


def _kept(made: F, path: Path, made_from: str) -> F | None:
    """A fit as it stands in its file, in no memory that the system could not have back; None where it could not be written."""
    arrays: Arrays = {}
    told = taken_apart(made, arrays)
    written = write_arrays(path, made_from, told, arrays)
    return None if written is None else cast(F, put_together(told, written, _KINDS))


def _at(fit: F, records: Snapshot, rows: Ints) -> F:
    """A fit with its sales where they stand now, and their homes as they are numbered now."""
    if isinstance(fit, WideModel):
        return replace(fit, rows=rows, home_ids=records.columns.home_id[rows].astype(np.int64))
    return replace(fit, rows=rows)


def _let_go(folder: Path) -> None:
    with suppress(OSError):
        files = [f for f in folder.glob(f"{FILES}*") if f.suffix != ".part"]
        for old in sorted(files, key=lambda f: f.stat().st_mtime, reverse=True)[MOST:]:
            old.unlink()
