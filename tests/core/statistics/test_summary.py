from __future__ import annotations

import statistics

import numpy as np
import pytest
from hypothesis import given
from hypothesis import strategies as st

from rain_porch.core.statistics.summary import outside_fences, pulls, summarise

values = st.lists(st.integers(1, 2_000_000).map(float), min_size=1, max_size=60)


@given(values)
def test_summary_agrees_with_numpy_and_the_standard_library(x):
    s = summarise(x, step=1)
    assert (s.count, s.low, s.high) == (len(x), min(x), max(x))
    assert s.mean == pytest.approx(statistics.fmean(x))
    assert s.median == statistics.median(x)
    assert (s.lower_quartile, s.upper_quartile) == pytest.approx(np.percentile(x, [25, 75]))
    most = statistics.multimode(x)
    assert s.modes == (tuple(sorted(most)) if len(most) < len(set(x)) or x.count(most[0]) > 1 else ())


def test_mode_counts_after_rounding_half_up_to_the_display_step():
    assert summarise([412_400, 412_499, 399_500], step=1000).modes == (412_000.0,)
    assert summarise([1, 2, 3]).modes == ()
    assert summarise([1, 1, 2, 2, 3]).modes == (1.0, 2.0)


def test_unknown_values_are_left_out_and_nothing_gives_nothing():
    assert summarise([np.nan, 5.0]).count == 1
    assert summarise([]).mean is None


@given(st.lists(st.floats(0, 1e6), min_size=2, max_size=30))
def test_the_pull_of_a_value_is_the_mean_without_it(x):
    for i, without in enumerate(pulls(x)):
        assert without == pytest.approx(statistics.fmean(x[:i] + x[i + 1 :]), abs=1e-6)


def test_one_stale_listing_is_marked():
    days = [12.0, 15.0, 20.0, 22.0, 25.0, 640.0]
    assert outside_fences(days).tolist() == [False] * 5 + [True]
    assert summarise(days).mean == pytest.approx(122.33, abs=0.01) and pulls(days)[5] == pytest.approx(18.8)
