"""Pictures that stand at an address of somebody else's: fetched when they are first looked at, and kept for the next time.

What is kept can be fetched again, so it is no part of a backup, and the oldest goes where it takes more than `MOST_BYTES`.
"""

from __future__ import annotations

import hashlib
import time
from collections.abc import Callable, Mapping
from pathlib import Path

from ...core.errors import Refused
from .photos import MAX_BYTES, kind_of
from .picture_files import fault_of

FOLDER, MOST_BYTES = "fetched", 2_000_000_000
AGAIN_SECONDS = 600.0  # an address that gave no picture is asked again after so long


def picture_at(
    folder: Path, address: str, get_data: Callable[[str, Mapping[str, str]], tuple[int, bytes]]
) -> bytes | None:
    """The JPEG, PNG or WebP at an address; None where it gives none, now or within the last ten minutes. get_data: asks for it,
    (address, headers) → (status, bytes), and raises OSError where nothing answers."""
    kept = folder / FOLDER / hashlib.blake2b(address.encode(), digest_size=16).hexdigest()
    missing = kept.with_suffix(".none")
    try:
        return kept.read_bytes()
    except FileNotFoundError:
        pass
    if missing.is_file() and 0 <= time.time() - missing.stat().st_mtime < AGAIN_SECONDS:
        return None
    try:
        status, data = get_data(address, {})
    except (OSError, Refused):
        status, data = 0, b""
    kept.parent.mkdir(exist_ok=True)
    if status != 200 or len(data) > MAX_BYTES or kind_of(data[:12]) is None or fault_of(data) is not None:
        missing.touch()
        return None
    part = kept.with_suffix(f".{time.monotonic_ns()}.part")
    part.write_bytes(data)
    part.replace(kept)
    missing.unlink(missing_ok=True)
    make_room(kept.parent, MOST_BYTES)
    return data


def make_room(kept: Path, most: int) -> None:
    """Let the oldest pictures go until those left take at most nine tenths of `most`; none where they take less than it."""
    there = []
    for file in kept.iterdir():
        try:
            there.append((file.stat(), file))
        except FileNotFoundError:  # another request made room
            continue
    total = sum(stat.st_size for stat, _ in there)
    if total <= most:
        return
    for stat, file in sorted(there, key=lambda pair: pair[0].st_mtime):
        file.unlink(missing_ok=True)
        total -= stat.st_size
        if total <= 0.9 * most:
            return
