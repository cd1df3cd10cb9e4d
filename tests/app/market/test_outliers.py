from __future__ import annotations

import numpy as np

from rain_porch.app.market.outliers import BINS, FARTHEST, FIELDS, spreads
from rain_porch.core.market.columns import HOME_KINDS


def test_every_known_value_is_in_a_bin_or_beyond_the_fences(demo_records):
    columns = demo_records.columns
    usual = ~columns.lease & ~columns.deed & (columns.home_kind == HOME_KINDS.index("detached"))
    told = spreads(demo_records, "detached")
    assert [s["field"] for s in told] == [f for f in FIELDS if f in {s["field"] for s in told}] and len(told) >= 5
    for s in told:
        x = columns.numbers[s["field"]][:][usual]
        x = x[np.isfinite(x)]
        low, high = np.percentile(x, [25, 75])
        reach = 1.5 * (high - low)
        beyond = ((x < low - reach) | (x > high + reach)).sum()
        assert (s["n"], s["beyond"], len(s["bins"])) == (x.size, beyond, BINS)
        assert sum(s["bins"]) + s["beyond"] == s["n"] and s["median"] == np.median(x)


def test_the_farthest_are_named_with_their_value_the_oddest_first(demo_records):
    for s in spreads(demo_records, "detached"):
        assert len(s["farthest"]) == min(FARTHEST, s["beyond"])
        away = [max(s["low"] - f["value"], f["value"] - s["high"]) for f in s["farthest"]]
        assert all(a > 0 for a in away) and away == sorted(away, reverse=True)
        assert all(f["shown"] for f in s["farthest"])


def test_a_kind_with_few_homes_tells_nothing(demo_records):
    assert spreads(demo_records, "manufactured") == []
