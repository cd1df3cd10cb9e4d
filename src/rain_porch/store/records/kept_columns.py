"""The columns kept in a file beside the records, so that a start maps them in place of reading a million rows.

`records.columns` holds what `load_columns` made of one state of the records. It says which: by the mark that each change of the
records makes anew at random, and by a digest of the code that the columns were made by. Where the code is another, or the file is
damaged, it is no longer looked at, and the columns are read from the database, which stays the truth; where the mark is that of an
earlier state of the same records, what changed since is read and put in.
"""

from __future__ import annotations

import hashlib
import os
import sqlite3
import subprocess
import sys
from collections.abc import Callable, Mapping
from dataclasses import dataclass, fields
from functools import cache, partial
from pathlib import Path
from typing import Any, TypeGuard

import numpy as np
from numpy.typing import NDArray

from ... import core
from ...core.market.book import followed
from ...core.market.columns import MANY, PLAIN, Columns, PriceChanges, Words
from ...core.market.listing_facts import resold_from
from ...core.market.market_rules import USUAL_MARKET
from ...core.market.packed import Names, Numbers, Packed, Texts
from ...core.market.status_history import StatusChanges
from ..array_file import leave_pages, made_from, put_in_file, read_arrays, write_arrays
from ..db import frozen
from .columns import changed_columns, load_columns
from .incoming.changed import Changed, changed_since
from .incoming.imports import records_mark

FILE = "records.columns"
MOST_CHANGED = 10_000  # records told anew, beyond which all are read
_ARRAYS = (*PLAIN, "home_id", "sort_key")


@dataclass(frozen=True)
class Before:
    """Columns of an earlier state of the records, with its mark."""

    mark: str
    columns: Columns


def kept_columns(folder: Path, db: sqlite3.Connection, before: Before | None = None) -> Columns:
    """The columns of the records that `db` sees, as `read_columns` has them, kept in the file."""
    read, keep = read_columns(folder, db, before)
    if keep is not None:
        keep()
    return read


def read_columns(
    folder: Path, db: sqlite3.Connection, before: Before | None = None
) -> tuple[Columns, Callable[[], bool] | None]:
    """The columns of the records that `db` sees: from the file where it was made from just these; else from those before, or those
    that the file has, and what changed since; else read. Where they are not from the file, what keeps them there, which takes a while,
    may be done beside, and says whether they are kept."""
    mark = records_mark(db)
    path = folder / FILE
    if (held := _mapped(path, mark)) is not None:
        return held, None
    read = _from_before(db, before, folder)
    if read is None:
        read = _from_before(db, _earlier(path, db), folder)
    if read is None:
        read = load_columns(db)
    return read, partial(_keep, path, mark, read)


def _keep(path: Path, mark: str, columns: Columns) -> bool:
    """Keep columns in the file, and have many of them stand on it from now on: what is mapped takes no memory of its own."""
    told, arrays = _parts(columns)
    written = write_arrays(path, f"{mark} {code_digest()}", told, arrays | _worked_out(columns))
    if written is not None and len(columns) >= MANY:
        mapped = _columns(told, written)
        for f in fields(Columns):
            if f.init and f.name != "rules":  # each the same as before, to the last bit
                object.__setattr__(columns, f.name, getattr(mapped, f.name))
        _know(columns, written)
    return written is not None


def _mapped(path: Path, mark: str) -> Columns | None:
    """What the file has, where it was made from the records of that mark, by this program."""
    if (held := read_arrays(path, f"{mark} {code_digest()}")) is None:
        return None
    mapped = _columns(*held)
    _know(mapped, held[1])
    return mapped


def _earlier(path: Path, db: sqlite3.Connection) -> Before | None:
    """What the file has of an earlier state of these records."""
    mark = (made_from(path) or "").partition(" ")[0]
    if changed_since(db, mark) is None or (columns := _mapped(path, mark)) is None:
        return None
    return Before(mark, columns)


def is_little(changed: Changed | None) -> TypeGuard[Changed]:
    """Whether what changed is known, and so little that it is put into the columns before."""
    return changed is not None and len(changed) <= MOST_CHANGED


def _from_before(db: sqlite3.Connection, before: Before | None, folder: Path) -> Columns | None:
    if before is None or not is_little(changed := changed_since(db, before.mark)):
        return None
    if len(before.columns) < MANY:
        return changed_columns(db, before.columns, changed)
    arrays = _parts(before.columns)[1] | _worked_out(before.columns)
    held = sum(array.nbytes for array in arrays.values() if array.strides != (0,))
    now = changed_columns(db, before.columns, changed, put_in_file(folder, held + held // 8, before.columns.close))
    for columns in (before.columns, now):
        leave_pages(columns.close)
    return now


def read_beside(folder: Path) -> None:
    """Have the newest columns read and kept by a process of its own, which leaves this one its time and its memory. Where that
    fails, nothing is kept, and who needs them reads them."""
    command = [sys.executable, "-m", "rain_porch.store.records.kept_columns", str(folder)]
    subprocess.run(command, stdin=subprocess.DEVNULL, stdout=subprocess.DEVNULL, stderr=subprocess.DEVNULL, check=False)


def main(folder: Path) -> None:
    os.nice(5)
    _, readers = frozen(folder / "records.db", records_mark, 1)
    with readers.one() as connection:
        kept_columns(folder, connection)
    readers.close()


def _worked_out(columns: Columns) -> dict[str, NDArray[Any]]:
    """What a first price needs of all records, and takes a second of a million of them."""
    order, homes = columns.by_home()
    back, before = followed(columns)
    resold = resold_from(columns)
    pairs = np.array([*resold.items()], dtype=np.int64).reshape(-1, 2)
    return {"by home": order, "homes": homes, "back": back, "followed": before, "resold": pairs}


def _know(columns: Columns, arrays: Mapping[str, NDArray[Any]]) -> None:
    """Let columns know what `_worked_out` of them has kept."""
    columns.memo.put("by home", (arrays["by home"], arrays["homes"]))
    columns.memo.put("followed", (arrays["back"], arrays["followed"]))
    columns.memo.put("resold from", dict(arrays["resold"].tolist()))


@cache
def code_digest() -> str:
    """Of all code that columns are made by: the facts, the columns and what reads them. Another program reads them anew."""
    here, facts = Path(__file__).parent, Path(core.__file__).parent
    files = sorted([*facts.rglob("*.py"), *here.glob("*.py"), here.parent / "array_file.py"])
    digest = hashlib.blake2b(digest_size=8)
    for file in files:
        digest.update(file.name.encode() + file.read_bytes())
    return digest.hexdigest()


def _parts(columns: Columns) -> tuple[dict[str, Any], dict[str, NDArray[Any]]]:
    """What the columns tell in words, and their arrays by name."""
    assert isinstance(columns.row_of, Names)
    names, changes, statuses = columns.row_of, columns.changes, columns.statuses
    arrays: dict[str, NDArray[Any]] = {name: getattr(columns, name) for name in _ARRAYS}
    arrays |= {"keys": names.texts.held, "keys' ends": names.texts.ends, "hashes": names.hashes, "order": names.order}
    arrays |= {f"change {name}": getattr(changes, name) for name in ("rows", "days", "old")}
    arrays |= {f"status {name}": getattr(statuses, name) for name in ("rows", "days", "kinds")}
    for name, numbers in columns.numbers.items():
        if isinstance(numbers, Packed):
            arrays |= {f"codes of {name}": numbers.codes, f"values of {name}": numbers.values}
        else:
            arrays[f"numbers of {name}"] = np.asarray(numbers)
    arrays |= {f"words of {name}": words.codes for name, words in columns.words.items()}
    told = {
        "numbers": list(columns.numbers),
        "words": {name: list(words.words) for name, words in columns.words.items()},
        "no_quick_resale": sorted(columns.no_quick_resale),
        "version": columns.version,
        "orders": {name: list(order) for name, order in columns.orders.items()},
    }
    return told, arrays


def _columns(told: Mapping[str, Any], arrays: Mapping[str, NDArray[Any]]) -> Columns:
    texts = Texts(arrays["keys"], arrays["keys' ends"])

    def numbers(name: str) -> Numbers:
        if (codes := arrays.get(f"codes of {name}")) is not None:
            return Packed(codes, arrays[f"values of {name}"])
        plain: Numbers = arrays[f"numbers of {name}"]
        return plain

    return Columns(
        keys=texts,
        numbers={name: numbers(name) for name in told["numbers"]},
        words={name: Words(arrays[f"words of {name}"], tuple(words)) for name, words in told["words"].items()},
        no_quick_resale=frozenset(told["no_quick_resale"]),
        changes=PriceChanges(*(arrays[f"change {name}"] for name in ("rows", "days", "old"))),
        statuses=StatusChanges(*(arrays[f"status {name}"] for name in ("rows", "days", "kinds"))),
        version=told["version"],
        row_of=Names(texts, arrays["hashes"], arrays["order"]),
        orders={name: tuple(order) for name, order in told["orders"].items()},
        rules=USUAL_MARKET,
        **{name: arrays[name] for name in _ARRAYS},
    )


if __name__ == "__main__":
    main(Path(sys.argv[1]))
