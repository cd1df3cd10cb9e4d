"""Listings and deed sales read into columns for whole-market scans."""

from __future__ import annotations

import json
import sqlite3
from typing import Any

import numpy as np

from ..core.columns import HOME_KINDS, NO_CHANGES, STATUSES, Columns, PriceChanges, Words
from ..core.dates import NO_DAY
from ..core.fields import FIELDS, Kind
from ..core.words import plain
from .imports import records_version

NUMBERS = tuple(f.name for f in FIELDS if f.numeric)
WORDS = tuple(f.name for f in FIELDS if f.kind == Kind.WORD and f.name not in ("standard_status", "local_status"))
DATES = ("on_market_date", "purchase_contract_date", "close_date", "off_market_date")
_DEED_FACTS = tuple(f.name for f in FIELDS if f.parcel and (f.numeric or f.kind == Kind.WORD))
_NEW_BUILD_YEARS = 1


def load_columns(db: sqlite3.Connection) -> Columns:
    """All listings and unmatched arm's-length transfers as columns; suspect values unknown; prices with their changes."""
    names = (*NUMBERS, *WORDS, *DATES)
    picked = ", ".join(names)
    rows = db.execute(
        f"SELECT listing_id, standard_status, home_kind, is_lease, manner, home_key, suspect, {picked} "
        "FROM listings ORDER BY row_id"
    ).fetchall()
    deeds = _deed_rows(db)
    n = len(rows) + len(deeds)
    columns: dict[str, list[Any]] = {}
    table = list(zip(*rows, strict=True)) if rows else [()] * (7 + len(names))
    for i, name in enumerate(
        ("listing_id", "standard_status", "home_kind", "is_lease", "manner", "home_key", "suspect", *names)
    ):
        columns[name] = list(table[i])
    for r, text in enumerate(columns["suspect"]):
        if text:
            for name in json.loads(text):
                if name in columns:
                    columns[name][r] = None
    for sale in deeds:
        for name in columns:
            columns[name].append(sale.get(name))
    numbers = {
        name: np.array([np.nan if v is None else v for v in columns[name]], dtype=np.float64) for name in NUMBERS
    }
    above = numbers["above_grade_finished_area"]
    numbers["living_area"] = np.where(np.isfinite(above), above, numbers["living_area"])
    words = {name: _words(columns[name]) for name in WORDS}
    dates = {name: _days(columns[name]) for name in DATES}
    status_code = {s.value: i for i, s in enumerate(STATUSES)}
    kind_code = {k.value: i for i, k in enumerate(HOME_KINDS)}
    manner = np.array(
        [{"standard": 0, "distressed": 1, "not_arms_length": 2}[m or "standard"] for m in columns["manner"]],
        dtype=np.int8,
    )
    homes: dict[str, int] = {}
    home_id = np.array([homes.setdefault(k, len(homes)) for k in columns["home_key"]], dtype=np.int64)
    keys = np.array(columns["listing_id"], dtype=object)
    deed = np.zeros(n, dtype=np.bool_)
    deed[len(rows) :] = True
    return Columns(
        keys=keys,
        numbers=numbers,
        words=words,
        on_market=dates["on_market_date"],
        contract=dates["purchase_contract_date"],
        close=dates["close_date"],
        off_market=dates["off_market_date"],
        status=np.array([status_code[s] for s in columns["standard_status"]], dtype=np.int8),
        home_kind=np.array([kind_code[k] for k in columns["home_kind"]], dtype=np.int8),
        deed=deed,
        lease=np.array([bool(v) for v in columns["is_lease"]], dtype=np.bool_),
        not_arms_length=manner == 2,
        distressed=manner == 1,
        new_construction=_new_construction(numbers, words, dates),
        home_id=home_id,
        changes=_price_changes(db, {k: i for i, k in enumerate(columns["listing_id"])}),
        version=records_version(db),
        home_of=homes,
    )


def _deed_rows(db: sqlite3.Connection) -> list[dict[str, Any]]:
    """Arm's-length transfers that belong to no listing, with the facts of their parcel, in the shape of listings."""
    facts = ", ".join(f"p.{name}" for name in _DEED_FACTS)
    rows = db.execute(
        f"SELECT t.transfer_key, t.price AS close_price, coalesce(t.sale_date, t.recording_date) AS close_date, "
        f"'parcel:' || t.parcel_number AS home_key, coalesce(p.home_kind, 'unknown') AS home_kind, {facts} "
        "FROM transfers t LEFT JOIN parcels p ON p.parcel_number = t.parcel_number "
        "WHERE t.listing_id IS NULL AND t.not_arms_length IS NULL AND t.suspect IS NULL ORDER BY t.row_id"
    )
    return [
        {
            **dict(r),
            "listing_id": f"deed:{r['transfer_key']}",
            "standard_status": "Closed",
            "is_lease": 0,
            "manner": "standard",
        }
        for r in rows
    ]


def _words(values: list[Any]) -> Words:
    index: dict[str, int] = {}
    codes = np.array([-1 if v is None else index.setdefault(v, len(index)) for v in values], dtype=np.int32)
    return Words(codes, tuple(index))


def _days(values: list[Any]) -> np.ndarray[Any, np.dtype[np.int32]]:
    text = np.array(["NaT" if v is None else v[:10] for v in values], dtype="datetime64[D]")
    days = text.astype(np.int64)
    return np.where(np.isnat(text), NO_DAY, days).astype(np.int32)


def _new_construction(numbers: dict[str, Any], words: dict[str, Words], dates: dict[str, Any]) -> Any:
    """Said to be new, or sold by its builder in the year it was built or the next."""
    said = numbers["new_construction_yn"] == 1
    year = np.where(dates["close_date"] == NO_DAY, dates["on_market_date"], dates["close_date"])
    when = 1970 + year.astype(np.float64) / 365.2425
    young = np.abs(np.floor(when) - numbers["year_built"]) <= _NEW_BUILD_YEARS
    return said | (young & (words["builder_name"].codes >= 0))


def _price_changes(db: sqlite3.Connection, row_of: dict[str, int]) -> PriceChanges:
    rows: list[tuple[int, str, float]] = []
    for r in db.execute("SELECT listing_id, at, event, old_value FROM events WHERE old_value IS NOT NULL ORDER BY at"):
        if plain(r["event"]) == "pricechange" and r["listing_id"] in row_of:
            try:
                rows.append((row_of[r["listing_id"]], r["at"][:10], float(r["old_value"])))
            except ValueError:
                continue
    if not rows:
        return NO_CHANGES
    rows.sort()
    at, day, old = zip(*rows, strict=True)
    return PriceChanges(np.array(at, dtype=np.int64), _days(list(day)), np.array(old))
