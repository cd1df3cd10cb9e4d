from __future__ import annotations

from dataclasses import replace

import numpy as np
import pytest
from hypothesis import given
from hypothesis import strategies as st

from rain_porch.core.market.change.market_change import MarketChange
from rain_porch.core.price.evidence import Evidence, evidence
from rain_porch.core.price.range_width import causes, half_width, why_wide
from rain_porch.core.price.wide_model import ModelWorth
from rain_porch.core.statistics.regression import Z80
from tests.core.price.test_evidence import town
from tests.made import DAY, market, subject

CHANGE = MarketChange(0.0, 0.0, 0.0, 0, 365, (), True)
HOME = subject(living_area=1800.0)
USUAL = Evidence({}, CHANGE, 400_000.0, 0.2, 300, 900, model=ModelWorth(np.log(400_000.0), 0.08, 0.08, 1.7))


def test_a_usual_home_has_twice_what_is_usually_missed():
    """Comps 3 % from the model, adjusted by 22 %: 2 × 0.08."""
    assert half_width(USUAL, HOME, 412_000, 22) == pytest.approx(0.16)
    assert why_wide(USUAL, HOME, 412_000, 22) == []


def test_without_the_model_the_local_fit_s_spread_stands():
    assert half_width(replace(USUAL, model=None), HOME, 500_000, 60) == 0.2 and not causes(
        replace(USUAL, model=None), HOME, 1.0, 1
    )


def test_what_makes_it_wide_is_told_the_strongest_first_with_what_would_narrow_it():
    odd = replace(USUAL, model=ModelWorth(0.0, 0.16, 0.08, 1.7))
    told = why_wide(odd, HOME, 520_000, 40)
    assert [c.name for c in told] == ["home", "adjusting", "model"] and all(c.do for c in told)
    assert told[0].factor == pytest.approx(2**0.8) and "16 % off" in told[0].says and "40 %" in told[1].says


@given(
    st.floats(0.01, 0.5), st.floats(0.0, 20), st.floats(200_000, 900_000), st.floats(0, 150), st.floats(1, 60),
)  # fmt: skip
def test_worse_evidence_never_narrows_and_the_width_stays_in_reason(usual, heard, comps, gross, more):
    found = replace(USUAL, model=ModelWorth(0.0, usual, 0.08, heard))
    width = half_width(found, HOME, comps, gross)
    assert 0.03 <= width <= 0.7
    assert half_width(found, HOME, comps, gross + more) >= width
    assert half_width(replace(found, model=ModelWorth(0.0, usual * 1.2, 0.08, heard / 2)), HOME, comps, gross) >= width


def unknown_of(found, **facts):
    told = [c for c in causes(found, subject(**facts), 400_000, 20) if c.name == "unknown"]
    return told[0] if told else None


@pytest.fixture(scope="module")
def around():
    """A garage alone is worth something; baths follow the size, all but a little."""
    rows = town(600, seed=3)
    for k, row in enumerate(rows):
        row["bathrooms_full"] = round(row["living_area"] / 900) if k % 50 else 2.0
    columns = market(rows)
    return evidence(columns, columns.as_of(DAY), subject())


def test_what_is_unknown_widens_by_what_it_moves_prices_among_homes_alike_in_what_is_known(around):
    """Garages lie apart from all else: their whole spread counts. Baths are told by the size, nearly: little is left of theirs."""
    places = {f.name: k for k, f in enumerate(around.wide.features)}
    garage, baths = (unknown_of(around, **{name: None}) for name in ("garage_spaces", "bathrooms_full"))
    spread = {n: abs(around.coef[k]) * float(around.wide.x_apart[:, k].std(ddof=1)) for n, k in places.items()}
    assert garage.factor == pytest.approx(
        np.sqrt(1 + (Z80 * spread["garage_spaces"] / around.half_width) ** 2), rel=0.02
    )
    assert baths is None or baths.factor < 1 + 0.5 * (
        np.sqrt(1 + (Z80 * spread["bathrooms_full"] / around.half_width) ** 2) - 1
    )
    assert unknown_of(around) is None and "garage" in garage.says


def test_the_more_is_unknown_the_wider(around):
    names = ("garage_spaces", "living_area", "year_built", "bathrooms_full")
    factors = [unknown_of(around, **dict.fromkeys(names[:k])).factor for k in range(1, 5)]
    assert factors == sorted(factors) and "3 more facts" in unknown_of(around, **dict.fromkeys(names)).says
