"""A data folder has one who serves it: others that would move it away, or serve it too, are told who and since when."""

from __future__ import annotations

import datetime as dt
import fcntl
import json
import os
from collections.abc import Iterator
from contextlib import contextmanager
from pathlib import Path

from ..core.errors import Refused

LOCK = "in-use.lock"


@contextmanager
def held(folder: Path, doing: str, now: dt.datetime) -> Iterator[None]:
    """Hold the folder while `doing` something to the whole of it. Refused where another process does.

    The lock is the operating system's own: it goes with the process that held it, however that ended.
    """
    folder.mkdir(parents=True, exist_ok=True)
    with (folder / LOCK).open("a+", encoding="utf-8") as file:
        try:
            fcntl.flock(file, fcntl.LOCK_EX | fcntl.LOCK_NB)
        except OSError:
            raise Refused(_who(folder, file.name)) from None
        file.truncate(0)
        json.dump({"doing": doing, "process": os.getpid(), "since": now.isoformat(timespec="seconds")}, file)
        file.flush()
        try:
            yield
        finally:
            file.truncate(0)


def _who(folder: Path, lock: str) -> str:
    """A sentence on who holds the folder, as the lock tells it."""
    try:
        told = json.loads(Path(lock).read_text(encoding="utf-8"))
        who = f"process {told['process']} ({told['doing']}, since {told['since'].replace('T', ' ')})"
    except (OSError, ValueError, KeyError):
        who = "another process"
    return f"{folder} is in use by {who}: stop it first, and repeat. Nothing was changed."
