from __future__ import annotations

import numpy as np
import pytest

from rain_porch.core.facts.fields import BY_NAME
from rain_porch.core.facts.words import HomeKind
from rain_porch.core.market.features import (
    FEATURES,
    LAND_FEATURES,
    features_of,
    matrix,
    matrix_like,
    size_of,
    transformed,
)
from tests.made import market, sale


def test_features_are_the_catalogues_and_land_has_its_own():
    assert {f.name for f in FEATURES} == {f.name for f in BY_NAME.values() if f.effect}
    assert set(features_of(HomeKind.LAND)) == {f.name for f in LAND_FEATURES} < set(features_of(HomeKind.DETACHED))
    house, land = (features_of(k)["lot_size_square_feet"] for k in (HomeKind.DETACHED, HomeKind.ACREAGE))
    assert land.prior > 5 * house.prior, "a lot's size is most of the worth of land and little of a house's"
    assert (size_of(HomeKind.LAND), size_of(HomeKind.ATTACHED)) == ("lot_size_square_feet", "living_area")


def test_logarithms_of_what_is_not_above_zero_are_unknown():
    area = features_of(HomeKind.DETACHED)["living_area"]
    assert transformed(area, np.array([np.e, 0.0, -4.0, np.nan])) == pytest.approx(
        [1, np.nan, np.nan, np.nan], nan_ok=True
    )
    baths = features_of(HomeKind.DETACHED)["bathrooms_full"]
    assert transformed(baths, np.array([0.0, 2.0])).tolist() == [0.0, 2.0]


def test_other_rows_are_seen_as_the_fit_saw_its_own_with_gaps_at_its_mean():
    rows = [
        sale(living_area=a, bathrooms_full=b) for a, b in [(1000.0, 1.0), (2000.0, 2.0), (1500.0, None), (3000.0, 3.0)]
    ]
    columns = market(rows)
    kept, x = matrix(columns, np.arange(4), FEATURES)
    assert matrix_like(columns, np.arange(4), kept, x.mean(axis=0)) == pytest.approx(x)
    assert all(np.isfinite(x).ravel()) and {f.name for f in kept} == {"living_area", "bathrooms_full"}


def test_what_few_know_or_all_share_is_left_out():
    columns = market([sale(living_area=1000.0 + i, fireplaces_total=1.0 if i < 4 else None) for i in range(10)])
    assert [f.name for f in matrix(columns, np.arange(10), FEATURES)[0]] == ["living_area"]
    empty, x = matrix(columns, np.arange(1), FEATURES)
    assert empty == () and x.shape == (1, 0)
