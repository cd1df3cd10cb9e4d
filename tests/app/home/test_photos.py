"""Drawn pictures belong to the demo: a source of anybody's that is called like ours gets none."""

from __future__ import annotations

from rain_porch.app.home import photos


def test_only_the_demos_own_folder_gets_drawn_pictures(bring, records, demo_records):
    bring(
        "ListingId,StandardStatus,ListPrice,Latitude,Longitude\nA1,Active,300000,41.2,-38.4\n", source="Demo listings"
    )
    assert photos.captions(records.snapshot(), "A1") == []
    key = demo_records.db.execute("SELECT listing_id FROM listings WHERE is_lease = 0 LIMIT 1").fetchone()[0]
    assert photos.captions(demo_records, key)
