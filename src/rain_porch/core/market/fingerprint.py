"""A fingerprint of what some records tell: what was worked out of them alone still holds where it is the same."""

from __future__ import annotations

import hashlib
import json
from collections.abc import Callable
from typing import Any

import numpy as np
from numpy.typing import NDArray

from ..parts import Arrays, taken_apart
from .columns import PLAIN, Columns, Ints, Words


def fingerprint(columns: Columns, rows: Ints, *also: Any) -> str:
    """Of all that the columns hold of some rows, in their order, and of further values, which `taken_apart` takes: 32 letters.

    Which rows those are, how homes are numbered and words coded says nothing: other records may have come and gone.
    """
    digest = hashlib.blake2b(digest_size=16)
    for name in PLAIN:
        _put(digest.update, name, getattr(columns, name)[rows])
    for name, numbers in columns.numbers.items():
        _put(digest.update, name, np.asarray(numbers[rows], dtype=np.float64))
    for name, words in columns.words.items():
        _put(digest.update, name, _of_words(words, rows))
    arrays: Arrays = {}
    told = taken_apart((*also, columns.orders), arrays)
    for name, array in arrays.items():
        _put(digest.update, name, array)
    digest.update(json.dumps(told).encode())
    return digest.hexdigest()


def _of_words(words: Words, rows: Ints) -> NDArray[np.int64]:
    """A number for the word of each row, (n,), which says nothing of how words are coded."""
    codes, which = np.unique(words.codes[rows], return_inverse=True)
    return np.array([_number(words.words[code]) if code >= 0 else 0 for code in codes.tolist()], dtype=np.int64)[which]


def _number(word: str) -> int:
    return int.from_bytes(hashlib.blake2b(word.encode(errors="surrogatepass"), digest_size=8).digest(), signed=True)


def _put(update: Callable[[Any], None], name: str, array: NDArray[Any]) -> None:
    update(f"{name} {array.dtype.str} {array.shape} ".encode())
    update(np.ascontiguousarray(array).data.cast("B") if array.size else b"")
