from __future__ import annotations

import datetime as dt

import pytest

from rain_porch.app.home.homes import HomeRef, read_home
from rain_porch.app.home.story import story_of_home

LAST = dt.date(2026, 10, 31)


def homes_with_most_listings(records, n=5):
    rows = records.db.execute(
        "SELECT parcel_number FROM listings WHERE parcel_number IS NOT NULL GROUP BY parcel_number "
        "HAVING count(*) > 2 ORDER BY count(*) DESC, parcel_number LIMIT ?", (n,)
    )  # fmt: skip
    return [read_home(records, HomeRef("parcel", r[0])) for r in rows]


@pytest.mark.parametrize("n", range(5))
def test_a_homes_story_holds_every_listing_of_it_newest_first(demo_records, n):
    home = homes_with_most_listings(demo_records)[n]
    told = story_of_home(demo_records, home, LAST)
    dates = [p["date"] for p in told]
    assert dates == sorted(dates, reverse=True)
    keys = {x["listing_id"] for x in home.listings if x["on_market_date"] and x["on_market_date"] <= LAST.isoformat()}
    assert {p["listing_id"] for p in told if p["what"] in ("listed", "offered for lease")} == keys
    for p in told:
        if p["what"] == "sold":
            (own,) = [x for x in home.listings if x["listing_id"] == p["listing_id"]]
            assert (p["price"], p["date"]) == (own["close_price"], own["close_date"])


def test_on_an_earlier_day_it_is_the_same_story_cut_off_there(demo_records):
    home = homes_with_most_listings(demo_records)[0]
    whole = story_of_home(demo_records, home, LAST)
    middle = dt.date.fromisoformat(whole[len(whole) // 2]["date"])
    assert story_of_home(demo_records, home, middle) == [p for p in whole if p["date"] <= middle.isoformat()]


def test_a_deed_that_a_listing_tells_is_not_told_twice(demo_records):
    for home in homes_with_most_listings(demo_records):
        told = story_of_home(demo_records, home, LAST)
        deeds = [
            t["date"] for t in home.transfers if t["listing_id"] is None and t["date"] and t["date"] <= LAST.isoformat()
        ]
        assert sorted(p["date"] for p in told if p["what"] == "deed") == sorted(deeds)
