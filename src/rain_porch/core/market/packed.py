"""Columns that take little memory: numbers of which few differ as codes, and texts with the rows where they stand."""

from __future__ import annotations

import zlib
from collections.abc import Callable, Iterable, Iterator, Mapping, Sequence
from dataclasses import dataclass
from typing import Any, Protocol

import numpy as np
from numpy.typing import NDArray

Floats = NDArray[np.float64]

MOST_VALUES = 2**16  # that a code of two bytes can tell apart


class Numbers(Protocol):
    """A column of numbers, asked for as an array is: a row, an array of rows, or [:] for all; NaN is unknown."""

    def __len__(self) -> int: ...
    def __getitem__(self, at: Any, /) -> Any: ...


@dataclass(frozen=True)
class Packed:
    """Numbers of which few differ: row r holds values[codes[r]], exactly. One or two bytes a row in place of eight."""

    codes: NDArray[Any]
    values: Floats

    def __len__(self) -> int:
        return len(self.codes)

    def __getitem__(self, at: Any, /) -> Any:
        return self.values[self.codes[at]]

    def __array__(self, dtype: Any = None, copy: bool | None = None) -> NDArray[Any]:
        return np.asarray(self[:], dtype=dtype)


def smallest(codes: NDArray[Any], values: int) -> NDArray[Any]:
    """Codes 0 … values − 1 in the smallest unsigned type that holds them."""
    return codes.astype(smallest_type(values), copy=False)


def smallest_type(values: int) -> np.dtype[Any]:
    """The smallest unsigned type that holds codes 0 … values − 1."""
    return np.min_scalar_type(max(values - 1, 0))


def packed(values: Floats) -> Packed:
    """A column in few bytes, whatever its values are: for those of which few differ."""
    distinct, codes = np.unique(values, return_inverse=True)
    return Packed(smallest(codes, len(distinct)), distinct)


class Coding:
    """n values as codes, filled a part at a time: code 0 is unknown, others count up as values are met."""

    def __init__(self, n: int) -> None:
        self.codes: NDArray[Any] = np.zeros(n, dtype=np.uint16)
        self.code_of: dict[Any, int] = {None: 0}

    def put(self, rows: slice, values: Sequence[Any]) -> None:
        """Words of some rows, None where unknown."""
        met = dict.fromkeys(values)
        if met.keys() == {None}:
            return  # what no record has is never written, so that it takes no memory either
        for value in met:
            self.code_of.setdefault(value, len(self.code_of))
        if len(self.code_of) > MOST_VALUES and self.codes.dtype == np.uint16:
            self.codes = self.codes.astype(np.uint32)
        self.codes[rows] = np.fromiter(map(self.code_of.__getitem__, values), self.codes.dtype, len(values))

    @property
    def values(self) -> tuple[Any, ...]:
        """The value of each code from 1 on."""
        return tuple(self.code_of)[1:]


class Filling:
    """n numbers, filled a part at a time, that take eight bytes a row only once too many of them differ."""

    def __init__(self, n: int) -> None:
        self._coding: Coding | None = Coding(n)
        self._plain = np.zeros(0)

    def put(self, rows: slice, numbers: Sequence[float | None]) -> None:
        """Numbers of some rows, None where unknown."""
        if self._coding is None:
            self._plain[rows] = np.array(numbers, dtype=np.float64)
            return
        self._coding.put(rows, numbers)
        if len(self._coding.code_of) > MOST_VALUES:
            self._plain = self._values(self._coding)[self._coding.codes]
            self._coding = None

    def _values(self, coding: Coding) -> Floats:
        return np.array([np.nan, *coding.values])

    def taken(self, order: NDArray[np.int64]) -> Numbers:
        """The column with its rows in another order; a plain array where too many values differ."""
        if self._coding is None:
            return self._plain[order]
        values, codes = self._values(self._coding), self._coding.codes
        if len(values) == 1:  # a field that no record has: no row takes any memory
            return Packed(np.broadcast_to(np.uint8(0), len(order)), values)
        return Packed(smallest(codes, len(values))[order], values)


class Texts(Sequence[str]):
    """n texts as their bytes (UTF-8), end to end, and where each ends: little memory, and no object a text."""

    def __init__(self, held: NDArray[np.uint8], ends: NDArray[Any]) -> None:
        self.held, self.ends = held, ends

    @classmethod
    def of(cls, texts: Iterable[str]) -> Texts:
        """The same texts, packed."""
        parts = [str(text).encode() for text in texts]
        ends = np.cumsum(np.fromiter(map(len, parts), dtype=np.int64, count=len(parts)), dtype=np.int64)
        small = np.uint32 if not parts or ends[-1] < 2**32 else np.int64
        return cls(np.frombuffer(b"".join(parts), dtype=np.uint8), ends.astype(small))

    def __len__(self) -> int:
        return len(self.ends)

    def __getitem__(self, at: Any, /) -> Any:
        """The text of a row; of an array of rows or a slice, a list of theirs."""
        if isinstance(at, int | np.integer):
            at = range(len(self))[at]
            start = int(self.ends[at - 1]) if at else 0
            return self.held[start : int(self.ends[at])].tobytes().decode()
        return [self[int(row)] for row in np.arange(len(self))[at]]

    def __iter__(self) -> Iterator[str]:
        start, whole = 0, self.held.tobytes()
        for end in self.ends.tolist():
            yield whole[start:end].decode()
            start = end


def text_hash(text: str) -> int:
    """A hash that is the same in every process, 32 bits."""
    return zlib.crc32(text.encode(errors="surrogatepass"))  # who asks may ask for anything


class Names(Mapping[str, int]):
    """The row of each text among texts that differ. Found by hashes, of which few bytes a row are kept.

    hashes: (n,) in ascending order; order: (n,) the row of each.
    """

    def __init__(
        self, texts: Texts, hashes: NDArray[Any], order: NDArray[np.int32], hash_of: Callable[[str], int] = text_hash
    ) -> None:
        self.texts, self.hashes, self.order = texts, hashes, order
        self.hash_of = hash_of

    @classmethod
    def of(cls, texts: Texts, hash_of: Callable[[str], int] = text_hash) -> Names:
        """The rows of texts, found out anew."""
        hashes = np.fromiter(map(hash_of, texts), dtype=np.uint32, count=len(texts))
        order = np.argsort(hashes, kind="stable").astype(np.int32)
        return cls(texts, hashes[order], order, hash_of)

    def __getitem__(self, text: str) -> int:
        wanted = self.hash_of(text)
        at = int(np.searchsorted(self.hashes, np.uint32(wanted)))
        while at < len(self.hashes) and self.hashes[at] == wanted:
            row = int(self.order[at])
            if self.texts[row] == text:
                return row
            at += 1
        raise KeyError(text)

    def __iter__(self) -> Iterator[str]:
        return iter(self.texts)

    def __len__(self) -> int:
        return len(self.texts)
