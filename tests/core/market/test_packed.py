"""Columns in few bytes say exactly what they were given."""

from __future__ import annotations

import numpy as np
import pytest
from hypothesis import given
from hypothesis import strategies as st

from rain_porch.core.market.book import dated
from rain_porch.core.market.packed import MOST_VALUES, Coding, Filling, Names, Packed, Texts, packed, text_hash

numbers = st.one_of(st.none(), st.sampled_from([0.0, 1.0, 2.5, -3.0]), st.floats(allow_nan=False))


def filled(parts: list[list[float | None]]) -> Filling:
    filling = Filling(sum(map(len, parts)))
    at = 0
    for part in parts:
        filling.put(slice(at, at + len(part)), part)
        at += len(part)
    return filling


@given(st.lists(st.lists(numbers, max_size=9), max_size=5), st.randoms())
def test_numbers_come_back_in_the_order_asked_for(parts, random):
    told = np.array([np.nan if v is None else v for part in parts for v in part])
    order = list(range(len(told)))
    random.shuffle(order)
    column = filled(parts).taken(np.array(order, dtype=np.int64))
    assert np.array_equal(column[:], told[order], equal_nan=True)
    some = np.array(order[::2], dtype=np.int64)
    assert np.array_equal(column[some], told[order][some], equal_nan=True)
    assert np.array_equal(packed(told)[:], told, equal_nan=True)


@pytest.mark.parametrize("differing", [200, 300, MOST_VALUES - 1, MOST_VALUES, MOST_VALUES + 1])
def test_a_column_takes_as_few_bytes_as_its_values_allow(differing):
    values = [None, *map(float, range(differing))]
    parts = [values[i : i + 7000] for i in range(0, len(values), 7000)]
    column = filled(parts).taken(np.arange(len(values)))
    assert np.array_equal(column[:], np.array(values, dtype=float), equal_nan=True)
    if differing < MOST_VALUES:
        assert isinstance(column, Packed) and column.codes.itemsize == (1 if differing < 256 else 2)
    else:
        assert not isinstance(column, Packed)


def test_a_field_that_no_record_has_takes_no_memory():
    column = filled([[None] * 1000, [None] * 500]).taken(np.arange(1500))
    assert isinstance(column, Packed) and np.isnan(column[:]).all() and len(column) == 1500
    assert column.codes.strides == (0,)


def test_more_words_than_two_bytes_tell_apart():
    words = [f"word {i}" for i in range(MOST_VALUES + 50)]
    coding = Coding(len(words) + 1)
    for at in range(0, len(words), 9000):
        coding.put(slice(at, min(at + 9000, len(words))), words[at : at + 9000])
    assert coding.codes.tolist() == [*range(1, len(words) + 1), 0]
    assert coding.values == tuple(words)


@given(st.lists(st.text(max_size=4), unique=True, max_size=30), st.sampled_from([text_hash, len, lambda text: 7]))
def test_a_text_is_found_in_its_row_even_where_hashes_meet(texts, hash_of):
    names = Names.of(Texts.of(texts), hash_of)
    assert {t: names[t] for t in texts} == {t: i for i, t in enumerate(texts)}
    assert list(names) == texts and len(names) == len(texts)
    assert names.texts[:] == texts and names.texts[np.arange(len(texts))[::-1]] == texts[::-1]
    assert names.get("longer than any") is None and "longer than any" not in names


@given(
    st.lists(st.tuples(st.integers(-50, 50), st.booleans()), max_size=40), st.integers(-60, 60), st.integers(-60, 60)
)
def test_rows_by_day_are_those_that_a_scan_finds(entries, one, other):
    entries = sorted(entries, key=lambda e: e[0])
    days = np.array([d for d, _ in entries], dtype=np.int32)
    which = np.array([w for _, w in entries], dtype=np.bool_)
    start, end = min(one, other), max(one, other)
    held = dated(np.arange(len(entries)), days)
    for some, kept in ((held, np.ones(len(entries), dtype=np.bool_)), (held.only(which), which)):
        assert some.within(start, end).tolist() == np.flatnonzero(kept & (days >= start) & (days <= end)).tolist()
        assert some.until(one) == int((days[kept] <= one).sum())
        assert some.days().tolist() == days[kept].tolist()
