"""The kind of a file, by what its columns would be."""

from __future__ import annotations

from collections.abc import Mapping, Sequence

from .cells import Profile
from .matching import match

_DISTINCTIVE: Mapping[str, Mapping[str, float]] = {
    "listings": {
        "listing_id": 2.0, "standard_status": 1.5, "list_price": 2.0, "original_list_price": 1.0, "on_market_date": 1.2, "close_price": 1.0,
        "close_date": 1.0, "days_on_market": 1.2, "list_agent_full_name": 1.0, "list_office_name": 0.8, "public_remarks": 0.8,
        "purchase_contract_date": 0.8, "off_market_date": 0.8, "living_area": 0.3, "latitude": 0.2, "unparsed_address": 0.3,
        "concessions_amount": 0.8, "expiration_date": 0.6, "part:street": 0.2, "bedrooms_total": 0.2, "special_listing_conditions": 0.4,
    },
    "parcels": {
        "parcel_number": 1.0, "living_area": 0.9, "year_built": 0.9, "lot_size_square_feet": 0.6, "part:acres": 0.7, "bedrooms_total": 0.5, "stories": 0.3,
        "bathrooms_full": 0.3, "part:baths": 0.3, "unparsed_address": 0.7, "zoning": 0.4, "tax_assessed_value": 0.4, "other:owner": 0.5, "part:street": 0.4,
        "other:legal": 0.3, "subdivision_name": 0.3, "property_type": 0.3, "latitude": 0.3, "other:mailing": 0.3, "other:sale": 0.2, "property_sub_type": 0.2,
        "other:number": 0.2, "part:point": 0.3, "tax_annual_amount": 0.2, "construction_quality": 0.2, "year_remodelled": 0.2,
    },
    "transfers": {
        "parcel_number": 0.7, "grantor": 2.0, "grantee": 2.0, "document_type": 1.8, "recording_date": 1.8, "sale_date": 0.7, "price": 0.7,
        "parcel_count": 0.7, "other:book": 0.7, "other:qualified": 0.4,
    },
    "assessments": {
        "parcel_number": 0.7, "tax_year": 2.0, "land_value": 1.4, "improvement_value": 1.4, "total_value": 1.2, "tax_amount": 0.8,
    },
    "history": {"listing_id": 0.6, "at": 1.3, "event": 1.6, "old_value": 1.6, "new_value": 1.6},
}  # fmt: skip
_NEEDED: Mapping[str, tuple[frozenset[str], ...]] = {
    "listings": (
        frozenset({"listing_id", "unparsed_address", "part:street", "latitude", "part:point"}),
        frozenset({"standard_status", "close_date", "close_price", "list_price", "on_market_date"}),
    ),
    "parcels": (frozenset({"parcel_number"}),),
    "transfers": (frozenset({"parcel_number"}), frozenset({"sale_date", "recording_date"})),
    "assessments": (frozenset({"parcel_number"}), frozenset({"tax_year"})),
    "history": (frozenset({"listing_id"}), frozenset({"at"}), frozenset({"event"})),
}


def kind_of(heads: Sequence[str], columns: Sequence[Profile]) -> str | None:
    """The kind of file that has these columns, by what its columns would be; None where it is none."""
    best, kind = 1.2, None
    for name, points in _DISTINCTIVE.items():
        found = {f.target for f in match(heads, columns, name) if f.sure >= 0.7}
        if not all(found & group for group in _NEEDED[name]):
            continue
        score = sum(points.get(t, 0.0) for t in found)
        others = len(heads) - sum(1 for _ in found)
        score -= {"transfers": 0.25, "assessments": 0.3, "history": 0.4}.get(name, 0.0) * min(others, 12)
        if score > best:
            best, kind = score, name
    if kind is None and len(heads) <= 4 and {"date", "value"} <= {f.target for f in match(heads, columns, "series")}:
        return "series"
    return kind
