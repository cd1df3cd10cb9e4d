"""Homes looked up in the records: by address, number or place; a home's own records."""

from __future__ import annotations

import math
import re
import sqlite3
from collections.abc import Iterable, Iterator, Sequence
from dataclasses import dataclass
from typing import Any

import numpy as np

from ...core.facts.places import addresses
from ...core.facts.places.parcels import plain
from ...core.facts.places.place import near_miles
from ..db import Db


@dataclass(frozen=True)
class Hit:
    """One home that an address may mean. kind: parcel or listing; key: its number; shown: its address in full."""

    kind: str
    key: str
    shown: str


DEED = "deed:"  # before a transfer's key, where it stands among the listings as a sale known from its deed alone


def parcel(db: Db, number: str) -> dict[str, Any] | None:
    row = db.execute("SELECT * FROM parcels WHERE parcel_number = :n", {"n": number}).fetchone()
    return dict(row) if row else None


def parcels_of_kind(db: Db, kind: str) -> list[str]:
    """The numbers of the parcels with a home of a kind whose size is known, in order."""
    rows = db.execute(
        "SELECT parcel_number FROM parcels WHERE home_kind = :k AND living_area IS NOT NULL ORDER BY parcel_number",
        {"k": kind},
    )
    return [r[0] for r in rows]


def number_forms(db: Db) -> tuple[str, ...]:
    """How parcel numbers are written here, each sign but those between the parts an x: "xx-xxxx"; by the first 400 of them."""
    rows = db.execute("SELECT parcel_number FROM parcels LIMIT 400")
    return tuple(sorted({re.sub(r"[A-Za-z0-9]", "x", r["parcel_number"]) for r in rows}))


def parcel_as_typed(db: Db, text: str, forms: Iterable[str]) -> dict[str, Any] | None:
    """The parcel of a number typed with other signs between its parts, or with none: "0312" may be "03-12". forms: as from
    `number_forms`."""
    bare = plain(text)
    if not bare or not any(ch.isdigit() for ch in bare):
        return None
    for form in forms:
        if form.count("x") == len(bare):
            signs = iter(bare)
            number = "".join(next(signs) if ch == "x" else ch for ch in form)
            if row := parcel(db, number) or parcel(db, number.upper()):
                return row
    return None


def listing(db: Db, listing_id: str) -> dict[str, Any] | None:
    row = db.execute("SELECT * FROM listings WHERE listing_id = :n", {"n": listing_id}).fetchone()
    return dict(row) if row else None


def numbered(db: Db, begins: str, limit: int) -> list[Hit]:
    """The homes whose parcel or listing number begins with what is typed, signs and letters as it has them, in order."""
    out = []
    for kind, table, number in (("parcel", "parcels", "parcel_number"), ("listing", "listings", "listing_id")):
        rows = db.execute(
            f"SELECT {number} AS key, coalesce(unparsed_address || coalesce(', unit ' || unit_number, ''), {number}) AS shown FROM {table} "
            f"WHERE {number} >= :begins AND {number} < :beyond ORDER BY {number} LIMIT :limit",
            {"begins": begins, "beyond": begins + "\U0010ffff", "limit": limit},
        )
        out += [Hit(kind, r["key"], r["shown"]) for r in rows]
    return out[:limit]


def transfer(db: Db, key: str) -> dict[str, Any] | None:
    row = db.execute("SELECT * FROM transfers WHERE transfer_key = :n", {"n": key}).fetchone()
    return dict(row) if row else None


def listings_of_home(db: Db, home_key: str) -> list[dict[str, Any]]:
    """All listings of one home, newest first; of those that several sources tell of, the one that stands for them."""
    rows = db.execute(
        "SELECT * FROM listings WHERE home_key = :k AND same_as IS NULL "
        "ORDER BY coalesce(close_date, off_market_date, purchase_contract_date, on_market_date) DESC",
        {"k": home_key},
    )
    return [dict(r) for r in rows]


def told_by(db: Db, listing_id: str) -> list[tuple[str, str]]:
    """(source, its number) of all records that tell of one listing, the one that stands for them first."""
    rows = db.execute(
        "SELECT s.name, l.listing_id FROM listings l JOIN sources s USING (source_id) "
        "WHERE l.listing_id = :n OR l.same_as = :n ORDER BY l.same_as IS NOT NULL, l.row_id",
        {"n": listing_id},
    )
    return [(str(r[0]), str(r[1])) for r in rows]


def source_of(db: Db, record: dict[str, Any]) -> str:
    """Name of the source that a record came from."""
    row = db.execute("SELECT name FROM sources WHERE source_id = :id", {"id": record["source_id"]}).fetchone()
    return str(row["name"])


def events_of(db: Db, listing_id: str) -> list[dict[str, Any]]:
    """Events of a listing, oldest first."""
    rows = db.execute(
        "SELECT at, event, old_value, new_value FROM events WHERE listing_id = :n ORDER BY at, row_id",
        {"n": listing_id},
    )
    return [dict(r) for r in rows]


def transfers_of_parcel(db: Db, number: str) -> list[dict[str, Any]]:
    """Transfers of a parcel, newest first, without the parties' names."""
    rows = db.execute(
        "SELECT coalesce(sale_date, recording_date) AS date, price, document_type, not_arms_length, listing_id, transfer_key "
        "FROM transfers WHERE parcel_number = :n ORDER BY date DESC",
        {"n": number},
    )
    return [dict(r) for r in rows]


def addresses_of(db: Db, listing_ids: list[str]) -> dict[str, str]:
    """listing id → address with unit, for those that have one. Deed sales take their parcel's; what was numbered by its place is
    called by it."""
    out = {key: called for key in listing_ids if (called := addresses.called_by_place(key))}
    for first in range(0, len(listing_ids), 900):
        part = listing_ids[first : first + 900]
        marks = ", ".join("?" * len(part))
        for r in db.execute(
            "SELECT listing_id, unparsed_address || coalesce(', unit ' || unit_number, '') AS shown FROM listings "
            f"WHERE listing_id IN ({marks}) AND unparsed_address IS NOT NULL "
            "UNION ALL SELECT 'deed:' || t.transfer_key, p.unparsed_address || coalesce(', unit ' || p.unit_number, '') "
            f"FROM transfers t JOIN parcels p USING (parcel_number) WHERE t.transfer_key IN ({marks}) "
            "AND p.unparsed_address IS NOT NULL",
            [*part, *(k.removeprefix(DEED) if k.startswith(DEED) else None for k in part)],
        ):
            out[r["listing_id"]] = r["shown"]
    return out


def _match(db: Db, query: str, limit: int, number: int | None = None, is_street: bool = False) -> list[Hit]:
    """What fits a query best; of what fits alike the house numbers nearest to one, where one is given. is_street: what fits is
    the street that is meant, so that the number comes first."""
    rows = db.execute(
        "SELECT kind, key, shown, abs(CAST(shown AS INTEGER) - :number) AS apart FROM addresses WHERE addresses MATCH :q "
        "ORDER BY CASE WHEN :is_street THEN apart END, rank, apart, length(shown), shown LIMIT :limit",
        {"q": query, "limit": limit, "number": number, "is_street": is_street},
    )
    return [Hit(r["kind"], r["key"], r["shown"]) for r in rows]


def address_terms(db: Db) -> tuple[str, ...]:
    """The words of all addresses, house numbers left out. Gathering them looks through the whole index."""
    return tuple(r["term"] for r in db.execute("SELECT term FROM address_words") if not r["term"][0].isdigit())


def search_address(db: Db, text: str, terms: Sequence[str], limit: int = 12) -> list[Hit]:
    """Homes whose address has all the words, in any order, the last one perhaps unfinished; else with one slip a word;
    else as `addresses.readings` reads them. terms: as from `address_terms`."""
    parts = addresses.words(text)
    if not parts:
        return []
    exact = [f'"{p}"' for p in parts]
    found = (
        _match(db, " AND ".join(exact), limit)
        or _match(db, " AND ".join([*exact[:-1], _unfinished(parts[-1])]), limit)
        or _match(db, " AND ".join(_with_slips(terms, p) for p in parts), limit)
    )
    for other in addresses.readings(parts):
        found = found or _match(db, " AND ".join(_with_slips(terms, p) for p in other), limit)
    return found


def _unfinished(word: str) -> str:
    return "(" + " OR ".join([f'"{word}" *', *(f'"{w}"' for w in addresses.unfinished(word))]) + ")"


def nearest_addresses(db: Db, text: str, terms: Sequence[str], limit: int = 5) -> list[Hit]:
    """What comes close to an address that fits nothing: on its street the house numbers nearest to its own, then what has any of its words."""
    parts = addresses.words(text)
    words = [p for p in parts if not p[0].isdigit()]
    if not words:
        return []
    number = next((int(n[0]) for p in parts if (n := re.match(r"\d{1,9}", p))), None)
    near = [_with_slips(terms, p) for p in words]
    found = _match(db, " AND ".join(near), limit, number, is_street=True)
    others = _match(db, " OR ".join(near), limit, number) if len(found) < limit else []
    return [*found, *(h for h in others if h not in found)][:limit]


def _with_slips(terms: Sequence[str], word: str) -> str:
    """The word, its continuations, and the words of the records one typing slip away, as an FTS5 expression."""
    if word[0].isdigit() or len(word) < 4:
        return f'"{word}"'
    near = [t for t in terms if abs(len(t) - len(word)) <= 1 and addresses.one_slip(t, word)]
    near = [*addresses.slips_of_usual(word), *near]
    return "(" + " OR ".join([f'"{word}" *', *(f'"{n}"' for n in near[:20])]) + ")"


# a record whose place is suspect stands nowhere
_PLACED = "({0}.suspect IS NULL OR {0}.suspect NOT LIKE '%itude%')"


def middle_of(db: Db, postal_code: str | None, city: str | None) -> tuple[float, float] | None:
    """(latitude, longitude) in the middle of the records of a postal code, else of a city; None where none has a place."""
    for name, value in (("postal_code", postal_code), ("city", city)):
        if value:
            row = db.execute(
                f"SELECT avg(latitude), avg(longitude), count(latitude) FROM listings l WHERE {name} = :v AND {_PLACED.format('l')}",
                {"v": value},
            ).fetchone()
            if row[2]:
                return float(row[0]), float(row[1])
    return None


def nearest_home(db: Db, lat: float, lon: float, within_miles: float = 0.15) -> tuple[str, str] | None:
    """("parcel" or "listing", key) of the home nearest to a point; a parcel before a listing at the same distance."""
    reach = within_miles / 60
    box = {"s": lat - reach, "n": lat + reach, "w": lon - 2 * reach, "e": lon + 2 * reach}
    found: list[tuple[float, int, str, str]] = []
    for r in db.execute(
        "SELECT p.parcel_number AS key, p.latitude, p.longitude FROM parcels p "
        "WHERE latitude BETWEEN :s AND :n AND longitude BETWEEN :w AND :e "
        f"AND {_PLACED.format('p')}",
        box,
    ):
        found.append((_miles(lat, lon, r), 0, "parcel", r["key"]))
    for r in db.execute(
        "SELECT l.listing_id AS key, l.latitude, l.longitude FROM listings l "
        "WHERE latitude BETWEEN :s AND :n AND longitude BETWEEN :w AND :e "
        f"AND {_PLACED.format('l')} "
        "ORDER BY coalesce(l.close_date, l.on_market_date) DESC",
        box,
    ):
        found.append((_miles(lat, lon, r), 1 + len(found), "listing", r["key"]))
    if not found:
        return None
    far, _, kind, key = min(found)
    return (kind, key) if far <= within_miles else None


def _miles(lat: float, lon: float, row: sqlite3.Row) -> float:
    """Distance rounded to a yard, so that records of one spot tie and the newest comes first."""
    return round(float(near_miles(lat, lon, np.array([row["latitude"]]), np.array([row["longitude"]]))[0]), 3)


def assessments_of(db: Db, parcel_number: str) -> list[dict[str, Any]]:
    """A parcel's assessments by year, newest first."""
    rows = db.execute(
        "SELECT tax_year, total_value, tax_amount FROM assessments WHERE parcel_number = :n ORDER BY tax_year DESC",
        {"n": parcel_number},
    )
    return [dict(r) for r in rows]


def with_parcels(db: Db) -> Iterator[tuple[str, str]]:
    """Every listing and deed sale that names its parcel: (key among the columns, parcel number)."""
    yield from db.execute("SELECT listing_id, parcel_number FROM listings WHERE parcel_number IS NOT NULL")
    yield from db.execute(
        "SELECT 'deed:' || transfer_key, parcel_number FROM transfers WHERE parcel_number IS NOT NULL"
    )


def with_words(db: Db, field: str, words: Sequence[str], must_be_known: bool) -> list[str]:
    """Listings whose text has any of the words, anywhere and without case; those without a text too unless they must.

    The field's name comes from the catalogue.
    """
    likes = {f"w{n}": f"%{_literal(word)}%" for n, word in enumerate(words)}
    has = " OR ".join(f"{field} LIKE :{name} ESCAPE '!'" for name in likes) or "1"
    known = "" if must_be_known else f" OR {field} IS NULL OR {field} = ''"
    return [r[0] for r in db.execute(f"SELECT listing_id FROM listings WHERE {has}{known}", likes)]


def _literal(word: str) -> str:
    return word.replace("!", "!!").replace("%", "!%").replace("_", "!_")


def parcels_within(db: Db, lat: float, lon: float, within_miles: float, fields: tuple[str, ...]) -> list[sqlite3.Row]:
    """Parcels of a box that holds the circle, with their place, kind and some fields of the catalogue; at most 50,000."""
    tall, wide = within_miles / 68.5, within_miles / max(1.0, 68.5 * math.cos(math.radians(lat)))
    return db.execute(
        f"SELECT latitude, longitude, home_kind, {', '.join(fields)} FROM parcels WHERE suspect IS NULL "
        "AND latitude BETWEEN :s AND :n AND longitude BETWEEN :w AND :e LIMIT 50000",
        {"s": lat - tall, "n": lat + tall, "w": lon - wide, "e": lon + wide},
    ).fetchall()
