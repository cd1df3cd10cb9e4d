"""Columns of the kinds of record that are no homes: transfers, assessments, events of listings, outside series."""

from __future__ import annotations

from .fields import Field, Kind

_T, _D, _M, _N, _W = Kind.TEXT, Kind.DATE, Kind.MONEY, Kind.NUMBER, Kind.WORD

TRANSFERS = (
    Field("parcel_number", "ParcelNumber", _T),
    Field("recording_date", "RecordingDate", _D),
    Field("sale_date", "SaleDate", _D),
    Field("price", "Price", _M, "$", low=0, high=5e8),
    Field("document_type", "DocumentType", _W),
    Field("grantor", "Grantor", _T, private=True),
    Field("grantee", "Grantee", _T, private=True),
    Field("parcel_count", "ParcelCount", _N, low=0, high=10_000),
)
ASSESSMENTS = (
    Field("parcel_number", "ParcelNumber", _T),
    Field("tax_year", "TaxYear", Kind.YEAR, low=1900, high=2100),
    Field("land_value", "LandValue", _M, "$"),
    Field("improvement_value", "ImprovementValue", _M, "$"),
    Field("total_value", "TotalValue", _M, "$"),
    Field("tax_amount", "TaxAmount", _M, "$"),
)
EVENTS = (
    Field("listing_id", "ListingId", _T),
    Field("at", "Timestamp", Kind.TIME),
    Field("event", "Event", _W),
    Field("old_value", "OldValue", _T),
    Field("new_value", "NewValue", _T),
)
SERIES = (
    Field("date", "Date", _D),
    Field("value", "Value", _N),
)

_NOMINAL = 1000.0
_FAMILY = ("quitclaim", "quit claim", "family", "gift", "trust", "correction", "nominal")
_FORCED = ("foreclos", "sheriff", "trustee", "tax deed", "in lieu")


def not_arms_length(price: float | None, document_type: str | None, parcel_count: float | None) -> str | None:
    """Why a transfer is no arm's-length sale, or None: nominal price, family or quitclaim deed, forced, many parcels."""
    kind = (document_type or "").lower()
    if price is None or price < _NOMINAL:
        return "nominal price"
    if any(word in kind for word in _FORCED):
        return "foreclosure or sheriff's deed"
    if any(word in kind for word in _FAMILY):
        return "family or quitclaim deed"
    if (parcel_count or 1) > 1:
        return "several parcels in one price"
    return None
