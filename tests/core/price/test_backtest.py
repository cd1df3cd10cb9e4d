"""Ranges measured on past sales hold what they promise, whatever the errors are like; scores against plain arithmetic."""

from __future__ import annotations

import numpy as np
import pytest
from hypothesis import given
from hypothesis import strategies as st

from rain_porch.core.price.backtest import Calibration, Case, by_kind, check_ranges, normal_factor, score


def cases(n: int, sd, seed: int = 3, width: float = 0.1, first_day: int = 0) -> list[Case]:
    """Cases whose log errors are Student's t with 4 degrees of freedom, of scale sd(log value)."""
    rng = np.random.default_rng(seed)
    out = []
    for i in range(n):
        value = float(np.exp(rng.normal(12.5, 0.5)))
        error = rng.standard_t(4) * sd(np.log(value))
        day = first_day + i
        out.append(Case(f"L{i}", day, day + 30, value * float(np.exp(error)), {"adjusted_comps": value}, width))
    return out


@pytest.mark.parametrize(
    "sd",
    [lambda v: 0.03, lambda v: 0.12, lambda v: 0.05 + 0.1 * max(0.0, v - 12.5)],
    ids=["narrow", "wide", "dear ones wide"],
)
def test_the_range_holds_four_in_five_overall_and_in_every_fifth(sd):
    before = cases(400, sd, seed=1)
    report = check_ranges(cases(5000, sd, seed=2, first_day=500), before)
    assert 0.77 <= report.hits <= 0.83
    assert len(report.by_fifth) == 5 and sum(f.n for f in report.by_fifth) == 5000
    assert all(0.75 <= f.hits <= 0.86 for f in report.by_fifth), [f.hits for f in report.by_fifth]
    if sd(13.5) > sd(12.0):
        assert report.by_fifth[4].median_width > 1.5 * report.by_fifth[0].median_width


@pytest.mark.parametrize("coverage", [0.5, 0.6, 0.7, 0.9, 0.95])
def test_a_range_holds_what_the_house_asks_of_it(coverage):
    def sd(log_value):
        return 0.05

    report = check_ranges(cases(1200, sd, seed=2, first_day=500), cases(400, sd, seed=1), coverage)
    assert report.nominal == coverage and report.hits == pytest.approx(coverage, abs=0.035)
    assert Calibration.of([]).factor(1e5, 0, coverage) == (normal_factor(coverage), False)


def test_a_range_learns_only_from_sales_that_had_closed():
    held = cases(60, lambda v: 0.05)
    early = Calibration.of(held)
    assert early.factor(held[0].value, 0) == (1.0, False)
    assert early.factor(held[0].value, 40)[1] is False and early.factor(held[0].value, 100)[1] is True
    spoiled = [*held, Case("late", 60, 200, 1e9, {"adjusted_comps": 1e5}, 0.1)]
    assert Calibration.of(spoiled).factor(held[0].value, 100) == early.factor(held[0].value, 100)
    assert check_ranges([], held).hits is None


@given(st.lists(st.tuples(st.floats(5e4, 2e6), st.floats(0.5, 2.0)), min_size=1, max_size=40))
def test_scores_are_plain_arithmetic(rows):
    made = [
        Case(str(i), i, i, actual, {"adjusted_comps": actual * ratio}, 0.1) for i, (actual, ratio) in enumerate(rows)
    ]
    s = score(made, "adjusted_comps")
    errors = [c.value / c.actual - 1 for c in made]
    assert s.n == len(rows) and s.mdape == pytest.approx(np.median(np.abs(errors)))
    assert s.bias == pytest.approx(np.median(errors))
    assert s.pe10 == pytest.approx(np.mean([abs(e) <= 0.1 for e in errors])) and s.pe10 <= s.pe20
    assert score(made, "model") is None


def test_each_kind_of_home_is_told_by_itself_and_where_there_are_too_few():
    rng = np.random.default_rng(3)

    def case(i, kind, off):
        return Case(
            f"{kind}{i}", i, i, 100_000.0, {"adjusted_comps": 100_000 * float(np.exp(off))}, 0.1, home_kind=kind
        )

    mixed = [case(i, "detached", rng.normal(0.02, 0.05)) for i in range(200)] + [
        case(i, "acreage", 0.3) for i in range(9)
    ]
    told = by_kind(mixed, [])
    assert [(k.kind, k.n, k.few) for k in told] == [("detached", 200, False), ("acreage", 9, True)]
    alone = [c for c in mixed if c.home_kind == "detached"]
    assert told[0].mdape == score(alone, "adjusted_comps").mdape and told[0].hits == check_ranges(alone, []).hits
    assert told[1].hits is None and told[1].median_width is None
    assert by_kind([], []) == []
