"""Who sold: the grantor of a listing's deed, else the builder whom the listing names."""

from __future__ import annotations

from collections.abc import Sequence

from ..db import Db


def sellers_of(db: Db, listing_ids: Sequence[str]) -> dict[str, str]:
    """Listing → seller, for the listings of which one is known. For checks alone: no name of it reaches paper."""
    marks = ", ".join("?" * len(listing_ids))
    out: dict[str, str] = {}
    for query in (
        f"SELECT listing_id, builder_name AS seller FROM listings WHERE listing_id IN ({marks}) AND builder_name <> ''",
        f"SELECT listing_id, grantor AS seller FROM transfers WHERE listing_id IN ({marks}) AND grantor <> ''",
    ):
        out |= {r["listing_id"]: r["seller"] for r in db.execute(query, list(listing_ids))}
    return out
