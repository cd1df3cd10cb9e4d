"""The story of one home: all its listings, price changes, closings, deeds and assessments, newest first."""

from __future__ import annotations

import datetime as dt
from collections.abc import Sequence
from typing import Any

from ...core.facts.money import dollars, signed_pct
from ...store.records import homes
from ..snapshot import Snapshot
from . import photos
from .homes import Home


def story_of_home(records: Snapshot, home: Home, until: dt.date) -> list[dict[str, Any]]:
    """The story of a home that has been read already."""
    return story(records, home.listings, home.transfers, home.subject.parcel_number, until)


def story(
    records: Snapshot,
    listings: Sequence[dict[str, Any]],
    transfers: Sequence[dict[str, Any]],
    parcel_number: str | None,
    until: dt.date,
) -> list[dict[str, Any]]:
    """What happened to a home up to a day, newest first: date, what, price, per, note, listing_id.

    per: "month" where the price is a rent, else "". listing_id: the listing that tells it, None for deeds and assessments.
    """
    day = until.isoformat()
    out: list[dict[str, Any]] = []

    def add(date: str | None, what: str, price: float | None, note: str, per: str = "", key: str | None = None) -> None:
        if date and date <= day:
            out.append({"date": date, "what": what, "price": price, "per": per, "note": note, "listing_id": key})

    for x in listings:
        key, lease = x["listing_id"], bool(x["is_lease"])
        per = "month" if lease else ""
        add(x["on_market_date"], "offered for lease" if lease else "listed", x["original_list_price"], key, per, key)
        if x["purchase_contract_date"] and not lease:
            add(x["purchase_contract_date"], "under contract", None, key, "", key)
        if x["close_date"]:
            add(x["close_date"], "leased" if lease else "sold", x["close_price"], key, per, key)
        else:
            status = x["standard_status"].lower().replace("canceled", "cancelled")
            add(x["off_market_date"], f"lease {status}" if lease else status, x["list_price"], key, per, key)
        for event in photos.price_history(records, key):
            if event["change_pct"] is not None:
                words = "rent changed" if lease else "price changed"
                add(event["date"], words, float(event["to"]), f"{signed_pct(event['change_pct'])}, {key}", per, key)
    for t in transfers:
        if t["listing_id"] is None:
            why = f" · no ordinary sale: {t['not_arms_length']}" if t["not_arms_length"] else ""
            add(t["date"], "deed", t["price"], f"{t['document_type'] or ''}{why}")
    if parcel_number:
        for a in homes.assessments_of(records.db, parcel_number):
            if a["tax_year"]:
                taxes = f"taxes {dollars(a['tax_amount'])}" if a["tax_amount"] else ""
                add(f"{int(a['tax_year']):04d}-01-01", "assessed", a["total_value"], taxes)
    return sorted(out, key=lambda p: p["date"], reverse=True)
