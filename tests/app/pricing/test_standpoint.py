from __future__ import annotations

import numpy as np
import pytest

from rain_porch.app.pricing.standpoint import Standpoint
from rain_porch.core.facts.dates import NO_DAY
from rain_porch.core.market.columns import HOME_KINDS, SOLD


def test_nothing_later_than_the_day_is_seen(looking_from, demo_records):
    s = looking_from(1)
    for back in (200, 700):
        day = s.view.day - back
        then = Standpoint.at(demo_records, s.subject, day)
        rows = then.run(then.proposed()).rows
        sold = rows[then.view.kind[rows] == SOLD]
        assert sold.size and (then.columns.close[sold] <= day).all()
        on = then.columns.on_market[rows]
        assert ((on <= day) | (on == NO_DAY)).all()


def test_the_share_of_distressed_sales_is_that_of_the_last_year_and_kind(looking_from, demo_records):
    s = looking_from(3)
    row = demo_records.db.execute(
        "SELECT listing_id FROM listings WHERE special_listing_conditions IS NOT NULL LIMIT 1"
    ).fetchone()
    assert row is not None
    c, day = s.columns, s.view.day
    year = (s.view.kind == SOLD) & (s.view.date > day - 366) & (s.view.date <= day) & (s.view.date >= day - 365)
    mine = np.flatnonzero(year & (c.home_kind == HOME_KINDS.index(s.subject.home_kind)))
    mine = mine[~c.lease[mine] & ~c.not_arms_length[mine]]
    assert s.distressed_share() == pytest.approx(float(c.distressed[mine].mean()), abs=0.01)


@pytest.mark.parametrize("n", range(3))
def test_the_parts_of_a_likeness_make_up_its_whole(looking_from, n):
    s = looking_from(n)
    row = int(s.run(s.proposed()).rows[0])
    parts = s.likeness_parts(row)
    score, known, _ = (float(x[0]) for x in s.likeness(np.array([row])))
    told = {k: (like, weight) for k, (like, weight) in parts.items() if like is not None}
    assert sum(w for _, w in parts.values()) == pytest.approx(1)
    assert sum(w for _, w in told.values()) == pytest.approx(known)
    assert 100 * sum(like * w for like, w in told.values()) / known == pytest.approx(score)
