"""Time to a contract against published times and lifelines; positions and statements by hand."""

from __future__ import annotations

import numpy as np
import pytest
from hypothesis import given
from hypothesis import strategies as st
from lifelines import KaplanMeierFitter

from rain_porch.core.price.chances import list_price as lp

# remission in weeks of the 21 patients on 6-MP, Freireich et al. 1963, from memory; + is censored
SIX_MP = [
    "6",
    "6",
    "6",
    "6+",
    "7",
    "9+",
    "10",
    "10+",
    "11+",
    "13",
    "16",
    "17+",
    "19+",
    "20+",
    "22",
    "23",
    "25+",
    "32+",
    "32+",
    "34+",
    "35+",
]


def test_the_published_remission_times():
    curve = lp.kaplan_meier(
        np.array([float(t.rstrip("+")) for t in SIX_MP]), np.array([not t.endswith("+") for t in SIX_MP])
    )
    due = {6: 0.857, 7: 0.807, 10: 0.753, 13: 0.690, 16: 0.627, 22: 0.538, 23: 0.448}
    assert {t: round(curve.still_unsold(t), 3) for t in due} == due
    assert curve.still_unsold(5.9) == 1 and curve.still_unsold(99) == pytest.approx(0.448, abs=5e-4)


@given(st.lists(st.tuples(st.integers(0, 60), st.booleans()), min_size=1, max_size=60))
def test_the_curve_is_lifelines_own(times):
    days, ended = np.array([float(t) for t, _ in times]), np.array([e for _, e in times])
    ours = lp.kaplan_meier(days, ended)
    theirs = KaplanMeierFitter().fit(days, ended)
    for day in range(0, 62, 3):
        assert ours.still_unsold(day) == pytest.approx(float(theirs.predict(day)), abs=1e-9)


def made(n: int, position: float, days: float, contract: float, seed: int = 1) -> lp.Outcomes:
    rng = np.random.default_rng(seed)
    signed = rng.random(n) < contract
    return lp.Outcomes(np.full(n, position), rng.exponential(days, n), signed, ~signed, np.where(signed, 0.98, np.nan))


def both(*parts: lp.Outcomes) -> lp.Outcomes:
    names = ("position", "days", "contract", "failed", "share")
    return lp.Outcomes(*(np.concatenate([getattr(p, name) for p in parts]) for name in names))


def test_groups_count_every_listing_once_and_say_nothing_of_a_few():
    held = both(made(40, 0.97, 20, 0.95), made(40, 1.2, 90, 0.4, 2), made(5, 1.07, 30, 0.9, 3))
    groups = lp.by_position(held)
    assert [g.n for g in groups] == [0, 40, 0, 5, 40] and sum(g.n for g in groups) == 85
    assert groups[3].chances is None and groups[3].share_of_list is None and groups[3].failed is None
    well, dear = groups[1], groups[4]
    assert well.chances[1] > dear.chances[1] and well.failed < dear.failed
    assert list(well.chances) == sorted(well.chances) and well.share_of_list == pytest.approx(0.98)


def test_statements_name_their_base_and_thresholds_are_round():
    assert lp.against(428_000, [("the highest sold", 400_000), ("the average", 382_142.86), ("itself", 428_000)]) == [
        "7.0 % above the highest sold",
        "12.0 % above the average",
        "equal to itself",
    ]
    assert lp.thresholds(318_000, 402_000) == [325_000, 350_000, 375_000, 400_000]
