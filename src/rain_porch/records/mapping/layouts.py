"""The kinds of file that come in: which table, which columns, what makes a row's key, what a row needs."""

from __future__ import annotations

from collections.abc import Callable, Mapping, Sequence
from dataclasses import dataclass
from functools import lru_cache

from ...core.facts.fields import FIELDS, PARCEL, Field
from ...core.facts.keys import made_key
from ...core.facts.places import addresses
from ...core.facts.record_fields import ASSESSMENTS, EVENTS, SERIES, TRANSFERS, not_arms_length
from ...core.facts.words import Status, home_kind_of, is_lease, plain, sale_manner
from ...core.intake.status_words import is_lease_word, means_status

Row = Mapping[str, object]
Held = Mapping[str, Sequence[object]]  # columns of some rows, by field
Derived = tuple[dict[str, Sequence[object]], dict[int, str]]  # columns worked out; rows that cannot be used, and why


@dataclass(frozen=True)
class Layout:
    """table and key_column name the store's table; `derived` are columns worked out from the others.

    make_key  the key of a row that brings none; None where nothing can name it
    derive    (columns, keys) → the derived columns, and why rows cannot be used
    needs     a file is refused when it has none of the columns of one of these groups
    """

    kind: str
    table: str
    key_column: str
    fields: tuple[Field, ...]
    derived: tuple[str, ...]
    make_key: Callable[[Row], str | None]
    derive: Callable[[Held, Sequence[str]], Derived]
    needs: tuple[tuple[str, ...], ...]

    @property
    def columns(self) -> tuple[str, ...]:
        return tuple(f.name for f in self.fields if f.name != self.key_column) + self.derived

    @property
    def facts(self) -> tuple[str, ...]:
        """The columns that a file can bring, without the key."""
        return tuple(f.name for f in self.fields if f.name != self.key_column)


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


def home_key(parcel: object, address: object, unit: object, city: object, postal: object, fallback: str) -> str:
    """What makes two records one home: the parcel number, else the address, else nothing but the record itself."""
    if parcel:
        return f"parcel:{parcel}"
    key = addresses.key(*(x if isinstance(x, str) else None for x in (address, unit, city, postal)))
    return "address:" + key if key else "record:" + fallback


_PLACE = ("parcel_number", "unparsed_address", "unit_number", "city", "postal_code")
_kind_of = lru_cache(maxsize=4096)(home_kind_of)
_manner_of = lru_cache(maxsize=4096)(sale_manner)
_lease = lru_cache(maxsize=4096)(is_lease)


@lru_cache(maxsize=4096)
def _status(given: str | None, local: str | None, sold: bool) -> tuple[str | None, str | None]:
    """(status, why not). sold: a close date and a price are there."""
    status = means_status(given) if given else None
    if given and status is None:
        return None, f"StandardStatus “{given[:80]}” is no status that is known: say what it means"
    if status is None and local:
        status = means_status(local)
    if status is None and sold:
        status = Status.CLOSED
    if status is None:
        return None, "no status, and no close date with a price: a column of statuses would help"
    return status.value, None


def _derive_listings(held: Held, keys: Sequence[str]) -> Derived:
    names = ("standard_status", "local_status", "close_date", "close_price")
    statuses: list[object] = []
    refused: dict[int, str] = {}
    for n, (given, local, close, price) in enumerate(zip(*(held[name] for name in names), strict=True)):
        status, why = _status(given, local, bool(close) and price is not None)
        statuses.append(status)
        if why:
            refused[n] = why
    types = held["property_type"]
    return {
        "standard_status": statuses,
        "home_kind": [_kind_of(t, s).value for t, s in zip(types, held["property_sub_type"], strict=True)],
        "is_lease": [int(_lease(t) or is_lease_word(w)) for t, w in zip(types, held["local_status"], strict=True)],
        "manner": [_manner_of(c) for c in held["special_listing_conditions"]],
        "home_key": [home_key(*row) for row in zip(*(held[name] for name in _PLACE), keys, strict=True)],
    }, refused


def _derive_parcels(held: Held, keys: Sequence[str]) -> Derived:
    kinds = zip(held["property_type"], held["property_sub_type"], strict=True)
    return {
        "home_kind": [_kind_of(t, s).value for t, s in kinds],
        "home_key": [f"parcel:{key}" for key in keys],
    }, {}


def _derive_transfers(held: Held, keys: Sequence[str]) -> Derived:
    refused = {
        n: "no ParcelNumber" if not parcel else "neither SaleDate nor RecordingDate"
        for n, (parcel, sale, recorded) in enumerate(
            zip(held["parcel_number"], held["sale_date"], held["recording_date"], strict=True)
        )
        if not parcel or not (sale or recorded)
    }
    deeds = zip(held["price"], held["document_type"], held["parcel_count"], strict=True)
    return {"not_arms_length": [not_arms_length(*deed) for deed in deeds]}, refused  # type: ignore[arg-type]


def _needs(*names: tuple[str, str]) -> Callable[[Held, Sequence[str]], Derived]:
    def derive(held: Held, keys: Sequence[str]) -> Derived:
        refused: dict[int, str] = {}
        for name, reso in names:
            for n, value in enumerate(held[name]):
                if value is None:
                    refused.setdefault(n, f"no {reso}")
        return {}, refused

    return derive


def _joined(*names: str) -> Callable[[Row], str | None]:
    def key(row: Row) -> str | None:
        return made_key(*(row.get(n) for n in names))

    return key


LAYOUTS: Mapping[str, Layout] = {
    layout.kind: layout
    for layout in (
        Layout(
            "listings", "listings", "listing_id", FIELDS, ("home_kind", "is_lease", "manner", "home_key"),
            _listing_key, _derive_listings,
            (("listing_id", "latitude", "unparsed_address"), ("standard_status", "local_status", "close_date")),
        ),
        Layout(
            "parcels", "parcels", "parcel_number", PARCEL, ("home_kind", "home_key"),
            lambda row: None, _derive_parcels, (("parcel_number",),),
        ),
        Layout(
            "transfers", "transfers", "transfer_key", TRANSFERS, ("not_arms_length",),
            _joined("parcel_number", "recording_date", "sale_date", "document_type", "grantee"), _derive_transfers,
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
    """The kind of file whose native columns these are (names folded to letters and digits), or None."""
    have = {c for c in columns if c}
    native = {kind: {plain(f.reso) for f in layout.fields} for kind, layout in LAYOUTS.items()}
    if len(have & set().union(*native.values())) < 0.8 * len(have):
        return None
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
