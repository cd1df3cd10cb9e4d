"""Rows of a query become columns a batch at a time, so that a million of them never stand in memory as objects."""

from __future__ import annotations

import json
import sqlite3
from collections.abc import Sequence
from typing import Any

import numpy as np
from numpy.typing import NDArray

from ...core.facts.dates import NO_DAY
from ...core.facts.fields import BY_NAME, FIELDS, Kind
from ...core.market.columns import HOME_KINDS, STATUSES, Words
from ...core.market.packed import Coding, Filling, Numbers, Packed, smallest

NUMBERS = tuple(f.name for f in FIELDS if f.numeric)
WORDS = tuple(f.name for f in FIELDS if f.kind == Kind.WORD and f.name != "standard_status")
DATES = ("on_market_date", "purchase_contract_date", "close_date", "off_market_date")
NAMES = ("row_id", "listing_id", "standard_status", "home_kind", "is_lease", "manner", "home_key", "suspect", "own",
         *NUMBERS, *WORDS, *DATES)  # fmt: skip

_BATCH = 5_000
_PLACE = ("latitude", "longitude")  # asked for as whole arrays, and no two homes share them
_STATUS = {s.value: i for i, s in enumerate(STATUSES)}
_KIND = {k.value: i for i, k in enumerate(HOME_KINDS)}
_MANNER = {"standard": 0, "distressed": 1, "not_arms_length": 2}
_TEXT = np.dtypes.StringDType()
_TYPES: dict[str, Any] = {
    "row_id": np.int64, "listing_id": _TEXT, "home_key": np.int64, "standard_status": np.int8, "home_kind": np.int8, "is_lease": np.bool_,
    "manner": np.int8, **dict.fromkeys(DATES, np.int32), **dict.fromkeys(_PLACE, float),
}  # fmt: skip


class Gathering:
    """Room for n rows with the columns NAMES. Suspect values arrive as unknown.

    Columns are handed out in the order that `order` gives, each once: what it was gathered in is let go.
    """

    def __init__(self, n: int) -> None:
        self.order = np.arange(n)
        self._columns: dict[str, Any] = {name: np.zeros(n, dtype=dtype) for name, dtype in _TYPES.items()}
        self._numbers = {name: Filling(n) for name in NUMBERS if name not in _PLACE}
        self._words = {name: Coding(n) for name in WORDS}
        self._own_numbers: dict[str, Filling] = {}
        self._own_words: dict[str, Coding] = {}
        self._n = n
        self._filled = 0

    def take(self, cursor: sqlite3.Cursor) -> None:
        """All rows of a cursor."""
        cursor.row_factory = None
        while rows := cursor.fetchmany(_BATCH):
            self._take(rows)

    def _take(self, rows: list[Any]) -> None:
        held: dict[str, Any] = dict(zip(NAMES, map(list, zip(*rows, strict=True)), strict=True))
        for r, text in enumerate(held["suspect"]):
            if text:
                for name in json.loads(text):
                    if name in held:
                        held[name][r] = None
        held["standard_status"] = [_STATUS[s] for s in held["standard_status"]]
        held["home_kind"] = [_KIND[k] for k in held["home_kind"]]
        # two of a million homes share a hash of 64 bits once in 37 million readings
        held["home_key"] = list(map(hash, held["home_key"]))
        held["manner"] = [_MANNER[m] for m in held["manner"]]
        for name in DATES:
            held[name] = days_of(held[name])
        at = slice(self._filled, self._filled + len(rows))
        for name, dtype in _TYPES.items():
            self._columns[name][at] = np.array(held[name], dtype=dtype)
        for name, numbers in self._numbers.items():
            numbers.put(at, held[name])
        for name, words in self._words.items():
            words.put(at, held[name])
        self._take_own(at, held["own"])
        self._filled = at.stop

    def _take_own(self, at: slice, told: list[str | None]) -> None:
        """Columns of the office's own, which few records have; each is made when it is first met."""
        if not any(told):
            return
        columns: dict[str, list[Any]] = {}
        for r, text in enumerate(told):
            for name, value in (json.loads(text) if text else {}).items():
                columns.setdefault(name, [None] * len(told))[r] = value
        for name, values in columns.items():
            if name not in BY_NAME:  # kept before it was known what may not be
                continue
            if BY_NAME[name].kind == Kind.DATE:
                days = days_of(values)
                values = [None if day == NO_DAY else float(day) for day in days.tolist()]
            if BY_NAME[name].kind == Kind.WORD:
                self._own_words.setdefault(name, Coding(self._n)).put(at, values)
            else:
                self._own_numbers.setdefault(name, Filling(self._n)).put(at, values)

    def array(self, name: str) -> Any:
        """A column that is no field of numbers or words."""
        return self._columns.pop(name)[self.order]

    def numbers(self, name: str) -> Numbers:
        out: Numbers = self.array(name) if name in _PLACE else self._numbers.pop(name).taken(self.order)
        return out

    def own_numbers(self) -> dict[str, Numbers]:
        return {name: filling.taken(self.order) for name, filling in self._own_numbers.items()}

    def own_words(self) -> dict[str, Words]:
        return {name: self._coded(coding) for name, coding in self._own_words.items()}

    def words(self, name: str) -> Words:
        return self._coded(self._words.pop(name))

    def _coded(self, coding: Coding) -> Words:
        signed = np.min_scalar_type(-len(coding.code_of))
        return Words((coding.codes.astype(signed) - 1)[self.order], coding.values)


def days_of(values: Sequence[str | None]) -> NDArray[np.int32]:
    """Days since 1970 of dates as text; NO_DAY where there is none."""
    text = np.array(["NaT" if v is None else v[:10] for v in values], dtype="datetime64[D]")
    return np.where(np.isnat(text), NO_DAY, text.astype(np.int64)).astype(np.int32)


def by_code(codes: NDArray[Any], values: Any) -> Packed:
    """A column of numbers told by the codes of another, where −1 stands for the last of the values."""
    at = np.where(codes < 0, len(values) - 1, codes)
    return Packed(smallest(at, len(values)), np.asarray(values, dtype=np.float64))
