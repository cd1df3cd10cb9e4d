"""The figures of all that is found, against Python's own statistics."""

from __future__ import annotations

import statistics

import pytest

from rain_porch.app.home.homes import HomeRef
from rain_porch.app.lookup import looked_up
from rain_porch.app.pricing.opened import found_candidates
from rain_porch.app.pricing.summaries import LABELS, summaries_of_workup
from rain_porch.app.workup import changes
from rain_porch.app.workup.workups import begin_workup, change_workup, open_workup


@pytest.fixture
def workup(agent):
    hit = next(h for h in looked_up(agent, "630 hedgerow terrace").hits if h.kind != "workup")
    return begin_workup(agent, HomeRef(hit.kind, hit.key))


def _values(opened, field, kind):
    of_kind = [c for c in found_candidates(opened) if kind in ("", c.kind)]
    return [v for c in of_kind if (v := getattr(c, field, None)) is not None]


@pytest.mark.parametrize("field", ["price", "list_price", "days_on_market", "price_per_sqft"])
def test_each_figure_is_that_of_the_homes_found(agent, workup, field):
    opened = open_workup(agent, workup)
    told = {f.field: f for f in summaries_of_workup(opened).fields}
    assert told.keys() == LABELS.keys()
    for s in told[field].kinds:
        x = _values(opened, field, s.kind)
        assert s.count == len(x)
        assert s.mean == pytest.approx(statistics.fmean(x)) and s.median == pytest.approx(statistics.median(x))
        assert (s.low, s.high) == (pytest.approx(min(x)), pytest.approx(max(x)))
        for far in s.far:
            rest = sorted(x)
            rest.remove(pytest.approx(far.value)) if far.value not in rest else rest.remove(far.value)
            assert far.mean_without == pytest.approx(statistics.fmean(rest))


def test_what_is_set_aside_is_in_no_figure_and_is_counted(agent, workup):
    before = summaries_of_workup(open_workup(agent, workup))
    key = found_candidates(open_workup(agent, workup))[0].listing_id
    change_workup(agent, workup, 1, changes.Decide(change="decide", listing_ids=[key], choice="set_aside"))
    after = summaries_of_workup(open_workup(agent, workup))
    whole = {"before": before, "after": after}
    counts = {
        w: next(k.count for f in s.fields if f.field == "price" for k in f.kinds if not k.kind)
        for w, s in whole.items()
    }
    assert (before.left_out, after.left_out) == (0, 1) and counts["after"] == counts["before"] - 1
