"""Arrays kept in one file, mapped into memory when they are read: no byte is copied, and several processes share them.

The file: MAGIC, then the length of the head and its CRC-32 (8 and 4 bytes, little-endian), the head as JSON, then each array's bytes,
each starting at a multiple of 64. The head tells what the arrays are made from, and of each its name, type, shape, place and CRC-32.
A file is written beside and put in its place whole. One that is damaged in any byte, or cut, is as good as none: it is never
the only copy of anything.
"""

from __future__ import annotations

import json
import mmap
import os
import tempfile
import time
import zlib
from collections.abc import Callable, Mapping
from contextlib import suppress
from pathlib import Path
from typing import Any, BinaryIO

import numpy as np
from numpy.typing import NDArray

MAGIC = b"RPARRAYS"
_ALIGNED = 64
_LEFT_BYTES = 16_000_000  # so many are filled before the system has them back
_LEFT_SECONDS = 600  # after which nobody writes a file any more
_FIXED = len(MAGIC) + 12

Arrays = Mapping[str, NDArray[Any]]


def write_arrays(path: Path, made_from: str, told: Mapping[str, Any], arrays: Arrays) -> dict[str, NDArray[Any]] | None:
    """Keep arrays with what is told beside them (JSON): the same as they stand in the file, mapped, which another may have put its
    own in place of since; None where it could not be written.

    made_from: says what they were worked out from; who reads them names the same. Arrays of which all rows share one
    element (stride 0) take the room of one.
    """
    laid, at = [], 0
    for name, array in arrays.items():
        one = array.ndim == 1 and array.strides == (0,) and array.size > 0
        held = np.ascontiguousarray(array[:1] if one else array)
        entry = {"name": name, "dtype": held.dtype.str, "shape": list(array.shape), "at": at, "crc": zlib.crc32(held.data.cast("B") if held.size else b""), "one": one}  # fmt: skip
        laid.append((entry, held))
        leave_pages(held)  # they may be looked at for the first time here
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
                leave_pages(held)
            file.flush()
            mapped = np.memmap(file.name, dtype=np.uint8, mode="r")
        os.replace(part, path)
    except OSError:
        with suppress(OSError):
            os.unlink(part)
        return None
    return {str(entry["name"]): _array(mapped, _FIXED + len(head), entry) for entry, _ in laid}


def put_in_file(folder: Path, size: int, source: NDArray[Any] | None = None) -> Callable[[NDArray[Any]], NDArray[Any]]:
    """Puts arrays of so many bytes together, one after the other, into a file that nobody else sees and that goes with the last of
    them, and gives each back as it stands there: no memory that the system could not have back. Where the disk has no room, and beyond
    that size, an array is given back as it is. source: a mapped array from which they are made, whose pages are left meanwhile."""
    try:
        file = tempfile.TemporaryFile(dir=folder, buffering=0)  # noqa: SIM115 (it is closed when `put` goes)
        os.posix_fallocate(file.fileno(), 0, size)  # the room is there before anything is put into it
        held = np.asarray(np.memmap(file, dtype=np.uint8, mode="r", shape=(size,)))
    except (OSError, ValueError, AttributeError):
        return lambda array: array
    first = 0

    def put(array: NDArray[Any]) -> NDArray[Any]:
        nonlocal first
        start = -(-first // _ALIGNED) * _ALIGNED
        if start + array.nbytes > size or not array.size:
            return array
        try:
            file.seek(start)
            if file.write(array.data.cast("B")) != array.nbytes:  # a full disk takes a part and says no more
                return array
        except OSError:
            return array
        if (start + array.nbytes) // _LEFT_BYTES > first // _LEFT_BYTES:
            leave_pages(source)
        first = start + array.nbytes
        return held[start:first].view(array.dtype)

    return put


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
        held = _bytes(mapped, _FIXED + length, entry)
        if zlib.crc32(held.data if held.size else b"") != entry["crc"]:
            return None
        out[entry["name"]] = _array(mapped, _FIXED + length, entry)
    if mapped is not None:
        leave_pages(mapped)  # all have been looked at: those that are needed come back
    return told["told"], out


def _bytes(mapped: Any, first: int, entry: Mapping[str, Any]) -> NDArray[np.uint8]:
    """What the file holds of one array; the arrays begin at `first`."""
    count = 1 if entry["one"] else int(np.prod(entry["shape"]))
    start = first + entry["at"]
    return np.asarray(mapped)[start : start + count * np.dtype(entry["dtype"]).itemsize]


def _array(mapped: Any, first: int, entry: Mapping[str, Any]) -> NDArray[Any]:
    array = _bytes(mapped, first, entry).view(entry["dtype"])
    return np.broadcast_to(array, entry["shape"]) if entry["one"] else array.reshape(entry["shape"])


def leave_pages(array: NDArray[Any] | None) -> None:
    """Let the system have the memory in which the file of a mapped array was looked at; what is looked at again comes back from the
    file. Other arrays are left as they are."""
    held: Any = array
    while isinstance(held, np.ndarray):
        held = held.base
    if isinstance(held, mmap.mmap) and hasattr(mmap, "MADV_DONTNEED"):
        held.madvise(mmap.MADV_DONTNEED)


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
