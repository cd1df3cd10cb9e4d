"""How values lie: every value in one bin, edges round, one after the other."""

from __future__ import annotations

import itertools

import numpy as np
from hypothesis import given
from hypothesis import strategies as st

from rain_porch.core.market.value_spread import spread


@given(st.lists(st.floats(0, 1e7) | st.floats(0.5, 1.5), min_size=1, max_size=300))
def test_every_value_is_in_one_bin(values):
    x = np.array(values)
    bins = spread(x)
    assert sum(b.n for b in bins) == len(x) and 1 <= len(bins) <= 16
    assert all(a.high == b.low for a, b in itertools.pairwise(bins))
    assert bins[0].low <= x.min() + 1e-6 and bins[-1].high >= x.max() - 1e-6
    widths = {round((b.high - b.low) / (bins[0].high - bins[0].low), 6) for b in bins[:-1]}
    assert widths <= {1.0}


def test_what_is_unknown_is_in_none_and_far_values_lie_in_the_last():
    assert spread(np.array([np.nan])) == []
    x = np.concatenate([np.arange(200.0), [1e6]])
    bins = spread(x)
    assert bins[-1].high == 1e6 and bins[-1].n < 30 and sum(b.n for b in bins) == 201
    whole = np.array([3.0, 3.0])
    assert [(b.low, b.high, b.n) for b in spread(whole)] == [(3.0, 4.0, 2)]
