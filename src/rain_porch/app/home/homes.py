"""From a name (address, number, place) to the subject home with its facts."""

from __future__ import annotations

import datetime as dt
import json
from collections.abc import Iterable, Mapping
from dataclasses import dataclass, field
from typing import Any

import numpy as np

from ...core.errors import Ambiguous, BadInput, NotFound
from ...core.facts.dates import NO_DAY, date_of
from ...core.facts.fields import BY_NAME, FIELDS, HOME_FACTS
from ...core.facts.homes import Subject, Value
from ...core.facts.places.addresses import called_by_place, with_unit
from ...core.facts.words import HomeKind
from ...core.market.columns import Columns
from ...core.market.listing_facts import price_days
from ...store.records import homes as store
from ..snapshot import Snapshot

_FACTS = (*HOME_FACTS, "subdivision_name", "city", "postal_code", "tax_assessed_value", "tax_annual_amount",
          "association_fee", "list_price")  # fmt: skip


@dataclass(frozen=True)
class HomeRef:
    """How a home is named in the records: kind is parcel or listing."""

    kind: str
    key: str


@dataclass(frozen=True)
class Home:
    """The subject, and what each record says of it: source → facts. from_lease: the listing among them is a lease, for
    want of any other."""

    ref: HomeRef
    subject: Subject
    says: Mapping[str, Mapping[str, Value]]
    listings: list[dict[str, Any]] = field(default_factory=list)
    transfers: list[dict[str, Any]] = field(default_factory=list)
    from_lease: bool = False


def parcel_of(records: Snapshot, text: str) -> dict[str, Any] | None:
    """The parcel of a number, also where it is typed with other signs between its parts."""
    if held := store.parcel(records.db, text):
        return held
    forms = records.remember("forms of parcel numbers", lambda: store.number_forms(records.db))
    return store.parcel_as_typed(records.db, text, forms)


def locate(
    records: Snapshot,
    *,
    address: str | None = None,
    parcel: str | None = None,
    listing: str | None = None,
    place: tuple[float, float] | None = None,
) -> HomeRef:
    """The one home that is meant. NotFound offers the nearest addresses; Ambiguous lists the choices."""
    if parcel:
        held = parcel_of(records, parcel)
        if held is None:
            raise NotFound(f"No parcel has the number {parcel}.", parcel=parcel)
        return HomeRef("parcel", held["parcel_number"])
    if listing:
        if store.listing(records.db, listing) is None:
            raise NotFound(f"No listing has the number {listing}.", listing=listing)
        return HomeRef("listing", listing)
    if place:
        found = store.nearest_home(records.db, *place)
        if found is None:
            raise NotFound(f"No home in the records lies within 0.15 miles of {place[0]:g}, {place[1]:g}.")
        return HomeRef(*found)
    if not address or not address.strip():
        raise BadInput("address", "Give an address, a parcel number, a listing number or a place.")
    hits = store.search_address(records.db, address, records.address_terms())
    if len(hits) == 1:
        return HomeRef(hits[0].kind, hits[0].key)
    if not hits:
        near = [h.shown for h in store.nearest_addresses(records.db, address, records.address_terms())]
        offer = f" The nearest are: {'; '.join(near)}." if near else ""
        raise NotFound(f"No home has the address “{address}”.{offer}", nearest=near)
    choices = [h.shown for h in hits]
    raise Ambiguous(f"“{address}” may mean several homes: {'; '.join(choices)}. Say which.", choices=choices)


MAX_ADDRESS = 200


def by_hand(address: str, latitude: float, longitude: float, home_kind: str) -> HomeRef:
    """A home that no record holds, as the agent enters it; its facts are the agent's corrections. BadInput."""
    if not address.strip() or len(address) > MAX_ADDRESS:
        raise BadInput("address", f"A home needs a name to go by: give an address of at most {MAX_ADDRESS} letters.")
    if not (-90 <= latitude <= 90 and -180 <= longitude <= 180):
        raise BadInput("place", f"{latitude:g}, {longitude:g} is no place: latitude −90 to 90, longitude −180 to 180.")
    if home_kind not in list(HomeKind):
        raise BadInput("home_kind", f"“{home_kind}” is no kind of home: use one of {', '.join(HomeKind)}.")
    return HomeRef("hand", f"{latitude:.6f},{longitude:.6f},{home_kind},{address.strip()}")


def _entered(ref: HomeRef) -> Home:
    try:
        latitude, longitude, kind, address = ref.key.split(",", 3)
        checked = by_hand(address, float(latitude), float(longitude), kind)
    except ValueError:
        raise NotFound(f"“{ref.key[:80]}” is no home that was entered by hand.") from None
    return Home(checked, Subject({}, float(latitude), float(longitude), HomeKind(kind), address=address), {})


def _facts(row: Mapping[str, Any]) -> dict[str, Value]:
    """The catalogue's facts of a stored record: known, and not suspect."""
    suspect = set(json.loads(row["suspect"])) if row.get("suspect") else set()
    out = {n: row[n] for n in _FACTS if row.get(n) is not None and n not in suspect}
    out |= {n: v for n, v in json.loads(row.get("own") or "{}").items() if n in BY_NAME}
    if "above_grade_finished_area" in out:
        out["living_area"] = out["above_grade_finished_area"]
    return out


def _place(row: Mapping[str, Any] | None) -> tuple[float, float] | None:
    if row is None or row.get("latitude") is None or row.get("longitude") is None:
        return None
    suspect = json.loads(row["suspect"]) if row.get("suspect") else []
    return None if {"latitude", "longitude"} & set(suspect) else (row["latitude"], row["longitude"])


def read_home(records: Snapshot, ref: HomeRef) -> Home:
    """The home with its facts: the named record's first, what it does not know from the others."""
    tax: dict[str, Any] | None = None
    own: dict[str, Any] | None = None
    if ref.kind == "listing" and ref.key.startswith(store.DEED):  # known from a deed alone: the home is its parcel's
        deed = store.transfer(records.db, ref.key.removeprefix(store.DEED))
        ref = HomeRef("parcel", str(deed["parcel_number"])) if deed and deed["parcel_number"] else ref
    if ref.kind == "hand":
        return _entered(ref)
    if ref.kind == "parcel":
        tax = store.parcel(records.db, ref.key)
        if tax is None:
            raise NotFound(f"No parcel has the number {ref.key}.", parcel=ref.key)
        past = store.listings_of_home(records.db, tax["home_key"])
    else:
        own = store.listing(records.db, ref.key)
        if own is None:
            raise NotFound(f"No listing has the number {ref.key}.", listing=ref.key)
        tax = store.parcel(records.db, own["parcel_number"]) if own["parcel_number"] else None
        past = store.listings_of_home(records.db, own["home_key"])
    says: dict[str, Mapping[str, Value]] = {}
    if tax:
        says["tax_roll"] = _facts(tax)
    sales = [x for x in past if not x["is_lease"]]
    last = own if own and not own["is_lease"] else next(iter(sales or past), None)
    if last:
        says["last_listing"] = _facts(last)
    first, second = (last, tax) if ref.kind == "listing" else (tax, last)
    facts: dict[str, Value] = {}
    for row in (second, first):
        if row:
            facts.update(_facts(row))
    facts.pop("list_price", None)
    leased = frozenset(_facts(last)) - frozenset(says.get("tax_roll", ())) if last and last["is_lease"] else frozenset()
    where = _place(first) or _place(second)
    main = first or {}
    placed = where is not None
    if where is None:
        where = store.middle_of(records.db, main.get("postal_code"), main.get("city")) or records.middle()
    shown = main.get("unparsed_address") or (second or {}).get("unparsed_address") or called_by_place(ref.key)
    unit = main.get("unit_number")
    kind = main.get("home_kind") or "unknown"
    if kind == "unknown" and second:
        kind = second["home_kind"]
    number = tax["parcel_number"] if tax else main.get("parcel_number")
    deeds = store.transfers_of_parcel(records.db, number) if number else []
    subject = Subject(
        facts=facts,
        latitude=where[0],
        longitude=where[1],
        home_kind=HomeKind(kind),
        address=with_unit(shown, unit),
        parcel_number=number,
        home_id=_home_id(records.columns, past, deeds),
        own_listing=ref.key if ref.kind == "listing" else None,
        from_lease=leased,
        assessed_year=_assessed_year(records, number, facts.get("tax_assessed_value")),
        placed=placed,
    )
    return Home(ref, subject, says, past, deeds, from_lease=bool(last and last["is_lease"]))


def _assessed_year(records: Snapshot, parcel: str | None, value: Value | None) -> int | None:
    """The newest tax year in which the parcel was assessed at this value."""
    held = store.assessments_of(records.db, parcel) if parcel and value is not None else []
    return next((int(a["tax_year"]) for a in held if a["tax_year"] and a["total_value"] == value), None)


def _home_id(columns: Columns, past: Iterable[Mapping[str, Any]], deeds: Iterable[Mapping[str, Any]]) -> int | None:
    """The number that the columns have for a home with these listings and deeds; None when it stands in none of them."""
    keys = [*(r["listing_id"] for r in past), *(f"{store.DEED}{r['transfer_key']}" for r in deeds)]
    return next((int(columns.home_id[row]) for row in map(columns.row, keys) if row is not None), None)


def checked_corrections(corrections: Mapping[str, Value | None]) -> dict[str, Value | None]:
    """The agent's facts, each checked against its field. BadInput names the field and what it would take."""
    out: dict[str, Value | None] = {}
    for name, value in corrections.items():
        f = BY_NAME.get(name)
        if f is None or name not in _FACTS:
            raise BadInput(name, f"“{name}” is no fact of a home: use one of {', '.join(_FACTS)}.")
        if value is None:
            out[name] = None
            continue
        if not f.numeric:
            if not isinstance(value, str) or not value.strip() or len(value) > 500:
                raise BadInput(name, f"{f.label} takes words, up to 500 letters.")
            out[name] = value.strip()
            continue
        if isinstance(value, str) or value != value:
            raise BadInput(name, f"{f.label} takes a number.")
        low = f.low if f.low is not None else 0
        high = f.high if f.high is not None else 1e9
        if not low <= value <= high:
            unit = f" {f.unit}" if f.unit else ""
            raise BadInput(name, f"{f.label} of {value:,.10g}{unit} makes no sense: give {low:,.10g} to {high:,.10g}.")
        out[name] = float(value)
    return out


def own_sale(records: Snapshot, home: Home) -> tuple[str, dt.date] | None:
    """The home's own sale that --exclude-self hides: the named listing if it sold, else its newest sale; no lease.

    Returns its number and the date at which its price was agreed (contract, else closing).
    """
    columns = records.columns
    keys = [home.subject.own_listing, *(r["listing_id"] for r in home.listings)]
    for row in map(columns.row, keys):
        if row is not None and columns.close[row] != NO_DAY and not columns.lease[row]:
            return str(columns.keys[row]), date_of(int(price_days(columns, np.array([row]))[0]))
    return None


# the home itself first, then its place and costs
FACT_FIELDS = tuple(
    sorted((f for f in FIELDS if f.name in _FACTS and f.name != "list_price"), key=lambda f: f.group != "home")
)
