from __future__ import annotations

import math

import numpy as np
import pytest

from rain_porch.app.pricing.candidates import candidates, loosened, most_alike, sold_rows
from rain_porch.core.facts.dates import date_of

RADIUS_MILES = 3958.7613


def haversine(a: tuple[float, float], b: tuple[float, float]) -> float:
    """Great-circle miles, written down apart from the core."""
    (lat1, lon1), (lat2, lon2) = (tuple(map(math.radians, p)) for p in (a, b))
    h = math.sin((lat2 - lat1) / 2) ** 2 + math.cos(lat1) * math.cos(lat2) * math.sin((lon2 - lon1) / 2) ** 2
    return 2 * RADIUS_MILES * math.asin(math.sqrt(h))


@pytest.mark.parametrize("n", range(4))
def test_the_most_alike_come_first_with_what_the_records_say_of_them(looking_from, demo_records, n):
    s = looking_from(n)
    found = s.run(s.proposed()).rows
    told = candidates(s, found)
    columns = s.columns
    assert [c.likeness for c in told] == sorted((c.likeness for c in told), reverse=True)
    assert sorted(c.row for c in told) == sorted(found.tolist())
    for c in told:
        far = haversine((s.subject.latitude, s.subject.longitude), (columns.lats[c.row], columns.lons[c.row]))
        assert c.distance_miles == pytest.approx(far, abs=0.003)
        row = demo_records.db.execute(
            "SELECT close_price, list_price, living_area FROM listings WHERE listing_id = :k", {"k": c.listing_id}
        ).fetchone()
        if row is None:  # a sale that only a deed tells
            assert c.kind == "deed_sale"
            continue
        if c.kind == "sold":
            assert c.price == row["close_price"] and c.price_per_sqft == pytest.approx(c.price / row["living_area"])
        assert c.date is None or c.date <= date_of(s.view.day)


def test_a_limit_keeps_the_most_alike_and_the_best_comps_are_sales(looking_from):
    s = looking_from(5)
    rows = s.run(s.proposed()).rows
    assert [c.listing_id for c in candidates(s, rows, 3)] == [c.listing_id for c in candidates(s, rows)][:3]
    best = most_alike(s, s.proposed())
    assert len(best) <= 12 and {c.kind for c in best} <= {"sold"}


@pytest.mark.parametrize("n", range(6))
def test_left_to_itself_a_search_finds_six_sales_and_says_how_it_got_them(looking_from, n):
    s = looking_from(n)
    start = sold_rows(s, s.proposed())
    search, steps = loosened(s, s.proposed())
    rows = sold_rows(s, search)
    assert set(start) <= set(rows)
    assert bool(steps) == (search != s.proposed())
    assert len(rows) >= min(6, len(start)) and (len(start) >= 6) == (not steps)


def test_no_home_is_its_own_comp(looking_from):
    for n in range(8):
        s = looking_from(n)
        assert not np.isin(np.flatnonzero(s.columns.home_id == s.subject.home_id), s.run(s.proposed()).rows).any()
