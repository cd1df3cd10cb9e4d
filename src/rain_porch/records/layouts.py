"""The kinds of file that come in: which table, which columns, what makes a row's key, what a row needs."""

from __future__ import annotations

import hashlib
from collections.abc import Callable, Mapping, Sequence
from dataclasses import dataclass

from ..core import addresses
from ..core.fields import FIELDS, PARCEL, Field
from ..core.record_fields import ASSESSMENTS, EVENTS, SERIES, TRANSFERS, not_arms_length
from ..core.words import Status, home_kind_of, is_lease, sale_manner, status_of

Row = dict[str, object]


@dataclass(frozen=True)
class Layout:
    """table and key_column name the store's table; `derived` are columns worked out from the others.

    make_key  the key of a row that brings none; None where nothing can name it
    derive    fills derived columns in place; returns why the row cannot be used, or None
    needs     a file is refused when it has none of the columns of one of these groups
    """

    kind: str
    table: str
    key_column: str
    fields: tuple[Field, ...]
    derived: tuple[str, ...]
    make_key: Callable[[Row], str | None]
    derive: Callable[[Row], str | None]
    needs: tuple[tuple[str, ...], ...]

    @property
    def columns(self) -> tuple[str, ...]:
        return tuple(f.name for f in self.fields if f.name != self.key_column) + self.derived


def _digest(*parts: object) -> str:
    return hashlib.blake2b("|".join(str(p) for p in parts).encode(), digest_size=8).hexdigest()


def _place_name(row: Row) -> str | None:
    lat, lon = row.get("latitude"), row.get("longitude")
    if isinstance(lat, float) and isinstance(lon, float):
        return f"{lat:.6f}_{lon:.6f}"
    return addresses.key(
        _text(row, "unparsed_address"), _text(row, "unit_number"), _text(row, "city"), _text(row, "postal_code")
    )


def _text(row: Row, name: str) -> str | None:
    value = row.get(name)
    return value if isinstance(value, str) else None


def _listing_key(row: Row) -> str | None:
    """Place and date: stable, so that the same file brings the same keys."""
    place = _place_name(row)
    date = row.get("close_date") or row.get("off_market_date") or row.get("on_market_date")
    return None if place is None else f"at_{place}_{date or 'undated'}".replace(" ", "_")


def home_key(row: Row, fallback: str) -> str:
    """What makes two records one home: the parcel number, else the address, else nothing but the record itself."""
    parcel = _text(row, "parcel_number")
    if parcel:
        return "parcel:" + parcel
    key = addresses.key(
        _text(row, "unparsed_address"), _text(row, "unit_number"), _text(row, "city"), _text(row, "postal_code")
    )
    return "address:" + key if key else "record:" + fallback


_NEEDED_DATE = {
    Status.CLOSED: ("close_date", "CloseDate"),
    Status.EXPIRED: ("off_market_date", "OffMarketDate"),
    Status.WITHDRAWN: ("off_market_date", "OffMarketDate"),
    Status.CANCELED: ("off_market_date", "OffMarketDate"),
}


def _derive_listing(row: Row) -> str | None:
    given = _text(row, "standard_status")
    status = status_of(given) if given else None
    if given and status is None:
        return f"StandardStatus “{given}” is no status"
    if status is None:
        local = _text(row, "local_status")
        status = status_of(local) if local else None
    if status is None and row.get("close_date") and row.get("close_price") is not None:
        status = Status.CLOSED
    if status is None:
        return "no status, and no close date with a price"
    if status in _NEEDED_DATE:
        name, reso = _NEEDED_DATE[status]
        if not row.get(name):
            return f"{status.value} without {reso}"
    row["standard_status"] = status.value
    row["home_kind"] = home_kind_of(_text(row, "property_type"), _text(row, "property_sub_type")).value
    row["is_lease"] = int(is_lease(_text(row, "property_type")))
    row["manner"] = sale_manner(_text(row, "special_listing_conditions"))
    row["home_key"] = home_key(row, str(row["listing_id"]))
    return None


def _derive_parcel(row: Row) -> str | None:
    row["home_kind"] = home_kind_of(_text(row, "property_type"), _text(row, "property_sub_type")).value
    row["home_key"] = home_key(row, str(row["parcel_number"]))
    return None


def _derive_transfer(row: Row) -> str | None:
    if not row.get("parcel_number"):
        return "no ParcelNumber"
    if not (row.get("sale_date") or row.get("recording_date")):
        return "neither SaleDate nor RecordingDate"
    price, count = row.get("price"), row.get("parcel_count")
    row["not_arms_length"] = not_arms_length(
        price if isinstance(price, float) else None,
        _text(row, "document_type"),
        count if isinstance(count, float) else None,
    )
    return None


def _needs(*names: tuple[str, str]) -> Callable[[Row], str | None]:
    def derive(row: Row) -> str | None:
        return next((f"no {reso}" for name, reso in names if row.get(name) is None), None)

    return derive


def _joined(*names: str) -> Callable[[Row], str | None]:
    def key(row: Row) -> str | None:
        return _digest(*(row.get(n) for n in names))

    return key


LAYOUTS: Mapping[str, Layout] = {
    layout.kind: layout
    for layout in (
        Layout(
            "listings", "listings", "listing_id", FIELDS, ("home_kind", "is_lease", "manner", "home_key"),
            _listing_key, _derive_listing,
            (("listing_id", "latitude", "unparsed_address"), ("standard_status", "local_status", "close_date")),
        ),
        Layout(
            "parcels", "parcels", "parcel_number", PARCEL, ("home_kind", "home_key"),
            lambda row: None, _derive_parcel, (("parcel_number",),),
        ),
        Layout(
            "transfers", "transfers", "transfer_key", TRANSFERS, ("not_arms_length",),
            _joined("parcel_number", "recording_date", "sale_date", "document_type", "grantee"), _derive_transfer,
            (("parcel_number",), ("sale_date", "recording_date")),
        ),
        Layout(
            "assessments", "assessments", "assessment_key", ASSESSMENTS, (), _joined("parcel_number", "tax_year"),
            _needs(("parcel_number", "ParcelNumber"), ("tax_year", "TaxYear")), (("parcel_number",), ("tax_year",)),
        ),
        Layout(
            "history", "events", "event_key", EVENTS, (), _joined("listing_id", "at", "event", "old_value", "new_value"),
            _needs(("listing_id", "ListingId"), ("at", "Timestamp"), ("event", "Event")),
            (("listing_id",), ("at",), ("event",)),
        ),
        Layout(
            "series", "series", "series_key", SERIES, (), _joined("date"),
            _needs(("date", "Date"), ("value", "Value")), (("date",), ("value",)),
        ),
    )
}  # fmt: skip


def recognise(columns: Sequence[str]) -> str | None:
    """The kind of file that has these columns (names folded to letters and digits), or None."""
    have = set(columns)
    if {"recordingdate", "documenttype", "grantor"} & have and "parcelnumber" in have:
        return "transfers"
    if "taxyear" in have and "parcelnumber" in have:
        return "assessments"
    if {"timestamp", "event"} <= have:
        return "history"
    if {"date", "value"} <= have and len(have) <= 4:
        return "series"
    if {"listingid", "closedate", "closeprice", "standardstatus", "listprice"} & have:
        return "listings"
    return "parcels" if "parcelnumber" in have else None
