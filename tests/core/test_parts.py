"""A value taken apart into JSON and arrays is the same when it is put together."""

from __future__ import annotations

import json
from dataclasses import dataclass, field
from typing import Any

import numpy as np
import pytest
from hypothesis import given
from hypothesis import strategies as st

from rain_porch.core.parts import put_together, taken_apart


@dataclass(frozen=True)
class Pair:
    a: Any
    b: Any
    memo: dict[str, int] = field(init=False, default_factory=dict, compare=False)


plain = st.one_of(st.none(), st.booleans(), st.integers(), st.floats(allow_nan=False), st.text(max_size=5))
values = st.recursive(
    plain,
    lambda inner: st.one_of(
        st.lists(inner, max_size=3).map(tuple),
        st.dictionaries(st.text(max_size=3), inner, max_size=3),
        st.builds(Pair, inner, inner),
    ),
    max_leaves=12,
)


@given(values)
def test_there_and_back_through_json_is_the_same(value):
    arrays: dict[str, Any] = {}
    told = json.loads(json.dumps(taken_apart(value, arrays)))
    assert not arrays and put_together(told, arrays, {"Pair": Pair}) == value


def test_arrays_go_beside_and_come_back():
    points = np.random.default_rng(2).normal(size=(40, 2))
    arrays: dict[str, Any] = {}
    told = json.loads(json.dumps(taken_apart(Pair((points, 1), {"t": points.T}), arrays)))
    back = put_together(told, arrays, {"Pair": Pair})
    assert back.a[0] is points and back.a[1] == 1
    assert back.b["t"].tolist() == points.T.tolist()


def test_what_cannot_be_written_is_refused_by_its_place():
    with pytest.raises(TypeError, match=r"value\.b is a set"):
        taken_apart(Pair(1, {2}), {})
    with pytest.raises(KeyError):
        put_together(taken_apart(Pair(1, 2), {}), {}, {})
