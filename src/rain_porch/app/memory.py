"""Memory that is given back: by default each thread keeps what it has freed for itself, and twenty threads keep twenty times as much."""

from __future__ import annotations

import ctypes
import ctypes.util
from contextlib import suppress

_ARENA_MAX = -8  # M_ARENA_MAX of malloc.h
ARENAS = 2


def share_arenas() -> None:
    """Let all threads free memory into two places. Called before there are threads; where the C library has no such thing, nothing
    happens."""
    with suppress(OSError, AttributeError, TypeError):
        ctypes.CDLL(ctypes.util.find_library("c")).mallopt(_ARENA_MAX, ARENAS)


def give_back() -> None:
    """Let the system have what was freed. After large arrays have gone: the C library would keep their room for the next."""
    with suppress(OSError, AttributeError, TypeError):
        ctypes.CDLL(ctypes.util.find_library("c")).malloc_trim(0)
