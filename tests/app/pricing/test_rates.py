from __future__ import annotations

from dataclasses import replace

import numpy as np
import pytest

from rain_porch.app.pricing.candidates import most_alike
from rain_porch.app.pricing.rates import asked_for, no_evidence, rates_for, with_typed
from rain_porch.core.errors import NotEnough
from rain_porch.core.facts.fields import ADJUSTED
from rain_porch.core.market.change.market_change import MarketChange
from rain_porch.core.price.evidence import Rate, evidence


@pytest.fixture(scope="module")
def at_hand(looking_from):
    s = looking_from(2)
    comps = most_alike(s, s.proposed())
    return s, comps, evidence(s.columns, s.view, s.subject, 365)


def test_every_line_of_the_grid_can_be_adjusted_and_stands_in_the_catalogues_order(at_hand):
    s, comps, found = at_hand
    rates = rates_for(s, found, comps)
    assert list(rates) == [n for n in ADJUSTED if n in rates] and {"living_area", "location"} <= rates.keys()
    for name, rate in rates.items():
        assert rate.field == name and np.isfinite(rate.dollars) and rate.se >= 0


def test_without_evidence_only_what_differs_among_the_comps_has_a_house_rule(at_hand):
    s, comps, _ = at_hand
    rates = rates_for(s, no_evidence(comps), comps)
    assert rates and {r.source for r in rates.values()} == {"house rule"}
    for name in rates:
        mine = s.subject.number(name)
        assert any(c.facts.get(name) not in (mine, None) for c in comps) or name == "condition_grade"
    alike = replace(s, subject=replace(s.subject, facts=comps[0].facts))
    same = rates_for(alike, no_evidence(comps), comps[:1])
    assert "bathrooms_full" not in same and "garage_spaces" not in same


def test_a_typed_rate_stands_in_place_of_the_evidence_and_is_marked_so():
    rates = {"living_area": Rate("living_area", 90.0, 8.0, 300, "local sales", False, 0.6, "told")}
    change = MarketChange(0.4, 0.1, 0.7, 200, 365)
    typed, moved = with_typed(rates, change, {"living_area": 120.0, "market_change": -0.2, "garage_spaces": 5000.0})
    assert (typed["living_area"].dollars, typed["living_area"].source, typed["living_area"].se) == (120.0, "typed", 0.0)
    assert typed["living_area"].n == 300, "the sales are as many as they were"
    assert "garage_spaces" not in typed, "what has no line is given none"
    assert (moved.pct_per_month, moved.low, moved.high) == (-0.2, -0.2, -0.2) and change.pct_per_month == 0.4
    assert with_typed(rates, change, {}) == (rates, change)


def test_what_the_home_does_not_know_is_asked_for_with_what_a_step_of_it_is_worth(at_hand):
    s, comps, found = at_hand
    rates = rates_for(s, found, comps)
    facts = [dict.fromkeys(rates, 1.0) for _ in comps]
    bare = replace(s.subject, facts={k: v for k, v in s.subject.facts.items() if k != "garage_spaces"})
    before = asked_for(s.subject, rates, facts)
    (asked,) = [x for x in asked_for(bare, rates, facts) if x not in before]
    assert asked.startswith("Garage spaces is not known of this home") and f"{len(comps)} of {len(comps)}" in asked
    assert asked_for(bare, rates, [{} for _ in comps]) == [], "comps that do not know it either give no reason to ask"


def test_no_sales_and_no_comps_is_no_ground_to_stand_on():
    with pytest.raises(NotEnough, match="bring in more listings"):
        no_evidence([])
