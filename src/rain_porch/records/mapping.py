"""Which column of a file is which field. Native names are RESO's; common other spellings are known by name."""

from __future__ import annotations

from collections.abc import Mapping, Sequence

from ..core.errors import Refused
from ..core.fields import Field
from ..core.words import plain

# trade names for fields, folded to letters and digits
_OTHER_NAMES = {
    "lat": "latitude", "lon": "longitude", "lng": "longitude", "long": "longitude",
    "mlsnumber": "listing_id", "listingnumber": "listing_id", "listingkey": "listing_id",
    "apn": "parcel_number", "parcelid": "parcel_number", "taxid": "parcel_number",
    "status": "standard_status", "address": "unparsed_address", "fulladdress": "unparsed_address",
    "zip": "postal_code", "zipcode": "postal_code", "subdivision": "subdivision_name",
    "listdate": "on_market_date", "listingcontractdate": "on_market_date", "contractdate": "purchase_contract_date",
    "pendingdate": "purchase_contract_date", "closeddate": "close_date", "solddate": "close_date", "saledate": "close_date",
    "soldprice": "close_price", "saleprice": "close_price", "closedprice": "close_price",
    "concessions": "concessions_amount", "sqft": "living_area", "squarefeet": "living_area",
    "lotsize": "lot_size_square_feet", "lotsqft": "lot_size_square_feet", "lotsizearea": "lot_size_square_feet",
    "bedrooms": "bedrooms_total", "beds": "bedrooms_total", "fullbaths": "bathrooms_full", "bathsfull": "bathrooms_full",
    "halfbaths": "bathrooms_half", "bathshalf": "bathrooms_half", "garage": "garage_spaces",
    "storiestotal": "stories", "pool": "pool_private_yn", "remarks": "public_remarks",
    "yearremodeled": "year_remodelled", "yearremodelled": "year_remodelled",
}  # fmt: skip


def propose(columns: Sequence[str], fields: Sequence[Field]) -> dict[int, str]:
    """Column index → field name, by the standard's name, ours, or another known spelling; first come, first served."""
    by_plain = {plain(f.reso): f.name for f in fields} | {plain(f.name): f.name for f in fields}
    names = {f.name for f in fields}
    out: dict[int, str] = {}
    for exact in (True, False):
        for i, column in enumerate(columns):
            word = plain(column)
            name = by_plain.get(word) if exact else _OTHER_NAMES.get(word)
            if name in names and i not in out and name not in out.values():
                out[i] = str(name)
    return out


def given(columns: Sequence[str], fields: Sequence[Field], mapping: Mapping[str, str]) -> dict[int, str]:
    """Column index → field name as a mapping file says ({column: field}). Raises Refused for names that are not there."""
    known = {f.name: f.name for f in fields} | {f.reso: f.name for f in fields}
    out: dict[int, str] = {}
    for column, name in mapping.items():
        if column not in columns:
            raise Refused(
                f"The mapping names a column “{column}” that the file does not have: {', '.join(columns[:40])}."
            )
        if name not in known:
            raise Refused(f"The mapping sends “{column}” to “{name}”, which is no field of this kind of file.")
        out[columns.index(column)] = known[name]
    return out
