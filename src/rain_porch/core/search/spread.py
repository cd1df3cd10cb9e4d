"""How one field is spread over some homes: what stands behind the handles of a criterion."""

from __future__ import annotations

from collections.abc import Mapping
from dataclasses import dataclass

import numpy as np

from ..errors import BadInput
from ..facts.fields import BY_NAME, Kind
from ..facts.words import as_typed
from ..market.columns import Columns, Ints

BINS = 40


@dataclass(frozen=True)
class Spread:
    """bins: counts between low and high, the outer ones with all beyond; words: counts, of "yes" and "no" too; unknown: rows
    without a value."""

    low: float | None
    high: float | None
    bins: tuple[int, ...]
    words: Mapping[str, int]
    unknown: int


def spread(columns: Columns, rows: Ints, name: str) -> Spread:
    """Spread of a field over rows, from the 1st to the 99th percentile rounded out to the field's step."""
    x = columns.values(name, rows)
    if x is not None:
        known = x[np.isfinite(x)]
        if not known.size:
            return Spread(None, None, (), {}, int(rows.size))
        if BY_NAME[name].kind == Kind.YES_NO:
            yes = int((known > 0).sum())
            words = {"yes": yes, "no": int(known.size) - yes}
            return Spread(None, None, (), words, int(rows.size - known.size))
        step = BY_NAME[name].step
        low, high = np.percentile(known, [1, 99])
        low, high = float(np.floor(low / step) * step), float(np.ceil(high / step) * step)
        high = max(high, low + step)
        n = int(min(BINS, max(1, round((high - low) / step))))
        bins, _ = np.histogram(np.clip(known, low, high), bins=n, range=(low, high))
        return Spread(low, high, tuple(int(b) for b in bins), {}, int(rows.size - known.size))
    if name in columns.words:
        held = columns.words[name]
        codes = held.codes[rows]
        counts = np.bincount(codes[codes >= 0], minlength=len(held.words))
        order = np.argsort(-counts, kind="stable")[:BINS]
        words = {held.words[i]: int(counts[i]) for i in order if counts[i]}
        return Spread(None, None, (), words, int((codes < 0).sum()))
    raise BadInput("field", f"“{name}” cannot be counted: it is no field with numbers or words.")


def words_of(columns: Columns, name: str, text: str, limit: int) -> dict[str, int]:
    """The words that a field has in all records and that hold a text, with their counts, the most frequent first.

    Raises BadInput for a field that has no words.
    """
    held = columns.words.get(name)
    if held is None:
        raise BadInput("field", f"“{name}” is no field of words.")
    counts = np.bincount(held.codes[held.codes >= 0], minlength=len(held.words))
    wanted, names = as_typed(text), [as_typed(word) for word in held.words]
    order = [i for i in np.argsort(-counts, kind="stable") if counts[i] and wanted in names[i]]
    order.sort(key=lambda i: not names[i].startswith(wanted))
    return {held.words[i]: int(counts[i]) for i in order[:limit]}
