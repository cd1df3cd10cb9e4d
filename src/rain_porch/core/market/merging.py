"""Columns with some of their records told anew, without reading the others again: what came, what went, what is told otherwise."""

from __future__ import annotations

from collections.abc import Callable
from dataclasses import dataclass, fields, replace
from functools import cached_property
from typing import Any

import numpy as np
from numpy.typing import NDArray

from ..facts.fields import RANK
from .book import followed, followed_in
from .columns import PLAIN, Bools, Columns, Ints, PriceChanges, Rows, Words
from .listing_facts import resold_from, resold_in
from .packed import Names, Numbers, Packed, Texts, smallest_type
from .status_history import StatusChanges

Put = Callable[[NDArray[Any]], NDArray[Any]]
_MANY_RUNS = 3_000  # beyond which rows are put in their places one by one


@dataclass(frozen=True)
class Move:
    """Which rows leave, (n,), and where each row of the columns before, (n,), and of the part, (k,), stands now; −1 for those gone."""

    leaving: Bools
    of_before: Ints
    of_part: Ints
    put: Put = np.asarray

    @cached_property
    def rows(self) -> int:
        """How many there are now."""
        return len(self.leaving) - int(self.leaving.sum()) + len(self.of_part)

    @cached_property
    def _runs(self) -> list[tuple[slice, slice]]:
        """Rows before that stand one after the other now too, and where: with those of them that leave and leave no gap, since what is
        told anew stands in their place."""
        kept = np.flatnonzero(~self.leaving)
        now = self.of_before[kept]
        first = np.flatnonzero(np.diff(now - kept, prepend=-1 - len(self.leaving)))
        ends = np.append(first[1:], len(kept))[: len(first)] - 1
        spans = zip(kept[first], kept[ends] + 1, now[first], now[ends] + 1, strict=True)
        return [(slice(a, b), slice(c, d)) for a, b, c, d in (map(int, span) for span in spans)]

    def joined(self, before: NDArray[Any], part: NDArray[Any], dtype: Any = None) -> NDArray[Any]:
        """A column, of those before, (n,), and of the part, (k,), as its rows stand now: copied in runs, since few rows move."""
        out = np.empty(self.rows, dtype or np.promote_types(before.dtype, part.dtype))
        if len(self._runs) > _MANY_RUNS:
            stays = self.of_before >= 0
            out[self.of_before[stays]] = before[stays]
        else:
            for then, now in self._runs:
                out[now] = before[then]
        out[self.of_part] = part
        return self.put(out)


def merged(
    before: Columns, leaving: Bools, part: Columns, home_id: Rows, put: Put = np.asarray
) -> tuple[Columns, Move]:
    """What reading all records anew would give, but for the numbers of homes and the codes of words.

    leaving: (n,) rows of `before` that are there no longer or stand in `part`; part: records told anew, as columns of their own;
    home_id: (len(part),) their homes among those of `before`; put: where an array is to stand. Ranks of words are left out:
    they hang on all records.
    """
    kept = np.flatnonzero(~leaving)
    at = np.searchsorted(before.sort_key[kept], part.sort_key)
    source = np.insert(kept, at, len(before) + np.arange(len(part)))
    row_now = np.full(len(before) + len(part), -1, dtype=np.int64)
    row_now[source] = np.arange(len(source))
    of_before, of_part = row_now[: len(before)], row_now[len(before) :]

    move = Move(leaving, of_before, of_part, put)
    numbers = {
        name: _numbers(before.numbers.get(name), part.numbers.get(name), move)
        for name in dict.fromkeys([*before.numbers, *part.numbers])
        if not name.startswith(RANK)
    }
    words = {
        name: _words(before.words.get(name), part.words.get(name), move)
        for name in dict.fromkeys([*before.words, *part.words])
    }
    plain: dict[str, Any] = {
        name: move.joined(getattr(before, name), getattr(part, name)) for name in (*PLAIN, "sort_key")
    }
    assert isinstance(before.keys, Texts) and isinstance(part.keys, Texts)
    assert isinstance(before.row_of, Names)
    keys = _texts(before.keys, part.keys, source, move)
    now = replace(
        part,
        keys=keys,
        numbers={n: held for n, held in numbers.items() if n in part.numbers or np.isfinite(held[:]).any()},
        words={n: held for n, held in words.items() if n in part.words or held.words},
        home_id=move.joined(before.home_id, home_id, np.int32),
        changes=PriceChanges(*_told_of(before.changes, part.changes, move)),
        statuses=StatusChanges(*_told_of(before.statuses, part.statuses, move)),
        no_quick_resale=_rows_now(before.no_quick_resale, of_before) | _rows_now(part.no_quick_resale, of_part),
        row_of=_names(before.row_of, keys, move),
        **plain,
    )
    return now, move


def carry(before: Columns, now: Columns, move: Move) -> None:
    """Let the merged columns know what was worked out of the homes before, for those of which no record changed; for the others it
    is worked out anew."""
    if not {"by home", "followed", "resold from"} <= {*before.memo.kept()}:
        return
    leaving, of_before, home_id = move.leaving, move.of_before, now.home_id[move.of_part]
    order, homes = _by_home(before, home_id, move)
    stirred = np.unique(np.concatenate([before.home_id[leaving], home_id]))
    spans = zip(np.searchsorted(homes, stirred), np.searchsorted(homes, stirred, side="right"), strict=True)
    rows = np.sort(np.concatenate([order[a:b] for a, b in spans] or [order[:0]])).astype(np.int64)

    back, earlier = np.zeros(len(now), dtype=np.bool_), np.full(len(now), -1, dtype=np.int32)
    was_back, was_after = followed(before)
    there = np.flatnonzero(was_back & ~leaving)
    back[of_before[there]] = True
    earlier[of_before[there]] = of_before[was_after[there]]
    back[rows], at = followed_in(now, rows)
    earlier[rows] = np.where(at >= 0, rows[at], -1)

    pairs = np.array([*resold_from(before).items()], dtype=np.int64).reshape(-1, 2)
    pairs = of_before[pairs[~np.isin(before.home_id[pairs[:, 0]], stirred)]]
    resold = {int(later): int(earlier) for later, earlier in pairs}
    resold |= resold_in(now, rows)

    now.memo.put("by home", (move.put(order), move.put(homes)))
    now.memo.put("followed", (move.put(back), move.put(earlier)))
    now.memo.put("resold from", resold)


def _by_home(before: Columns, home_id: Rows, move: Move) -> tuple[Rows, Rows]:
    """Rows in the order of their homes, and those homes, from the order before."""
    order, homes = before.by_home()
    now = move.of_before[order]
    stays = now >= 0
    held = (homes[stays].astype(np.int64) << 32) + now[stays]
    told = np.sort((home_id.astype(np.int64) << 32) + move.of_part)
    both = np.insert(held, np.searchsorted(held, told), told)
    return (both & 0xFFFFFFFF).astype(np.int32), (both >> 32).astype(np.int32)


def _rows_now(rows: frozenset[int], now: Ints) -> frozenset[int]:
    return frozenset(int(now[row]) for row in rows if now[row] >= 0)


def _numbers(a: Numbers | None, b: Numbers | None, move: Move) -> Numbers:
    """A field's numbers, of those before and of those told anew; None where none of them has any."""
    a = _unknown(len(move.leaving)) if a is None else a
    told = np.full(len(move.of_part), np.nan) if b is None else np.asarray(b[:])
    if not isinstance(a, Packed):
        return move.joined(np.asarray(a), told)
    codes, values = _coded(a.values, told)
    if a.codes.strides == (0,) and len(values) == 1:
        return Packed(np.broadcast_to(np.uint8(0), move.rows), values)
    return Packed(move.joined(a.codes, codes, smallest_type(len(values))), values)


def _unknown(n: int) -> Packed:
    return Packed(np.broadcast_to(np.uint8(0), n), np.array([np.nan]))


def _coded(values: NDArray[np.float64], told: NDArray[np.float64]) -> tuple[NDArray[np.uint32], NDArray[np.float64]]:
    """The code of each number that is told, and the values with those that are new at their end."""
    values = values if len(values) else np.array([np.nan])  # of no record, nothing
    order = np.argsort(values)  # NaN comes last, and is found there
    distinct, which = np.unique(told, return_inverse=True)
    at = order[np.minimum(np.searchsorted(values[order], distinct), len(values) - 1)]
    known = (values[at] == distinct) | (np.isnan(values[at]) & np.isnan(distinct))
    at[~known] = len(values) + np.arange((~known).sum())
    return at[which].astype(np.uint32), np.concatenate([values, distinct[~known]])


def _words(a: Words | None, b: Words | None, move: Move) -> Words:
    """A field's words; those that no record has any more are left out."""
    nothing, of_b = np.int8(-1), len(move.of_part)
    a = Words(np.broadcast_to(nothing, len(move.leaving)), ()) if a is None else a
    b = Words(np.broadcast_to(nothing, of_b), ()) if b is None else b
    code_of = {word: code for code, word in enumerate(a.words)}
    for word in b.words:
        code_of.setdefault(word, len(code_of))
    told = np.array([*(code_of[word] for word in b.words), -1], dtype=np.int64)[b.codes]
    if a.codes.strides == (0,) and not code_of:
        return Words(np.broadcast_to(nothing, move.rows), ())
    signed = np.min_scalar_type(-len(code_of) - 1)
    codes = move.joined(a.codes, told, signed)
    words = tuple(code_of)
    if not set(np.unique(a.codes[move.leaving]).tolist()) - set(told.tolist()):
        return Words(codes, words)
    left = np.bincount(codes[codes >= 0], minlength=len(words)) > 0
    if left.all():
        return Words(codes, words)
    again = np.append(np.cumsum(left) - 1, -1).astype(signed)
    return Words(again[codes], tuple(word for word, is_left in zip(words, left, strict=True) if is_left))


def _texts(a: Texts, b: Texts, source: Ints, move: Move) -> Texts:
    """Texts of both by rows, `source` counting on from the one to the other; runs are copied as a whole."""
    cuts = np.flatnonzero((np.diff(source) != 1) | (source[1:] == len(a))) + 1
    pieces = []
    for run in np.split(source, cuts) if len(source) else ():
        first, last = int(run[0]), int(run[-1])
        of, start, end = (a, first, last) if last < len(a) else (b, first - len(a), last - len(a))
        pieces.append(of.held[int(of.ends[start - 1]) if start else 0 : int(of.ends[end])])
    lengths = np.concatenate([_lengths(a), _lengths(b)])[source]
    ends = np.cumsum(lengths)
    small = np.uint32 if not len(ends) or ends[-1] < 2**32 else np.int64
    held = np.concatenate(pieces) if pieces else np.zeros(0, np.uint8)
    return Texts(move.put(held), move.put(ends.astype(small)))


def _lengths(texts: Texts) -> Ints:
    return np.asarray(np.diff(texts.ends.astype(np.int64), prepend=0), dtype=np.int64)


def _names(before: Names, keys: Texts, move: Move) -> Names:
    """The row of each key, by the hashes before and those of what is told anew."""
    now = move.of_before[before.order]
    stays = now >= 0
    hashes, order = before.hashes[stays], now[stays].astype(np.int32)
    told = np.array([before.hash_of(keys[int(row)]) for row in move.of_part], dtype=np.uint32)
    by_hash = np.argsort(told, kind="stable")
    at = np.searchsorted(hashes, told[by_hash])
    order = np.insert(order, at, move.of_part[by_hash].astype(np.int32))
    return Names(keys, move.put(np.insert(hashes, at, told[by_hash])), move.put(order), before.hash_of)


def _told_of(a: PriceChanges | StatusChanges, b: PriceChanges | StatusChanges, move: Move) -> list[Any]:
    """(rows, days, values) of both by row and day, with the rows as they are numbered now."""
    (a_rows, *before), (b_rows, *told) = ([getattr(x, f.name) for f in fields(x)] for x in (a, b))
    stays = move.of_before[a_rows] >= 0
    rows = np.concatenate([move.of_before[a_rows][stays], move.of_part[b_rows]])
    order = np.argsort(rows, kind="stable")
    rest = (np.concatenate([x[stays], y])[order] for x, y in zip(before, told, strict=True))
    return [move.put(rows[order]), *map(move.put, rest)]
