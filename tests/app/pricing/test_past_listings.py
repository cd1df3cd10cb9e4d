"""Listings around a home are looked at once for all homes of a cell; a home's own say nothing of it."""

from __future__ import annotations

from dataclasses import replace

import numpy as np
import pytest

from rain_porch.app.pricing.opened import priced, suggested
from rain_porch.app.pricing.past_listings import CELL_DEGREES, listings_around, past_listings
from rain_porch.app.workup.workups import open_workup
from tests.app.workup.test_changes import begun, change


@pytest.fixture
def standpoint(agent):
    n = begun(agent)
    change(agent, n, change="decide", listing_ids=suggested(open_workup(agent, n)), choice="kept")
    opened = open_workup(agent, n)
    assert priced(opened).value
    return opened.standpoint


def elsewhere(standpoint, north, **also):
    s = standpoint.subject
    return replace(standpoint, subject=replace(s, latitude=s.latitude + north, **also))


def test_homes_of_one_cell_share_what_was_looked_at_and_others_do_not(standpoint):
    middle = (np.floor(standpoint.subject.latitude / CELL_DEGREES) + 0.5) * CELL_DEGREES
    inside = elsewhere(standpoint, middle - standpoint.subject.latitude, home_id=None, own_listing=None)
    beside = elsewhere(inside, 0.2 * CELL_DEGREES)
    assert past_listings(inside) is past_listings(beside)
    assert past_listings(inside) is not past_listings(elsewhere(inside, CELL_DEGREES))
    assert past_listings(inside).model is not None


def test_a_home_s_own_listing_is_none_of_those_that_tell_of_it(standpoint):
    """A home of which a listing lies around has one outcome fewer than its neighbour without, and a fit of its own."""
    row = int(listings_around(standpoint)[0])
    columns = standpoint.columns
    listed = replace(
        standpoint,
        subject=replace(
            standpoint.subject, latitude=float(columns.lats[row]), longitude=float(columns.lons[row]),
            home_id=int(columns.home_id[row]), own_listing=None,
        ),
    )  # fmt: skip
    nobody = replace(listed, subject=replace(listed.subject, home_id=None))
    mine, all_ = past_listings(listed), past_listings(nobody)
    own = int((columns.home_id[listings_around(listed)] == columns.home_id[row]).sum())
    assert own >= 1 and len(all_.outcomes.position) - own <= len(mine.outcomes.position) < len(all_.outcomes.position)
    assert mine.model.n < all_.model.n and mine.model.alpha == pytest.approx(all_.model.alpha, abs=0.1)
