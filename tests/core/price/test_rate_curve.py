from __future__ import annotations

from dataclasses import replace

import numpy as np
import pytest

from rain_porch.core.facts.dates import day_of
from rain_porch.core.facts.words import HomeKind
from rain_porch.core.price.evidence import evidence
from rain_porch.core.price.rate_curve import rate_curve
from rain_porch.core.price.wide_model import fit_wide_model
from tests.core.price.test_wide_model import everything, subject, town, worth
from tests.made import TODAY


@pytest.fixture(scope="module")
def known():
    columns, _ = town()
    model = fit_wide_model(columns, everything(columns), day_of(TODAY), HomeKind.DETACHED)
    home = subject(1800, 1960, 0, 0)
    return columns, model, evidence(columns, columns.as_of(day_of(TODAY)), home, model=model), home


def test_the_curve_goes_through_the_home_and_bends_where_worth_does(known):
    """Worth was made with a power of 0.70 below 1,800 sq ft and 0.45 above."""
    columns, model, found, home = known
    curve = rate_curve(model, found, columns, home, "living_area")
    assert (np.diff(curve.values) > 0).all() and curve.values[0] < 1000 and curve.values[-1] > 3000
    assert float(np.interp(1800, curve.values, curve.dollars)) == pytest.approx(curve.worth)

    def power(low, high):
        a, b = np.interp([low, high], curve.values, np.log(curve.dollars))
        return (b - a) / np.log(high / low)

    made = [float(worth(v, 1960.0, 0, 0) - worth(1800, 1960.0, 0, 0)) for v in curve.values]
    assert np.abs(np.log(curve.dollars / curve.worth) - made).max() < 0.09
    assert power(1000, 1700) > power(2000, 3200) + 0.1


def test_counted_things_are_walked_one_by_one_and_the_unknown_has_no_curve(known):
    columns, model, found, home = known
    assert rate_curve(model, found, columns, home, "bathrooms_full").values.tolist() == [1.0, 2.0, 3.0]
    bare = replace(home, facts={"year_built": 1960.0})
    for asked, of in ((None, home), (model, bare), (model, replace(home, placed=False))):
        assert rate_curve(asked, found, columns, of, "living_area") is None
    assert (
        rate_curve(model, found, columns, replace(home, facts={**home.facts, "waterfront_yn": 1.0}), "waterfront_yn")
        is None
    )
