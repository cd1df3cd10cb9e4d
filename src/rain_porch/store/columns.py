"""Listings and deed sales read into columns for whole-market scans."""

from __future__ import annotations

import datetime as dt
import json
import sqlite3
from typing import Any

import numpy as np

from ..core.columns import HOME_KINDS, KIND_CODE, NO_CHANGES, STATUSES, Columns, PriceChanges, Words
from ..core.condition import grade_of
from ..core.dates import NO_DAY
from ..core.fields import FIELDS, Kind
from ..core.status_history import NO_STATUSES, StatusChanges, tells_more
from ..core.words import plain, status_of
from .imports import records_version

NUMBERS = tuple(f.name for f in FIELDS if f.numeric)
WORDS = tuple(f.name for f in FIELDS if f.kind == Kind.WORD and f.name not in ("standard_status", "local_status"))
DATES = ("on_market_date", "purchase_contract_date", "close_date", "off_market_date")
_DEED_FACTS = tuple(f.name for f in FIELDS if f.parcel and (f.numeric or f.kind == Kind.WORD))
_NEW_BUILD_YEARS = 1
_SAME_CHANGE_DAYS = 30


_FIXED = ("listing_id", "standard_status", "home_kind", "is_lease", "manner", "home_key", "suspect")
_NAMES = (*_FIXED, *NUMBERS, *WORDS, *DATES)
_BATCH = 50_000
_STATUS = {s.value: i for i, s in enumerate(STATUSES)}
_KIND = {k.value: i for i, k in enumerate(HOME_KINDS)}
_MANNER = {"standard": 0, "distressed": 1, "not_arms_length": 2}


class _Gathering:
    """Rows become arrays a batch at a time, so that a million of them never stand in memory as Python objects."""

    def __init__(self) -> None:
        self.arrays: dict[str, list[Any]] = {name: [] for name in _NAMES}
        self.words: dict[str, dict[str, int]] = {name: {} for name in WORDS}
        self.homes: dict[str, int] = {}

    def take(self, rows: list[Any]) -> None:
        columns = {name: list(values) for name, values in zip(_NAMES, zip(*rows, strict=True), strict=True)}
        for r, text in enumerate(columns["suspect"]):
            if text:
                for name in json.loads(text):
                    if name in columns:
                        columns[name][r] = None
        put = self.arrays
        put["listing_id"].append(np.array(columns["listing_id"], dtype=object))
        put["standard_status"].append(np.array([_STATUS[s] for s in columns["standard_status"]], dtype=np.int8))
        put["home_kind"].append(np.array([_KIND[k] for k in columns["home_kind"]], dtype=np.int8))
        put["is_lease"].append(np.array(columns["is_lease"], dtype=np.bool_))
        put["manner"].append(np.array([_MANNER[m] for m in columns["manner"]], dtype=np.int8))
        put["home_key"].append(
            np.array([self.homes.setdefault(k, len(self.homes)) for k in columns["home_key"]], dtype=np.int64)
        )
        for name in NUMBERS:
            put[name].append(np.array(columns[name], dtype=np.float64))
        for name in WORDS:
            index = self.words[name]
            codes = [-1 if v is None else index.setdefault(v, len(index)) for v in columns[name]]
            put[name].append(np.array(codes, dtype=np.int32))
        for name in DATES:
            put[name].append(_days(columns[name]))

    def array(self, name: str, dtype: Any) -> Any:
        parts = self.arrays[name]
        return np.concatenate(parts) if parts else np.zeros(0, dtype=dtype)


def load_columns(db: sqlite3.Connection) -> Columns:
    """All listings and unmatched arm's-length transfers as columns; suspect values unknown; prices with their changes."""
    held = _Gathering()
    # in the order of their dates: what a window picks then lies together in memory
    cursor = db.execute(
        f"SELECT {', '.join(_NAMES)} FROM listings "
        "ORDER BY coalesce(close_date, off_market_date, purchase_contract_date, on_market_date), row_id"
    )
    cursor.row_factory = None
    listed = 0
    while rows := cursor.fetchmany(_BATCH):
        held.take(rows)
        listed += len(rows)
    deeds = _deed_rows(db)
    if deeds:
        held.take([tuple(deed.get(name) for name in _NAMES) for deed in deeds])
    deed = np.zeros(listed + len(deeds), dtype=np.bool_)
    deed[listed:] = True
    numbers = {name: held.array(name, np.float64) for name in NUMBERS}
    above = numbers["above_grade_finished_area"]
    numbers["living_area"] = np.where(np.isfinite(above), above, numbers["living_area"])
    words = {name: Words(held.array(name, np.int32), tuple(held.words[name])) for name in WORDS}
    numbers["condition_grade"] = _grades(words["property_condition"])
    dates = {name: held.array(name, np.int32) for name in DATES}
    manner = held.array("manner", np.int8)
    keys = held.array("listing_id", object)
    said = _said_of(db, keys)
    prices, statuses = _changes(db, keys)
    new_construction = _new_construction(numbers, words, dates)
    for row, says in said["new_construction"].items():
        new_construction[row] = says == "1"
    return Columns(
        keys=keys,
        numbers=numbers,
        words=words,
        on_market=dates["on_market_date"],
        contract=dates["purchase_contract_date"],
        close=dates["close_date"],
        off_market=dates["off_market_date"],
        status=held.array("standard_status", np.int8),
        home_kind=held.array("home_kind", np.int8),
        deed=deed,
        lease=held.array("is_lease", np.bool_),
        not_arms_length=manner == 2,
        distressed=manner == 1,
        new_construction=new_construction,
        no_quick_resale=frozenset(said["quick_resale"]),
        home_id=held.array("home_key", np.int64),
        changes=prices,
        statuses=statuses,
        version=records_version(db),
        home_of=held.homes,
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


def _days(values: list[Any]) -> np.ndarray[Any, np.dtype[np.int32]]:
    text = np.array(["NaT" if v is None else v[:10] for v in values], dtype="datetime64[D]")
    days = text.astype(np.int64)
    return np.where(np.isnat(text), NO_DAY, days).astype(np.int32)


def _grades(words: Words) -> Any:
    """The grade of condition that each row's word stands for; NaN where it says nothing."""
    grades = np.array([np.nan if (g := grade_of(word)) is None else g for word in words.words] + [np.nan])
    return grades[words.codes]  # an unknown word's code is -1: the last


def _new_construction(numbers: dict[str, Any], words: dict[str, Words], dates: dict[str, Any]) -> Any:
    """Said to be new, or sold by its builder in the year it was built or the next."""
    said = numbers["new_construction_yn"] == 1
    year = np.where(dates["close_date"] == NO_DAY, dates["on_market_date"], dates["close_date"])
    when = 1970 + year.astype(np.float64) / 365.2425
    young = np.abs(np.floor(when) - numbers["year_built"]) <= _NEW_BUILD_YEARS
    return said | (young & (words["builder_name"].codes >= 0))


def _said_of(db: sqlite3.Connection, keys: Any) -> dict[str, dict[int, str]]:
    """What the agent says of conclusions that stand in no column of the records: about → row → word."""
    out: dict[str, dict[int, str]] = {"new_construction": {}, "quick_resale": {}}
    told = db.execute(
        "SELECT record_key, about, says FROM rulings WHERE kind = 'listings' "
        "AND about IN ('new_construction', 'quick_resale')"
    ).fetchall()
    if told:
        row_of = {key: i for i, key in enumerate(keys)}
        for r in told:
            if (row := row_of.get(r["record_key"])) is not None:
                out[r["about"]][row] = r["says"]
    return out


def _changes(db: sqlite3.Connection, keys: Any) -> tuple[PriceChanges, StatusChanges]:
    """Price changes of all listings, and changes of status of those whose dates do not tell their way.

    A price change that both a history file and an import tell of counts once, at its first date.
    """
    row_of = {key: i for i, key in enumerate(keys)}
    told: dict[tuple[int, float, str | None], str] = {}
    prices: list[tuple[int, str, float]] = []
    statuses: dict[int, list[tuple[str, int]]] = {}
    kinds: dict[str, int | None] = {}
    for listing, at, event, old, new in db.execute(
        "SELECT listing_id, at, event, old_value, new_value FROM events WHERE old_value IS NOT NULL ORDER BY at"
    ):
        row = row_of.get(listing)
        if row is None:
            continue
        what = plain(event)
        if what == "pricechange":
            price = _number(old)
            if price is None:
                continue
            change = (row, price, new)
            if not (change in told and _near(told[change], at)):
                told[change] = at[:10]
                prices.append((row, at[:10], price))
        elif what == "statuschange" and new:
            if new not in kinds:
                kinds[new] = None if (s := status_of(new)) is None else int(KIND_CODE[_STATUS[s.value]])
            if (kind := kinds[new]) is not None:
                statuses.setdefault(row, []).append((at[:10], kind))
    return _price_changes(prices), _status_changes(statuses)


def _number(text: str) -> float | None:
    try:
        return float(text)
    except ValueError:
        return None


def _price_changes(told: list[tuple[int, str, float]]) -> PriceChanges:
    if not told:
        return NO_CHANGES
    at, day, old_prices = zip(*sorted(told), strict=True)
    return PriceChanges(np.array(at, dtype=np.int64), _days(list(day)), np.array(old_prices))


def _status_changes(told: dict[int, list[tuple[str, int]]]) -> StatusChanges:
    rows = [
        (row, day, kind) for row, way in sorted(told.items()) if tells_more([k for _, k in way]) for day, kind in way
    ]
    if not rows:
        return NO_STATUSES
    at, day, kinds = zip(*rows, strict=True)
    return StatusChanges(np.array(at, dtype=np.int64), _days(list(day)), np.array(kinds, dtype=np.int8))


def _near(earlier: str, later: str) -> bool:
    return (dt.date.fromisoformat(later[:10]) - dt.date.fromisoformat(earlier[:10])).days <= _SAME_CHANGE_DAYS
