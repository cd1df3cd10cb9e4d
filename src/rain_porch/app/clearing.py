"""What records leave behind when newer ones have come: memory, and the log of what was committed."""

from __future__ import annotations

import gc
import sqlite3
import threading
import time
import weakref
from collections.abc import Callable
from contextlib import suppress

from ..store.db import Database, Readers
from ..store.write_ahead import begin_log_anew
from .memory import give_back

SECONDS = 5.0  # between two tries


class Clearing:
    """Clears up after the records before, once nobody reads them: asked by every request, it takes its time beside."""

    def __init__(self, live: Database, stamp: Callable[[sqlite3.Connection], tuple[int, int]]) -> None:
        self._live, self._stamp = live, stamp
        self._before: weakref.ref[Readers] | None = None  # None when there is nothing left
        self._given_back = False
        self._tried = 0.0

    def after(self, before: weakref.ref[Readers]) -> None:
        """Newer records serve now: those of before go with the last who reads them."""
        self._before, self._given_back = before, False

    def go_on(self, readers: Readers, stamp: tuple[int, int]) -> None:
        """Clear up what can be. readers, stamp: of the records that serve, which see what they saw."""
        before = self._before
        if before is None or before() is not None or time.monotonic() < self._tried + SECONDS:
            return
        self._tried = time.monotonic()
        threading.Thread(target=self._clear, args=(before, readers, stamp), daemon=True).start()

    def _clear(self, before: weakref.ref[Readers], readers: Readers, stamp: tuple[int, int]) -> None:
        if not self._given_back:
            self._given_back = True
            gc.collect()  # columns and their book hold each other
            give_back()
        # where another program holds the records, or the service is about to end, the next one does it
        with suppress(sqlite3.Error):
            if begin_log_anew(self._live, readers, self._stamp, stamp) and self._before is before:
                self._before = None
