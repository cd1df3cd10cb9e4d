"""Arrays kept in one file, mapped into memory when they are read: no byte is copied, and several processes share them.

The file: MAGIC, then the length of the head and its CRC-32 (8 and 4 bytes, little-endian), the head as JSON, then each array's bytes,
each starting at a multiple of 64. The head tells what the arrays are made from, and of each its name, type, shape, place and CRC-32.
A file is written beside and put in its place whole. One that is damaged in any byte, or cut, is as good as none: it is never
the only copy of anything.
"""

from __future__ import annotations

import json
import os
import tempfile
import time
import zlib
from collections.abc import Mapping
from contextlib import suppress
from pathlib import Path
from typing import Any, BinaryIO

import numpy as np
from numpy.typing import NDArray

MAGIC = b"RPARRAYS"
_ALIGNED = 64
_LEFT_SECONDS = 600  # after which nobody writes a file any more
_FIXED = len(MAGIC) + 12

Arrays = Mapping[str, NDArray[Any]]


def write_arrays(path: Path, made_from: str, told: Mapping[str, Any], arrays: Arrays) -> bool:
    """Keep arrays with what is told beside them (JSON); False where the file could not be written.

    made_from: says what they were worked out from; who reads them names the same. Arrays of which all rows share one
    element (stride 0) take the room of one.
    """
    laid, at = [], 0
    for name, array in arrays.items():
        one = array.ndim == 1 and array.strides == (0,) and array.size > 0
        held = np.ascontiguousarray(array[:1] if one else array)
        entry = {"name": name, "dtype": held.dtype.str, "shape": list(array.shape), "at": at, "crc": zlib.crc32(held.data.cast("B") if held.size else b""), "one": one}  # fmt: skip
        laid.append((entry, held))
        at += -(-held.nbytes // _ALIGNED) * _ALIGNED
    head = json.dumps({"made_from": made_from, "told": told, "size": at, "arrays": [e for e, _ in laid]}).encode()
    head += b" " * (-(_FIXED + len(head)) % _ALIGNED)
    part = ""
    _sweep(path)
    try:
        with tempfile.NamedTemporaryFile(dir=path.parent, prefix=path.name, suffix=".part", delete=False) as file:
            part = file.name
            file.write(MAGIC + len(head).to_bytes(8, "little") + zlib.crc32(head).to_bytes(4, "little") + head)
            for _, held in laid:
                file.write(held.data if held.size else b"")
                file.write(b"\0" * (-held.nbytes % _ALIGNED))
        os.replace(part, path)
    except OSError:
        with suppress(OSError):
            os.unlink(part)
        return False
    return True


def made_from(path: Path) -> str | None:
    """What a file says that its arrays were worked out from; None where there is no such file."""
    try:
        with path.open("rb") as file:
            told = _told(file, os.fstat(file.fileno()).st_size)
    except (OSError, ValueError):
        return None
    return None if told is None else str(told[0]["made_from"])


def read_arrays(path: Path, made_from: str) -> tuple[dict[str, Any], dict[str, NDArray[Any]]] | None:
    """What is told, and the arrays by name, read-only; None where there is no whole file made from that."""
    try:
        with path.open("rb") as file:
            size = os.fstat(file.fileno()).st_size
            head = _told(file, size)
            if head is None:
                return None
            told, length = head
            if told["made_from"] != made_from or size != _FIXED + length + told["size"]:
                return None
            mapped = np.memmap(file, dtype=np.uint8, mode="r", offset=0) if size else None
    except (OSError, ValueError):
        return None
    out: dict[str, NDArray[Any]] = {}
    for entry in told["arrays"]:
        dtype, shape = np.dtype(entry["dtype"]), tuple(entry["shape"])
        count = 1 if entry["one"] else int(np.prod(shape))
        start = _FIXED + length + entry["at"]
        held = np.asarray(mapped)[start : start + count * dtype.itemsize]
        if zlib.crc32(held.data if held.size else b"") != entry["crc"]:
            return None
        array = held.view(dtype)
        out[entry["name"]] = np.broadcast_to(array, shape) if entry["one"] else array.reshape(shape)
    return told["told"], out


def _sweep(path: Path) -> None:
    """Take away what a write that was killed has left beside."""
    with suppress(OSError):
        for left in path.parent.glob(f"{path.name}*.part"):
            if left.stat().st_mtime < time.time() - _LEFT_SECONDS:
                left.unlink()


def _told(file: BinaryIO, size: int) -> tuple[dict[str, Any], int] | None:
    """The head of a file that is so long, and the head's length."""
    head = _head(file.read(_FIXED))
    if head is None or head[0] > size:
        return None
    text = file.read(head[0])
    if len(text) != head[0] or zlib.crc32(text) != head[1]:
        return None
    return json.loads(text), head[0]


def _head(fixed: bytes) -> tuple[int, int] | None:
    """(length, CRC) of the head that follows."""
    if len(fixed) != _FIXED or fixed[: len(MAGIC)] != MAGIC:
        return None
    return int.from_bytes(fixed[len(MAGIC) : -4], "little"), int.from_bytes(fixed[-4:], "little")
