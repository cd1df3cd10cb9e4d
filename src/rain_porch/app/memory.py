"""Memory that is given back: by default each thread keeps what it has freed for itself, and twenty threads keep twenty times as much."""

from __future__ import annotations

import ctypes
import ctypes.util
from contextlib import suppress

# of malloc.h
_TRIM_THRESHOLD, _MMAP_THRESHOLD, _ARENA_MAX = -1, -3, -8
ARENAS = 2
LARGE_BYTES = 4_000_000  # a column of a million records, and what is worked out of several


def keep_little() -> None:
    """Let all threads free memory into two places, and large arrays go back to the system as soon as they are freed: the C library
    keeps room for ever larger ones otherwise. Called before there are threads; where it has no such thing, nothing happens."""
    with suppress(OSError, AttributeError, TypeError):
        library = ctypes.CDLL(ctypes.util.find_library("c"))
        library.mallopt(_ARENA_MAX, ARENAS)
        library.mallopt(_MMAP_THRESHOLD, LARGE_BYTES)
        library.mallopt(_TRIM_THRESHOLD, LARGE_BYTES)


def give_back() -> None:
    """Let the system have what was freed. After large arrays have gone: the C library would keep their room for the next."""
    with suppress(OSError, AttributeError, TypeError):
        ctypes.CDLL(ctypes.util.find_library("c")).malloc_trim(0)
