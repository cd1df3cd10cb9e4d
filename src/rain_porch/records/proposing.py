"""A mapping proposed for a file: from its columns' names, and from what stands in them."""

from __future__ import annotations

import re
from collections.abc import Sequence
from dataclasses import dataclass

from ..core.facts.fields import Field, Kind
from ..core.facts.words import plain, status_of
from .forms import likely
from .mapping import Part
from .parsing import parse_column

ACRE = 43_560.0
SURE = 0.75  # a proposal below this is shown and not taken
# trade names for fields, folded to letters and digits
_OTHER_NAMES = {
    "listno": "listing_id", "listnumber": "listing_id", "mlsno": "listing_id", "listingno": "listing_id",
    "town": "city", "municipality": "city", "stat": "standard_status", "listingstatus": "standard_status",
    "lat": "latitude", "lon": "longitude", "lng": "longitude", "long": "longitude",
    "mlsnumber": "listing_id", "listingnumber": "listing_id", "listingkey": "listing_id",
    "apn": "parcel_number", "parcelid": "parcel_number", "taxid": "parcel_number",
    "status": "standard_status", "address": "unparsed_address", "fulladdress": "unparsed_address",
    "zip": "postal_code", "zipcode": "postal_code", "subdivision": "subdivision_name", "neighborhood": "subdivision_name",
    "neighbourhood": "subdivision_name",
    "listdate": "on_market_date", "listingcontractdate": "on_market_date", "contractdate": "purchase_contract_date",
    "pendingdate": "purchase_contract_date", "closeddate": "close_date", "solddate": "close_date", "saledate": "close_date",
    "soldprice": "close_price", "saleprice": "close_price", "closedprice": "close_price",
    "concessions": "concessions_amount", "sqft": "living_area", "squarefeet": "living_area", "grlivarea": "living_area",
    "lotsize": "lot_size_square_feet", "lotsqft": "lot_size_square_feet", "lotsizearea": "lot_size_square_feet",
    "lotarea": "lot_size_square_feet", "acres": "lot_size_square_feet", "lotacres": "lot_size_square_feet",
    "lotsizeacres": "lot_size_square_feet",
    "bedrooms": "bedrooms_total", "beds": "bedrooms_total", "fullbaths": "bathrooms_full", "bathsfull": "bathrooms_full",
    "fullbath": "bathrooms_full", "halfbath": "bathrooms_half", "bedroomabvgr": "bedrooms_total",
    "halfbaths": "bathrooms_half", "bathshalf": "bathrooms_half", "garage": "garage_spaces", "garagecars": "garage_spaces",
    "storiestotal": "stories", "pool": "pool_private_yn", "remarks": "public_remarks",
    "yearremodeled": "year_remodelled", "yearremodelled": "year_remodelled", "yearremodadd": "year_remodelled",
    "salecondition": "special_listing_conditions", "bldgtype": "property_sub_type", "buildingtype": "property_sub_type",
    "housestyle": "architectural_style", "centralair": "cooling", "lotfrontage": "frontage_length",
    "overallcond": "property_condition", "overallqual": "construction_quality",
}  # fmt: skip
_SHORT = {
    "yr": "year", "blt": "built", "bld": "building", "bldg": "building", "sq": "square", "ft": "feet", "sf": "square feet",
    "sqft": "square feet", "no": "number", "num": "number", "nbr": "number", "addr": "address", "br": "bedrooms",
    "bd": "bedrooms", "beds": "bedrooms", "ba": "bathrooms", "baths": "bathrooms", "bath": "bathrooms", "gar": "garage",
    "cars": "spaces", "dt": "date", "amt": "amount", "prc": "price", "sold": "close", "sale": "close", "closed": "close",
    "closing": "close", "selling": "close", "asking": "list", "orig": "original", "liv": "living", "bsmt": "below grade",
    "subdiv": "subdivision", "lat": "latitude", "lng": "longitude", "lon": "longitude", "desc": "remarks",
    "description": "remarks", "remod": "remodelled", "remodeled": "remodelled", "renovated": "remodelled", "mo": "month",
    "full": "full", "half": "half", "pkg": "garage", "stories": "storeys", "floors": "storeys", "levels": "storeys",
    "hoa": "association", "dues": "association fee", "tax": "tax", "assessed": "assessed", "type": "type",
}  # fmt: skip
_WORDS = re.compile(r"[A-Z]+(?![a-z])|[A-Z]?[a-z]+|\d+")


@dataclass(frozen=True)
class Guess:
    """One proposed part and how sure it is, from 0 to 1; `why` in a few words."""

    part: Part
    sure: float
    why: str


def propose(columns: Sequence[str], fields: Sequence[Field], rows: Sequence[Sequence[str]] = ()) -> list[Guess]:
    """The best part for each field, surest first; no column and no field twice. `rows`: the file's first cells."""
    across = [[row[i] if i < len(row) else "" for row in rows] for i in range(len(columns))]
    guesses = [
        guess for i, column in enumerate(columns) for f in fields if (guess := _guess(column, f, across[i])) is not None
    ]
    guesses.sort(key=lambda g: -g.sure)  # a stable sort: the first column wins among equals
    out: list[Guess] = []
    fields_taken: set[str] = set()
    columns_taken: set[str] = set()
    for guess in guesses:
        if guess.part.field not in fields_taken and not columns_taken & {*guess.part.columns}:
            out.append(guess)
            fields_taken.add(guess.part.field)
            columns_taken |= {*guess.part.columns}
    out += _joined(columns, fields, fields_taken)
    return sorted(out, key=lambda g: -g.sure)


def taken(guesses: Sequence[Guess]) -> tuple[Part, ...]:
    """The parts that are sure enough to be used unasked."""
    return tuple(g.part for g in guesses if g.sure >= SURE)


def _guess(column: str, f: Field, cells: Sequence[str]) -> Guess | None:
    word = plain(column)
    if word in (plain(f.reso), plain(f.name)):
        sure, why = 1.0, "its standard name"
    elif _OTHER_NAMES.get(word) == f.name:
        sure, why = 0.95, "a known name"
    else:
        sure, why = _nearness(column, f), "a name like it"
    if sure < 0.8 and (seen := _by_values(f, cells)):
        return Guess(Part(f.name, (column,), values=_words(f, cells)), seen, "by what stands in it")
    if sure < 0.5:
        return None
    times = _unit(column, f, cells)
    if cells and sure < 1.0:
        fitting = _fitting(f, cells, times)
        if fitting is not None:
            sure *= 0.35 + 0.65 * fitting
            why += f", {fitting:.0%} of values fit"
    if sure < 0.5:
        return None
    return Guess(Part(f.name, (column,), times=times, values=_words(f, cells) if cells else {}), round(sure, 3), why)


_ADDRESS = re.compile(r"^\d+[a-z]?\s+(?:[nsew]\.?\s+)?[a-z][a-z'.]+(?:\s+[a-z]+)+$", re.IGNORECASE)


def _by_values(f: Field, cells: Sequence[str]) -> float | None:
    """How sure the values alone make it, for the two fields whose values cannot be mistaken: addresses, status words."""
    if f.name not in ("unparsed_address", "standard_status"):
        return None
    known = [c.strip() for c in cells if c.strip()]
    if len(known) < 20:
        return None
    if f.name == "unparsed_address":
        good = sum(bool(_ADDRESS.match(c)) for c in known)
    else:
        good = sum(len(c) > 1 and (status_of(c) is not None or plain(c) in _SHORT_STATUS) for c in known)
    return 0.8 if good >= 0.9 * len(known) and len({*known}) > 1 else None


def _tokens(text: str) -> set[str]:
    out: set[str] = set()
    for word in _WORDS.findall(text):
        out |= {*_SHORT.get(word.lower(), word.lower()).split()}
    return {w for w in out if not w.isdigit()} - {"total", "of", "the", "in", "mls", "s", "thousands", "usd"}


def _nearness(column: str, f: Field) -> float:
    """Shared words of the column's name and the field's, as a share of all of them, from 0 to 0.9."""
    have = _tokens(column)
    best = 0.0
    for name in (f.reso, f.label, f.short):
        want = _tokens(name)
        if want and have:
            best = max(best, len(have & want) / len(have | want))
    return 0.9 * best


def _unit(column: str, f: Field, cells: Sequence[str]) -> float:
    """What the numbers are to be multiplied by: acres to square feet, thousands to dollars."""
    words = {w.lower() for w in _WORDS.findall(column)}
    if f.name == "lot_size_square_feet" and ("acres" in words or "acre" in words or "ac" in words):
        return ACRE
    if f.kind == Kind.MONEY and f.low and f.low >= 200:
        known = sorted(v for v in parse_column(f, cells, likely(f, cells))[0] if isinstance(v, float))
        thousands = "000" in column or "thousands" in words or column.rstrip(")").endswith("$k")
        if thousands and known and known[len(known) // 2] < 20_000:
            return 1000.0
    return 1.0


def _fitting(f: Field, cells: Sequence[str], times: float) -> float | None:
    """The share of known cells that can be read and believed; None where none is known."""
    values, unreadable = parse_column(f, cells, likely(f, cells))
    known = [v for v in values if v is not None]
    if not known and not unreadable:
        return None
    if f.name == "standard_status":
        good = sum(status_of(str(v)) is not None or plain(str(v)) in _SHORT_STATUS for v in known)
    elif f.low is not None and f.high is not None:
        good = sum(isinstance(v, float) and f.low <= v * times <= f.high for v in known)
    elif f.kind in (Kind.NUMBER, Kind.MONEY, Kind.YEAR, Kind.DATE, Kind.YES_NO, Kind.TIME):
        good = len(known)
    elif f.name in ("unparsed_address", "public_remarks"):
        good = sum(bool(re.search(r"[A-Za-z]{2}", str(v))) for v in known)
    else:
        return None
    return good / (len(known) + len(unreadable))


# words that are plain by themselves ("Family", "Short Sale") stay as they are
_MANNERS = {"adjland": "Not Arms Length", "alloca": "Not Arms Length", "reo": "Real Estate Owned", "ss": "Short Sale"}
_KINDS = {
    "onefam": "Single Family Residence", "1fam": "Single Family Residence", "sf": "Single Family Residence",
    "twofmcon": "Duplex", "2fmcon": "Duplex", "twnhse": "Townhouse", "twnhs": "Townhouse", "twnhsi": "Townhouse",
    "th": "Townhouse", "co": "Condominium", "mf": "Duplex", "mh": "Manufactured Home",
}  # fmt: skip
_SHORT_STATUS = {
    "a": "Active", "act": "Active", "s": "Closed", "sld": "Closed", "c": "Closed", "cls": "Closed", "p": "Pending",
    "pnd": "Pending", "pend": "Pending", "u": "Active Under Contract", "uc": "Active Under Contract", "x": "Expired",
    "exp": "Expired", "w": "Withdrawn", "wdn": "Withdrawn", "t": "Canceled", "can": "Canceled", "h": "Hold",
}  # fmt: skip


def _words(f: Field, cells: Sequence[str]) -> dict[str, str]:
    """{word in the file: word to take} for words that are short for others; those that are plain already are left."""
    known = {
        "standard_status": _SHORT_STATUS, "property_sub_type": _KINDS, "special_listing_conditions": _MANNERS,
    }.get(f.name)  # fmt: skip
    if known is None:
        return {}
    out = {}
    for cell in dict.fromkeys(c.strip() for c in cells):
        to = known.get(plain(cell))
        if to and to != cell and not (f.name == "standard_status" and status_of(cell)):
            out[cell] = to
    if out and f.name != "property_sub_type":  # a word that comes later in the file is short in the same manner
        return {**known, **out}
    return out


def _joined(columns: Sequence[str], fields: Sequence[Field], have: set[str]) -> list[Guess]:
    """Fields that several columns make together: an address of its parts, a close date of month and year."""
    by_word = {plain(c): c for c in reversed(columns)}
    names = {f.name for f in fields}
    out = []
    parts = [
        by_word[w]
        for w in ("streetnumber", "streetdirprefix", "streetname", "streetsuffix", "streetdirsuffix")
        if w in by_word
    ]
    if "unparsed_address" in names - have and "streetname" in by_word and len(parts) > 1:
        out.append(Guess(Part("unparsed_address", tuple(parts)), 0.95, "the parts of an address"))
    if "close_date" in names - have:
        year = next((by_word[w] for w in ("yearsold", "yrsold", "saleyear", "closeyear") if w in by_word), None)
        month = next((by_word[w] for w in ("monthsold", "mosold", "salemonth", "closemonth") if w in by_word), None)
        if year and month:
            out.append(Guess(Part("close_date", (year, month), "date"), 0.9, "year and month; the 15th is taken"))
    return out
